import type { Catalogue } from '../catalogue';
import { type Day, parseDay } from '../date';
import type { RightHeld } from '../estate';
import { compareText } from '../kit';
import { addSums, type MaybeSum } from './money';
import type { RightCall, RightCalls } from './right-call';

/** What is held under one name, edition, team or site, until one day. */
export interface Pool {
  /** Equal for entries of one pool; ties go by it. */
  readonly key: string;
  /** Needs of other groups are never served from it. */
  readonly group: string;
  /** The pool's name, else the right. */
  readonly name: string;
  readonly right: string;
  readonly product?: string;
  /** Units, which serve their own edition only. */
  readonly isCounted: boolean;
  readonly edition?: string;
  readonly team?: string;
  readonly site?: string;
  readonly until?: Day;
  readonly held: MaybeSum;
}

/** What a pool is called by. */
export type PoolName = Pick<Pool, 'name' | 'right' | 'product' | 'isCounted' | 'edition'>;

/** The calls of a group share pools: units of one pool's name and edition, or one right without units. */
export const groupOfCalls = ({ right, edition, pool }: RightCalls): string =>
  pool === undefined ? `right ${right}` : `pool ${pool}/${edition}`;

/** What is held, entries of one pool together; those that end soonest first, then by key. */
export function gatherPools(held: readonly RightHeld[], catalogue: Catalogue): Pool[] {
  const rights = catalogue.products.flatMap((p) => p.rights ?? []);
  const pools = new Map<string, Pool>();
  for (const one of held) {
    const units =
      rights.find((r) => one.pool !== undefined && r.units?.pool === one.pool)?.units ??
      rights.find((r) => r.id === one.right)?.units;
    const name = units ? (one.pool ?? units.pool) : one.right;
    const { product, edition, team, site, until } = one;
    const place = team === undefined ? (site === undefined ? '' : `site ${site}`) : `team ${team}`;
    const key = [name, edition ?? '', place, product ?? '', until ?? ''].join('/');
    const known = pools.get(key);
    pools.set(key, {
      key,
      group: units ? `pool ${name}/${edition ?? ''}` : `right ${one.right}`,
      name,
      right: one.right,
      isCounted: units !== undefined,
      ...(product === undefined ? {} : { product }),
      ...(edition === undefined ? {} : { edition }),
      ...(team === undefined ? {} : { team }),
      ...(site === undefined || team !== undefined ? {} : { site }),
      ...(until === undefined ? {} : { until: parseDay(until) ?? -Infinity }),
      held: known ? addSums(known.held, one.held) : one.held
    });
  }
  const endOf = (pool: Pool): number => pool.until ?? Infinity;
  return [...pools.values()].sort((a, b) =>
    endOf(a) === endOf(b) ? compareText(a.key, b.key) : endOf(a) - endOf(b)
  );
}

/** Whether a pool of the call's group may serve it: its product, its edition, its team or site, its day. */
export const mayServe = (pool: Pool, { product, edition }: RightCalls, call: RightCall): boolean =>
  (pool.product === undefined || pool.product === product) &&
  (pool.isCounted || pool.edition === undefined || pool.edition === edition) &&
  (pool.team === undefined || pool.team === call.team) &&
  (pool.site === undefined || pool.site === call.site) &&
  (pool.until === undefined || pool.until >= call.day);
