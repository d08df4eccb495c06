import { findPublication } from '../compile';
import type { Day } from '../date';
import type { System } from '../estate';
import { keyOfCalls, type RightCall, type RightCalls } from '../right';
import { type CountedStep, isCounted } from '../route';
import type { CasePlan } from './plan-types';
import type { Planning } from './planning';

type Gathered = Map<string, RightCalls & { readonly calls: RightCall[] }>;

/** What the chosen routes to the goals call for of each right: those bought and those counted in units. */
export function rightCallsOf(plans: readonly CasePlan[], planning: Planning): RightCalls[] {
  const gathered: Gathered = new Map();
  for (const plan of plans) gather(plan, gathered, planning);
  return [...gathered.values()];
}

function gather(plan: CasePlan, gathered: Gathered, planning: Planning): void {
  const { route } = plan.goalPlan ?? {};
  for (const step of route?.steps ?? []) {
    if (!isCounted(step) || step.right.right === undefined) continue;
    const { units, right, kind } = step.right;
    if (kind !== 'purchase' && !units) continue;
    const [first] = plan.systems.map((id) => planning.system(id));
    const model = first && planning.modelFor(first);
    const published = model?.rights.find((r) => r.right.id === right)?.right;
    const edition = units ? (units.edition ?? '') : step.to.edition;
    const about = { product: plan.product ?? '', right, edition, ...(units ? { pool: units.pool } : {}) };
    const key = keyOfCalls(about);
    const known = gathered.get(key) ?? {
      ...about,
      pack: (units && published?.units?.pack) || 1,
      calls: []
    };
    const call = {
      case: plan.id,
      number: units?.number ?? 1,
      priceCents: kind === 'held' ? undefined : (step.right.priceCents ?? 'unknown'),
      day: dayOf(step, published?.counts, first, planning),
      by: typeof plan.latestStart === 'number' ? plan.latestStart : step.days.first,
      certain: route?.restsOn.length === 0
    };
    for (const id of plan.systems) {
      const system = planning.system(id);
      known.calls.push({
        ...call,
        system: id,
        ...(system?.team === undefined ? {} : { team: system.team }),
        ...(system?.site === undefined ? {} : { site: system.site })
      });
    }
    gathered.set(key, known);
  }
}

/** The day the publisher's rule asks for; the last of the step where nobody knows when its target is out. */
function dayOf(
  step: CountedStep,
  counts: 'upgrade day' | 'order day' | 'release day' | undefined,
  system: System | undefined,
  planning: Planning
): Day {
  if (counts === 'order day') return planning.today;
  if (counts !== 'release day' || !system) return step.days.last;
  const release = planning.modelFor(system)?.releases.find((r) => r.release.id === step.to.release);
  const out =
    release && findPublication(release, planning.goalOf(system).maturities, planning.countsExpected);
  return typeof out?.day === 'number' ? out.day : step.days.last;
}
