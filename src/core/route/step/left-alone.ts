import type { ProductModel } from '../../compile';
import type { Condition } from '../../condition';
import { isOfTheMachine } from '../../after';

/** Whether no hop of a product changes a fact: none uses or sets it, and no fresh install leaves it behind. Cost: hops of the product. */
export function leftByHops({ product, needs, hopsFrom }: ProductModel): (fact: string) => boolean {
  const changed = new Set(
    (product.hops ?? []).flatMap((h) => [h.uses, h.sets].flatMap((s) => Object.keys(s ?? {})))
  );
  const hasFresh = hopsFrom.some((hops) => hops.some((h) => h.hop.kind === 'fresh install'));
  return (fact) =>
    !changed.has(fact) &&
    (!hasFresh || isOfTheMachine(needs.kinds, fact)) &&
    fact !== 'edition' &&
    fact !== 'architecture';
}

/** Whether a condition turns on facts of the system itself alone, by their values. */
export function isOfItself(condition: Condition): boolean {
  switch (condition.kind) {
    case 'and':
    case 'or':
      return condition.parts.every(isOfItself);
    case 'not':
      return isOfItself(condition.part);
    default:
      return !['linked', 'listed', 'range'].includes(condition.kind);
  }
}
