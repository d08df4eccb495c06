import type { RightUse, UnitUse } from '../right';
import { COUNTED_KINDS, type CountedKind, type Kept } from '../catalogue';
import type { MaybeDay, StepDays } from '../date';
import type { Standing } from '../version';
import type { Reason } from './reason';

export interface PatchStep {
  readonly kind: 'patch';
  readonly from: Standing;
  readonly to: Standing;
  readonly days: StepDays;
  /** Of one node. */
  readonly typicalMinutes: number;
  readonly carefulMinutes: number;
  /** Of a patch that is a block of its own, where work is laid into windows. */
  readonly at?: BlockAt;
}

/** A cure done before the step it serves, on its first day. `costCents` is of one system, all its nodes. */
export interface CureStep {
  readonly kind: 'cure';
  readonly id: string;
  readonly requirement: string;
  readonly from: Standing;
  readonly to: Standing;
  readonly days: StepDays;
  readonly typicalMinutes: number;
  readonly carefulMinutes: number;
  readonly leadDays: number;
  readonly costCents: number | 'unknown';
  /** It gives up the way back. */
  readonly closesWayBack: boolean;
  /** Some reading of what nobody has read makes it needless: asked first, never bought before. */
  readonly ifNeeded: boolean;
}

/** What a caution wants done before the step that meets it, on its first day; or behind it, on its last. */
export interface WorkAroundStep {
  readonly kind: 'work-around';
  /** Id of the caution. */
  readonly id: string;
  /** How often it is done: once a node, for the system, or for each of what it is linked with; minutes are of one time. */
  readonly times: number;
  readonly behind?: true;
  readonly from: Standing;
  readonly to: Standing;
  readonly days: StepDays;
  readonly typicalMinutes: number;
  readonly carefulMinutes: number;
}

/** What is done around a step for what the system has on it. */
export type WorkTask = 'back up' | 'take off' | 'copy back' | 'put on again' | 'update';

/** Work a hop brings beside itself, on its days: before it where it makes ready, after it where it puts back. */
export interface WorkStep {
  readonly kind: 'work';
  /** The task, with the companion's id where it is about one. */
  readonly id: string;
  readonly task: WorkTask;
  readonly companion?: string;
  readonly needsKey: boolean;
  readonly from: Standing;
  readonly to: Standing;
  readonly days: StepDays;
  readonly typicalMinutes: number;
  readonly carefulMinutes: number;
}

/** How a hop is had on one machine, and how its offer stands there. */
export interface Obtained {
  readonly way?: string;
  readonly risk?: string;
  readonly note?: string;
  /** How many systems can have it this way at once. */
  readonly atOnce?: number;
  readonly started?: string;
  readonly status?: 'offered' | 'not offered yet' | 'withheld' | 'perhaps withheld';
  /** Why it is withheld. */
  readonly because?: string;
  readonly others: readonly { readonly way: string; readonly risk?: string }[];
}

/** Where a block lies in an occurrence of a window; times are epoch minutes. */
export interface BlockAt {
  readonly window: string;
  /** IANA zone whose days and hours count. */
  readonly zone: string;
  readonly begins: number;
  readonly ends: number;
  /** The end of the occurrence. */
  readonly closes: number;
  /** The last minute to turn round: the ways back of all blocks laid in it so far end when it closes. */
  readonly turnBy: number;
}

export interface CountedStep {
  readonly kind: CountedKind;
  /** Id of the hop or edition change. */
  readonly id: string;
  readonly from: Standing;
  readonly to: Standing;
  readonly days: StepDays;
  readonly typicalMinutes: number;
  readonly carefulMinutes: number;
  readonly kept: Kept;
  readonly right: RightUse;
  readonly obtain?: Obtained;
  /** Where work is laid into windows: where its block lies; the last of them where its nodes go one by one. */
  readonly at?: BlockAt;
  /** Where its nodes go one by one: the block of each, in turn. Between the first and the last it runs on two releases. */
  readonly nodesAt?: readonly BlockAt[];
}

export type Step = PatchStep | CureStep | WorkAroundStep | WorkStep | CountedStep;

/** Whether a step counts as a hop: what comes before it - patch, cures, work-arounds - does not. */
export const isCounted = (step: Step): step is CountedStep =>
  COUNTED_KINDS.some((kind) => kind === step.kind);

/** What may go wrong, or is lost, on a way: on whose account, by its name. */
export interface Risk {
  /** Equal for equal risks. */
  readonly key: string;
  readonly kind:
    | 'unsupported'
    | 'preview'
    | 'caution'
    | 'does not work'
    | 'may not work'
    | 'with less'
    | 'withheld'
    | 'no way back'
    | 'degrades'
    | 'loses'
    | 'advises';
  /** The name of what it is about; absent where there is nothing to name. */
  readonly name?: string;
  /** What follows from it, or why it is so, as the catalogue says. */
  readonly because?: string;
}

/** Steps in order ending on a target, with what they come to. */
export interface Route {
  readonly steps: readonly Step[];
  readonly kept: Kept;
  /** Sum of the known prices of one system. */
  readonly costCents: number;
  /** Steps whose price nobody has published. */
  readonly unknownSums: readonly string[];
  /** All nodes. */
  readonly typicalMinutes: number;
  readonly carefulMinutes: number;
  /** The same where what is unknown turns out best: without the cures that are needed only perhaps. */
  readonly least: {
    readonly costCents: number;
    readonly unknownSums: readonly string[];
    readonly typicalMinutes: number;
    readonly carefulMinutes: number;
  };
  readonly hops: number;
  readonly risks: readonly Risk[];
  /** Counted units by pool and edition, summed over the steps. */
  readonly units: readonly UnitUse[];
  /** What must be done first on linked systems, each once; where there is any, the order is not yet proven. */
  readonly needsFirst: readonly NeededFirst[];
  readonly finish: StepDays;
  /** The latest publication, settling or first open day of any step: open today when not later than today. */
  readonly waitsUntil: MaybeDay;
  /** Unknown conditions it rests on; none in a sure route. */
  readonly restsOn: readonly Reason[];
}

/** A linked system that has to reach a release before a step of this route. */
export interface NeededFirst {
  /** Id of the pairing that asks for it. */
  readonly pairing: string;
  readonly system: string;
  readonly product: string;
  readonly to: Standing;
  readonly finish: StepDays;
  readonly waitsUntil: MaybeDay;
  /** Neither can go first: where this one stands, the other may not be there yet. */
  readonly together: boolean;
  /** How it gets there; what that needs first in turn is listed beside it. */
  readonly route: Route;
}

/** Verdicts of a target, best first. */
export const VERDICTS = ['here', 'straight', 'by hops', 'fresh only', 'not yet', 'closed'] as const;
export type Verdict = (typeof VERDICTS)[number];
export type ShownVerdict = Verdict | 'cannot tell';
