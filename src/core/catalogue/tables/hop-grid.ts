import { foldText } from '../../version';
import type { Hop, Product } from '../schema';
import { freeId, GUESS } from '../sketch/sketch';
import { cleanCell, labelOf, type ReleaseTable } from './cells';
import { placesOfProduct, rangeOfWords, releasesInRange } from './places';
import { LEFT_OUT, type TableChange, type TableReader, type TableReading } from './reader';

/** One pair of releases and what a table says of it. */
export interface GridCell {
  readonly from: string;
  readonly to: string;
  /** The cell's words, without marks of footnotes; empty where it is. */
  readonly word: string;
}

/** A table of which release leads to which, as it stands. */
export interface HopGrid {
  readonly cells: readonly GridCell[];
  /** Different words of its cells, in the order they come. */
  readonly words: readonly string[];
}

/** What a word in a cell says of a pair. */
export type CellMeaning = 'in place' | 'fresh install' | 'no' | 'left out';
export const CELL_MEANINGS: readonly CellMeaning[] = ['in place', 'fresh install', 'no', 'left out'];

const FROM = /^(from|source|current|installed|old|running|upgrade from|left)\b/i;
const TO = /^(to|target|new|destination|upgrade to|arrived)\b/i;
const HOW = /\b(how|method|way|path|kind|supported|possible|direct|type)\b/i;

/**
 * Reads a table of pairs: a grid with releases down its first column and along its head, or one pair a row. `isTurned`: the grid's rows are
 * what is arrived at. Undefined where it is neither.
 */
export function readHopGrid(
  { head, rows }: ReleaseTable,
  { names = [], isTurned = false }: { readonly names?: readonly string[]; readonly isTurned?: boolean } = {}
): HopGrid | undefined {
  const label = (cell: string): string | undefined => labelOf(cell, names)?.label;
  const [from, to] = [head.findIndex((h) => FROM.test(h)), head.findIndex((h) => TO.test(h))];
  if (from >= 0 && to >= 0 && from !== to && head.length <= 8) {
    const how = head.findIndex((h, i) => i !== from && i !== to && HOW.test(h));
    return gridOf(
      rows.flatMap((r): GridCell[] => {
        const [a, b] = [fromOf(r[from] ?? '', names), label(r[to] ?? '')];
        const word = how < 0 ? 'a row' : cleanCell(r[how] ?? '');
        return a && b ? [{ from: a, to: b, word }] : [];
      })
    );
  }
  const down = rows.map((r) => label(r[0] ?? ''));
  const along = head.map((h, i) => (i === 0 ? undefined : label(h)));
  const known = new Set(down.flatMap((l) => (l === undefined ? [] : foldText(l))));
  const heads = along.flatMap((l) => (l === undefined ? [] : foldText(l)));
  const shared = heads.filter((h) => known.has(h)).length;
  if (heads.length < 2 || shared < 2 || shared < heads.length / 2) return undefined;
  return gridOf(
    rows.flatMap((r, i) =>
      along.flatMap((column, k): GridCell[] => {
        const row = down[i];
        if (row === undefined || column === undefined || foldText(row) === foldText(column)) return [];
        const word = cleanCell(r[k] ?? '');
        return [isTurned ? { from: column, to: row, word } : { from: row, to: column, word }];
      })
    )
  );
}

const gridOf = (cells: readonly GridCell[]): HopGrid | undefined =>
  cells.length === 0 ? undefined : { cells, words: [...new Set(cells.map((c) => c.word))] };

/** What a pair leads from: a release, or words for several (`any`, `8 and later`), as they are. */
const fromOf = (cell: string, names: readonly string[]): string | undefined =>
  MANY.test(cleanCell(cell)) ? cleanCell(cell) : labelOf(cell, names)?.label;
const MANY =
  /^(any|all|every|each|up to|before|after|from|since)\b|\b(and|or) (later|newer|earlier|older)\b|,|\bto\b/i;

const NO = /^(no|n|none|not\b.*|never|false|unsupported|impossible|[-–—✗✘✕×]|n\/a)$/i;
const YES = /^(yes|y|ok|direct(ly)?|supported|in.place|upgrade|possible|true|a row|[✓✔●•☑√])(\b|$|\W)/i;
const FRESH = /\b(fresh|clean|re-?install|new install|migrat\w+|rebuild)\b/i;

/** What a word most likely says; a word that could be either, or that nobody knows, is left out until somebody says. */
export function suggestMeaning(word: string): CellMeaning {
  if (word === '') return 'left out';
  if (FRESH.test(word)) return 'fresh install';
  if (NO.test(word)) return 'no';
  // `via 8.4`: not from the one to the other at once.
  if (/\b(via|through|by way of|first to)\b/i.test(word)) return 'no';
  return YES.test(word) ? 'in place' : 'left out';
}

/** What taking one pair in would do. */
export interface HopChange {
  readonly from: string;
  readonly to: string;
  readonly kind: 'new' | 'same' | 'against' | 'no release';
  readonly meaning: CellMeaning;
}

/**
 * A product with what a table of pairs says: hops it has not yet, with guessed minutes until somebody measures, and pairs known to be
 * forbidden. What is stated already stays; a pair that is said to be forbidden and has a hop is told, and left to the person.
 */
export function takeHopGrid(
  product: Product,
  { cells }: HopGrid,
  { meanings, source }: { readonly meanings: ReadonlyMap<string, CellMeaning>; readonly source: string }
): { readonly product: Product; readonly changes: readonly HopChange[] } {
  const idOf = new Map(
    product.releases.flatMap((r) =>
      [r.id, r.name ?? '', ...(r.aliases ?? [])].filter(Boolean).map((n) => [foldText(n), r.id] as const)
    )
  );
  const places = placesOfProduct(product);
  const inRange = (range: string): string[] => releasesInRange(product, range);
  /** Whether a range holds every release of another. */
  const covers = (range: string, other: string): boolean => {
    const own = inRange(range);
    const wanted = inRange(other);
    return wanted.length > 0 && wanted.every((r) => own.includes(r));
  };
  const hops: Hop[] = [...(product.hops ?? [])];
  const noHops = [...(product.noHops ?? [])];
  const taken = new Set([...hops.map((h) => h.id), ...noHops.map((n) => n.id)]);
  const changes = cells.flatMap(({ from: a, to: b, word }): HopChange[] => {
    const meaning = meanings.get(word) ?? suggestMeaning(word);
    if (meaning === 'left out') return [];
    const one = idOf.get(foldText(a));
    const [from, to] = [one ?? rangeOfWords(places, a), idOf.get(foldText(b))];
    const told = (kind: HopChange['kind']): HopChange[] => [{ from: a, to: b, kind, meaning }];
    if (from === undefined || to === undefined) return told('no release');
    const has = (kind: Hop['kind']): boolean =>
      hops.some((h) => h.kind === kind && h.to === to && covers(h.from, from));
    const isForbidden = noHops.some((n) => n.to === to && covers(n.from, from));
    if (meaning === 'no') {
      if (has('in place')) return told('against');
      if (isForbidden || product.hopTable === 'complete') return told('same');
      noHops.push({ id: free(`no-${from}-to-${to}`.replaceAll(' ', '-'), taken), from, to, source });
      return told('new');
    }
    if (has(meaning)) return told('same');
    if (meaning === 'in place' && isForbidden) return told('against');
    hops.push({
      id: free(`${from}-to-${to}${meaning === 'in place' ? '' : '-fresh'}`, taken),
      kind: meaning,
      from,
      to,
      ...GUESS[meaning],
      source
    });
    return told('new');
  });
  return {
    product: {
      ...product,
      ...(hops.length > 0 ? { hops } : {}),
      ...(noHops.length > 0 ? { noHops } : {})
    },
    changes
  };
}

function free(name: string, taken: Set<string>): string {
  const id = freeId(name, taken);
  taken.add(id);
  return id;
}

const ROLES = { pairs: 'as it is', out: LEFT_OUT } as const;

const gridIn = ({ table, about }: TableReading, product: Product): HopGrid | undefined =>
  readHopGrid(table, {
    names: [product.name, ...(product.aliases ?? [])].filter((n) => n.trim() !== ''),
    isTurned: about.isTurned === true
  });

/** Which release leads to which, as one of the kinds of tables. */
export const hopsReader: TableReader = {
  roles: Object.values(ROLES),
  meanings: () => CELL_MEANINGS,
  suggestRoles: ({ head }) => head.map(() => ROLES.pairs),
  words: (reading, { product }) => gridIn(reading, product)?.words ?? [],
  suggestMeaning,
  take(reading, ground) {
    const grid = gridIn(reading, ground.product);
    if (!grid) return { ...ground, changes: [], left: reading.table.rows.map((_, i) => i), unread: [] };
    const meanings = reading.meanings as ReadonlyMap<string, CellMeaning>;
    const { product, changes } = takeHopGrid(ground.product, grid, { meanings, source: reading.source });
    return {
      ...ground,
      product,
      changes: changes.map((c): TableChange => ({
        kind: c.kind,
        what: `${c.from} to ${c.to}`,
        details: [{ role: 'meaning', after: c.meaning }]
      })),
      left: [],
      unread: []
    };
  }
};
