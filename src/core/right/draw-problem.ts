import type { Day } from '../date';
import type { MaybeSum } from './money';

/** Units called for on one day under one right; those alike in right, edition, team, site and day as one. */
export interface Demand {
  /** Equal for equal demands; ties go by it. */
  readonly key: string;
  readonly units: number;
  readonly day: Day;
  /** Places of the supplies that may serve it, the day included. */
  readonly from: readonly number[];
  /** What one pack costs that day; undefined: it cannot be bought. */
  readonly priceCents: MaybeSum | undefined;
  /** Units a pack, from 1. */
  readonly pack: number;
}

/** Units held; they come in the order in which they are drawn on where all else is equal. */
export interface Supply {
  readonly units: number;
}

/** What is bought on the day of a demand, at its price. */
export interface Bought {
  /** Place of the demand. */
  readonly demand: number;
  readonly packs: number;
}

/** What drawing comes to, each as little as can be, in this order. */
export interface DrawSum {
  /** Units that can neither be drawn nor bought. */
  readonly short: number;
  /** Units bought at a price nobody knows. */
  readonly unpriced: number;
  readonly cents: number;
  readonly bought: number;
}

export interface Drawn {
  /** Units by demand and supply. */
  readonly draws: readonly (readonly number[])[];
  readonly bought: readonly Bought[];
  /** Units by demand that nothing serves. */
  readonly short: readonly number[];
  /** Units of packs that nobody has taken by the end. */
  readonly over: number;
  readonly sum: DrawSum;
  /** Nothing better exists; else `bound` is what no drawing can better. */
  readonly exact: boolean;
  readonly bound: DrawSum;
}

/** The demands in the order of their days; those of one day by key. Total. */
export const byDay = (a: Demand, b: Demand): number => a.day - b.day || (a.key < b.key ? -1 : 1);

/** Less than 0 where the first is the better: fewer short, then fewer unpriced, less money, fewer bought. */
export const compareSums = (a: DrawSum, b: DrawSum): number =>
  a.short - b.short || a.unpriced - b.unpriced || a.cents - b.cents || a.bought - b.bought;

/** Both together. */
export const addDrawSums = (a: DrawSum, b: DrawSum): DrawSum => ({
  short: a.short + b.short,
  unpriced: a.unpriced + b.unpriced,
  cents: a.cents + b.cents,
  bought: a.bought + b.bought
});

export const NO_SUM: DrawSum = { short: 0, unpriced: 0, cents: 0, bought: 0 };
