import { dayOfMinute, timeOfMinute } from '$core/date';
import type { ComponentOrder, OrderedStep } from '$core/order';

/** Whether a wave of an order begins on the day the one before ends: its steps are drawn by the minute, else by the day. */
export const sharesNights = ({ waves, isSingle }: ComponentOrder): boolean =>
  !isSingle && waves.some((w, i) => i > 0 && w.first <= (waves[i - 1]?.last ?? -Infinity));

/** Days and their part, on the clock of the zone. */
export function clock(minute: number, zone: string): number {
  const [hours = 0, minutes = 0] = timeOfMinute(minute, zone).split(':').map(Number);
  return dayOfMinute(minute, zone) + (hours * 60 + minutes) / 1440;
}

/** Where a step begins and where it is over, in days; by the minute where two waves share a night and windows tell. */
export function whenOf(
  order: ComponentOrder,
  step: OrderedStep
): { readonly from: number; readonly to: number } {
  const at = step.rounds.flatMap((r) => r.at ?? []);
  if (at.length < step.rounds.length || !sharesNights(order)) return { from: step.first, to: step.last + 1 };
  return {
    from: Math.min(...at.map((b) => clock(b.begins, b.zone))),
    to: Math.max(...at.map((b) => clock(b.ends, b.zone)))
  };
}
