import ICAL from 'ical.js';
import { expect, test } from 'vitest';
import { parseDay } from '$core/date';
import { formatCalendarFile, readCalendarFile } from '$core/exchange';
import { Random } from '../support/random';

const today = parseDay('2031-03-10') as number;
const entry = (about: string, day: number) => ({
  about,
  day,
  summary: `${about}, with a comma; and "quotes"`,
  description: 'two\nlines'
});

/** Id and first day of every event, as another program reads them. */
const eventsOf = (text: string): Map<string, string> =>
  new Map(
    new ICAL.Component(ICAL.parse(text) as unknown[])
      .getAllSubcomponents('vevent')
      .map((c) => new ICAL.Event(c))
      .map((e) => [e.uid, `${e.startDate.toString()} ${e.summary}`])
  );

test('a calendar file is read by another parser; a day that moves keeps its id and raises its number', () => {
  const r = new Random(3);
  const entries = Array.from({ length: 40 }, (_, i) =>
    entry(`deadline sy${i}/ü ${r.int(0, 9)} ${i}`, today + r.int(0, 900))
  );
  const block = {
    about: 'block h1 s',
    from: today * 1440 + 1320,
    to: today * 1440 + 1400,
    summary: 'b',
    description: '',
    remindDays: 2
  };
  const first = formatCalendarFile('All that is due', [...entries, block], today);
  const moved = entries.map((e) => ({ ...e, day: e.day + 90 }));
  const second = formatCalendarFile('All that is due', [...moved, block], today + 7);
  const [before, after] = [eventsOf(first), eventsOf(second)];
  expect(before.size).toBe(41);
  expect([...after.keys()]).toEqual([...before.keys()]);
  for (const [id, words] of before) if (!id.startsWith('block')) expect(after.get(id)).not.toBe(words);
  const sequence = (text: string): number => Number(/SEQUENCE:(\d+)/.exec(text)?.[1]);
  expect(sequence(second)).toBeGreaterThan(sequence(first));
  expect(first).toContain('BEGIN:VALARM');
  expect([...before.values()].some((v) => v.startsWith('2031-03-10T22:00:00Z'))).toBe(true);
});

const FOREIGN = [
  'BEGIN:VCALENDAR',
  'VERSION:2.0',
  'PRODID:-//made up//EN',
  'BEGIN:VEVENT',
  'UID:1',
  'DTSTART;TZID=Europe/Lisbon:20310106T220000',
  'DTEND;TZID=Europe/Lisbon:20310107T030000',
  'RRULE:FREQ=WEEKLY;BYDAY=MO,TH',
  'SUMMARY:Nights',
  'END:VEVENT',
  'BEGIN:VEVENT',
  'UID:2',
  'DTSTART;VALUE=DATE:20311213',
  'DTEND;VALUE=DATE:20320103',
  'SUMMARY:New timetable',
  'END:VEVENT',
  'BEGIN:VEVENT',
  'UID:3',
  'DTSTART:20310110T200000Z',
  'DURATION:PT90M',
  'RRULE:FREQ=WEEKLY;BYDAY=MO',
  'SUMMARY:Begins on a Friday',
  'END:VEVENT',
  'BEGIN:VEVENT',
  'UID:4',
  'DTSTART:20310110T200000Z',
  'SUMMARY:No end',
  'END:VEVENT',
  'END:VCALENDAR'
].join('\r\n');

test('a calendar made by another program comes in: hours as windows, days as freezes, the rest with a reason', () => {
  const read = readCalendarFile(FOREIGN);
  expect(read).toEqual({
    ok: true,
    value: {
      windows: [
        {
          name: 'Nights',
          zone: 'Europe/Lisbon',
          start: '2031-01-06T22:00',
          rule: 'FREQ=WEEKLY;BYDAY=MO,TH',
          minutes: 300
        }
      ],
      freezes: [{ first: '2031-12-13', last: '2032-01-02', reason: 'New timetable' }],
      skipped: [
        { name: 'Begins on a Friday', why: 'not an instance' },
        { name: 'No end', why: 'length' }
      ]
    }
  });
});

test('a spoilt calendar file is read or refused, never thrown at', () => {
  const r = new Random(11);
  for (let i = 0; i < 400; i++) {
    const letters = [...FOREIGN];
    for (let n = r.int(1, 8); n > 0; n--)
      letters.splice(r.int(0, letters.length - 1), r.int(0, 3), r.pick([':', ';', '\n', '9', 'Z', '']));
    expect(typeof readCalendarFile(letters.join('')).ok).toBe('boolean');
  }
  expect(readCalendarFile('nothing of the kind').ok).toBe(false);
});
