import { kindsOf, nameOfFact } from '$core/estate';
import type { CasePlan } from '$core/plan';
import type { Naming } from '$core/wording';
import { desk } from '$lib/state/desk.svelte';

/** Names as the desk knows them. */
export const naming: Naming = {
  names: (product) => desk.namesOfProduct(product),
  system: (id) => desk.systems.get(id)?.name ?? id,
  fact: (id) => nameOfFact(id, (fact) => kindsOf(desk.catalogue).find(fact)?.name)
};

/** The case of the plan on the desk with that id. */
export const caseOf = (id: string): CasePlan | undefined => desk.plan?.cases.find((c) => c.id === id);

/** Where a case is seen on its stair. */
export const stairOf = (systems: readonly string[]): string =>
  `/stair?at=${encodeURIComponent(systems[0] ?? '')}`;
