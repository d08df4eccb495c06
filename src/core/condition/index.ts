export { findReachable } from './cells';
export { checkCondition } from './check-condition';
export {
  type Comparison,
  comparisonsOf,
  type Condition,
  CONDITION_WORDS,
  factsIn,
  linkedRangesOf
} from './condition';
export {
  evaluateCondition,
  type Evaluation,
  readSwitch,
  switchTruth,
  truthIn,
  unknownFactsOf
} from './evaluate-condition';
export type { Evidence, LinkedEvidence, Seen } from './evidence';
export { type FactKind, FactKinds } from './fact-kind';
export { formatConditionWith, type NameInCondition } from './format-condition';
export {
  figureIn,
  formatFigure,
  isOrdered,
  type Figure,
  type Measure,
  MEASURES,
  parseFigure,
  sayBase,
  sayFigure,
  unitsOf
} from './measure';
export { type ConditionFault, parseCondition } from './parse-condition';
export { and, besideStated, collapse, not, or, type Run, type Truth, truthOf } from './truth';
