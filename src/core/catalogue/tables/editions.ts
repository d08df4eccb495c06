import { foldText } from '../../version';
import type { Hop, Product } from '../schema';
import { freeId } from '../sketch/sketch';
import { cleanCell, type ReleaseTable } from './cells';
import { isCalled, LEFT_OUT, type TableChange, type TableReader, type TableReading } from './reader';

const FROM = /^(from|source|current|installed|old|left)\b/i;
const TO = /^(to|target|new|becomes|arrived)\b/i;
const YES = /^(yes|y|ok|same|keeps?|possible|direct|allowed|[✓✔●•☑√])(\b|$|\W)/i;
const NO = /^(no|n|none|not\b.*|never|[-–—✗✘✕×])$/i;

interface Pair {
  readonly from: string;
  readonly to: string;
  readonly word: string;
}

const COLUMN = { from: 'from', to: 'to', how: 'whether', along: 'an edition arrived at' } as const;

/** Pairs of editions with what a table says of each: a grid, or a pair a row. */
function pairsOf({ table, roles, about }: TableReading): Pair[] {
  const from = roles.indexOf(COLUMN.from);
  const [to, how] = [roles.indexOf(COLUMN.to), roles.indexOf(COLUMN.how)];
  return table.rows.flatMap((row): Pair[] => {
    const left = cleanCell(row[from] ?? '');
    if (left === '') return [];
    if (to >= 0)
      return cleanCell(row[to] ?? '')
        .split(/\s*(?:[,;/]|\bor\b)\s*/i)
        .filter(Boolean)
        .map((arrived) => ({ from: left, to: arrived, word: how < 0 ? 'yes' : cleanCell(row[how] ?? '') }));
    return roles.flatMap((role, i): Pair[] => {
      if (role !== COLUMN.along) return [];
      const [other, word] = [cleanCell(table.head[i] ?? ''), cleanCell(row[i] ?? '')];
      if (other === '') return [];
      return [about.isTurned === true ? { from: other, to: left, word } : { from: left, to: other, word }];
    });
  });
}

/** Whether a table has the same words down its first column as along its head, none of them with figures. */
export function looksLikeEditions({ head, rows }: ReleaseTable, product?: Product): boolean {
  const down = new Set(rows.map((r) => foldText(cleanCell(r[0] ?? ''))));
  const along = head.slice(1).map((h) => foldText(cleanCell(h)));
  const own = new Set((product?.editions ?? []).flatMap((e) => [e.id, e.name ?? e.id]).map(foldText));
  const shared = along.filter((h) => h !== '' && !/\d/.test(h) && (down.has(h) || own.has(h))).length;
  return along.length >= 2 && shared >= 2 && shared >= along.length / 2;
}

/** From which edition to which, for the hops it is said to be of. */
export const editionsReader: TableReader = {
  roles: [...Object.values(COLUMN), LEFT_OUT],
  meanings: () => ['possible', 'no', LEFT_OUT],
  suggestRoles({ head }) {
    const [from, to] = [head.findIndex((h) => FROM.test(h)), head.findIndex((h) => TO.test(h))];
    if (from >= 0 && to >= 0 && from !== to && head.length <= 5)
      return head.map((h, i) =>
        i === from
          ? COLUMN.from
          : i === to
            ? COLUMN.to
            : /how|whether|possible|support|allowed/i.test(h)
              ? COLUMN.how
              : LEFT_OUT
      );
    return head.map((h, i) => (i === 0 ? COLUMN.from : h.trim() === '' ? LEFT_OUT : COLUMN.along));
  },
  words: (reading) => [...new Set(pairsOf(reading).map((p) => p.word))],
  suggestMeaning: (word) =>
    word === '' ? LEFT_OUT : NO.test(word) ? 'no' : YES.test(word) ? 'possible' : LEFT_OUT,
  take(reading, ground) {
    const { about, source } = reading;
    const hops = (ground.product.hops ?? []).filter((h) =>
      about.hops === undefined ? h.kind === 'in place' : h.id === about.hops || h.kind === about.hops
    );
    const pairs = pairsOf(reading);
    if (hops.length === 0 || pairs.length === 0)
      return { ...ground, changes: [], left: reading.table.rows.map((_, i) => i), unread: [] };
    const editions = [...(ground.product.editions ?? [])];
    const idOf = (name: string): string => {
      const known = editions.find((e) => isCalled(e, name));
      if (known) return known.id;
      const id = freeId(name, new Set(editions.map((e) => e.id)));
      editions.push({ id, ...(id === name ? {} : { name: name.slice(0, 300) }), source });
      return id;
    };
    const table = new Map<string, string[]>();
    const told: (Pair & { readonly meaning: string })[] = [];
    let isPartial = false;
    for (const pair of pairs) {
      const meaning = reading.meanings.get(pair.word) ?? editionsReader.suggestMeaning(pair.word, ground);
      if (meaning === LEFT_OUT) {
        isPartial ||= pair.word !== '';
        continue;
      }
      const [from, to] = [idOf(pair.from), idOf(pair.to)];
      if (!table.has(from)) table.set(from, []);
      if (meaning === 'possible') table.get(from)?.push(to);
      told.push({ ...pair, meaning });
    }
    if (told.length === 0) return { ...ground, changes: [], left: [], unread: [] };
    const state = (hop: Hop, from: string, to: string): string => {
      const known = hop.editions?.[from];
      if (hop.editions === undefined) return from === to ? 'possible' : 'no';
      return known === undefined ? 'not said' : [known].flat().includes(to) ? 'possible' : 'no';
    };
    const next = (hop: Hop): Hop => ({
      ...hop,
      editions: Object.fromEntries([
        ...Object.entries(hop.editions ?? {}).filter(([from]) => !table.has(from)),
        ...[...table]
          .filter(([, to]) => to.length > 0)
          .map(([from, to]) => [from, to.length === 1 ? (to[0] as string) : to])
      ]),
      ...(isPartial ? { editionsPartial: true } : {})
    });
    const changes = told.map(({ from, to, meaning }): TableChange => {
      const states = new Set(hops.map((h) => state(h, idOf(from), idOf(to))));
      const [before] = states.size === 1 ? [...states] : ['not everywhere alike'];
      const isSame = before === meaning || (meaning === 'no' && before === 'not said');
      return {
        kind: isSame ? 'same' : hops.every((h) => h.editions === undefined) ? 'new' : 'changed',
        what: `${from} to ${to}`,
        details: [{ role: COLUMN.how, after: meaning, ...(isSame || before === undefined ? {} : { before }) }]
      };
    });
    const isMoved = changes.some((c) => c.kind !== 'same');
    return {
      ...ground,
      product: isMoved
        ? {
            ...ground.product,
            ...(editions.length > 0 ? { editions } : {}),
            hops: (ground.product.hops ?? []).map((h) => (hops.includes(h) ? next(h) : h))
          }
        : ground.product,
      changes,
      left: [],
      unread: []
    };
  }
};
