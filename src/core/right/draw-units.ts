import { buyDay, buyDaySoon, type DayBuy, type Wanted } from './buy-day';
import { compareWeights, gcd, ownWeight, packSavings, sumOfRest, type Weight } from './draw-bound';
import { classesOf, type DrawClasses } from './draw-classes';
import { DrawFlow } from './draw-flow';
import {
  addDrawSums,
  type Bought,
  byDay,
  compareSums,
  type Demand,
  type Drawn,
  type DrawSum,
  NO_SUM,
  type Supply
} from './draw-problem';

/** Exact up to these; beyond, and where the work runs out, the best found with a bound. */
const EXACT = { demands: 12, supplies: 6, units: 200 } as const;
/** Choices tried before the best found has to do. */
const WORK = 40_000;
/** So many times as many where classes are searched: there are few, and each choice is cheap. */
const CLASS_WORK = 5;
/** Where nothing can cost less: choices tried for which supplies are drawn on. */
const WORK_ON_TIES = 2_000;

/**
 * Serves demands from supplies and by buying, together: fewest units short, least money - a sum nobody knows
 * after known ones -, fewest units bought, and of what is equal the supplies that come first drawn on most. A demand may be
 * split. Packs are bought on a demand's day, none superfluous; what is over serves that day's demands and later ones.
 *
 * Branch and bound over what each demand is given, days in turn: what supplies can give together is a polymatroid, so that
 * giving to the dearest first bounds what is left (Edmonds 1970).
 */
export function drawUnits(given: readonly Demand[], supplies: readonly Supply[]): Drawn {
  const places = given.map((_, i) => i).sort((a, b) => byDay(given[a] as Demand, given[b] as Demand));
  const demands = places.map((i) => given[i] as Demand);
  const found = new Search(demands, supplies).run();
  const back = <T>(list: readonly T[]): T[] => given.map((_, i) => list[places.indexOf(i)] as T);
  return {
    ...found,
    draws: back(found.draws),
    short: back(found.short),
    bought: found.bought.map((b) => ({ ...b, demand: places[b.demand] as number }))
  };
}

interface Best {
  readonly given: readonly number[];
  readonly sum: DrawSum;
  /** Units by supply. */
  readonly taken: readonly number[];
}

class Search {
  readonly #demands: readonly Demand[];
  readonly #supplies: readonly Supply[];
  /** By demand: the places of all of its day. */
  readonly #days: readonly (readonly number[])[];
  readonly #weights: readonly Weight[];
  readonly #masks: readonly number[];
  /** Units by set of supplies; of classes: the most that can be drawn for a set of them. */
  readonly #room: readonly number[];
  /** Of that, by set, what is given to demands that nothing outside the set may serve; of classes: to those in the set. */
  readonly #used: number[];
  /** Units given by demand, as far as the search has come. */
  readonly #given: number[];
  readonly #heaviest: readonly number[];
  /** The same by their own price. */
  readonly #dearest: readonly number[];
  readonly #own: readonly Weight[];
  readonly #savings: readonly (readonly DrawSum[])[];
  /** All packs are multiples of so many units; and the least a unit of them weighs. */
  readonly #packs: readonly [step: number, weight: Weight];
  #best: Best | undefined;
  #most: readonly number[] = [];
  #work = 0;
  #mayWork = WORK;
  readonly #seen = new Map<string, DrawSum>();
  readonly #classes: DrawClasses | undefined;

  /** @param classes what the demands are, where each stands for several */
  constructor(demands: readonly Demand[], supplies: readonly Supply[], classes?: DrawClasses) {
    this.#demands = demands;
    this.#supplies = supplies;
    this.#classes = classes;
    const days = new Map<number, number[]>();
    demands.forEach((d, i) => days.set(d.day, [...(days.get(d.day) ?? []), i]));
    this.#days = [...days.values()];
    this.#weights = demands.map((_, i) => this.#leastWeight(i));
    const isSmall = supplies.length <= EXACT.supplies;
    this.#masks = demands.map((d, i) =>
      classes ? 1 << i : isSmall ? d.from.reduce((mask, s) => mask | (1 << s), 0) : 0
    );
    this.#room = classes
      ? classes.room
      : isSmall
        ? Array.from({ length: 1 << supplies.length }, (_, set) =>
            sum(supplies.map((s, i) => (set & (1 << i) ? s.units : 0)))
          )
        : [];
    this.#used = this.#room.map(() => 0);
    this.#given = demands.map(() => 0);
    const sold = demands.filter((d) => d.priceCents !== undefined);
    this.#packs = [
      sold.map((d) => d.pack).reduce(gcd, 0) || 1,
      sold.map(ownWeight).sort(compareWeights)[0] ?? { short: 0, unpriced: 0, cents: 0 }
    ];
    this.#own = demands.map(ownWeight);
    this.#dearest = demands
      .map((_, i) => i)
      .sort((a, b) => compareWeights(this.#own[b] as Weight, this.#own[a] as Weight) || a - b);
    this.#savings = packSavings(this.#days.map((day) => day.map((i) => demands[i] as Demand)));
    this.#heaviest = demands
      .map((_, i) => i)
      .sort((a, b) => compareWeights(this.#weights[b] as Weight, this.#weights[a] as Weight) || a - b);
  }

  run(): Drawn {
    const soon = this.#soon();
    const bound = this.#boundOfAll();
    this.#best = soon;
    this.#most = this.#takenWith(this.#demands.map((d) => d.units));
    const isSmall =
      this.#demands.length <= EXACT.demands &&
      this.#supplies.length <= EXACT.supplies &&
      sum(this.#demands.map((d) => d.units)) <= EXACT.units;
    const isDone = compareSums(soon.sum, bound) === 0 && compareLists(soon.taken, this.#most) === 0;
    if (compareSums(soon.sum, bound) === 0) this.#mayWork = WORK_ON_TIES;
    const isProven = !isDone && this.#searchClasses(soon);
    if (isSmall && !isDone && !isProven) this.#day(0, 0, NO_SUM);
    const best = this.#best;
    const exact = isProven || compareSums(best.sum, bound) === 0 || (isSmall && this.#work <= WORK);
    return { ...this.#tell(best.given), exact, bound: exact ? best.sum : bound };
  }

  /** Searches by classes where there are some, from the best so far on; whether nothing better is left. */
  #searchClasses(soon: Best): boolean {
    const classes = classesOf(this.#demands, this.#supplies);
    if (!classes) return false;
    const search = new Search(classes.demands, this.#supplies, classes);
    const given = classes.members.map((of) => sum(of.map((i) => soon.given[i] ?? 0)));
    search.#best = { ...soon, given };
    search.#most = this.#most;
    search.#mayWork = this.#mayWork * CLASS_WORK;
    search.#day(0, 0, NO_SUM);
    const best = search.#best;
    const draws = classes.draw(best.given);
    this.#best = { ...best, given: draws.map(sum) };
    return search.#work <= search.#mayWork;
  }

  /** Draws for the dearest first, then buys day by day. */
  #soon(): Best {
    const flow = new DrawFlow(this.#demands, this.#supplies);
    const wants = this.#demands.map(() => 0);
    // Of those that weigh the same none comes first: the supplies that come first give most.
    for (const alike of this.#byWeight()) {
      for (const i of alike) wants[i] = this.#demands[i]?.units ?? 0;
      this.#supplies.forEach((_, s) => flow.drain(s, wants));
    }
    const given = this.#demands.map((_, i) => flow.givenTo(i));
    const { buys } = this.#buySoon(given);
    return {
      given,
      sum: buys.map((b) => b.sum).reduce(addDrawSums, NO_SUM),
      taken: this.#takenWith(given)
    };
  }

  /** Places of demands of one weight, the heaviest first. */
  #byWeight(): number[][] {
    const classes = new Map<string, number[]>();
    this.#demands
      .map((d, i) => ({ i, weight: ownWeight(d) }))
      .sort((a, b) => compareWeights(b.weight, a.weight) || a.i - b.i)
      .forEach(({ i, weight }) => {
        const key = Object.values(weight).join(' ');
        classes.set(key, [...(classes.get(key) ?? []), i]);
      });
    return [...classes.values()];
  }

  #buySoon(given: readonly number[]): { readonly buys: readonly DayBuy[]; readonly over: number } {
    const buys: DayBuy[] = [];
    let over = 0;
    for (const day of this.#days) {
      const wanted = this.#wanted(day, given);
      const best = this.#isFew(wanted) ? leastOf(buyDay(wanted, over)) : buyDaySoon(wanted, over);
      buys.push(best);
      over = best.over;
    }
    return { buys, over };
  }

  #isFew = (wanted: readonly Wanted[]): boolean =>
    wanted.filter((w) => w.units > 0).length <= 3 && sum(wanted.map((w) => w.units)) <= EXACT.units;

  #wanted = (day: readonly number[], given: readonly number[]): Wanted[] =>
    day.map((at) => {
      const demand = this.#demands[at] as Demand;
      return { at, demand, units: demand.units - (given[at] ?? 0) };
    });

  /** Days from this one on, with what earlier ones were given. */
  #day(at: number, over: number, before: DrawSum): void {
    if (at === this.#days.length) return this.#keep(before);
    const key = `${at} ${over} ${(this.#classes ? this.#roomFrom(at) : this.#perSet()).join(' ')}`;
    const known = this.#seen.get(key);
    const by = known ? compareSums(known, before) : 1;
    // Classes that leave the same room may have drawn on other supplies: of equal sums the better of these is still looked for.
    if (by < 0 || (by === 0 && (!this.#classes || this.#drawsOnMost))) return;
    this.#seen.set(key, before);
    this.#give(at, 0, { over, before });
  }

  /** Chooses what each demand of a day is given, most first; then each way to buy the rest. */
  #give(at: number, n: number, state: { readonly over: number; readonly before: DrawSum }): void {
    const day = this.#days[at] as readonly number[];
    const demand = day[n];
    if (demand === undefined) {
      for (const buy of buyDay(this.#wanted(day, this.#given), state.over)) {
        if (++this.#work > this.#mayWork) return;
        this.#day(at + 1, buy.over, addDrawSums(state.before, buy.sum));
      }
      return;
    }
    const most = this.#mostFor(demand);
    this.#set(demand, most);
    for (let units = most; units >= 0 && this.#work <= this.#mayWork; units--) {
      this.#set(demand, units - (this.#given[demand] ?? 0));
      this.#work++;
      if (!this.#isHopeless(addDrawSums(state.before, this.#leastFrom(at, demand + 1, state.over))))
        this.#give(at, n + 1, state);
    }
    this.#set(demand, -(this.#given[demand] ?? 0));
  }

  /** Gives a demand so many units more, or less. */
  #set(demand: number, more: number): void {
    if (more === 0) return;
    const mask = this.#masks[demand] ?? 0;
    this.#given[demand] = (this.#given[demand] ?? 0) + more;
    for (let set = 0; set < this.#used.length; set++)
      if ((set & mask) === mask) this.#used[set] = (this.#used[set] ?? 0) + more;
  }

  /** The most a demand can be given beside what all have. */
  #mostFor(demand: number): number {
    const mask = this.#masks[demand] ?? 0;
    let most = this.#demands[demand]?.units ?? 0;
    for (let set = 0; set < this.#room.length && most > 0; set++)
      if ((set & mask) === mask) most = Math.min(most, (this.#room[set] ?? 0) - (this.#used[set] ?? 0));
    return Math.max(0, most);
  }

  /** What those of a day or later can still be given together, by set of them: all that the days before leave of their mark. */
  #roomFrom(at: number): number[] {
    const first = this.#days[at]?.[0] ?? 0;
    const earlier = (1 << first) - 1;
    const rooms: number[] = [];
    for (let later = 1; later << first < this.#room.length; later++) {
      let least = Infinity;
      for (let set = 0; set <= earlier; set++) {
        const own = (later << first) | set;
        least = Math.min(least, (this.#room[own] ?? 0) - (this.#used[own] ?? 0));
      }
      rooms.push(least);
    }
    return rooms;
  }

  /** The best so far draws on the supplies that come first as much as can be. */
  get #drawsOnMost(): boolean {
    return compareLists((this.#best as Best).taken, this.#most) === 0;
  }

  #perSet(): number[] {
    const totals = new Map<number, number>();
    this.#masks.forEach((mask, i) => totals.set(mask, (totals.get(mask) ?? 0) + (this.#given[i] ?? 0)));
    return [...totals.values()];
  }

  /** What is bought from a day on costs at least, with what stands given to demands before `next`. */
  #leastFrom(at: number, next: number, over: number): DrawSum {
    const byLeast = this.#inPacks(sumOfRest(this.#restFrom(at, next, this.#heaviest, this.#weights), over));
    const byOwn = addDrawSums(
      sumOfRest(this.#restFrom(at, next, this.#dearest, this.#own), 0),
      this.#savings[at]?.[over] ?? NO_SUM
    );
    return compareWeights(byOwn, byLeast) > 0 ? { ...byOwn, bought: byLeast.bought } : byLeast;
  }

  /** What is undrawn at least from a day on: what stands given stays, of the rest those first in turn are drawn for first. */
  #restFrom(
    at: number,
    next: number,
    inTurn: readonly number[],
    weights: readonly Weight[]
  ): { readonly weight: Weight; readonly units: number }[] {
    const first = this.#days[at]?.[0] ?? 0;
    const added: (readonly [demand: number, units: number])[] = [];
    const left: { readonly weight: Weight; readonly units: number }[] = [];
    for (const i of inTurn) {
      if (i < first) continue;
      const units = this.#demands[i]?.units ?? 0;
      const given = i < next ? (this.#given[i] ?? 0) : this.#mostFor(i);
      left.push({ weight: weights[i] as Weight, units: units - given });
      if (i < next || given === 0) continue;
      this.#set(i, given);
      added.push([i, given]);
    }
    for (const [i, units] of added) this.#set(i, -units);
    return left;
  }

  /** Units are bought by whole packs: what is over costs at least the least there is. */
  #inPacks(least: DrawSum): DrawSum {
    const [step, weight] = this.#packs;
    const more = Math.ceil(least.bought / step) * step - least.bought;
    return {
      short: least.short,
      unpriced: least.unpriced + more * weight.unpriced,
      cents: least.cents + more * weight.cents,
      bought: least.bought + more
    };
  }

  #boundOfAll(): DrawSum {
    const restOf = (inTurn: readonly number[], weights: readonly Weight[]) => {
      const flow = new DrawFlow(this.#demands, this.#supplies);
      return inTurn.map((i) => {
        const units = this.#demands[i]?.units ?? 0;
        return { weight: weights[i] as Weight, units: units - flow.give(i, units) };
      });
    };
    const byLeast = this.#inPacks(sumOfRest(restOf(this.#heaviest, this.#weights), 0));
    const byOwn = addDrawSums(
      sumOfRest(restOf(this.#dearest, this.#own), 0),
      this.#savings[0]?.[0] ?? NO_SUM
    );
    const least = compareWeights(byOwn, byLeast) > 0 ? { ...byOwn, bought: byLeast.bought } : byLeast;
    return { ...least, cents: Math.ceil(least.cents - 1e-6) };
  }

  /** The least a unit of this demand can be had for: at its own price, or left over of packs of its day or before. */
  #leastWeight(i: number): Weight {
    const own = this.#demands[i] as Demand;
    let least = ownWeight(own);
    for (const other of this.#demands)
      if (other.day <= own.day && other.pack > 1 && other.priceCents !== undefined) {
        const weight = ownWeight(other);
        if (compareWeights(weight, least) < 0) least = weight;
      }
    return least;
  }

  #isHopeless(least: DrawSum): boolean {
    const best = this.#best as Best;
    const by = compareSums({ ...least, cents: Math.ceil(least.cents - 1e-6) }, best.sum);
    return by > 0 || (by === 0 && compareLists(best.taken, this.#most) === 0);
  }

  #keep(found: DrawSum): void {
    const given = this.#given;
    const best = this.#best as Best;
    const by = compareSums(found, best.sum);
    if (by > 0) return;
    const taken = this.#takenWith(given);
    if (by < 0 || compareLists(taken, best.taken) > 0) this.#best = { given: [...given], sum: found, taken };
  }

  /** Units by supply where those that come first give most. */
  #takenWith(wants: readonly number[]): number[] {
    if (this.#classes) {
      const draws = this.#classes.draw(wants);
      return this.#supplies.map((_, s) => sum(draws.map((row) => row[s] ?? 0)));
    }
    const flow = this.#flowOf(wants);
    return this.#supplies.map((s, i) => s.units - flow.free(i));
  }

  #flowOf(wants: readonly number[]): DrawFlow {
    const flow = new DrawFlow(this.#demands, this.#supplies);
    this.#supplies.forEach((_, i) => flow.drain(i, wants));
    return flow;
  }

  #tell(given: readonly number[]): Omit<Drawn, 'exact' | 'bound'> {
    const buys = this.#cheapestBuys(given);
    const bought: Bought[] = buys.flatMap((b) => b.bought);
    const short = new Array<number>(this.#demands.length).fill(0);
    buys.forEach((b, d) => this.#days[d]?.forEach((at, n) => (short[at] = b.short[n] ?? 0)));
    return {
      draws: this.#flowOf(given).draws,
      bought,
      short,
      over: buys.at(-1)?.over ?? 0,
      sum: buys.map((b) => b.sum).reduce(addDrawSums, NO_SUM)
    };
  }

  /** The days' purchases, where what each demand is given stands; as the search chose them, in the small. */
  #cheapestBuys(given: readonly number[]): readonly DayBuy[] {
    const soon = this.#buySoon(given).buys;
    const target = (this.#best as Best).sum;
    if (compareSums(soon.map((b) => b.sum).reduce(addDrawSums, NO_SUM), target) === 0) return soon;
    const from = (at: number, over: number, before: DrawSum): DayBuy[] | undefined => {
      const day = this.#days[at];
      if (!day) return compareSums(before, target) === 0 ? [] : undefined;
      for (const buy of buyDay(this.#wanted(day, given), over)) {
        const next = addDrawSums(before, buy.sum);
        const rest = compareSums(next, target) > 0 ? undefined : from(at + 1, buy.over, next);
        if (rest) return [buy, ...rest];
      }
      return undefined;
    };
    return from(0, 0, NO_SUM) ?? soon;
  }
}

const compareLists = (a: readonly number[], b: readonly number[]): number => {
  const at = a.findIndex((v, i) => v !== b[i]);
  return at < 0 ? 0 : (a[at] ?? 0) - (b[at] ?? 0);
};

function leastOf(buys: Iterable<DayBuy>): DayBuy {
  let best: DayBuy | undefined;
  for (const buy of buys)
    if (
      !best ||
      compareSums(buy.sum, best.sum) < 0 ||
      (compareSums(buy.sum, best.sum) === 0 && buy.over > best.over)
    )
      best = buy;
  return best as DayBuy;
}

const sum = (numbers: readonly number[]): number => numbers.reduce((a, b) => a + b, 0);
