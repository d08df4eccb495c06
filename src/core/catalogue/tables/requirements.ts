import { FactKinds, figureIn, formatFigure, type Measure, parseFigure, readSwitch } from '../../condition';
import type { Product, Requirement } from '../schema';
import { freeId } from '../sketch/sketch';
import { cleanCell } from './cells';
import { placesOfProduct, rangeOfWords } from './places';
import {
  cellOf,
  isCalled,
  LEFT_OUT,
  Once,
  rolesByHeading,
  type TableChange,
  type TableReader,
  withEntry
} from './reader';

const THINGS: readonly (readonly [RegExp, string])[] = [
  [/graphics? (memory|ram)|video (memory|ram)/i, 'graphics.memory'],
  [/graphics?|video|display adapter/i, 'graphics.level'],
  [/\b(memory|ram)\b/i, 'memory'],
  [/download|update (space|room)/i, 'disk.free.download'],
  [/working|scratch|temporary/i, 'disk.free.working'],
  [/free|available/i, 'disk.free.system'],
  [/drive (kind|type)|kind of drive/i, 'drive.kind'],
  [/\b(dis[ck]|drive|storage|space|capacity)\b/i, 'disk.total'],
  [/word size|\bbits?\b|architecture/i, 'processor.bits'],
  [/cores?\b/i, 'processor.cores'],
  [/processor speed|clock|frequency|processor|cpu/i, 'processor.speed'],
  [/resolution|screen|display|width/i, 'display.width'],
  [/secur\w* (part|module|chip|device)|trusted/i, 'security-part'],
  [/(checked|verified|secure|trusted) (start|boot)/i, 'firmware.checked-start'],
  [/firmware/i, 'firmware.level'],
  [/network|internet/i, 'network.at-set-up'],
  [/account/i, 'account.at-set-up'],
  [/model year|year/i, 'model.year']
];

const FRESH = /fresh|clean|new|re-?install/i;
const IN_PLACE = /in.place|upgrad|over|existing/i;

/** A figure of a cell in the measure of a fact: `at least 4 GB`, `64-bit`, `1,280 px`. Undefined where it is none. */
function figureOf(cell: string, measure: Measure): string | undefined {
  const clean = cleanCell(cell)
    .replace(/\s*\([^)]*\)/g, '')
    .replace(/^(?:at least|min(?:imum)?\.?|from|>=?|≥|generation|level|version)\s*/i, '')
    .replace(/\s*(?:or (?:more|better|higher|later|faster)|and (?:up|above)|\+)$/i, '')
    .replace(/(\d),(?=\d{3}\b)/g, '$1')
    .replace(/(\d)-(?=[a-z])/gi, '$1 ')
    .replace(/\s+cores?$/i, '')
    .trim();
  const figure = parseFigure(clean);
  return figure && figureIn(measure, figure) !== undefined ? formatFigure(figure) : undefined;
}

/** What a cell asks of a fact, as a condition. Undefined where it says nothing that can be compared. */
function demandOf(cell: string, fact: string, measure: Measure): string | undefined {
  if (measure === 'switch') {
    const clean = cleanCell(cell);
    const said = /^(required|needed|must|present|yes)\b/i.test(clean) ? true : readSwitch(clean);
    return said === undefined ? undefined : `${fact} is ${said ? 'on' : 'off'}`;
  }
  if (measure === 'text') return undefined;
  const figure = figureOf(cell, measure);
  return figure === undefined ? undefined : `${fact} at least ${figure}`;
}

/** Least and recommended: what each thing must be, for releases, methods and editions. */
export const requirementsReader: TableReader = {
  roles: ['thing', 'least', 'recommended', 'method', 'edition', 'release', LEFT_OUT],
  meanings: ({ facts }) => [...new FactKinds(facts).all().map((k) => k.id), LEFT_OUT],
  suggestRoles({ head }) {
    const roles = rolesByHeading(head, [
      ['recommended', /recommend|better|suggest|well|comfort/i],
      ['least', /least|min|requir|need|lowest/i],
      ['method', /method|way|how|install/i],
      ['edition', /edition|variant/i],
      ['release', /release|version|line/i],
      ['thing', /thing|component|part|hardware|resource|item|what|property/i]
    ]);
    const free = roles.indexOf(LEFT_OUT);
    return roles.includes('thing') ? roles : roles.map((r, i) => (i === free ? 'thing' : r));
  },
  words: (reading) => [
    ...new Set(reading.table.rows.map((r) => cleanCell(cellOf(reading, r, 'thing'))).filter(Boolean))
  ],
  suggestMeaning: (word) => THINGS.find(([said]) => said.test(word))?.[1] ?? LEFT_OUT,
  take(reading, ground) {
    const kinds = new FactKinds(ground.facts);
    const places = placesOfProduct(ground.product);
    const changes: TableChange[] = [];
    const left: number[] = [];
    const unread: { of: string; cell: string }[] = [];
    const once = new Once();
    let requirements = ground.product.requirements ?? [];
    reading.table.rows.forEach((row, i) => {
      const thing = cleanCell(cellOf(reading, row, 'thing'));
      const fact = reading.meanings.get(thing) ?? requirementsReader.suggestMeaning(thing, ground);
      const kind = kinds.find(fact);
      const release = cellOf(reading, row, 'release');
      const at = release === '' ? reading.about.at : rangeOfWords(places, release);
      if (thing === '' || !kind || at === undefined) return void left.push(i);
      const [method, edition] = [cellOf(reading, row, 'method'), cellOf(reading, row, 'edition')];
      const editions = editionsNamed(ground.product.editions ?? [], edition);
      if (editions === undefined) unread.push({ of: thing, cell: edition });
      for (const [role, grade] of [
        ['least', 'blocks'],
        ['recommended', 'degrades']
      ] as const) {
        const cell = cellOf(reading, row, role);
        if (/^([-–—]?|none|any|n\/a)$/i.test(cleanCell(cell))) continue;
        const needs = demandOf(cell, fact, kind.measure);
        if (needs === undefined || editions === undefined) {
          if (needs === undefined) unread.push({ of: thing, cell });
          continue;
        }
        const methods = FRESH.test(method)
          ? (['fresh install'] as const)
          : IN_PLACE.test(method)
            ? (['in place'] as const)
            : undefined;
        if (!once.isFirst(fact, role, at, method, ...editions)) continue;
        const asked: Omit<Requirement, 'id'> = {
          at,
          ...(methods ? { methods: [...methods] } : {}),
          ...(editions.length > 0 ? { editions } : {}),
          grade,
          needs,
          source: reading.source
        };
        const { list, change } = putRequirement(
          requirements,
          asked,
          `${fact}-${role}${methods ? `-${methods[0]}` : ''}`,
          fact
        );
        requirements = list;
        changes.push({ ...change, what: thing, details: change.details.map((d) => ({ ...d, role })) });
      }
    });
    return {
      ...ground,
      product: { ...ground.product, ...(requirements.length > 0 ? { requirements } : {}) },
      changes,
      left,
      unread
    };
  }
};

const same = (a: readonly string[] | undefined, b: readonly string[] | undefined): boolean =>
  JSON.stringify([...(a ?? [])].sort()) === JSON.stringify([...(b ?? [])].sort());

/** One that is asked of the same releases, by the same method, of the same editions, in the same degree, of the same fact. */
function putRequirement(
  list: readonly Requirement[],
  asked: Omit<Requirement, 'id'>,
  name: string,
  fact: string
): { readonly list: Requirement[]; readonly change: TableChange } {
  const alike = list.filter(
    (r) =>
      r.at === asked.at &&
      same(r.methods, asked.methods) &&
      same(r.editions, asked.editions) &&
      r.grade === asked.grade
  );
  const told = (kind: TableChange['kind'], after: string, before?: string): TableChange => ({
    kind,
    what: '',
    details: [{ role: '', after, ...(before === undefined ? {} : { before }) }]
  });
  const figure = (needs: string): string => needs.replace(`${fact} at least `, '').replace(`${fact} is `, '');
  if (alike.some((r) => r.needs.split(/\s+and\s+/).includes(asked.needs)))
    return { list: [...list], change: told('same', figure(asked.needs)) };
  const known = alike.find(
    (r) => r.needs.startsWith(`${fact} at least `) || r.needs.startsWith(`${fact} is `)
  );
  if (known && !/\s(and|or)\s/.test(known.needs))
    return {
      list: withEntry(list, { ...known, needs: asked.needs, source: asked.source }),
      change: told('changed', figure(asked.needs), figure(known.needs))
    };
  const id = freeId(name, new Set(list.map((r) => r.id)));
  return { list: [...list, { id, ...asked }], change: told('new', figure(asked.needs)) };
}

/** The editions a cell names; none for all of them; undefined where it names one that is not there. */
function editionsNamed(editions: NonNullable<Product['editions']>, cell: string): string[] | undefined {
  const clean = cleanCell(cell);
  if (/^([-–—]?|all|any|every)(\s+editions?)?$/i.test(clean)) return [];
  const found = clean
    .split(/\s*(?:[,;&/]|\band\b|\bor\b)\s*/i)
    .filter(Boolean)
    .map((word) => editions.find((e) => isCalled(e, word))?.id);
  return found.every((id) => id !== undefined) ? found : undefined;
}
