import ical, { ICalAlarmType } from 'ical-generator';
import type { Day } from '../date';
import type { DueEntry } from '../plan';

const MS_PER_DAY = 86_400_000;

/**
 * A calendar file (RFC 5545). Ids hang on what entries are about, the sequence number on the day it is written, so that whoever
 * takes in a later file moves entries instead of doubling them.
 */
export function formatCalendarFile(name: string, entries: readonly DueEntry[], today: Day): string {
  const calendar = ical({ name, prodId: { company: 'Orange Stair', product: 'Dates' } });
  const stamp = new Date(today * MS_PER_DAY);
  for (const { about, day, from, to, summary, description, remindDays } of entries) {
    const start = day === undefined ? (from ?? 0) * 60_000 : day * MS_PER_DAY;
    const event = calendar.createEvent({
      id: `${idOf(about)}@orange-stair`,
      sequence: today,
      stamp,
      start: new Date(start),
      ...(to === undefined ? {} : { end: new Date(to * 60_000) }),
      allDay: day !== undefined,
      summary,
      description
    });
    if (remindDays !== undefined)
      event.createAlarm({ type: ICalAlarmType.display, trigger: remindDays * 86_400 });
  }
  // What only some programs understand is left out.
  return calendar
    .toString()
    .split('\r\n')
    .filter((line) => !line.startsWith('X-') || line.startsWith('X-WR-CALNAME'))
    .join('\r\n');
}

/** Letters, digits and dashes alone; others by their number. */
const idOf = (about: string): string =>
  [...about].map((c) => (/[a-z0-9-]/i.test(c) ? c : `_${c.codePointAt(0)?.toString(16) ?? ''}_`)).join('');
