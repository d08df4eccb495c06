import { findDemands, type Demands } from '../catalogue/find-demands';
import type { Product } from '../catalogue/schema';
import type { Case } from '../estate/gather';
import { findOut, lookAt, type FindOut, type Looking } from '../find-out';
import type { Planning } from '../planning';
import type { CasePlan } from '../plan-types';
import { findChosen } from '../route/choose';
import { routeOf } from '../route/explain';
import type { Asking, Route } from '../route/types';

/** A case seen for what stands in the way of its goal. */
export interface LookedCase {
  readonly one: Case;
  readonly plan: CasePlan;
  readonly product?: Product;
  /**
   * The way that is asked about: the chosen one; where the goal is closed the one that is chosen after the first opening;
   * where it cannot be told the best there may be. Absent where nothing leads there.
   */
  readonly way?: Route;
  readonly demands?: Demands;
  readonly found?: FindOut;
  readonly decided?: Asking['decided'];
}

/**
 * Looks into one case: openings where its goal is closed, questions where it is not settled, what is asked on the way.
 * Cost: that of `findOpenings` and `findQuestions`; nothing but demands where the goal is open and settled.
 */
export function lookIntoCase(
  planning: Planning,
  one: Case,
  plan: CasePlan,
  known?: Pick<LookedCase, 'way' | 'found'>
): LookedCase {
  const model = planning.modelFor(one.system);
  const { goalPlan } = plan;
  if (!model || !goalPlan || !plan.start || goalPlan.verdict === 'here' || plan.goalFrom === 'stay')
    return { one, plan };
  const looking = lookAt(planning, { model, one, plan }, goalPlan.target);
  if (!looking) return { one, plan };
  const { way, found } = known ?? searchFor(planning, looking, plan);
  const steps = way?.steps ?? [{ kind: 'in place', to: { ...goalPlan.target, patch: 'base' } }];
  const demands = findDemands({
    catalogue: planning.catalogue,
    product: model.product,
    system: one.system,
    around: { links: planning.links, decided: planning.decided },
    start: plan.start,
    steps: steps.map((s) => ({ kind: s.kind, to: s.to }))
  });
  return {
    one,
    plan,
    product: model.product,
    ...(way ? { way } : {}),
    demands,
    ...(found ? { found } : {}),
    decided: looking.terms.asking.decided
  };
}

function searchFor(
  planning: Planning,
  looking: Looking,
  { goalPlan, starts }: CasePlan
): Pick<LookedCase, 'way' | 'found'> {
  if (!goalPlan) return {};
  const { terms, start, place } = looking;
  const isOpenToDoubt = goalPlan.sure !== goalPlan.best || goalPlan.sure === 'closed' || starts > 1;
  const found = isOpenToDoubt ? findOut(planning, looking, goalPlan) : undefined;
  const lifted = goalPlan.route ?? found?.openings.openings[0]?.route;
  const best = lifted ? undefined : findChosen(terms, start, place, 'best').label;
  const way = lifted ?? (best && routeOf(terms, best, 'best'));
  return { ...(way ? { way } : {}), ...(found ? { found } : {}) };
}
