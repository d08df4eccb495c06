import type { Catalogue } from '../catalogue';
import {
  comparePlans,
  plan,
  type Plan,
  type PlanCache,
  type PlanChange,
  Planning,
  planWith,
  saidVerdict
} from '../plan';
import { type Day, formatDay } from '../date';
import type { Change, Estate } from '../estate';
import { applyChanges } from './apply-changes';

/** A plan before and after changes. */
export interface Tried {
  readonly before: Plan;
  readonly after: Plan;
  readonly changes: readonly PlanChange[];
  /** Systems that reach their goal, today or later, before and after. */
  readonly reaching: readonly [before: number, after: number];
}

export interface Trying {
  readonly catalogue: Catalogue;
  readonly estate: Estate;
  readonly today: Day;
  /** The plan as things are, where it is at hand. */
  readonly before?: Plan;
  readonly cache?: PlanCache;
}

/** The estate with changes made: what is planned by, without planning. */
export function planningWith({ catalogue, estate, today }: Trying, changes: readonly Change[]): Planning {
  const changed = applyChanges({ estate, catalogue, today, source: 'tried' }, changes);
  return new Planning({ catalogue, estate: changed.estate, today: changed.today });
}

/** Plans a copy of the estate with changes made, and says what differs. Cost: one plan, less what the cache holds. */
export function tryChanges(trying: Trying, changes: readonly Change[]): Tried {
  const { catalogue, estate, today } = trying;
  const before = trying.before ?? plan({ catalogue, estate, today, every: 'goal' });
  const steps = planWith(planningWith(trying, changes), 'goal', trying.cache);
  for (let next = steps.next(); ; next = steps.next())
    if (next.done) {
      const after = next.value;
      return {
        before,
        after,
        changes: comparePlans(before, after),
        reaching: [countReaching(before), countReaching(after)]
      };
    }
}

/** Systems whose goal is reached, today or later, or is where they stand or behind it. */
const countReaching = ({ cases }: Plan): number =>
  cases.reduce((n, c) => n + (['closed', 'cannot tell'].includes(saidVerdict(c)) ? 0 : c.systems.length), 0);

/** The name facts are kept under when a what-if is applied. */
export const sourceOf = (name: string, day: Day): string => `${name}, ${formatDay(day)}`;
