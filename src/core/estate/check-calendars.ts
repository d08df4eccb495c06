import { findRecurrenceFault, parseDay } from '../date';
import type { Issue } from '../kit';
import type { WorkCalendar } from './schema-calendar';

/** What is amiss with calendars beyond their form: zones, rules, starts that are no instance, freezes that end before they begin. */
export function checkCalendars(calendars: readonly WorkCalendar[]): Issue[] {
  return calendars.flatMap(({ zone, windows, freezes }, at) => [
    ...windows.flatMap((window, i): Issue[] => {
      const fault = findRecurrenceFault({
        zone,
        start: window.start,
        ...(window.rule === undefined ? {} : { rule: window.rule })
      });
      return fault ? [{ code: `window-${fault}`, path: ['calendars', at, 'windows', i] }] : [];
    }),
    ...(freezes ?? []).flatMap((freeze, i): Issue[] =>
      (parseDay(freeze.last) ?? 0) < (parseDay(freeze.first) ?? 0)
        ? [{ code: 'freeze-order', path: ['calendars', at, 'freezes', i] }]
        : []
    )
  ]);
}
