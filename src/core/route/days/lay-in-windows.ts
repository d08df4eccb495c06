import type { PatchModel } from '../../compile';
import {
  Calendar,
  type CrewShare,
  type Day,
  type Placed,
  type Slot,
  type StepDays,
  type Within
} from '../../date';
import type { Shares } from '../terms';
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
  /** What a round needs of the crew. */
  readonly shares?: Shares;
}

/** Careful minutes of a move's own block and of its way back, over all nodes; a patch's apart. */
export interface BlockMinutes {
  readonly own: number;
  readonly ownBack: number;
  readonly patch: number;
  readonly patchBack: number;
  /** Nodes that may go one by one; 1 where they may not. */
  readonly nodes: number;
}

/**
 * Lays a move into windows (docs/reckoning.md 4b). With its patch it is one block where both fit into the occurrence the patch comes to
 * lie in; where the move has to wait for a later one, or both have no room together, the patch is a block of its own.
 * Where the whole has room nowhere, nodes that may go one by one are blocks of their own.
 * Undefined where no occurrence has room.
 */
export function layInWindows(calendar: Calendar, minutes: BlockMinutes, toLay: ToLay): MoveDays | undefined {
  const { behind, earliest, until, after, first, shares } = toLay;
  const within: Within = { from: earliest.day, until, ...(after === undefined ? {} : { after }) };
  const own = { minutes: minutes.own, back: minutes.ownBack };
  if (!first) return layOwn(calendar, minutes, within, { behind, exact: earliest.exact, shares });
  const patch = { minutes: minutes.patch, back: minutes.patchBack };
  const both = { minutes: patch.minutes + own.minutes, back: patch.back + own.back };
  const patchFrom = { from: first.from.day, until };
  const alone = calendar.place(patch, { ...patchFrom, ...shareOf(shares?.patch) }, behind);
  if (!alone) return undefined;
  const exact = earliest.exact && first.from.exact;
  const { day, start } = alone.occurrence;
  const together =
    day >= earliest.day && start >= (after ?? start)
      ? calendar.place(both, { ...patchFrom, ...shareOf(shares?.own(0)) }, behind)
      : undefined;
  if (together?.occurrence === alone.occurrence) {
    const hop = daysOf(together, exact);
    return { patch: { ...hop, last: hop.first }, hop, at: together };
  }
  const laid = layOwn(calendar, minutes, within, { behind: alone, exact, shares });
  return laid && { patch: daysOf(alone, first.from.exact), patchAt: alone, ...laid };
}

const shareOf = (share: CrewShare | undefined): Pick<Within, 'share'> => (share ? { share } : {});

/** The move's own block, or those of its nodes, each behind the one before. */
function layOwn(
  calendar: Calendar,
  minutes: BlockMinutes,
  within: Within,
  {
    behind,
    exact,
    shares
  }: { readonly behind: Slot | undefined; readonly exact: boolean; readonly shares: Shares | undefined }
): MoveDays | undefined {
  const whole = { minutes: minutes.own, back: minutes.ownBack };
  const at = calendar.place(whole, { ...within, ...shareOf(shares?.own(0)) }, behind);
  if (at) return { hop: daysOf(at, exact), at };
  const nodesAt: Placed[] = [];
  if (minutes.nodes < 2) return undefined;
  for (let node = 0; node < minutes.nodes; node++) {
    const share = {
      minutes: partOf(minutes.own, node, minutes.nodes),
      back: partOf(minutes.ownBack, node, minutes.nodes)
    };
    const laid = calendar.place(
      share,
      { ...within, ...shareOf(shares?.own(node)) },
      nodesAt.at(-1) ?? behind
    );
    if (!laid) return undefined;
    nodesAt.push(laid);
  }
  const [first, last] = [nodesAt[0], nodesAt.at(-1)];
  if (!first || !last) return undefined;
  return { hop: { ...daysOf(last, exact), first: first.occurrence.day }, at: last, nodesAt };
}

/** The minutes of one of so many nodes: whole ones, that together are all. */
const partOf = (minutes: number, node: number, nodes: number): number =>
  Math.ceil((minutes * (node + 1)) / nodes) - Math.ceil((minutes * node) / nodes);

/** From the day its occurrence starts on to the last day it reaches. */
const daysOf = (at: Placed, exact: boolean): StepDays => ({
  first: at.occurrence.day,
  last: Calendar.dayAt(at.occurrence, at.end),
  exact
});
