import { type Calendar, type Day, parseDateText, readDay, ROOM_WITHIN } from '../date';
import { judgeMoves, type Move, type Terms } from '../route';

const TWENTY_YEARS = 7305;
/** As a route that ends on the target is judged in the sure run. */
export const SURELY_THERE = { isTarget: true, run: 'sure' } as const;

/**
 * The last day from which the moves hold and end by `finishBy`; undefined when no day is the last, `none` when no
 * start does it. Any day, any hour: starting earlier never breaks a route (waiting is always possible), so halving finds it.
 * With a calendar an earlier start may fail where a later one holds, so days are tried from the last on, those on which the
 * laying changes.
 */
export function latestStartOf(
  terms: Terms,
  moves: readonly Move[],
  finishBy: number
): Day | 'none' | undefined {
  const holds = (from: Day): boolean => {
    const { findings, schedule } = judgeMoves({ ...terms, from, leadsFrom: from }, moves, SURELY_THERE);
    const finish = schedule.days[moves.length - 1]?.hop;
    return (
      findings.length === 0 &&
      finish !== undefined &&
      finish.last <= finishBy &&
      (finish.exact || finishBy === Infinity)
    );
  };
  const { calendar } = terms;
  if (!calendar) return halve(terms, finishBy, holds);
  if (holds(Math.max(terms.today, finishBy === Infinity ? 0 : finishBy) + TWENTY_YEARS)) return undefined;
  const last = lastOf(terms, calendar, moves, finishBy);
  if (last === 'none') return last;
  for (const day of startsDown(terms, calendar, moves, last)) if (holds(day)) return day;
  return 'none';
}

/** The last day that holds, where every earlier one does as well. */
function halve(terms: Terms, finishBy: number, holds: (from: Day) => boolean): Day | 'none' | undefined {
  let low = Math.min(terms.today, finishBy) - TWENTY_YEARS;
  let high = Math.max(terms.today, finishBy === Infinity ? 0 : finishBy) + TWENTY_YEARS;
  if (holds(high)) return undefined;
  if (!holds(low)) return 'none';
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (holds(middle)) low = middle;
    else high = middle;
  }
  return low;
}

/**
 * A day behind which no start holds. Freezes alone only put steps off, so that no start holds that would not without them; windows may
 * bring steps together, so that only what ends and closes bounds them.
 */
function lastOf(terms: Terms, calendar: Calendar, moves: readonly Move[], finishBy: number): Day | 'none' {
  const { calendar: _calendar, ...without } = terms;
  void _calendar;
  if (calendar.hasWindows && finishBy !== Infinity) return finishBy;
  // What else may end - a decision, the way of something linked - is in the latest start on any days.
  const plain = latestStartOf(without, moves, finishBy);
  if (!calendar.hasWindows) return plain ?? lastChange(terms, calendar);
  return Math.max(lastChange(terms, calendar), typeof plain === 'number' ? plain + CHUNK : -Infinity);
}

/**
 * The last day on which anything of a product or of its windows ends or opens: behind it every start fares alike; a year on, since windows
 * that recur for ever differ within a year.
 */
function lastChange(
  { model, countsExpected, serviceEnd, publication, today }: Terms,
  { windows, freezes }: Calendar
): Day {
  const dates = [
    ...[...model.hopsFrom, ...model.changesAt].flat().flatMap((step) => [step.opens, step.closes]),
    ...model.releases.flatMap((r) => r.patches.flatMap((p) => [p.published, p.until])),
    ...model.rights.map((r) => r.until)
  ].map((date) => date && readDay(date, countsExpected));
  const known = [...dates, ...serviceEnd, ...publication].filter((d) => typeof d === 'number');
  const isEndless = windows.every(({ rule }) => rule !== undefined && !/UNTIL|COUNT/i.test(rule));
  const last = Math.max(today, ...known, ...freezes.map((f) => f.last));
  return last + (isEndless ? CHUNK : ROOM_WITHIN);
}

/**
 * Days from which a route is laid otherwise than from the day after, last first: on which an occurrence starts, and so many lead days
 * before; outside windows every day.
 */
function* startsDown(terms: Terms, calendar: Calendar, moves: readonly Move[], last: Day): Generator<Day> {
  const first = Math.min(terms.today, last) - ROOM_WITHIN;
  if (!calendar.hasWindows) {
    for (let day = last; day >= first; day--) yield day;
    return;
  }
  const rights = terms.model.rights.map((r) => r.right);
  const leads = new Set([0, ...moves.map((m) => m.asked.leadDays), ...rights.map((r) => r.leadDays ?? 0)]);
  const ends = rights
    .flatMap((r) => (r.counts === 'order day' ? [r.until, r.offer?.until] : []))
    .flatMap((text) => {
      const day = text === undefined ? undefined : parseDateText(text);
      const read = day && readDay(day, terms.countsExpected);
      return typeof read === 'number' ? [read] : [];
    });
  const longest = Math.max(...leads);
  // A year at a time, so that what lies near the end is found without working out the rest.
  for (let to = last; to >= first; to -= CHUNK) {
    const from = Math.max(first, to - CHUNK + 1);
    const days = new Set(ends.filter((d) => d >= from && d <= to));
    for (const { day } of calendar.from(from, to + longest))
      for (const lead of leads) if (day - lead >= from && day - lead <= to) days.add(day - lead);
    yield* [...days].sort((a, b) => b - a);
  }
}

const CHUNK = 366;
