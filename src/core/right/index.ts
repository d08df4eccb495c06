export { countRightNeeds } from './count-needs';
export { keyOfCalls, type RightCall, type RightCalls } from './right-call';
export { countUnits, findUse, offerEnd } from './find-use';
export { addSums, rankOfSum } from './money';
export type { PoolDraw, Purchase, RightCount, RightNeed, RightPool, RightShare } from './right-need';
export type { RightUse, UnitUse } from './right-use';
