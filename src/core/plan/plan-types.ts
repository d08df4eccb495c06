import type { OnTrack } from '../catalogue';
import type { Day, MaybeDay, StepDays } from '../date';
import type { Deadline } from '../deadline';
import type { Target, WayStep } from '../estate';
import type { RightNeed, RightPool, RightUse } from '../right';
import type { BlockAt, Fallback, Reason, Route, ShownVerdict, Verdict } from '../route';
import type { Standing } from '../version';

/** What is said of one target of a case. */
export interface TargetPlan {
  readonly target: Target;
  readonly verdict: ShownVerdict;
  readonly sure: Verdict;
  readonly best: Verdict;
  /** Better verdict that may hold if what is unknown turns out well. */
  readonly perhaps?: Verdict;
  /** Earlier in the sequence than what is installed. */
  readonly older: boolean;
  /** For `not yet`: the day it opens; unknown when nobody has said. */
  readonly opens?: MaybeDay;
  /** The chosen route: sure, and verified by the tests' verifier. */
  readonly route?: Route;
  /** Why it is closed, or what it rests on; empty where it is not, or is older than what is installed. */
  readonly reasons: readonly Reason[];
}

/** A disputed entry of the catalogue; `ruled` is the key of the statement that holds, absent while nobody has ruled. */
export interface RestsOn {
  readonly entry: string;
  readonly ruled?: string;
}

/** What replacing the machine would take (FIELD-NOTES N22, N58). */
export interface Replacement {
  /** The new machine and what its right costs. */
  readonly costCents: number | 'unknown';
  /** How the goal is set up on it; absent where no fresh install leads there from nothing. */
  readonly route?: Route;
  /** Cures cost the site's share of a new machine or more, or nothing else leads there. */
  readonly advised: boolean;
}

/** A way somebody has chosen for the goal. */
export interface DecidedWay {
  readonly way: readonly WayStep[];
  readonly stands: boolean;
  /** Whether such steps lead to the goal at all. */
  readonly leads: boolean;
  /** Where it does not stand: what is in its way; none where it needs other cures or another right than it was chosen with. */
  readonly reasons: readonly Reason[];
}

/** Whether there is nothing to be reached: it is where its goal wants it, or newer. */
export const isThere = ({ verdict, older }: Pick<TargetPlan, 'verdict' | 'older'>): boolean =>
  verdict === 'here' || older;

/** What is said of a case: its verdict, or that it is newer than where its goal wants it. */
export type SaidVerdict = ShownVerdict | 'newer than the target';
export const saidVerdict = ({ verdict, goalPlan }: Pick<CasePlan, 'verdict' | 'goalPlan'>): SaidVerdict =>
  goalPlan?.older === true ? 'newer than the target' : verdict;

/** How the goal came by its target. */
export type GoalSource = 'rule' | 'goal' | 'decision' | 'kept back' | 'stay' | 'none';

/** The plan of one case: systems alike in all that rules ask. */
export interface CasePlan {
  readonly id: string;
  readonly situation: string;
  readonly product?: string;
  readonly systems: readonly string[];
  /** Where it stands; the worst of the possible starts where that is not known. */
  readonly start?: Standing;
  readonly startIsSure: boolean;
  readonly starts: number;
  readonly goal?: Target;
  readonly goalFrom: GoalSource;
  /** The goal's target from where it stands; its verdicts are the worst and best over all starts, each to its own goal. */
  readonly goalPlan?: TargetPlan;
  /** Every target of the product, in sequence, then edition, then architecture. */
  readonly targets: readonly TargetPlan[];
  /** For each counted hop of the goal's chosen route: what is done when it fails. */
  readonly fallbacks: readonly Fallback[];
  /** A new machine in its place: shown beside, decides nothing. */
  readonly replace?: Replacement;
  readonly verdict: ShownVerdict;
  readonly decidedWay?: DecidedWay;
  readonly track?: OnTrack;
  readonly deadline: Deadline;
  readonly latestStart?: Day | 'none';
  /** How much hangs on its systems, where their goal says; absent: normal. */
  readonly importance?: 'critical' | 'spare';
  /** Days from today to the latest start; absent where there is no route or nothing binds it. */
  readonly slack?: number;
  /**
   * Where its systems go in rounds: what they are, as far as windows have room; latest start and slack are those of all of them, and
   * so many systems are in time.
   */
  readonly rounds?: readonly RoundPlan[];
  readonly inTime?: number;
  /** Where the goal is closed: the best target that is open. */
  readonly bestOpen?: Target;
  /** Entries stated in several ways that the verdict touches, and the statement a ruling lets hold. */
  readonly restsOn?: readonly RestsOn[];
  /** The search ended on its budget. */
  readonly cut: boolean;
}

/** Systems of a case that go together; those of all rounds stand in the case's order, pilots first. */
export interface RoundPlan {
  readonly systems: number;
  readonly isPilot: boolean;
  /** It keeps every clause and every end. */
  readonly inTime: boolean;
  readonly steps: readonly {
    readonly id: string;
    readonly to: { readonly release: string; readonly edition: string };
    readonly days: StepDays;
    readonly right: RightUse;
    readonly at?: BlockAt;
    readonly nodesAt?: readonly BlockAt[];
    readonly patchAt?: BlockAt;
  }[];
  readonly finish: StepDays;
}

export interface PlanProgress {
  readonly done: number;
  readonly of: number;
}

export interface Plan {
  readonly today: Day;
  readonly cases: readonly CasePlan[];
  readonly systems: number;
  readonly situations: number;
  /** What the chosen routes take of rights, over the estate: the one count everything shows. */
  readonly rights: readonly RightNeed[];
  /** What is held, and who draws on it. */
  readonly pools: readonly RightPool[];
}

/** Whether two targets are the same; one that is absent is the same as none. */
export const sameTarget = (a: Target | undefined, b: Target | undefined): boolean =>
  a !== undefined &&
  b !== undefined &&
  a.release === b.release &&
  a.edition === b.edition &&
  a.architecture === b.architecture;
