import { addDrawSums, type Demand, type DrawSum, NO_SUM } from './draw-problem';

/** What one unit more or less of a demand weighs; the larger, the sooner it is drawn for. */
export type Weight = Pick<DrawSum, 'short' | 'unpriced' | 'cents'>;

/** What is left undrawn, less what is over of packs, which serves the heaviest first. */
export function sumOfRest(
  left: readonly { readonly weight: Weight; readonly units: number }[],
  over: number
): DrawSum {
  let rest = over;
  let total = NO_SUM;
  for (const { weight, units } of left) {
    const served = Math.min(rest, units);
    rest -= served;
    const n = units - served;
    total = addDrawSums(total, {
      short: n * weight.short,
      unpriced: n * weight.unpriced,
      cents: n * weight.cents,
      bought: weight.short > 0 ? 0 : n
    });
  }
  return total;
}

/** A unit at the price of its own demand; one that cannot be bought weighs most. */
export function ownWeight(demand: Demand | undefined): Weight {
  if (demand?.priceCents === undefined) return { short: 1, unpriced: 0, cents: 0 };
  if (demand.priceCents === 'unknown') return { short: 0, unpriced: 1, cents: 0 };
  return { short: 0, unpriced: 0, cents: demand.priceCents / demand.pack };
}

/** Greatest common divisor; of 0 and a number, the number. */
export const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));

/** Less than 0 where the first is the lighter. */
export const compareWeights = (a: Weight, b: Weight): number =>
  a.short - b.short || a.unpriced - b.unpriced || a.cents - b.cents;
