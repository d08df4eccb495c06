import { idsOfPlace, type Place, type ProductModel } from '../compile';
import { findChosenTarget } from './choose-target';
import { type Case, startsOf } from '../bind';
import { findPlaces, type System, type Target } from '../estate';
import type { Planning } from './planning';
import type { CasePlan, TargetPlan } from './plan-types';
import { type Atom, findOpenings, findQuestions, type Openings, type Terms } from '../route';

/** Something to find out: where to look on that version and model, and whom to ask. */
export interface Question {
  /** A fact; `installed` for where the system stands; or the name of a clause. */
  readonly about: { readonly fact: string } | { readonly clause: string } | { readonly installed: true };
  /** The answers that are told apart, in words; of facts only. */
  readonly answers: readonly string[];
  readonly places: readonly { readonly where: string; readonly fallback?: string; readonly ask?: string }[];
}

/** What changes the verdict of one target. */
export interface FindOut {
  /** Where the target is closed. */
  readonly openings: Openings;
  /** Least sets of questions that settle the verdict; where none does, `matter` has all that matter. */
  readonly questions: readonly (readonly Question[])[];
  readonly matter: readonly Question[];
  readonly questionsCut: boolean;
}

/** One target seen from where one case stands. */
export interface Looking {
  readonly terms: Terms;
  readonly one: Case;
  readonly start: Place;
  readonly place: Place;
  /** Whether it is certain what is installed. */
  readonly startIsSure: boolean;
}

/** Where to look from: the start the plan of the case goes by, and a target's place. Undefined where either is not in the catalogue. */
export function lookAt(
  planning: Planning,
  { model, one, plan }: { readonly model: ProductModel; readonly one: Case; readonly plan: CasePlan },
  target: Target
): Looking | undefined {
  const terms = planning.termsFor(model, one);
  const place = findChosenTarget(terms, target);
  const start = startsOf(model, one.system).find((s) => isStart(terms, s, plan));
  return place && start ? { terms, one, start, place, startIsSure: plan.startIsSure } : undefined;
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

/** Openings of a target that is closed, questions of one that is not settled; see `findOpenings`, `findQuestions` for the cost. */
export function findOut(
  planning: Planning,
  { terms, one, start, place, startIsSure }: Looking,
  found: Pick<TargetPlan, 'verdict' | 'older' | 'sure' | 'best'>
): FindOut {
  const isClosed = found.verdict === 'closed' && !found.older;
  const isOpen = found.sure !== found.best;
  const asked = isOpen ? findQuestions(terms, start, place) : { sets: [], matter: [], cut: false };
  const installed: Question[] = !startIsSure
    ? [{ about: { installed: true }, answers: [], places: placesOf(planning, one.system, 'release') }]
    : [];
  const asQuestion = (atom: Atom): Question => questionFrom(planning, one.system, atom);
  return {
    openings: isClosed ? findOpenings(terms, start, place) : { openings: [], cut: false },
    questions: !startIsSure ? [] : asked.sets.map((set) => set.map(asQuestion)),
    matter: [...installed, ...(!startIsSure ? asked.sets.flat() : asked.matter).map(asQuestion)],
    questionsCut: asked.cut
  };
}

function questionFrom(planning: Planning, system: System, atom: Atom): Question {
  if (atom.kind === 'clause') return { about: { clause: atom.key }, answers: [], places: [] };
  const answers = atom.cells.flatMap((c) => (c.kind === 'known' ? [String(c.value)] : []));
  return { about: { fact: atom.fact }, answers, places: placesOf(planning, system, atom.fact) };
}

/** The question after a fact of a system, with where to read it. */
export const questionOf = (planning: Planning, system: System, fact: string): Question => ({
  about: { fact },
  answers: [],
  places: placesOf(planning, system, fact)
});

function placesOf(planning: Planning, system: System, fact: string): Question['places'] {
  const product = planning.modelFor(system)?.product;
  return findPlaces(product, system, fact).places.map(({ where, fallback, ask }) => ({
    where,
    ...(fallback === undefined ? {} : { fallback }),
    ...(ask === undefined ? {} : { ask })
  }));
}
