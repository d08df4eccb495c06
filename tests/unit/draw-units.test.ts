import { expect, test } from 'vitest';
import type { Demand, DrawSum, Supply } from '$core/right/draw-problem';
import { drawUnits } from '$core/right/draw-units';
import { countOf } from '../support/laws';
import { Random } from '../support/random';

/** Every way to draw, and on every day every number of packs; read off docs/reckoning.md, knows nothing of the search. */
function bruteForce(demands: readonly Demand[], supplies: readonly Supply[]) {
  const days = [...new Set(demands.map((d) => d.day))].sort((a, b) => a - b);
  let best: { sum: number[]; taken: number[] } | undefined;
  const taken = supplies.map(() => 0);
  const given = demands.map(() => 0);
  const keep = (sum: number[]): void => {
    const all = [...sum, ...taken.map((n) => -n)];
    const old = best && [...best.sum, ...best.taken.map((n) => -n)];
    const at = old ? all.findIndex((n, i) => n !== old[i]) : 0;
    if (!old || (at >= 0 && (all[at] as number) < (old[at] as number))) best = { sum, taken: [...taken] };
  };
  const buy = (day: number, over: number, sum: number[]): void => {
    if (day === days.length) return keep(sum);
    const today = demands.map((d, i) => ({ d, i })).filter(({ d }) => d.day === days[day]);
    const want = (sold: boolean): number =>
      today.reduce(
        (n, { d, i }) => n + ((d.priceCents !== undefined) === sold ? d.units - (given[i] ?? 0) : 0),
        0
      );
    const stuck = want(false);
    const sold = want(true);
    const first = Math.min(over, stuck);
    const after = over - first;
    const packs = today.map(() => 0);
    const choose = (n: number): void => {
      const one = today[n];
      if (one) {
        const own = one.d.units - (given[one.i] ?? 0);
        const most = one.d.priceCents === undefined ? 0 : Math.ceil(own / one.d.pack);
        for (packs[n] = 0; (packs[n] as number) <= most; packs[n]!++) choose(n + 1);
        packs[n] = 0;
        return;
      }
      const units = today.reduce((m, { d }, k) => m + d.pack * (packs[k] ?? 0), 0);
      if (after + units < sold) return;
      // None superfluous: without any one pack the day would not be served.
      if (today.some(({ d }, k) => (packs[k] ?? 0) > 0 && after + units - d.pack >= sold)) return;
      const left = after + units - sold;
      const helped = Math.min(left, stuck - first);
      const next = [...sum];
      next[0]! += stuck - first - helped;
      today.forEach(({ d }, k) => {
        const n = packs[k] ?? 0;
        if (d.priceCents === 'unknown') next[1]! += n * d.pack;
        else next[2]! += n * (d.priceCents ?? 0);
        next[3]! += n * d.pack;
      });
      buy(day + 1, left - helped, next);
    };
    choose(0);
  };
  const draw = (i: number, k: number): void => {
    const demand = demands[i];
    if (!demand) return buy(0, 0, [0, 0, 0, 0]);
    const s = demand.from[k];
    if (s === undefined) return draw(i + 1, 0);
    const most = Math.min((supplies[s]?.units ?? 0) - (taken[s] ?? 0), demand.units - (given[i] ?? 0));
    for (let n = 0; n <= most; n++) {
      taken[s]! += n;
      given[i]! += n;
      draw(i, k + 1);
      taken[s]! -= n;
      given[i]! -= n;
    }
  };
  draw(0, 0);
  return best!;
}

const listOf = (s: DrawSum): number[] => [s.short, s.unpriced, s.cents, s.bought];

function randomCase(seed: number): { demands: Demand[]; supplies: Supply[] } {
  const r = new Random(seed);
  const supplies = Array.from({ length: r.int(1, 3) }, () => ({ units: r.int(0, 5) }));
  const packs = r.pick([[1], [1, 3], [2, 5], [4]]);
  const demands = Array.from({ length: r.int(1, 4) }, (_, i): Demand => ({
    key: `n${i}`,
    units: r.int(1, 4),
    day: r.int(1, 3),
    from: supplies.map((_, s) => s).filter(() => r.chance(0.6)),
    priceCents: r.chance(0.15) ? undefined : r.chance(0.15) ? 'unknown' : r.int(1, 6) * 100,
    pack: r.pick(packs)
  }));
  return { demands, supplies };
}

/** As rights are: all needs of a day at one price, in packs of one size. */
function byDayCase(seed: number): { demands: Demand[]; supplies: Supply[] } {
  const { demands, supplies } = randomCase(seed);
  const r = new Random(seed + 77);
  const pack = r.pick([1, 3, 4, 5]);
  const prices = [0, 1, 2, 3].map(() => r.pick([100, 100, 300, 700]));
  return {
    supplies,
    demands: demands
      .map((d) => ({ ...d, day: r.int(1, 2), pack }))
      .map((d) => (d.priceCents === undefined ? d : { ...d, priceCents: prices[d.day] }))
  };
}

test('draws and purchases equal every way to draw and buy, on 800 random cases', () => {
  const seen = { short: 0, unpriced: 0, over: 0, split: 0, later: 0 };
  for (let seed = 1; seed <= 800; seed++) {
    const { demands, supplies } = seed > 500 ? byDayCase(seed) : randomCase(seed);
    const best = bruteForce(demands, supplies);
    const found = drawUnits(demands, supplies);
    const taken = supplies.map((_, s) => found.draws.reduce((n, row) => n + (row[s] ?? 0), 0));
    expect({ seed, exact: found.exact, sum: listOf(found.sum), taken }).toEqual({
      seed,
      exact: true,
      ...best
    });
    // What is told adds up: each demand is drawn for, bought for, left over or short.
    const bought = found.bought.reduce((n, b) => n + b.packs * (demands[b.demand]?.pack ?? 0), 0);
    const drawn = taken.reduce((a, b) => a + b, 0);
    const short = found.short.reduce((a, b) => a + b, 0);
    const wanted = demands.reduce((n, d) => n + d.units, 0);
    expect({ seed, n: drawn + bought + short - found.over }).toEqual({ seed, n: wanted });
    for (const [i, row] of found.draws.entries())
      row.forEach((n, s) => n > 0 && expect(demands[i]?.from).toContain(s));
    if (short > 0) seen.short++;
    if (found.sum.unpriced > 0) seen.unpriced++;
    if (found.over > 0) seen.over++;
    if (found.draws.some((row) => row.filter((n) => n > 0).length > 1)) seen.split++;
    if (new Set(demands.map((d) => d.day)).size > 1) seen.later++;
  }
  for (const n of Object.values(seen)) expect(n).toBeGreaterThan(25);
});

test('no bound is above the best, and large cases are served soon', () => {
  for (let seed = 1; seed <= 200; seed++) {
    const { demands, supplies } = randomCase(seed + 5000);
    const many = [...supplies, ...Array.from({ length: 7 }, () => ({ units: 0 }))];
    const found = drawUnits(demands, many);
    const best = bruteForce(demands, supplies).sum;
    const lex = (a: readonly number[], b: readonly number[]): number => {
      const at = a.findIndex((n, i) => n !== b[i]);
      return at < 0 ? 0 : (a[at] as number) - (b[at] as number);
    };
    expect(lex(listOf(found.bound), best), `seed ${seed}`).toBeLessThanOrEqual(0);
    expect(lex(listOf(found.sum), best), `seed ${seed}`).toBeGreaterThanOrEqual(0);
    if (found.exact) expect(listOf(found.sum), `seed ${seed}`).toEqual(best);
  }
  const r = new Random(9);
  const supplies = Array.from({ length: 20 }, () => ({ units: r.int(0, 400) }));
  const demands = Array.from({ length: 2000 }, (_, i): Demand => ({
    key: `n${i}`,
    units: r.int(1, 20),
    day: r.int(1, 60),
    from: supplies.map((_, s) => s).filter(() => r.chance(0.2)),
    priceCents: r.int(1, 9) * 100,
    pack: r.pick([1, 10])
  }));
  const found = drawUnits(demands, supplies);
  expect(found.bound.cents).toBeLessThanOrEqual(found.sum.cents);
});

/** What one right really has at the bounds: 12 needs on four days, six pools, 200 units, packs of one size, a price a day. */
function realisticCase(seed: number): { demands: Demand[]; supplies: Supply[] } {
  const r = new Random(seed * 31 + 5);
  const pack = r.pick([5, 8, 10]);
  const prices = [0, 1, 2, 3].map((day) => (day < 2 ? 900 : 1200) * pack);
  const supplies = Array.from({ length: 6 }, () => ({ units: r.int(5, 30) }));
  const demands = Array.from({ length: 12 }, (_, i): Demand => ({
    key: `n${String(i).padStart(2, '0')}`,
    units: r.int(8, 16),
    day: i % 4,
    from: supplies.map((_s, s) => s).filter(() => r.chance(0.4)),
    priceCents: prices[i % 4],
    pack
  }));
  return { demands, supplies };
}

test('at the very bounds of exactness nearly all that rights really ask is proven, and soon', () => {
  let exact = 0;
  for (let seed = 1; seed <= countOf(600); seed++) {
    const { demands, supplies } = realisticCase(seed);
    const found = drawUnits(demands, supplies);
    expect(found.bound.cents).toBeLessThanOrEqual(found.sum.cents);
    if (found.exact) exact++;
  }
  expect(exact).toBeGreaterThanOrEqual(Math.floor(countOf(600) * 0.96));
});
