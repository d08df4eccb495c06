import {
  type Calendar,
  type DateInterval,
  type Day,
  type MaybeDay,
  parseDateText,
  readDay,
  ROOM_WITHIN
} from '../date';
import {
  gatesOf,
  type Journey,
  type Judgement,
  judgeMoves,
  lastWithRoom,
  type Move,
  type Party,
  roundsOf,
  type Terms
} from '../route';

/** Whom the moves are for, where they are more than one system; and how they were laid from the day of the terms, as a place to begin. */
export interface Known {
  readonly party?: Party | undefined;
  readonly laid?: Judgement | undefined;
}

const TWENTY_YEARS = 7305;
/** As a route that ends on the target is judged in the sure run. */
export const SURELY_THERE = { isTarget: true, run: 'sure' } as const;

/**
 * The last day from which the moves hold and end by `finishBy`; undefined when no day is the last, `none` when no
 * start does it. Any day, any hour: starting earlier seldom breaks a route (waiting is possible), so halving finds it.
 * With a calendar an earlier start may fail where a later one holds, so days are tried from the last on, those on which the
 * laying changes. Of a party all rounds have to.
 */
export function latestStartOf(
  terms: Terms,
  moves: readonly Move[],
  finishBy: number,
  { party, laid }: Known = {}
): Day | 'none' | undefined {
  const holds = (from: Day): boolean => holdsFrom({ terms, moves }, from, finishBy, party);
  const { calendar } = terms;
  if (!calendar) return halve({ terms, moves, laid }, finishBy, holds);
  const end = lastOf(terms, calendar, moves, finishBy);
  const room =
    party && finishBy !== Infinity ? lastWithRoom({ terms, moves }, party.systems, finishBy) : Infinity;
  if (end === 'none' || room === 'none') return 'none';
  if (end.isOpen && holds(end.day)) return undefined;
  const journeys = [{ terms, moves }, ...(party?.first ?? [])];
  const last = lastUnhurried({ terms, moves }, Math.min(end.day, room), finishBy);
  if (last === 'none') return 'none';
  for (const day of startsDown(journeys, last)) if (holds(day)) return day;
  return 'none';
}

/**
 * The last day, up to one, from which one system's moves would hold if stays out of service might be of any length; no start behind it
 * holds. Where windows never overlap, that is the truer the earlier the start, between the last days of orders, as without windows -
 * as long as there is room within `ROOM_WITHIN`, so that steps back are no longer than a year. `last` itself where windows may overlap.
 */
function lastUnhurried({ terms, moves }: Journey, last: Day, finishBy: number): Day | 'none' {
  if (terms.calendar?.mayOverlap) return last;
  const goal = { ...terms.goal, passDays: Infinity };
  const unhurried: Journey = { terms: { ...terms, goal }, moves };
  const holds = (from: Day): boolean => holdsFrom(unhurried, from, finishBy, undefined);
  const first = Math.min(terms.today, last) - ROOM_WITHIN;
  const turns = [...new Set(orderEndsOf({ terms, moves }))].filter((d) => d >= first && d < last);
  let top = last;
  for (const turn of [...turns.sort((a, b) => b - a), first - 1]) {
    if (holds(top)) return top;
    let fails = top;
    for (let back = 1; fails > turn + 1; back = Math.min(CHUNK, back * 2)) {
      let holding = Math.max(turn + 1, fails - back);
      if (!holds(holding)) {
        fails = holding;
        continue;
      }
      while (fails - holding > 1) {
        const middle = Math.floor((holding + fails) / 2);
        if (holds(middle)) holding = middle;
        else fails = middle;
      }
      return holding;
    }
    top = turn;
  }
  return 'none';
}

/** Whether moves hold and end by a day where they begin on one; of a party whether all its rounds do. */
function holdsFrom(
  { terms, moves }: Journey,
  from: Day,
  finishBy: number,
  party: Party | undefined
): boolean {
  const laid = { ...terms, from, leadsFrom: from };
  if (!party) return isInTime(judgeMoves(laid, moves, SURELY_THERE), finishBy);
  let systems = 0;
  for (const round of roundsOf({ terms: laid, moves }, party, SURELY_THERE)) {
    if (!isInTime(round.judgement, finishBy)) return false;
    systems += round.systems;
  }
  return systems === party.systems;
}

/** What is judged holds, and ends by a day. */
export function isInTime({ findings, schedule }: Judgement, finishBy: number): boolean {
  const finish = schedule.days.at(-1)?.hop;
  return (
    findings.length === 0 &&
    finish !== undefined &&
    finish.last <= finishBy &&
    (finish.exact || finishBy === Infinity)
  );
}

/**
 * The last day that holds on any days. Every earlier one of the same stretch holds as well: stretches end where a right or an offer can
 * be ordered no longer, since a cheaper right with a long lead is waited for as long as it can be had.
 */
function halve(
  { terms, moves, laid }: Journey & Pick<Known, 'laid'>,
  finishBy: number,
  holds: (from: Day) => boolean
): Day | 'none' | undefined {
  const bottom = Math.min(terms.today, finishBy) - TWENTY_YEARS;
  const furthest = Math.max(terms.today, finishBy === Infinity ? 0 : finishBy) + TWENTY_YEARS;
  const turns = [...new Set(orderEndsOf({ terms, moves }))].filter((d) => d >= bottom && d < furthest);
  const isLast = (day: number): boolean =>
    day >= bottom && day < furthest && turns.every((turn) => turn < day) && holds(day) && !holds(day + 1);
  const near = laid && bindingDayOf({ terms, moves }, finishBy, laid);
  if (near !== undefined && isLast(near)) return near;
  const far = { ...terms, from: furthest, leadsFrom: furthest };
  const binding = bindingDayOf({ terms: far, moves }, finishBy, judgeMoves(far, moves, SURELY_THERE));
  if (binding !== near && isLast(binding)) return binding;
  if (holds(furthest)) return undefined;
  let top = furthest;
  for (const turn of [...turns.sort((a, b) => b - a), bottom - 1]) {
    let [low, high] = [turn + 1, top];
    if (high < furthest && holds(high)) return high;
    if (holds(low)) {
      const ends = closingDaysOf({ terms, moves }).filter((d) => d > low && d < high);
      [low, high] = closeIn(ends, [low, high], holds);
      // A start that is just too late is late by a few days.
      for (let back = 1; high - back > low; back *= 2) {
        if (holds(high - back)) low = high - back;
        else high -= back;
      }
      while (high - low > 1) {
        const middle = Math.floor((low + high) / 2);
        if (holds(middle)) low = middle;
        else high = middle;
      }
      return low;
    }
    top = turn;
  }
  return 'none';
}

/**
 * The start from which the first of what ends or closes would just be kept, if all were laid then as they are from the day of the terms. A
 * guess: whoever takes it asks whether it holds.
 */
function bindingDayOf({ terms, moves }: Journey, finishBy: number, { schedule, rights }: Judgement): number {
  const { countsExpected, from, goal, model, serviceEnd } = terms;
  let least = Infinity;
  const bind = (end: MaybeDay | undefined, on: Day | undefined): void => {
    if (typeof end === 'number' && on !== undefined) least = Math.min(least, end - (on - from));
  };
  const read = (date: DateInterval | undefined): MaybeDay | undefined =>
    date && readDay(date, countsExpected);
  for (const [i, move] of moves.entries()) {
    const days = schedule.days[i];
    bind(read((move.hop ?? move.change)?.closes), days?.hop.last);
    bind(read(model.releases[move.from.release]?.patches[move.level]?.until), days?.patch?.last);
    bind(rights[i]?.use.until, days?.hop.last);
  }
  const finish = schedule.days.at(-1)?.hop.last;
  if (!goal.allow.restingOutOfService) bind(serviceEnd[moves.at(-1)?.to.release ?? -1], finish);
  bind(finishBy, finish);
  return least;
}

/** The last of sorted days that holds and the first that does not, within two of which that is known. */
function closeIn(
  days: readonly Day[],
  [low, high]: readonly [Day, Day],
  holds: (day: Day) => boolean
): [Day, Day] {
  let [first, last] = [-1, days.length];
  while (last - first > 1) {
    const middle = (first + last) >> 1;
    if (holds(days[middle] as Day)) first = middle;
    else last = middle;
  }
  return [days[first] ?? low, days[last] ?? high];
}

/** Days on which something the moves need may end, sorted; where to look, not what to believe. */
function closingDaysOf({ terms, moves }: Journey): Day[] {
  const { countsExpected, model, serviceEnd } = terms;
  const days = moves.flatMap(({ hop, change, from, level, to }) => {
    const patch = model.releases[from.release]?.patches[level];
    const closes = [(hop ?? change)?.closes, patch?.until].map((d) => d && readDay(d, countsExpected));
    return [...closes, serviceEnd[from.release], serviceEnd[to.release]];
  });
  return [...new Set(days.filter((d) => typeof d === 'number'))].sort((a, b) => a - b);
}

/** Longest look for stretches from which a start fails, in days. */
const LOOKED_OVER = 800;

/** Stretches between today and the latest start from which the way fails: earlier is not always safer. First and last day of each. */
export function failingStretches(
  { terms, moves }: Journey,
  finishBy: number,
  latest: Day
): (readonly [Day, Day])[] {
  const found: [Day, Day][] = [];
  for (let day = Math.max(terms.today, latest - LOOKED_OVER); day < latest; day++) {
    if (holdsFrom({ terms, moves }, day, finishBy, undefined)) continue;
    const last = found.at(-1);
    if (last?.[1] === day - 1) last[1] = day;
    else found.push([day, day]);
  }
  return found;
}

/**
 * A day behind which no start holds; `isOpen`: or every one does as that day does. Freezes alone only put steps off, so that no start
 * holds that would not without them; windows may bring steps together, so that only what ends and closes bounds them.
 */
function lastOf(
  terms: Terms,
  calendar: Calendar,
  moves: readonly Move[],
  finishBy: number
): { readonly day: Day; readonly isOpen?: boolean } | 'none' {
  const { calendar: _calendar, ...without } = terms;
  void _calendar;
  if (calendar.hasWindows && finishBy !== Infinity) return { day: finishBy };
  // What else may end - a decision, the way of something linked - is in the latest start on any days.
  const plain = latestStartOf(without, moves, finishBy);
  const change = lastChange(terms, calendar);
  if (plain === undefined) return { day: change, isOpen: true };
  if (!calendar.hasWindows) return plain === 'none' ? 'none' : { day: plain };
  return { day: Math.max(change, typeof plain === 'number' ? plain + CHUNK : -Infinity) };
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
 * Days from which routes are laid otherwise than from the day after, last first: on which an occurrence starts, and so many lead days
 * before; outside windows every day, and where it hangs on what others do from the day on.
 */
function* startsDown(journeys: readonly Journey[], last: Day): Generator<Day> {
  const first = Math.min(...journeys.map((j) => j.terms.today), last) - ROOM_WITHIN;
  if (journeys.some((j) => !j.terms.calendar?.hasWindows || hangsOnOthers(j))) {
    for (let day = last; day >= first; day--) yield day;
    return;
  }
  const leads = new Set(journeys.flatMap(leadsOf));
  const ends = journeys.flatMap(orderEndsOf);
  const calendars = new Set(journeys.flatMap(({ terms }) => terms.calendar ?? []));
  const longest = Math.max(...leads);
  // A year at a time, so that what lies near the end is found without working out the rest.
  for (let to = last; to >= first; to -= CHUNK) {
    const from = Math.max(first, to - CHUNK + 1);
    const days = new Set(ends.filter((d) => d >= from && d <= to));
    for (const calendar of calendars)
      for (const { day } of calendar.from(from, to + longest))
        for (const lead of leads) if (day - lead >= from && day - lead <= to) days.add(day - lead);
    yield* [...days].sort((a, b) => b - a);
  }
}

/** Some step may not be made before something linked has got somewhere, begun on the same day. */
const hangsOnOthers = ({ terms, moves }: Journey): boolean =>
  moves.some((move) => gatesOf(terms, move, 'sure').some((g) => g.notBefore !== undefined));

const leadsOf = ({ terms, moves }: Journey): number[] => [
  0,
  ...moves.map((m) => m.asked.leadDays),
  ...terms.model.rights.map((r) => r.right.leadDays ?? 0)
];

/** Last days of rights and offers that are asked of the day of the order. */
const orderEndsOf = ({ terms }: Journey): Day[] =>
  terms.model.rights
    .flatMap(({ right: r }) => (r.counts === 'order day' ? [r.until, r.offer?.until] : []))
    .flatMap((text) => {
      const day = text === undefined ? undefined : parseDateText(text);
      const read = day && readDay(day, terms.countsExpected);
      return typeof read === 'number' ? [read] : [];
    });

const CHUNK = 366;
