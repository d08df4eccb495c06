import { askedOnWay, type AskedOnWay } from '$core/plan/asked-on-way';
import type { System } from '$core/estate/schema';
import { lookAt } from '$core/plan/find-out';
import type { CasePlan, TargetPlan } from '$core/plan/plan-types';
import { desk } from './desk.svelte';

/** What the steps to a target ask of a system; undefined where its product is not in the catalogue. */
export function demandsOn(
  plan: CasePlan,
  system: System,
  { target, route }: TargetPlan
): AskedOnWay | undefined {
  const { planning } = desk;
  const model = planning?.modelFor(system);
  if (!planning || !model || !route) return undefined;
  const looking = lookAt(planning, { model, one: planning.caseOf(system), plan }, target);
  return looking && askedOnWay(looking.terms, looking.start, looking.place, route);
}
