import { findDemands, type Demands } from '$core/catalogue/find-demands';
import { settleCatalogue } from '$core/catalogue/settle';
import { formatDay } from '$core/date/day';
import { FactDecisions } from '$core/estate/facts';
import { LinkIndex } from '$core/estate/links';
import type { System } from '$core/estate/schema';
import { rulingsOf } from '$core/plan';
import type { CasePlan } from '$core/plan-types';
import type { Route } from '$core/route/types';
import { desk } from './desk.svelte';

/** What the catalogue, as the plan reads it, asks of a system along a route; undefined where its product is not there. */
export function demandsOn(plan: CasePlan, system: System, route: Route): Demands | undefined {
  if (!desk.catalogue || !plan.start) return undefined;
  const { catalogue } = settleCatalogue(desk.catalogue, rulingsOf(desk.estate, formatDay(desk.today)));
  const product = catalogue.products.find((p) => p.id === plan.product);
  const steps = route.steps.map((s) => ({ kind: s.kind, to: s.to }));
  const around = {
    links: new LinkIndex(desk.estate.systems),
    decided: new FactDecisions(desk.estate.decisions, formatDay(desk.today))
  };
  return product && findDemands({ catalogue, product, system, start: plan.start, steps, around });
}
