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
import { type Component, findComponents, idsOfNode, type MovingPart } from './parts';
import { latestOf, place } from './place';
import type { Problem } from './problem';
import { findOrder, type FoundOrder } from './search';

/**
 * In which sequence everything that hangs on each other is changed (docs/reckoning.md 14): each component's best order, laid with the
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
const shapeOf = ({ parts, bonds, apart }: Component): string =>
  JSON.stringify([
    parts.map((p) => [p.alike, p.systems.length, p.deadline, p.nodes.length]),
    bonds.map((b) => [b.pairing, b.own, b.other]),
    apart
  ]);

function orderComponent(
  planning: Planning,
  component: Component,
  { ledger, known }: { readonly ledger: Ledger; readonly known: KnownOrders }
): ComponentOrder {
  const { parts, bonds, apart } = component;
  const by = planning.estate.site.orderBy;
  const problem: Problem = {
    parts,
    bonds,
    apart,
    ...(by === undefined ? {} : { by }),
    eve: planning.today - 1,
    lay: layerOf(parts)
  };
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
  { bonds, apart = [] }: Problem,
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
      if (c.kind === 'lock') return { kind: c.kind, parts: apart[c.apart] ?? [] };
      const release = c.kind === 'rest' ? parts[c.part]?.model.releases[c.release]?.release.id : undefined;
      return { kind: c.kind, parts: [c.part], ...(release === undefined ? {} : { release }) };
    })
  }));
}
