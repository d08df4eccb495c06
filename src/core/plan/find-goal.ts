import { passedOverOf } from '../bind';
import type { Place } from '../compile';
import { parseDay } from '../date';
import type { Decision } from '../estate';
import { findChosen, type Terms } from '../route';
import { findChosenTarget, findGoalTarget, findNamedTarget } from './choose-target';
import type { GoalSource } from './plan-types';

/** Where a goal wants a system: a decision first, then whether it is kept back, then what the goal names, then its rule. */
export function goalOf(
  terms: Terms,
  start: Place,
  decisions: readonly Decision[]
): { place?: Place; from: GoalSource } {
  for (const decision of [...decisions].reverse()) {
    if (decision.kind === 'stay') return { from: 'stay' };
    const place =
      decision.kind === 'choose a target' && decision.target
        ? findChosenTarget(terms, decision.target)
        : undefined;
    if (place) return { place, from: 'decision' };
  }
  const { kept } = terms.goal;
  if (kept && ('ranDays' in kept || terms.today <= (parseDay(kept.until) ?? -Infinity)))
    return { place: start, from: 'kept back' };
  const named = findNamedTarget(terms, start);
  if (named) return { place: named, from: 'goal' };
  const place = findGoalTarget(terms, start, passedOverOf(terms.model.product, decisions), (target) =>
    costOf(terms, start, target)
  );
  return place ? { place, from: 'rule' } : { from: 'none' };
}

/** What the way chosen to a target costs, in the order of worth: known sums, then sums nobody knows, then what is out of reach. */
function costOf(terms: Terms, start: Place, target: Place): number {
  if (target.release === start.release) return 0;
  const { label } = findChosen(terms, { start, target }, 'sure');
  if (!label) return Infinity;
  const { costCents, unknownSums } = label.criteria.most;
  return costCents + unknownSums.length * 1e12;
}
