export { startAlong } from './along';
export type { AskedStep } from './step/ask-clauses';
export type { AskedClause } from './asked';
export { type Chosen, findChosen, mayLeadTo } from './search/choose';
export { findReach, findStraightCells } from './search/reach';
export { blockAt, noHopReason, reasonOf, routeOf } from './tell/explain';
export { type Fallback, findFallbacks } from './look/fallback';
export { type Judgement, judgeMoves, positionOf } from './days/judge';
export { gatesOf } from './days/lay-days';
export {
  type Journey,
  lastWithRoom,
  layRounds,
  mostAtOnce,
  type Party,
  type PilotJourney,
  type Round,
  roundsOf
} from './days/lay-rounds';
export { compareByPreference, isBeatenWhateverItRestsOn, type Label, unbeatenOf } from './search/label';
export type { Move } from './move';
export { metMoreThanCells } from './notes';
export {
  findMissOverCells,
  findNearestMisses,
  findWhyNotStraight,
  type NotStraight
} from './look/nearest-miss';
export { findOpenings, type Opening, type Openings } from './look/openings';
export { findQuestions } from './look/questions';
export {
  type BareSeen,
  bareSeen,
  type ClauseCode,
  clauseKey,
  clauseOf,
  type Demanded,
  type Reason,
  type SeenPart
} from './reason';
export { clausesOf, replay } from './step/replay';
export { shutFor } from './step/on-arrival';
export { findRoutes, type SearchResult } from './search/search';
export {
  type Booked,
  type Ends,
  type GateNeed,
  NOTHING_KNOWN,
  type RouteGates,
  type Terms,
  termsOf,
  termsWith
} from './terms';
export {
  type BlockAt,
  type CountedStep,
  type CureStep,
  isCounted,
  type Risk,
  type NeededFirst,
  type PatchStep,
  type Route,
  type ShownVerdict,
  type Step,
  type Verdict,
  VERDICTS,
  type WorkAroundStep,
  type WorkStep
} from './types';
export type { Atom } from './look/unknowns';
export { useRight } from './step/use-right';
export { isSameWay, wayOf } from './search/on-way';
export { listWays, type Ways } from './search/ways';
export { chosenOf, isBetter, rankVerdict, shownOf, verdictOf } from './search/verdict';
