import type { Day } from '../date';
import type { Moment, Part, StepOn } from './problem';

/** The earliest minute at which a day begins anywhere, in UTC. */
const earliestOf = (day: Day): number => day * 1440 - 14 * 60;

/** When steps of a wave have ended: at a minute where all of them lie in windows; open where no arrival among them is watched. */
export function momentBehind(
  steps: readonly { readonly part: number; readonly on: Pick<StepOn, 'last' | 'ends'> }[],
  parts: readonly Pick<Part, 'watches'>[]
): Moment {
  const day = Math.max(...steps.map((s) => s.on.last));
  const ends = steps.flatMap((s) => s.on.ends ?? []);
  if (ends.length === 0) return { day };
  const minute = Math.max(...ends);
  const isOpen = ends.length === steps.length && steps.every((s) => parts[s.part]?.watches !== true);
  return { day, minute, ...(isOpen ? { isOpen } : {}) };
}

/** Not before a day is over. */
export const laterOf = (moment: Moment, until: Day): Moment =>
  until < moment.day
    ? moment
    : { day: until, ...(moment.minute === undefined ? {} : { minute: moment.minute }) };

/** Whatever may begin behind the second may begin behind the first as well. */
export function isNoLater(a: Moment, b: Moment): boolean {
  if (a.day > b.day || (b.isOpen && !a.isOpen)) return false;
  return a.minute === undefined || a.minute <= (b.minute ?? earliestOf(b.day + 1));
}

/** Equal for moments behind which the same may begin. */
export const keyOfMoment = ({ day, minute, isOpen }: Moment): string =>
  `${day}${minute === undefined ? '' : `:${minute}`}${isOpen ? '+' : ''}`;
