export { type Effect, effectOf, heldAfter, systemAfter } from './finish';
export { makeItems, type Making } from './make';
export {
  BACK_UP_DAYS,
  compareEntries,
  type Gate,
  type GateName,
  gatesBefore,
  isDone,
  type ItemProgress,
  progressOf,
  type Standing as WorksheetStanding,
  standingOf
} from './progress';
export { type Drift, driftOf } from './drift';
