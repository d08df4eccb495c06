import type { Day } from '../date';

/** What the chosen routes need of one right in one edition, over the estate, and what of it is to be bought (RECKONING H). */
export interface RightNeed {
  readonly product: string;
  readonly right: string;
  /** The edition it leads to; of counted units the edition they belong to. */
  readonly edition: string;
  /** Units where it is counted in units; rights otherwise. */
  readonly pool?: string;
  readonly needed: number | 'unknown';
  readonly held: number;
  readonly toBuy: number | 'unknown';
  /** Of all that is to be bought, each at the price of its step's day; units by the pack where they come in packs. */
  readonly costCents: number | 'unknown';
  /** The last day to have it: the earliest latest start of those that need it; of those without one, their planned day. */
  readonly by: Day;
  readonly systems: readonly string[];
  readonly cases: readonly string[];
  /** The same by system, in their order: what each needs, is covered by what is held, and has to get. */
  readonly shares: readonly RightShare[];
}

export interface RightShare {
  readonly system: string;
  readonly needed: number | 'unknown';
  readonly held: number;
  readonly toBuy: number | 'unknown';
}
