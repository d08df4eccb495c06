import type { Right } from '../catalogue';
import type { Day } from '../date';
import { isCounted, type Route } from '../route';

/** A time that starts with a step: until when it may stand as it is, and what happens then. */
export interface GraceClock {
  readonly right: string;
  /** The step it starts with. */
  readonly step: string;
  readonly since: NonNullable<Right['grace']>[number]['since'];
  readonly days: number;
  /** Its last day, where the step has a day; of a first start and an activation the earliest it may be. */
  readonly until?: Day;
  /** What happens after it. */
  readonly then?: string;
}

/**
 * The clocks a route starts, soonest first (FIELD-NOTES N36): of the right of each step. They start on the last day of the step:
 * at its end it is installed, and may be started and activated for the first time.
 */
export function graceClocks(route: Route, rights: readonly Right[]): GraceClock[] {
  const clocks = route.steps.filter(isCounted).flatMap((step) => {
    const right = rights.find((r) => r.id === step.right.right);
    return (right?.grace ?? []).map(({ since, days, then }): GraceClock => ({
      right: right?.id ?? '',
      step: step.id,
      since,
      days,
      ...(step.days.exact ? { until: step.days.last + days } : {}),
      ...(then === undefined ? {} : { then })
    }));
  });
  return clocks.sort((a, b) => (a.until ?? Infinity) - (b.until ?? Infinity) || a.days - b.days);
}
