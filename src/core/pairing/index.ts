export { fitsTogether } from './fits';
export type { FindGates, Gate, When } from './gate';
export { type PairedSystem, Together } from './together';
