import type { Product } from '../catalogue/schema';
import type { System } from '../estate/schema';
import { foldText } from '../version/words';
import { matchesRange, parseRange } from '../version/range';
import { sequenceOf } from '../version/sequence';
import type { Standing } from '../route/types';

/** How the companions of a system fare on a release; unknown ones apart (FIELD-NOTES N24). */
export const FARES = [
  'fine',
  'after update',
  'with less',
  'reinstall',
  'remove first',
  'does not work',
  'unknown'
] as const;
export type FareName = (typeof FARES)[number];
export type Tally = Readonly<Record<FareName, number>>;

/**
 * Counts what a system is known to have by how it fares on what is arrived at. What the catalogue has never heard of, does not
 * list for that release, or lists under a condition is unknown, not fine.
 */
export function tallyCompanions(product: Product, system: System, at: Standing): Tally {
  const tally = Object.fromEntries(FARES.map((f) => [f, 0])) as Record<FareName, number>;
  const sequence = sequenceOf(product);
  for (const own of system.companions ?? []) {
    const name = foldText(own.name);
    const companion = product.companions?.find((c) =>
      [c.id, c.name, ...(c.aliases ?? [])].some((n) => foldText(n) === name)
    );
    const fare = companion?.fares.find((f) => {
      const range = parseRange(f.at);
      return 'range' in range && matchesRange(sequence, range.range, at);
    });
    const verdict = !fare || fare.when !== undefined ? 'unknown' : fare.verdict;
    tally[verdict === 'works' ? 'fine' : verdict]++;
  }
  return tally;
}
