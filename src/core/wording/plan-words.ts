import { describeReason } from './reason';
import { sayRisks } from './risk';
import { sayDemanded, saySeen } from './seen';
import { sayStep } from './step';

/** What the values of a plan read as in a file. */
export const planWords = {
  reason: describeReason,
  seen: saySeen,
  demanded: sayDemanded,
  risks: sayRisks,
  step: sayStep
} as const;
