export { nameAnswers } from './answer';
export { sayCollisions } from './collision';
export { describeEvaluation } from './condition';
export {
  monthName,
  sayCount,
  sayDay,
  sayMinutes,
  sayMoney,
  sayNumber,
  sayShortDay,
  saySpan,
  shorten
} from './dates';
export { sayWayStep } from './hop';
export { describeIssue } from './issue';
export { describeFinding, describeMend } from './lint';
export {
  nameFacts,
  type Naming,
  sayChange,
  sayEntry,
  sayItem,
  sayLoss,
  sayQuestion,
  sayRemedy
} from './ready';
export { planWords } from './plan-words';
export { describeReason } from './reason';
export { sayRisks } from './risk';
export { sayStep } from './step';
export { sayKnown } from './seen';
export { describeInstalled, describeStart, importWords } from './system';
export { sayContributor, sayCost, sayNotStraight, sayVerdict, shortestReason } from './verdict';
