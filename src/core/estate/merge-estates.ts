import { mergeFacts } from './facts';
import { foldText } from '../version';
import { compareText } from '../kit';
import type { Check, Estate, Fact, RightHeld, System } from './schema';

/** Something two people's records state differently; `values` in a fixed order, whoever's they are. */
export interface Conflict {
  /** `system/ID`, `goal/ID`, `decision/ID`, `question/ID`, `what-if/ID`, `recheck/ID`, `right/ID` or `site`. */
  readonly key: string;
  readonly field: string;
  readonly values: readonly [unknown, unknown];
}

export interface MergedEstate {
  readonly estate: Estate;
  readonly conflicts: readonly Conflict[];
}

type Fields = Readonly<Record<string, unknown>>;
/** Fields that are read together: who read them later is believed in all of them. */
const INSTALLED = ['installedText', 'product', 'release', 'patch', 'edition', 'architecture'] as const;

/**
 * Two people's records of one estate as one. What only one has is kept; facts are joined statement by statement, and
 * disputed where they differ; of what is installed the later reading stands; lists are joined. What is left is a conflict:
 * the value that comes first in a fixed order stands, and both are named so that somebody can choose. In either order the
 * same, merged with itself nothing changes, and merging the result again changes nothing.
 */
export function mergeEstates(a: Estate, b: Estate): MergedEstate {
  const conflicts: Conflict[] = [];
  const merger = new Merger(conflicts);
  const decisions = tellApart(a.decisions, b.decisions, (d) => fixedText([d.kind, d.scope]));
  const questions = tellApart(a.questions ?? [], b.questions ?? [], (q) =>
    fixedText([q.text, q.about, q.system])
  );
  const whatIfs = tellApart(a.whatIfs ?? [], b.whatIfs ?? [], (w) => fixedText([w.name, w.changes]));
  const rechecks = tellApart(a.rechecks ?? [], b.rechecks ?? [], (r) => fixedText([r.day, r.items]));
  const locks = tellApart(a.locks ?? [], b.locks ?? [], (l) => fixedText([l.systems, l.release, l.must]));
  const estate: Estate = {
    site: merger.fields('site', a.site, b.site) as Estate['site'],
    systems: merger.list('system', a.systems, b.systems),
    goals: merger.list('goal', a.goals, b.goals),
    decisions: merger.list('decision', ...decisions),
    rightsHeld: merger.list('right', a.rightsHeld, b.rightsHeld, keysOfHeld(a.rightsHeld, b.rightsHeld)),
    ...optional('questions', merger.list('question', ...questions)),
    ...optional('lists', joinLists(a.lists ?? [], b.lists ?? [])),
    ...optional('imports', joinLists(a.imports ?? [], b.imports ?? [])),
    ...optional('whatIfs', merger.list('what-if', ...whatIfs)),
    ...optional('rechecks', merger.list('recheck', ...rechecks)),
    ...optional('calendars', merger.list('calendar', a.calendars ?? [], b.calendars ?? [])),
    ...optional('locks', merger.list('lock', ...locks)),
    ...optional('hostKeys', merger.list('host key', a.hostKeys ?? [], b.hostKeys ?? [])),
    ...optional('worksheets', merger.list('worksheet', a.worksheets ?? [], b.worksheets ?? []))
  };
  return {
    estate,
    conflicts: conflicts.sort((x, y) => compareText(x.key, y.key) || compareText(x.field, y.field))
  };
}

/**
 * Names what is held by its right, pool, edition and place; several alike in these are told apart by their order of last days.
 * A later last day of the same is a change, not another pool.
 */
export function keysOfHeld(...lists: readonly (readonly RightHeld[])[]): (held: RightHeld) => string {
  const keys = new Map<RightHeld, string>();
  for (const list of lists) {
    const seen = new Map<string, number>();
    for (const held of [...list].sort((a, b) =>
      compareText(fixedText([a.until, a.held]), fixedText([b.until, b.held]))
    )) {
      const about = [held.right, held.product, held.pool, held.edition, held.team ?? held.site]
        .filter(Boolean)
        .join(' ');
      const nth = (seen.get(about) ?? 0) + 1;
      seen.set(about, nth);
      keys.set(held, nth === 1 ? about : `${about} ${nth}`);
    }
  }
  return (held) => keys.get(held) ?? held.right;
}

const optional = <K extends string, V>(key: K, list: readonly V[]): Partial<Record<K, V[]>> =>
  (list.length > 0 ? { [key]: [...list] } : {}) as Partial<Record<K, V[]>>;

class Merger {
  readonly #conflicts: Conflict[];

  constructor(conflicts: Conflict[]) {
    this.#conflicts = conflicts;
  }

  list<T extends object>(
    kind: string,
    a: readonly T[],
    b: readonly T[],
    keyOf: (item: T) => string = (item) => (item as { id: string }).id
  ): T[] {
    const theirs = new Map(b.map((item) => [keyOf(item), item]));
    const keys = [...new Set([...a, ...b].map(keyOf))].sort(compareText);
    const mine = new Map(a.map((item) => [keyOf(item), item]));
    return keys.map((key) => {
      const [x, y] = [mine.get(key), theirs.get(key)];
      if (!x || !y) return (x ?? y) as T;
      return this.fields(`${kind}/${key}`, x as Fields, y as Fields) as T;
    });
  }

  /** Two records field by field; what is installed as one. */
  fields(key: string, a: Fields, b: Fields): Fields {
    const isSystem = key.startsWith('system/');
    const merged: Record<string, unknown> = {};
    for (const field of [...new Set([...Object.keys(a), ...Object.keys(b)])].sort(compareText)) {
      if (isSystem && isInstalled(field)) continue;
      const [x, y] = [a[field], b[field]];
      const value = x === undefined ? y : y === undefined ? x : this.#field(key, field, x, y);
      if (value !== undefined) merged[field] = value;
    }
    return isSystem ? { ...merged, ...this.#installed(key, a as System, b as System) } : merged;
  }

  #installed(key: string, a: System, b: System): Fields {
    const [x, y] = [pick(a), pick(b)].sort((p, q) => compareText(fixedText(p), fixedText(q))) as [
      Fields,
      Fields
    ];
    if (fixedText(x) === fixedText(y)) return x;
    if (a.observed !== undefined && b.observed !== undefined && a.observed !== b.observed)
      return pick(a.observed > b.observed ? a : b);
    this.#conflicts.push({ key, field: 'installed', values: [x, y] });
    return x;
  }

  #field(key: string, field: string, x: unknown, y: unknown): unknown {
    if (fixedText(x) === fixedText(y)) return x;
    if (field === 'facts') return this.#facts(x as Record<string, Fact>, y as Record<string, Fact>);
    if (field === 'observed' || field === 'missingSince') return [x, y].map(String).sort(compareText)[1];
    if (field === 'members') return this.#members(x as Members, y as Members);
    if (field === 'companions')
      return latestOf([...(x as Named[]), ...(y as Named[])], (c) => foldText(c.name));
    if (field === 'checks') return joinLists(...tellApart(x as Check[], y as Check[], fixedText));
    if (Array.isArray(x) && Array.isArray(y) && LISTS.has(field)) return joinLists(x, y);
    const values = [x, y].sort((p, q) => compareText(fixedText(p), fixedText(q))) as [unknown, unknown];
    if (field !== 'source') this.#conflicts.push({ key, field, values });
    return values[0];
  }

  /** Nodes by name, each with the facts of both. */
  #members(x: Members, y: Members): Members {
    const nodes = new Map<string, Members[number]>();
    for (const { name, facts } of [...x, ...y]) {
      const known = nodes.get(name)?.facts;
      const merged = known && facts ? this.#facts(known, facts) : (known ?? facts);
      nodes.set(name, merged ? { name, facts: merged } : { name });
    }
    return [...nodes.values()].sort((p, q) => compareText(p.name, q.name));
  }

  #facts(x: Readonly<Record<string, Fact>>, y: Readonly<Record<string, Fact>>): Record<string, Fact> {
    const ids = [...new Set([...Object.keys(x), ...Object.keys(y)])].sort(compareText);
    return Object.fromEntries(
      ids.flatMap((id) => {
        const fact = mergeFacts(x[id], y[id]);
        return fact ? [[id, fact]] : [];
      })
    );
  }
}

/** Lists whose entries stand beside each other. */
const LISTS = new Set(['links', 'history', 'references', 'entries']);
const isInstalled = (field: string): field is (typeof INSTALLED)[number] =>
  (INSTALLED as readonly string[]).includes(field);

const pick = (system: System): Fields =>
  Object.fromEntries(INSTALLED.flatMap((f) => (system[f] === undefined ? [] : [[f, system[f]]])));

type Members = NonNullable<System['members']>;
type Named = NonNullable<System['companions']>[number];

/** Of entries that go by one name the latest, in a fixed order. */
function latestOf<T>(list: readonly T[], nameOf: (item: T) => string): T[] {
  const ordered = [...list].sort((p, q) => compareText(orderOf(p), orderOf(q)));
  const latest = new Map(ordered.map((item) => [nameOf(item), item]));
  return [...latest].sort(([p], [q]) => compareText(p, q)).map(([, item]) => item);
}

/**
 * Two people number on from the same last id: entries that share an id and are about different things get ids of their
 * own, the one later in a fixed order by what it says, so that it is the same whoever merges and however often.
 */
function tellApart<T extends { readonly id: string }>(
  a: readonly T[],
  b: readonly T[],
  aboutOf: (item: T) => string
): [T[], T[]] {
  const [mine, theirs] = [a, b].map((list) => new Map(list.map((item) => [item.id, item])));
  const renamed = (item: T, other: T | undefined): T =>
    !other || aboutOf(item) === aboutOf(other) || compareText(fixedText(item), fixedText(other)) < 0
      ? item
      : { ...item, id: `${item.id}.${digestOf(aboutOf(item))}` };
  return [
    a.map((item) => renamed(item, theirs?.get(item.id))),
    b.map((item) => renamed(item, mine?.get(item.id)))
  ];
}

/** A short digest of a text (FNV-1a, 32 bits), for telling a handful of entries apart. */
function digestOf(text: string): string {
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193) >>> 0;
  return hash.toString(36);
}

/** Every entry once, in a fixed order. */
function joinLists<T>(a: readonly T[], b: readonly T[]): T[] {
  const all = new Map([...a, ...b].map((item) => [orderOf(item), item]));
  return [...all].sort(([x], [y]) => compareText(x, y)).map(([, item]) => item);
}

/** Days first, so that histories stay in order. */
const orderOf = (item: unknown): string =>
  `${typeof item === 'object' && item !== null && 'day' in item ? String(item.day) : ''} ${fixedText(item)}`;

/** A value as text that does not depend on the order of its keys. */
function fixedText(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(fixedText).join(',')}]`;
  if (typeof value !== 'object' || value === null) return JSON.stringify(value) ?? 'undefined';
  return `{${Object.entries(value)
    .filter(([, v]) => v !== undefined)
    .sort(([x], [y]) => compareText(x, y))
    .map(([k, v]) => `${JSON.stringify(k)}:${fixedText(v)}`)
    .join(',')}}`;
}

const withoutInstalled = <T extends object>(item: T): T =>
  Object.fromEntries(Object.entries(item).filter(([k]) => !isInstalled(k))) as T;

/** The estate with one conflict settled: the other of the two values in its place. */
export function chooseValue(estate: Estate, { key, field }: Conflict, value: unknown): Estate {
  if (key === 'site') return { ...estate, site: { ...estate.site, [field]: value } };
  const [kind = '', ...rest] = key.split('/');
  const id = rest.join('/');
  const set = <T extends object>(list: readonly T[], keyOf: (item: T) => string): T[] =>
    list.map((item) =>
      keyOf(item) !== id
        ? item
        : field === 'installed'
          ? { ...withoutInstalled(item), ...(value as object) }
          : { ...item, [field]: value }
    );
  const byId = (item: { id: string }): string => item.id;
  switch (kind) {
    case 'system':
      return { ...estate, systems: set(estate.systems, byId) };
    case 'goal':
      return { ...estate, goals: set(estate.goals, byId) };
    case 'decision':
      return { ...estate, decisions: set(estate.decisions, byId) };
    case 'question':
      return { ...estate, questions: set(estate.questions ?? [], byId) };
    case 'what-if':
      return { ...estate, whatIfs: set(estate.whatIfs ?? [], byId) };
    case 'recheck':
      return { ...estate, rechecks: set(estate.rechecks ?? [], byId) };
    case 'calendar':
      return { ...estate, calendars: set(estate.calendars ?? [], byId) };
    case 'worksheet':
      return { ...estate, worksheets: set(estate.worksheets ?? [], byId) };
    case 'lock':
      return { ...estate, locks: set(estate.locks ?? [], byId) };
    case 'host key':
      return { ...estate, hostKeys: set(estate.hostKeys ?? [], byId) };
    default:
      return { ...estate, rightsHeld: set(estate.rightsHeld, keysOfHeld(estate.rightsHeld)) };
  }
}
