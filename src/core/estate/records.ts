import { migrateDecision, migrateWhatIf } from './migrate';
import {
  type Decision,
  DEFAULT_GOAL,
  type Estate,
  type Goal,
  type HostKey,
  type ImportRecord,
  type Question,
  type Recheck,
  type RememberedList,
  type RightHeld,
  type Site,
  type System,
  type WhatIf,
  type Workspace
} from './schema';
import type { WorkCalendar } from './schema-calendar';
import type { OrderLock } from './schema-order';
import type { Worksheet } from './schema-worksheet';

/** The text of the workspace's catalogue, with the name of its file. */
export type CatalogueText = Workspace['catalogue'];

/** A key with its new value; undefined removes it. */
export type Write = readonly [key: string, value: unknown];
export type Records = ReadonlyMap<string, unknown>;

/** Parts an estate may do without, each one record. */
const PARTS = [
  'questions',
  'lists',
  'imports',
  'whatIfs',
  'rechecks',
  'calendars',
  'locks',
  'hostKeys'
] as const;
export type Part = (typeof PARTS)[number];

/** The keys everything is stored under: `system/ID`, `goal/ID`, `decision/ID`, `worksheet/ID`, and one record each of the rest. */
export const KEYS = {
  site: 'site',
  rights: 'rights',
  catalogue: 'catalogue',
  version: 'version',
  system: (id: string) => `system/${id}`,
  goal: (id: string) => `goal/${id}`,
  decision: (id: string) => `decision/${id}`,
  worksheet: (id: string) => `worksheet/${id}`
} as const;

/** The stored records as an estate with its catalogue text. Those of the same kind in the order they are given in. */
export function estateOfRecords(records: Records): { estate: Estate; catalogue: CatalogueText } {
  const systems: System[] = [];
  const goals: Goal[] = [];
  const decisions: Decision[] = [];
  const worksheets: Worksheet[] = [];
  for (const [key, value] of records)
    if (key.startsWith('system/')) systems.push(value as System);
    else if (key.startsWith('goal/')) goals.push(value as Goal);
    else if (key.startsWith('decision/')) decisions.push(migrateDecision(value as Decision));
    else if (key.startsWith('worksheet/')) worksheets.push(value as Worksheet);
  return {
    estate: {
      site: (records.get(KEYS.site) as Site | undefined) ?? { name: '', countsExpected: true },
      systems,
      goals: goals.some((g) => g.team === undefined) ? goals : [...goals, DEFAULT_GOAL],
      decisions,
      rightsHeld: (records.get(KEYS.rights) as RightHeld[] | undefined) ?? [],
      ...present('questions', records.get('questions') as Question[] | undefined),
      ...present('lists', records.get('lists') as RememberedList[] | undefined),
      ...present('imports', records.get('imports') as ImportRecord[] | undefined),
      ...present('whatIfs', (records.get('whatIfs') as WhatIf[] | undefined)?.map(migrateWhatIf)),
      ...present('rechecks', records.get('rechecks') as Recheck[] | undefined),
      ...present('calendars', records.get('calendars') as WorkCalendar[] | undefined),
      ...present('worksheets', worksheets),
      ...present('locks', records.get('locks') as OrderLock[] | undefined),
      ...present('hostKeys', records.get('hostKeys') as HostKey[] | undefined)
    },
    catalogue: (records.get(KEYS.catalogue) as CatalogueText | undefined) ?? { fileName: '', text: '' }
  };
}

/** Records that writes are made to, and the estate they are. Of a few systems that change the rest is not read again. */
export class HeldEstate {
  readonly #records: Map<string, unknown>;
  #read: ReturnType<typeof estateOfRecords> | undefined;
  /** Places of systems in the estate, by key. */
  #places: Map<string, number> | undefined;

  constructor(records: Iterable<readonly [string, unknown]> = []) {
    this.#records = new Map(records);
  }

  write(writes: readonly Write[]): void {
    const systems = this.#read && [...this.#read.estate.systems];
    this.#places ??= systems && new Map(systems.map((s, i) => [KEYS.system(s.id), i]));
    let isHeld = systems !== undefined && writes.length < systems.length;
    for (const [key, value] of writes) {
      const place = this.#places?.get(key);
      if (value === undefined) this.#records.delete(key);
      else this.#records.set(key, value);
      if (systems && place !== undefined && value !== undefined) systems[place] = value as System;
      else isHeld = false;
    }
    if (isHeld && systems && this.#read)
      this.#read = { ...this.#read, estate: { ...this.#read.estate, systems } };
    else if (writes.length > 0) [this.#read, this.#places] = [undefined, undefined];
  }

  get estate(): Estate {
    return (this.#read ??= estateOfRecords(this.#records)).estate;
  }
}

/** Parts an estate may do without; left out where they are empty. */
const present = <K extends string, V>(key: K, list: readonly V[] | undefined): Partial<Record<K, V[]>> =>
  (list && list.length > 0 ? { [key]: list } : {}) as Partial<Record<K, V[]>>;

/** Everything an estate and its catalogue are stored as. */
export const recordsOfEstate = (estate: Estate, catalogue: CatalogueText): Write[] => [
  [KEYS.site, estate.site],
  [KEYS.rights, estate.rightsHeld],
  [KEYS.catalogue, catalogue],
  ...PARTS.flatMap((part): Write[] => (estate[part] ? [[part, estate[part]]] : [])),
  ...estate.systems.map((s): Write => [KEYS.system(s.id), s]),
  ...estate.goals.map((g): Write => [KEYS.goal(g.id), g]),
  ...estate.decisions.map((d): Write => [KEYS.decision(d.id), d]),
  ...(estate.worksheets ?? []).map((w): Write => [KEYS.worksheet(w.id), w])
];

/**
 * What an estate, read from records not newer than these, has under some keys. What an estate has without its being kept - a
 * goal for all, a name - is missing.
 */
export function recordsUnder(
  keys: readonly string[],
  { estate, catalogue }: { readonly estate: Estate; readonly catalogue: CatalogueText },
  now: Records
): Records {
  const wanted = new Set(keys);
  const prefix = KEYS.system('');
  const ids = new Set(keys.flatMap((key) => (key.startsWith(prefix) ? [key.slice(prefix.length)] : [])));
  // An edit of one system among a hundred thousand asks for one.
  const asked = { ...estate, systems: estate.systems.filter((s) => ids.has(s.id)) };
  const isKept = (key: string): boolean =>
    now.has(key) || key.startsWith(prefix) || key.startsWith(KEYS.decision(''));
  return new Map(recordsOfEstate(asked, catalogue).filter(([key]) => wanted.has(key) && isKept(key)));
}

/** The writes that make the stored records those of this workspace, removing what is there now. */
export function writesOfWorkspace(estate: Estate, catalogue: CatalogueText, now: Records): Write[] {
  const next = new Map(recordsOfEstate(estate, catalogue));
  return [...writesOfNothing(now).filter(([key]) => !next.has(key)), ...next];
}

/** The writes that remove everything. */
export const writesOfNothing = (now: Records): Write[] =>
  [...now.keys()].filter((key) => key !== KEYS.version).map((key): Write => [key, undefined]);

/** The records with writes made; a new map. */
export function withWrites(records: Records, writes: readonly Write[]): Records {
  const next = new Map(records);
  for (const [key, value] of writes)
    if (value === undefined) next.delete(key);
    else next.set(key, value);
  return next;
}

/** The writes that make one estate of another, where systems, goals, decisions, what is held, calendars or locks differ. */
export function writesBetween(before: Estate, after: Estate): Write[] {
  const differ = <T extends { readonly id: string }>(
    keyOf: (id: string) => string,
    a: readonly T[],
    b: readonly T[]
  ): Write[] => {
    const known = new Map(a.map((item) => [item.id, item]));
    const kept = new Set(b.map((item) => item.id));
    return [
      ...a.filter((item) => !kept.has(item.id)).map((item): Write => [keyOf(item.id), undefined]),
      ...b.filter((item) => known.get(item.id) !== item).map((item): Write => [keyOf(item.id), item])
    ];
  };
  return [
    ...differ(KEYS.system, before.systems, after.systems),
    ...differ(KEYS.goal, before.goals, after.goals),
    ...differ(KEYS.decision, before.decisions, after.decisions),
    ...differ(KEYS.worksheet, before.worksheets ?? [], after.worksheets ?? []),
    ...(before.rightsHeld === after.rightsHeld ? [] : [[KEYS.rights, after.rightsHeld] as Write]),
    ...(['calendars', 'locks', 'hostKeys'] as const).flatMap((part): Write[] =>
      before[part] === after[part] ? [] : [[part, after[part]?.length ? after[part] : undefined]]
    )
  ];
}
