import { RRuleTemporal } from 'rrule-temporal';
import { Temporal } from 'temporal-polyfill';
import type { Day } from './day';
import { steadyOffset } from './zone';

/** A rule of RFC 5545 in an IANA zone: `start` is a wall-clock time, `2031-03-10T22:00`; no `rule`: once. */
export interface Recurrence {
  readonly zone: string;
  readonly start: string;
  readonly rule?: string;
}

/** Why a recurrence cannot be read. */
export type RecurrenceFault = 'zone' | 'start' | 'rule' | 'not an instance';

const MS_PER_DAY = 86_400_000;
/** 31 Dec 9999: behind it nobody plans. */
const LAST_DAY = Date.UTC(9999, 11, 31) / MS_PER_DAY;
/** Steps of a rule tried in one expansion of a year; a rule that needs more is none people work by. */
const MOST_STEPS = 4_000;
/** Days expanded at a time. */
export const EXPANDED_DAYS = 366;

/**
 * The starts of a recurrence in epoch minutes, from the beginning of one day to the end of another, both in its zone; sorted. A
 * wall-clock start in a gap of a clock change counts with the offset before the gap, a repeated one is the first (RFC 5545 3.3.5).
 * Not more than `EXPANDED_DAYS` at a time; throws on what `findRecurrenceFault` finds.
 */
export function startsBetween(recurrence: Recurrence, first: Day, last: Day): readonly number[] {
  const { zone, start, rule } = recurrence;
  const key = JSON.stringify([zone, start, rule, first, last]);
  const known = EXPANDED.get(key);
  if (known) return known;
  const starts = expand(recurrence, first, last);
  if (EXPANDED.size >= MOST_EXPANDED) EXPANDED.clear();
  EXPANDED.set(key, starts);
  return starts;
}

/** Expansions made so far, by all that they turn on. */
const EXPANDED = new Map<string, readonly number[]>();
const MOST_EXPANDED = 2_000;

function expand(recurrence: Recurrence, first: Day, last: Day): number[] {
  const { zone, start } = recurrence;
  const from = first * MS_PER_DAY;
  const to = (Math.min(last, LAST_DAY) + 1) * MS_PER_DAY;
  const minuteOf = (wall: Temporal.PlainDateTime): number =>
    wall.toZonedDateTime(zone).epochMilliseconds / 60_000;
  if (recurrence.rule === undefined) {
    const once = Temporal.PlainDateTime.from(start);
    const day = once.toZonedDateTime('UTC').epochMilliseconds;
    return day >= from && day < to ? [minuteOf(once)] : [];
  }
  // On the wall alone: only then is each instance put into the zone.
  const starts = ruleOf(recurrence)
    .between(new Date(from), new Date(to - 1), true)
    .map((d) => {
      const wall = d.epochMilliseconds / 60_000;
      const offset = steadyOffset(wall, zone);
      return offset === undefined ? minuteOf(d.toPlainDateTime()) : wall - offset;
    });
  return [...new Set(starts)].sort((a, b) => a - b);
}

/**
 * What is amiss with a recurrence; undefined: nothing. A start that is no instance of its rule is an error, and so is a rule that recurs
 * too often to be expanded.
 */
export function findRecurrenceFault(recurrence: Recurrence): RecurrenceFault | undefined {
  let start: Temporal.PlainDateTime;
  try {
    Temporal.Instant.fromEpochMilliseconds(0).toZonedDateTimeISO(recurrence.zone);
  } catch {
    return 'zone';
  }
  try {
    start = Temporal.PlainDateTime.from(recurrence.start);
  } catch {
    return 'start';
  }
  if (recurrence.rule === undefined) return undefined;
  try {
    const day = Date.UTC(start.year, start.month - 1, start.day) / MS_PER_DAY;
    const own = start.toZonedDateTime(recurrence.zone).epochMilliseconds / 60_000;
    return startsBetween(recurrence, day, day + EXPANDED_DAYS - 1).includes(own)
      ? undefined
      : 'not an instance';
  } catch {
    return 'rule';
  }
}

/** The rule on a wall that keeps no zone; an end given as an instant is what the wall of the zone shows then. */
function ruleOf({ zone, start, rule = '' }: Recurrence): RRuleTemporal {
  const dtstart = start.replace(/[-:]/g, '').padEnd(15, '0');
  const local = rule.replace(/UNTIL=(\d{8}T\d{6})Z/i, (_, until: string) => {
    const shown = Temporal.PlainDateTime.from(until)
      .toZonedDateTime('UTC')
      .withTimeZone(zone)
      .toPlainDateTime();
    return `UNTIL=${shown.toString({ smallestUnit: 'second' }).replace(/[-:]/g, '')}Z`;
  });
  return new RRuleTemporal({
    rruleString: `DTSTART;TZID=UTC:${dtstart}\nRRULE:${local}`,
    temporal: Temporal,
    maxIterations: MOST_STEPS,
    maxCandidateEvaluations: MOST_STEPS
  });
}
