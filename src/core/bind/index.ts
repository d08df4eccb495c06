export { type Asking, askingOf, passedOverOf } from './asking';
export { findBehind } from './behind';
export { CaseKeys } from './case-key';
export { activatedOf, type Case, DecisionIndex, gatherCases, GoalIndex } from './gather';
export { startsOf } from './starts';
