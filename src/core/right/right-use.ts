import type { Day } from '../date';
import type { RightUseKind } from '../estate';

/** Counted units a step takes out of a pool; never mixed between editions. */
export interface UnitUse {
  readonly pool: string;
  readonly edition?: string;
  readonly number: number | 'unknown';
}

/** The right a step is made under. `costCents` is of one system, in the catalogue's currency. */
export interface RightUse {
  readonly kind: RightUseKind;
  readonly right?: string;
  readonly costCents: number | 'unknown';
  /** Of purchases: what one of it, or one pack of its units, costs on the step's day. */
  readonly priceCents?: number | 'unknown';
  /** Days from the order until it is in hand; absent: at once. */
  readonly leadDays?: number;
  /** Last day on which it can be used so. */
  readonly until?: Day;
  /** Rights counted in units cost no money on the route; what is to be bought is found over the estate. */
  readonly units?: UnitUse;
}
