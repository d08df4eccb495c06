import type { Catalogue } from '../catalogue/schema';
import type { Estate } from '../estate/schema';
import { type CasePlan, type RightTotal } from '../plan-types';
import { isCounted } from '../route/types';

/** Rights bought one a step: those its route needs, by right id. */
function neededRights(plan: CasePlan): ReadonlyMap<string, number> {
  const needed = new Map<string, number>();
  for (const step of plan.goalPlan?.route?.steps ?? [])
    if (isCounted(step) && step.right.kind === 'purchase' && step.right.right)
      needed.set(step.right.right, (needed.get(step.right.right) ?? 0) + 1);
  return needed;
}

/** Estate totals per right: needed by the chosen routes, held, to buy = max(0, needed - held) (RECKONING H, before pools). */
export function totalRights(plans: readonly CasePlan[], estate: Estate, catalogue: Catalogue): RightTotal[] {
  const held = new Map<string, number>();
  for (const right of estate.rightsHeld) held.set(right.right, (held.get(right.right) ?? 0) + right.held);
  const totals = new Map<string, { product: string; right: string; needed: number }>();
  for (const plan of plans)
    for (const [right, each] of neededRights(plan)) {
      const key = `${plan.product}/${right}`;
      const total = totals.get(key) ?? { product: plan.product ?? '', right, needed: 0 };
      totals.set(key, { ...total, needed: total.needed + each * plan.systems.length });
    }
  return [...totals.values()]
    .sort((a, b) => (`${a.product}/${a.right}` < `${b.product}/${b.right}` ? -1 : 1))
    .map((total) => {
      const have = held.get(total.right) ?? 0;
      const toBuy = Math.max(0, total.needed - have);
      const price = catalogue.products
        .find((p) => p.id === total.product)
        ?.rights?.find((r) => r.id === total.right)?.priceCents;
      return { ...total, held: have, toBuy, costCents: price === undefined ? 'unknown' : price * toBuy };
    });
}
