import type { Catalogue } from '../catalogue';
import type { Day } from '../date';
import type { Estate } from '../estate';
import { compareText } from '../kit';
import type { Demand, Drawn } from './draw-problem';
import { drawUnits } from './draw-units';
import { gatherPools, groupOfCalls, mayServe, type Pool } from './pools';
import { keyOfCalls, type RightCall, type RightCalls } from './right-call';
import type { PoolDraw, Purchase, RightCount, RightNeed, RightPool, RightShare } from './right-need';

/**
 * The one count of rights, for plan, screens, lists and exports alike: what is called for of each right by edition,
 * what pools hold of it, who draws on what, and what is to be bought on which day.
 *
 * Certain calls are served whole before those that are only perhaps made, which never cause a purchase. Calls equal in right,
 * edition, team, site, day and price are one demand. Needs are sorted by product, right, edition, pool; pools by their last day.
 */
export function countRightNeeds(
  called: readonly RightCalls[],
  { rightsHeld }: Pick<Estate, 'rightsHeld'>,
  catalogue: Catalogue,
  today: Day
): RightCount {
  const pools = gatherPools(rightsHeld, catalogue);
  const groups = new Map<string, RightCalls[]>();
  for (const calls of [...called].sort((a, b) => compareText(keyOfCalls(a), keyOfCalls(b)))) {
    const group = groupOfCalls(calls);
    groups.set(group, [...(groups.get(group) ?? []), calls]);
  }
  const needs: RightNeed[] = [];
  const draws = new Map<string, PoolDraw[]>();
  for (const [group, calls] of groups) {
    const counted = new GroupCount(
      calls,
      pools.filter((p) => p.group === group)
    );
    needs.push(...counted.needs());
    for (const [key, list] of counted.poolDraws) draws.set(key, list);
  }
  return {
    needs: needs.sort((a, b) => compareText(keyOfCalls(a), keyOfCalls(b))),
    pools: pools.map((pool) => poolOf(pool, draws.get(pool.key) ?? [], today))
  };
}

function poolOf(pool: Pool, draws: readonly PoolDraw[], today: Day): RightPool {
  const { key: _key, ...about } = pool;
  void _key;
  const unitsOf = (certain: boolean): number =>
    sum(draws.filter((d) => d.certain === certain).map((d) => d.units));
  const drawn = unitsOf(true);
  return {
    ...about,
    drawn,
    perhaps: unitsOf(false),
    remainder: pool.held === 'unknown' ? 'unknown' : pool.held - drawn,
    lapsed: pool.until !== undefined && pool.until < today,
    draws
  };
}

/** Calls that are one demand, in the order of their systems. */
interface Gathered {
  readonly of: RightCalls;
  readonly demand: Demand;
  readonly calls: readonly RightCall[];
}

/** The calls that share pools, served together. */
class GroupCount {
  readonly #calls: readonly RightCalls[];
  readonly #pools: readonly Pool[];
  readonly #certain: readonly Gathered[];
  readonly #perhaps: readonly Gathered[];
  readonly #found: Drawn;
  readonly #beside: Drawn;
  readonly #shares = new Map<RightCall, Pick<RightShare, 'held' | 'toBuy'>>();
  /** By the pool's key. */
  readonly poolDraws = new Map<string, PoolDraw[]>();

  constructor(calls: readonly RightCalls[], pools: readonly Pool[]) {
    this.#calls = calls;
    this.#pools = pools;
    this.#certain = this.#gather(true);
    this.#perhaps = this.#gather(false);
    const supplies = pools.map((p) => ({ units: p.held === 'unknown' ? 0 : p.held }));
    this.#found = drawUnits(
      this.#certain.map((g) => g.demand),
      supplies
    );
    const taken = supplies.map((_, s) => sum(this.#found.draws.map((row) => row[s] ?? 0)));
    this.#beside = drawUnits(
      this.#perhaps.map((g) => ({ ...g.demand, priceCents: undefined })),
      supplies.map((s, i) => ({ units: s.units - (taken[i] ?? 0) }))
    );
    this.#certain.forEach((g, i) => this.#share(g, this.#found.draws[i] ?? []));
    this.#perhaps.forEach((g, i) => this.#share(g, this.#beside.draws[i] ?? []));
  }

  needs(): RightNeed[] {
    return this.#calls.map((calls) => this.#need(calls));
  }

  #gather(certain: boolean): Gathered[] {
    const found = new Map<
      string,
      { readonly of: RightCalls; readonly key: string; readonly calls: RightCall[] }
    >();
    for (const of of this.#calls) {
      const about = keyOfCalls(of);
      for (const call of of.calls) {
        if (call.certain !== certain || call.number === 'unknown') continue;
        const { team = '', site = '', day, priceCents = 'none' } = call;
        const key = [about, team, site, day, priceCents].join('\n');
        const known = found.get(key) ?? { of, key, calls: [] };
        known.calls.push(call);
        found.set(key, known);
      }
    }
    return [...found.values()].map(({ of, key, calls }) => {
      const [first] = calls as [RightCall, ...RightCall[]];
      return {
        of,
        calls: calls.sort((a, b) => compareText(a.system, b.system)),
        demand: {
          key,
          units: sum(calls.map((c) => c.number as number)),
          day: first.day,
          from: this.#pools.flatMap((p, i) => (mayServe(p, of, first) ? [i] : [])),
          priceCents: first.priceCents,
          pack: of.pack
        }
      };
    });
  }

  /** Deals what a demand draws to its calls, in the order of their systems. */
  #share({ of, demand, calls }: Gathered, draws: readonly number[]): void {
    const left = [...draws];
    for (const call of calls) {
      let open = call.number as number;
      left.forEach((units, p) => {
        const own = Math.min(units, open);
        if (own === 0) return;
        open -= own;
        left[p] = units - own;
        const pool = this.#pools[p] as Pool;
        const list = this.poolDraws.get(pool.key) ?? [];
        const { product, right, edition } = of;
        list.push({
          product,
          right,
          edition,
          system: call.system,
          units: own,
          day: call.day,
          certain: call.certain
        });
        this.poolDraws.set(pool.key, list);
      });
      const isBought = demand.priceCents !== undefined && call.certain;
      this.#shares.set(call, { held: (call.number as number) - open, toBuy: isBought ? open : 0 });
    }
  }

  #need(of: RightCalls): RightNeed {
    const { calls: _calls, pack, ...about } = of;
    void _calls;
    const own = this.#certain.flatMap((g, i) => (g.of === of ? [i] : []));
    const drawn = sum(own.flatMap((i) => this.#found.draws[i] ?? []));
    const short = sum(own.map((i) => this.#found.short[i] ?? 0));
    const purchases = this.#purchases(own, pack);
    const shares = this.#sharesOf(of);
    const certain = shares.filter((s) => s.certain);
    const isKnown = certain.every((s) => s.needed !== 'unknown');
    const needed = sum(certain.map((s) => (s.needed === 'unknown' ? 0 : s.needed)));
    const cents = sum(purchases.map((p) => (p.priceCents === 'unknown' ? 0 : p.packs * p.priceCents)));
    const isPriced = purchases.every((p) => p.priceCents !== 'unknown');
    const serving = this.#pools.filter((p) => of.calls.some((c) => mayServe(p, of, c)));
    const buying = shares.filter((s) => s.toBuy !== 0);
    return {
      group: groupOfCalls(of),
      ...about,
      needed: isKnown ? needed : 'unknown',
      held: sum(serving.map((p) => (p.held === 'unknown' ? 0 : p.held))),
      drawn,
      toBuy: isKnown ? needed - drawn - short : 'unknown',
      short,
      costCents: isKnown && isPriced ? cents : 'unknown',
      least: { needed, toBuy: needed - drawn - short, costCents: cents },
      atMost: serving.some((p) => p.held === 'unknown'),
      purchases,
      perhaps: this.#perhapsOf(of, shares),
      exact: this.#found.exact,
      boundCents: this.#found.exact ? cents : Math.min(cents, this.#found.bound.cents),
      by: Math.min(...(buying.length > 0 ? buying : shares).map((s) => s.by)),
      systems: [...new Set(shares.map((s) => s.system))],
      cases: [...new Set(of.calls.map((c) => c.case))],
      shares
    };
  }

  #purchases(own: readonly number[], pack: number): Purchase[] {
    return this.#found.bought
      .filter((b) => own.includes(b.demand))
      .map(({ demand, packs }) => {
        const { day, priceCents = 'unknown' } = this.#certain[demand]?.demand as Demand;
        return { day, packs, units: packs * pack, priceCents };
      })
      .sort((a, b) => a.day - b.day);
  }

  #perhapsOf(of: RightCalls, shares: readonly RightShare[]): RightNeed['perhaps'] {
    const wanted = shares.filter((s) => !s.certain);
    return {
      needed: wanted.some((s) => s.needed === 'unknown')
        ? 'unknown'
        : sum(wanted.map((s) => s.needed as number)),
      drawn: sum(this.#perhaps.flatMap((g, i) => (g.of === of ? (this.#beside.draws[i] ?? []) : [])))
    };
  }

  #sharesOf(of: RightCalls): RightShare[] {
    return of.calls
      .map((call): RightShare => {
        const { system, number: needed, day, by, certain } = call;
        const share = this.#shares.get(call) ?? { held: 0, toBuy: certain ? ('unknown' as const) : 0 };
        return { system, needed, ...share, day, by, certain };
      })
      .sort((a, b) => compareText(a.system, b.system) || a.day - b.day);
  }
}

const sum = (numbers: readonly number[]): number => numbers.reduce((a, b) => a + b, 0);
