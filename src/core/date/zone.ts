import type { Day } from './day';

const MS_PER_DAY = 86_400_000;
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
export function dayOfMinute(minute: number, zone: string): Day {
  const { year, month, day } = wallOf(minute, zone);
  return Date.UTC(Number(year), Number(month) - 1, Number(day)) / MS_PER_DAY;
}

/** `22:05`, in a zone. */
export function timeOfMinute(minute: number, zone: string): string {
  const { hour = '', minute: past = '' } = wallOf(minute, zone);
  return `${hour}:${past}`;
}
