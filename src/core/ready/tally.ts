import type { Product } from '../catalogue';
import type { System } from '../estate';
import { foldText, matchesRange, parseRange, sequenceOf, type Standing } from '../version';

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
 * Counts what systems are known to have by how it fares on what is arrived at, for one product and place. What the catalogue has
 * never heard of, does not list for that release, or lists under a condition is unknown, not fine. Made once, then cheap a system.
 */
export function tallierOf(product: Product, at: Standing): (system: System) => Tally {
  const sequence = sequenceOf(product);
  const fares = new Map<string, FareName>();
  for (const companion of product.companions ?? []) {
    const fare = companion.fares.find((f) => {
      const range = parseRange(f.at);
      return 'range' in range && matchesRange(sequence, range.range, at);
    });
    const verdict = !fare || fare.when !== undefined ? 'unknown' : fare.verdict;
    for (const name of [companion.id, companion.name, ...(companion.aliases ?? [])])
      fares.set(foldText(name), verdict === 'works' ? 'fine' : verdict);
  }
  return (system) => {
    const tally = Object.fromEntries(FARES.map((f) => [f, 0])) as Record<FareName, number>;
    for (const own of system.companions ?? []) tally[fares.get(foldText(own.name)) ?? 'unknown']++;
    return tally;
  };
}
