export { compareText } from './compare';
export { Heap } from './heap';
export { describeIssue, fail, isKnownCode, type Issue, type Result, succeed } from './issue';
