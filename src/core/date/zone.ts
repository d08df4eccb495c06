import type { Day } from './day';

const MINUTES_PER_DAY = 1440;
const FORMATS = new Map<string, Intl.DateTimeFormat>();

/** Reads the wall of a zone; the locale is fixed, so that the same minute reads the same everywhere. */
function wallOf(minute: number, zone: string): Readonly<Record<string, string>> {
  let format = FORMATS.get(zone);
  if (!format) {
    format = new Intl.DateTimeFormat('en-GB', {
      timeZone: zone,
      calendar: 'gregory',
      numberingSystem: 'latn',
      hourCycle: 'h23',
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
      hour: '2-digit',
      minute: '2-digit'
    });
    FORMATS.set(zone, format);
  }
  return Object.fromEntries(format.formatToParts(minute * 60_000).map((p) => [p.type, p.value]));
}

/** The day, in an IANA zone, that an epoch minute falls on. Throws where nobody knows the zone. */
export const dayOfMinute = (minute: number, zone: string): Day =>
  Math.floor((minute + offsetAt(minute, zone)) / MINUTES_PER_DAY);

/** Offsets at the midnights of UTC, by zone and day. */
const MIDNIGHTS = new Map<string, Map<Day, number>>();
const MOST_MIDNIGHTS = 50_000;

function offsetAtMidnight(day: Day, zone: string): number {
  let known = MIDNIGHTS.get(zone);
  if (!known || known.size > MOST_MIDNIGHTS) MIDNIGHTS.set(zone, (known = new Map<Day, number>()));
  const offset = known.get(day) ?? readOffset(day * MINUTES_PER_DAY, zone);
  known.set(day, offset);
  return offset;
}

/** Minutes that the wall of a zone is ahead of UTC; no clock changes twice within a day. */
function offsetAt(minute: number, zone: string): number {
  const day = Math.floor(minute / MINUTES_PER_DAY);
  const offset = offsetAtMidnight(day, zone);
  return offset === offsetAtMidnight(day + 1, zone) ? offset : readOffset(minute, zone);
}

/**
 * What the wall of a zone is ahead of UTC all around a moment of it, given in minutes as if it were one of UTC; undefined where a clock
 * changes within a day or two.
 */
export function steadyOffset(wall: number, zone: string): number | undefined {
  const day = Math.floor(wall / MINUTES_PER_DAY);
  const offset = offsetAtMidnight(day - 1, zone);
  return [day, day + 1, day + 2].every((d) => offsetAtMidnight(d, zone) === offset) ? offset : undefined;
}

function readOffset(minute: number, zone: string): number {
  const { year, month, day, hour, minute: past } = wallOf(minute, zone);
  const [y, m, d, h, p] = [year, month, day, hour, past].map(Number) as [
    number,
    number,
    number,
    number,
    number
  ];
  return Date.UTC(y, m - 1, d, h, p) / 60_000 - minute;
}

/** `22:05`, in a zone. */
export function timeOfMinute(minute: number, zone: string): string {
  const { hour = '', minute: past = '' } = wallOf(minute, zone);
  return `${hour}:${past}`;
}
