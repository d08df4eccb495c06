import type { PatchModel } from '../../compile';
import { Calendar, type Day, type Placed, type Slot, type StepDays, type Within } from '../../date';
import type { MoveDays } from './move-days';

/** What is laid: behind what lies before it, on a day or later. */
export interface ToLay {
  readonly behind: Slot | undefined;
  /** What it waits for is there on this day; `exact`: for certain. */
  readonly earliest: { readonly day: Day; readonly exact: boolean };
  /** The last day an occurrence may start on. */
  readonly until: Day;
  /** Not in an occurrence that starts before this epoch minute. */
  readonly after?: number;
  readonly first?: {
    readonly patch: PatchModel;
    readonly from: { readonly day: Day; readonly exact: boolean };
  };
}

/** Careful minutes of a move's own block and of its way back, over all nodes; a patch's apart. */
export interface BlockMinutes {
  readonly own: number;
  readonly ownBack: number;
  readonly patch: number;
  readonly patchBack: number;
}

/**
 * Lays a move into windows (docs/reckoning.md 4b). With its patch it is one block where both fit into the occurrence the patch comes to
 * lie in; where the move has to wait for a later one, or both have no room together, the patch is a block of its own.
 * Undefined where no occurrence has room.
 */
export function layInWindows(calendar: Calendar, minutes: BlockMinutes, toLay: ToLay): MoveDays | undefined {
  const { behind, earliest, until, after, first } = toLay;
  const within: Within = { from: earliest.day, until, ...(after === undefined ? {} : { after }) };
  const own = { minutes: minutes.own, back: minutes.ownBack };
  if (!first) {
    const at = calendar.place(own, within, behind);
    return at && { hop: daysOf(at, earliest.exact), at };
  }
  const patch = { minutes: minutes.patch, back: minutes.patchBack };
  const both = { minutes: patch.minutes + own.minutes, back: patch.back + own.back };
  const alone = calendar.place(patch, { from: first.from.day, until }, behind);
  if (!alone) return undefined;
  const exact = earliest.exact && first.from.exact;
  const { day, start } = alone.occurrence;
  const together =
    day >= earliest.day && start >= (after ?? start)
      ? calendar.place(both, { from: first.from.day, until }, behind)
      : undefined;
  if (together?.occurrence === alone.occurrence) {
    const hop = daysOf(together, exact);
    return { patch: { ...hop, last: hop.first }, hop, at: together };
  }
  const at = calendar.place(own, within, alone);
  return at && { patch: daysOf(alone, first.from.exact), patchAt: alone, hop: daysOf(at, exact), at };
}

/** From the day its occurrence starts on to the last day it reaches. */
const daysOf = (at: Placed, exact: boolean): StepDays => ({
  first: at.occurrence.day,
  last: Calendar.dayAt(at.occurrence, at.end),
  exact
});
