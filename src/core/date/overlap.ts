import type { Recurrence } from './recurrence';

/** A window as far as the days and minutes it opens at go. */
type Open = Recurrence & { readonly minutes: number };

const DAY = 1440;
const WEEK = 7 * DAY;
/** A clock change moves an end that far towards the next start. */
const CLOCK_CHANGE = 180;
const WEEKDAYS = ['SU', 'MO', 'TU', 'WE', 'TH', 'FR', 'SA'];

/**
 * Whether some stretch of windows could begin before another has ended; false only where the weekdays and hours of all rule it out,
 * whatever dates they fall on.
 */
export function mayOverlap(windows: readonly Open[]): boolean {
  const stretches: { readonly from: number; readonly to: number }[] = [];
  for (const window of windows) {
    const weekdays = weekdaysOf(window);
    const minute = Number(window.start.slice(11, 13)) * 60 + Number(window.start.slice(14, 16));
    if (!weekdays || !Number.isFinite(minute)) return true;
    for (const weekday of weekdays) {
      const from = weekday * DAY + minute;
      stretches.push({ from, to: from + window.minutes + CLOCK_CHANGE });
    }
  }
  stretches.sort((a, b) => a.from - b.from);
  return stretches.some(({ to }, i) => {
    const next = stretches[i + 1]?.from ?? (stretches[0]?.from ?? 0) + WEEK;
    return to > next;
  });
}

/** Days of the week, from Sunday, that a window can open on, at most once each; undefined where that cannot be told. */
function weekdaysOf({ start, rule }: Open): readonly number[] | undefined {
  const own = new Date(`${start.slice(0, 10)}T00:00Z`).getUTCDay();
  if (Number.isNaN(own)) return undefined;
  if (rule === undefined) return [own];
  const parts = new Map(
    rule
      .toUpperCase()
      .split(';')
      .map((p) => [p.slice(0, p.indexOf('=')), p.slice(p.indexOf('=') + 1)] as const)
  );
  const often = parts.get('FREQ') ?? '';
  if (!['DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY'].includes(often)) return undefined;
  if (['BYHOUR', 'BYMINUTE', 'BYSECOND'].some((p) => parts.has(p))) return undefined;
  const days = parts.get('BYDAY');
  if (days === undefined) return often === 'WEEKLY' ? [own] : WEEKDAYS.map((_, i) => i);
  const named = days.split(',').map((d) => WEEKDAYS.indexOf(d.trim().slice(-2)));
  return named.includes(-1) ? undefined : [...new Set(named)];
}
