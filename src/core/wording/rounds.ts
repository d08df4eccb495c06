import type { CasePlan, Eaten } from '../plan';
import { sayBlock } from './calendar';
import { sayCount, sayDay, sayShortDay } from './dates';

type Round = NonNullable<CasePlan['rounds']>[number];

/** `9 of 12 in time`; nothing where all are. */
export const sayInTime = ({ inTime, systems }: Pick<CasePlan, 'inTime' | 'systems'>): string =>
  inTime === undefined || inTime === systems.length ? '' : `${inTime} of ${systems.length} in time`;

/** `2 pilots: Mon 10 Mar 20:00 to 21:00, turn round by 22:30, then Wed 12 Mar ...` */
export function sayRound({ systems, isPilot, steps, inTime }: Round, year: number): string {
  const who = sayCount(systems, isPilot ? 'pilot' : 'system');
  const when = steps.map((s) => (s.at ? sayBlock(s.at, year) : sayShortDay(s.days.first, year)));
  return `${who}: ${when.join(', then ')}${inTime ? '' : '; not in time'}`;
}

/** `Of the 25 days up to 20 Mar 2031 work takes 3, waits 14, windows and freezes 8; with typical minutes 2 Mar 2031 would do.` */
export function sayEaten(
  { by, work, waits, windows, typical, fails }: Eaten,
  latestStart: CasePlan['latestStart']
): string {
  // The rounds of all systems may begin earlier than the way of one looked into.
  const alone = by + 1 - work - waits - windows;
  const rounds = typeof latestStart === 'number' ? Math.max(0, alone - latestStart) : 0;
  const days = work + waits + windows + rounds;
  const parts = [
    `work takes ${work}`,
    ...(waits > 0 ? [`waits ${waits}`] : []),
    ...(windows > 0 ? [`windows and freezes ${windows}`] : []),
    ...(rounds > 0 ? [`that they go in rounds ${rounds}`] : [])
  ];
  const quick = typical === undefined ? '' : `; by typical minutes ${sayDay(typical)} would do for one`;
  return `Of the ${sayCount(days, 'day')} up to ${sayDay(by)} ${parts.join(', ')}${quick}.${sayFails(fails)}`;
}

/** Earlier is not always safer. */
const sayFails = (fails: Eaten['fails']): string =>
  fails.length === 0
    ? ''
    : ` Begun ${fails.map(([a, b]) => (a === b ? `on ${sayDay(a)}` : `from ${sayDay(a)} to ${sayDay(b)}`)).join(', ')} it ends too late, though a later start does not: a cheaper right with a longer lead is waited for then.`;
