import { keyOfCalls, type RightCall, type RightCalls } from '../right';
import { type CountedStep, isCounted } from '../route';
import type { CasePlan } from './plan-types';

/** What the chosen routes to the goals call for of each right: those bought and those counted in units. */
export function rightCallsOf(plans: readonly CasePlan[]): RightCalls[] {
  const gathered = new Map<string, RightCalls & { readonly calls: RightCall[] }>();
  for (const plan of plans) gather(plan, gathered);
  return [...gathered.values()];
}

function gather(plan: CasePlan, gathered: Map<string, RightCalls & { readonly calls: RightCall[] }>): void {
  for (const step of plan.goalPlan?.route?.steps ?? []) {
    if (!isCounted(step) || step.right.right === undefined) continue;
    const { units, right, kind } = step.right;
    if (kind !== 'purchase' && !units) continue;
    const edition = units ? (units.edition ?? '') : step.to.edition;
    const about = { product: plan.product ?? '', right, edition, ...(units ? { pool: units.pool } : {}) };
    const key = keyOfCalls(about);
    const known = gathered.get(key) ?? { ...about, calls: [] };
    for (const system of plan.systems) known.calls.push(callOf(plan, step, system));
    gathered.set(key, known);
  }
}

const callOf = (plan: CasePlan, step: CountedStep, system: string): RightCall => ({
  system,
  case: plan.id,
  number: step.right.units?.number ?? 1,
  priceCents: step.right.priceCents ?? 'unknown',
  day: step.days.last,
  by: typeof plan.latestStart === 'number' ? plan.latestStart : step.days.first
});
