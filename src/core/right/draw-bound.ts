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

/**
 * What packs may save at most from a day on, against every unit at its own price: what is over of cheap packs serves dear units, of
 * the same day or later. Of each demand at most a pack less one unit is bought beyond its own; what is over at the end of a day
 * is less than a pack of that day, or what came from the day before.
 *
 * @param days demands by day, in turn
 * @returns by day, then by units over from before: the least sum to be added; `bought` counts nothing
 */
export function packSavings(days: readonly (readonly Demand[])[]): readonly (readonly DrawSum[])[] {
  const largest = Math.max(1, ...days.flat().map((d) => d.pack));
  const overs = Array.from({ length: largest }, (_, over) => over);
  const found: DrawSum[][] = [overs.map(() => NO_SUM)];
  for (const demands of [...days].reverse()) {
    const after = found[0] as DrawSum[];
    const most = Math.max(1, ...demands.filter((d) => d.priceCents !== undefined).map((d) => d.pack)) - 1;
    const change = savingsOf(demands);
    found.unshift(
      overs.map((before) =>
        overs.slice(0, Math.max(most, before) + 1).reduce<DrawSum>((best, left) => {
          const own = change(left - before);
          const sum = own && addDrawSums(own, after[left] as DrawSum);
          return sum && compareWeights(sum, best) < 0 ? sum : best;
        }, NEVER)
      )
    );
  }
  return found;
}

const NEVER: DrawSum = { short: Infinity, unpriced: Infinity, cents: Infinity, bought: Infinity };

/** The least change of a day's sum where so many units more stay over than came; undefined where they cannot. */
function savingsOf(demands: readonly Demand[]): (more: number) => DrawSum | undefined {
  const items = demands
    .map((d) => ({
      weight: ownWeight(d),
      beyond: d.priceCents === undefined ? 0 : d.pack - 1,
      units: d.units
    }))
    .sort((a, b) => compareWeights(b.weight, a.weight));
  const all = items.reduce((n, i) => n + i.beyond, 0);
  const top = items.reduce((sum, i) => addTimes(sum, i.weight, i.beyond), NO_SUM);
  return (more) => {
    let less = all - more;
    if (less < 0) return undefined;
    let sum = top;
    for (const { weight, beyond, units } of items) {
      const n = Math.min(less, beyond + units);
      sum = addTimes(sum, weight, -n);
      less -= n;
    }
    return less > 0 ? undefined : sum;
  };
}

const addTimes = (sum: DrawSum, { short, unpriced, cents }: Weight, times: number): DrawSum =>
  addDrawSums(sum, { short: short * times, unpriced: unpriced * times, cents: cents * times, bought: 0 });
