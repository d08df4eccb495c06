import type { Day } from './day';

/** Days a step takes, both included. Not `exact`: a day on the way is unknown, `first` is the earliest it can be. */
export interface StepDays {
  readonly first: Day;
  readonly last: Day;
  readonly exact: boolean;
}
