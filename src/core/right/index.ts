export { countRightNeeds, keyOfCalls, type RightCall, type RightCalls } from './count-needs';
export { countUnits, findUse, offerEnd } from './find-use';
export { addSums, rankOfSum } from './money';
export type { RightNeed, RightShare } from './right-need';
export type { RightUse, UnitUse } from './right-use';
