export { type Asking, askingOf, type Bar, barredOf, passedOverOf } from './asking';
export { findBehind } from './behind';
export { CaseKeys } from './case-key';
export { activatedOf, type Case, DecisionIndex, Gathered, type Gathering } from './gather';
export { CalendarIndex, calendarOf, freezeKey, openedBy } from './calendar-index';
export { findOverlaps, type Overlap } from './overlaps';
export { findKeptBack, GoalIndex } from './goal-index';
export { startsOf } from './starts';
