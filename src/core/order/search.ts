import { Heap } from '../kit';
import type { Day } from '../date';
import type { OrderBy } from '../estate';
import { leastAhead } from './ahead';
import { type Bundle, Mixes, type Stand } from './mixes';
import { behindFor, isNoLater, keyOfMoment, lastOfParts, momentBehind } from './moment';
import type { Mix, Moment, PartStep, Problem, StepOn, WaveSteps } from './problem';
import { type Fates, findFates } from './conflict';
import { compareReached, MOST_MIXES, reach, type Reached, reachedBy, reachedIn } from './reach';

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
  /** Careful minutes of all steps, all systems together. */
  readonly outage: number;
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
  /** No order that reaches as much has fewer waves than so many. */
  readonly leastWaves: number;
  /** No better one was left untried. */
  readonly proven: boolean;
  /** More could be reached, were it not for the days. */
  readonly isShort: boolean;
}

interface Label {
  readonly stand: Stand;
  readonly cost: OrderCost;
  readonly finish: Day;
  /** When its last wave is over. */
  readonly ended: Moment;
  /** What each step so far of each part began behind. */
  readonly behind: readonly (readonly Moment[])[];
  readonly waves: readonly Wave[];
  /** Waves, steps and minutes of outage still to come, at least. */
  readonly ahead: number;
  readonly work: number;
  readonly pause: number;
}

const NOTHING: OrderCost = {
  bound: 0,
  simultaneous: 0,
  missed: 0,
  late: 0,
  waves: 0,
  outage: 0,
  off: 0,
  steps: 0
};
/** Waves tried from one mix; where there are more the order found is not proven. */
const MOST_WAVES = 600;
/** Parts that move, up to which every mix is tried, and up to which as many as there is time for. */
const FEW_MOVING = 8;
const MOST_MOVING = 12;
const MOST_LABELS = 20_000;
/** Labels worked off of a large component. */
const MOST_LARGE = 300;

/** An order or one that has begun: what it costs, and the day it is done. */
type Costed = Pick<FoundOrder, 'cost' | 'finish'>;
type Compare = (a: Costed, b: Costed) => number;

/** By what it costs alone, whatever the days it is done on. */
const compareCost = (by: OrderBy, a: OrderCost, b: OrderCost): number =>
  a.bound - b.bound ||
  a.simultaneous - b.simultaneous ||
  a.missed - b.missed ||
  a.late - b.late ||
  (by === 'least outage' ? a.outage - b.outage : 0) ||
  a.waves - b.waves ||
  a.off - b.off ||
  a.steps - b.steps;

/** By deadlines, then by what orders are chosen by, then by all else in turn. */
const compareBy =
  (by: OrderBy): Compare =>
  (a, b) => {
    if (by !== 'earliest done') return compareCost(by, a.cost, b.cost) || a.finish - b.finish;
    const { waves, off, steps } = a.cost;
    const alike = { ...b.cost, waves, off, steps };
    return compareCost(by, a.cost, alike) || a.finish - b.finish || compareCost(by, a.cost, b.cost);
  };

/**
 * The best order of a component (docs/reckoning.md 14): most goals, then least cost, then earliest finish. Without sets of steps that
 * only go all at once, unless one with them reaches more.
 *
 * Labels of mixes are worked off by cost with the waves still to come at least (A*: P. Hart, N. Nilsson, B. Raphael, 1968), so that the
 * first that reaches what can be reached is the best. A label is dropped where another of the same mix costs no more and is done no later.
 * A step that fails on its day refuses the wave. Cost: labels x waves from each.
 */
export function findOrder(problem: Problem): FoundOrder & Pick<Fates, 'conflicts'> {
  const mixes = new Mixes(problem);
  const open = openGoals(problem);
  const free = findFates(problem, open, false);
  const bound = free.together && free.conflicts.length === 0 ? free : findFates(problem, open, true);
  const wantedFree = wantedOf(problem, mixes, free, false);
  const wantedBound = bound === free ? wantedFree : wantedOf(problem, mixes, bound, true);
  const usesBound = compareReached(wantedBound.reached, wantedFree.reached) < 0;
  const wanted = usesBound ? wantedBound : wantedFree;
  const found = findIn(problem, mixes, { bound: usesBound, ...wanted });
  return { ...found, proven: found.proven && !wanted.cut, conflicts: bound.conflicts };
}

/** Of one part that goes its only way, a step a wave: there is nothing to choose. */
export function goesWhole(problem: Problem): ReturnType<typeof findOrder> {
  const end = (problem.parts[0]?.nodes.length ?? 1) - 1;
  const waves = Array.from({ length: end }, (_, i): Wave => ({
    steps: [{ part: 0, from: i, to: i + 1 }],
    bound: [],
    first: problem.eve,
    last: problem.eve,
    days: []
  }));
  return {
    waves,
    end: [end],
    reached: reachedIn(problem, [end]),
    cost: { ...NOTHING, waves: end },
    finish: problem.eve,
    leastWaves: end,
    proven: true,
    isShort: false,
    conflicts: []
  };
}

/** Of more than a few parts by full waves first, and, while they can be tried in time, by all waves: the better of the two. */
function findIn(problem: Problem, mixes: Mixes, wanted: Wanted): FoundOrder {
  const moving = problem.parts.filter((p) => p.nodes.length > 1 && !p.stays).length;
  const whole = (how: Omit<Thoroughness, 'byFullWaves'>): FoundOrder =>
    new OrderSearch(problem, mixes, wanted, { byFullWaves: false, ...how }).find();
  if (moving <= FEW_MOVING) return whole({ mostLabels: MOST_MIXES });
  const quick = new OrderSearch(problem, mixes, wanted, { byFullWaves: true, mostLabels: MOST_LARGE }).find();
  if (quick.proven || moving > MOST_MOVING) return quick;
  const isReached = compareReached(quick.reached, wanted.reached) <= 0;
  const all = whole({ mostLabels: MOST_LABELS, ...(isReached ? { atMost: quick } : {}) });
  const isBetter =
    compareReached(all.reached, quick.reached) || compareBy(problem.by ?? 'fewest waves')(all, quick);
  return isBetter <= 0 ? all : quick;
}

/** Parts that may move and have a way to their goal. */
const openGoals = ({ parts }: Problem): number[] =>
  parts.flatMap((p, i) => (!p.stays && !p.nodes[0]?.isGoal && p.nodes.some((n) => n.isGoal) ? [i] : []));

interface WantedGoals {
  readonly reached: Reached;
  /** The parts whose goals it is; undefined where it may be these or those. */
  readonly goals?: readonly number[];
  readonly cut: boolean;
}

/** What is to be reached: all that can be reached one by one, or, where not all of it can, the most that any mix has. */
function wantedOf(
  problem: Problem,
  mixes: Mixes,
  { reachable, together, cut }: Fates,
  bound: boolean
): WantedGoals {
  if (together) return { reached: reachedBy(problem, new Set(reachable)), goals: reachable, cut };
  const { best, cut: isCut } = reach(problem, mixes, bound);
  return { reached: best, cut: isCut };
}

interface Wanted extends WantedGoals {
  readonly bound: boolean;
}

interface Thoroughness {
  /** Only waves of all that may be done at once are tried. */
  readonly byFullWaves: boolean;
  /** Labels worked off, at most. */
  readonly mostLabels: number;
  /** What an order is known for: whatever costs more is left out. */
  readonly atMost?: Costed;
}

class OrderSearch {
  readonly #problem: Problem;
  readonly #mixes: Mixes;
  readonly #wanted: Wanted;
  readonly #labels = new Map<string, Label[]>();
  readonly #wavesLeft: readonly (readonly number[])[];
  readonly #work: readonly (readonly number[])[];
  readonly #outage: readonly (readonly number[])[];
  readonly #by: OrderBy;
  readonly #compare: Compare;
  readonly #goals: ReadonlySet<number>;
  /** Parts of which no two ever share a wave. */
  readonly #apart: readonly (readonly number[])[];
  readonly #how: Thoroughness;
  #cut = false;

  constructor(problem: Problem, mixes: Mixes, wanted: Wanted, how: Thoroughness) {
    this.#problem = problem;
    this.#mixes = mixes;
    this.#wanted = wanted;
    this.#wavesLeft = problem.parts.map(({ nodes }) => leastAhead(nodes, () => 1));
    this.#work = problem.parts.map(({ nodes }) => leastAhead(nodes, (n) => n.steps));
    this.#outage = problem.parts.map(({ nodes }) => leastAhead(nodes, (n) => n.outage ?? 0));
    this.#by = problem.by ?? 'fewest waves';
    this.#compare = compareBy(this.#by);
    this.#goals = new Set(wanted.goals);
    this.#apart = cliquesOf(problem);
    this.#how = how;
    this.#cut = how.byFullWaves;
  }

  find(): FoundOrder {
    const { parts, eve } = this.#problem;
    const heap = new Heap<Label>((a, b) => this.#compareLabels(a, b));
    const start: Label = {
      stand: this.#mixes.start,
      cost: NOTHING,
      finish: eve,
      ended: { day: eve },
      behind: parts.map(() => []),
      waves: [],
      ...this.#ahead(this.#mixes.start.mix)
    };
    heap.push(start);
    let best = start;
    let worked = 0;
    for (let label = heap.pop(); label; label = heap.pop()) {
      if (this.#isDropped(label)) continue;
      const reached = reachedIn(this.#problem, label.stand.mix);
      const isMore = compareReached(reached, reachedIn(this.#problem, best.stand.mix));
      if (isMore < 0 || (isMore === 0 && this.#compareDone(label, best) < 0)) best = label;
      if (compareReached(reached, this.#wanted.reached) <= 0) break;
      if (++worked > this.#how.mostLabels) {
        this.#cut = true;
        break;
      }
      for (const next of this.#longer(label)) if (this.#keep(next)) heap.push(next);
    }
    const { stand, waves, cost, finish } = best;
    const reached = reachedIn(this.#problem, stand.mix);
    // What costs no more than the least there could be is the best, however few others were tried.
    const least = this.#withAhead(start);
    const done = this.#by === 'earliest done' ? least.finish : finish;
    const isLeast =
      compareReached(reached, this.#wanted.reached) <= 0 &&
      this.#compare({ cost, finish }, { cost: least.cost, finish: done }) <= 0;
    const leastWaves = Math.min(start.ahead, cost.waves);
    const isShort = compareReached(reached, this.#wanted.reached) > 0;
    return {
      waves,
      end: stand.mix,
      reached,
      cost,
      finish,
      leastWaves,
      proven: !this.#cut || isLeast,
      isShort
    };
  }

  *#longer(label: Label): Generator<Label> {
    const bundles = this.#mixes.bundlesFrom(label.stand, this.#wanted.bound);
    if (this.#how.byFullWaves) {
      for (const wave of this.#largeWaves(label.stand, bundles)) {
        const next = this.#lay(label, wave);
        if (next) yield next;
      }
      return;
    }
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

  /** Of a large component only full waves: of all that may be done, and of what leads nearer to the goals, taken from either end. */
  #largeWaves(stand: Stand, bundles: readonly Bundle[]): WaveSteps[] {
    const nearer = bundles.filter(({ steps }) =>
      steps.every(
        (s) =>
          this.#isWanted(s.part) &&
          (this.#wavesLeft[s.part]?.[s.to] ?? 0) < (this.#wavesLeft[s.part]?.[s.from] ?? 0)
      )
    );
    const chosen = nearer.filter(({ steps }) =>
      steps.every((s) => this.#problem.parts[s.part]?.nodes[s.to]?.isChosen)
    );
    const wanted = bundles.filter(({ steps }) => steps.every((s) => this.#isWanted(s.part)));
    const orders = [chosen, nearer, [...nearer].reverse(), wanted, bundles].filter((b) => b.length > 0);
    const waves = orders.map((b) => this.#mixes.fullWave(stand, b));
    return [...new Map(waves.map((w) => [w.steps.map((s) => `${s.part}>${s.to}`).join(), w])).values()];
  }

  /** The label one wave longer; undefined where a step of it does not hold on its day. */
  #lay(label: Label, wave: WaveSteps): Label | undefined {
    const { lay, parts } = this.#problem;
    const behind = [...label.behind];
    const days: StepOn[] = [];
    let { missed, late, outage, off, steps } = label.cost;
    for (const { part, from, to } of wave.steps) {
      const begun = [...(behind[part] ?? []), behindFor(this.#problem, part, label)];
      const on = lay(part, to, begun);
      if (!on) return undefined;
      behind[part] = begun;
      days.push(on);
      const { nodes, deadline } = parts[part] as Problem['parts'][number];
      const node = nodes[to];
      steps += node?.steps ?? 0;
      outage += node?.outage ?? 0;
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
        outage,
        off,
        steps
      },
      finish: last,
      ended: momentBehind(
        wave.steps.map(({ part }, i) => ({ part, on: days[i] as StepOn })),
        parts
      ),
      behind,
      waves: [...label.waves, { ...wave, days, first: Math.min(...days.map((d) => d.first)), last }],
      ...this.#ahead(stand.mix)
    };
  }

  #systemsOf(parts: readonly number[]): number {
    return parts.reduce((sum, p) => sum + (this.#problem.parts[p]?.systems.length ?? 0), 0);
  }

  /** Waves that are still to come where everything is to be reached: a part makes one step in each, peers that go apart one together. */
  #wavesAhead(mix: Mix): number {
    const ahead = (part: number): number =>
      this.#isWanted(part) ? (this.#wavesLeft[part]?.[mix[part] ?? 0] ?? 0) : 0;
    return Math.max(0, ...this.#apart.map((clique) => clique.reduce((sum, part) => sum + ahead(part), 0)));
  }

  /** With the least that is still to come; each wave begins on a later day, but for those that share a window. */
  #withAhead({ cost, finish, ahead, work, pause }: Label): Costed {
    return {
      cost: { ...cost, waves: cost.waves + ahead, steps: cost.steps + work, outage: cost.outage + pause },
      finish: this.#problem.mayShareDays ? finish : finish + ahead
    };
  }

  /** What is still to come, at least. */
  #ahead(mix: Mix): Pick<Label, 'ahead' | 'work' | 'pause'> {
    const sumOf = (least: readonly (readonly number[])[]): number =>
      mix.reduce((sum, node, part) => sum + (this.#isWanted(part) ? (least[part]?.[node] ?? 0) : 0), 0);
    return { ahead: this.#wavesAhead(mix), work: sumOf(this.#work), pause: sumOf(this.#outage) };
  }

  #isWanted(part: number): boolean {
    return this.#goals.has(part);
  }

  #keep(label: Label): boolean {
    const { atMost } = this.#how;
    if (atMost && this.#compare(this.#withAhead(label), atMost) > 0) return false;
    const key = this.#keyOf(label);
    const others = this.#labels.get(key) ?? [];
    if (others.some((o) => this.#isNoWorse(o, label))) return false;
    this.#labels.set(key, [...others.filter((o) => !this.#isNoWorse(label, o)), label]);
    return true;
  }

  /** Whatever follows, the one costs no more, and what comes next lies no later. */
  #isNoWorse(a: Label, b: Label): boolean {
    return compareCost(this.#by, a.cost, b.cost) <= 0 && isNoLater(a.ended, b.ended);
  }

  #compareLabels(a: Label, b: Label): number {
    return this.#compare(this.#withAhead(a), this.#withAhead(b)) || a.work - b.work || compareIds(a, b);
  }

  #compareDone(a: Label, b: Label): number {
    return this.#compare(a, b) || compareIds(a, b);
  }

  /** The mix; of parts whose stay is limited also since when, and until when pilots are watched. */
  #keyOf({ stand, behind, waves }: Label): string {
    const timed = stand.mix.flatMap((node, part) =>
      this.#problem.parts[part]?.nodes[node]?.isTimed ? [`${part}@${keyOfLast(behind[part])}`] : []
    );
    for (const [i, { first, watchDays }] of (this.#problem.pilots ?? []).entries())
      if (watchDays > 0 || this.#problem.mayShareDays)
        timed.push(`p${i}@${lastOfParts(new Set(first), waves)}`);
    // What never goes together has windows of its own.
    if (this.#problem.mayShareDays)
      for (const part of new Set((this.#problem.apart ?? []).flat()))
        timed.push(`a${part}@${lastOfParts(new Set([part]), waves)}`);
    return timed.length === 0
      ? this.#mixes.keyOf(stand)
      : `${stand.mix.join()}|${stand.mended.join()}|${timed.join()}`;
  }

  #isDropped(label: Label): boolean {
    if (label.waves.length === 0) return false;
    return !(this.#labels.get(this.#keyOf(label)) ?? []).includes(label);
  }
}

const keyOfLast = (behind: readonly Moment[] | undefined): string => {
  const last = behind?.at(-1);
  return last ? keyOfMoment(last) : '';
};

const compareIds = (a: Label, b: Label): number => {
  const [x, y] = [idsOf(a.waves), idsOf(b.waves)];
  return x < y ? -1 : x > y ? 1 : 0;
};

const idsOf = (waves: readonly Wave[]): string =>
  waves.map(({ steps }) => steps.map((s: PartStep) => `${s.part}>${s.to}`).join('+')).join(' ');

/** Sets of which none changes together with another - peers, or those laid down to go apart -, one around every part. */
function cliquesOf({ parts, bonds, apart = [] }: Problem): number[][] {
  const areApart = (a: number, b: number): boolean =>
    apart.some(([x, y]) => (x === a && y === b) || (x === b && y === a)) ||
    bonds.some(
      (o) => o.isPeer && !o.together && ((o.own === a && o.other === b) || (o.own === b && o.other === a))
    );
  return parts.map((_, i) => {
    const clique = [i];
    parts.forEach((_part, k) => {
      if (k !== i && clique.every((c) => areApart(c, k))) clique.push(k);
    });
    return clique;
  });
}
