import { foldText } from '../../version';
import type { Caution } from '../schema';
import { freeId, GUESS } from '../sketch/sketch';
import { cleanCell } from './cells';
import { placesOfProduct, rangeOfWords } from './places';
import {
  cellOf,
  LEFT_OUT,
  Once,
  rolesByHeading,
  type TableChange,
  type TableDetail,
  type TableReader,
  withEntry
} from './reader';

const CONSEQUENCES: readonly (readonly [RegExp, Caution['consequence']])[] = [
  [/rebuil|re-?creat|anew|re-?index|restore|from scratch/i, 'rebuild'],
  [/stall|hang|stand|slow|stuck|wait|freez/i, 'stall'],
  [/cosmetic|display|harmless|looks|wording|low|minor|shown/i, 'cosmetic'],
  [/lost|outage|down|unreachable|no (network|service)|not start|crash|critical|high|severe/i, 'service lost'],
  [/degrad|partial|some|limit|reduc|medium|moderate|less|forgot/i, 'degraded']
];

const ROLES = {
  name: 'the problem',
  from: 'when leaving',
  to: 'where it is met',
  fixed: 'gone in',
  consequence: 'what it does',
  ignored: 'if nothing is done',
  check: 'how to check',
  workAround: 'a work-around',
  reference: 'its number'
} as const;

/** What is affected, less what has it mended. */
function metIn(affected: string | undefined, fixed: string | undefined): string | undefined {
  if (fixed === undefined) return affected;
  if (affected === undefined || affected === 'any') return `before ${fixed}`;
  const from = /^from (\S+)$/.exec(affected);
  return from ? `${from[1]} to before ${fixed}` : affected;
}

/** A page of known problems, a row each. */
export const problemsReader: TableReader = {
  roles: [...Object.values(ROLES), LEFT_OUT],
  meanings: () => [...CONSEQUENCES.map(([, c]) => c), LEFT_OUT],
  suggestRoles({ head }) {
    const roles = rolesByHeading(head, [
      [ROLES.workAround, /work.?around|remedy|solution|what to do|avoid/i],
      [ROLES.fixed, /fixed|gone|resolved|mended|corrected/i],
      [ROLES.check, /check|detect|how to (see|tell|find)/i],
      [ROLES.from, /\b(from|leaving|source|coming)\b/i],
      [ROLES.to, /affect|met in|version|release|\bto\b|\bin\b|arriv|target/i],
      [ROLES.ignored, /ignored|otherwise|if nothing|symptom|detail/i],
      [ROLES.consequence, /consequence|impact|severity|effect|what (it does|happens)|result/i],
      [ROLES.reference, /number|\bid\b|reference|article|note|^no\.?$|^#$/i],
      [ROLES.name, /problem|issue|fault|defect|bug|title|summary|description|what/i]
    ]);
    const free = roles.indexOf(LEFT_OUT);
    return roles.includes(ROLES.name) ? roles : roles.map((r, i) => (i === free ? ROLES.name : r));
  },
  words: (reading) => [
    ...new Set(reading.table.rows.map((r) => cleanCell(cellOf(reading, r, ROLES.consequence))))
  ],
  suggestMeaning: (word) => CONSEQUENCES.find(([said]) => said.test(word))?.[1] ?? LEFT_OUT,
  take(reading, ground) {
    const places = placesOfProduct(ground.product);
    const changes: TableChange[] = [];
    const left: number[] = [];
    const unread: { of: string; cell: string }[] = [];
    const once = new Once();
    let cautions = ground.product.cautions ?? [];
    reading.table.rows.forEach((row, i) => {
      const cell = (role: string): string => cleanCell(cellOf(reading, row, role));
      const name = cell(ROLES.name).slice(0, 300);
      const word = cell(ROLES.consequence);
      const consequence = (reading.meanings.get(word) ?? problemsReader.suggestMeaning(word, ground)) as
        Caution['consequence'] | typeof LEFT_OUT;
      const range = (role: string): string | undefined => {
        const said = cell(role);
        const found = rangeOfWords(places, said);
        if (said !== '' && found === undefined && !/^[-–—]$/.test(said))
          unread.push({ of: name, cell: said });
        return found;
      };
      if (name === '') return void left.push(i);
      const affected = cell(ROLES.to) === '' ? reading.about.at : range(ROLES.to);
      const to = metIn(affected, places.find(cell(ROLES.fixed)));
      if (to === undefined || consequence === LEFT_OUT) return void left.push(i);
      if (!once.isFirst(name)) return;
      const from = range(ROLES.from);
      const how = cell(ROLES.workAround).slice(0, 2000);
      const { typicalMinutes, carefulMinutes } = GUESS['in place'];
      const said: Omit<Caution, 'id'> = {
        name,
        ...(from === undefined ? {} : { from }),
        to,
        consequence,
        ...(cell(ROLES.ignored) === '' ? {} : { ignored: cell(ROLES.ignored).slice(0, 2000) }),
        ...(cell(ROLES.check) === '' ? {} : { check: cell(ROLES.check).slice(0, 2000) }),
        ...(how === '' || /^([-–—]|none|no)$/i.test(how)
          ? {}
          : {
              workAround: {
                how,
                typicalMinutes,
                carefulMinutes,
                ...(BEHIND.test(how) ? { behind: true as const } : {})
              }
            }),
        ...(cell(ROLES.reference) === '' ? {} : { reference: cell(ROLES.reference).slice(0, 300) })
      };
      const put = putCaution(cautions, said, reading.source);
      cautions = put.list;
      changes.push(put.change);
    });
    for (const c of ground.product.cautions ?? [])
      if (c.source === reading.source && !changes.some((k) => foldText(k.what) === foldText(c.name)))
        changes.push({ kind: 'gone', what: c.name, details: [] });
    return {
      ...ground,
      product: { ...ground.product, ...(cautions.length > 0 ? { cautions } : {}) },
      changes,
      left,
      unread
    };
  }
};

/** Words by which a work-around says that it follows the step. */
const BEHIND =
  /\b(afterwards|(after|following) (the |an? )?(upgrade|update|hop|migration|change|install\w*|reinstall\w*)|once (it is )?(upgraded|updated|installed))\b/i;

/** Of one that is known only what the table says is changed; how long its work-around takes stays as it was measured. */
function putCaution(
  list: readonly Caution[],
  said: Omit<Caution, 'id'>,
  source: string
): { readonly list: Caution[]; readonly change: TableChange } {
  const known = list.find(
    (c) =>
      foldText(c.name) === foldText(said.name) ||
      (said.reference !== undefined &&
        c.reference !== undefined &&
        foldText(c.reference) === foldText(said.reference))
  );
  const fields = ['name', 'from', 'to', 'consequence', 'ignored', 'check', 'reference'] as const;
  const role = (field: (typeof fields)[number]): string => ROLES[field];
  if (!known) {
    const details = fields
      .slice(1, 4)
      .flatMap((f): TableDetail[] => (said[f] === undefined ? [] : [{ role: role(f), after: said[f] }]));
    const id = freeId(said.name.slice(0, 60), new Set(list.map((c) => c.id)));
    return { list: [...list, { id, ...said, source }], change: { kind: 'new', what: said.name, details } };
  }
  const details: TableDetail[] = fields.flatMap((f) =>
    said[f] === undefined || said[f] === known[f]
      ? []
      : [{ role: role(f), after: said[f], ...(known[f] === undefined ? {} : { before: known[f] }) }]
  );
  const how = said.workAround?.how;
  if (how !== undefined && how !== known.workAround?.how)
    details.push({
      role: ROLES.workAround,
      after: how,
      ...(known.workAround ? { before: known.workAround.how } : {})
    });
  if (details.length === 0) return { list: [...list], change: { kind: 'same', what: known.name, details } };
  const { workAround, ...plain } = said;
  const merged: Caution = {
    ...known,
    ...plain,
    ...(workAround ? { workAround: { ...workAround, ...known.workAround, how: workAround.how } } : {}),
    source
  };
  return { list: withEntry(list, merged), change: { kind: 'changed', what: known.name, details } };
}
