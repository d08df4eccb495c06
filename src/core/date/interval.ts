import { dayOf, daysInMonth, formatDay, parseDay, type Day } from './day';

const CERTAINTIES = ['published', 'announced', 'expected'] as const;
export type Certainty = (typeof CERTAINTIES)[number];

/** A date as a publisher states it: somewhere from `first` to `last`, both included - or not known at all. */
export type DateInterval =
  | { readonly first: Day; readonly last: Day; readonly certainty: Certainty }
  | { readonly certainty: 'unknown' };

/** A day that may be unknown. Never null: unknown is a value of its own. */
export type MaybeDay = Day | 'unknown';

const MONTH = /^(\d{4})-(\d{2})$/;
const QUARTER = /^(\d{4})-Q([1-4])$/i;
const YEAR = /^(\d{4})$/;

/**
 * Reads a date as written in catalogue files.
 *
 *     date      = [ certainty ] when | "unknown"
 *     certainty = "published" | "announced" | "expected"      (default: published)
 *     when      = YYYY-MM-DD | YYYY-MM | YYYY-Qn | YYYY
 *
 * Undefined when the text is none of these.
 */
export function parseDateText(text: string): DateInterval | undefined {
  const words = text.trim().split(/\s+/);
  if (words.length === 1 && words[0]?.toLowerCase() === 'unknown') return { certainty: 'unknown' };
  const stated = words.length === 2 ? CERTAINTIES.find((c) => c === words[0]?.toLowerCase()) : 'published';
  if (!stated || words.length > 2) return undefined;
  const span = parseSpan(words[words.length - 1] ?? '');
  return span && { ...span, certainty: stated };
}

function parseSpan(text: string): { first: Day; last: Day } | undefined {
  const day = parseDay(text);
  if (day !== undefined) return { first: day, last: day };
  const month = MONTH.exec(text);
  if (month) return spanOfMonths(Number(month[1]), Number(month[2]), 1);
  const quarter = QUARTER.exec(text);
  if (quarter) return spanOfMonths(Number(quarter[1]), Number(quarter[2]) * 3 - 2, 3);
  const year = YEAR.exec(text);
  return year ? spanOfMonths(Number(year[1]), 1, 12) : undefined;
}

function spanOfMonths(year: number, month: number, months: number): { first: Day; last: Day } | undefined {
  const lastMonth = month + months - 1;
  const first = dayOf(year, month, 1);
  const last = lastMonth > 12 ? undefined : dayOf(year, lastMonth, daysInMonth(year, lastMonth));
  return first === undefined || last === undefined ? undefined : { first, last };
}

/**
 * The day a date counts as: starts and ends alike read as the last day it may mean.
 * An expected date is unknown where the site's policy does not count expected dates (A3).
 */
export function readDay(date: DateInterval, countsExpected: boolean): MaybeDay {
  if (date.certainty === 'unknown') return 'unknown';
  return date.certainty === 'expected' && !countsExpected ? 'unknown' : date.last;
}

/** The date as catalogue text; `parseDateText` reads it back to an equal value. */
export function formatDateText(date: DateInterval): string {
  if (date.certainty === 'unknown') return 'unknown';
  const prefix = date.certainty === 'published' ? '' : `${date.certainty} `;
  const first = formatDay(date.first);
  for (const text of [first, first.slice(0, 7), quarterText(first), first.slice(0, 4)]) {
    const span = parseSpan(text);
    if (span?.first === date.first && span.last === date.last) return prefix + text;
  }
  return prefix + formatDay(date.last);
}

const quarterText = (isoDay: string): string =>
  `${isoDay.slice(0, 4)}-Q${Math.ceil(Number(isoDay.slice(5, 7)) / 3)}`;
