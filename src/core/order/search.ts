import { Heap } from '../kit';
import type { Day } from '../date';
import { keyOf, Mixes, type Stand } from './mixes';
import type { Mix, PartStep, Problem, StepOn, WaveSteps } from './problem';
import { compareReached, MOST_MIXES, reach, type Reached, reachedIn } from './reach';

/** A wave on its days. */
export interface Wave extends WaveSteps {
  readonly first: Day;
  readonly last: Day;
  /** Days of each of its steps, in turn. */
  readonly days: readonly StepOn[];
}

/** What orders are compared by behind the goals they reach, in turn; less is better. */
export interface OrderCost {
  readonly bound: number;
  readonly simultaneous: number;
  readonly missed: number;
  /** Days late, of all deadlines that are missed. */
  readonly late: number;
  readonly waves: number;
  /** Parts off their chosen way. */
  readonly off: number;
  readonly steps: number;
}

export interface FoundOrder {
  readonly waves: readonly Wave[];
  readonly end: Mix;
  readonly reached: Reached;
  readonly cost: OrderCost;
  /** The last day of its last wave; the eve where there is none. */
  readonly finish: Day;
  /** No better one was left untried. */
  readonly proven: boolean;
}

interface Label {
  readonly stand: Stand;
  readonly cost: OrderCost;
  readonly finish: Day;
  /** Days behind which each step so far of each part began. */
  readonly behind: readonly (readonly Day[])[];
  readonly waves: readonly Wave[];
  /** Waves still to come, at least. */
  readonly ahead: number;
}

const NOTHING: OrderCost = {
  bound: 0,
  simultaneous: 0,
  missed: 0,
  late: 0,
  waves: 0,
  off: 0,
  steps: 0
};
/** Waves tried from one mix; where there are more the order found is not proven. */
const MOST_WAVES = 600;

export const compareCost = (a: OrderCost, b: OrderCost): number =>
  a.bound - b.bound ||
  a.simultaneous - b.simultaneous ||
  a.missed - b.missed ||
  a.late - b.late ||
  a.waves - b.waves ||
  a.off - b.off ||
  a.steps - b.steps;

/**
 * The best order of a component (docs/reckoning.md 11): most goals, then least cost, then earliest finish. Without sets of steps that
 * only go all at once, unless one with them reaches more.
 *
 * Labels of mixes are worked off by cost with the waves still to come at least (A*: P. Hart, N. Nilsson, B. Raphael, 1968), so that the
 * first that reaches what can be reached is the best. A label is dropped where another of the same mix costs no more and is done no later.
 * A step that fails on its day refuses the wave. Cost: labels x waves from each.
 */
export function findOrder(problem: Problem): FoundOrder {
  const mixes = new Mixes(problem);
  const free = reach(problem, mixes, false);
  const bound = free.best.all ? free : reach(problem, mixes, true);
  const usesBound = compareReached(bound.best, free.best) < 0;
  const wanted = usesBound ? bound : free;
  const found = new OrderSearch(problem, mixes, { bound: usesBound, wanted: wanted.best }).find();
  return { ...found, proven: found.proven && !wanted.cut };
}

interface Wanted {
  readonly bound: boolean;
  readonly wanted: Reached;
}

class OrderSearch {
  readonly #problem: Problem;
  readonly #mixes: Mixes;
  readonly #wanted: Wanted;
  readonly #labels = new Map<string, Label[]>();
  readonly #ahead: readonly (readonly number[])[];
  #cut = false;

  constructor(problem: Problem, mixes: Mixes, wanted: Wanted) {
    this.#problem = problem;
    this.#mixes = mixes;
    this.#wanted = wanted;
    this.#ahead = problem.parts.map(({ nodes }) => stepsAhead(nodes));
  }

  find(): FoundOrder {
    const { parts, eve } = this.#problem;
    const heap = new Heap<Label>(compareLabels);
    const start: Label = {
      stand: this.#mixes.start,
      cost: NOTHING,
      finish: eve,
      behind: parts.map(() => []),
      waves: [],
      ahead: this.#wavesAhead(this.#mixes.start.mix)
    };
    heap.push(start);
    let best = start;
    let worked = 0;
    for (let label = heap.pop(); label; label = heap.pop()) {
      if (this.#isDropped(label)) continue;
      const reached = reachedIn(this.#problem, label.stand.mix);
      const isMore = compareReached(reached, reachedIn(this.#problem, best.stand.mix));
      if (isMore < 0 || (isMore === 0 && compareDone(label, best) < 0)) best = label;
      if (compareReached(reached, this.#wanted.wanted) <= 0) break;
      if (++worked > MOST_MIXES) {
        this.#cut = true;
        break;
      }
      for (const next of this.#longer(label)) if (this.#keep(next)) heap.push(next);
    }
    const { stand, waves, cost, finish } = best;
    const reached = reachedIn(this.#problem, stand.mix);
    return { waves, end: stand.mix, reached, cost, finish, proven: !this.#cut };
  }

  *#longer(label: Label): Generator<Label> {
    const bundles = this.#mixes.bundlesFrom(label.stand, this.#wanted.bound);
    let tried = 0;
    for (const wave of this.#mixes.wavesOf(label.stand, bundles)) {
      if (++tried > MOST_WAVES) {
        this.#cut = true;
        return;
      }
      const next = this.#lay(label, wave);
      if (next) yield next;
    }
  }

  /** The label one wave longer; undefined where a step of it does not hold on its day. */
  #lay(label: Label, wave: WaveSteps): Label | undefined {
    const { lay, parts } = this.#problem;
    const behind = [...label.behind];
    const days: StepOn[] = [];
    let { missed, late, off, steps } = label.cost;
    for (const { part, from, to } of wave.steps) {
      const begun = [...(behind[part] ?? []), label.finish];
      const on = lay(part, to, begun);
      if (!on) return undefined;
      behind[part] = begun;
      days.push(on);
      const { nodes, deadline } = parts[part] as Problem['parts'][number];
      const node = nodes[to];
      steps += node?.steps ?? 0;
      if (nodes[from]?.isChosen && !node?.isChosen) off++;
      if (node?.isGoal && deadline !== undefined && on.last > deadline) {
        missed++;
        late += on.last - deadline;
      }
    }
    const stand = this.#mixes.after(label.stand, wave.steps);
    const last = Math.max(...days.map((d) => d.last));
    return {
      stand,
      cost: {
        bound: label.cost.bound + wave.bound.reduce((sum, set) => sum + this.#systemsOf(set), 0),
        simultaneous: label.cost.simultaneous + (wave.bound.length > 0 ? 1 : 0),
        missed,
        late,
        waves: label.cost.waves + 1,
        off,
        steps
      },
      finish: last,
      behind,
      waves: [...label.waves, { ...wave, days, first: Math.min(...days.map((d) => d.first)), last }],
      ahead: this.#wavesAhead(stand.mix)
    };
  }

  #systemsOf(parts: readonly number[]): number {
    return parts.reduce((sum, p) => sum + (this.#problem.parts[p]?.systems.length ?? 0), 0);
  }

  /** Waves that are still to come where everything is to be reached: each part makes one step in each. */
  #wavesAhead(mix: Mix): number {
    return this.#wanted.wanted.all
      ? Math.max(0, ...mix.map((node, part) => this.#ahead[part]?.[node] ?? 0))
      : 0;
  }

  #keep(label: Label): boolean {
    const key = keyOf(label.stand);
    const others = this.#labels.get(key) ?? [];
    if (others.some((o) => isNoWorse(o, label))) return false;
    this.#labels.set(key, [...others.filter((o) => !isNoWorse(label, o)), label]);
    return true;
  }

  #isDropped(label: Label): boolean {
    if (label.waves.length === 0) return false;
    return !(this.#labels.get(keyOf(label.stand)) ?? []).includes(label);
  }
}

/** Whatever follows, the one costs no more, and everything of it lies no later. */
const isNoWorse = (a: Label, b: Label): boolean =>
  compareCost(a.cost, b.cost) <= 0 &&
  a.finish <= b.finish &&
  a.behind.every((days, part) => (days.at(-1) ?? 0) <= (b.behind[part]?.at(-1) ?? 0));

const compareLabels = (a: Label, b: Label): number =>
  compareCost(withAhead(a), withAhead(b)) || a.finish - b.finish || compareIds(a, b);

const withAhead = ({ cost, ahead }: Label): OrderCost => ({ ...cost, waves: cost.waves + ahead });

const compareDone = (a: Label, b: Label): number =>
  compareCost(a.cost, b.cost) || a.finish - b.finish || compareIds(a, b);

const compareIds = (a: Label, b: Label): number => {
  const [x, y] = [idsOf(a.waves), idsOf(b.waves)];
  return x < y ? -1 : x > y ? 1 : 0;
};

const idsOf = (waves: readonly Wave[]): string =>
  waves.map(({ steps }) => steps.map((s: PartStep) => `${s.part}>${s.to}`).join('+')).join(' ');

/** The least number of counted steps from each node of a part's ways to its goal; 0 where none leads there. */
function stepsAhead(nodes: Problem['parts'][number]['nodes']): number[] {
  const ahead: number[] = [];
  for (let i = nodes.length - 1; i >= 0; i--) {
    const node = nodes[i];
    const next = (node?.next ?? []).map((n) => ahead[n] ?? Infinity);
    ahead[i] = node?.isGoal ? 0 : Math.min(Infinity, ...next.map((n) => n + 1));
  }
  return ahead.map((n) => (n === Infinity ? 0 : n));
}
