import { KEYS, type Part, type Write } from './records';
import type {
  Decision,
  Estate,
  Goal,
  HostKey,
  ImportRecord,
  Question,
  Recheck,
  RememberedList,
  RightHeld,
  Site,
  System,
  Target,
  WhatIf
} from './schema';
import type { WorkCalendar } from './schema-calendar';
import type { Worksheet } from './schema-worksheet';

/*
 * What people do to an estate, as writes: the estate as it is goes in, what is to be stored comes out. Nothing here knows the
 * day, makes an id or stores anything.
 */

/** Who decides, when, and the id the decision gets. */
export interface DecidedBy {
  readonly id: string;
  /** ISO day. */
  readonly day: string;
  readonly who?: string;
}

/** Most of each list that is kept, the oldest going first. */
const MOST: Readonly<
  Record<Exclude<Part, 'questions' | 'whatIfs' | 'calendars' | 'locks' | 'hostKeys'>, number>
> = {
  imports: 100,
  lists: 200,
  rechecks: 50
};

/** Systems as they stand now, new ones and changed ones. */
export const keepSystems = (systems: readonly System[]): Write[] =>
  systems.map((s): Write => [KEYS.system(s.id), s]);

/** A system that is new; where it takes another's place both keep that in their history. */
export function addSystem(system: System, replaces: System | undefined, by: Omit<DecidedBy, 'id'>): Write[] {
  if (!replaces) return keepSystems([system]);
  const event = (kind: 'replaces' | 'replaced', other: System) => ({ ...by, kind, with: other.id });
  return keepSystems([
    { ...system, history: [...(system.history ?? []), event('replaces', replaces)] },
    { ...replaces, history: [...(replaces.history ?? []), event('replaced', system)].slice(-500) }
  ]);
}

/** Host keys somebody has taken, each in the place of what was taken for its address before. */
export const takeHostKeys = ({ hostKeys = [] }: Estate, taken: readonly HostKey[]): Write[] => [
  ['hostKeys', [...hostKeys.filter((k) => !taken.some((t) => t.id === k.id)), ...taken]]
];

/** A worksheet as it is now, new or with entries added. */
export const keepWorksheet = (worksheet: Worksheet): Write[] => [[KEYS.worksheet(worksheet.id), worksheet]];
/** A worksheet let go. */
export const dropWorksheet = ({ id }: Worksheet): Write[] => [[KEYS.worksheet(id), undefined]];

/** A decision, new or in the place of the one with its id. */
export const keepDecision = (decision: Decision): Write[] => [[KEYS.decision(decision.id), decision]];
/** A decision taken back. */
export const dropDecision = ({ id }: Decision): Write[] => [[KEYS.decision(id), undefined]];
const dropAll = (decisions: readonly Decision[]): Write[] => decisions.flatMap(dropDecision);

/** A ruling: of an entry stated in several ways this statement holds; undefined takes the ruling back. */
export function ruleOn(
  { decisions }: Estate,
  entry: string,
  ruling: (DecidedBy & { readonly holds: string; readonly reason?: string }) | undefined
): Write[] {
  const before = decisions.filter((d) => d.kind === 'rule' && 'entry' in d.scope && d.scope.entry === entry);
  return [...dropAll(before), ...(ruling ? keepDecision({ ...ruling, kind: 'rule', scope: { entry } }) : [])];
}

/** Which source holds, or what is assumed. */
export type DecidedFact = { readonly holds: string } | { readonly value: string | number | boolean };

/** A ruling on a disputed fact, or an assumption in the place of an unknown one; undefined takes both back. */
export function decideFact(
  { decisions }: Estate,
  of: { readonly system: string; readonly fact: string },
  decided: (DecidedBy & DecidedFact & { readonly reason?: string; readonly until?: string }) | undefined
): Write[] {
  const before = decisions.filter(
    (d) => 'fact' in d.scope && d.scope.system === of.system && d.scope.fact === of.fact
  );
  const kind = decided && 'holds' in decided ? 'rule' : 'assume';
  return [...dropAll(before), ...(decided ? keepDecision({ ...decided, kind, scope: of }) : [])];
}

/** What a decision on targets is about: systems alike, on one line of the screen. */
interface Alike {
  readonly situation: string;
  readonly systems: readonly string[];
}

/** Decisions on a situation or on any of its systems. */
export function decisionsOn({ decisions }: Estate, { situation, systems }: Alike): Decision[] {
  const among = new Set(systems);
  return decisions.filter((d) =>
    'situation' in d.scope
      ? d.scope.situation === situation
      : 'system' in d.scope && among.has(d.scope.system)
  );
}

/** Picking a tread is a decision: the last one for a situation stands. */
export const chooseTarget = (estate: Estate, alike: Alike, target: Target, by: DecidedBy): Write[] => [
  ...followGoal(estate, alike),
  ...keepDecision({
    ...by,
    kind: 'choose a target',
    scope: { situation: alike.situation },
    target: { ...target }
  })
];

/** Takes the decisions of a situation back, so that the goal's rule chooses again. */
export const followGoal = (estate: Estate, alike: Alike): Write[] =>
  dropAll(decisionsOn(estate, alike).filter((d) => AIMS.includes(d.kind)));

/** What decides where a case is to go; a hop that is barred stays barred, whatever the target. */
const AIMS: readonly Decision['kind'][] = ['choose a target', 'choose a route', 'stay'];

/** The goal of a team, or with undefined the team follows the one of all others again. */
export function keepGoal({ goals }: Estate, team: string | undefined, goal: Goal | undefined): Write[] {
  const others = goals.filter((g) => g.team === team && g.id !== goal?.id);
  return [
    ...others.map((g): Write => [KEYS.goal(g.id), undefined]),
    ...(goal ? [[KEYS.goal(goal.id), goal] as Write] : [])
  ];
}

/** What the site goes by. */
export const keepSite = (site: Site): Write[] => [[KEYS.site, site]];

/** Planning as of a day, or with undefined as of the day it is. */
export function planAsOf({ site }: Estate, day: string | undefined): Write[] {
  const { asOf: _asOf, ...rest } = site;
  void _asOf;
  return keepSite(day ? { ...rest, asOf: day } : rest);
}

/** Another text of the catalogue. */
export const keepCatalogue = (fileName: string, text: string): Write[] => [
  [KEYS.catalogue, { fileName, text }]
];

/** What is held of rights, all of it. */
export const keepRights = (held: readonly RightHeld[]): Write[] => [[KEYS.rights, held]];

/** When work may be done, all calendars. */
export const keepCalendars = (calendars: readonly WorkCalendar[]): Write[] => [part('calendars', calendars)];
/** The questions asked, all of them. */
export const keepQuestions = (questions: readonly Question[]): Write[] => [part('questions', questions)];

/** Adds a what-if, or takes the place of the one with its id. */
export const keepWhatIf = ({ whatIfs = [] }: Estate, next: WhatIf): Write[] => [
  part('whatIfs', [...whatIfs.filter((w) => w.id !== next.id), next])
];
/** A what-if let go. */
export const dropWhatIf = ({ whatIfs = [] }: Estate, { id }: WhatIf): Write[] => [
  part(
    'whatIfs',
    whatIfs.filter((w) => w.id !== id)
  )
];

/** Keeps what stands in the way on a day; of more than fifty the oldest go. */
export const keepRecheck = ({ rechecks = [] }: Estate, next: Recheck): Write[] => [
  part('rechecks', [...rechecks, next].slice(-MOST.rechecks))
];
/** A kept result let go. */
export const dropRecheck = ({ rechecks = [] }: Estate, { id }: Recheck): Write[] => [
  part(
    'rechecks',
    rechecks.filter((r) => r.id !== id)
  )
];

/** Keeps what an import did; of more than a hundred the oldest go. */
export const keepImport = ({ imports = [] }: Estate, next: ImportRecord): Write[] => [
  part('imports', [...imports, next].slice(-MOST.imports))
];

/** How a list is read; what was remembered of it, or of the same column names, gives way (`isSame`). */
export const rememberList = (
  { lists = [] }: Estate,
  next: RememberedList,
  isSame: (list: RememberedList) => boolean
): Write[] => [part('lists', [...lists.filter((l) => !isSame(l)), next].slice(-MOST.lists))];
/** How a list is read, forgotten. */
export const forgetList = ({ lists = [] }: Estate, { list }: RememberedList): Write[] => [
  part(
    'lists',
    lists.filter((l) => l.list !== list)
  )
];

/** A part of the estate that is one record; none where it is empty. */
const part = (key: Part, list: readonly unknown[]): Write => [key, list.length > 0 ? [...list] : undefined];
