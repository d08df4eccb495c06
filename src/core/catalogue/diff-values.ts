import { entryKey } from './entry-path';

type Step = string | number;

/** One change to a value in a file. Edits are applied one after the other, each to what the ones before have left. */
export type Edit =
  | { readonly kind: 'set'; readonly path: readonly Step[]; readonly value: unknown }
  | { readonly kind: 'remove'; readonly path: readonly Step[] }
  /** Puts values into the list at the path, before the element at `at`; at its length: behind the last. */
  | {
      readonly kind: 'insert';
      readonly path: readonly Step[];
      readonly at: number;
      readonly values: readonly unknown[];
    };

type Fields = Readonly<Record<string, unknown>>;

/** The edits that turn one value into the other, entry by entry, touching nothing that is equal. */
export function diffValues(before: unknown, after: unknown, path: readonly Step[] = []): Edit[] {
  if (isEqual(before, after)) return [];
  if (isEntries(before) && isEntries(after)) return diffLists(before, after, path);
  if (isFields(before) && isFields(after)) return diffFields(before, after, path);
  return [{ kind: 'set', path, value: after }];
}

function diffFields(before: Fields, after: Fields, path: readonly Step[]): Edit[] {
  const gone = Object.keys(before).filter((key) => after[key] === undefined && before[key] !== undefined);
  const edits = Object.entries(after).flatMap(([key, value]): Edit[] => {
    if (value === undefined) return [];
    return before[key] === undefined
      ? [{ kind: 'set', path: [...path, key], value }]
      : diffValues(before[key], value, [...path, key]);
  });
  return [...edits, ...gone.map((key): Edit => ({ kind: 'remove', path: [...path, key] }))];
}

/** What leaves or moves is taken out from behind, what comes or moves is put in from the front; then what stayed is changed. */
function diffLists(before: readonly unknown[], after: readonly unknown[], path: readonly Step[]): Edit[] {
  const keysAfter = after.map((v) => entryKey(v) ?? '');
  const stays = longestCommon(
    before.map((v) => entryKey(v) ?? ''),
    keysAfter
  );
  if (stays.size === 0) return [{ kind: 'set', path, value: after }];
  const removals = before.flatMap((v, i): Edit[] =>
    stays.has(entryKey(v) ?? '') ? [] : [{ kind: 'remove', path: [...path, i] }]
  );
  const kept = new Map(before.map((v) => [entryKey(v) ?? '', v]));
  const edits: Edit[] = [];
  for (let i = 0; i < after.length;) {
    let end = i;
    while (end < after.length && !stays.has(keysAfter[end] ?? '')) end++;
    if (end > i) edits.push({ kind: 'insert', path, at: i, values: after.slice(i, end) });
    if (end < after.length)
      edits.push(...diffValues(kept.get(keysAfter[end] ?? ''), after[end], [...path, end]));
    i = end + 1;
  }
  return [...removals.reverse(), ...edits];
}

/** Keys of a longest run of elements that stand in the same order in both lists. Cost: O(n log n). */
function longestCommon(before: readonly string[], after: readonly string[]): ReadonlySet<string> {
  const place = new Map(after.map((key, i) => [key, i]));
  const ends: { key: string; place: number; back: number }[] = [];
  const nodes: { key: string; place: number; back: number }[] = [];
  const tops: number[] = [];
  for (const key of before) {
    const at = place.get(key);
    if (at === undefined) continue;
    let low = 0;
    let high = ends.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((ends[middle]?.place ?? 0) < at) low = middle + 1;
      else high = middle;
    }
    const node = { key, place: at, back: low > 0 ? (tops[low - 1] ?? -1) : -1 };
    nodes.push(node);
    ends[low] = node;
    tops[low] = nodes.length - 1;
  }
  const keys = new Set<string>();
  for (let i = tops[tops.length - 1] ?? -1; i >= 0; i = nodes[i]?.back ?? -1) keys.add(nodes[i]?.key ?? '');
  return keys;
}

const isFields = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const isEntries = (value: unknown): value is readonly unknown[] =>
  Array.isArray(value) &&
  value.length > 0 &&
  value.every((v) => entryKey(v) !== undefined) &&
  new Set(value.map(entryKey)).size === value.length;

/** Equal in meaning: keys may stand in any order, a missing key and `undefined` are the same. */
export function isEqual(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (Array.isArray(a) || Array.isArray(b))
    return (
      Array.isArray(a) && Array.isArray(b) && a.length === b.length && a.every((v, i) => isEqual(v, b[i]))
    );
  if (!isFields(a) || !isFields(b)) return false;
  return [...new Set([...Object.keys(a), ...Object.keys(b)])].every((key) => isEqual(a[key], b[key]));
}

/** What stands at a path of a value; undefined where nothing does. */
export const entryAt = (root: unknown, path: readonly (string | number)[]): unknown =>
  path.reduce<unknown>(
    (node, step) =>
      typeof node === 'object' && node !== null
        ? (node as Record<string | number, unknown>)[step]
        : undefined,
    root
  );

/** The value with one edit made; what is not on its path is shared with the value given. */
export function editValue(root: unknown, edit: Edit): unknown {
  return change(root, edit.path, edit);
}

function change(node: unknown, path: readonly Step[], edit: Edit): unknown {
  const [step, ...rest] = path;
  if (step === undefined) {
    if (edit.kind === 'set') return edit.value;
    if (edit.kind === 'remove') return undefined;
    const list = Array.isArray(node) ? (node as unknown[]) : [];
    return [...list.slice(0, edit.at), ...edit.values, ...list.slice(edit.at)];
  }
  if (Array.isArray(node)) {
    const list = [...(node as unknown[])];
    if (rest.length === 0 && edit.kind === 'remove') list.splice(Number(step), 1);
    else list[Number(step)] = change(list[Number(step)], rest, edit);
    return list;
  }
  const fields: Record<string, unknown> = isFields(node) ? { ...node } : {};
  const next = change(fields[step], rest, edit);
  if (next === undefined) delete fields[step];
  else fields[step] = next;
  return fields;
}
