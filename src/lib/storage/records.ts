import {
  type Decision,
  DEFAULT_GOAL,
  type Estate,
  type Goal,
  type ImportRecord,
  migrateDecision,
  migrateWhatIf,
  type Question,
  type Recheck,
  type RememberedList,
  type RightHeld,
  type Site,
  type System,
  type WhatIf,
  type Workspace
} from '$core/estate';
import type { Write } from './change-log';

type CatalogueText = Workspace['catalogue'];

/** The stored records as an estate with its catalogue text. */
export function estateOfRecords(records: ReadonlyMap<string, unknown>): {
  estate: Estate;
  catalogue: CatalogueText;
} {
  const list = <T>(kind: string): T[] =>
    [...records].filter(([key]) => key.startsWith(`${kind}/`)).map(([, value]) => value as T);
  const goals = list<Goal>('goal');
  return {
    estate: {
      site: (records.get('site') as Site | undefined) ?? { name: '', countsExpected: true },
      systems: list<System>('system'),
      goals: goals.some((g) => g.team === undefined) ? goals : [...goals, DEFAULT_GOAL],
      decisions: list<Decision>('decision').map(migrateDecision),
      rightsHeld: (records.get('rights') as RightHeld[] | undefined) ?? [],
      ...present('questions', records.get('questions') as Question[] | undefined),
      ...present('lists', records.get('lists') as RememberedList[] | undefined),
      ...present('imports', records.get('imports') as ImportRecord[] | undefined),
      ...present('whatIfs', (records.get('whatIfs') as WhatIf[] | undefined)?.map(migrateWhatIf)),
      ...present('rechecks', records.get('rechecks') as Recheck[] | undefined)
    },
    catalogue: (records.get('catalogue') as CatalogueText | undefined) ?? { fileName: '', text: '' }
  };
}

/** Parts an estate may do without; left out where they are empty. */
const present = <K extends string, V>(key: K, list: readonly V[] | undefined): Partial<Record<K, V[]>> =>
  (list && list.length > 0 ? { [key]: list } : {}) as Partial<Record<K, V[]>>;

/** The writes that make the stored records those of this workspace, removing what is there now. */
export function writesOfWorkspace(
  estate: Estate,
  catalogue: CatalogueText,
  now: ReadonlyMap<string, unknown>
): Write[] {
  const next = new Map<string, unknown>([
    ['site', estate.site],
    ['rights', estate.rightsHeld],
    ['catalogue', catalogue],
    ...(['questions', 'lists', 'imports', 'whatIfs', 'rechecks'] as const).flatMap(
      (k): [string, unknown][] => (estate[k] ? [[k, estate[k]]] : [])
    ),
    ...estate.systems.map((s): [string, unknown] => [`system/${s.id}`, s]),
    ...estate.goals.map((g): [string, unknown] => [`goal/${g.id}`, g]),
    ...estate.decisions.map((d): [string, unknown] => [`decision/${d.id}`, d])
  ]);
  return [...writesOfNothing(now).filter(([key]) => !next.has(key)), ...next];
}

/** The writes that remove everything. */
export const writesOfNothing = (now: ReadonlyMap<string, unknown>): Write[] =>
  [...now.keys()].filter((key) => key !== 'version').map((key): Write => [key, undefined]);
