import type { CasePlan } from './plan-types';

/**
 * Days from today to the latest start; below nought the days it is late. Where no start ends in time: how long after the deadline
 * the way would end if it began today. Undefined where nothing binds it.
 */
export function daysLeft({ latestStart, slack, deadline, goalPlan }: CasePlan): number | undefined {
  if (latestStart !== 'none') return slack;
  const due = deadline.setBy?.day ?? 0;
  return Math.min(-1, due - (goalPlan?.route?.finish.last ?? due));
}
