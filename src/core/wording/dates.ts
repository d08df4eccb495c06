import { calendarDate, type Day, formatDay } from '../date';

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'] as const;
const WEEKDAYS = ['Thu', 'Fri', 'Sat', 'Sun', 'Mon', 'Tue', 'Wed'] as const;

/** How whoever reads writes figures and days; the words stay as they are. Files and plans without a screen have the ways set here. */
export interface ReaderWays {
  /** Between thousands. */
  readonly group: string;
  readonly point: string;
  /** `Mar 10, 2031` */
  readonly monthFirst: boolean;
  /** `2031-03-10`, as programs and sheets read it. */
  readonly iso?: true;
}

const PLAIN: ReaderWays = { group: ',', point: '.', monthFirst: false };
const IN_FILES: ReaderWays = { ...PLAIN, iso: true };
let ways = PLAIN;

/** Said once, before the first sentence is made. */
export const setReaderWays = (reader: ReaderWays): void => void (ways = reader);

/** What is made for a file that programs read: its sentences are the same whoever takes it out. */
export function inFiles<T>(make: () => T): T {
  const reader = ways;
  ways = IN_FILES;
  try {
    return make();
  } finally {
    ways = reader;
  }
}

/** The name of a month, 1 to 12; empty for any other number. */
export const monthName = (month: number): string => MONTHS[month - 1] ?? '';

/** `10 Mar 2031` */
export function sayDay(day: Day): string {
  if (ways.iso) return formatDay(day);
  const { year, month, dayOfMonth } = calendarDate(day);
  const name = monthName(month);
  return ways.monthFirst ? `${name} ${dayOfMonth}, ${year}` : `${dayOfMonth} ${name} ${year}`;
}

/** `Mon 10 Mar`; `28 Jan 2032` where the year is not `year`. */
export function sayShortDay(day: Day, year: number): string {
  const date = calendarDate(day);
  if (ways.iso || date.year !== year) return sayDay(day);
  const weekday = WEEKDAYS[((day % 7) + 7) % 7] ?? '';
  return `${weekday}${ways.monthFirst ? ',' : ''} ${sayDayOfYear(day)}`;
}

/** `10 Mar`: where the year is told beside it. */
export function sayDayOfYear(day: Day): string {
  if (ways.iso) return formatDay(day);
  const { month, dayOfMonth } = calendarDate(day);
  const name = monthName(month);
  return ways.monthFirst ? `${name} ${dayOfMonth}` : `${dayOfMonth} ${name}`;
}

/** `4 y 11 m`; `3 m`; `12 d` below two months. `days` and `months` are of the same span, not negative. */
export function saySpan(days: number, months: number): string {
  if (months < 2) return `${days} d`;
  const years = Math.floor(months / 12);
  return [years > 0 ? `${years} y` : '', months % 12 > 0 ? `${months % 12} m` : ''].filter(Boolean).join(' ');
}

/** `95 min`; `6 h 20 min` from two hours on. */
export function sayMinutes(minutes: number): string {
  if (minutes < 120) return `${minutes} min`;
  const rest = minutes % 60;
  return `${Math.floor(minutes / 60)} h${rest > 0 ? ` ${rest} min` : ''}`;
}

/** `EUR 1,490.00`; `a sum nobody has published` where unknown. */
export function sayMoney(cents: number | 'unknown', currency: string): string {
  if (cents === 'unknown') return 'a sum nobody has published';
  const whole = sayNumber(Math.floor(cents / 100));
  return `${currency} ${whole}${ways.point}${String(cents % 100).padStart(2, '0')}`.trim();
}

/** `10,000` */
export const sayNumber = (count: number): string => String(count).replace(/\B(?=(\d{3})+$)/g, ways.group);

/** The text, or its beginning with an ellipsis where it is longer than `most` characters. */
export const shorten = (text: string, most: number): string =>
  text.length <= most ? text : `${text.slice(0, most - 1).trimEnd()}…`;

/** `1 system`, `14 systems`. */
export const sayCount = (count: number, one: string, many = `${one}s`): string =>
  `${sayNumber(count)} ${count === 1 ? one : many}`;

/** `111 days left`, `26 days late`, `today`: the one way in which it is said how a day stands to today. */
export function sayDaysLeft(days: number): string {
  if (days === 0) return 'today';
  return days > 0 ? `${sayCount(days, 'day')} left` : `${sayCount(-days, 'day')} late`;
}
