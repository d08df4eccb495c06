import { factOfOption, type Product } from '../catalogue';
import { findPlaces, type Place, type System } from '../estate';
import type { CasePlan } from '../plan';
import { isCounted } from '../route';

/** What only the publisher, or a look at what is held, can answer of a way's rights; open until somebody has answered. */
export interface RightQuestion {
  /** `product/right ID`, or the step where no right is published. */
  readonly key: string;
  readonly product: string;
  readonly kind: 'ask' | 'units';
  readonly right?: string;
  readonly whom?: string;
  /** Where it is read on the version of the first system. */
  readonly places: readonly Place[];
  readonly cases: readonly string[];
  readonly systems: readonly string[];
}

/** The estate as questions of rights read it. */
export interface Asking {
  readonly products: ReadonlyMap<string, Product>;
  readonly systems: ReadonlyMap<string, System>;
}

/**
 * Questions that open by themselves (FIELD-NOTES N37): a step under a right of kind `ask` or under none, and a step in units of
 * which nobody knows how many it takes. Most systems first, then by key.
 */
export function findRightQuestions(
  cases: readonly CasePlan[],
  { products, systems }: Asking
): RightQuestion[] {
  const found = new Map<string, RightQuestion>();
  for (const plan of cases)
    for (const { id, right } of (plan.goalPlan?.route?.steps ?? []).filter(isCounted)) {
      const product = products.get(plan.product ?? '');
      const system = systems.get(plan.systems[0] ?? '');
      const asks = right.kind === 'ask';
      if (!product || !system || !(asks || right.units?.number === 'unknown')) continue;
      const published = product.rights?.find((r) => r.id === right.right);
      const { units } = published ?? {};
      const facts = asks
        ? []
        : [units?.fact, ...(units?.options ?? []).map(factOfOption)].flatMap((f) => f ?? []);
      const read = ['rights', ...facts].flatMap((fact) => findPlaces(product, system, fact).places);
      const places = [...new Set(read)];
      const key = `${product.id}/right ${right.right ?? id}`;
      const whom = published?.ask ?? places.find((p) => p.ask)?.ask ?? product.publisher;
      const kind = asks ? 'ask' : 'units';
      const place = places.map((p) => p.id).join(' ');
      const known = found.get(`${key} ${kind} ${place}`);
      found.set(`${key} ${kind} ${place}`, {
        key,
        product: product.id,
        kind,
        places,
        ...(right.right === undefined ? {} : { right: right.right }),
        ...(whom === undefined ? {} : { whom }),
        cases: [...(known?.cases ?? []), plan.id],
        systems: [...(known?.systems ?? []), ...plan.systems]
      });
    }
  return [...found.values()].sort((a, b) => b.systems.length - a.systems.length || (a.key < b.key ? -1 : 1));
}
