import type { Truth } from '../condition';
import type { Day } from '../date';
import type { OrderBy } from '../estate';

/** A place in the tree of a part's ways; 0 is where it stands today. */
export interface PartNode {
  readonly before: number | undefined;
  /** Places one counted step further. */
  readonly next: readonly number[];
  /** Index of its release in the product's sequence. */
  readonly release: number;
  readonly isGoal: boolean;
  /** On the way that was chosen for it. */
  readonly isChosen: boolean;
  /** May stand there from one wave to the next. */
  readonly mayRest: boolean;
  /** How long it stands there is limited. */
  readonly isTimed?: boolean;
  /** Steps, patches and cures included, of the counted step onto it. */
  readonly steps: number;
  /** Careful minutes of that step, all systems together. */
  readonly outage?: number;
}

export type Importance = 'critical' | 'normal' | 'spare';

/** Systems that move as one. */
export interface Part {
  readonly id: string;
  readonly systems: readonly string[];
  readonly importance: Importance;
  readonly nodes: readonly PartNode[];
  /** Somebody has decided that it stays. */
  readonly stays: boolean;
  /** Equal for parts whose nodes are the same. */
  readonly alike?: string;
  /** The day its way must be done by; absent: nothing says. */
  readonly deadline?: Day;
  /** Its arrivals are watched: nothing follows one in the same window. */
  readonly watches?: boolean;
  /** Days its steps are bound to. */
  readonly locks?: readonly PartLock[];
}

/** Days laid down for the step onto a release, else for every step: it begins not before `from` - on that very day - and ends by `to`. */
export interface PartLock {
  readonly id?: string;
  readonly release?: number;
  readonly from?: Day;
  readonly isOn?: boolean;
  readonly to?: Day;
}

/** A pairing between two parts, by their places. */
export interface Bond {
  readonly pairing: string;
  /** Indexes of parts: whose pairing it is, and the other end. */
  readonly own: number;
  readonly other: number;
  readonly isPeer: boolean;
  /** Both may change at once. */
  readonly together: boolean;
  /** Whether it holds, by the nodes of both. */
  holds(own: number, other: number): Truth;
  /** Releases between the two, where the pairing says how many may be. */
  distance?(own: number, other: number): number;
}

/** Parts that go first: no step of the others before all of them stand on their goals, and so many whole days have passed. */
export interface Pilots {
  readonly first: readonly number[];
  readonly then: readonly number[];
  readonly watchDays: number;
}

/** On which days a counted step of a part falls: all its systems, in their rounds. */
export interface StepOn {
  readonly first: Day;
  readonly last: Day;
  /** The epoch minute it has ended at, where all of it lies in windows. */
  readonly ends?: number;
}

/** When something is over. */
export interface Moment {
  readonly day: Day;
  /** The epoch minute; nothing behind it begins earlier. */
  readonly minute?: number;
  /** What follows in a window may begin at that minute; else on a later day. */
  readonly isOpen?: boolean;
  /** Only in windows that start on a later day than this one. */
  readonly since?: Day;
}

/**
 * Parts that hang on each other, and what binds them (docs/reckoning.md 14).
 * `lay`: the days of a part's last step of those that lead to a node, where each begins behind a moment (`behind`, one a step);
 * undefined where it does not hold then.
 */
export interface Problem {
  readonly parts: readonly Part[];
  readonly bonds: readonly Bond[];
  /** Parts of which somebody has laid down that they never go together. */
  readonly apart?: readonly (readonly [number, number])[];
  readonly pilots?: readonly Pilots[];
  /** What an order is chosen by where it misses no more deadlines than another; absent: fewest waves. */
  readonly by?: OrderBy;
  /** Some steps lie in windows: a wave may begin on the day the one before ends. */
  readonly mayShareDays?: boolean;
  /** The day before the first on which work may be done. */
  readonly eve: Day;
  lay(part: number, node: number, behind: readonly Moment[]): StepOn | undefined;
}

/** The place of every part: a node each. */
export type Mix = readonly number[];

/** One counted step of one part. */
export interface PartStep {
  readonly part: number;
  readonly from: number;
  readonly to: number;
}

/** Steps made between two mixes; those of one `bound` set all or none. */
export interface WaveSteps {
  readonly steps: readonly PartStep[];
  /** Sets of parts that change at the same minute. */
  readonly bound: readonly (readonly number[])[];
}

/** What may be left out when looking for what stands in the way. */
export type Constraint =
  | { readonly kind: 'pairing'; readonly bond: number }
  | { readonly kind: 'stay'; readonly part: number }
  | { readonly kind: 'rest'; readonly part: number; readonly release: number }
  /** By its index in `pilots`. */
  | { readonly kind: 'pilots'; readonly pilots: number }
  /** By its index in `apart`. */
  | { readonly kind: 'lock'; readonly apart: number };

/** Equal for the same one; sorts pairings before decisions to stay before places before pilots before locks, each by its parts. */
export function keyOfConstraint(c: Constraint): string {
  const padded = (n: number): string => String(n).padStart(4, '0');
  switch (c.kind) {
    case 'pairing':
      return `0 ${padded(c.bond)}`;
    case 'stay':
      return `1 ${padded(c.part)}`;
    case 'rest':
      return `2 ${padded(c.part)} ${c.release}`;
    case 'pilots':
      return `3 ${padded(c.pilots)}`;
    case 'lock':
      return `4 ${padded(c.apart)}`;
  }
}
