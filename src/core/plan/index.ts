export {
  askedOnWay,
  type AskedOnWay,
  type CautionOnWay,
  type CompanionOnWay,
  type Dealt,
  type RequirementOnWay
} from './asked-on-way';
export {
  type Around,
  aroundOf,
  partsElsewhere,
  planAhead,
  planningAround,
  takePlan,
  unnamed
} from './elsewhere';
export { type Brief, comparePlans, type PlanChange } from './compare-plans';
export { daysLeft } from './days-left';
export { type Finding, findingOf, type SaidFinding } from './finding';
export { findMissingPaths, type MissingPath } from './missing-paths';
export { type Urgency, URGENCY_BANDS, type UrgencyBand, urgencyOf } from './urgency';
export { type CalendarLoad, loadByWeek, type WeekLoad } from './load';
export type { DueEntry } from './due-entry';
export type { Eaten } from './eaten';
export { roundOf } from './round-of';
export { type Exploration, type Explored, exploreSystem } from './explore';
export { findOut, type FindOut, lookAt, type Looking, type Question } from './find-out';
export { PlanCache } from './plan-cache';
export {
  type CasePlan,
  isThere,
  type Plan,
  type PlanProgress,
  sameTarget,
  saidVerdict,
  type SaidVerdict,
  type TargetPlan
} from './plan-types';
export { plan, planInDepth, planWith } from './plan';
export { rulingsOf } from './made-once';
export { Planning } from './planning';
export { sumsOf } from './sums';
export { findSavings, type Saving } from './savings';
export { dealPilots, type Piloted, travelInRounds } from './rounds';
export { type Wayfarer, wayfarerOf } from './wayfarer';
export { type WaitCause, type Waiting, waitOut, type WaitStretch } from './waiting';
export { type Forecast, forecastUnits } from './forecast';
export { type GraceClock, graceClocks } from './grace-clocks';
export { type GoalOutlook, goalOutlook } from './goal-outlook';
export type { NotNext } from './choose-target';
