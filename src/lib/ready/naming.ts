import type { CasePlan } from '$core/plan';
import type { Naming } from '$core/wording';
import { desk } from '$lib/state/desk.svelte';

/** Names as the desk knows them. */
export const { naming }: { readonly naming: Naming } = desk;

/** The case of the plan on the desk with that id. */
export const caseOf = (id: string): CasePlan | undefined => desk.plan?.cases.find((c) => c.id === id);

/** Where a case is seen on its stair. */
export const stairOf = (systems: readonly string[]): string =>
  `/stair?at=${encodeURIComponent(systems[0] ?? '')}`;
