import { askedOnWay, type AskedOnWay, type CasePlan, lookAt, type TargetPlan } from '$core/plan';
import type { System } from '$core/estate';
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
