export { compareText } from './compare';
export { Heap } from './heap';
export { fail, type Issue, type Result, succeed } from './issue';
