import type { Urgency, UrgencyBand } from '../plan';
import { sayCount, sayDaysLeft, sayNumber } from './dates';

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
function sayUrgency({ band, days }: Urgency): string {
  if (days === undefined) return '';
  return band === 'past its deadline' ? `${sayCount(-days, 'day')} past` : sayDaysLeft(days);
}

/** The one way in which it is said how many days there are: to the latest start, or to the deadline where no start is known. */
export const sayDaysTo = (urgency: Urgency): string => sayCounted(urgency) || sayUrgency(urgency);

/** How far away the day of the deadline is, where the days count to that, since no start is known: "in 82 days". */
const sayCounted = ({ counts, days }: Urgency): string =>
  counts === 'deadline' && days !== undefined && days >= 0 ? `in ${sayCount(days, 'day')}` : '';

/** How the estate stands: "11 past the deadline, 3 too late to start, 36 cannot be told yet"; nothing of what is none. */
export const sayStanding = (standing: {
  readonly past: number;
  readonly late: number;
  readonly untold: number;
}): string =>
  [
    [standing.past, 'past the deadline'],
    [standing.late, 'too late to start'],
    [standing.untold, 'cannot be told yet']
  ]
    .filter(([n]) => n !== 0)
    .map(([n, words]) => `${sayNumber(Number(n))} ${words}`)
    .join(', ');

/** The one line that says what is missing to know more: upgrade paths that are recorded nowhere. */
export const sayMissingPaths = (releases: readonly string[], systems: number): string =>
  `No upgrade path from ${releases[0] ?? ''} is recorded${releases.length > 1 ? `, nor from ${sayCount(releases.length - 1, 'other release')}` : ''}: ${sayCount(systems, 'system')} ${systems === 1 ? 'waits' : 'wait'} for it.`;
