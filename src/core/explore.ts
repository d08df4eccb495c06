import { sameTarget, type CasePlan, type TargetPlan } from './plan-types';
import { planCase } from './plan-case';
import type { Planning } from './planning';
import { findRestsOn } from './rests-on';
import { findPlaces } from './estate/places';
import type { Case } from './estate/gather';
import type { System, Target } from './estate/schema';
import { findChosenTarget } from './estate/choose-target';
import { startsOf } from './estate/standing';
import { findChosen } from './route/choose';
import { routeOf } from './route/explain';
import { findFallbacks, type Fallback } from './route/fallback';
import { unbeatenOf, type Label } from './route/label';
import type { Place } from './route/move';
import { findOpenings, type Openings } from './route/openings';
import { idsOfPlace } from './route/place-ids';
import { findQuestions } from './route/questions';
import { findRoutes, targetKey } from './route/search';
import type { Terms } from './route/terms';
import type { Route } from './route/types';
import type { Atom } from './route/unknowns';

const MOST_LISTED = 20;

/** Something to find out: where to look on that version and model, and whom to ask. */
export interface Question {
  /** A fact; `installed` for where the system stands; or the name of a clause. */
  readonly about: { readonly fact: string } | { readonly clause: string } | { readonly installed: true };
  readonly places: readonly { readonly where: string; readonly fallback?: string; readonly ask?: string }[];
}

/** Everything there is to say of one target of one system. */
export interface Exploration {
  readonly target: Target;
  /** The unbeaten routes of both runs, in the order of preference; the chosen one among them. */
  readonly routes: readonly Route[];
  /** The search ended on its budget: the best by each criterion and the first 20 are listed. */
  readonly routesCut: boolean;
  readonly fallbacks: readonly Fallback[];
  /** Where the target is closed. */
  readonly openings: Openings;
  /** Least sets of questions that settle the verdict; where none does, `matter` has all that matter. */
  readonly questions: readonly (readonly Question[])[];
  readonly matter: readonly Question[];
  readonly questionsCut: boolean;
}

export interface Explored {
  readonly plan: CasePlan;
  readonly looked?: Exploration;
}

/** One system with every target, and one target - the goal where none is named - looked into. Undefined: no such system. */
export function exploreSystem(planning: Planning, id: string, target?: Target): Explored | undefined {
  const one = planning.gather().cases.find((c) => c.systems.includes(id));
  if (!one) return undefined;
  const model = planning.modelFor(one.system);
  const planned = planCase(planning, model, one, 'target');
  const restsOn = findRestsOn(planned, model?.product, planning.disputes);
  const plan = restsOn.length > 0 ? { ...planned, restsOn } : planned;
  const wanted = target ?? plan.goal;
  const found = plan.targets.find((t) => sameTarget(t.target, wanted)) ?? plan.goalPlan;
  if (!model || !found || !plan.start) return { plan };
  const terms = planning.termsFor(model, one);
  const place = findChosenTarget(terms, found.target);
  const start = startsOf(model, one.system).find((s) => isStart(terms, s, plan));
  if (!place || !start) return { plan };
  return { plan, looked: explore(planning, { terms, one, start, place, starts: plan.starts }, found) };
}

function isStart(terms: Terms, start: Place, { start: at }: CasePlan): boolean {
  const ids = idsOfPlace(terms, start);
  return (
    ids.release === at?.release &&
    ids.patch === at.patch &&
    ids.edition === at.edition &&
    ids.architecture === at.architecture
  );
}

interface Looking {
  readonly terms: Terms;
  readonly one: Case;
  readonly start: Place;
  readonly place: Place;
  readonly starts: number;
}

function explore(planning: Planning, looking: Looking, found: TargetPlan): Exploration {
  const { terms, one, start, place, starts } = looking;
  const [sure, best] = (['sure', 'best'] as const).map((run) =>
    findRoutes(terms, start, run, { target: place })
  );
  const labelsOf = (result: typeof sure): readonly Label[] => result?.routes.get(targetKey(place)) ?? [];
  const [inSure, inBest] = [labelsOf(sure), labelsOf(best)];
  const { label } = findChosen(terms, start, place, 'sure');
  const isCut = (sure?.cut ?? false) || (best?.cut ?? false);
  // Past its budget the search may have missed the chosen route, which is always in the list.
  const all = isCut && label ? [...inSure, ...inBest, label] : [...inSure, ...inBest];
  const listed = withinBudget(unbeatenOf(all), isCut);
  const isClosed = found.verdict === 'closed' && !found.older;
  const isOpen = found.sure !== found.best;
  const asked = isOpen ? findQuestions(terms, start, place) : { sets: [], matter: [], cut: false };
  const installed: Question[] =
    starts > 1 ? [{ about: { installed: true }, places: placesOf(planning, one.system, 'release') }] : [];
  const questionOf = (atom: Atom): Question => questionFrom(planning, one.system, atom);
  return {
    target: found.target,
    routes: listed.labels.map((l) => routeOf(terms, l, inBest.includes(l) ? 'best' : 'sure')),
    routesCut: listed.cut,
    fallbacks: label ? findFallbacks(terms, label, place) : [],
    openings: isClosed ? findOpenings(terms, start, place) : { openings: [], cut: false },
    questions: starts > 1 ? [] : asked.sets.map((set) => set.map(questionOf)),
    matter: [...installed, ...(starts > 1 ? asked.sets.flat() : asked.matter).map(questionOf)],
    questionsCut: asked.cut
  };
}

/** Past the budget: the first by each criterion and the first 20 by preference (RECKONING E2). */
function withinBudget(labels: readonly Label[], cut: boolean): { labels: readonly Label[]; cut: boolean } {
  if (!cut && labels.length <= 200) return { labels, cut };
  const criteria: ((l: Label) => number)[] = [
    (l) => l.criteria.keptRank,
    (l) => l.criteria.costCents,
    (l) => l.criteria.carefulMinutes,
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

function questionFrom(planning: Planning, system: System, atom: Atom): Question {
  if (atom.kind === 'clause') return { about: { clause: atom.key }, places: [] };
  return { about: { fact: atom.fact }, places: placesOf(planning, system, atom.fact) };
}

function placesOf(planning: Planning, system: System, fact: string): Question['places'] {
  const product = planning.modelFor(system)?.product;
  return findPlaces(product, system, fact).places.map(({ where, fallback, ask }) => ({
    where,
    ...(fallback === undefined ? {} : { fallback }),
    ...(ask === undefined ? {} : { ask })
  }));
}
