import type { Day } from '../date';
import { daysLeft } from './days-left';
import type { CasePlan } from './plan-types';

/** How urgent a case is (docs/reckoning.md 9a). */
export interface Urgency {
  readonly band: UrgencyBand;
  /** Days to what counts, below nought where it is past; undefined where nothing binds it. */
  readonly days?: number;
  /** What the days count to: the latest start, or, where no path is known, the day that sets the deadline. */
  readonly counts?: 'latest start' | 'deadline';
}

/** The most urgent first. */
export const URGENCY_BANDS = [
  'past its deadline',
  'too late to start',
  'within 30 days',
  'within 90 days',
  'within 12 months',
  'later',
  'no deadline known',
  'newer than the target',
  'at target'
] as const;
export type UrgencyBand = (typeof URGENCY_BANDS)[number];

const WITHIN: readonly (readonly [days: number, band: UrgencyBand])[] = [
  [30, 'within 30 days'],
  [90, 'within 90 days'],
  [365, 'within 12 months'],
  [Infinity, 'later']
];

/**
 * How urgent a case is, path or no path: its deadline is past; no start ends in time any more; days to the latest start, or to the
 * deadline where no latest start is known; no deadline. What is at its target or newer has nothing to do before its deadline.
 */
export function urgencyOf(plan: CasePlan, today: Day): Urgency {
  const { deadline, goalPlan, verdict } = plan;
  if (verdict === 'here') return { band: 'at target' };
  if (goalPlan?.older === true) return { band: 'newer than the target' };
  const due = deadline.day === undefined ? undefined : deadline.day - today;
  if (due !== undefined && due < 0) return { band: 'past its deadline', days: due, counts: 'deadline' };
  const left = daysLeft(plan);
  if (left !== undefined && left < 0)
    return { band: 'too late to start', days: left, counts: 'latest start' };
  const days = left ?? due;
  if (days === undefined) return { band: 'no deadline known' };
  const band = WITHIN.find(([most]) => days <= most)?.[1] ?? 'later';
  return { band, days, counts: left === undefined ? 'deadline' : 'latest start' };
}

/** The more urgent first: by band, then by days. */
export function compareUrgency(a: Urgency, b: Urgency): number {
  const byBand = URGENCY_BANDS.indexOf(a.band) - URGENCY_BANDS.indexOf(b.band);
  return byBand || (a.days ?? 0) - (b.days ?? 0);
}
