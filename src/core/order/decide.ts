import { Heap } from '../kit';
import { leastAhead } from './ahead';
import { type Bundle, Mixes, type Stand } from './mixes';
import { type Constraint, keyOfConstraint, type Part, type PartNode, type Problem } from './problem';
import { MOST_MIXES } from './reach';

/** Whether goals can be reached together; the smallest set of constraints that forbids it where they cannot. */
export type Decided =
  | { readonly kind: 'reached' }
  | { readonly kind: 'forbidden'; readonly constraints: readonly Constraint[] }
  | { readonly kind: 'cut' };

/** Sets of constraints tried, at most. */
const MOST_SETS = 400;

/** Everything that could stand in the way: pairings, decisions to stay, places that must not be rested on, pilots, locks. */
export function constraintsOf({ parts, bonds, pilots = [], apart = [] }: Problem): Constraint[] {
  const found: Constraint[] = bonds.map((_, bond) => ({ kind: 'pairing', bond }));
  parts.forEach((part, i) => {
    if (part.stays) found.push({ kind: 'stay', part: i });
    for (const release of new Set(part.nodes.filter((n) => !n.mayRest).map((n) => n.release)))
      found.push({ kind: 'rest', part: i, release });
  });
  for (const i of pilots.keys()) found.push({ kind: 'pilots', pilots: i });
  for (const i of apart.keys()) found.push({ kind: 'lock', apart: i });
  return found.sort((a, b) => (keyOfConstraint(a) < keyOfConstraint(b) ? -1 : 1));
}

/** A problem with one thing out of the way. */
export function lift(problem: Problem, c: Constraint): Problem {
  const others = <T>(list: readonly T[] | undefined, index: number): T[] =>
    (list ?? []).filter((_, i) => i !== index);
  const changed = (part: number, change: (p: Part) => Part): Part[] =>
    problem.parts.map((p, i) => (i === part ? change(p) : p));
  switch (c.kind) {
    case 'pairing':
      return { ...problem, bonds: others(problem.bonds, c.bond) };
    case 'stay':
      return { ...problem, parts: changed(c.part, (p) => ({ ...p, stays: false })) };
    case 'rest': {
      const open = (n: PartNode): PartNode => (n.release === c.release ? { ...n, mayRest: true } : n);
      return { ...problem, parts: changed(c.part, (p) => ({ ...p, nodes: p.nodes.map(open) })) };
    }
    case 'pilots':
      return { ...problem, pilots: others(problem.pilots, c.pilots) };
    case 'lock':
      return { ...problem, apart: others(problem.apart, c.apart) };
  }
}

/**
 * Whether some order reaches the goals of these parts, whatever the days.
 *
 * Only what a few constraints concern is looked at. An order under those alone breaks others, and whatever forbids the goals has one of
 * these; the smallest set that hits all that orders so far have broken is tried next, so that the first set under which there is no order
 * is the smallest there is (implicit hitting sets: E. Moreno-Centeno, R. Karp, 2013). An order that breaks nothing is one.
 * Cost: a look at the mixes of the few parts concerned, a set.
 */
export function decide(problem: Problem, goals: readonly number[], bound: boolean): Decided {
  const near = dive(problem, goals, bound) || findNear(problem, goals, bound);
  if (near === true) return { kind: 'reached' };
  const all = constraintsOf(problem);
  const broken: string[][] = [];
  let mixesLeft = MOST_MIXES * 3;
  for (let tried = 0; tried < MOST_SETS; tried++) {
    const keys = smallestHit(broken);
    if (!keys) return { kind: 'cut' };
    const set = all.filter((c) => keys.includes(keyOfConstraint(c)));
    const without = all.filter((c) => !keys.includes(keyOfConstraint(c)));
    const found = findPath(problem, goals, { without, set, bound, mixes: Math.min(MOST_MIXES, mixesLeft) });
    if (found === 'cut') return { kind: 'cut' };
    mixesLeft -= found.looked;
    if (!found.path) return { kind: 'forbidden', constraints: set };
    const breaks = brokenOn(problem, found.path);
    if (breaks.length === 0) return { kind: 'reached' };
    broken.push(breaks);
  }
  return { kind: 'cut' };
}

/** Whether full waves of steps that lead towards the goals, one after the other, get there: mostly they do, and at once. */
function dive(problem: Problem, goals: readonly number[], bound: boolean): boolean {
  const mixes = new Mixes(problem);
  const ahead = problem.parts.map(({ nodes }) => leastAhead(nodes, () => 1));
  let stand = mixes.start;
  for (;;) {
    if (goals.every((p) => problem.parts[p]?.nodes[stand.mix[p] ?? 0]?.isGoal)) return true;
    const at = stand;
    const nearer = mixes
      .bundlesFrom(at, bound)
      .filter(({ steps }) =>
        steps.every((s) => (ahead[s.part]?.[s.to] ?? 0) < (ahead[s.part]?.[s.from] ?? 0))
      );
    if (nearer.length === 0) return false;
    stand = mixes.after(at, mixes.fullWave(at, nearer).steps);
  }
}

/** Mixes looked at when steps that lead nearer to the goals go first. */
const MOST_NEAR = 4_000;

/** Whether an order is found, going on from where the fewest steps are still to come; `false` only where there is none. */
function findNear(problem: Problem, goals: readonly number[], bound: boolean): boolean | 'cut' {
  const mixes = new Mixes(problem, [], (p) => String(goals.includes(p)));
  const ahead = problem.parts.map(({ nodes }) => leastAhead(nodes, () => 1));
  const far = ({ mix }: Stand): number => goals.reduce((sum, p) => sum + (ahead[p]?.[mix[p] ?? 0] ?? 0), 0);
  const heap = new Heap<{ readonly stand: Stand; readonly far: number; readonly turn: number }>(
    (a, b) => a.far - b.far || a.turn - b.turn
  );
  const seen = new Set([mixes.keyOf(mixes.start)]);
  heap.push({ stand: mixes.start, far: far(mixes.start), turn: 0 });
  for (let at = heap.pop(), looked = 0; at; at = heap.pop(), looked++) {
    if (at.far === 0 && goals.every((p) => problem.parts[p]?.nodes[at.stand.mix[p] ?? 0]?.isGoal))
      return true;
    if (looked > MOST_NEAR) return 'cut';
    for (const { steps } of mixes.distinctFrom(at.stand, bound)) {
      const stand = mixes.after(at.stand, steps);
      const key = mixes.keyOf(stand);
      if (seen.has(key)) continue;
      seen.add(key);
      heap.push({ stand, far: far(stand), turn: seen.size });
    }
  }
  return false;
}

/** A bundle, and where everything stood before it. */
interface PathStep {
  readonly before: Stand;
  readonly bundle: Bundle;
}

interface Relaxed {
  readonly without: readonly Constraint[];
  readonly set: readonly Constraint[];
  readonly bound: boolean;
  readonly mixes: number;
}

/** The shortest order to goals by single bundles, of parts that the goals or the constraints are about. */
function findPath(
  problem: Problem,
  goals: readonly number[],
  { without, set, bound, mixes: most }: Relaxed
): { readonly path: readonly PathStep[] | undefined; readonly looked: number } | 'cut' {
  const movers = new Set([
    ...goals,
    ...set.flatMap((c) => {
      if (c.kind === 'lock') return problem.apart?.[c.apart] ?? [];
      if (c.kind === 'pilots')
        return [...(problem.pilots?.[c.pilots]?.first ?? []), ...(problem.pilots?.[c.pilots]?.then ?? [])];
      const b = c.kind === 'pairing' ? problem.bonds[c.bond] : undefined;
      return b ? [b.own, b.other] : c.kind === 'pairing' ? [] : [c.part];
    })
  ]);
  const mixes = new Mixes(problem, without, (p) => `${goals.includes(p)} ${movers.has(p)}`);
  const isThere = ({ mix }: Stand): boolean =>
    goals.every((part) => problem.parts[part]?.nodes[mix[part] ?? 0]?.isGoal === true);
  const queue: { readonly stand: Stand; readonly by?: PathStep; readonly from?: number }[] = [
    { stand: mixes.start }
  ];
  const seen = new Set([mixes.keyOf(mixes.start)]);
  for (let i = 0; i < queue.length; i++) {
    if (i > most) return 'cut';
    const at = queue[i] as (typeof queue)[number];
    if (isThere(at.stand)) return { path: pathTo(queue, i), looked: i };
    for (const bundle of mixes.distinctFrom(at.stand, bound)) {
      if (bundle.steps.some((s) => !movers.has(s.part))) continue;
      const stand = mixes.after(at.stand, bundle.steps);
      const key = mixes.keyOf(stand);
      if (seen.has(key)) continue;
      seen.add(key);
      queue.push({ stand, by: { before: at.stand, bundle }, from: i });
    }
  }
  return { path: undefined, looked: queue.length };
}

function pathTo(
  queue: readonly { readonly by?: PathStep; readonly from?: number }[],
  end: number
): readonly PathStep[] {
  const path: PathStep[] = [];
  for (let at: number | undefined = end; at !== undefined; at = queue[at]?.from) {
    const by = queue[at]?.by;
    if (by) path.unshift(by);
  }
  return path;
}

/** The constraints that an order breaks, by key. */
function brokenOn(problem: Problem, path: readonly PathStep[]): string[] {
  const mixes = new Mixes(problem);
  const broken = new Set<string>();
  let stand = mixes.start;
  for (const {
    bundle: { steps }
  } of path) {
    for (const index of mixes.breaks(stand, steps))
      broken.add(keyOfConstraint({ kind: 'pairing', bond: index }));
    for (const pilots of mixes.pilotsBrokenBy(stand, steps))
      broken.add(keyOfConstraint({ kind: 'pilots', pilots }));
    for (const apart of mixes.locksBrokenBy(steps)) broken.add(keyOfConstraint({ kind: 'lock', apart }));
    for (const { part, to } of steps) {
      const { nodes, stays } = problem.parts[part] as Problem['parts'][number];
      const node = nodes[to];
      if (stays) broken.add(keyOfConstraint({ kind: 'stay', part }));
      if (node?.mayRest === false) broken.add(keyOfConstraint({ kind: 'rest', part, release: node.release }));
    }
    stand = mixes.after(stand, steps);
  }
  return [...broken].sort();
}

/** The smallest set that has one of each, then the first; undefined where looking for it takes too long. */
function smallestHit(sets: readonly (readonly string[])[]): readonly string[] | undefined {
  let work = 0;
  const extend = (chosen: readonly string[], size: number): readonly string[] | undefined => {
    if (++work > 50_000) return undefined;
    const open = sets.filter((s) => !s.some((k) => chosen.includes(k)));
    if (open.length === 0) return chosen;
    if (chosen.length === size) return undefined;
    const [least] = [...open].sort((a, b) => a.length - b.length);
    let best: readonly string[] | undefined;
    for (const key of least ?? []) {
      const found = extend([...chosen, key].sort(), size);
      if (found && (!best || found.join('\n') < best.join('\n'))) best = found;
    }
    return best;
  };
  for (let size = 0; work <= 50_000; size++) {
    const found = extend([], size);
    if (found) return found;
  }
  return undefined;
}
