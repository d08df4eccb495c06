export { chooseRemedies, payableOf } from './choose-remedies';
export { climbOf, type CureTread } from './climb';
export { gatherReady, ReadyCache } from './gather-ready';
export {
  type FetchItem,
  type Loss,
  LOSSES,
  type Mark,
  type Ready,
  type ReadyCell,
  type ReadyItem,
  type ReadyQuestion,
  type Remedy
} from './ready-types';
export { findRightQuestions, type RightQuestion } from './right-questions';
export { compareRecheck, keepItems } from './recheck';
export { FARES } from './tally';
