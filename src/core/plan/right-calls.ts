import { findPublication, type ProductModel } from '../compile';
import type { Day, StepDays } from '../date';
import type { Goal, System } from '../estate';
import { keyOfCalls, type RightCall, type RightCalls, type RightUse } from '../right';
import { isCounted } from '../route';
import type { CasePlan } from './plan-types';
import type { Planning } from './planning';

/** One counted step as rights are counted: what it is made under, where it leads, on which days. */
export interface StepUse {
  readonly right: RightUse;
  readonly to: { readonly release: string; readonly edition: string };
  readonly days: StepDays;
}

/** Alike systems that take the same steps. */
interface Takers {
  readonly plan: Pick<CasePlan, 'id' | 'product' | 'systems' | 'latestStart'> &
    Partial<Pick<CasePlan, 'deadline'>>;
  readonly uses: readonly StepUse[];
  /** Their route rests on nothing unknown. */
  readonly certain: boolean;
  /** The day on which is ordered what has to be bought. */
  readonly ordered: Day;
}

/** What the chosen routes to the goals call for of each right: those bought and those counted in units. */
export function rightCallsOf(plans: readonly CasePlan[], planning: Planning): RightCalls[] {
  const calls = new CallsOfRights(planning);
  for (const plan of plans) {
    const { route } = plan.goalPlan ?? {};
    if (!route) continue;
    const certain = route.restsOn.length === 0;
    const parts = partsOf(plan.systems, plan.rounds ?? [], route.steps.filter(isCounted));
    for (const { systems, uses } of parts)
      calls.add({ plan: { ...plan, systems }, uses, certain, ordered: planning.today });
  }
  return calls.all;
}

/** Some systems of a case, and the steps they take. */
export interface RightPart {
  readonly systems: readonly string[];
  readonly uses: readonly StepUse[];
}

/**
 * The systems of a case by the rounds they go in, each with its steps; those no round has room for take the steps of the last there is,
 * or of one system alone.
 */
export function partsOf(
  systems: readonly string[],
  rounds: readonly { readonly systems: number; readonly steps: readonly StepUse[] }[],
  alone: readonly StepUse[]
): RightPart[] {
  const parts: RightPart[] = [];
  let done = 0;
  for (const round of rounds) {
    parts.push({ systems: systems.slice(done, done + round.systems), uses: round.steps });
    done += round.systems;
  }
  const left = done === 0 ? systems : systems.slice(done);
  if (left.length > 0) parts.push({ systems: left, uses: parts.at(-1)?.uses ?? alone });
  return parts;
}

/** Calls on rights as they are gathered. */
export class CallsOfRights {
  readonly #planning: Planning;
  readonly #gathered = new Map<string, RightCalls & { readonly calls: RightCall[] }>();

  constructor(planning: Planning) {
    this.#planning = planning;
  }

  get all(): RightCalls[] {
    return [...this.#gathered.values()];
  }

  add(takers: Takers): void {
    const { plan, certain, ordered } = takers;
    const uses = takers.uses.filter((u) => isCalled(u.right));
    if (uses.length === 0) return;
    const systems = plan.systems.map((id) => [id, this.#planning.system(id)] as const);
    const first = systems[0]?.[1];
    const model = first && this.#planning.modelFor(first);
    if (!model) return;
    for (const use of uses) {
      const calls = this.#callsOf(plan.product ?? '', model, use);
      const call = {
        case: plan.id,
        number: use.right.units?.number ?? 1,
        priceCents: use.right.kind === 'held' ? undefined : (use.right.priceCents ?? 'unknown'),
        day: dayOf(use, model, { goal: this.#planning.goalOf(first), ordered, planning: this.#planning }),
        by: orderBy(use, plan, ordered),
        certain
      };
      for (const [id, system] of systems) calls.push({ ...call, system: id, ...placeOf(system) });
    }
  }

  #callsOf(product: string, { rights }: ProductModel, { right, to }: StepUse): RightCall[] {
    const { units, right: id = '' } = right;
    const about = {
      product,
      right: id,
      edition: units ? (units.edition ?? '') : to.edition,
      ...(units ? { pool: units.pool } : {})
    };
    const key = keyOfCalls(about);
    const published = rights.find((r) => r.right.id === id)?.right;
    const known = this.#gathered.get(key) ?? {
      ...about,
      pack: (units && published?.units?.pack) || 1,
      calls: []
    };
    this.#gathered.set(key, known);
    return known.calls;
  }
}

/** The last day to order: the latest start, or the day of the step where none is known; sooner where the price or the right itself lapses. */
function orderBy({ right, days }: StepUse, { latestStart, deadline }: Takers['plan'], ordered: Day): Day {
  const lapses = (deadline?.contributors ?? []).filter(
    (c) => c.kind === 'right' && c.subject === right.right && c.day >= ordered
  );
  return Math.min(typeof latestStart === 'number' ? latestStart : days.first, ...lapses.map((c) => c.day));
}

/** Whether a step's right is counted: bought, or in units. */
export const isCalled = ({ right, kind, units }: RightUse): boolean =>
  right !== undefined && (kind === 'purchase' || units !== undefined);

const placeOf = (system: System | undefined): Pick<RightCall, 'team' | 'site'> => ({
  ...(system?.team === undefined ? {} : { team: system.team }),
  ...(system?.site === undefined ? {} : { site: system.site })
});

/** The day the publisher's rule asks for; the last of the step where nobody knows when its target is out. */
function dayOf(
  { right, to, days }: StepUse,
  model: ProductModel,
  { goal, ordered, planning }: { readonly goal: Goal; readonly ordered: Day; readonly planning: Planning }
): Day {
  const counts = model.rights.find((r) => r.right.id === right.right)?.right.counts;
  if (counts === 'order day') return ordered;
  const release = counts === 'release day' && model.releases.find((r) => r.release.id === to.release);
  const out = release && findPublication(release, goal.maturities, planning.countsExpected);
  return out && typeof out.day === 'number' ? out.day : days.last;
}
