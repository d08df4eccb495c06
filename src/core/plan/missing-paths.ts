import { compareText } from '../kit';
import { Names, type Product } from '../catalogue';
import type { CasePlan } from './plan-types';

/** A release systems stand on of which no list says where it leads. */
export interface MissingPath {
  readonly product: string;
  readonly from: string;
  /** Where most of them should get to. */
  readonly to: string;
  /** Product and release by their names. */
  readonly name: string;
  readonly systems: number;
}

/** Releases from which the verdict of a goal rests on an empty cell of the hop table, those of most systems first. */
export function findMissingPaths(
  cases: readonly CasePlan[],
  products: ReadonlyMap<string, Product>
): MissingPath[] {
  const found = new Map<string, { path: Omit<MissingPath, 'to' | 'systems'>; goals: Map<string, number> }>();
  for (const { product, start, goal, goalPlan, systems, verdict } of cases) {
    const of = products.get(product ?? '');
    if (!of || !start || !goal || verdict !== 'cannot tell') continue;
    if (!goalPlan?.reasons.some((r) => r.code === 'cell')) continue;
    const key = JSON.stringify([of.id, start.release]);
    const names = new Names(of);
    const name = `${names.product} ${names.release(start.release)}`;
    const known = found.get(key) ?? { path: { product: of.id, from: start.release, name }, goals: new Map() };
    known.goals.set(goal.release, (known.goals.get(goal.release) ?? 0) + systems.length);
    found.set(key, known);
  }
  return [...found.values()]
    .map(({ path, goals }): MissingPath => {
      const [[to] = ['']] = [...goals].sort((a, b) => b[1] - a[1] || compareText(a[0], b[0]));
      return { ...path, to, systems: [...goals.values()].reduce((sum, n) => sum + n, 0) };
    })
    .sort((a, b) => b.systems - a.systems || compareText(a.name, b.name));
}
