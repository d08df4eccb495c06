/**
 * Calendar days as whole numbers of days since 1970-01-01 in the proleptic Gregorian calendar.
 * No time zones: a day is a square on the wall calendar.
 */
export type Day = number;

const MS_PER_DAY = 86_400_000;
const ISO_DAY = /^(\d{4})-(\d{2})-(\d{2})$/;

/** The day of a calendar date; `month` is 1..12. Undefined when the date does not exist. */
export function dayOf(year: number, month: number, dayOfMonth: number): Day | undefined {
  if (year < 1900 || year > 9999 || month < 1 || month > 12 || dayOfMonth < 1) return undefined;
  if (dayOfMonth > daysInMonth(year, month)) return undefined;
  return Date.UTC(year, month - 1, dayOfMonth) / MS_PER_DAY;
}

/** Days in a month of the Gregorian calendar; `month` is 1..12. */
export function daysInMonth(year: number, month: number): number {
  return new Date(Date.UTC(year, month, 0)).getUTCDate();
}

/** Reads `YYYY-MM-DD`; undefined for anything else and for days that do not exist. */
export function parseDay(text: string): Day | undefined {
  const match = ISO_DAY.exec(text.trim());
  return match ? dayOf(Number(match[1]), Number(match[2]), Number(match[3])) : undefined;
}

/** Writes `YYYY-MM-DD`. */
export function formatDay(day: Day): string {
  return new Date(day * MS_PER_DAY).toISOString().slice(0, 10);
}

export interface CalendarDate {
  readonly year: number;
  /** 1..12 */
  readonly month: number;
  readonly dayOfMonth: number;
}

/** The calendar date of a day. */
export function calendarDate(day: Day): CalendarDate {
  const date = new Date(day * MS_PER_DAY);
  return { year: date.getUTCFullYear(), month: date.getUTCMonth() + 1, dayOfMonth: date.getUTCDate() };
}

/** Whole months from `from` to `to`, rounded down; negative when `to` is earlier. */
export function monthsBetween(from: Day, to: Day): number {
  if (to < from) return -monthsBetween(to, from);
  const a = calendarDate(from);
  const b = calendarDate(to);
  const months = (b.year - a.year) * 12 + b.month - a.month;
  return b.dayOfMonth < a.dayOfMonth ? months - 1 : months;
}
