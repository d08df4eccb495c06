export { type Contributor, type Deadline, deadlineOf } from './deadline';
export { findTiming, type Timing } from './find-deadline';
export { SURELY_THERE } from './latest-start';
