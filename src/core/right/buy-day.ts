import { addDrawSums, type Bought, type Demand, type DrawSum, NO_SUM } from './draw-problem';

/** What is still wanted of a demand when its supplies have given what they give. */
export interface Wanted {
  /** Place of the demand. */
  readonly at: number;
  readonly demand: Demand;
  /** Units, from 0. */
  readonly units: number;
}

/** One way to buy what a day wants. */
export interface DayBuy {
  readonly bought: readonly Bought[];
  /** Units by demand that stay short, in the order of the wanted. */
  readonly short: readonly number[];
  readonly over: number;
  readonly sum: DrawSum;
}

/**
 * Every way to buy what is wanted on one day. What is over from days before serves first what cannot be bought; of each demand
 * no more packs than its own units take, and no pack without which the day would be served; what is over of these serves what
 * cannot be bought, and later days.
 *
 * @param over units left of packs bought before
 */
export function* buyDay(wanted: readonly Wanted[], over: number): Generator<DayBuy> {
  const day = new DayWants(wanted, over);
  for (const packs of packings(day.sales, day.needed)) yield day.buy(packs);
}

/** Of the ways to buy a day's units one that is soon found: large packs first, then without what turned out superfluous. */
export function buyDaySoon(wanted: readonly Wanted[], over: number): DayBuy {
  const day = new DayWants(wanted, over);
  const inTurn = day.sales.map((s, i) => ({ ...s, i })).sort((a, b) => b.pack - a.pack || a.i - b.i);
  const packs = day.sales.map(() => 0);
  let units = 0;
  for (const { i, most, pack } of inTurn) {
    packs[i] = Math.min(most, Math.ceil(Math.max(0, day.needed - units) / pack));
    units += packs[i] * pack;
  }
  for (const { i, pack } of inTurn) {
    const spare = Math.min(packs[i] ?? 0, Math.floor((units - day.needed) / pack));
    packs[i] = (packs[i] ?? 0) - spare;
    units -= spare * pack;
  }
  return day.buy(packs);
}

/** Packs of one size at one price, and what wants them. */
interface Sale {
  readonly pack: number;
  readonly wanted: readonly Wanted[];
  /** No more packs than the units of each of them take. */
  readonly most: number;
}

/** What one day wants, and what buying comes to. */
class DayWants {
  readonly sales: readonly Sale[];
  /** Units to be bought, at least. */
  readonly needed: number;
  readonly #wanted: readonly Wanted[];
  readonly #unsaleable: number;
  readonly #helped: number;
  /** Units of the saleable, less what is over; below 0: so many stay over. */
  readonly #missing: number;

  constructor(wanted: readonly Wanted[], over: number) {
    this.#wanted = wanted;
    const saleable = wanted.filter((w) => w.demand.priceCents !== undefined && w.units > 0);
    this.sales = salesOf(saleable);
    this.#unsaleable = sum(wanted.map((w) => (w.demand.priceCents === undefined ? w.units : 0)));
    this.#helped = Math.min(over, this.#unsaleable);
    this.#missing = sum(saleable.map((w) => w.units)) - (over - this.#helped);
    this.needed = Math.max(0, this.#missing);
  }

  /** @param packs by sale; they come to the units needed */
  buy(packs: readonly number[]): DayBuy {
    const units = sum(this.sales.map((s, i) => (packs[i] ?? 0) * s.pack));
    const left = units - this.#missing;
    const helped = this.#helped + Math.min(left, this.#unsaleable - this.#helped);
    const bought = this.sales.flatMap((s, i) => deal(s, packs[i] ?? 0));
    return {
      bought: bought.map(({ wanted, packs: own }) => ({ demand: wanted.at, packs: own })),
      short: shareShort(this.#wanted, helped),
      over: left - (helped - this.#helped),
      sum: bought
        .map((b) => sumOf(b.wanted.demand, b.packs))
        .reduce(addDrawSums, { ...NO_SUM, short: this.#unsaleable - helped })
    };
  }
}

function salesOf(saleable: readonly Wanted[]): Sale[] {
  const sales = new Map<string, Wanted[]>();
  for (const w of saleable) {
    const key = `${w.demand.priceCents} ${w.demand.pack}`;
    sales.set(key, [...(sales.get(key) ?? []), w]);
  }
  return [...sales.values()].map((wanted) => {
    const pack = wanted[0]?.demand.pack ?? 1;
    return { pack, wanted, most: sum(wanted.map((w) => Math.ceil(w.units / pack))) };
  });
}

/** The packs of a sale by who wants them, in their order. */
function deal({ wanted, pack }: Sale, packs: number): { readonly wanted: Wanted; readonly packs: number }[] {
  let left = packs;
  return wanted.flatMap((w) => {
    const own = Math.min(left, Math.ceil(w.units / pack));
    left -= own;
    return own > 0 ? [{ wanted: w, packs: own }] : [];
  });
}

/** Packs by sale that come to the units needed, none of them superfluous. */
function* packings(sales: readonly Sale[], needed: number): Generator<number[]> {
  const packs = sales.map(() => 0);
  function* from(at: number, units: number): Generator<number[]> {
    const here = sales[at];
    if (!here) {
      const smallest = Math.min(...sales.map((s, i) => ((packs[i] ?? 0) > 0 ? s.pack : Infinity)));
      if (units >= needed && (units === 0 || units - smallest < needed)) yield [...packs];
      return;
    }
    const most = Math.min(here.most, Math.ceil(Math.max(0, needed - units) / here.pack));
    for (let n = at === sales.length - 1 ? most : 0; n <= most; n++) {
      packs[at] = n;
      yield* from(at + 1, units + n * here.pack);
    }
    packs[at] = 0;
  }
  yield* from(0, 0);
}

function sumOf({ priceCents, pack }: Demand, packs: number): DrawSum {
  const bought = packs * pack;
  return priceCents === 'unknown'
    ? { ...NO_SUM, unpriced: bought, bought }
    : { ...NO_SUM, cents: packs * (priceCents ?? 0), bought };
}

/** Units short by demand: those that come first are helped first. */
function shareShort(wanted: readonly Wanted[], helped: number): number[] {
  let left = helped;
  return wanted.map((w) => {
    if (w.demand.priceCents !== undefined) return 0;
    const own = Math.min(left, w.units);
    left -= own;
    return w.units - own;
  });
}

const sum = (numbers: readonly number[]): number => numbers.reduce((a, b) => a + b, 0);
