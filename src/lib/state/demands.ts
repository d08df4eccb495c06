import { findDemands, type Demands } from '$core/catalogue/find-demands';
import type { System } from '$core/estate/schema';
import type { CasePlan } from '$core/plan-types';
import type { Route } from '$core/route/types';
import { desk } from './desk.svelte';

/** What the catalogue, as the plan reads it, asks of a system along a route; undefined where its product is not there. */
export function demandsOn(plan: CasePlan, system: System, route: Route): Demands | undefined {
  const { settled: catalogue, links, decided } = desk;
  const product = catalogue?.products.find((p) => p.id === plan.product);
  if (!catalogue || !product || !plan.start) return undefined;
  const steps = route.steps.map((s) => ({ kind: s.kind, to: s.to }));
  return findDemands({ catalogue, product, system, start: plan.start, steps, around: { links, decided } });
}
