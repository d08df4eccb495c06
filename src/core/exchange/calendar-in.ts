import ICAL from 'ical.js';
import { type Day, findRecurrenceFault, formatDay } from '../date';
import { fail, type Result, succeed } from '../kit';

/** More is no list of windows. */
const MOST_EVENTS = 500;
const MOST_LETTERS = 2_000_000;

/** A window as a calendar file has it, with the zone its wall clock is of. */
export interface ReadWindow {
  readonly name: string;
  readonly zone: string;
  readonly start: string;
  readonly rule?: string;
  readonly minutes: number;
}

/** What a calendar file comes to: what lasts hours is a window, what lasts days a freeze. */
export interface ReadCalendar {
  readonly windows: readonly ReadWindow[];
  readonly freezes: readonly Freeze[];
  readonly skipped: readonly Skipped[];
}

/** Days that last; ISO. */
interface Freeze {
  readonly first: string;
  readonly last: string;
  readonly reason: string;
}

interface Skipped {
  readonly name: string;
  readonly why: 'length' | 'recurring days' | 'no start' | 'zone' | 'rule' | 'not an instance';
}

/** Reads a calendar file of any program (RFC 5545: VEVENT with DTSTART, DTEND or DURATION, RRULE). */
export function readCalendarFile(text: string): Result<ReadCalendar> {
  if (text.length > MOST_LETTERS) return fail({ code: 'too-large' });
  let events: ICAL.Event[];
  try {
    const root = new ICAL.Component(ICAL.parse(text) as unknown[]);
    const found = root.name === 'vcalendar' ? root.getAllSubcomponents('vevent') : [];
    events = found.slice(0, MOST_EVENTS).map((component) => new ICAL.Event(component));
  } catch {
    return fail({ code: 'not-a-calendar' });
  }
  if (events.length === 0) return fail({ code: 'not-a-calendar' });
  const windows: ReadWindow[] = [];
  const freezes: Freeze[] = [];
  const skipped: Skipped[] = [];
  for (const event of events) {
    const read = readEvent(event);
    if ('why' in read) skipped.push(read);
    else if ('minutes' in read) windows.push(read);
    else freezes.push(read);
  }
  return succeed({ windows, freezes, skipped });
}

/** One entry; what cannot be read says why. */
function readEvent(event: ICAL.Event): ReadWindow | Freeze | Skipped {
  let name = '';
  try {
    // What is spoilt is found only when it is asked for.
    name = (event.summary ?? '').slice(0, 300);
    const { startDate: start, endDate: end } = event;
    if (!start) return { name, why: 'no start' };
    const rule = event.component.getFirstPropertyValue('rrule');
    const seconds = end ? end.toUnixTime() - start.toUnixTime() : 0;
    const first = dayOfTime(start);
    if (start.isDate) {
      const last = Math.max(first, first + Math.round(seconds / 86_400) - 1);
      return rule
        ? { name, why: 'recurring days' }
        : { first: formatDay(first), last: formatDay(last), reason: name };
    }
    const minutes = Math.round(seconds / 60);
    if (!(minutes >= 1 && minutes <= 20_160)) return { name, why: 'length' };
    const window: ReadWindow = {
      name,
      zone: zoneOf(event),
      start: `${formatDay(first)}T${two(start.hour)}:${two(start.minute)}`,
      ...(rule ? { rule: String(rule) } : {}),
      minutes
    };
    // A floating time is of whatever zone the calendar has.
    const fault = findRecurrenceFault({ ...window, zone: window.zone || 'UTC' });
    return fault ? { name, why: fault === 'start' ? 'no start' : fault } : window;
  } catch {
    return { name, why: 'no start' };
  }
}

const two = (n: number): string => String(n).padStart(2, '0');

const dayOfTime = ({ year, month, day }: ICAL.Time): Day => Date.UTC(year, month - 1, day) / 86_400_000;

/** The zone the start names; an instant is of UTC. */
function zoneOf({ component, startDate }: ICAL.Event): string {
  const named = component.getFirstProperty('dtstart')?.getFirstParameter('tzid');
  return typeof named === 'string' && named !== '' ? named : startDate?.zone?.tzid === 'UTC' ? 'UTC' : '';
}
