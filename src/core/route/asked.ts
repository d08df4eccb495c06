import type { CautionModel, CureModel } from '../catalogue/need-model';
import type { Truth } from '../condition/truth';
import type { Day } from '../date/day';
import type { Along } from './along';
import type { ClauseCode } from './types';

/** A clause asked of the system at one step that is not plainly true. */
export interface AskFinding {
  readonly code: ClauseCode;
  /** The requirement, companion, fact or cure. */
  readonly subject: string;
  readonly truth: 'no' | 'unknown';
  /** A decision lets it pass for steps that are over by this day. */
  readonly passesUntil?: Day;
}

/** What is asked of a system at one step, with the cures done before it; days play no part in it. */
export interface Asked {
  readonly cures: readonly CureModel[];
  readonly findings: readonly AskFinding[];
  /** Sorted. */
  readonly risks: readonly string[];
  /** Cautions with a work-around that come before the step, in their order. */
  readonly cautions: readonly CautionModel[];
  /** Of one node: cures and work-arounds. */
  readonly typicalMinutes: number;
  readonly carefulMinutes: number;
  readonly leadDays: number;
  readonly costCents: number;
  readonly unknownSums: readonly string[];
  /** Whether an activated source stands before the step. */
  readonly activated: Truth;
  /** Whether the hop is offered to this system, and whether it is among the first; undefined where no offer gates it. */
  readonly offer?: { readonly made: Truth; readonly first: Truth };
  readonly withheld: Truth;
  /** Before the step, cures done; and after it. */
  readonly before: Along;
  readonly after: Along;
}
