import { calendarDate, type Day, dayOf } from '$core/date';

/** Pairs of day and place, increasing in both; straight between them. */
export interface TimeScale {
  readonly breaks: readonly (readonly [day: Day, x: number])[];
  readonly bend: { readonly from: Day; readonly to: Day };
}

export interface BendInput {
  readonly first: Day;
  readonly last: Day;
  /** Days that must lie in the middle: today, the planned hops, the deadline where it is near. */
  readonly work: readonly Day[];
  /** Days of the climb, given room of their own so that hops a day apart are still steps. */
  readonly climb: readonly Day[];
  readonly width: number;
  readonly left: number;
  /** The stretch that takes the middle, where somebody has chosen it. */
  readonly bend?: { readonly from: Day; readonly to: Day };
}

const DAYS_BEFORE = 40;
const DAYS_AFTER = 45;
const MIDDLE_SHARE = 0.5;
const STEP_WIDTH = 46;
const CLIMB_SHARE = 0.6;
/** Days the middle holds at least. */
const LEAST_BEND = 14;

/**
 * Time bent so that the months in which the work happens take the middle of the width, the years before and after
 * being pressed to the sides; inside the middle, the days of the climb get at least room for their steps.
 */
export function bendTime({ first, last, work, climb, width, left, bend }: BendInput): TimeScale {
  const from = Math.max(first, bend?.from ?? Math.min(...work) - DAYS_BEFORE);
  const to = Math.max(from + LEAST_BEND, Math.min(last, bend?.to ?? Math.max(...work) + DAYS_AFTER));
  const outside = from - first + (last - to);
  const middle = outside <= 0 ? 1 : Math.max(MIDDLE_SHARE, (to - from) / (last - first));
  const share = from <= first ? 0 : to >= last ? 1 : 0.15 + (0.7 * (from - first)) / outside;
  const start = left + width * (1 - middle) * share;
  const inside = bendClimb({ from, to, climb, start, width: width * middle });
  const breaks: (readonly [Day, number])[] = [[first, left], ...inside, [last, left + width]];
  return {
    breaks: breaks.filter(([day], i) => i === 0 || day > (breaks[i - 1]?.[0] ?? -Infinity)),
    bend: { from, to }
  };
}

function bendClimb(middle: {
  from: Day;
  to: Day;
  climb: readonly Day[];
  start: number;
  width: number;
}): (readonly [Day, number])[] {
  const { from, to, climb, start, width } = middle;
  const ends: (readonly [Day, number])[] = [
    [from, start],
    [to, start + width]
  ];
  const [low, high] = [Math.max(from, Math.min(...climb)), Math.min(to, Math.max(...climb) + 1)];
  const wanted = Math.min(width * CLIMB_SHARE, STEP_WIDTH * new Set(climb).size);
  const even = ((high - low) / (to - from)) * width;
  if (climb.length < 2 || high <= low || even >= wanted || to - from <= high - low) return ends;
  const before = ((width - wanted) * (low - from)) / (to - from - (high - low));
  return [
    [from, start],
    [low, start + before],
    [high, start + before + wanted],
    [to, start + width]
  ];
}

/** The place of a day; days outside the scale stand at its ends. */
export function placeOf({ breaks }: TimeScale, day: Day): number {
  for (let i = 1; i < breaks.length; i++) {
    const [d0, x0] = breaks[i - 1] as readonly [Day, number];
    const [d1, x1] = breaks[i] as readonly [Day, number];
    if (day <= d1) return day <= d0 ? x0 : x0 + ((day - d0) / (d1 - d0)) * (x1 - x0);
  }
  return breaks[breaks.length - 1]?.[1] ?? 0;
}

export interface Tick {
  readonly day: Day;
  readonly month: number;
  readonly year: number;
  readonly kind: 'year' | 'month';
}

/** First days of years outside the bend and of months inside it. */
export function ticksOf(scale: TimeScale): Tick[] {
  const first = scale.breaks[0]?.[0] ?? 0;
  const last = scale.breaks[scale.breaks.length - 1]?.[0] ?? 0;
  const ticks: Tick[] = [];
  for (
    let { year, month } = calendarDate(first);
    ;
    [year, month] = month === 12 ? [year + 1, 1] : [year, month + 1]
  ) {
    const day = dayOf(year, month, 1);
    if (day === undefined || day > last) return ticks;
    const inside = day >= scale.bend.from && day <= scale.bend.to;
    if (day >= first && (inside || month === 1))
      ticks.push({ day, month, year, kind: inside ? 'month' : 'year' });
  }
}

/** The bend moved by so many days, or wider and narrower around its middle; kept within what is drawn. */
export function moveBend(
  { bend, breaks }: TimeScale,
  { days = 0, zoom = 1 }: { readonly days?: number; readonly zoom?: number }
): { from: Day; to: Day } {
  const first = breaks[0]?.[0] ?? bend.from;
  const last = breaks[breaks.length - 1]?.[0] ?? bend.to;
  const length = Math.max(LEAST_BEND, Math.min(last - first, Math.round((bend.to - bend.from) / zoom)));
  const middle = (bend.from + bend.to) / 2 + days;
  const from = Math.round(Math.max(first, Math.min(last - length, middle - length / 2)));
  return { from, to: from + length };
}
