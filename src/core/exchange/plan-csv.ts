import type { Catalogue, Product } from '../catalogue/schema';
import { formatDay } from '../date/day';
import type { Estate, System } from '../estate/schema';
import { Names } from '../wording/names';
import { describeReason } from '../wording/reason';
import { sameTarget, type CasePlan, type Plan, type TargetPlan } from '../plan-types';
import { isCounted, type Route } from '../route/types';
import { sayStep } from '../wording/step';
import { formatCsv } from './csv-out';

export const PLAN_COLUMNS = [
  'system',
  'team',
  'product',
  'installed',
  'installed_edition',
  'installed_architecture',
  'target',
  'target_edition',
  'target_architecture',
  'is_goal',
  'verdict',
  'hops',
  'steps',
  'kept',
  'needs',
  'rights_needed',
  'rights_held',
  'rights_to_buy',
  'cost',
  'currency',
  'careful_minutes',
  'first_day',
  'finish_day',
  'deadline',
  'deadline_set_by',
  'latest_start',
  'slack_days',
  'reason',
  'best_open'
] as const;

export interface PlanCsvInput {
  readonly plan: Plan;
  readonly catalogue: Catalogue;
  readonly estate: Estate;
  /** One row for every system and target instead of one a system for its goal. */
  readonly everyTarget: boolean;
}

/** The plan as separated values; rows by slack, then system, then target. */
export function formatPlanCsv({ plan, catalogue, estate, everyTarget }: PlanCsvInput): string {
  const products = new Map(catalogue.products.map((p) => [p.id, p]));
  const systems = new Map(estate.systems.map((s) => [s.id, s]));
  const pool = new RightPool(estate);
  const rows: (string | number)[][] = [[...PLAN_COLUMNS]];
  for (const one of plan.cases) {
    const product = products.get(one.product ?? '');
    const targets = everyTarget ? one.targets : [one.goalPlan];
    for (const id of one.systems)
      for (const target of targets.length > 0 ? targets : [undefined]) {
        const system = systems.get(id);
        if (system)
          rows.push(
            rowOf({ one, system, product, target, pool, currency: catalogue.currency ?? '', everyTarget })
          );
      }
  }
  return formatCsv(rows);
}

interface RowInput {
  readonly one: CasePlan;
  readonly system: System;
  readonly product: Product | undefined;
  readonly target: TargetPlan | undefined;
  readonly pool: RightPool;
  readonly currency: string;
  readonly everyTarget: boolean;
}

function rowOf({ one, system, product, target, pool, currency, everyTarget }: RowInput): (string | number)[] {
  const isGoal = target !== undefined && sameTarget(target.target, one.goal);
  const route = target?.route;
  const rights = pool.draw(route, !everyTarget);
  const names = new Names(product);
  const start = one.startIsSure ? one.start : undefined;
  return [
    system.name,
    system.team ?? '',
    product?.name ?? '',
    start && product ? names.level(start) : (system.installedText ?? 'unknown'),
    start ? names.edition(start.edition) : '',
    start ? names.architecture(start.architecture) : '',
    target ? names.release(target.target.release) : '',
    target ? names.edition(target.target.edition) : '',
    target ? names.architecture(target.target.architecture) : '',
    target ? (isGoal ? 'yes' : 'no') : '',
    target?.verdict ?? one.verdict,
    route?.hops ?? '',
    route?.steps.map((s) => sayStep(s, names)).join('; ') ?? '',
    route?.kept ?? '',
    needsOf(route),
    rights.needed,
    rights.held,
    rights.toBuy,
    costOf(route),
    route ? currency : '',
    route?.carefulMinutes ?? '',
    route?.steps[0] ? formatDay(route.steps[0].days.first) : '',
    route?.finish.exact ? formatDay(route.finish.last) : route ? 'unknown' : '',
    isGoal || !target ? dayOrBlank(one.deadline.day) : '',
    isGoal || !target
      ? one.deadline.setBy
        ? `${one.deadline.setBy.kind}: ${one.deadline.setBy.subject}`
        : ''
      : '',
    isGoal ? (one.latestStart === 'none' ? 'too late' : dayOrBlank(one.latestStart)) : '',
    isGoal ? (one.slack ?? '') : '',
    target?.older ? 'older than what is installed' : (target?.reasons.map(describeReason).join('; ') ?? ''),
    isGoal && one.bestOpen ? names.target(one.bestOpen) : ''
  ];
}

const dayOrBlank = (day: number | undefined): string => (day === undefined ? '' : formatDay(day));

function needsOf(route: Route | undefined): string {
  const patches = route?.steps.filter((s) => s.kind === 'patch').length ?? 0;
  const asks = route?.unknownSums.length ?? 0;
  return [
    patches > 0 ? `${patches} patch` : '',
    asks > 0 ? `${asks} price to ask` : '',
    ...(route?.risks ?? [])
  ]
    .filter(Boolean)
    .join('; ');
}

/** Known sum of one system; `+ unknown` where a price is missing. */
function costOf(route: Route | undefined): string {
  if (!route) return '';
  const known = `${Math.floor(route.costCents / 100)}.${String(route.costCents % 100).padStart(2, '0')}`;
  return route.unknownSums.length > 0 ? `${known} + unknown` : known;
}

/** Rights held are drawn on in the order of the rows: the most urgent systems first. */
class RightPool {
  readonly #left: Map<string, number>;

  constructor(estate: Estate) {
    this.#left = new Map(estate.rightsHeld.map((r) => [r.right, r.held]));
  }

  /** `taking`: what one row draws is gone for the next; otherwise each row is a what-if of its own. */
  draw(route: Route | undefined, taking: boolean): { needed: number; held: number; toBuy: number } {
    let needed = 0;
    let held = 0;
    const drawn = new Map<string, number>();
    for (const step of route?.steps ?? []) {
      if (!isCounted(step) || step.right.kind !== 'purchase' || !step.right.right) continue;
      needed++;
      const left = (this.#left.get(step.right.right) ?? 0) - (drawn.get(step.right.right) ?? 0);
      if (left <= 0) continue;
      held++;
      drawn.set(step.right.right, (drawn.get(step.right.right) ?? 0) + 1);
    }
    if (taking)
      for (const [right, count] of drawn) this.#left.set(right, (this.#left.get(right) ?? 0) - count);
    return { needed, held, toBuy: needed - held };
  }
}
