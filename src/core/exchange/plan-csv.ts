import { type Catalogue, Names, type Product } from '../catalogue';
import { dayOfMinute, formatDay, timeOfMinute } from '../date';
import type { Estate, System } from '../estate';
import {
  type CasePlan,
  type Plan,
  roundOf,
  sameTarget,
  sumsOf,
  type TargetPlan,
  type Urgency,
  urgencyOf
} from '../plan';
import { addSums, type RightShare } from '../right';
import { type BlockAt, isCounted, type Route } from '../route';
import { formatCsv } from './csv-out';
import type { PlanWords } from './plan-words';

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
  'urgency',
  'days_left',
  'days_left_to',
  'reason',
  'best_open',
  'round',
  'window_begins',
  'window_ends',
  'turn_round_by',
  'in_time',
  'finding'
] as const;

export interface PlanCsvInput {
  readonly plan: Plan;
  readonly catalogue: Catalogue;
  readonly estate: Estate;
  readonly words: PlanWords;
  /** One row for every system and target instead of one a system for its goal. */
  readonly everyTarget: boolean;
}

/** The plan as separated values; rows by slack, then system, then target. */
export function formatPlanCsv({ plan, catalogue, estate, words, everyTarget }: PlanCsvInput): string {
  const products = new Map(catalogue.products.map((p) => [p.id, p]));
  const systems = new Map(estate.systems.map((s) => [s.id, s]));
  const shares = sharesOf(plan);
  const rows: (string | number)[][] = [[...PLAN_COLUMNS]];
  for (const one of plan.cases) {
    const product = products.get(one.product ?? '');
    const targets = everyTarget ? one.targets : [one.goalPlan];
    for (const id of one.systems)
      for (const target of targets.length > 0 ? targets : [undefined]) {
        const system = systems.get(id);
        if (system)
          rows.push(
            rowOf({
              one,
              urgency: urgencyOf(one, plan.today),
              finding: words.found(one, plan.today).line,
              system,
              product,
              target,
              share: shares.get(id),
              currency: catalogue.currency ?? '',
              words
            })
          );
      }
  }
  return formatCsv(rows);
}

interface RowInput {
  readonly urgency: Urgency;
  readonly finding: string;
  readonly one: CasePlan;
  readonly system: System;
  readonly product: Product | undefined;
  readonly target: TargetPlan | undefined;
  /** Of the rights the estate's chosen routes take; of the way to its goal only. */
  readonly share: Share | undefined;
  readonly currency: string;
  readonly words: PlanWords;
}

function rowOf({
  one,
  urgency,
  finding,
  system,
  product,
  target,
  share,
  currency,
  words
}: RowInput): (string | number)[] {
  const isGoal = target !== undefined && sameTarget(target.target, one.goal);
  const route = target?.route;
  const rights = isGoal || !target ? (share ?? NO_SHARE) : undefined;
  const names = new Names(product);
  const going = isGoal ? roundOf(one, system.id) : undefined;
  const finish = going?.round.finish ?? route?.finish;
  const first = going?.round.steps[0]?.days.first ?? route?.steps[0]?.days.first;
  const at = (going?.round.steps ?? route?.steps.filter(isCounted) ?? [])[0]?.at;
  const start = one.startIsSure ? one.start : undefined;
  return [
    system.name,
    system.team ?? '',
    product?.name ?? '',
    start && product ? names.level(start) : releaseOf(system, product, names),
    start ? names.edition(start.edition) : '',
    start ? names.architecture(start.architecture) : '',
    target ? names.release(target.target.release) : '',
    target ? names.edition(target.target.edition) : '',
    target ? names.architecture(target.target.architecture) : '',
    target ? (isGoal ? 'yes' : 'no') : '',
    target?.verdict ?? one.verdict,
    route?.hops ?? '',
    route?.steps.map((s) => words.step(s, names)).join('; ') ?? '',
    route?.kept ?? '',
    needsOf(route, words),
    rights?.needed ?? '',
    rights?.held ?? '',
    rights?.toBuy ?? '',
    costOf(route),
    route ? currency : '',
    route?.carefulMinutes ?? '',
    first === undefined ? '' : formatDay(first),
    finish?.exact ? formatDay(finish.last) : route ? 'unknown' : '',
    isGoal || !target ? dayOrBlank(one.deadline.day) : '',
    isGoal || !target
      ? one.deadline.setBy
        ? `${one.deadline.setBy.kind}: ${one.deadline.setBy.subject}`
        : ''
      : '',
    isGoal ? (one.latestStart === 'none' ? 'too late' : dayOrBlank(one.latestStart)) : '',
    isGoal ? (one.slack ?? '') : '',
    ...(isGoal || !target ? [urgency.band, urgency.days ?? '', urgency.counts ?? ''] : ['', '', '']),
    target?.older ? 'older than what is installed' : (target?.reasons.map(words.reason).join('; ') ?? ''),
    isGoal && one.bestOpen ? names.target(one.bestOpen) : '',
    going?.number ?? '',
    ...blockOf(at),
    going ? (going.round.inTime ? 'yes' : 'no') : isGoal && one.rounds ? 'no' : '',
    isGoal || !target ? finding : ''
  ];
}

/** The release where it is known and only its level is not; else the text it was read from. */
const releaseOf = (system: System, product: Product | undefined, names: Names): string =>
  product && 'is' in system.release ? names.release(system.release.is) : (system.installedText ?? 'unknown');

/** Begin, end and the last minute to turn round of the first block, as they stand on the wall. */
function blockOf(at: BlockAt | undefined): string[] {
  const wall = (minute: number): string =>
    at ? `${formatDay(dayOfMinute(minute, at.zone))} ${timeOfMinute(minute, at.zone)}` : '';
  return at ? [wall(at.begins), wall(at.ends), wall(at.turnBy)] : ['', '', ''];
}

const dayOrBlank = (day: number | undefined): string => (day === undefined ? '' : formatDay(day));

function needsOf(route: Route | undefined, words: PlanWords): string {
  const patches = route?.steps.filter((s) => s.kind === 'patch').length ?? 0;
  const { toAsk, unstated } = sumsOf(route);
  return [
    patches > 0 ? `${patches} patch` : '',
    toAsk > 0 ? `${toAsk} price to ask` : '',
    unstated > 0 ? `cost of ${unstated} not stated` : '',
    ...words.risks(route?.risks ?? [])
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

type Share = Pick<RightShare, 'needed' | 'held' | 'toBuy'>;

/** By system: what it takes of rights that are bought or counted, over all of them. */
function sharesOf({ rights }: Plan): ReadonlyMap<string, Share> {
  const shares = new Map<string, Share>();
  for (const share of rights.flatMap((r) => r.shares)) {
    const known = shares.get(share.system) ?? NO_SHARE;
    shares.set(share.system, {
      needed: addSums(known.needed, share.needed),
      held: known.held + share.held,
      toBuy: addSums(known.toBuy, share.toBuy)
    });
  }
  return shares;
}

const NO_SHARE: Share = { needed: 0, held: 0, toBuy: 0 };
