import type { Day } from '../date';
import { compareText } from '../kit';
import type { CasePlan, Planning, PlanProgress } from '../plan';
import type { Conflict } from './conflict';
import { layerOf, Ledger } from './lay';
import type {
  ComponentOrder,
  NamedConstraint,
  Order,
  OrderConflict,
  OrderedPart,
  OrderedWave,
  PartFate
} from './order-types';
import { type Component, findComponents, findSingles, idsOfNode, type MovingPart } from './parts';
import { latestOf, placeIn, type Prepared } from './place';
import { findHopeful, perhapsOf } from './perhaps';
import { savedBy } from './saved-by';
import type { Problem } from './problem';
import { findOrder, type FoundOrder, goesWhole } from './search';

/**
 * In which sequence everything that hangs on each other is changed (docs/reckoning.md 14): each component's best order, laid with the
 * crews shared by all, those that hang on nothing among them - those with deadlines first, least slack first, then by id. What misses a
 * deadline it keeps alone is tried once more first of all. Yields how many components are done, of how many.
 */
export function* orderOf(planning: Planning, plans: readonly CasePlan[]): Generator<PlanProgress, Order> {
  const components = findComponents(planning, plans);
  const linked = new Set(components.flatMap((c) => c.parts.flatMap((p) => p.systems)));
  const known: KnownOrders = new Map();
  const all: Prepared[] = [];
  for (const component of components) {
    yield { done: all.length, of: components.length };
    all.push(prepare(planning, component, known));
  }
  for (const component of findSingles(planning, plans, linked)) all.push(prepare(planning, component, known));
  const laid = layBest(all.sort(comparePlacing));
  const done = laid.map((one) => tell(planning, one));
  return { components: done.sort((a, b) => compareText(a.id, b.id)) };
}

type KnownOrders = Map<string, Pick<Prepared, 'found' | 'hopeful'>>;

function prepare(planning: Planning, component: Component, known: KnownOrders): Prepared {
  const { parts, bonds, apart, pilots } = component;
  const by = planning.estate.site.orderBy;
  const problem: Problem = {
    parts,
    bonds,
    apart,
    pilots,
    ...(by === undefined ? {} : { by }),
    mayShareDays: parts.some((p) => p.terms.calendar?.hasWindows),
    eve: planning.today - 1,
    lay: layerOf(parts)
  };
  const shape = shapeOf(component);
  const orders = known.get(shape) ?? findOrders(problem, component.single !== undefined);
  known.set(shape, orders);
  return { component, problem, ...orders };
}

function findOrders(problem: Problem, isSingle: boolean): Pick<Prepared, 'found' | 'hopeful'> {
  if (isSingle) return { found: goesWhole(problem) };
  const found = findOrder(problem);
  const hopeful = findHopeful(problem, found);
  return { found, ...(hopeful ? { hopeful } : {}) };
}

function comparePlacing(a: Prepared, b: Prepared): number {
  const slack = ({ component: { parts } }: Prepared): number =>
    Math.min(Infinity, ...parts.filter((p) => p.nodes.length > 1).map((p) => p.plan.slack ?? Infinity));
  const [x, y] = [slack(a), slack(b)];
  return (x === y ? 0 : x - y) || compareText(idOf(a), idOf(b));
}

const idOf = ({ component: { parts } }: Prepared): string => parts[0]?.id ?? '';

/** Equal for components of the same cases that are bound in the same way: their orders are the same but for names. */
const shapeOf = ({ parts, bonds, apart, pilots, single }: Component): string =>
  JSON.stringify([
    parts.map((p) => [p.alike ?? p.id, p.systems.length, p.deadline, p.nodes.length]),
    bonds.map((b) => [b.pairing, b.own, b.other]),
    apart,
    pilots,
    single !== undefined
  ]);

/** A component as it was laid, with what crews did already before it. */
interface Laid extends Prepared {
  readonly waves: readonly OrderedWave[];
  readonly crowded: boolean;
  readonly before: Ledger;
}

/** Deadlines missed, and days late. */
type Lateness = readonly [missed: number, late: number];

const latenessOf = ({ component: { parts }, waves, found }: Laid): Lateness =>
  parts.reduce<Lateness>(
    ([missed, late], { deadline }, part) => {
      const finish = waves.flatMap((w) => w.steps.filter((s) => s.part === part)).at(-1)?.last;
      const isRoomless =
        finish === undefined && found.waves.some((w) => w.steps.some((s) => s.part === part));
      if (isRoomless) return [missed + 1, late];
      const over = deadline === undefined || finish === undefined ? 0 : Math.max(0, finish - deadline);
      return [missed + (over > 0 ? 1 : 0), late + over];
    },
    [0, 0]
  );

/** What keeps its deadlines alone and not beside others is tried first of all, as many times as this. */
const MOST_RETRIES = 6;

function layBest(sequence: readonly Prepared[]): readonly Laid[] {
  let best = layAll(sequence);
  let order = sequence;
  let retries = 0;
  const tried = new Set<Prepared>();
  for (;;) {
    const late = best.find((one, i) => {
      const prepared = order[i];
      if (!prepared || tried.has(prepared)) return false;
      const [missed] = latenessOf(one);
      return missed > 0 && (one.crowded || missed > latenessOf(layOne(prepared, new Ledger()))[0]);
    });
    const prepared = late && order[best.indexOf(late)];
    if (!prepared || ++retries > MOST_RETRIES) return best;
    tried.add(prepared);
    const otherwise = [prepared, ...order.filter((p) => p !== prepared)];
    const next = layAll(otherwise);
    if (compareLateness(next, best) < 0) [best, order] = [next, otherwise];
  }
}

function compareLateness(a: readonly Laid[], b: readonly Laid[]): number {
  const sumOf = (all: readonly Laid[]): Lateness =>
    all.map(latenessOf).reduce<Lateness>(([missed, late], [m, l]) => [missed + m, late + l], [0, 0]);
  const [[missedA, lateA], [missedB, lateB]] = [sumOf(a), sumOf(b)];
  return missedA - missedB || lateA - lateB;
}

function layAll(sequence: readonly Prepared[]): readonly Laid[] {
  const ledger = new Ledger();
  return sequence.map((one) => layOne(one, ledger));
}

/** Lays a component beside what crews do already; one there is no room for so is laid as if they did nothing else. */
function layOne(one: Prepared, ledger: Ledger): Laid {
  const before = ledger.copy();
  const trial = ledger.copy();
  const waves = placeIn(one, trial);
  if (waves) ledger.take(trial);
  return {
    ...one,
    waves: waves ?? placeIn(one, new Ledger()) ?? [],
    crowded: waves === undefined && one.found.waves.length > 0,
    before
  };
}

function tell(planning: Planning, laid: Laid): ComponentOrder {
  const { component, problem, found, hopeful } = laid;
  const { parts, bonds, single, pilots } = component;
  // Where something is laid down that may be what leaves no later day.
  const isLocked = parts.some((p) => (p.locks?.length ?? 0) > 0);
  const waves = single
    ? laid.waves
    : laid.waves.map((wave, k) => {
        const { latest, latestFor } = latestOf(problem, parts, { found, laid: laid.waves, at: k });
        return {
          ...wave,
          ...(latest === undefined ? {} : { latest }),
          ...(latestFor === undefined || isLocked ? {} : { latestFor })
        };
      });
  const conflicts = namedConflicts(problem, parts, found.conflicts);
  const fates = fatesOf(parts, found, conflicts).map((fate) =>
    fate === 'reached' && waves.length === 0 ? 'no room' : fate
  );
  const slacks = single ? [] : slacksOf(planning.today, laid);
  const told = parts.map((part, i) => {
    const slack = slacks[i];
    const own = orderedPart(planning, part, { waves, index: i, fate: fates[i] ?? 'no way' });
    return slack === undefined ? own : { ...own, slack };
  });
  const isWanting = told.some((p) => p.fate === 'no room' || (p.missed && p.fate === 'reached'));
  const saved = isWanting ? savedBy(planning, laid, told) : [];
  const perhaps = hopeful && perhapsOf(problem, parts, { sure: found, hopeful });
  return {
    id: parts[0]?.id ?? '',
    parts: told.map((p, i) => (saved[i] ? { ...p, savedBy: saved[i] } : p)),
    waves,
    pilots,
    standing: bonds.flatMap((b) =>
      b.holds(0, 0) === 'yes' ? [] : [{ pairing: b.pairing, parts: [b.own, b.other] as const }]
    ),
    conflicts,
    proven: found.proven && parts.every((p) => !p.cut),
    leastWaves: found.leastWaves,
    crowded: laid.crowded,
    ...(perhaps ? { perhaps } : {}),
    isSingle: single !== undefined
  };
}

/** Days the work of a component may wait for each part that keeps its deadline; parts done by one wave and one day are alike. */
function slacksOf(today: Day, { component: { parts }, problem, found, waves }: Laid): (number | undefined)[] {
  const known = new Map<string, number | undefined>();
  return parts.map(({ deadline }, only) => {
    const last = waves.findLastIndex((w) => w.steps.some((s) => s.part === only));
    if (deadline === undefined || last < 0) return undefined;
    const key = `${deadline} ${last} ${waves[last]?.steps.find((s) => s.part === only)?.last ?? ''}`;
    if (!known.has(key)) {
      const { latest } = latestOf(problem, parts, { found, laid: waves, at: 0, only });
      known.set(key, latest === undefined ? undefined : latest - today);
    }
    return known.get(key);
  });
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
  const finish = days.length > 0 ? Math.max(...days) : undefined;
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
    waitsFor: waitsFor(waves, index),
    ...(part.deadline === undefined ? {} : { deadline: part.deadline }),
    ...(finish === undefined ? {} : { finish }),
    missed:
      part.deadline !== undefined &&
      fate !== 'here' &&
      fate !== 'stays' &&
      (fate !== 'reached' || (finish ?? 0) > part.deadline)
  };
}

/** Parts whose steps had to be made before some step of one, directly or through others. */
function waitsFor(waves: readonly OrderedWave[], index: number): number[] {
  const found = new Set<number>();
  const follow = (part: number, until: number): void => {
    waves.slice(0, until).forEach((wave) => {
      for (const step of wave.steps)
        if (step.part === part)
          for (const cause of step.because)
            if (cause.part !== index && !found.has(cause.part)) {
              found.add(cause.part);
              follow(cause.part, cause.wave + 1);
            }
    });
  };
  follow(index, waves.length);
  return [...found].sort((a, b) => a - b);
}

function fatesOf(
  parts: readonly MovingPart[],
  { end, isShort }: FoundOrder,
  conflicts: readonly OrderConflict[]
): PartFate[] {
  return parts.map((part, i): PartFate => {
    if (part.stays) return 'stays';
    if (part.nodes[0]?.isGoal) return 'here';
    if (part.nodes[end[i] ?? 0]?.isGoal) return 'reached';
    if (part.isUnclear) return 'not told';
    if (!part.nodes.some((n) => n.isGoal)) return 'no way';
    if (conflicts.some((c) => c.goals.length === 1 && c.goals[0] === i)) return 'no order';
    return isShort && !conflicts.some((c) => c.goals.includes(i)) ? 'no room' : 'in conflict';
  });
}

/** What stands in the way, by names. */
function namedConflicts(
  { bonds, pilots = [], apart = [] }: Problem,
  parts: readonly MovingPart[],
  conflicts: readonly Conflict[]
): OrderConflict[] {
  return conflicts.map(({ goals, constraints, openings }) => ({
    goals,
    constraints: constraints.map((c): NamedConstraint => {
      const opens = openings.includes(c);
      if (c.kind === 'pairing') {
        const bond = bonds[c.bond];
        return {
          kind: c.kind,
          opens,
          parts: bond ? [bond.own, bond.other] : [],
          ...(bond ? { pairing: bond.pairing } : {})
        };
      }
      if (c.kind === 'pilots') return { kind: c.kind, opens, parts: pilots[c.pilots]?.first ?? [] };
      if (c.kind === 'lock') return { kind: c.kind, opens, parts: apart[c.apart] ?? [] };
      const release = c.kind === 'rest' ? parts[c.part]?.model.releases[c.release]?.release.id : undefined;
      return { kind: c.kind, opens, parts: [c.part], ...(release === undefined ? {} : { release }) };
    })
  }));
}
