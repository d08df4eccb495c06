import type { CasePlan, Urgency, UrgencyBand } from '../plan';
import { sayCount, sayDaysLeft } from './dates';

/** What a part of the estate's list is called. */
export const BAND_NAMES: Readonly<Record<UrgencyBand, string>> = {
  'past its deadline': 'Past the deadline',
  'too late to start': 'Too late to start',
  'within 30 days': 'Next 30 days',
  'within 90 days': 'Next 90 days',
  'within 12 months': 'Next 12 months',
  later: 'Later',
  'no deadline known': 'No deadline known',
  'newer than the target': 'Newer than the target',
  'at target': 'At target'
};

/** How urgent a case is: "814 days past", "41 days late", "82 days left"; nothing where nothing binds it. */
export function sayUrgency({ band, days }: Urgency): string {
  if (days === undefined) return '';
  return band === 'past its deadline' ? `${sayCount(-days, 'day')} past` : sayDaysLeft(days);
}

/** What the days count to, where it is not the latest start: no path is known that one could start. */
export function sayCounted({ counts }: Urgency, { verdict }: Pick<CasePlan, 'verdict'>): string {
  if (counts !== 'deadline') return '';
  return verdict === 'closed' ? 'to the deadline; blocked' : 'to the deadline';
}

/** The one line that says what is missing to know more: upgrade paths that are recorded nowhere. */
export const sayMissingPaths = (releases: readonly string[], systems: number): string =>
  `No upgrade path from ${releases[0] ?? ''} is recorded${releases.length > 1 ? `, nor from ${sayCount(releases.length - 1, 'other release')}` : ''}: ${sayCount(systems, 'system')} ${systems === 1 ? 'waits' : 'wait'} for it.`;
