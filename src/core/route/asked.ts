import type { CautionModel, CompanionModel, CureModel, DemandModel } from '../compile';
import type { Evaluation, Truth } from '../condition';
import type { Day } from '../date';
import type { Along } from './along';
import type { WorkTask } from './types';
import type { ClauseCode } from './reason';

/** A clause asked of the system at one step that is not plainly true. */
export interface AskFinding {
  readonly code: ClauseCode;
  /** The requirement, companion, fact or cure. */
  readonly subject: string;
  readonly truth: 'no' | 'unknown';
  /** A decision lets it pass for steps that are over by this day. */
  readonly passesUntil?: Day;
}

/** Work a step brings for what the system has on it, beside the hop itself. */
export interface WorkItem {
  readonly task: WorkTask;
  /** The companion; absent for the system as a whole. */
  readonly companion?: string;
  readonly minutes: number;
  readonly needsKey: boolean;
}

/** What it comes to, over all nodes. */
export interface Outlay {
  readonly costCents: number;
  /** Ids of cures whose price nobody has published. */
  readonly unknownSums: readonly string[];
  readonly typicalMinutes: number;
  readonly carefulMinutes: number;
}

/** What is asked of a system at one step, with the cures done before it; days play no part in it. */
export interface Asked extends Outlay {
  readonly cures: readonly CureModel[];
  /** Of these the ones that some reading of what nobody has read makes needless. */
  readonly ifNeeded: ReadonlySet<string>;
  /** What it comes to where what is unknown turns out best. */
  readonly least: Outlay;
  readonly findings: readonly AskFinding[];
  /** Sorted. */
  readonly risks: readonly AskedRisk[];
  /** Cautions with a work-around that come before the step, in their order, with how often each is done. */
  readonly cautions: readonly CautionModel[];
  readonly times: readonly number[];
  /** In the order it is done. */
  readonly work: readonly WorkItem[];
  readonly leadDays: number;
  /** Whether an activated source stands before the step. */
  readonly activated: Truth;
  /** Whether the hop is offered to this system, and whether it is among the first; undefined where no offer gates it. */
  readonly offer?: { readonly made: Truth; readonly first: Truth };
  readonly withheld: Truth;
  /** Before the step, cures done; and after it. */
  readonly before: Along;
  readonly after: Along;
}

/** Every way in which what a step asks is met, with what was come by in finding them. */
export interface AskedWays {
  readonly ways: readonly Asked[];
  /** Names of what was unknown in any of them, whether it came to matter or not. */
  readonly met: readonly string[];
  /** Not every set of cures was tried. */
  readonly cut: boolean;
  /** Clauses asked of all sets of cures that were tried. */
  readonly work: number;
}

/** A risk as a step meets it: what it is about, by the catalogue's ids. Equal keys, equal risks. */
export type AskedRisk = { readonly key: string } & (
  | { readonly kind: 'caution' | 'with less'; readonly id: string }
  | { readonly kind: 'companion'; readonly id: string; readonly works: Truth }
  | { readonly kind: 'withheld'; readonly hop: string }
  | { readonly kind: 'no way back' }
  | { readonly kind: 'lower grade'; readonly demand: DemandModel }
);

/** A line of how a companion fares, and whether it applies: `yes` or `unknown`. */
export interface FareOn {
  readonly fare: CompanionModel['fares'][number]['fare'];
  readonly truth: Truth;
}

/** One clause as it came out at one step, for whoever tells about it: the one answer to what the step asks. */
export type AskedClause = { readonly truth: Truth; readonly passesUntil?: Day } & (
  | {
      readonly kind: 'demand';
      readonly demand: DemandModel;
      /** Of the node it came out worst at; absent where the rule's figure is unknown. */
      readonly needs?: Evaluation;
      readonly when?: Evaluation;
      /** What a checking tool says of it. */
      readonly stated?: Truth;
    }
  | { readonly kind: 'space'; readonly fact: string; readonly wanted: string }
  | { readonly kind: 'cure' | 'cure limit'; readonly cure: CureModel }
  | {
      readonly kind: 'companion';
      readonly companion: CompanionModel;
      readonly has: Truth;
      /** How it fares, the first that applies for certain last; empty where it is not listed. */
      readonly fares: readonly FareOn[];
      readonly essential: boolean;
    }
  | { readonly kind: 'caution'; readonly caution: CautionModel; readonly when?: Evaluation }
);
