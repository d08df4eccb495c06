export { type Effect, effectOf, endedBy, heldAfter, systemAfter } from './finish';
export { makeItems } from './make';
export type { Making } from './prepare';
export { companionsSeen, type CompanionSeen, learnedCompanion } from './experience';
export { enoughRuns, ENOUGH_RUNS, type Experience, experienceOf, learned, type Runs } from './experience';
export { beforeAndAfter, type Difference, seenOf, type ToldThen } from './before-after';
export { type NightRun, nightOf, nightOfEntry } from './night';
export {
  BACK_UP_DAYS,
  compareEntries,
  type Gate,
  type GateName,
  failedElsewhere,
  gatesBefore,
  isDone,
  type ItemProgress,
  progressOf,
  type Standing as WorksheetStanding,
  standingOf
} from './progress';
export { type Drift, driftOf } from './drift';
