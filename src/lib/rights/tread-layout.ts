import type { RightNeed, RightPool } from '$core/right';

/** Needs and pools that go together: one tread of units. */
export interface RightTread {
  readonly group: string;
  readonly needs: readonly RightNeed[];
  readonly pools: readonly RightPool[];
}

/** A stretch of a tread. */
export interface Stretch {
  readonly kind: 'drawn' | 'perhaps' | 'spare' | 'unknown' | 'to buy' | 'short';
  readonly x: number;
  readonly width: number;
  readonly units: number;
}

export interface PoolStretch {
  readonly pool: RightPool;
  readonly x: number;
  readonly width: number;
}

/** A way's own climb on the tread: what its systems draw or buy. */
export interface Climb {
  readonly case: string;
  readonly units: number;
  readonly bought: boolean;
  readonly x: number;
  readonly width: number;
  readonly rise: number;
}

export interface TreadLayout {
  readonly stretches: readonly Stretch[];
  readonly pools: readonly PoolStretch[];
  readonly climbs: readonly Climb[];
  readonly end: number;
}

const MOST_A_UNIT = 13;
const GAP = 5;
/** A pool of nobody knows how many. */
const UNKNOWN_WIDTH = 46;
const RISE = 18;

/**
 * Units from left to right: each pool - drawn, perhaps drawn, spare -, then what is to be bought, then what stays short.
 *
 * @param width px there are
 * @param caseOf the case of a system
 */
export function layOutTread(
  { needs, pools }: RightTread,
  width: number,
  caseOf: (system: string) => string
): TreadLayout {
  const toBuy = sum(needs.map((n) => n.least.toBuy));
  const short = sum(needs.map((n) => n.short));
  const known = sum(pools.map((p) => (p.held === 'unknown' ? 0 : p.held)));
  const unknown = pools.filter((p) => p.held === 'unknown').length;
  const room = width - pools.length * GAP - unknown * UNKNOWN_WIDTH;
  const unit = Math.min(MOST_A_UNIT, Math.max(0, room) / Math.max(1, known + toBuy + short));
  const stretches: Stretch[] = [];
  const laid: PoolStretch[] = [];
  const climbs: Omit<Climb, 'rise'>[] = [];
  let x = 0;
  const add = (kind: Stretch['kind'], units: number, wide = units * unit): void => {
    if (wide > 0) stretches.push({ kind, x, width: wide, units });
    x += wide;
  };
  const climb = (byCase: ReadonlyMap<string, number>, from: number, bought: boolean): void => {
    let at = from;
    for (const [id, units] of byCase) {
      climbs.push({ case: id, units, bought, x: at, width: units * unit });
      at += units * unit;
    }
  };
  for (const pool of pools) {
    const from = x;
    if (pool.held === 'unknown') add('unknown', 0, UNKNOWN_WIDTH);
    else {
      climb(
        unitsByCase(pool.draws.filter((d) => d.certain).map((d) => [caseOf(d.system), d.units])),
        x,
        false
      );
      add('drawn', pool.drawn);
      add('perhaps', pool.perhaps);
      add('spare', pool.held - pool.drawn - pool.perhaps);
    }
    laid.push({ pool, x: from, width: x - from });
    x += GAP;
  }
  climb(
    unitsByCase(
      needs.flatMap((n) =>
        n.shares.map((s) => [caseOf(s.system), s.toBuy === 'unknown' ? 0 : s.toBuy] as const)
      )
    ),
    x,
    true
  );
  add('to buy', toBuy);
  add('short', short);
  return {
    stretches,
    pools: laid,
    climbs: climbs.map((c, i) => ({ ...c, rise: (RISE * (i + 1)) / climbs.length })),
    end: x
  };
}

function unitsByCase(shares: readonly (readonly [id: string, units: number])[]): Map<string, number> {
  const found = new Map<string, number>();
  for (const [id, units] of shares) if (units > 0) found.set(id, (found.get(id) ?? 0) + units);
  return found;
}

const sum = (numbers: readonly number[]): number => numbers.reduce((a, b) => a + b, 0);
