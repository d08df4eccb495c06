import type { Catalogue, Right } from '../catalogue';
import { type Day, parseDay } from '../date';
import type { Estate, RightHeld } from '../estate';
import { rankOfSum } from './money';
import type { RightNeed, RightShare } from './right-need';
import { compareText } from '../kit';

/** One step of one system that takes a right. */
export interface RightCall {
  readonly system: string;
  readonly case: string;
  readonly number: number | 'unknown';
  readonly priceCents: number | 'unknown';
  readonly day: Day;
  /** The last day to have it. */
  readonly by: Day;
}

/** The calls on one right of a product in one edition, and of units in one pool. */
export interface RightCalls {
  readonly product: string;
  readonly right: string;
  readonly edition: string;
  readonly pool?: string;
  readonly calls: readonly RightCall[];
}

/**
 * The one count of rights, for plan, screens, lists and exports alike: what is called for of each right by edition, what is held
 * of it, and what is to be bought.
 *
 * 1. Rights bought and rights counted in units are needed; free ones and what is held by agreement are not.
 * 2. Held ones cover the dearest calls first, then the earliest, then by system. Those of another edition never serve; those
 *    held without an edition serve any edition of a plain right, and of units only where the units have none. What ends
 *    before the day of a call does not serve it.
 * 3. The rest is bought at the price of its day; units of one price in whole packs.
 * Sorted by product, right, edition, pool.
 */
export function countRightNeeds(
  called: readonly RightCalls[],
  estate: Estate,
  catalogue: Catalogue
): RightNeed[] {
  const left = estate.rightsHeld.map((held) => ({ held, units: held.held }));
  return [...called]
    .sort((a, b) => compareText(keyOfCalls(a), keyOfCalls(b)))
    .map((need) => {
      const product = catalogue.products.find((p) => p.id === need.product);
      return cover(
        need,
        product?.rights?.find((r) => r.id === need.right),
        left
      );
    });
}

/** Equal for calls on the same right, edition and pool of a product. */
export const keyOfCalls = ({ product, right, edition, pool }: Omit<RightCalls, 'calls'>): string =>
  [product, right, edition, pool ?? ''].join('/');

interface Left {
  readonly held: RightHeld;
  units: number;
}

function cover(need: RightCalls, right: Right | undefined, left: readonly Left[]): RightNeed {
  const pools = left.filter(({ held }) => mayServe(held, need));
  const before = sum(pools.map((p) => p.units));
  const inTurn = [...need.calls].sort(
    (a, b) =>
      rankOfSum(b.priceCents) - rankOfSum(a.priceCents) || a.day - b.day || compareText(a.system, b.system)
  );
  const bought = new Map<number | 'unknown', number>();
  const shares = inTurn.map((call): RightShare => {
    const { system, number: needed } = call;
    if (needed === 'unknown') return { system, needed, held: 0, toBuy: 'unknown' };
    const held = drawFrom(pools, needed, call.day);
    bought.set(call.priceCents, (bought.get(call.priceCents) ?? 0) + needed - held);
    return { system, needed, held, toBuy: needed - held };
  });
  const isKnown = shares.every((s) => s.needed !== 'unknown');
  const total = (pick: (s: RightShare) => number | 'unknown'): number | 'unknown' =>
    isKnown ? sum(shares.map((s) => pick(s) as number)) : 'unknown';
  const toBuy = total((s) => s.toBuy);
  return {
    product: need.product,
    right: need.right,
    edition: need.edition,
    ...(need.pool === undefined ? {} : { pool: need.pool }),
    needed: total((s) => s.needed),
    held: before,
    toBuy,
    costCents: toBuy === 'unknown' ? toBuy : costOf(bought, right?.units?.pack ?? 1),
    by: Math.min(...need.calls.map((c) => c.by)),
    systems: [...new Set(need.calls.map((c) => c.system))],
    cases: [...new Set(need.calls.map((c) => c.case))],
    shares: [...shares].sort((a, b) => compareText(a.system, b.system))
  };
}

const sum = (numbers: readonly number[]): number => numbers.reduce((a, b) => a + b, 0);

/** Whether what is held is of this right and pool, and of no other edition. */
function mayServe(held: RightHeld, { product, right, pool, edition }: RightCalls): boolean {
  if (held.right !== right || (held.product !== undefined && held.product !== product)) return false;
  if (pool === undefined) return held.edition === undefined || held.edition === edition;
  return (held.pool ?? pool) === pool && (held.edition ?? '') === edition;
}

/** Takes what there is that day, of what ends soonest first. */
function drawFrom(pools: readonly Left[], wanted: number, day: Day): number {
  let drawn = 0;
  const endOf = ({ held }: Left): number => parseDay(held.until ?? '') ?? Infinity;
  for (const pool of [...pools].sort((a, b) => (endOf(a) === endOf(b) ? 0 : endOf(a) - endOf(b)))) {
    if (endOf(pool) < day) continue;
    const taken = Math.min(pool.units, wanted - drawn);
    pool.units -= taken;
    drawn += taken;
  }
  return drawn;
}

function costOf(bought: ReadonlyMap<number | 'unknown', number>, pack: number): number | 'unknown' {
  let cost = 0;
  for (const [price, units] of bought) {
    if (units === 0) continue;
    if (price === 'unknown') return 'unknown';
    cost += Math.ceil(units / pack) * price;
  }
  return cost;
}
