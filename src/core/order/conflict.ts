import { type Constraint, keyOfConstraint, type Problem } from './problem';
import { Mixes } from './mixes';
import { reach } from './reach';

/** Why goals cannot be reached: what forbids every order that would, none of it superfluous. */
export interface Conflict {
  /** Parts whose goals are in it. */
  readonly goals: readonly number[];
  readonly constraints: readonly Constraint[];
  /** Whether it is the smallest there is. */
  readonly smallest: boolean;
}

/** Sets tried before a smallest one is given up for one of which nothing is superfluous. */
const MOST_SETS = 1_500;

/** Whether some order reaches the goals of these parts when only some constraints bind. */
function reaches(problem: Problem, goals: readonly number[], free: readonly Constraint[]): boolean {
  const mixes = new Mixes(problem, free);
  const enough = (mix: readonly number[]): boolean =>
    goals.every((part) => problem.parts[part]?.nodes[mix[part] ?? 0]?.isGoal === true);
  let met = false;
  const found = reach(problem, mixes, true, (mix) => (met ||= enough(mix)));
  return met || found.cut;
}

/** Everything that could stand in the way: pairings, decisions to stay, places that must not be rested on. */
export function constraintsOf({ parts, bonds }: Problem): Constraint[] {
  const found: Constraint[] = bonds.map((_, bond) => ({ kind: 'pairing', bond }));
  parts.forEach((part, i) => {
    if (part.stays) found.push({ kind: 'stay', part: i });
    for (const release of new Set(part.nodes.filter((n) => !n.mayRest).map((n) => n.release)))
      found.push({ kind: 'rest', part: i, release });
  });
  return found.sort((a, b) => (keyOfConstraint(a) < keyOfConstraint(b) ? -1 : 1));
}

/**
 * The smallest set of constraints, then the first by ids, that keeps goals from being reached together; of many constraints one of which
 * nothing can be spared. Undefined where the goals are reached. Cost: a look at all mixes a set.
 */
export function findConflict(problem: Problem, goals: readonly number[]): Conflict | undefined {
  if (reaches(problem, goals, [])) return undefined;
  const all = constraintsOf(problem);
  const blocks = (only: readonly Constraint[]): boolean =>
    !reaches(
      problem,
      goals,
      all.filter((c) => !only.includes(c))
    );
  const needed = spare(all, blocks);
  let tried = 0;
  for (let size = 0; size < needed.length; size++)
    for (const set of setsOf(all, size)) {
      if (++tried > MOST_SETS) return { goals, constraints: needed, smallest: false };
      if (blocks(set)) return { goals, constraints: set, smallest: true };
    }
  // The first by ids among those of this size.
  for (const set of setsOf(all, needed.length)) {
    if (++tried > MOST_SETS) break;
    if (blocks(set)) return { goals, constraints: set, smallest: true };
  }
  return { goals, constraints: needed, smallest: tried <= MOST_SETS };
}

/** Leaves out one after the other what is not needed. */
function spare<T>(all: readonly T[], blocks: (some: readonly T[]) => boolean): readonly T[] {
  let kept = all;
  for (const one of all) {
    const less = kept.filter((c) => c !== one);
    if (blocks(less)) kept = less;
  }
  return kept;
}

/** All sets of a size, in the order of what they are made of. */
function* setsOf<T>(all: readonly T[], size: number, from = 0): Generator<T[]> {
  if (size === 0) return void (yield []);
  for (let i = from; i + size <= all.length; i++)
    for (const rest of setsOf(all, size - 1, i + 1)) yield [all[i] as T, ...rest];
}

/** Of goals that are reached one by one but not together, the fewest that are not. */
export function findClash(problem: Problem, goals: readonly number[]): Conflict | undefined {
  if (reaches(problem, goals, [])) return undefined;
  const needed = spare(goals, (some) => some.length > 0 && !reaches(problem, some, []));
  return findConflict(problem, needed);
}
