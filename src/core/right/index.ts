export { countRightNeeds } from './count-needs';
export { keyOfCalls, type RightCall, type RightCalls } from './right-call';
export { countUnits, findUse, offerEnd, type RightStep, type RightUnits } from './find-use';
export type { PoolName } from './pools';
export { addSums, type MaybeSum, rankOfSum } from './money';
export type { PoolDraw, Purchase, RightCount, RightNeed, RightPool, RightShare } from './right-need';
export type { RightUse, UnitUse } from './right-use';
