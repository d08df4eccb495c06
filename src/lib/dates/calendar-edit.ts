import { calendarOf } from '$core/bind';
import { calendarDate, type Day, findRecurrenceFault, formatDay, parseDay, timeOfMinute } from '$core/date';
import type { WorkCalendar, WorkWindow } from '$core/estate';
import { sayShortDay, writeRule, type RuleParts } from '$core/wording';

/** A window as it is filled in. */
export interface WindowDraft {
  readonly name: string;
  /** The first day it may recur on, ISO; of a window that is once the day itself. */
  readonly from: string;
  /** `22:00` */
  readonly time: string;
  readonly hours: string;
  readonly parts: RuleParts | undefined;
  /** A rule in RFC 5545's own words, where it is none of the usual ones. */
  readonly rule: string;
  readonly product: string;
  /** How many systems may be under work at once; empty: any number. */
  readonly crew: string;
  readonly crewName: string;
}

const LOOK_AHEAD = 800;

/** The window a draft comes to, or why it comes to none. It begins on the first day from `from` on that its rule names. */
export function windowOf(
  draft: WindowDraft,
  zone: string,
  id: string
): { readonly window: WorkWindow } | { readonly amiss: string } {
  const from = parseDay(draft.from);
  const minutes = Math.round(Number(draft.hours.replace(',', '.')) * 60);
  if (from === undefined) return { amiss: 'From which day on?' };
  if (!/^([01]\d|2[0-3]):[0-5]\d$/.test(draft.time)) return { amiss: 'A time of day is like 22:00.' };
  if (!(minutes >= 1 && minutes <= 20_160)) return { amiss: 'It is open for up to 336 hours.' };
  const crew = draft.crew.trim() === '' ? undefined : Number(draft.crew);
  if (crew !== undefined && !(Number.isInteger(crew) && crew >= 1 && crew <= 10_000))
    return { amiss: 'At once go 1 to 10 000 systems.' };
  if (draft.parts && draft.parts.days.length === 0) return { amiss: 'On which days?' };
  const rule = draft.parts ? writeRule(draft.parts) : draft.rule.trim();
  const about = {
    id,
    minutes,
    ...(draft.name.trim() ? { name: draft.name.trim() } : {}),
    ...(draft.product ? { products: [draft.product] } : {}),
    ...(crew === undefined
      ? {}
      : { crew: { systems: crew, ...(draft.crewName.trim() ? { name: draft.crewName.trim() } : {}) } })
  };
  for (let day: Day = from; day < from + (rule === '' ? 1 : LOOK_AHEAD); day++) {
    const start = `${formatDay(day)}T${draft.time}`;
    const fault = findRecurrenceFault({ zone, start, ...(rule === '' ? {} : { rule }) });
    if (!fault) return { window: { ...about, start, ...(rule === '' ? {} : { rule }) } };
    if (fault === 'zone') return { amiss: 'Nobody knows this time zone.' };
    if (fault === 'rule') return { amiss: 'The rule cannot be read.' };
  }
  return { amiss: 'The rule names no day in the next two years.' };
}

/** The next starts of a calendar's windows from a day on, without the nights of freezes, its own and the estate's: `Tue 11 Mar 22:00`. */
export function nextStarts(
  calendar: WorkCalendar,
  all: readonly WorkCalendar[],
  today: Day,
  most: number
): string[] {
  const { year } = calendarDate(today);
  const isEstates = (c: WorkCalendar): boolean => c.team === undefined && c.site === undefined;
  const binding = all.filter((c) => c.id !== calendar.id && isEstates(c));
  const starts: string[] = [];
  for (const o of calendarOf(calendar, binding).from(today, today + LOOK_AHEAD)) {
    if (starts.length >= most) break;
    starts.push(`${sayShortDay(o.day, year)} ${timeOfMinute(o.start, o.zone)}`);
  }
  return starts;
}
