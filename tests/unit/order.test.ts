import { expect, test } from 'vitest';
import { constraintsOf } from '../../src/core/order/decide';
import { type Constraint, keyOfConstraint, type Part, type Problem } from '../../src/core/order/problem';
import { findOrder, type FoundOrder } from '../../src/core/order/search';
import { bruteOrder, bruteReach, type Free } from '../support/order-brute';
import { leastShare, oftenerThan, seedsOf, tell } from '../support/laws';
import { orderWorldOf } from '../support/order-worlds';

const shares = new Map<string, number>();
const count = (what: string, is: boolean): void =>
  void shares.set(what, (shares.get(what) ?? 0) + (is ? 1 : 0));

const goalsOf = ({ parts }: Problem): number[] =>
  parts.flatMap((p, i) => (!p.stays && p.nodes.some((n) => n.isGoal) ? [i] : []));

const freeOf = (problem: Problem, only: readonly Constraint[]): Free => {
  const kept = new Set(only.map(keyOfConstraint));
  const free = constraintsOf(problem).filter((c) => !kept.has(keyOfConstraint(c)));
  return {
    bonds: free.flatMap((c) => (c.kind === 'pairing' ? [c.bond] : [])),
    stays: free.flatMap((c) => (c.kind === 'stay' ? [c.part] : [])),
    rests: free.flatMap((c) => (c.kind === 'rest' ? [`${c.part} ${c.release}`] : [])),
    locks: free.flatMap((c) => (c.kind === 'lock' ? [c.apart] : [])),
    pilots: free.flatMap((c) => (c.kind === 'pilots' ? [c.pilots] : []))
  };
};

const reachedTogether = (problem: Problem, goals: readonly number[], free: Free = {}): boolean =>
  bruteReach(problem, true, free).mixes.some((mix) =>
    goals.every((g) => problem.parts[g]?.nodes[mix[g] as number]?.isGoal)
  );

/** In the middle: some part does not pass through to its goal before another has moved. */
function restsInTheMiddle(problem: Problem, { waves }: FoundOrder): boolean {
  const last = new Map<number, number>();
  return waves.some((wave, i) =>
    wave.steps.some(({ part, to, from }) => {
      const before = last.get(part);
      last.set(part, i);
      return (
        from !== 0 && before !== undefined && i - before > 1 && problem.parts[part]?.nodes[to] !== undefined
      );
    })
  );
}

/** Without its deadline. */
function unhurried({ deadline, ...part }: Part): Part {
  void deadline;
  return part;
}

test('orders equal those found by trying every wave, on random components', () => {
  for (const seed of seedsOf(1000)) {
    const { problem, free, unpiloted } = orderWorldOf(seed);
    const found = findOrder(problem);
    const brute = bruteOrder(problem);
    const { bound, simultaneous, missed, late, waves, outage, off, steps } = found.cost;
    const { by } = problem;
    const first = by === 'least outage' ? [outage] : by === 'earliest done' ? [found.finish] : [];
    expect({
      seed,
      all: found.reached.all,
      systems: found.reached.systems,
      cost: [bound, simultaneous, missed, late, ...first, waves, off, steps, found.finish]
    }).toEqual({ seed, all: brute.all, systems: brute.systems, cost: brute.cost });
    const goals = goalsOf(problem);
    count(
      'no order',
      goals.some((g) => !brute.goals.has(g))
    );
    count('in conflict', goals.every((g) => brute.goals.has(g)) && !reachedTogether(problem, goals));
    count('simultaneous', simultaneous > 0);
    count('rest in the middle', restsInTheMiddle(problem, found));
    count('off the chosen way', off > 0);
    count(
      'standing breach',
      problem.bonds.some((b) => b.holds(0, 0) !== 'yes')
    );
    const laid = (order: FoundOrder): string => JSON.stringify(order.waves);
    count('locks binding', laid(findOrder(free)) !== laid(found));
    count('pilots binding', laid(findOrder(unpiloted)) !== laid(found));
    count(
      'in one night',
      found.waves.some((w, i) => i > 0 && w.first <= (found.waves[i - 1]?.last ?? -1))
    );
    count('chosen otherwise', laid(findOrder({ ...problem, by: 'fewest waves' })) !== laid(found));
    const hurried = findOrder({ ...problem, parts: problem.parts.map(unhurried) });
    count('more waves for fewer missed', hurried.cost.waves < waves || hurried.cost.bound < bound);
  }
  const tried = seedsOf(1000).length;
  tell('orders equal every wave tried', { components: tried, ...Object.fromEntries(shares) });
  // Mostly the same order is the best by all of them.
  if (tried >= 1000) expect(shares.get('chosen otherwise')).toBeGreaterThan(0);
  shares.delete('chosen otherwise');
  for (const [what, n] of shares) expect(n / tried, what).toBeGreaterThanOrEqual(leastShare);
});

test('what stands in the way forbids it, none of it can be spared, and no smaller set does', () => {
  let tried = 0;
  let opened = 0;
  for (const seed of seedsOf(300)) {
    const { problem } = orderWorldOf(seed);
    const { conflicts } = findOrder(problem);
    const reachable = bruteReach(problem, true).goals;
    const closed = goalsOf(problem).filter((g) => !reachable.has(g));
    expect(
      conflicts.flatMap((c) => (c.goals.length === 1 ? c.goals : [])),
      `${seed}`
    ).toEqual(closed);
    const rest = goalsOf(problem).filter((g) => reachable.has(g));
    const clash = conflicts.find((c) => c.goals.length > 1);
    expect(clash === undefined, `${seed}`).toBe(reachedTogether(problem, rest));
    for (const { constraints, goals, openings } of conflicts) {
      const opens = constraints.filter((c) => {
        const others = constraintsOf(problem).filter(
          (o) => o !== c && keyOfConstraint(o) !== keyOfConstraint(c)
        );
        return reachedTogether(problem, goals, freeOf(problem, others));
      });
      expect(openings, `${seed}`).toEqual(opens);
      opened += opens.length;
      const blocks = (some: readonly Constraint[]) => !reachedTogether(problem, goals, freeOf(problem, some));
      expect(blocks(constraints), `${seed}`).toBe(true);
      for (const one of constraints)
        expect(blocks(constraints.filter((c) => c !== one)), `${seed}`).toBe(false);
      if (goals.length > 1)
        for (const goal of goals)
          expect(
            reachedTogether(
              problem,
              goals.filter((g) => g !== goal)
            )
          ).toBe(true);
      const all = constraintsOf(problem);
      if (constraints.length > 1) for (const one of all) expect(blocks([one]), `${seed}`).toBe(false);
      if (constraints.length > 2)
        for (const [i, one] of all.entries())
          for (const other of all.slice(i + 1)) expect(blocks([one, other]), `${seed}`).toBe(false);
      tried++;
    }
  }
  tell('conflicts are the smallest', { components: seedsOf(300).length, conflicts: tried, openings: opened });
  expect(opened).toBeGreaterThan(oftenerThan(2));
  expect(tried).toBeGreaterThan(oftenerThan(5));
});
