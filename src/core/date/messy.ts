import { dayOf, type Day } from './day';

const MONTH_NAMES = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];

/** How an all-number date with a slash, dot or dash is ordered; `both` when the text could be either. */
export type DateReading = { readonly day: Day; readonly also?: Day };

/**
 * Reads a day as people type it: 2031-03-10, 10.03.2031, 10/3/31, 10 Mar 2031, March 10, 2031,
 * a spreadsheet's serial number. Where day and month could be swapped, `also` holds the second reading.
 * Undefined when it is none of these.
 */
export function parseMessyDay(text: string): DateReading | undefined {
  const clean = text.trim().replace(/[T ]\d{1,2}:\d{2}(:\d{2}(\.\d+)?)?Z?$/, '');
  return readYearFirst(clean) ?? readNamedMonth(clean) ?? readTwoNumbers(clean) ?? readSerial(clean);
}

function readYearFirst(text: string): DateReading | undefined {
  const match = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})$/.exec(text);
  return match ? only(dayOf(Number(match[1]), Number(match[2]), Number(match[3]))) : undefined;
}

function readNamedMonth(text: string): DateReading | undefined {
  const words = text
    .toLowerCase()
    .split(/[\s,.\-/]+/)
    .filter(Boolean);
  if (words.length !== 3) return undefined;
  const at = words.findIndex((w) => MONTH_NAMES.includes(w.slice(0, 3)) && /^[a-z]+$/.test(w));
  const numbers = words.filter((_, i) => i !== at).map(Number);
  if (at < 0 || numbers.some((n) => !Number.isInteger(n))) return undefined;
  const [a = 0, b = 0] = numbers;
  const month = MONTH_NAMES.indexOf((words[at] ?? '').slice(0, 3)) + 1;
  return only(a > 31 ? dayOf(a, month, b) : dayOf(fullYear(b), month, a));
}

function readTwoNumbers(text: string): DateReading | undefined {
  const match = /^(\d{1,2})[-/.](\d{1,2})[-/.](\d{2}|\d{4})$/.exec(text);
  if (!match) return undefined;
  const [a, b, year] = [Number(match[1]), Number(match[2]), fullYear(Number(match[3]))];
  const dayFirst = dayOf(year, b, a);
  const monthFirst = dayOf(year, a, b);
  if (dayFirst === undefined) return only(monthFirst);
  return monthFirst === undefined || monthFirst === dayFirst
    ? { day: dayFirst }
    : { day: dayFirst, also: monthFirst };
}

/** Spreadsheets count days from 1899-12-30. */
function readSerial(text: string): DateReading | undefined {
  const serial = /^\d{5}(\.\d+)?$/.test(text) ? Math.floor(Number(text)) : 0;
  const epoch = dayOf(1900, 1, 1) ?? 0;
  return serial >= 20_000 && serial < 80_000 ? { day: epoch + serial - 2 } : undefined;
}

const only = (day: Day | undefined): DateReading | undefined => (day === undefined ? undefined : { day });
const fullYear = (year: number): number => (year < 100 ? 2000 + year : year);
