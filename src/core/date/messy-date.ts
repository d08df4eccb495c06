import { formatDay } from './day';
import { parseDateText } from './interval';
import { parseMessyDay } from './messy';

/** A date as people write it, as catalogue text; `also` where day and month could be swapped. */
export interface MessyDate {
  readonly text: string;
  readonly also?: string;
}

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
const NOBODY_KNOWS = new Set(['unknown', 'tba', 'tbd', 'n/a', '-', '–', '?', 'none', 'open']);

/**
 * Reads a date in any form seen on publishers' pages: a day (parseMessyDay), June 2031, 06/2031, 2031-06, Q3 2031, 2031,
 * `announced` or `expected` before any of them - `not before` is expected, no sooner -, a word for unknown. Undefined when it is none of these.
 */
export function parseMessyDate(input: string): MessyDate | undefined {
  const text = input.trim();
  if (NOBODY_KNOWS.has(text.toLowerCase())) return { text: 'unknown' };
  const stated =
    /^(announced|expected|planned|about|approx\.?|ca\.?|not before|no earlier than|at least until|at the earliest)\s+(.+)$/i.exec(
      text
    );
  if (stated?.[2]) {
    const inner = parseMessyDate(stated[2]);
    const certainty = stated[1]?.toLowerCase() === 'announced' ? 'announced' : 'expected';
    return (
      inner && {
        text: `${certainty} ${inner.text}`,
        ...(inner.also ? { also: `${certainty} ${inner.also}` } : {})
      }
    );
  }
  const span = readSpan(text);
  if (span) return { text: span };
  const day = parseMessyDay(text);
  return (
    day && { text: formatDay(day.day), ...(day.also === undefined ? {} : { also: formatDay(day.also) }) }
  );
}

function readSpan(text: string): string | undefined {
  const [, q1, y1] = /^q([1-4])[\s/-]*(\d{4})$/i.exec(text) ?? [];
  const [, y2, q2] = /^(\d{4})[\s/-]*q([1-4])$/i.exec(text) ?? [];
  if ((q1 && y1) || (q2 && y2)) return `${y1 ?? y2}-Q${q1 ?? q2}`;
  const [, name, year] = /^([a-z]{3,9})\.?[\s,/-]+(\d{4})$/i.exec(text) ?? [];
  const month = name ? MONTHS.indexOf(name.slice(0, 3).toLowerCase()) + 1 : 0;
  if (month > 0 && year) return `${year}-${String(month).padStart(2, '0')}`;
  const [, m, y] = /^(\d{1,2})[/.](\d{4})$/.exec(text) ?? [];
  const numbers = m && y ? `${y}-${m.padStart(2, '0')}` : text;
  return /^\d{4}(-\d{2})?$/.test(numbers) && parseDateText(numbers) ? numbers : undefined;
}
