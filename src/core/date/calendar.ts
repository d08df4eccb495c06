import type { Day } from './day';
import { mayOverlap } from './overlap';
import { EXPANDED_DAYS, type Recurrence, startsBetween } from './recurrence';
import { dayOfMinute } from './zone';

/** A stretch of calendar in which work may be done, again and again. */
export interface WindowRule extends Recurrence {
  readonly id: string;
  readonly minutes: number;
  /** How many systems may be under work at once; absent: any number. */
  readonly crew?: number;
  /** Windows with the same one are worked by the same people. */
  readonly crewKey?: string;
}

/** Days on which nothing is touched, both included. */
export interface Freeze {
  readonly first: Day;
  readonly last: Day;
  readonly reason?: string;
}

/** One stretch of a window's rule: [start, start + minutes), in epoch minutes. */
export interface Occurrence {
  readonly window: string;
  readonly zone: string;
  readonly start: number;
  readonly minutes: number;
  readonly crew?: number;
  readonly crewKey?: string;
  /** The day it starts on, and the day its last minute falls on, in its zone. */
  readonly day: Day;
  readonly last: Day;
}

/** Where in the calendar a system's work stands: behind a block. */
export interface Slot {
  readonly occurrence: Occurrence;
  /** Minutes of the occurrence that its blocks so far take. */
  readonly end: number;
  /** Minutes that the ways back of all of them take. */
  readonly back: number;
}

/** What is laid as one: its careful minutes, and those of its way back. */
export interface Block {
  readonly minutes: number;
  readonly back: number;
}

/** Where a block has come to lie: the slot behind it, and the minute of the occurrence it begins at. */
export interface Placed extends Slot {
  readonly begin: number;
}

/** Where an occurrence may start. */
export interface Within {
  readonly from: Day;
  readonly until: Day;
  /** Not before this epoch minute. */
  readonly after?: number;
  /** Where several systems go in rounds: when those who do the work are free. */
  readonly share?: CrewShare;
}

/** What one round needs of a crew. */
export interface CrewShare {
  /** The first epoch minute from one on at which so many minutes of an occurrence are free for it; undefined: none in it. */
  free(occurrence: Occurrence, from: number, minutes: number): number | undefined;
}

/** How many days ahead of the day laid from room is looked for. */
export const ROOM_WITHIN = 3660;

/**
 * When work may be done on a system (docs/reckoning.md 4b): the occurrences of its windows that touch no freeze. What is worked out
 * once is kept; the same rules give the same occurrences whatever was asked before.
 */
export class Calendar {
  /** Equal for calendars that say the same. */
  readonly key: string;
  readonly windows: readonly WindowRule[];
  readonly freezes: readonly Freeze[];
  /** Some occurrence could begin before another ends. */
  readonly mayOverlap: boolean;
  /** Minutes of the longest window: what needs more has room nowhere. */
  readonly #longest: number;
  readonly #chunks = new Map<number, readonly Occurrence[]>();

  /** @param windows undefined: any day outside the freezes; none: no day at all */
  constructor(windows: readonly WindowRule[] | undefined, freezes: readonly Freeze[]) {
    this.hasWindows = windows !== undefined;
    this.windows = windows ?? [];
    this.freezes = [...freezes].sort((a, b) => a.first - b.first || a.last - b.last);
    this.mayOverlap = mayOverlap(this.windows);
    this.#longest = Math.max(...this.windows.map((w) => w.minutes), -Infinity);
    this.key = JSON.stringify([windows, this.freezes]);
  }

  /** Work is laid into windows; else onto days outside the freezes. */
  readonly hasWindows: boolean;

  /**
   * The earliest place of a block in an occurrence that starts within some days, behind what is laid already: it has room where it
   * fits with the ways back of all that lies in that occurrence. Undefined where none has.
   */
  place(
    { minutes, back }: Block,
    { from, until, after = -Infinity, share }: Within,
    behind?: Slot
  ): Placed | undefined {
    if (minutes + back > this.#longest) return undefined;
    const lay = (occurrence: Occurrence, earliest: number, backs: number): Placed | undefined => {
      const at = share ? share.free(occurrence, occurrence.start + earliest, minutes) : undefined;
      const begin = share ? (at ?? Infinity) - occurrence.start : earliest;
      return begin + minutes + backs <= occurrence.minutes
        ? { occurrence, begin, end: begin + minutes, back: backs }
        : undefined;
    };
    if (behind && behind.occurrence.day >= from && behind.occurrence.start >= after) {
      const laid = lay(behind.occurrence, behind.end, behind.back + back);
      if (laid) return laid;
    }
    const free = Math.max(after, behind ? behind.occurrence.start + behind.end : -Infinity);
    for (const occurrence of this.from(Math.max(from, behind?.occurrence.day ?? from), until)) {
      if (occurrence.start < free || occurrence === behind?.occurrence) continue;
      const laid = lay(occurrence, 0, back);
      if (laid) return laid;
    }
    return undefined;
  }

  /** Occurrences that start on a day or later, up to another, in turn. */
  *from(first: Day, last: Day): Generator<Occurrence> {
    if (this.windows.length === 0) return;
    for (let chunk = Math.floor(first / EXPANDED_DAYS); chunk * EXPANDED_DAYS <= last; chunk++)
      yield* this.#within(this.#chunk(chunk), first, last);
  }

  /** Of occurrences in turn those that start within some days. */
  *#within(occurrences: readonly Occurrence[], first: Day, last: Day): Generator<Occurrence> {
    let [low, high] = [0, occurrences.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((occurrences[middle] as Occurrence).day < first) low = middle + 1;
      else high = middle;
    }
    for (let i = low; i < occurrences.length; i++) {
      const occurrence = occurrences[i] as Occurrence;
      if (occurrence.day > last) return;
      yield occurrence;
    }
  }

  /** The first of some days, so many in a row, that no freeze touches. */
  freeDay(first: Day, days: number): Day {
    let day = first;
    for (const freeze of this.freezes)
      if (freeze.first <= day + days - 1 && freeze.last >= day) day = freeze.last + 1;
    return day;
  }

  /** The day, in its zone, that the last minute of what ends at a minute of an occurrence falls on. */
  static dayAt({ start, zone, day, last, minutes }: Occurrence, end: number): Day {
    return day === last && end <= minutes ? day : dayOfMinute(start + Math.max(0, end - 1), zone);
  }

  #chunk(n: number): readonly Occurrence[] {
    const known = this.#chunks.get(n);
    if (known) return known;
    const made = this.windows
      .flatMap((window) =>
        startsBetween(window, n * EXPANDED_DAYS, (n + 1) * EXPANDED_DAYS - 1).map((start): Occurrence => ({
          window: window.id,
          zone: window.zone,
          start,
          minutes: window.minutes,
          ...(window.crew === undefined ? {} : { crew: window.crew }),
          ...(window.crewKey === undefined ? {} : { crewKey: window.crewKey }),
          day: dayOfMinute(start, window.zone),
          last: dayOfMinute(start + window.minutes - 1, window.zone)
        }))
      )
      .filter((o) => !this.freezes.some((f) => f.first <= o.last && f.last >= o.day))
      .sort((a, b) => a.start - b.start || (a.window < b.window ? -1 : 1));
    this.#chunks.set(n, made);
    return made;
  }
}
