export { type Contributor, type Deadline, deadlineOf } from './deadline';
export { findTiming, finishByOf, type Timing } from './find-deadline';
export { failingStretches, isInTime, latestStartOf, SURELY_THERE } from './latest-start';
