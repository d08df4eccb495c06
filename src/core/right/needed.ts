import type { Catalogue, Right } from '../catalogue/schema';
import type { Day } from '../date/day';
import type { Estate } from '../estate/schema';
import type { CasePlan } from '../plan-types';
import { isCounted } from '../route/types';

/** What the chosen routes need of one right in one edition, over the estate, before pools (RECKONING H). */
export interface RightNeed {
  readonly product: string;
  readonly right: string;
  /** The edition it leads to; of counted units the edition they belong to. */
  readonly edition: string;
  /** Units where it is counted in units; rights otherwise. */
  readonly pool?: string;
  readonly needed: number | 'unknown';
  readonly held: number;
  readonly toBuy: number | 'unknown';
  /** Of all that is to be bought. Units are priced by the pack where they come in packs. */
  readonly costCents: number | 'unknown';
  /** The last day to have it: the earliest latest start of those that need it; of those without one, their planned day. */
  readonly by: Day;
  readonly systems: readonly string[];
  readonly cases: readonly string[];
}

interface Gathered {
  readonly product: string;
  readonly right: string;
  readonly edition: string;
  readonly pool?: string;
  needed: number | 'unknown';
  by: Day;
  readonly systems: string[];
  readonly cases: string[];
}

/**
 * Rights to be bought or counted, by edition: needed by the chosen routes, held, to buy = max(0, needed - held). What is held
 * covers the editions of a right in their order by name; units never cross editions. Sorted by product, right, edition.
 */
export function findRightNeeds(
  plans: readonly CasePlan[],
  estate: Estate,
  catalogue: Catalogue
): RightNeed[] {
  const gathered = new Map<string, Gathered>();
  for (const plan of plans) gather(plan, gathered);
  const left = new Map<string, number>();
  for (const r of estate.rightsHeld) {
    const key = r.pool === undefined ? r.right : `${r.right} ${r.pool}`;
    left.set(key, (left.get(key) ?? 0) + r.held);
  }
  return [...gathered]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([, need]) => {
      const right = catalogue.products
        .find((p) => p.id === need.product)
        ?.rights?.find((r) => r.id === need.right);
      const key = need.pool === undefined ? need.right : `${need.right} ${need.pool}`;
      const held = left.get(key) ?? 0;
      if (need.needed !== 'unknown') left.set(key, Math.max(0, held - need.needed));
      const toBuy = need.needed === 'unknown' ? need.needed : Math.max(0, need.needed - held);
      return { ...need, held, toBuy, costCents: costOf(right, toBuy) };
    });
}

function costOf(right: Right | undefined, toBuy: number | 'unknown'): number | 'unknown' {
  if (toBuy === 0) return 0;
  if (toBuy === 'unknown' || right?.priceCents === undefined) return 'unknown';
  return Math.ceil(toBuy / (right.units?.pack ?? 1)) * right.priceCents;
}

function gather(plan: CasePlan, gathered: Map<string, Gathered>): void {
  for (const step of plan.goalPlan?.route?.steps ?? []) {
    if (!isCounted(step) || step.right.right === undefined) continue;
    const { units, right, kind } = step.right;
    if (kind !== 'purchase' && !units) continue;
    const edition = units?.edition ?? step.to.edition;
    const key = `${plan.product ?? ''}/${right}/${edition}/${units?.pool ?? ''}`;
    const by = typeof plan.latestStart === 'number' ? plan.latestStart : step.days.first;
    const known = gathered.get(key) ?? {
      product: plan.product ?? '',
      right,
      edition,
      ...(units ? { pool: units.pool } : {}),
      needed: 0,
      by,
      systems: [],
      cases: []
    };
    const each = units?.number ?? 1;
    known.needed =
      known.needed === 'unknown' || each === 'unknown'
        ? 'unknown'
        : known.needed + each * plan.systems.length;
    known.by = Math.min(known.by, by);
    if (!known.cases.includes(plan.id)) {
      known.cases.push(plan.id);
      known.systems.push(...plan.systems);
    }
    gathered.set(key, known);
  }
}
