import { type Mix, type Problem } from './problem';
import type { Mixes, Stand } from './mixes';

/** Mixes looked at, at most, to say for certain whether an order exists. */
export const MOST_MIXES = 20_000;

/** How many systems of critical, normal, spare importance stand on their goals; `all` where every part that may move does. */
export interface Reached {
  readonly all: boolean;
  readonly systems: readonly [number, number, number];
}

/** What a mix reaches. */
export const reachedIn = (problem: Problem, mix: Mix): Reached =>
  reachedBy(
    problem,
    new Set(mix.flatMap((node, part) => (problem.parts[part]?.nodes[node]?.isGoal ? [part] : [])))
  );

/** With these parts on their goals, and those that are there from the beginning. */
export function reachedBy({ parts }: Problem, there: ReadonlySet<number>): Reached {
  const systems: [number, number, number] = [0, 0, 0];
  let all = true;
  parts.forEach(({ nodes, systems: own, importance, stays }, i) => {
    const rank = importance === 'critical' ? 0 : importance === 'normal' ? 1 : 2;
    if (there.has(i) || nodes[0]?.isGoal) systems[rank] += own.length;
    else if (!stays && nodes.some((n) => n.isGoal)) all = false;
  });
  return { all, systems };
}

/** Negative where the first reaches more: everything, else most of critical, of normal, of spare importance. */
export const compareReached = (a: Reached, b: Reached): number =>
  Number(b.all) - Number(a.all) ||
  b.systems[0] - a.systems[0] ||
  b.systems[1] - a.systems[1] ||
  b.systems[2] - a.systems[2];

export interface Reachable {
  readonly best: Reached;
  /** Not every mix was looked at. */
  readonly cut: boolean;
}

/**
 * What any order reaches, whatever the days, wave by wave of a single bundle: whatever may share a wave may as well be made one after
 * the other. Breadth first; stops at the first mix in which everything is reached.
 */
export function reach(problem: Problem, mixes: Mixes, bound: boolean): Reachable {
  const seen = new Set([mixes.keyOf(mixes.start)]);
  const queue: Stand[] = [mixes.start];
  let best = reachedIn(problem, mixes.start.mix);
  for (const [looked, stand] of queue.entries()) {
    const reached = reachedIn(problem, stand.mix);
    if (compareReached(reached, best) < 0) best = reached;
    if (reached.all) return { best, cut: false };
    if (looked >= MOST_MIXES) return { best, cut: true };
    for (const { steps } of mixes.distinctFrom(stand, bound)) {
      const next = mixes.after(stand, steps);
      const key = mixes.keyOf(next);
      if (seen.has(key)) continue;
      seen.add(key);
      queue.push(next);
    }
  }
  return { best, cut: false };
}
