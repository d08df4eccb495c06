import { parseDateText } from '../date';
import { compareText, fail, type Result, succeed } from '../kit';
import { entryKey } from './entry-path';
import { statementsOf } from './settle';
import type { Catalogue } from './schema';

type Fields = Readonly<Record<string, unknown>>;

/**
 * Two catalogues as one. Entries are matched by id; what only one has is taken; where both state an entry differently
 * both statements stay: one as the entry, the other under `also`, until somebody rules. Sequences are joined so that
 * both keep their order; where they contradict each other, by publication day and id.
 *
 * Laws: merge(a, b) = merge(b, a); merge(a, a) = a; merge(merge(a, b), b) = merge(a, b). Neither side is the better one:
 * of two statements the entry's own is the one first in the order of their text. Fails where prices are in two currencies.
 */
export function mergeCatalogues(a: Catalogue, b: Catalogue): Result<Catalogue> {
  if (a.currency !== undefined && b.currency !== undefined && a.currency !== b.currency)
    return fail({ code: 'two-currencies', detail: `${a.currency}, ${b.currency}` });
  const name = [a.name, b.name].sort()[0] ?? a.name;
  const merged = mergeFields({ ...a, name }, { ...b, name });
  return succeed(merged as unknown as Catalogue);
}

/** Both sides' fields: lists of entries joined entry by entry, the rest as statements. */
function mergeFields(a: Fields, b: Fields): Fields {
  const lists = [...new Set([...Object.keys(a), ...Object.keys(b)])].filter(
    (key) => key !== 'also' && (isEntryList(a[key]) || isEntryList(b[key]))
  );
  const stated = mergeStatements(without(a, lists), without(b, lists));
  const joined = lists.map((key): [string, unknown] => [key, mergeLists(asList(a[key]), asList(b[key]))]);
  return inOrderOf(Object.keys(a), Object.keys(b), { ...stated, ...Object.fromEntries(joined) });
}

const isEntryList = (value: unknown): boolean =>
  Array.isArray(value) && value.length > 0 && value.every((v) => entryKey(v) !== undefined);
const asList = (value: unknown): readonly Fields[] => (Array.isArray(value) ? (value as Fields[]) : []);
const without = (fields: Fields, keys: readonly string[]): Fields =>
  Object.fromEntries(Object.entries(fields).filter(([key]) => !keys.includes(key)));

/** Keys stand as in the side whose own order is first as text; the other's further ones follow. */
function inOrderOf(a: readonly string[], b: readonly string[], fields: Fields): Fields {
  const [first, second] = a.join() <= b.join() ? [a, b] : [b, a];
  const order = [...new Set([...first, ...second, ...Object.keys(fields)])];
  return Object.fromEntries(
    order.flatMap((key): [string, unknown][] => (fields[key] === undefined ? [] : [[key, fields[key]]]))
  );
}

/**
 * All statements of both sides: one that says nothing beyond another is dropped, those that agree wherever both speak
 * become one, in the order of their text. What is left contradicts each other pair by pair.
 */
function mergeStatements(a: Fields, b: Fields): Fields {
  const [ownA, ownB] = [statementsOf(a)[0]?.values ?? a, statementsOf(b)[0]?.values ?? b];
  const all = sortByText([...statementsOf(a), ...statementsOf(b)].map((s) => clean(s.values)));
  const distinct = all.filter(
    (s, i) => !all.some((other, j) => i !== j && covers(other, s) && (!covers(s, other) || j < i))
  );
  const joined: Fields[] = [];
  for (const statement of distinct) {
    const at = joined.findIndex((j) => agree(j, statement));
    if (at < 0) joined.push(statement);
    else joined[at] = { ...joined[at], ...statement };
  }
  const own = covers(ownA, clean(ownB))
    ? ownA
    : covers(ownB, clean(ownA))
      ? ownB
      : (sortByText([clean(ownA), clean(ownB)])[0] ?? ownA);
  const main = joined.find((j) => covers(j, clean(own))) ?? own;
  const others = joined.filter((j) => j !== main).map((j) => differenceFrom(main, j));
  return others.length === 0 ? main : { ...main, also: others };
}

const clean = (fields: Fields): Fields =>
  Object.fromEntries(Object.entries(fields).filter(([, v]) => v !== undefined));
const covers = (wide: Fields, narrow: Fields): boolean =>
  Object.entries(narrow).every(([k, v]) => textOf(wide[k]) === textOf(v));
const agree = (a: Fields, b: Fields): boolean =>
  Object.entries(a).every(([k, v]) => b[k] === undefined || textOf(b[k]) === textOf(v));

/** What a further statement says differently. Its source always stands, since that is who says it. */
const differenceFrom = (main: Fields, other: Fields): Fields =>
  Object.fromEntries(
    Object.entries(other).filter(([k, v]) => k === 'source' || textOf(main[k]) !== textOf(v))
  );

/** A value as text that does not depend on the order of keys. */
function textOf(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(textOf).join()}]`;
  if (typeof value !== 'object' || value === null) return JSON.stringify(value) ?? '';
  const entries = Object.entries(value).sort(([x], [y]) => compareText(x, y));
  return `{${entries.map(([k, v]) => `${JSON.stringify(k)}:${textOf(v)}`).join()}}`;
}

const sortByText = (list: readonly Fields[]): Fields[] =>
  [...list].sort((x, y) => compareText(textOf(x), textOf(y)));

function mergeLists(a: readonly Fields[], b: readonly Fields[]): readonly Fields[] {
  const ofA = new Map(a.map((e) => [entryKey(e) ?? '', e]));
  const ofB = new Map(b.map((e) => [entryKey(e) ?? '', e]));
  const merged = new Map<string, Fields>();
  for (const key of new Set([...ofA.keys(), ...ofB.keys()])) {
    const [x, y] = [ofA.get(key), ofB.get(key)];
    merged.set(key, x && y ? mergeFields(x, y) : ((x ?? y) as Fields));
  }
  return orderOf([...ofA.keys()], [...ofB.keys()], merged).map((key) => merged.get(key) as Fields);
}

/** One order in which both lists keep theirs; by day and id where nothing says, or where the two contradict each other. */
function orderOf(a: readonly string[], b: readonly string[], entries: ReadonlyMap<string, Fields>): string[] {
  const free = [...entries.keys()].sort((x, y) => compareKeys(entries, x, y));
  const waitsFor = new Map(free.map((key) => [key, new Set<string>()]));
  for (const list of [a, b]) list.forEach((key, i) => i > 0 && waitsFor.get(key)?.add(list[i - 1] ?? ''));
  const placed: string[] = [];
  const done = new Set<string>();
  while (placed.length < free.length) {
    const next = free.find(
      (key) => !done.has(key) && [...(waitsFor.get(key) ?? [])].every((w) => done.has(w))
    );
    if (next === undefined) return free;
    placed.push(next);
    done.add(next);
  }
  return placed;
}

function compareKeys(entries: ReadonlyMap<string, Fields>, x: string, y: string): number {
  const [p, q] = [firstDay(entries.get(x)), firstDay(entries.get(y))];
  return p - q || compareText(x, y);
}

function firstDay(entry: Fields | undefined): number {
  const stated = entry?.['published'];
  const texts = typeof stated === 'string' ? [stated] : Object.values((stated ?? {}) as Fields);
  const days = texts.flatMap((t) => {
    const date = typeof t === 'string' ? parseDateText(t) : undefined;
    return date && 'first' in date ? [date.first] : [];
  });
  return days.length > 0 ? Math.min(...days) : 1e9;
}
