import { askedOnWay, type AskedOnWay, type CasePlan, lookAt, Planning, type TargetPlan } from '$core/plan';
import type { Catalogue } from '$core/catalogue';
import type { System } from '$core/estate';
import { desk } from './desk.svelte';

/** What the steps to a target ask of a system; undefined where its product is not in the catalogue. */
export function demandsOn(
  plan: CasePlan,
  system: System,
  { target, route }: TargetPlan
): AskedOnWay | undefined {
  const planning = planningNow();
  const model = planning?.modelFor(system);
  if (!planning || !model || !route) return undefined;
  const looking = lookAt(planning, { model, one: planning.caseOf(system), plan }, target);
  return looking && askedOnWay(looking.terms, looking.start, looking.place, route);
}

let made: { readonly of: Catalogue; readonly planning: Planning } | undefined;

/** For looking at single systems on the page; whole plans are the workers'. Made once for what is on the desk. */
function planningNow(): Planning | undefined {
  const { catalogue, estate, today } = desk;
  if (!catalogue) return undefined;
  if (made?.of !== catalogue || made.planning.estate !== estate || made.planning.today !== today)
    made = { of: catalogue, planning: new Planning({ catalogue, estate, today }) };
  return made.planning;
}
