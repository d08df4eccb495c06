import { compareText } from '../kit';
import type { Catalogue } from '../catalogue';
import type { Day } from '../date';
import type { Estate } from '../estate';
import { exploreCase, type Exploration } from './explore';
import { PlanCache } from './plan-cache';
import { Planning } from './planning';
import type { CasePlan, Plan, PlanProgress } from './plan-types';
import { withRestsOn } from './rests-on';
import { countRightNeeds } from '../right';
import { rightCallsOf } from './right-calls';
import { withRounds } from './rounds';
import { compareUrgency, type Urgency, urgencyOf } from './urgency';
import { type Waiting, waitOut } from './waiting';

export interface PlanInput {
  readonly catalogue: Catalogue;
  readonly estate: Estate;
  readonly today: Day;
  /** What is planned of each case: the goal alone, or every target (the default). */
  readonly every?: 'goal' | 'target';
}

/** The one entry of the core: (catalogue, estate with its goals and decisions, today) to plan. */
export function plan(input: PlanInput): Plan {
  const steps = planStepwise(input);
  for (let next = steps.next(); ; next = steps.next()) if (next.done) return next.value;
}

/** The same, pausing after every case, so that a worker can tell how far it is. */
export function planStepwise(input: PlanInput): Generator<PlanProgress, Plan> {
  return planWith(new Planning(input), input.every ?? 'target');
}

/**
 * The same with what is planned by made beforehand, so that it can be asked further questions afterwards; a cache kept
 * from one planning to the next has only what changed planned anew.
 */
export function* planWith(
  planning: Planning,
  every: 'goal' | 'target',
  cache = new PlanCache()
): Generator<PlanProgress, Plan> {
  const { catalogue, estate, today } = planning;
  const { cases, situations } = planning.gather();
  const plans: CasePlan[] = [];
  for (const one of cases) {
    const known = every === 'goal' ? planning.planOf(one) : undefined;
    if (known) {
      plans.push(known);
      continue;
    }
    const planned = withRestsOn(planning, one, cache.plan(planning, one, every));
    if (every === 'goal') planning.keepPlan(one, planned);
    plans.push(planned);
    yield { done: plans.length, of: cases.length };
  }
  planning.alike.forget();
  if (every === 'goal') planning.keepPlans(cases.map((one, i) => [one, plans[i] as CasePlan]));
  const ordered = withRounds(planning, plans).sort(byUrgency(today));
  const { needs, pools } = countRightNeeds(rightCallsOf(ordered, planning), estate, catalogue, today);
  return {
    today,
    cases: ordered,
    systems: estate.systems.length,
    situations,
    rights: needs,
    pools
  };
}

/** A plan with every case's goal looked into: each way, openings, questions, fallbacks, why not straight. */
export function planInDepth(input: PlanInput): {
  readonly plan: Plan;
  lookInto(one: CasePlan): Exploration | undefined;
  /** What waiting costs on each of so many days ahead. */
  wait(days: number): Waiting;
} {
  const planning = new Planning(input);
  const cases = new Map(planning.gather().cases.map((c) => [c.id, c]));
  const lookInto = (plan: CasePlan): Exploration | undefined => {
    const one = cases.get(plan.id);
    return one && exploreCase(planning, one, plan);
  };
  const steps = planWith(planning, input.every ?? 'target');
  for (let next = steps.next(); ; next = steps.next())
    if (next.done) return { plan: next.value, lookInto, wait: (days) => waitAll(planning, next.value, days) };
}

/** The order of the estate: the most urgent first, then what much hangs on before what little does, then by id. Total. */
function byUrgency(today: Day): (a: CasePlan, b: CasePlan) => number {
  const known = new Map<CasePlan, Urgency>();
  const of = (plan: CasePlan): Urgency => {
    const urgency = known.get(plan) ?? urgencyOf(plan, today);
    known.set(plan, urgency);
    return urgency;
  };
  return (a, b) =>
    compareUrgency(of(a), of(b)) ||
    (a.deadline.day ?? 1e9) - (b.deadline.day ?? 1e9) ||
    weight(a) - weight(b) ||
    compareText(a.id, b.id);
}

const weight = ({ importance }: CasePlan): number =>
  importance === 'critical' ? 0 : importance === 'spare' ? 2 : 1;

function waitAll(planning: Planning, plan: Plan, days: number): Waiting {
  const steps = waitOut(planning, plan, { days });
  for (let next = steps.next(); ; next = steps.next()) if (next.done) return next.value;
}
