import fc from 'fast-check';
import { expect, test } from 'vitest';
import { calendarDate, dayOf, formatDay, monthsBetween, parseDay } from './day';
import { formatDateText, parseDateText, readDay } from './interval';
import { parseMessyDay } from './messy';

const anyDay = fc.integer({ min: -20_000, max: 60_000 });

test('days and their texts are each other’s inverse, and order like their texts', () => {
  fc.assert(
    fc.property(anyDay, anyDay, (a, b) => {
      expect(parseDay(formatDay(a))).toBe(a);
      expect(Math.sign(a - b)).toBe(formatDay(a) < formatDay(b) ? -1 : formatDay(a) > formatDay(b) ? 1 : 0);
      const { year, month, dayOfMonth } = calendarDate(a);
      expect(dayOf(year, month, dayOfMonth)).toBe(a);
    }),
    { seed: 1 }
  );
});

test('whole months between days never count a day too many', () => {
  fc.assert(
    fc.property(anyDay, fc.integer({ min: 0, max: 4000 }), (from, span) => {
      const months = monthsBetween(from, from + span);
      expect(months * 28).toBeLessThanOrEqual(span);
      expect((months + 1) * 31).toBeGreaterThan(span - 31);
    }),
    { seed: 2 }
  );
  expect(monthsBetween(parseDay('2031-01-31')!, parseDay('2031-02-28')!)).toBe(0);
});

test.each([
  ['2031-06-30', '2031-06-30', '2031-06-30'],
  ['2032-02', '2032-02-01', '2032-02-29'],
  ['announced 2031-Q4', '2031-10-01', '2031-12-31'],
  ['expected 2031', '2031-01-01', '2031-12-31']
])('%s reads as its last day and is written back as it was', (text, first, last) => {
  const date = parseDateText(text)!;
  expect(date).toMatchObject({ first: parseDay(first), last: parseDay(last) });
  expect(readDay(date, true)).toBe(parseDay(last));
  expect(readDay(date, false)).toBe(text.startsWith('expected') ? 'unknown' : parseDay(last));
  expect(formatDateText(date)).toBe(text);
});

test.each(['2031-02-30', '2031-13', 'soon', 'perhaps 2031', '2031-Q5', '', 'announced', '31.12.2031'])(
  '"%s" is not a date of a catalogue',
  (text) => {
    expect(parseDateText(text)).toBeUndefined();
  }
);

test.each([
  ['10 Mar 2031', '2031-03-10'],
  ['March 10, 2031', '2031-03-10'],
  ['19.2.31', '2031-02-19'],
  ['2031/02/09 14:30', '2031-02-09'],
  ['45341', '2024-02-19'],
  ['25/12/2030', '2030-12-25'],
  ['12/25/2030', '2030-12-25']
])('people’s "%s" is %s and nothing else', (text, day) => {
  expect(parseMessyDay(text)).toEqual({ day: parseDay(day) });
});

test('a date with day and month to be swapped keeps both readings', () => {
  expect(parseMessyDay('3/4/31')).toEqual({ day: parseDay('2031-04-03'), also: parseDay('2031-03-04') });
  for (const text of ['', 'never', '99/99/9999', '31 Feb 2031', '12'])
    expect(parseMessyDay(text)).toBeUndefined();
});
