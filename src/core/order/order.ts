import type { Day } from '../date';
import { compareText } from '../kit';
import type { CasePlan, Planning, PlanProgress } from '../plan';
import { type BlockAt, blockAt, type Round } from '../route';
import { type Standing } from '../version';
import type { Target } from '../estate';
import type { Conflict } from './conflict';
import { beginOf, type LaidStep, layerOf, layPart, Ledger, movesTo } from './lay';
import { type Component, findComponents, idsOfNode, type MovingPart } from './parts';
import type { Constraint, Importance, PartStep, Problem } from './problem';
import { findOrder, type FoundOrder } from './search';

/** How a part fares in its order. */
export type PartFate =
  /** It gets to its goal. */
  | 'reached'
  /** It is there. */
  | 'here'
  /** Somebody has decided that it stays. */
  | 'stays'
  /** It has no way of its own, whatever it hangs on. */
  | 'no way'
  /** Nobody has told where something it hangs on stands, or what that is. */
  | 'not told'
  /** No order reaches its goal, whatever becomes of the others. */
  | 'no order'
  /** An order reaches it, but none that reaches more. */
  | 'in conflict'
  /** An order reaches it, but no window has room for a wave of it, or no crew for all that must change at once. */
  | 'no room';

export interface OrderedPart {
  readonly id: string;
  readonly systems: readonly string[];
  readonly situation: string;
  readonly product: string;
  readonly team?: string;
  readonly start: Standing;
  readonly goal?: Target;
  readonly importance: Importance;
  readonly fate: PartFate;
  readonly deadline?: Day;
  /** Last day of its last step. */
  readonly finish?: Day;
  readonly missed: boolean;
}

/** A step of a part in a wave. */
export interface OrderedStep {
  /** Index into the parts. */
  readonly part: number;
  /** The counted step's id in the catalogue. */
  readonly step: string;
  readonly from: Standing;
  readonly to: Standing;
  readonly first: Day;
  readonly last: Day;
  /** Rounds it is made in, with the windows they lie in. */
  readonly rounds: readonly {
    readonly systems: number;
    readonly first: Day;
    readonly last: Day;
    readonly at?: BlockAt;
  }[];
  readonly carefulMinutes: number;
  /** Steps that had to be made before: wave and part, and the pairing that asks it. */
  readonly because: readonly { readonly wave: number; readonly part: number; readonly pairing: string }[];
  readonly isChosen: boolean;
}

export interface OrderedWave {
  readonly steps: readonly OrderedStep[];
  /** Sets of parts that change at the same minute, since nothing else works. */
  readonly bound: readonly (readonly number[])[];
  readonly first: Day;
  readonly last: Day;
  /** The latest day it may begin on, everything behind it laid anew and alone; absent where nothing sets one. */
  readonly latest?: Day;
  /** The part whose deadline sets that. */
  readonly latestFor?: number;
}

export interface NamedConstraint {
  readonly kind: Constraint['kind'];
  /** The parts it is about. */
  readonly parts: readonly number[];
  readonly pairing?: string;
  readonly release?: string;
}

export interface OrderConflict {
  readonly goals: readonly number[];
  readonly constraints: readonly NamedConstraint[];
}

/** The order of one component: systems that hang on each other. */
export interface ComponentOrder {
  readonly id: string;
  readonly parts: readonly OrderedPart[];
  readonly waves: readonly OrderedWave[];
  /** Pairings that are broken, or cannot be told, as everything stands today. */
  readonly standing: readonly { readonly pairing: string; readonly parts: readonly [number, number] }[];
  readonly conflicts: readonly OrderConflict[];
  /** No better order was left untried; where it was, no order that reaches as much has fewer waves than so many. */
  readonly proven: boolean;
  readonly leastWaves: number;
  /** There was room for it alone, and not beside what was laid before it. */
  readonly crowded: boolean;
}

export interface Order {
  readonly components: readonly ComponentOrder[];
}

/**
 * In which sequence everything that hangs on each other is changed (docs/reckoning.md 11): each component's best order, laid with the
 * crews shared by all - those with deadlines first, least slack first, then by id. Yields how many components are done, of how many.
 */
export function* orderOf(planning: Planning, plans: readonly CasePlan[]): Generator<PlanProgress, Order> {
  const components = findComponents(planning, plans).sort(comparePlacing);
  const ledger = new Ledger();
  const known: KnownOrders = new Map();
  const done: ComponentOrder[] = [];
  for (const component of components) {
    yield { done: done.length, of: components.length };
    done.push(orderComponent(planning, component, { ledger, known }));
  }
  return { components: done.sort((a, b) => compareText(a.id, b.id)) };
}

function comparePlacing(a: Component, b: Component): number {
  const slack = ({ parts }: Component): number =>
    Math.min(Infinity, ...parts.filter((p) => p.nodes.length > 1).map((p) => p.plan.slack ?? Infinity));
  const [x, y] = [slack(a), slack(b)];
  return (x === y ? 0 : x - y) || compareText(a.parts[0]?.id ?? '', b.parts[0]?.id ?? '');
}

type KnownOrders = Map<string, ReturnType<typeof findOrder>>;

/** Equal for components of the same cases that are bound in the same way: their orders are the same but for names. */
const shapeOf = ({ parts, bonds }: Component): string =>
  JSON.stringify([
    parts.map((p) => [p.alike, p.systems.length, p.deadline, p.nodes.length]),
    bonds.map((b) => [b.pairing, b.own, b.other])
  ]);

function orderComponent(
  planning: Planning,
  component: Component,
  { ledger, known }: { readonly ledger: Ledger; readonly known: KnownOrders }
): ComponentOrder {
  const { parts, bonds } = component;
  const problem: Problem = { parts, bonds, eve: planning.today - 1, lay: layerOf(parts) };
  const shape = shapeOf(component);
  const found = known.get(shape) ?? findOrder(problem);
  known.set(shape, found);
  const trial = ledger.copy();
  const placed = place(problem, parts, { found, ledger: trial });
  if (placed) ledger.take(trial);
  const laid = placed ?? place(problem, parts, { found, ledger: new Ledger() }) ?? [];
  const waves = laid.map((wave, k) => ({ ...wave, ...latestOf(problem, parts, { found, laid, at: k }) }));
  const conflicts = namedConflicts(problem, parts, found.conflicts);
  const fates = fatesOf(parts, found, conflicts).map((fate) =>
    fate === 'reached' && waves.length === 0 ? 'no room' : fate
  );
  return {
    id: parts[0]?.id ?? '',
    parts: parts.map((part, i) =>
      orderedPart(planning, part, { waves, index: i, fate: fates[i] ?? 'no way' })
    ),
    waves,
    standing: bonds.flatMap((b) =>
      b.holds(0, 0) === 'yes' ? [] : [{ pairing: b.pairing, parts: [b.own, b.other] as const }]
    ),
    conflicts,
    proven: found.proven && parts.every((p) => !p.cut),
    leastWaves: found.leastWaves,
    crowded: placed === undefined && found.waves.length > 0
  };
}

function orderedPart(
  planning: Planning,
  part: MovingPart,
  {
    waves,
    index,
    fate
  }: { readonly waves: readonly OrderedWave[]; readonly index: number; readonly fate: PartFate }
): OrderedPart {
  const days = waves.flatMap((w) => w.steps.filter((s) => s.part === index).map((s) => s.last));
  const finish = days.at(-1);
  const team = planning.system(part.id)?.team;
  return {
    id: part.id,
    systems: part.systems,
    situation: part.plan.situation,
    product: part.model.product.id,
    ...(team === undefined ? {} : { team }),
    start: idsOfNode(part, 0),
    ...(part.plan.goal ? { goal: part.plan.goal } : {}),
    importance: part.importance,
    fate,
    ...(part.deadline === undefined ? {} : { deadline: part.deadline }),
    ...(finish === undefined ? {} : { finish }),
    missed:
      part.deadline !== undefined &&
      fate !== 'here' &&
      fate !== 'stays' &&
      (fate !== 'reached' || (finish ?? 0) > part.deadline)
  };
}

function fatesOf(
  parts: readonly MovingPart[],
  { end }: FoundOrder,
  conflicts: readonly OrderConflict[]
): PartFate[] {
  return parts.map((part, i): PartFate => {
    if (part.stays) return 'stays';
    if (part.nodes[0]?.isGoal) return 'here';
    if (part.nodes[end[i] ?? 0]?.isGoal) return 'reached';
    if (part.isUnclear) return 'not told';
    if (!part.nodes.some((n) => n.isGoal)) return 'no way';
    return conflicts.some((c) => c.goals.length === 1 && c.goals[0] === i) ? 'no order' : 'in conflict';
  });
}

/** What stands in the way, by names. */
function namedConflicts(
  { bonds }: Problem,
  parts: readonly MovingPart[],
  conflicts: readonly Conflict[]
): OrderConflict[] {
  return conflicts.map(({ goals, constraints }) => ({
    goals,
    constraints: constraints.map((c): NamedConstraint => {
      if (c.kind === 'pairing') {
        const bond = bonds[c.bond];
        return {
          kind: c.kind,
          parts: bond ? [bond.own, bond.other] : [],
          ...(bond ? { pairing: bond.pairing } : {})
        };
      }
      const release = c.kind === 'rest' ? parts[c.part]?.model.releases[c.release]?.release.id : undefined;
      return { kind: c.kind, parts: [c.part], ...(release === undefined ? {} : { release }) };
    })
  }));
}

/** Waves that are laid already, and the day behind which the next begins. */
interface Begun {
  readonly waves: readonly OrderedWave[];
  readonly behind: readonly (readonly Day[])[];
  readonly eve: Day;
}

interface ToPlace {
  readonly found: FoundOrder;
  /** What crews do besides; what is placed is booked in it. */
  readonly ledger: Ledger;
  readonly begun?: Begun;
}

/**
 * The latest day a wave may begin on so that no deadline is missed that is met now: what follows is laid anew behind it, as if nobody else
 * wanted the crews. Found by halving between the day it lies on and what the nearest deadline leaves.
 */
function latestOf(
  problem: Problem,
  parts: readonly MovingPart[],
  {
    found,
    laid,
    at
  }: { readonly found: FoundOrder; readonly laid: readonly OrderedWave[]; readonly at: number }
): Pick<OrderedWave, 'latest' | 'latestFor'> {
  const finishes = (waves: readonly OrderedWave[]) =>
    parts.flatMap(({ deadline }, part) => {
      const last = waves.flatMap((w) => w.steps.filter((s) => s.part === part)).at(-1)?.last;
      const moves = found.waves.slice(at).some((w) => w.steps.some((s) => s.part === part));
      return moves && deadline !== undefined && last !== undefined ? [{ part, left: deadline - last }] : [];
    });
  const met = finishes(laid).filter((f) => f.left >= 0);
  const nearest = [...met].sort((a, b) => a.left - b.left)[0];
  const first = laid[at]?.first;
  if (!nearest || first === undefined) return {};
  const behind = parts.map((_, part) =>
    found.waves
      .slice(0, at)
      .flatMap((w, k) => (w.steps.some((s) => s.part === part) ? [eveOf(problem, laid, k)] : []))
  );
  const layBehind = (eve: Day): readonly OrderedWave[] | undefined => {
    const waves = place(problem, parts, {
      found,
      ledger: new Ledger(),
      begun: { waves: laid.slice(0, at), behind, eve }
    });
    const now = waves && finishes(waves);
    return now && met.every(({ part }) => (now.find((f) => f.part === part)?.left ?? -1) >= 0)
      ? waves
      : undefined;
  };
  let [holds, fails] = [first - 1, first + nearest.left + 1];
  let latest = first;
  for (let eve = fails - 1; fails - holds > 1; eve = Math.floor((holds + fails) / 2)) {
    const waves = layBehind(eve);
    if (waves) [holds, latest] = [Math.max(eve, holds), Math.max(latest, waves[at]?.first ?? latest)];
    else fails = eve;
    if (holds >= fails - 1) break;
  }
  return { latest, latestFor: nearest.part };
}

const eveOf = (problem: Problem, laid: readonly OrderedWave[], k: number): Day =>
  laid[k - 1]?.last ?? problem.eve;

/** Lays the waves of an order one behind the other, beside what crews do already; undefined where a step finds no room. */
function place(
  problem: Problem,
  parts: readonly MovingPart[],
  { found, ledger, begun }: ToPlace
): OrderedWave[] | undefined {
  const behind = [...(begun?.behind ?? parts.map(() => []))];
  const waves = [...(begun?.waves ?? [])];
  let eve = begun?.eve ?? problem.eve;
  for (const wave of found.waves.slice(waves.length)) {
    const laid = layWave(parts, wave, { behind, eve, ledger });
    if (!laid) return undefined;
    const steps = wave.steps.map((step, i): OrderedStep => {
      const own = laid[i] as Placed;
      behind[step.part] = [...(behind[step.part] ?? []), own.behind];
      return orderedStep(problem, parts, { step, laid: own, waves: found.waves, at: waves.length });
    });
    const last = Math.max(...steps.map((s) => s.last));
    waves.push({ steps, bound: wave.bound, first: Math.min(...steps.map((s) => s.first)), last });
    eve = last;
  }
  return waves;
}

interface Placing {
  readonly behind: readonly (readonly Day[])[];
  readonly eve: Day;
  readonly ledger: Ledger;
}

type Placed = LaidStep & { readonly behind: Day };

/** The steps of one wave; those of a bound set begin at one minute, with crew for all. */
function layWave(
  parts: readonly MovingPart[],
  { steps, bound }: FoundOrder['waves'][number],
  { behind, eve, ledger }: Placing
): readonly Placed[] | undefined {
  const laid = new Map<number, Placed>();
  const layOne = ({ part, to }: PartStep, after: Day, beside: Ledger): Placed | undefined => {
    const own = parts[part] as MovingPart;
    const found = layPart(own, to, [...(behind[part] ?? []), after], beside);
    if (!found) return undefined;
    beside.book(found.rounds, [movesTo(own, to).length - 1]);
    return { ...found, behind: after };
  };
  for (const set of bound) {
    const tied = steps.filter((s) => set.includes(s.part));
    const after = nightForAll(tied, eve, layOne, ledger);
    if (after === undefined) return undefined;
    for (const step of tied) laid.set(step.part, layOne(step, after, ledger) as Placed);
  }
  for (const step of steps) {
    if (laid.has(step.part)) continue;
    const on = layOne(step, eve, ledger);
    if (!on) return undefined;
    laid.set(step.part, on);
  }
  return steps.map((s) => laid.get(s.part) as Placed);
}

const MOST_NIGHTS = 60;

/**
 * The day behind which a bound set begins at one minute, each part in one round with crew for all: tried behind the latest of them, again
 * and again.
 */
function nightForAll(
  steps: readonly PartStep[],
  eve: Day,
  layOne: (step: PartStep, after: Day, beside: Ledger) => Placed | undefined,
  ledger: Ledger
): Day | undefined {
  let after = eve;
  for (let tried = 0; tried < MOST_NIGHTS; tried++) {
    const trial = ledger.copy();
    const found = steps.flatMap((s) => layOne(s, after, trial) ?? []);
    if (found.length < steps.length || found.some((f) => f.rounds.length > 1)) return undefined;
    if (new Set(found.map(beginOf)).size === 1) return after;
    const [earliest, latest] = [
      Math.min(...found.map((f) => f.first)),
      Math.max(...found.map((f) => f.first))
    ];
    after = earliest === latest ? latest : latest - 1;
  }
  return undefined;
}

function orderedStep(
  problem: Problem,
  parts: readonly MovingPart[],
  {
    step,
    laid,
    waves,
    at
  }: {
    readonly step: PartStep;
    readonly laid: LaidStep;
    readonly waves: FoundOrder['waves'];
    readonly at: number;
  }
): OrderedStep {
  const part = parts[step.part] as MovingPart;
  const moves = movesTo(part, step.to);
  const index = moves.length - 1;
  const move = moves[index];
  return {
    part: step.part,
    step: move?.id ?? '',
    from: idsOfNode(part, step.from),
    to: idsOfNode(part, step.to),
    first: laid.first,
    last: laid.last,
    rounds: laid.rounds.map((r) => roundOn(r, index)),
    carefulMinutes: (move?.hop?.hop ?? move?.change?.change)?.carefulMinutes ?? 0,
    because: becauseOf(problem, waves, { step, at }),
    isChosen: part.nodes[step.to]?.isChosen ?? false
  };
}

function roundOn({ systems, judgement }: Round, index: number): OrderedStep['rounds'][number] {
  const days = judgement.schedule.days[index];
  return {
    systems,
    first: days?.hop.first ?? 0,
    last: days?.hop.last ?? 0,
    ...(days?.at ? { at: blockAt(days.at) } : {})
  };
}

/** The waves before that this step would have broken a pairing without. */
function becauseOf(
  { bonds }: Problem,
  waves: FoundOrder['waves'],
  { step, at }: { readonly step: PartStep; readonly at: number }
): OrderedStep['because'] {
  const found: OrderedStep['because'][number][] = [];
  for (const bond of bonds) {
    if (bond.own !== step.part && bond.other !== step.part) continue;
    const there = bond.own === step.part ? bond.other : bond.own;
    for (let wave = at - 1; wave >= 0; wave--) {
      const last = waves[wave]?.steps.find((s) => s.part === there);
      if (!last) continue;
      const holds = bond.own === step.part ? bond.holds(step.to, last.from) : bond.holds(last.from, step.to);
      if (holds !== 'yes') found.push({ wave, part: there, pairing: bond.pairing });
      break;
    }
  }
  return found;
}
