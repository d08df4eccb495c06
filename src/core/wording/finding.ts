import type { Names } from '../catalogue';
import type { Day } from '../date';
import {
  type CasePlan,
  daysLeft,
  type Finding,
  type SaidFinding,
  type SaidVerdict,
  type TargetPlan
} from '../plan';
import { sayCount, sayDay, sayDaysLeft } from './dates';
import { describeReason } from './reason';
import { sayCostOfWay } from './route';
import { sayDaysTo } from './urgency';
import { sayContributor } from './verdict';

const VERDICTS: Readonly<Record<SaidVerdict, string>> = {
  here: 'already there',
  straight: 'straight there',
  'by hops': 'by hops',
  'fresh only': 'by a fresh install',
  'not yet': 'not yet',
  closed: 'closed',
  'cannot tell': 'cannot tell',
  'newer than the target': 'newer than the target'
};

/** A verdict in a few words: the same wherever one stands by itself. */
export const nameVerdict = (verdict: SaidVerdict, hops?: number): string =>
  verdict === 'by hops' && hops !== undefined ? `by ${sayCount(hops, 'hop')}` : VERDICTS[verdict];

/** The one maker of what screens and files say of a case. */
export function sayFinding(
  { verdict, perhaps, hops, together, opens, target, setBy, urgency, takes, reasons }: Finding,
  names: Names,
  currency: string
): SaidFinding {
  const said = {
    verdict: sayHow({ verdict, perhaps, hops, together, opens }),
    target: target ? names.target(target) : '',
    day: setBy ? sayDay(setBy.day) : '',
    sets: setBy ? sayContributor(setBy, names) : '',
    left: sayDaysTo(urgency),
    sum: takes ? sayCostOfWay(takes, currency) : '',
    reasons: reasons.map(describeReason)
  };
  return { ...said, line: lineOf(said) };
}

/** `6 Bureau: by 3 hops; deadline 31 May 2031: service of 4 ends; 82 days left; EUR 120.00` */
function lineOf({ verdict, target, day, sets, left, sum, reasons }: Omit<SaidFinding, 'line'>): string {
  const why = sum === '' && reasons[0] !== undefined ? ` (${reasons[0]})` : '';
  return [
    `${target ? `${target}: ` : ''}${verdict}${why}`,
    day ? `deadline ${day}: ${sets}` : 'no deadline known',
    ...[left, sum].filter(Boolean)
  ].join('; ');
}

/** By when work has to begin: `12 Feb 2031, 82 days left`; how late it ends where no start is in time. */
export function sayBegin(plan: CasePlan, today: Day): string {
  const { latestStart } = plan;
  if (latestStart === undefined) return 'nothing binds it';
  if (latestStart !== 'none') return `${sayDay(latestStart)}, ${sayDaysLeft(latestStart - today)}`;
  return `no start ends in time any more; begun today, the work ends ${sayCount(-(daysLeft(plan) ?? -1), 'day')} past the deadline`;
}

interface How {
  readonly verdict: SaidVerdict;
  readonly perhaps: TargetPlan['perhaps'] | undefined;
  readonly hops: number | undefined;
  readonly together: number | undefined;
  readonly opens: TargetPlan['opens'] | undefined;
}

/** How one comes there, with the day from which where it is known, and what there may be beyond it. */
function sayHow({ verdict, perhaps, hops, together, opens }: How): string {
  const from = verdict === 'not yet' && typeof opens === 'number' ? `, opens ${sayDay(opens)}` : '';
  const beside = together ? `, together with ${sayCount(together, 'linked system')}` : '';
  return `${nameVerdict(verdict, hops)}${beside}${from}${perhaps ? `, perhaps ${nameVerdict(perhaps)}` : ''}`;
}

/** What is said of a target, behind its name: `by 3 hops. Everything is kept.`; `closed: no hop leads there.` */
export function sayVerdict(plan: TargetPlan): string {
  const { verdict, perhaps, opens, route, older } = plan;
  if (verdict === 'closed' && older) return 'older than what is installed.';
  const together = new Set(route?.needsFirst.filter((n) => n.together).map((n) => n.system)).size;
  const how = sayHow({ verdict, perhaps, hops: route?.hops, together, opens });
  if (verdict === 'closed' || verdict === 'cannot tell') return `${how}: ${shortestReason(plan)}.`;
  if (verdict === 'not yet' && typeof opens !== 'number')
    return `${how}: no day is recorded from which it can be reached.`;
  return `${how}.${route ? keptOf(route) : ''}`;
}

function keptOf({ kept, steps }: NonNullable<TargetPlan['route']>): string {
  if (steps.length === 0) return '';
  if (kept === 'everything') return ' Everything is kept.';
  return kept === 'nothing' ? ' Nothing is kept.' : ` Kept: ${kept}.`;
}

/** The strongest reason why a target is closed, or cannot be told. */
export function shortestReason({ older, reasons: [reason] }: TargetPlan): string {
  if (older) return 'older than what is installed';
  return reason ? describeReason(reason) : 'too little is known of what is installed';
}
