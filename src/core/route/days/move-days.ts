import type { Placed, StepDays } from '../../date';

/** The days of a move, and of the patch taken with it; where work is laid into windows, where there. */
export interface MoveDays {
  readonly patch?: StepDays;
  readonly hop: StepDays;
  /** Of the hop, with the patch where they are one block. */
  readonly at?: Placed;
  /** Where its nodes go one by one: the block of each; `at` is the last. */
  readonly nodesAt?: readonly Placed[];
  /** Of a patch that is a block of its own. */
  readonly patchAt?: Placed;
  /** No window has room for it; its days are what they would be without. */
  readonly roomless?: true;
}
