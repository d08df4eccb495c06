import type { Kept } from '../catalogue/schema';
import type { Day } from '../date/day';
import type { MaybeDay } from '../date/interval';
import type { Evidence, Seen } from '../condition/evidence';
import type { Truth } from '../condition/truth';

/** Where a system stands: ids of the catalogue. */
export interface Standing {
  readonly release: string;
  readonly patch: string;
  readonly edition: string;
  readonly architecture: string;
}

/** Days a step takes, both included. Not `exact`: a day on the way is unknown, `first` is the earliest it can be. */
export interface StepDays {
  readonly first: Day;
  readonly last: Day;
  readonly exact: boolean;
}

export const COUNTED_KINDS = ['in place', 'fresh install', 'edition change'] as const;
export type CountedKind = (typeof COUNTED_KINDS)[number];

export interface PatchStep {
  readonly kind: 'patch';
  readonly from: Standing;
  readonly to: Standing;
  readonly days: StepDays;
  /** Of one node. */
  readonly typicalMinutes: number;
  readonly carefulMinutes: number;
}

/** A cure done before the step it serves, on its first day. `costCents` is of one system, all its nodes. */
export interface CureStep {
  readonly kind: 'cure';
  readonly id: string;
  readonly requirement: string;
  readonly from: Standing;
  readonly to: Standing;
  readonly days: StepDays;
  readonly typicalMinutes: number;
  readonly carefulMinutes: number;
  readonly leadDays: number;
  readonly costCents: number | 'unknown';
  /** It gives up the way back. */
  readonly closesWayBack: boolean;
  /** Some reading of what nobody has read makes it needless: asked first, never bought before. */
  readonly ifNeeded: boolean;
}

/** What a caution wants done before the step that meets it, on its first day. */
export interface WorkAroundStep {
  readonly kind: 'work-around';
  /** Id of the caution. */
  readonly id: string;
  /** How often it is done: once a node, for the system, or for each of what it is linked with; minutes are of one time. */
  readonly times: number;
  readonly from: Standing;
  readonly to: Standing;
  readonly days: StepDays;
  readonly typicalMinutes: number;
  readonly carefulMinutes: number;
}

/** What is done around a step for what the system has on it (RECKONING 1.5). */
export type WorkTask = 'back up' | 'take off' | 'copy back' | 'put on again' | 'update';

/** Work a hop brings beside itself, on its days: before it where it makes ready, after it where it puts back. */
export interface WorkStep {
  readonly kind: 'work';
  /** The task, with the companion's id where it is about one. */
  readonly id: string;
  readonly task: WorkTask;
  readonly companion?: string;
  readonly needsKey: boolean;
  readonly from: Standing;
  readonly to: Standing;
  readonly days: StepDays;
  readonly typicalMinutes: number;
  readonly carefulMinutes: number;
}

/** How a hop is had on one machine, and how its offer stands there. */
export interface Obtained {
  readonly way?: string;
  readonly risk?: string;
  readonly note?: string;
  readonly started?: string;
  readonly status?: 'offered' | 'not offered yet' | 'withheld' | 'perhaps withheld';
  /** Why it is withheld. */
  readonly because?: string;
  readonly others: readonly { readonly way: string; readonly risk?: string }[];
}

export interface CountedStep {
  readonly kind: CountedKind;
  /** Id of the hop or edition change. */
  readonly id: string;
  readonly from: Standing;
  readonly to: Standing;
  readonly days: StepDays;
  readonly typicalMinutes: number;
  readonly carefulMinutes: number;
  readonly kept: Kept;
  readonly right: RightUse;
  readonly obtain?: Obtained;
}

export type Step = PatchStep | CureStep | WorkAroundStep | WorkStep | CountedStep;

/** Whether a step counts as a hop: what comes before it - patch, cures, work-arounds - does not. */
export const isCounted = (step: Step): step is CountedStep =>
  COUNTED_KINDS.some((kind) => kind === step.kind);

/** Counted units a step takes out of a pool; never mixed between editions (RECKONING E1, H). */
export interface UnitUse {
  readonly pool: string;
  readonly edition?: string;
  readonly number: number | 'unknown';
}

/** The right a step is made under. `costCents` is of one system, in the catalogue's currency. */
export interface RightUse {
  readonly kind: 'free' | 'carried' | 'held' | 'purchase' | 'ask';
  readonly right?: string;
  readonly costCents: number | 'unknown';
  /** Of purchases: what one of it, or one pack of its units, costs on the step's day. */
  readonly priceCents?: number | 'unknown';
  /** Last day on which it can be used so. */
  readonly until?: Day;
  /** Rights counted in units cost no money on the route; what is to be bought is found over the estate. */
  readonly units?: UnitUse;
}

/** What is known and decided of the system that steps are asked about. */
export interface Asking {
  evidence(standing: Standing): Evidence;
  /** What it is known to have, by folded name. */
  readonly companions: readonly { readonly name: string; readonly essential?: boolean }[];
  /** What is not among them is not there. */
  readonly companionsWhole: boolean;
  /** What nodes state of themselves, one a node; empty where none is told by name. */
  readonly nodes: readonly ReadonlyMap<string, Seen>[];
  /** Whether a fact was observed longer ago than its kind's shelf life; `hasStale`: any was. */
  isStale(fact: string): boolean;
  readonly hasStale: boolean;
  /** What checking tools found, of each tool its latest run. */
  readonly checked: Checked;
  /** Decisions in force, by the id of what they are about, with their last day. */
  readonly decided: Readonly<Record<'accepted' | 'waived' | 'ignored', ReadonlyMap<string, Day>>>;
}

/** Findings of checking tools as statements (RECKONING 1.12). */
export interface Checked {
  /** Whether requirements hold, by id, and companions work, by folded name. */
  readonly requirements: ReadonlyMap<string, Truth>;
  readonly companions: ReadonlyMap<string, Truth>;
  /** Failures nobody can place, as the tool words them; sorted. */
  readonly unplaced: readonly string[];
}

/** Everything that can make a step fail. */
export type ClauseCode =
  | 'fresh not allowed'
  | 'unsupported not allowed'
  | 'keeps too little'
  | 'maturity'
  | 'level'
  | 'every patch'
  | 'newer than target'
  | 'patch withdrawn'
  | 'closed'
  | 'right'
  | 'spending'
  | 'pass days'
  | 'resting'
  | 'months left'
  | 'requirement'
  | 'site demand'
  | 'space'
  | 'cure'
  | 'cure limit'
  | 'companion'
  | 'caution'
  | 'check'
  | 'offer'
  | 'withheld'
  | 'pairing'
  | 'cell';

/** The name a clause goes by, wherever on a route it is asked: what openings lift and questions settle. */
export const clauseKey = ({
  code,
  subject
}: {
  readonly code: ClauseCode;
  readonly subject: string;
}): string => (subject === '' ? code : `${code} ${subject}`);

/** A reason: the clause, what was seen, what was demanded, on whose word (RECKONING F1). */
export interface Reason {
  readonly code: ClauseCode;
  /** The hop, edition change, release or cell it belongs to. */
  readonly subject: string;
  readonly seen?: string;
  readonly demanded?: string;
  readonly day?: Day;
  readonly source?: string;
  /** Facts nobody knows that it turns on. */
  readonly unknown?: readonly string[];
}

/** Steps in order ending on a target, with what they come to. */
export interface Route {
  readonly steps: readonly Step[];
  readonly kept: Kept;
  /** Sum of the known prices of one system. */
  readonly costCents: number;
  /** Steps whose price nobody has published. */
  readonly unknownSums: readonly string[];
  /** All nodes. */
  readonly typicalMinutes: number;
  readonly carefulMinutes: number;
  /** The same where what is unknown turns out best: without the cures that are needed only perhaps. */
  readonly least: {
    readonly costCents: number;
    readonly unknownSums: readonly string[];
    readonly typicalMinutes: number;
    readonly carefulMinutes: number;
  };
  readonly hops: number;
  readonly risks: readonly string[];
  /** Counted units by pool and edition, summed over the steps. */
  readonly units: readonly UnitUse[];
  /** What must be done first on linked systems, each once; where there is any, the order is not yet proven. */
  readonly needsFirst: readonly NeededFirst[];
  readonly finish: StepDays;
  /** The latest publication, settling or first open day of any step: open today when not later than today. */
  readonly waitsUntil: MaybeDay;
  /** Unknown conditions it rests on; none in a sure route. */
  readonly restsOn: readonly Reason[];
}

/** A linked system that has to reach a release before a step of this route (RECKONING E6). */
export interface NeededFirst {
  /** Id of the pairing that asks for it. */
  readonly pairing: string;
  readonly system: string;
  readonly product: string;
  readonly to: Standing;
  readonly finish: StepDays;
  readonly waitsUntil: MaybeDay;
  /** Neither can go first: where this one stands, the other may not be there yet. */
  readonly together: boolean;
  /** How it gets there; what that needs first in turn is listed beside it. */
  readonly route: Route;
}

/** Verdicts of a target, best first (RECKONING D). */
export const VERDICTS = ['here', 'straight', 'by hops', 'fresh only', 'not yet', 'closed'] as const;
export type Verdict = (typeof VERDICTS)[number];
export type ShownVerdict = Verdict | 'cannot tell';
