import type { Day } from '../date';
import type { Contributor } from '../deadline';
import type { Target } from '../estate';
import type { Reason, Route, Verdict } from '../route';
import { type CasePlan, isThere, saidVerdict, type SaidVerdict, type TargetPlan } from './plan-types';
import { type Urgency, urgencyOf } from './urgency';

/** What is told of a case, the same on every screen and in every file (docs/reckoning.md 9b). */
export interface Finding {
  readonly verdict: SaidVerdict;
  /** Better verdict that may hold if what is unknown turns out well. */
  readonly perhaps?: Verdict;
  /** Where its goal wants it. */
  readonly target?: Target;
  /** For `not yet`: the day it opens. */
  readonly opens?: TargetPlan['opens'];
  readonly hops?: number;
  /** Linked systems that change at the same moment. */
  readonly together?: number;
  /** What sets the deadline, with its day. */
  readonly setBy?: Contributor;
  readonly latestStart?: Day | 'none';
  readonly urgency: Urgency;
  /** Past its deadline, or no start ends in time any more. */
  readonly isLate: boolean;
  /** What the chosen way of one system takes; absent where there is none. */
  readonly takes?: Pick<
    Route,
    'costCents' | 'unknownSums' | 'least' | 'typicalMinutes' | 'carefulMinutes' | 'kept'
  >;
  /** The strongest first, at most three, each with the entry it comes from. */
  readonly reasons: readonly Reason[];
  /** Where the goal is closed: the best target that is open. */
  readonly bestOpen?: Target;
}

const MOST_REASONS = 3;

/** The finding of a case as of a day. */
export function findingOf(plan: CasePlan, today: Day): Finding {
  const { goalPlan, deadline, latestStart, bestOpen } = plan;
  const urgency = urgencyOf(plan, today);
  const there = goalPlan !== undefined && isThere(goalPlan);
  const route = there ? undefined : goalPlan?.route;
  const together = new Set(route?.needsFirst.filter((n) => n.together).map((n) => n.system)).size;
  return {
    verdict: saidVerdict(plan),
    ...(goalPlan?.perhaps && !there ? { perhaps: goalPlan.perhaps } : {}),
    ...(plan.goal ? { target: plan.goal } : {}),
    ...(goalPlan?.opens === undefined ? {} : { opens: goalPlan.opens }),
    ...(route ? { hops: route.hops, takes: route } : {}),
    ...(together > 0 ? { together } : {}),
    ...(deadline.setBy ? { setBy: deadline.setBy } : {}),
    ...(latestStart === undefined || there ? {} : { latestStart }),
    urgency,
    isLate: urgency.band === 'past its deadline' || urgency.band === 'too late to start',
    reasons: there ? [] : (goalPlan?.reasons.slice(0, MOST_REASONS) ?? []),
    ...(bestOpen ? { bestOpen } : {})
  };
}

/** What is found of a case, in words: each empty where there is nothing to say. */
export interface SaidFinding {
  /** `by 3 hops`; `cannot tell, perhaps straight there` */
  readonly verdict: string;
  readonly target: string;
  /** `31 May 2031`, the day of the deadline. */
  readonly day: string;
  readonly sets: string;
  /** `82 days left`, `41 days late`, `814 days past`; `in 82 days` where no start is known. */
  readonly left: string;
  /** What one system pays on its way. */
  readonly sum: string;
  /** At most three, the strongest first. */
  readonly reasons: readonly string[];
  /** All of it in one line, for files and logs. */
  readonly line: string;
}
