import type { Day } from '../date';
import type { MaybeSum } from './money';
import type { Pool } from './pools';

/** What the chosen routes need of one right in one edition, over the estate, and what of it is to be bought. */
export interface RightNeed {
  /** Needs and pools of one group go together; others are never served from these. */
  readonly group: string;
  readonly product: string;
  readonly right: string;
  /** The edition it leads to; of counted units the edition they belong to. */
  readonly edition: string;
  /** Units where it is counted in units; rights otherwise. */
  readonly pool?: string;
  /** Unknown where nobody knows of one of the systems; `least` has what is known. */
  readonly needed: MaybeSum;
  /** What pools that may serve it hold. */
  readonly held: number;
  /** What of it is drawn from them. */
  readonly drawn: number;
  /** What is drawn from no pool and can be bought. */
  readonly toBuy: MaybeSum;
  /** What can neither be drawn nor bought. */
  readonly short: number;
  /** Of all that is bought, in packs where it comes in packs; at the price of the day. */
  readonly costCents: MaybeSum;
  readonly least: { readonly needed: number; readonly toBuy: number; readonly costCents: number };
  /** Nobody knows what a pool holds that may serve it: no more than this is to be bought. */
  readonly atMost: boolean;
  readonly purchases: readonly Purchase[];
  /** Wanted by routes that rest on what nobody knows; drawn after the certain, never bought. */
  readonly perhaps: { readonly needed: MaybeSum; readonly drawn: number };
  /** Nothing cheaper exists; else no drawing costs less than `boundCents`. */
  readonly exact: boolean;
  readonly boundCents: number;
  /** The last day to order it, of those that buy: the latest start, or the planned day where none is known; sooner where its price lapses. */
  readonly by: Day;
  readonly systems: readonly string[];
  readonly cases: readonly string[];
  /** The same by system, in their order: what each needs, is covered by what is held, and has to get. */
  readonly shares: readonly RightShare[];
}

export interface RightShare {
  readonly system: string;
  readonly needed: MaybeSum;
  readonly held: number;
  readonly toBuy: MaybeSum;
  /** The day the publisher's rule asks for. */
  readonly day: Day;
  readonly by: Day;
  /** Its route rests on nothing unknown. */
  readonly certain: boolean;
}

/** What is bought on one day. */
export interface Purchase {
  readonly day: Day;
  readonly packs: number;
  /** Units, whole packs. */
  readonly units: number;
  /** Of one pack. */
  readonly priceCents: MaybeSum;
}

/** Units of one right and edition held by a team, a site or the estate. */
export interface RightPool extends Omit<Pool, 'key'> {
  readonly drawn: number;
  /** Perhaps drawn beside. */
  readonly perhaps: number;
  /** Held less what is drawn for certain. */
  readonly remainder: MaybeSum;
  /** Its last day is past. */
  readonly lapsed: boolean;
  readonly draws: readonly PoolDraw[];
}

export interface PoolDraw {
  readonly product: string;
  readonly right: string;
  readonly edition: string;
  readonly system: string;
  readonly units: number;
  readonly day: Day;
  readonly certain: boolean;
}

/** The one count of rights: what is needed, what is held, who draws on what, what is bought. */
export interface RightCount {
  readonly needs: readonly RightNeed[];
  readonly pools: readonly RightPool[];
}
