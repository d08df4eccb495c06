import type { Run, Truth } from '../condition';
import type { Day, MaybeDay } from '../date';
import type { Place } from '../compile';

/** How a pairing stands at a step that arrives somewhere; `Need` tells of what has to be done first. */
export interface Gate<Need> {
  readonly pairing: string;
  readonly truth: Truth;
  /** Something unknown was met in finding it; not every way was looked at. */
  readonly met: boolean;
  readonly cut: boolean;
  /** The day by which what is needed first is done. */
  readonly notBefore?: MaybeDay;
  /** The latest day anything needed first waits for. */
  readonly waits?: MaybeDay;
  readonly needs: readonly Need[];
  /** What linked systems run that do not fit, or of which it is not known. */
  readonly failing: readonly string[];
}

/** Gates at an arrival in a run, with what is needed first begun on the day `from`, seen from `today`. */
export type FindGates<Need> = (arrival: Place, run: Run, today: Day, from: Day) => readonly Gate<Need>[];

/** A run, the day it is seen from and the day it is begun on. */
export interface When {
  readonly run: Run;
  readonly today: Day;
  readonly from: Day;
}

/** A way of a system to a place, as far as those it is paired with care. */
export interface Way {
  readonly at: Place;
  readonly criteria: {
    readonly finish: Day;
    readonly finishExact: boolean;
    /** The last day it waits for; Infinity where nobody knows. */
    readonly waits: Day;
  };
}

/** The ways of one system in one run, seen from a day and begun on one. */
export interface Ways<W> {
  readonly ways: readonly W[];
  readonly met: boolean;
  readonly cut: boolean;
}

/** What is done first on a partner: its way, and the gates of that way in turn. */
export interface First<W, Need> {
  readonly pairing: string;
  readonly way: W;
  readonly when: When;
  readonly gates: FindGates<Need>;
  /** Neither can go first. */
  readonly together: boolean;
}
