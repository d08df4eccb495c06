import type { Kept } from '../catalogue/schema';
import type { Day } from '../date/day';
import type { MaybeDay } from '../date/interval';

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
}

export type Step = PatchStep | CountedStep;

/** The right a step is made under. `costCents` is of one system, in the catalogue's currency. */
export interface RightUse {
  readonly kind: 'free' | 'carried' | 'held' | 'purchase' | 'ask';
  readonly right?: string;
  readonly costCents: number | 'unknown';
  /** Last day on which it can be used so. */
  readonly until?: Day;
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
  | 'cell';

/** A reason: the clause, what was seen, what was demanded, on whose word (RECKONING F1). */
export interface Reason {
  readonly code: ClauseCode;
  /** The hop, edition change, release or cell it belongs to. */
  readonly subject: string;
  readonly seen?: string;
  readonly demanded?: string;
  readonly day?: Day;
  readonly source?: string;
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
  readonly hops: number;
  readonly risks: readonly string[];
  readonly finish: StepDays;
  /** The latest publication, settling or first open day of any step: open today when not later than today. */
  readonly waitsUntil: MaybeDay;
  /** Unknown conditions it rests on; none in a sure route. */
  readonly restsOn: readonly Reason[];
}

/** Verdicts of a target, best first (RECKONING D). */
export const VERDICTS = ['here', 'straight', 'by hops', 'fresh only', 'not yet', 'closed'] as const;
export type Verdict = (typeof VERDICTS)[number];
export type ShownVerdict = Verdict | 'cannot tell';
