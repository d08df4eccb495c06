import type { ProductModel } from '../../compile';

/** What a way to one release has at least, from another: clauses that do not hold wherever it arrives, and hops of ways with so few. */
export interface LeastFaults {
  readonly faults: number;
  readonly hops: number;
}

/**
 * By release - from nothing in the first place - the ways to a target with fewest faults, then fewest hops, whatever else the clauses say;
 * `faultsOn`: by release, of whatever arrives there. Cost: hops, as often as anything got less; once where hops lead on only.
 */
export function leastFaultsTo(
  { hopsFrom, hopsFromNothing }: ProductModel,
  target: number,
  faultsOn: readonly number[]
): readonly (LeastFaults | undefined)[] {
  const least: (LeastFaults | undefined)[] = [];
  least[target + 1] = { faults: 0, hops: 0 };
  const leads = [hopsFromNothing, ...hopsFrom];
  for (let changed = true; changed;) {
    changed = false;
    for (let at = leads.length - 1; at >= 0; at--)
      for (const { to } of leads[at] ?? []) {
        const next = least[to + 1];
        if (!next) continue;
        const found = { faults: next.faults + (faultsOn[to] ?? 0), hops: next.hops + 1 };
        if (!isLess(found, least[at])) continue;
        least[at] = found;
        changed = true;
      }
  }
  return least;
}

const isLess = (a: LeastFaults, b: LeastFaults | undefined): boolean =>
  !b || a.faults < b.faults || (a.faults === b.faults && a.hops < b.hops);
