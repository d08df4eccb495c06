import type { Records, Write } from './records';

/** An edit as somebody meant it: what stood under a key when it was made, and what shall stand there. Undefined: nothing. */
export interface Edit {
  readonly key: string;
  readonly before: unknown;
  readonly after: unknown;
}

/** Both changed the same: what was there first stays, and whoever came second is told of both. */
export interface Collision {
  readonly key: string;
  /** Where in the record, outermost first; empty for the whole of it. */
  readonly path: readonly string[];
  readonly mine: unknown;
  readonly theirs: unknown;
}

/** The edits that turn records into others. */
export const editsOf = (records: Records, writes: readonly Write[]): Edit[] =>
  writes.map(([key, after]) => ({ key, before: records.get(key), after }));

/**
 * What an edit comes to where something else stands under its key by now: field by field, what only one side changed is
 * taken from that side, and what both changed alike is theirs. Where both changed the same in two ways theirs stays, and that is
 * a collision. Fields of a system's facts and of a goal's permissions, and entries of lists, are each by themselves; entries are
 * told apart by what names them. Gives back `theirs` itself where the edit changes nothing of it.
 */
export function mergeRecord(
  edit: Edit,
  theirs: unknown
): { value: unknown; collisions: readonly Collision[] } {
  const collisions: Collision[] = [];
  const merge = new Merge(edit.key, collisions);
  const value = merge.of([], edit.before, edit.after, theirs);
  return { value, collisions };
}

/** Records whose fields belong together: one decision is one. */
const WHOLE = ['decision', 'whatIfs', 'rechecks', 'imports', 'lists'];

/** Records that are lists of entries with fields of their own. */
const LISTS = ['questions', 'rights'];

/** How deep in a record fields are told apart: of the record itself, and of its facts and permissions. */
const MAPS: ReadonlySet<string> = new Set(['facts', 'allow']);

class Merge {
  readonly #key: string;
  readonly #kind: string;
  readonly #collisions: Collision[];

  constructor(key: string, collisions: Collision[]) {
    this.#key = key;
    this.#kind = key.split('/')[0] ?? key;
    this.#collisions = collisions;
  }

  of(path: readonly string[], base: unknown, mine: unknown, theirs: unknown): unknown {
    if (isSame(mine, base) || isSame(mine, theirs)) return theirs;
    if (isSame(theirs, base)) return mine;
    if (this.#isSplit(path, mine, theirs)) return this.#fields(path, base, mine as Fields, theirs as Fields);
    if (Array.isArray(mine) && Array.isArray(theirs)) return this.#entries(path, base, mine, theirs);
    this.#collisions.push({ key: this.#key, path, mine, theirs });
    return theirs;
  }

  /** Whether fields are merged one by one here. */
  #isSplit(path: readonly string[], mine: unknown, theirs: unknown): boolean {
    if (!isFields(mine) || !isFields(theirs) || WHOLE.includes(this.#kind)) return false;
    return (
      path.length === 0 || (path.length === 1 && (MAPS.has(path[0] ?? '') || LISTS.includes(this.#kind)))
    );
  }

  #fields(path: readonly string[], base: unknown, mine: Fields, theirs: Fields): Fields {
    const was: Fields = isFields(base) ? base : {};
    const merged: Record<string, unknown> = {};
    for (const name of new Set([...Object.keys(theirs), ...Object.keys(mine)])) {
      const value = this.of([...path, name], own(was, name), own(mine, name), own(theirs, name));
      if (value !== undefined) merged[name] = value;
    }
    return merged;
  }

  /** Theirs in their order, less what I took out, with what I changed or added. */
  #entries(
    path: readonly string[],
    base: unknown,
    mine: readonly unknown[],
    theirs: readonly unknown[]
  ): unknown {
    const byName = (list: unknown): Map<string, unknown> =>
      new Map((Array.isArray(list) ? (list as unknown[]) : []).map((entry) => [nameOf(entry), entry]));
    const [was, own, other] = [byName(base), byName(mine), byName(theirs)];
    const merged: unknown[] = [];
    for (const name of new Set([...other.keys(), ...own.keys()])) {
      const value = this.of([...path, name], was.get(name), own.get(name), other.get(name));
      if (value !== undefined) merged.push(value);
    }
    return merged;
  }
}

type Fields = Readonly<Record<string, unknown>>;

const isFields = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const own = (fields: Fields, name: string): unknown =>
  Object.hasOwn(fields, name) ? fields[name] : undefined;

/** What tells an entry of a list from the others: its id, its name, what it links to; else all of it. */
function nameOf(entry: unknown): string {
  if (!isFields(entry)) return JSON.stringify(entry);
  const { id, list, name, kind, to, right, product, edition, pool } = entry;
  if (typeof id === 'string') return id;
  if (typeof list === 'string') return list;
  if (typeof name === 'string') return name;
  if (typeof right === 'string') return JSON.stringify([right, product, edition, pool]);
  if (typeof kind === 'string' && (to !== undefined || 'absent' in entry)) return JSON.stringify([kind, to]);
  return JSON.stringify(entry);
}

/** Whether two plain values are equal; the order of fields does not count. */
function isSame(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((item, i) => isSame(item, b[i]));
  if (!isFields(a) || !isFields(b)) return false;
  const keys = Object.keys(a).filter((k) => a[k] !== undefined);
  if (keys.length !== Object.keys(b).filter((k) => b[k] !== undefined).length) return false;
  return keys.every((key) => Object.hasOwn(b, key) && isSame(a[key], b[key]));
}
