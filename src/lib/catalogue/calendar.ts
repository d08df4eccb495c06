import { dayOf, formatDay, type PhaseName } from '$core/date';
import type { ProductModel, ReleaseModel } from '$core/compile';

/** One release on the calendar: its stretches of service, in days, from the day it came out. */
export interface CalendarTread {
  readonly id: string;
  readonly name: string;
  /** Undefined where nobody has said when it comes out. */
  readonly start?: number;
  readonly announced: boolean;
  readonly phases: readonly {
    readonly phase: PhaseName;
    readonly from: number;
    readonly to: number;
    readonly vague: boolean;
  }[];
  /** A phase whose end nobody knows. */
  readonly open: boolean;
}

export interface CalendarScale {
  readonly first: number;
  readonly last: number;
  readonly years: readonly { readonly year: number; readonly day: number }[];
}

/** Releases from the latest down, each with its stretches. */
export const treadsOf = (model: ProductModel): CalendarTread[] => [...model.releases].reverse().map(treadOf);

function treadOf(model: ReleaseModel): CalendarTread {
  const stated = Object.values(model.publication).flatMap((d) => ('first' in d ? [d] : []));
  const start = stated.length > 0 ? Math.min(...stated.map((d) => d.last)) : undefined;
  const phases: CalendarTread['phases'][number][] = [];
  let from =
    start ??
    Math.min(...model.service.flatMap((p) => ('first' in p.until ? [p.until.first - 365] : [])), Infinity);
  for (const { phase, until } of [...model.service].sort((a, b) => order(a.phase) - order(b.phase))) {
    if (!('last' in until) || !Number.isFinite(from)) continue;
    phases.push({
      phase,
      from,
      to: Math.max(from, until.last),
      vague: until.certainty !== 'published' || until.first !== until.last
    });
    from = Math.max(from, until.last);
  }
  return {
    id: model.release.id,
    name: model.release.name ?? model.release.id,
    ...(start === undefined ? {} : { start }),
    announced: stated.some((d) => d.certainty !== 'published'),
    phases,
    open: model.service.length === 0 || model.service.some((p) => p.until.certainty === 'unknown')
  };
}

const order = (phase: PhaseName): number => ['full', 'security', 'extension'].indexOf(phase);

/** From the first day anything is said of to the last, in whole years, today among them. */
export function scaleOf(treads: readonly CalendarTread[], today: number): CalendarScale {
  const days = treads.flatMap((t) => [
    ...(t.start === undefined ? [] : [t.start]),
    ...t.phases.flatMap((p) => [p.from, p.to])
  ]);
  const yearOf = (day: number): number => Number(formatDay(day).slice(0, 4));
  const from = yearOf(Math.min(today, ...days));
  const to = yearOf(Math.max(today, ...days)) + 1;
  const years = Array.from({ length: to - from + 1 }, (_, i) => ({
    year: from + i,
    day: dayOf(from + i, 1, 1) ?? 0
  }));
  return { first: years[0]?.day ?? today, last: years.at(-1)?.day ?? today + 1, years };
}

/** Share of the width at which a day stands, from 0 to 1. */
export const shareOf = (scale: CalendarScale, day: number): number =>
  Math.min(1, Math.max(0, (day - scale.first) / Math.max(1, scale.last - scale.first)));
