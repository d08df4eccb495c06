import type { Day } from '../date';
import type { WorkCalendar } from '../estate';
import { calendarOf } from './calendar-index';

/** Two windows of one calendar that are open at the same time for the same systems. */
export interface Overlap {
  /** Ids of the windows. */
  readonly windows: readonly [string, string];
  /** The first day on which they are. */
  readonly day: Day;
}

const LOOK_AHEAD = 732;

/** Windows that overlap within two years of a day; those for other teams or products do not meet. Sorted by day. */
export function findOverlaps(calendar: WorkCalendar, today: Day): Overlap[] {
  const byId = new Map(calendar.windows.map((w) => [w.id, w]));
  const meet = (a: readonly string[] | undefined, b: readonly string[] | undefined): boolean =>
    !a || !b || a.some((x) => b.includes(x));
  const found = new Map<string, Overlap>();
  const open: { readonly window: string; readonly end: number }[] = [];
  for (const o of calendarOf(calendar).from(today, today + LOOK_AHEAD)) {
    for (const other of open) {
      const [a, b] = [byId.get(other.window), byId.get(o.window)];
      if (other.end <= o.start || !a || !b || a === b) continue;
      if (!meet(a.teams, b.teams) || !meet(a.products, b.products)) continue;
      const key = [a.id, b.id].sort().join('\n');
      if (!found.has(key)) found.set(key, { windows: [a.id, b.id], day: o.day });
    }
    for (let i = open.length - 1; i >= 0; i--) if ((open[i]?.end ?? 0) <= o.start) open.splice(i, 1);
    open.push({ window: o.window, end: o.start + o.minutes });
  }
  return [...found.values()].sort((a, b) => a.day - b.day);
}
