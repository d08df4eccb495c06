import type { Day } from '../date';
import type { Target } from '../estate';
import type { BlockAt } from '../route';
import type { Standing } from '../version';
import type { Constraint, Importance, Pilots } from './problem';

/** How a part fares in its order. */
export type PartFate =
  /** It gets to its goal. */
  | 'reached'
  /** It is there. */
  | 'here'
  /** Somebody has decided that it stays. */
  | 'stays'
  /** It has no way of its own, whatever it hangs on. */
  | 'no way'
  /** Nobody has told where something it hangs on stands, or what that is. */
  | 'not told'
  /** No order reaches its goal, whatever becomes of the others. */
  | 'no order'
  /** An order reaches it, but none that reaches more. */
  | 'in conflict'
  /** An order reaches it, but no window has room for a wave of it, no crew for all that must change at once, or a lock no day. */
  | 'no room';

export interface OrderedPart {
  readonly id: string;
  readonly systems: readonly string[];
  readonly situation: string;
  readonly product: string;
  readonly team?: string;
  readonly start: Standing;
  readonly goal?: Target;
  readonly importance: Importance;
  readonly fate: PartFate;
  readonly deadline?: Day;
  /** Last day of its last step. */
  readonly finish?: Day;
  readonly missed: boolean;
  /** Days the work of its component may still wait for its deadline to be kept; absent where nothing sets one. */
  readonly slack?: number;
  /** Parts whose steps have to come before its own, directly or through others. */
  readonly waitsFor: readonly number[];
  /** Of what is missed or has no room: the smallest set of these whose lifting saves it, where one or two do. */
  readonly savedBy?: readonly Lever[];
}

/** A step of a part in a wave. */
export interface OrderedStep {
  /** Index into the parts. */
  readonly part: number;
  /** The counted step's id in the catalogue. */
  readonly step: string;
  readonly from: Standing;
  readonly to: Standing;
  readonly first: Day;
  readonly last: Day;
  /** Rounds it is made in, with the windows they lie in. */
  readonly rounds: readonly {
    readonly systems: number;
    readonly first: Day;
    readonly last: Day;
    readonly at?: BlockAt;
  }[];
  readonly carefulMinutes: number;
  /** Steps that had to be made before: wave and part, and the pairing that asks it. */
  readonly because: readonly { readonly wave: number; readonly part: number; readonly pairing: string }[];
  readonly isChosen: boolean;
}

export interface OrderedWave {
  readonly steps: readonly OrderedStep[];
  /** Sets of parts that change at the same minute, since nothing else works. */
  readonly bound: readonly (readonly number[])[];
  readonly first: Day;
  readonly last: Day;
  /** The latest day it may begin on, everything behind it laid anew and alone; absent where nothing sets one. */
  readonly latest?: Day;
  /** The part whose deadline sets that; absent where something laid down may do so as well. */
  readonly latestFor?: number;
}

export interface NamedConstraint {
  readonly kind: Constraint['kind'];
  /** The parts it is about. */
  readonly parts: readonly number[];
  readonly pairing?: string;
  readonly release?: string;
  /** With this alone out of the way the goals are reached. */
  readonly opens: boolean;
}

/** An order that reaches more where what cannot be told whether it fits does; laid as if crews did nothing else. */
export interface PerhapsOrder {
  /** Parts that get to their goals so, and do not for certain. */
  readonly goals: readonly number[];
  readonly waves: readonly OrderedWave[];
  /** What would have to fit: two parts on these places, behind which wave. */
  readonly rests: readonly {
    readonly pairing: string;
    readonly wave: number;
    readonly parts: readonly [number, number];
    readonly places: readonly [Standing, Standing];
  }[];
}

export interface OrderConflict {
  readonly goals: readonly number[];
  readonly constraints: readonly NamedConstraint[];
}

/** What could be lifted to save a deadline. */
export type Lever =
  | { readonly kind: 'crew'; readonly id: string }
  | {
      readonly kind: 'freeze';
      readonly id: string;
      readonly first: Day;
      readonly last: Day;
      readonly reason?: string;
    }
  | { readonly kind: 'lock'; readonly id: string }
  /** All windows of a calendar. */
  | { readonly kind: 'windows'; readonly id: string };

/** The order of one component: systems that hang on each other. */
export interface ComponentOrder {
  readonly id: string;
  readonly parts: readonly OrderedPart[];
  readonly waves: readonly OrderedWave[];
  /** Pairings that are broken, or cannot be told, as everything stands today. */
  readonly perhaps?: PerhapsOrder;
  /** Parts that go first, and who waits until so many days behind them. */
  readonly pilots: readonly Pilots[];
  readonly standing: readonly { readonly pairing: string; readonly parts: readonly [number, number] }[];
  readonly conflicts: readonly OrderConflict[];
  /** No better order was left untried; where it was, no order that reaches as much has fewer waves than so many. */
  readonly proven: boolean;
  readonly leastWaves: number;
  /** There was room for it alone, and not beside what was laid before it. */
  readonly crowded: boolean;
  /** A case that hangs on nothing, laid beside the others since it shares their people. Its waves are its steps; rounds may overlap. */
  readonly isSingle: boolean;
}

export interface Order {
  readonly components: readonly ComponentOrder[];
}
