export { startAlong } from './along';
export type { AskedStep } from './ask-clauses';
export type { AskedClause } from './asked';
export { findChosen } from './choose';
export { reasonOf, routeOf } from './explain';
export { type Fallback, findFallbacks } from './fallback';
export { type Judgement, judgeMoves, positionOf } from './judge';
export { compareByPreference, type Label, unbeatenOf } from './label';
export type { Move } from './move';
export { findNearestMisses, findWhyNotStraight, type NotStraight } from './nearest-miss';
export { findOpenings, type Opening, type Openings } from './openings';
export { findQuestions } from './questions';
export { clausesOf, replay } from './replay';
export { findRoutes, type SearchResult } from './search';
export { type GateNeed, NOTHING_KNOWN, type RouteGates, type Terms, termsOf, termsWith } from './terms';
export {
  type ClauseCode,
  type CountedStep,
  type CureStep,
  isCounted,
  type NeededFirst,
  type PatchStep,
  type Reason,
  type Route,
  type ShownVerdict,
  type Step,
  type Verdict,
  VERDICTS,
  type WorkAroundStep,
  type WorkStep
} from './types';
export type { Atom } from './unknowns';
export { useRight } from './use-right';
export { chosenOf, isBetter, rankVerdict, shownOf, verdictOf } from './verdict';
