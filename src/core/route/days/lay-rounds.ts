import {
  type CrewShare,
  type Day,
  type Occurrence,
  type Placed,
  ROOM_WITHIN,
  type WindowRule
} from '../../date';
import type { Move } from '../move';
import { obtainedBy } from '../step/obtain';
import type { Booked, RoundTerms, Shares, Terms } from '../terms';
import { type Judgement, judgeMoves } from './judge';
import { blockOf, type Judging } from './lay-days';
import type { MoveDays } from './move-days';

/** Moves, and what they are judged by. */
export interface Journey {
  readonly terms: Terms;
  readonly moves: readonly Move[];
}

/** Pilots of another case, that go their own way first. */
export interface PilotJourney extends Journey {
  readonly pilots: number;
}

/** Systems that go one way (docs/reckoning.md 4b). */
export interface Party {
  readonly systems: number;
  /** How many of them go first. */
  readonly pilots: number;
  /** All others begin more than so many days after the last pilot has finished. */
  readonly watchDays: number;
  /** Pilots of other cases of the same team and product. */
  readonly first: readonly PilotJourney[];
}

/** Those that go together, on the days they fall on. */
export interface Round {
  readonly systems: number;
  readonly isPilot: boolean;
  readonly judgement: Judgement;
}

/**
 * Lays a way for a party: pilots first, then the rest, so many at once as the crews and the way of obtaining allow; each round whole,
 * from the first occurrence on that has room and crew for it, each of its blocks not before the same block of the round before.
 * Fewer systems than the party has come out where the pilots do not get there, or a round has no room in any window: then none
 * behind it has. Cost: a judging a round.
 */
export const layRounds = (journey: Journey, party: Party, how: Judging): readonly Round[] => [
  ...roundsOf(journey, party, how)
];

/** The same, round by round as they are laid: none behind one that is not asked for costs anything. */
export function* roundsOf({ terms, moves }: Journey, party: Party, how: Judging): Generator<Round> {
  const most = mostAtOnce(terms, moves);
  const crews = new Crews(waysAtOnce(terms, moves), terms.round?.taken);
  let before: readonly MoveDays[] = [];
  function* lay(systems: number, isPilot: boolean, from: Day): Generator<Round, boolean> {
    for (let left = systems; left > 0;) {
      const size = Math.min(left, most);
      const behind = before;
      const round = {
        ...terms.round,
        from,
        sharesOf: (move: number) => crews.sharesOf(size, behind[move], terms.round?.notBefore?.[move])
      };
      const judgement = judgeMoves({ ...terms, round }, moves, how);
      before = judgement.schedule.days;
      if (before.some((d) => d.roomless)) return false;
      for (const days of before) crews.book(days, size);
      yield { systems: size, isPilot, judgement };
      left -= size;
    }
    return true;
  }
  const pilots: Round[] = [];
  const piloting = lay(party.pilots, true, terms.from);
  let next = piloting.next();
  for (; !next.done; next = piloting.next()) {
    pilots.push(next.value);
    yield next.value;
  }
  if (!next.value) return;
  const piloted = pilotedBy(terms, party, how, pilots);
  if (piloted === undefined) return;
  yield* lay(party.systems - party.pilots, false, Math.max(terms.from, piloted + party.watchDays + 1));
}

/** The last day of all pilots; undefined where one of them does not get there for certain. Before everything where there are none. */
function pilotedBy(terms: Terms, party: Party, how: Judging, own: readonly Round[]): Day | undefined {
  const { from, leadsFrom, today } = terms;
  const rounds = [...own];
  for (const { pilots, ...journey } of party.first) {
    const laid = { ...journey, terms: { ...journey.terms, from, leadsFrom, today } };
    const others = layRounds(laid, { systems: pilots, pilots, watchDays: 0, first: [] }, how);
    if (others.reduce((sum, r) => sum + r.systems, 0) < pilots) return undefined;
    rounds.push(...others);
  }
  let last = -Infinity;
  for (const { judgement } of rounds) {
    const finish = judgement.schedule.days.at(-1)?.hop;
    if (!finish?.exact || judgement.findings.length > 0) return undefined;
    last = Math.max(last, finish.last);
  }
  return last;
}

/** The least of what the windows with room for some block of the way, and the ways of obtaining, allow at once. */
export function mostAtOnce(terms: Terms, moves: readonly Move[]): number {
  const { calendar } = terms;
  if (!calendar?.hasWindows) return Infinity;
  const shortest = Math.min(
    ...moves.flatMap((move) => {
      const { own, ownBack, patch, patchBack, nodes } = blockOf(terms, move);
      const patched = move.level === move.from.patch ? [] : [patch + patchBack];
      return [own + ownBack, Math.ceil((own + ownBack) / nodes), ...patched];
    })
  );
  const hasRoom = (window: WindowRule): boolean => window.minutes >= shortest;
  const crews = calendar.windows.filter(hasRoom).map((w) => w.crew ?? Infinity);
  return Math.min(waysAtOnce(terms, moves), ...crews);
}

const waysAtOnce = (terms: Terms, moves: readonly Move[]): number =>
  Math.min(...moves.map((move) => obtainedBy(terms, move)?.atOnce ?? Infinity));

/**
 * A day behind which no start can have all systems through by another: the windows up to it have fewer places, for the move that takes
 * longest, than there are systems. `none` where they have within ten years; that day itself where crews set no bound.
 */
export function lastWithRoom({ terms, moves }: Journey, systems: number, by: Day): Day | 'none' {
  const { calendar } = terms;
  const blocks = moves.map((move) => blockOf(terms, move));
  const longest = blocks.reduce((a, b) => (b.own > a.own ? b : a), blocks[0] as (typeof blocks)[number]);
  if (!calendar?.hasWindows || longest.own === 0 || longest.nodes > 1) return by;
  const most = waysAtOnce(terms, moves);
  let left = systems;
  // A year at a time, from the end back.
  for (let to = by; to > by - ROOM_WITHIN; to -= A_YEAR) {
    const occurrences = [...calendar.from(Math.max(to - A_YEAR + 1, by - ROOM_WITHIN), to)].reverse();
    for (const { crew = Infinity, minutes, day } of occurrences) {
      const atOnce = Math.min(crew, most);
      if (atOnce === Infinity) return by;
      left -= atOnce * Math.max(0, Math.floor((minutes - longest.ownBack) / longest.own));
      if (left <= 0) return day;
    }
  }
  return 'none';
}

const A_YEAR = 366;

/** How many systems are under work at which minute of each occurrence. */
class Crews {
  /** What the ways of obtaining allow. */
  readonly #most: number;
  readonly #booked = new Map<Occurrence, Booked[]>();
  readonly #taken: RoundTerms['taken'];

  /** @param taken what the crew does besides */
  constructor(most: number, taken: RoundTerms['taken']) {
    this.#most = most;
    this.#taken = taken;
  }

  book({ at, nodesAt, patchAt }: MoveDays, systems: number): void {
    for (const block of [...(patchAt ? [patchAt] : []), ...(nodesAt ?? (at ? [at] : []))]) {
      const list = this.#booked.get(block.occurrence) ?? [];
      this.#booked.set(block.occurrence, list);
      const { start } = block.occurrence;
      list.push({ begins: start + block.begin, ends: start + block.end, systems });
    }
  }

  /** What a round needs, with where the round before has the same blocks, and a minute before which nothing of it begins. */
  sharesOf(systems: number, before: MoveDays | undefined, earliest = -Infinity): Shares {
    const shareFrom = (notBefore: number): CrewShare => ({
      free: (occurrence, from, minutes) =>
        this.#free(occurrence, Math.max(from, notBefore, earliest), { minutes, systems })
    });
    const whole = beginOf(before?.at);
    return {
      own: (node) => shareFrom(beginOf(before?.nodesAt?.[node] ?? (node === 0 ? before?.at : undefined))),
      patch: shareFrom(before?.patchAt ? beginOf(before.patchAt) : before?.patch ? whole : -Infinity)
    };
  }

  #free(
    occurrence: Occurrence,
    from: number,
    { minutes, systems }: { readonly minutes: number; readonly systems: number }
  ): number | undefined {
    const own = this.#booked.get(occurrence) ?? [];
    const all = [...own, ...(this.#taken?.(occurrence) ?? [])];
    const { crew = Infinity } = occurrence;
    const under = (booked: readonly Booked[], minute: number): number =>
      booked.reduce((sum, b) => sum + (b.begins <= minute && minute < b.ends ? b.systems : 0), 0);
    const fits = (begins: number): boolean =>
      [begins, ...all.map((b) => b.begins).filter((m) => m > begins && m < begins + minutes)].every(
        (minute) => under(own, minute) + systems <= this.#most && under(all, minute) + systems <= crew
      );
    if (minutes === 0) return from;
    const starts = [from, ...all.map((b) => b.ends).filter((m) => m > from)].sort((a, b) => a - b);
    return starts.find(fits);
  }
}

const beginOf = (at: Placed | undefined): number => (at ? at.occurrence.start + at.begin : -Infinity);
