import type { Dealt, Question } from '../plan';
import type { Day } from '../date';
import type { Change } from '../estate';
import type { RightNeed } from '../right';
import type { BareSeen, Reason, ShownVerdict } from '../route';
import type { Shortfall } from './shortfall';
import type { Tally } from './tally';

/** How something asked stands in a case. */
export type Mark = 'holds' | 'fails' | 'unknown';

/** What is lost while it does not hold, worst first. */
export const LOSSES = [
  'the goal',
  'service lost',
  'stall',
  'rebuild',
  'a companion',
  'degraded',
  'a feature',
  'advice',
  'cosmetic'
] as const;
export type Loss = (typeof LOSSES)[number];

/** One thing asked, in one case. */
export interface ReadyCell {
  readonly case: string;
  readonly systems: readonly string[];
  readonly mark: Mark;
  readonly dealt?: Dealt;
  /** The way cures it, needed only perhaps: to be asked before it is bought. */
  readonly ifNeeded?: boolean;
  readonly shortfall?: Shortfall;
  /** What was seen of what keeps it from holding. */
  readonly seen?: readonly BareSeen[];
  /** Facts nobody knows that it turns on. */
  readonly unknown?: readonly string[];
}

export type ReadyKind =
  'requirement' | 'site demand' | 'companion' | 'unlisted' | 'caution' | 'linked' | 'clause';

/** One thing that is asked on the way to goals, over all cases it concerns. */
export interface ReadyItem {
  /** `product/kind/id` */
  readonly key: string;
  readonly product: string;
  readonly kind: ReadyKind;
  readonly id: string;
  /** What is demanded, in the words of the catalogue. */
  readonly demanded: string;
  /** Of companions: how it fares, and what is lost of it. */
  readonly fare?: { readonly verdict: string; readonly loses?: string };
  /** Of clauses: what stands in the way; absent where it is a price nobody has published. */
  readonly reason?: Reason;
  readonly loss: Loss;
  readonly cells: readonly ReadyCell[];
  /** Systems for which it fails, or is unknown, and nothing deals with it. */
  readonly open: number;
}

/** `perhaps`: a cure that some reading of what nobody has read makes needless; asked about, never bought. */
export type RemedyKind = 'cure' | 'perhaps' | 'right' | 'first' | 'decision' | 'replace' | 'other';

/** Something that can be done, bought or decided so that systems reach their goal. */
export interface Remedy {
  readonly key: string;
  readonly kind: RemedyKind;
  readonly product: string;
  /** The cure, right, linked system, or the clause that is lifted. */
  readonly id: string;
  /** Where a clause is lifted: what stands in the way. */
  readonly reason?: Reason;
  /** For all systems that need it. */
  readonly costCents: number | 'unknown';
  readonly minutes: number;
  readonly leadDays: number;
  /** Cases whose goal needs it, with their systems. */
  readonly cases: readonly string[];
  readonly systems: number;
  /** Systems that reach their goal with it and with what costs nothing. */
  readonly opensAlone: number;
  /** What it changes of facts, decisions and goals; none of what is bought only. */
  readonly changes: readonly Change[];
}

/** What the goal of a case needs: keys of remedies. None for what is open as it is. */
export interface Want {
  readonly case: string;
  readonly systems: number;
  readonly needs: readonly string[];
}

/** A question with what its answer is worth. */
export interface ReadyQuestion {
  readonly key: string;
  readonly product: string;
  readonly about: Question['about'];
  readonly places: Question['places'];
  /** Systems whose verdict it settles by itself; in how many it takes part. */
  readonly settles: number;
  readonly matters: number;
  /** What may be saved over all systems, where cures are needed only perhaps. */
  readonly savesCents: number | 'unknown';
  readonly savesMinutes: number;
  readonly cases: readonly string[];
}

/** Something to have at hand before work begins. */
export interface FetchItem {
  readonly kind: 'part' | 'medium' | 'key' | 'account' | 'driver' | 'back-up' | 'proof';
  /** Needed only perhaps: to be asked about before it is bought; counts in no sum. */
  readonly ifNeeded: boolean;
  readonly product: string;
  readonly what: string;
  readonly count: number;
  readonly costCents: number | 'unknown';
  readonly leadDays: number;
  readonly by: Day;
  readonly cases: readonly string[];
}

/** How a case stands, for the columns of the matrix. */
export interface ReadyCase {
  readonly id: string;
  readonly product?: string;
  readonly situation: string;
  readonly systems: readonly string[];
  readonly verdict: ShownVerdict;
  readonly tally?: Tally;
}

/** Everything Ready shows. */
export interface Ready {
  readonly today: Day;
  readonly cases: readonly ReadyCase[];
  /** By what is lost, then by systems for which it is open, then by key. */
  readonly items: readonly ReadyItem[];
  readonly remedies: readonly Remedy[];
  readonly wants: readonly Want[];
  readonly rights: readonly RightNeed[];
  readonly fetch: readonly FetchItem[];
  readonly questions: readonly ReadyQuestion[];
  /** Cases in which a search was cut short: there may be more openings, questions or better ways than are shown. */
  readonly cut: number;
}
