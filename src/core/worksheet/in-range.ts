import type { Product } from '../catalogue';
import { BASE_PATCH, matchesRange, parseRange, sequenceOf, type Standing } from '../version';

/** Whether a range in words has a place. */
export function isIn(product: Product, text: string, at: Standing): boolean {
  const parsed = parseRange(text);
  const position = { release: at.release, patch: at.patch || BASE_PATCH };
  return 'range' in parsed && matchesRange(sequenceOf(product), parsed.range, position);
}
