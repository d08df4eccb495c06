import type { Day } from '../date';
import { judgeMoves, type Move, type Terms } from '../route';

const TWENTY_YEARS = 7305;
/** As a route that ends on the target is judged in the sure run. */
export const SURELY_THERE = { isTarget: true, run: 'sure' } as const;

/**
 * The last day from which the moves hold and end by `finishBy`; undefined when no day is the last, `none` when no
 * start does it. Starting earlier never breaks a route (waiting is always possible), so halving finds it.
 */
export function latestStartOf(
  terms: Terms,
  moves: readonly Move[],
  finishBy: number
): Day | 'none' | undefined {
  const holds = (from: Day): boolean => {
    const { findings, schedule } = judgeMoves({ ...terms, from, leadsFrom: from }, moves, SURELY_THERE);
    const finish = schedule.days[moves.length - 1]?.hop;
    return (
      findings.length === 0 &&
      finish !== undefined &&
      finish.last <= finishBy &&
      (finish.exact || finishBy === Infinity)
    );
  };
  let low = Math.min(terms.today, finishBy) - TWENTY_YEARS;
  let high = Math.max(terms.today, finishBy === Infinity ? 0 : finishBy) + TWENTY_YEARS;
  if (holds(high)) return undefined;
  if (!holds(low)) return 'none';
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (holds(middle)) low = middle;
    else high = middle;
  }
  return low;
}
