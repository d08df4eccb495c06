import { dayOfMinute, parseDay, timeOfMinute } from '../date';
import type { WorkCalendar, WorkWindow } from '../estate';
import type { BlockAt } from '../route';
import { sayCount, sayDay, sayMinutes, sayShortDay } from './dates';

export const WEEKDAY_NAMES = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;
/** The days of a week as rules write them, Monday first. */
const WEEKDAY_CODES = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'] as const;

const and = (words: readonly string[]): string =>
  words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} and ${words.at(-1) ?? ''}`;

/** A rule as it is chosen by its parts; undefined for one that is none of these. */
export interface RuleParts {
  readonly every: 'week' | 'month';
  /** Weeks or months between. */
  readonly interval: number;
  /** Days of the week by place, Monday 0. */
  readonly days: readonly number[];
  /** Of a month: the first, ... or with -1 the last of that weekday. */
  readonly nth?: number;
}

const PART = /^(FREQ|INTERVAL|BYDAY)=([A-Z0-9,+-]+)$/;

/** Reads the rules people work by: days of a week, or the nth weekday of a month. */
function readRule(rule: string): RuleParts | undefined {
  const parts = new Map<string, string>();
  for (const text of rule.toUpperCase().split(';')) {
    const found = PART.exec(text);
    if (!found || parts.has(found[1] ?? '')) return undefined;
    parts.set(found[1] ?? '', found[2] ?? '');
  }
  const interval = Number(parts.get('INTERVAL') ?? '1');
  const days = (parts.get('BYDAY') ?? '').split(',').filter(Boolean);
  if (!Number.isInteger(interval) || interval < 1 || days.length === 0) return undefined;
  const placeOf = (code: string): number => WEEKDAY_CODES.findIndex((c) => c === code);
  if (parts.get('FREQ') === 'WEEKLY') {
    const places = days.map(placeOf);
    return places.includes(-1)
      ? undefined
      : { every: 'week', interval, days: [...new Set(places)].sort((a, b) => a - b) };
  }
  const [only = '', ...more] = days;
  const nth = /^([+-]?[1-5])([A-Z]{2})$/.exec(only);
  const place = placeOf(nth?.[2] ?? '');
  return parts.get('FREQ') === 'MONTHLY' && nth && more.length === 0 && place >= 0
    ? { every: 'month', interval, days: [place], nth: Number(nth[1]) }
    : undefined;
}

/** The parts as a rule of RFC 5545. */
export const writeRule = ({ every, interval, days, nth = 1 }: RuleParts): string =>
  [
    `FREQ=${every === 'week' ? 'WEEKLY' : 'MONTHLY'}`,
    ...(interval > 1 ? [`INTERVAL=${interval}`] : []),
    `BYDAY=${days.map((d) => (every === 'week' ? '' : String(nth)) + (WEEKDAY_CODES[d] ?? 'MO')).join(',')}`
  ].join(';');

const NTH: Readonly<Record<number, string>> = {
  1: 'first',
  2: 'second',
  3: 'third',
  4: 'fourth',
  5: 'fifth',
  [-1]: 'last',
  [-2]: 'last but one'
};
export const NTH_CHOICES = [1, 2, 3, 4, -1].map((nth) => [nth, NTH[nth] ?? ''] as const);

/** `Mon, Tue and Wed from 22:00, for 6 h`; `the last Fri of every month from 20:00, for 4 h` */
export function sayWindow({
  start,
  rule,
  minutes,
  crew
}: Pick<WorkWindow, 'start' | 'rule' | 'minutes' | 'crew'>): string {
  const [date = '', time = ''] = start.split('T');
  const watched = crew ? `, ${sayCount(crew.systems, 'system')} at once` : '';
  const by = crew?.name === undefined ? '' : ` by ${crew.name}`;
  const length = `from ${time}, for ${sayMinutes(minutes)}${watched}${by}`;
  if (rule === undefined) return `once, on ${sayDay(parseDay(date) ?? 0)} ${length}`;
  const parts = readRule(rule);
  if (!parts) return `by the rule ${rule} ${length}`;
  const days = and(parts.days.map((d) => WEEKDAY_NAMES[d] ?? ''));
  const each = parts.interval === 1 ? `every ${parts.every}` : `every ${parts.interval} ${parts.every}s`;
  return parts.every === 'week'
    ? `${days}${parts.interval === 1 ? '' : ` ${each}`} ${length}`
    : `the ${NTH[parts.nth ?? 1] ?? `${parts.nth}th`} ${days} of ${each} ${length}`;
}

/** Whose calendar it is. */
export const sayCalendar = ({ team, site }: Pick<WorkCalendar, 'team' | 'site'>): string =>
  team ?? (site === undefined ? 'The estate' : `The site ${site}`);

/** `Tue 11 Mar 22:00 to 23:20, turn round by 01:10` */
export function sayBlock({ zone, begins, ends, turnBy }: BlockAt, year: number): string {
  const day = sayShortDay(dayOfMinute(begins, zone), year);
  return `${day} ${timeOfMinute(begins, zone)} to ${timeOfMinute(ends, zone)}, turn round by ${timeOfMinute(turnBy, zone)}`;
}

/** `node by node on 3 nights, on two releases from Tue 11 Mar to Thu 13 Mar` */
export function sayNodes(nodesAt: readonly BlockAt[], year: number): string {
  const day = (at: BlockAt | undefined): string =>
    at ? sayShortDay(dayOfMinute(at.begins, at.zone), year) : '';
  const nights = new Set(nodesAt.map((at) => at.closes)).size;
  const first = `node by node${nights > 1 ? ` on ${sayCount(nights, 'night')}` : ''}`;
  return nights > 1 ? `${first}, on two releases from ${day(nodesAt[0])} to ${day(nodesAt.at(-1))}` : first;
}
