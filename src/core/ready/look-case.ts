import { compareText } from '../kit';
import {
  askedOnWay,
  type AskedOnWay,
  type CasePlan,
  findOut,
  type FindOut,
  findSavings,
  isThere,
  lookAt,
  type Looking,
  type Planning,
  type Saving
} from '../plan';
import type { Product } from '../catalogue';
import { foldText } from '../version';
import type { Case } from '../bind';
import { findChosen, type Route, routeOf, type Terms } from '../route';

/** Something systems have that no list of their product names. */
export interface Unlisted {
  readonly name: string;
  readonly systems: readonly string[];
  /** Decided to be no longer used. */
  readonly ignored: boolean;
}

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
  /** What its steps ask; where nothing leads to the goal what a hop onto it would. */
  readonly asked?: AskedOnWay;
  /** What the systems have that no list of the product names, as it was read; sorted. */
  readonly unlisted?: readonly Unlisted[];
  readonly found?: FindOut;
  /** What its way needs only perhaps, and what finding out saves. */
  readonly savings: readonly Saving[];
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
  if (!model || !goalPlan || !plan.start || isThere(goalPlan) || plan.goalFrom === 'stay')
    return { one, plan, savings: [] };
  const looking = lookAt(planning, { model, one, plan }, goalPlan.target);
  if (!looking) return { one, plan, savings: [] };
  const { way, found } = known ?? searchFor(planning, looking, plan);
  return {
    one,
    plan,
    product: model.product,
    ...(way ? { way } : {}),
    unlisted: unlistedOf(planning, looking.terms, plan.systems),
    asked: askedOnWay(looking.terms, looking.start, looking.place, way),
    ...(found ? { found } : {}),
    savings: findSavings(planning, looking, goalPlan.route)
  };
}

function unlistedOf(planning: Planning, { model, asking }: Terms, systems: readonly string[]): Unlisted[] {
  const listed = new Set(model.needs.companions.flatMap((c) => [...c.names]));
  const found = new Map<string, { name: string; systems: string[] }>();
  for (const id of systems)
    for (const { name } of planning.system(id)?.companions ?? []) {
      const folded = foldText(name);
      if (listed.has(folded)) continue;
      const known = found.get(folded) ?? { name, systems: [] };
      found.set(folded, { ...known, systems: [...new Set([...known.systems, id])] });
    }
  return [...found]
    .sort(([a], [b]) => compareText(a, b))
    .map(([folded, one]) => ({ ...one, ignored: asking.decided.ignored.has(folded) }));
}

function searchFor(
  planning: Planning,
  looking: Looking,
  { goalPlan, startIsSure }: CasePlan
): Pick<LookedCase, 'way' | 'found'> {
  if (!goalPlan) return {};
  const { terms, start, place } = looking;
  const isOpenToDoubt = goalPlan.sure !== goalPlan.best || goalPlan.sure === 'closed' || !startIsSure;
  const found = isOpenToDoubt ? findOut(planning, looking, goalPlan) : undefined;
  const lifted = goalPlan.route ?? found?.openings.openings[0]?.route;
  const best = lifted ? undefined : findChosen(terms, { start, target: place }, 'best').label;
  const way = lifted ?? (best && routeOf(terms, best, 'best'));
  return { ...(way ? { way } : {}), ...(found ? { found } : {}) };
}
