import { monthName } from '$core/wording';
import type { Tick } from './scale';

/** Of a sign, and before the words, px. */
const CHAR = 7;
const OFFSET = 3;
const GAP = 8;

/** The words of an axis: what would lie over the words before it gives way. The first month has its year, as every January. */
export function labelsOf(
  ticks: readonly (Tick & { readonly x: number })[],
  width: number
): { readonly x: number; readonly words: string }[] {
  const firstMonth = ticks.find((t) => t.kind === 'month');
  let free = -Infinity;
  return ticks.flatMap((tick) => {
    const words =
      tick.kind === 'year'
        ? String(tick.year)
        : tick.month === 1 || tick === firstMonth
          ? `${monthName(tick.month)} ${tick.year}`
          : monthName(tick.month);
    const end = tick.x + OFFSET + words.length * CHAR;
    if (tick.x < free || end > width) return [];
    free = end + GAP;
    return [{ x: tick.x, words }];
  });
}
