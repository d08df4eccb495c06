export { nameAnswers } from './answer';
export { describeConditionFault, describeEvaluation } from './condition';
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
export { sayArrival } from './hop';
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
export { describeReason } from './reason';
export { sayRisks } from './risk';
export { sayStep } from './step';
export { describeInstalled } from './system';
export { sayContributor, sayCost, sayNotStraight, sayVerdict, shortestReason } from './verdict';
