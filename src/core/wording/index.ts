export { nameAnswers } from './answer';
export { approvalFor, approvalMarkdown, type ApprovalSheet, sayWayBack } from './approval';
export { sayCollisions } from './collision';
export { dueEntries } from './due-entries';
export {
  orderEntries,
  orderMarkdown,
  sayOpenings,
  sayPerhaps,
  sayPilotsOf,
  type OrderNames,
  sayBecause,
  type LeverNames,
  sayConstraint,
  sayInOrder,
  sayOrderSlack,
  sayLevers,
  sayStepMove,
  sayFate,
  sayLatest,
  sayOrderedStep,
  sayPart,
  sayStepDays,
  sayWave
} from './order';
export { type LockNames, sayIsoDay, sayLock } from './lock';
export { describeEvaluation } from './condition';
export {
  monthName,
  inFiles,
  setReaderWays,
  sayCount,
  sayDay,
  sayDaysLeft,
  sayMinutes,
  sayMoney,
  sayNumber,
  sayDayOfYear,
  sayShortDay,
  saySpan,
  shorten
} from './dates';
export {
  ALLOW_WORDS,
  GOAL_PARTS,
  type GoalPart,
  MATURITY_WORDS,
  partsThatDiffer,
  PHASE_WORDS,
  type Phrase,
  RULE_WORDS,
  IMPORTANCE_WORDS,
  sayGoalBrief,
  sayGoalPart,
  sayNamedTarget,
  sayNotNext
} from './goal';
export {
  NTH_CHOICES,
  type RuleParts,
  sayBlock,
  sayCalendar,
  sayNodes,
  sayWindow,
  WEEKDAY_NAMES,
  writeRule
} from './calendar';
export { sayWayStep } from './hop';
export { describeIssue } from './issue';
export { describeFinding, describeMend } from './lint';
export {
  nameInCondition,
  type Naming,
  sayChange,
  sayConditionText,
  sayEntry,
  sayItem,
  sayLoss,
  sayQuestion,
  sayRemedy
} from './ready';
export { planWordsOf } from './plan-words';
export { describeReason } from './reason';
export {
  sayClock,
  sayDays,
  sayForecast,
  sayNeed,
  sayPool,
  sayRightQuestion,
  sayRightGroup,
  sayWaitCause
} from './right';
export { sayRisks } from './risk';
export { sayEaten, sayInTime, sayRound } from './rounds';
export { sayCostOfWay, sayBar, sayWay } from './route';
export { sayStep } from './step';
export { sayKnown } from './seen';
export { describeInstalled, describeStart, importWords } from './system';
export { nameVerdict, sayBegin, sayFinding, sayVerdict, shortestReason } from './finding';
export { sayTrack } from './track';
export { BAND_NAMES, sayMissingPaths, sayStanding } from './urgency';
export { sayContributor, sayCost, sayNotStraight } from './verdict';
export {
  partsOf,
  sayDrift,
  sayGate,
  sayItemMinutes,
  sayJob,
  sayOrigin,
  sayRunning,
  sayTask,
  type WorkNames,
  type WorkPart,
  worksheetMarkdown
} from './worksheet';
export { nightMarkdown, sayDifference, sayExperience, sayNightRun } from './night';
