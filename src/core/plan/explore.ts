import { sameTarget, type CasePlan, type TargetPlan } from './plan-types';
import { planCase } from './plan-case';
import { findOut, lookAt, type FindOut, type Looking } from './find-out';
import type { Planning } from './planning';
import { withRestsOn } from './rests-on';
import { type Eaten, eatenBy } from './eaten';
import { findSavings, type Saving } from './savings';
import type { Case } from '../bind';
import type { Target } from '../estate';
import {
  type Fallback,
  findChosen,
  findFallbacks,
  findRoutes,
  findWhyNotStraight,
  type Label,
  metMoreThanCells,
  type NotStraight,
  type Route,
  routeOf,
  termsWith,
  unbeatenOf,
  wayOf
} from '../route';
import { targetKey } from '../compile';

const MOST_LISTED = 20;

/** Everything there is to say of one target of one system. */
export interface Exploration extends FindOut {
  readonly target: Target;
  /** The unbeaten routes of both runs, in the order of preference; the chosen one among them. */
  readonly routes: readonly Route[];
  /** The search ended on its budget: the best by each criterion and the first 20 are listed. */
  readonly routesCut: boolean;
  readonly fallbacks: readonly Fallback[];
  /** Why one hop in place does not do, where none does. */
  readonly notStraight?: NotStraight;
  /** Of the goal: what eats its slack. */
  readonly eaten?: Eaten;
  /** What may be saved by finding out, where something is needed only perhaps; dearest first. */
  readonly savings: readonly Saving[];
}

export interface Explored {
  readonly plan: CasePlan;
  readonly looked?: Exploration;
}

/** One system with every target, and one target - the goal where none is named - looked into. Undefined: no such system. */
export function exploreSystem(planning: Planning, id: string, target?: Target): Explored | undefined {
  const gathered = planning.gather().cases.find((c) => c.systems.includes(id));
  const system = planning.system(id);
  if (!gathered || !system) return undefined;
  // What others in the case are linked with has other names.
  const one = { ...gathered, system };
  const model = planning.modelFor(one.system);
  const plan = withRestsOn(planning, one, planCase(planning, model, one, 'target'));
  const looked = exploreCase(planning, one, plan, target);
  return looked ? { plan, looked } : { plan };
}

/** One target - the goal where none is named - of a case that is planned. Undefined where there is nothing to look into. */
export function exploreCase(
  planning: Planning,
  one: Case,
  plan: CasePlan,
  target?: Target
): Exploration | undefined {
  const model = planning.modelFor(one.system);
  const wanted = target ?? plan.goal;
  const found = plan.targets.find((t) => sameTarget(t.target, wanted)) ?? plan.goalPlan;
  if (!model || !found || !plan.start) return undefined;
  const looking = lookAt(planning, { model, one, plan }, found.target);
  const seen = looking && explore(planning, looking, found);
  if (!looking || !seen || !sameTarget(found.target, plan.goal) || found.route?.restsOn.length !== 0)
    return seen;
  const { label } = findChosen(
    termsWith(looking.terms, { way: wayOf(found.route) }),
    { start: looking.start, target: looking.place },
    'sure'
  );
  const eaten = label && eatenBy(looking.terms, label.moves, plan);
  return eaten ? { ...seen, eaten } : seen;
}

function explore(planning: Planning, looking: Looking, found: TargetPlan): Exploration {
  const { terms, start, place } = looking;
  const sure = findRoutes(terms, start, 'sure', { target: place });
  const best = metMoreThanCells(sure.met)
    ? findRoutes(terms, start, 'best', { target: place })
    : { routes: new Map<string, readonly Label[]>(), cut: false };
  const [inSure, inBest] = [sure, best].map((r) => r.routes.get(targetKey(place)) ?? []) as [
    readonly Label[],
    readonly Label[]
  ];
  const { label } = findChosen(terms, { start, target: place }, 'sure');
  const isCut = sure.cut || best.cut;
  // Past its budget the search may have missed the chosen route, which is always in the list.
  const all = isCut && label ? [...inSure, ...inBest, label] : [...inSure, ...inBest];
  const listed = withinBudget(unbeatenOf(all), isCut);
  const notStraight = found.older ? undefined : findWhyNotStraight(terms, start, place);
  return {
    target: found.target,
    routes: listed.labels.map((l) => routeOf(terms, l, inBest.includes(l) ? 'best' : 'sure')),
    routesCut: listed.cut,
    fallbacks: label ? findFallbacks(terms, label, place) : [],
    ...(notStraight ? { notStraight } : {}),
    savings: findSavings(planning, looking, found.route),
    ...findOut(planning, looking, found)
  };
}

/** Past the budget: the first by each criterion and the first 20 by preference. */
function withinBudget(labels: readonly Label[], cut: boolean): { labels: readonly Label[]; cut: boolean } {
  if (!cut && labels.length <= 200) return { labels, cut };
  const criteria: ((l: Label) => number)[] = [
    (l) => l.criteria.keptRank,
    (l) => l.criteria.most.costCents,
    (l) => l.criteria.most.carefulMinutes,
    (l) => l.criteria.hops,
    (l) => l.criteria.risks.length,
    (l) => (l.criteria.finishExact ? l.criteria.finish : Infinity)
  ];
  const bests = criteria.flatMap((of) => {
    const least = Math.min(...labels.map(of));
    return labels.find((l) => of(l) === least) ?? [];
  });
  const kept = new Set([...labels.slice(0, MOST_LISTED), ...bests]);
  return { labels: labels.filter((l) => kept.has(l)), cut: true };
}
