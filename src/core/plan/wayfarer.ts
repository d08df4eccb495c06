import type { Case } from '../bind';
import { findChosen, type Label, type Party, type Terms, termsWith, wayOf } from '../route';
import { lookAt } from './find-out';
import type { CasePlan, TargetPlan } from './plan-types';
import type { Planning } from './planning';

/** A case on its chosen way. */
export interface Wayfarer {
  readonly plan: CasePlan;
  readonly terms: Terms;
  readonly label: Label;
  /** Where it goes in rounds. */
  readonly party?: Party;
}

/** By what is planned of a goal, which stays one object as long as nothing it turns on has changed (`PlanCache`). */
const FOUND = new WeakMap<TargetPlan, Omit<Wayfarer, 'plan'> | 'none'>();

/** The chosen way of a case whose goal it reaches for certain; undefined where it has none, or is there. */
export function wayfarerOf(planning: Planning, plan: CasePlan, one: Case | undefined): Wayfarer | undefined {
  if (!plan.goalPlan) return undefined;
  const known = FOUND.get(plan.goalPlan);
  if (known) return known === 'none' ? undefined : { plan, ...known };
  const found = findWay(planning, plan, one);
  FOUND.set(plan.goalPlan, found ?? 'none');
  return found && { plan, ...found };
}

function findWay(
  planning: Planning,
  plan: CasePlan,
  one: Case | undefined
): Omit<Wayfarer, 'plan'> | undefined {
  const { route, target } = plan.goalPlan ?? {};
  const model = one && planning.modelFor(one.system);
  if (!route || !target || route.restsOn.length > 0 || !model || !one) return undefined;
  const looking = lookAt(planning, { model, one, plan }, target);
  if (!looking) return undefined;
  const terms = termsWith(looking.terms, { way: wayOf(route) });
  const { label } = findChosen(terms, { start: looking.start, target: looking.place }, 'sure');
  return label && label.moves.length > 0 ? { terms: looking.terms, label } : undefined;
}
