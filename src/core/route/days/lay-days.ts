import type { PatchModel } from '../../compile';
import type { Run } from '../../condition';
import {
  type Calendar,
  type DateInterval,
  type Day,
  type MaybeDay,
  readDay,
  ROOM_WITHIN,
  type StepDays
} from '../../date';
import type { Move } from '../move';
import { awaitRight } from './await-right';
import { type BlockMinutes, layInWindows, type ToLay } from './lay-in-windows';
import type { MoveDays } from './move-days';
import { offerWait } from '../step/offer-wait';
import type { RouteGate, Terms } from '../terms';

/** A step spreads over more days than one past this many careful minutes. */
const MINUTES_A_DAY = 1440;

/** How a sequence of moves is judged: with its end as the target, so that settling and resting bind there; in which run. */
export interface Judging {
  readonly isTarget: boolean;
  readonly run: Run;
}

export interface Schedule {
  readonly days: readonly MoveDays[];
  /** Latest publication, settling or first open day over all steps. */
  readonly waitsUntil: MaybeDay;
  /** Places of moves whose stay out of service cannot be brought within the pass days. */
  readonly overstays: readonly number[];
  /** Place of the last move that was put into a later window, so that the stay behind it keeps the pass days. */
  readonly putOff?: number;
}

interface Moment {
  readonly day: Day;
  readonly exact: boolean;
}

/**
 * Gives every step its day: the earliest that the steps before it, publication, settling and first
 * open days allow, each counted step on days of its own, its patch with it or, where the step must wait, before it.
 * A step onto a release out of service is put off just so far that the stay there keeps the pass days.
 * Where the last move's release is the target, settling days bind every step that arrives on it.
 * Cost: O(moves) per put-off, at most one put-off a move.
 */
export function layDays(terms: Terms, moves: readonly Move[], how: Judging): Schedule {
  if (terms.calendar?.hasWindows) return layIntoWindows(terms, moves, how);
  const notBefore: MaybeDay[][] = moves.map(() => []);
  const overstays: number[] = [];
  // Behind a freeze both steps may come to lie together.
  const lastFrozen =
    terms.calendar?.freezes.reduce((last, f) => Math.max(last, f.last), -Infinity) ?? -Infinity;
  let laid = layForward(terms, moves, how, { notBefore });
  const tooLong = (): Overstay | undefined =>
    findOverstay(terms, { moves, days: laid.days, run: how.run }, overstays);
  for (let at = tooLong(); at; at = tooLong()) {
    const bounds = notBefore[at.enter] ?? [];
    bounds.push(at.until);
    const next = layForward(terms, moves, how, { notBefore });
    const pushes = at.until !== 'unknown' && firstDay(next.days[at.leave]) > firstDay(laid.days[at.leave]);
    if (pushes && firstDay(laid.days[at.enter]) > lastFrozen) {
      bounds.pop();
      overstays.push(at.enter);
    } else laid = next;
  }
  return { ...laid, overstays };
}

/**
 * Where work is laid into windows: a stay out of service that is too long puts the step onto it into the next occurrence, and what
 * follows is laid anew, until it fits or no occurrence has room.
 */
function layIntoWindows(terms: Terms, moves: readonly Move[], how: Judging): Schedule {
  const after: (number | undefined)[] = moves.map(() => undefined);
  const notBefore: MaybeDay[][] = moves.map(() => []);
  const overstays: number[] = [];
  let putOff: number | undefined;
  for (;;) {
    const laid = layForward(terms, moves, how, { notBefore, after });
    const at = findOverstay(terms, { moves, days: laid.days, run: how.run }, overstays);
    const entered = at && laid.days[at.enter]?.at;
    if (!at) return { ...laid, overstays, ...(putOff === undefined ? {} : { putOff }) };
    if (at.until === 'unknown' || !entered) overstays.push(at.enter);
    else {
      putOff = at.enter;
      after[at.enter] = entered.occurrence.start + 1;
      // None that ends a day or more before will do either.
      notBefore[at.enter] = [at.until - 1 - Math.ceil(entered.occurrence.minutes / MINUTES_A_DAY)];
    }
  }
}

/** What puts single moves off. */
interface PutOff {
  readonly notBefore: readonly (readonly MaybeDay[])[];
  /** Epoch minutes, by move. */
  readonly after?: readonly (number | undefined)[];
}

function layForward(
  terms: Terms,
  moves: readonly Move[],
  { isTarget: settles, run }: Judging,
  { notBefore, after }: PutOff
): { days: MoveDays[]; waitsUntil: MaybeDay } {
  const target = settles ? moves[moves.length - 1]?.to.release : undefined;
  const days: MoveDays[] = [];
  let waitsUntil: MaybeDay = terms.today;
  for (const [at, move] of moves.entries()) {
    const placed = layMove(terms, move, {
      at,
      before: arrivalBefore(moves, days, at),
      isTarget: move.to.release === target,
      notBefore: notBefore[at] ?? NO_DAYS,
      after: after?.[at],
      run
    });
    waitsUntil = laterWait(waitsUntil, placed.waitsUntil);
    days.push(placed.days);
  }
  return { days, waitsUntil };
}

/**
 * The schedule of a route one move longer than `before`, whose days all stay. Undefined where they would not: where
 * the stay that the last move ends is too long, so that the step onto it has to be put off.
 */
export function layNext(
  terms: Terms,
  before: Schedule,
  moves: readonly Move[],
  { isTarget, run }: Judging
): Schedule | undefined {
  const last = moves.length - 1;
  const move = moves[last] as Move;
  const placed = layMove(terms, move, {
    at: last,
    before: arrivalBefore(moves, before.days, last),
    isTarget,
    notBefore: NO_DAYS,
    after: undefined,
    run
  });
  const days = [...before.days, placed.days];
  if (move.from.release !== move.to.release && overstayAt(terms, { moves, days, run }, last))
    return undefined;
  return { days, waitsUntil: laterWait(before.waitsUntil, placed.waitsUntil), overstays: before.overstays };
}

interface Around extends Judging {
  /** Place of the move in the route, and what lies before it. */
  readonly at: number;
  readonly before: Arrival | undefined;
  readonly notBefore: readonly MaybeDay[];
  /** Not in an occurrence that starts before this epoch minute. */
  readonly after: number | undefined;
}

const NO_DAYS: readonly MaybeDay[] = [];

interface Arrival {
  readonly move: Move;
  readonly days: MoveDays;
}

function arrivalBefore(moves: readonly Move[], days: readonly MoveDays[], at: number): Arrival | undefined {
  const move = moves[at - 1];
  const laid = days[at - 1];
  return move && laid && { move, days: laid };
}

function layMove(
  terms: Terms,
  move: Move,
  { at, before, isTarget, notBefore, after, run }: Around
): { days: MoveDays; waitsUntil: MaybeDay } {
  const free = freeAt(terms, at, before);
  const patch = patchOf(terms, move);
  const patchWait = patch?.published ? readDay(patch.published, terms.countsExpected) : undefined;
  let waitsUntil: MaybeDay = terms.today;
  let earliest = free;
  const wait = (until: MaybeDay | undefined): void => {
    if (until === undefined) return;
    earliest = notEarlier(terms, earliest, until);
    waitsUntil = laterWait(waitsUntil, until);
  };
  // Publication (and that of the level arrived at), settling, first open day.
  wait((isTarget ? terms.settled : terms.publication)[move.to.release]);
  if (move.hop) wait(maybe(terms, terms.model.releases[move.to.release]?.patches[move.to.patch]?.published));
  wait(maybe(terms, (move.hop ?? move.change)?.opens));
  wait(offerWait(terms, move, run));
  if (patchWait !== undefined) waitsUntil = laterWait(waitsUntil, patchWait);
  for (const until of notBefore) earliest = notEarlier(terms, earliest, until);
  // Lead days and what linked systems need first put the step off, and are no waits of its own.
  if (move.asked.leadDays > 0) {
    const comes = terms.leadsFrom + move.asked.leadDays;
    terms.notes.turnOn(comes);
    earliest = notEarlier(terms, earliest, comes);
  }
  for (const gate of gatesOf(terms, move, run)) {
    earliest = notEarlier(
      terms,
      earliest,
      terms.calendar?.hasWindows ? dayAfter(gate.notBefore) : gate.notBefore
    );
    if (gate.waits !== undefined) waitsUntil = laterWait(waitsUntil, gate.waits);
  }
  const first = patch && { patch, from: notEarlier(terms, free, patchWait) };
  const { calendar } = terms;
  const place = (day: Day): MoveDays =>
    calendar
      ? placeInCalendar(terms, calendar, move, {
          earliest: { day, exact: earliest.exact },
          behind: before?.days.at,
          until: terms.from + ROOM_WITHIN,
          ...(terms.round?.sharesOf ? { shares: terms.round.sharesOf(at) } : {}),
          ...(first ? { first } : {}),
          ...(after === undefined ? {} : { after })
        })
      : placeMove(terms, move, { day, exact: earliest.exact }, first);
  const days = awaitRight(terms, { move, run }, place, earliest.day);
  terms.notes.lastLaid = Math.max(terms.notes.lastLaid, days.hop.last, days.patch?.last ?? -Infinity);
  return { days, waitsUntil };
}

/** Where a move may begin: behind the one before, and behind what an order puts before it. */
function freeAt(terms: Terms, at: number, before: Arrival | undefined): Moment {
  const free = freeBehind(terms, before);
  const behind = terms.round?.behind?.[at];
  return behind === undefined ? free : { ...free, day: Math.max(free.day, behind + 1) };
}

/** Where what comes next may begin: the day after, or behind the block in its occurrence. */
function freeBehind(terms: Terms, before: Arrival | undefined): Moment {
  if (!before) return { day: terms.round?.from ?? terms.from, exact: true };
  const { hop, at } = before.days;
  const watched = watchedUntil(terms, before.move, hop.last);
  const day = watched === undefined ? (at ? at.occurrence.day : hop.last + 1) : watched + 1;
  return { day, exact: hop.exact };
}

/**
 * The last day on which an arrival is watched before anything else is done: so many whole days behind it, at most to the end of the
 * release's service. Undefined where nothing is watched: on a release out of service, or with no watch days.
 */
function watchedUntil({ goal, serviceEnd }: Terms, { kind, to }: Move, arrived: Day): Day | undefined {
  const days = goal.watchDays ?? 0;
  const end = serviceEnd[to.release];
  if (days === 0 || kind === 'edition change' || (typeof end === 'number' && end < arrived)) return undefined;
  return typeof end === 'number' ? Math.min(arrived + days, end) : arrived + days;
}

/** What a linked system needs first has ended the day before, where work is laid into windows. */
const dayAfter = (day: MaybeDay | undefined): MaybeDay | undefined =>
  typeof day === 'number' ? day + 1 : day;

/** Into windows, onto days outside the freezes, or onto any days. */
function placeInCalendar(terms: Terms, calendar: Calendar, move: Move, toLay: ToLay): MoveDays {
  if (calendar.hasWindows) {
    const laid = layInWindows(calendar, blockOf(terms, move), toLay);
    return laid ?? { ...placeMove(terms, move, toLay.earliest, toLay.first), roomless: true };
  }
  let { earliest, first } = toLay;
  for (;;) {
    const days = placeMove(terms, move, earliest, first);
    const alone = days.patch && days.patch.last < days.hop.first ? days.patch : undefined;
    const patchFrom = alone && calendar.freeDay(alone.first, alone.last - alone.first + 1);
    const hopFrom = calendar.freeDay(days.hop.first, days.hop.last - days.hop.first + 1);
    if (first && alone && patchFrom !== undefined && patchFrom > alone.first)
      first = { ...first, from: { ...first.from, day: patchFrom } };
    else if (hopFrom > days.hop.first) earliest = { ...earliest, day: hopFrom };
    else return days;
  }
}

/**
 * The minutes of a move's block and of its patch, with their ways back, over all nodes: what the hop publishes, none where there is no
 * way back; else the site's figure, else as long as the way.
 */
export function blockOf(terms: Terms, move: Move): BlockMinutes {
  const { nodes, wayBackMinutes } = terms;
  const own = carefulMinutesOf(move) * nodes + move.asked.carefulMinutes;
  const patch = (patchOf(terms, move)?.carefulMinutes ?? 0) * nodes;
  const published = move.hop?.hop.doing?.wayBack;
  const figure = published?.minutes === undefined ? undefined : published.minutes * nodes;
  return {
    own,
    ownBack: published?.until === 'never' ? 0 : (figure ?? wayBackMinutes ?? own),
    patch,
    patchBack: wayBackMinutes ?? patch,
    nodes: move.hop?.hop.nodeByNode ? nodes : 1
  };
}

/** How pairings stand where a release is arrived at. */
export function gatesOf(terms: Terms, move: Move, run: Run): readonly RouteGate[] {
  if (move.kind === 'edition change' || terms.model.needs.pairings.length === 0) return NO_GATES;
  const gates = terms.gates(move.to, run, terms.today, terms.from);
  for (const { pairing, met, cut } of gates)
    if (met || cut) terms.notes.add({ met: met ? [`pairing ${pairing}`] : [], cut });
  return gates;
}

const NO_GATES: readonly RouteGate[] = [];

const maybe = (terms: Terms, date: DateInterval | undefined): MaybeDay | undefined =>
  date && readDay(date, terms.countsExpected);

const patchOf = (terms: Terms, move: Move): PatchModel | undefined =>
  move.level === move.from.patch ? undefined : terms.model.releases[move.from.release]?.patches[move.level];

function placeMove(
  terms: Terms,
  move: Move,
  earliest: Moment,
  first: { readonly patch: PatchModel; readonly from: Moment } | undefined
): MoveDays {
  const own = carefulMinutesOf(move) * terms.nodes + move.asked.carefulMinutes;
  if (!first) return { hop: span(earliest, own) };
  const { patch, from } = first;
  const alone = span(from, patch.carefulMinutes * terms.nodes);
  if (from.exact && earliest.exact && earliest.day > alone.last)
    return { patch: alone, hop: span(earliest, own) };
  const together = span(
    { day: Math.max(earliest.day, from.day), exact: earliest.exact && from.exact },
    own + patch.carefulMinutes * terms.nodes
  );
  return { patch: { ...together, last: together.first }, hop: together };
}

/** Careful minutes of a move on one node, without patch, cures and work; 0 where nobody has said. */
export const carefulMinutesOf = (move: Pick<Move, 'hop' | 'change'>): number =>
  (move.hop?.hop ?? move.change?.change)?.carefulMinutes ?? 0;
/** Typical minutes of a move on one node, without patch, cures and work; 0 where nobody has said. */
export const typicalMinutesOf = (move: Move): number =>
  (move.hop?.hop ?? move.change?.change)?.typicalMinutes ?? 0;

const span = (from: Moment, minutes: number): StepDays => ({
  first: from.day,
  last: from.day + Math.max(1, Math.ceil(minutes / MINUTES_A_DAY)) - 1,
  exact: from.exact
});

/** An unknown wait is later than today, nobody knows how much. */
function notEarlier(terms: Terms, moment: Moment, wait: MaybeDay | undefined): Moment {
  if (wait === undefined) return moment;
  if (wait === 'unknown') {
    terms.notes.turnOn(terms.today + 1);
    return { day: Math.max(moment.day, terms.today + 1), exact: false };
  }
  return wait > moment.day ? { day: wait, exact: moment.exact } : moment;
}

const laterWait = (a: MaybeDay, b: MaybeDay): MaybeDay =>
  a === 'unknown' || b === 'unknown' ? 'unknown' : Math.max(a, b);
const firstDay = (days: MoveDays | undefined): Day => days?.hop.first ?? 0;

/** Moves on their days, in a run. */
interface Laid {
  readonly moves: readonly Move[];
  readonly days: readonly MoveDays[];
  readonly run: Run;
}

interface Overstay {
  readonly enter: number;
  readonly leave: number;
  readonly until: MaybeDay;
}

/**
 * The last stay on a stepping stone that is longer out of service than the pass days, with the day the step onto
 * it must be put off to; `unknown` where the leaving day is unknown, which in the sure run counts as too long.
 */
function findOverstay(terms: Terms, laid: Laid, settled: readonly number[]): Overstay | undefined {
  for (let leave = laid.moves.length - 1; leave > 0; leave--) {
    const found = overstayAt(terms, laid, leave);
    if (found && !settled.includes(found.enter)) return found;
  }
  return undefined;
}

/** The stay that the move at `leave` ends, where it is too long. */
function overstayAt(terms: Terms, { moves, days, run }: Laid, leave: number): Overstay | undefined {
  const stone = moves[leave]?.from.release;
  if (stone === undefined || stone === moves[leave]?.to.release) return undefined;
  let enter = leave - 1;
  while (enter >= 0 && moves[enter]?.from.release === stone) enter--;
  const end = terms.serviceEnd[stone];
  const entered = days[enter]?.hop;
  const left = days[leave]?.hop;
  if (enter < 0 || end === undefined || end === 'unknown' || !entered || !left) return undefined;
  const length = entered.last - entered.first;
  if (left.first - Math.max(entered.last, end) > terms.goal.passDays) {
    terms.notes.overstays++;
    return { enter, leave, until: left.first - terms.goal.passDays - length };
  }
  if (!entered.exact || left.exact) return undefined;
  terms.notes.overstays++;
  terms.notes.meet(`pass days ${terms.model.releases[stone]?.release.id ?? ''}`);
  return run === 'sure' ? { enter, leave, until: 'unknown' } : undefined;
}
