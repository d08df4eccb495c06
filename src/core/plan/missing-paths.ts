import { Names, type Product } from '../catalogue';
import type { CasePlan } from './plan-types';

/** A release systems stand on of which no list says where it leads. */
export interface MissingPath {
  readonly product: string;
  /** Product and release by their names. */
  readonly name: string;
  readonly systems: number;
}

/** Releases from which the verdict of a goal rests on an empty cell of the hop table, those of most systems first. */
export function findMissingPaths(
  cases: readonly CasePlan[],
  products: ReadonlyMap<string, Product>
): MissingPath[] {
  const found = new Map<string, MissingPath>();
  for (const { product, start, goal, goalPlan, systems, verdict } of cases) {
    const of = products.get(product ?? '');
    if (!of || !start || !goal || verdict !== 'cannot tell') continue;
    if (!goalPlan?.reasons.some((r) => r.code === 'cell')) continue;
    const key = JSON.stringify([of.id, start.release]);
    const known = found.get(key);
    const names = new Names(of);
    found.set(key, {
      product: of.id,
      name: `${names.product} ${names.release(start.release)}`,
      systems: (known?.systems ?? 0) + systems.length
    });
  }
  return [...found.values()].sort((a, b) => b.systems - a.systems || (a.name < b.name ? -1 : 1));
}
