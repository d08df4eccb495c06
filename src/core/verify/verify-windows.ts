import type { Freeze, WindowRule } from '../date/calendar';
import type { Day } from '../date/day';
import { startsBetween } from '../date/recurrence';
import { dayOfMinute } from '../date/zone';
import type { StepDays } from '../date/step-days';
import type { BlockAt } from '../route/types';

/** When work may be done, as written: no windows: any day outside the freezes. */
export interface VerifyCalendar {
  readonly windows?: readonly WindowRule[];
  readonly freezes: readonly Freeze[];
}

/** What lies in an occurrence so far: where the last block ends, and the ways back of all. */
export interface VerifySlot {
  readonly closes: number;
  readonly ends: number;
  readonly backs: number;
}

/** A block as it must be: its minutes, its way back, the day its occurrence may start on. */
export interface VerifyBlock {
  readonly minutes: number;
  readonly back: number;
  readonly earliest: Day;
  /** It may be put off, so an earlier place proves nothing. */
  readonly mayBePutOff: boolean;
}

/** No day of these is frozen. */
export const isFree = ({ freezes }: VerifyCalendar, first: Day, last: Day): boolean =>
  freezes.every((f) => f.last < first || f.first > last);

/** A block lies in an occurrence that exists, has room there with the ways back of all, and could lie in none before. */
export function verifyBlock(
  calendar: VerifyCalendar,
  block: VerifyBlock,
  {
    at,
    days,
    slot
  }: { readonly at: BlockAt | undefined; readonly days: StepDays; readonly slot: VerifySlot | undefined },
  add: (code: string) => void
): VerifySlot | undefined {
  if (!at) {
    add('is laid outside the windows');
    return undefined;
  }
  const own = calendar.windows?.find((w) => w.id === at.window && w.zone === at.zone);
  const opens = own ? at.closes - own.minutes : NaN;
  if (
    !own ||
    !occurrences(calendar, days.first, days.first).some((o) => o.opens === opens && o.closes === at.closes)
  ) {
    add('lies in no occurrence of a window');
    return undefined;
  }
  const shares = slot !== undefined && slot.closes === at.closes;
  const backs = (shares ? slot.backs : 0) + block.back;
  if (at.begins !== (shares ? slot.ends : opens)) add('begins at another minute');
  if (slot && !shares && opens < slot.ends) add('starts before the step before it ends');
  if (at.ends - at.begins !== block.minutes) add('takes other minutes');
  if (at.turnBy !== at.closes - backs) add('turns round at another minute');
  if (at.ends > at.turnBy) add('leaves no room to go back');
  if (
    days.first !== dayOfMinute(opens, at.zone) ||
    days.last !== dayOfMinute(Math.max(opens, at.ends - 1), at.zone)
  )
    add('claims other days than its window');
  if (days.first < block.earliest) add('falls before it is published, settled or open');
  if (!block.mayBePutOff && days.exact && hasEarlier(calendar, block, opens, slot)) add('could be earlier');
  return { closes: at.closes, ends: at.ends, backs };
}

/** How many days ahead room is looked for. */
export const ROOM_WITHIN = 3660;

/** Whether an occurrence of its own has room for a block, from its earliest day to another. */
export const hasRoom = (
  calendar: VerifyCalendar,
  { earliest, minutes, back }: VerifyBlock,
  last: Day
): boolean => occurrences(calendar, earliest, last).some((o) => o.opens + minutes + back <= o.closes);

/** Whether an occurrence before one has room, behind what is laid. */
function hasEarlier(
  calendar: VerifyCalendar,
  { earliest, minutes, back }: VerifyBlock,
  before: number,
  slot: VerifySlot | undefined
): boolean {
  const last = Math.ceil(before / 1440) + 1;
  return occurrences(calendar, earliest, last).some(({ opens, closes }) => {
    if (opens >= before) return false;
    if (slot && closes === slot.closes) return slot.ends + minutes + slot.backs + back <= closes;
    return opens >= (slot?.ends ?? opens) && opens + minutes + back <= closes;
  });
}

/** Occurrences that start on some days, without those that touch a freeze. */
function occurrences(calendar: VerifyCalendar, first: Day, last: Day): { opens: number; closes: number }[] {
  return (calendar.windows ?? []).flatMap((window) =>
    startsBetween(window, first, last)
      .map((opens) => ({ opens, closes: opens + window.minutes }))
      .filter(({ opens, closes }) =>
        isFree(calendar, dayOfMinute(opens, window.zone), dayOfMinute(closes - 1, window.zone))
      )
  );
}
