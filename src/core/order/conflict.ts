import { decide, lift } from './decide';
import type { Constraint, Problem } from './problem';

/** Why goals cannot be reached together: the smallest set that forbids every order that would. */
export interface Conflict {
  /** Parts whose goals are in it. */
  readonly goals: readonly number[];
  readonly constraints: readonly Constraint[];
  /** Those of which each, out of the way by itself, gives an order to the goals. */
  readonly openings: readonly Constraint[];
}

/** What becomes of the goals of a component. */
export interface Fates {
  /** Goals that no order reaches, and those of which only some can be reached. */
  readonly conflicts: readonly Conflict[];
  /** Goals that are reached one by one. */
  readonly reachable: readonly number[];
  /** All of those are reached together. */
  readonly together: boolean;
  /** Some goals could not be decided. */
  readonly cut: boolean;
}

/** Decides each goal for itself, then those that can be reached together; of those that cannot the fewest that clash. */
export function findFates(problem: Problem, goals: readonly number[], bound: boolean): Fates {
  if (decide(problem, goals, bound).kind === 'reached')
    return { conflicts: [], reachable: goals, together: true, cut: false };
  const conflicts: Conflict[] = [];
  const reachable: number[] = [];
  let cut = false;
  for (const goal of goals) {
    const decided = decide(problem, [goal], bound);
    if (decided.kind === 'forbidden') conflicts.push(conflictOf(problem, [goal], decided.constraints));
    else {
      reachable.push(goal);
      cut ||= decided.kind === 'cut';
    }
  }
  const all = decide(problem, reachable, bound);
  if (all.kind === 'forbidden') {
    const clash = findClash(problem, reachable, bound);
    if (clash) conflicts.push(clash);
  }
  return { conflicts, reachable, together: all.kind === 'reached', cut: cut || all.kind === 'cut' };
}

/** Leaves out one goal after the other as long as the rest still clash. */
function findClash(problem: Problem, goals: readonly number[], bound: boolean): Conflict | undefined {
  let kept = goals;
  for (const goal of goals) {
    const less = kept.filter((g) => g !== goal);
    if (less.length > 0 && decide(problem, less, bound).kind === 'forbidden') kept = less;
  }
  const decided = decide(problem, kept, bound);
  return decided.kind === 'forbidden' ? conflictOf(problem, kept, decided.constraints) : undefined;
}

/** Whatever may change together counts: an opening is to be as wide as it can be. */
const conflictOf = (
  problem: Problem,
  goals: readonly number[],
  constraints: readonly Constraint[]
): Conflict => ({
  goals,
  constraints,
  openings: constraints.filter((c) => decide(lift(problem, c), goals, true).kind === 'reached')
});
