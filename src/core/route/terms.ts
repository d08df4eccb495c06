import { findPublication, type Place, type ProductModel, serviceEndOf } from '../compile';
import type { Truth } from '../condition';
import { type Calendar, type CrewShare, type Day, type MaybeDay, type Occurrence, readDay } from '../date';
import type { CaseGoal, WayStep } from '../estate';
import type { FindGates, Gate } from '../pairing';
import { startAlong, type Along } from './along';
import type { AskedWays } from './asked';
import type { Move } from './move';
import { Notes } from './notes';
import type { NeededFirst } from './types';
import type { Asking, Bar } from '../bind';

/** What is needed first, with the way there: that way may need something first itself. */
export interface GateNeed {
  readonly need: NeededFirst;
  readonly moves: readonly Move[];
  readonly gates: RouteGates;
}

export type RouteGate = Gate<GateNeed>;
export type RouteGates = FindGates<GateNeed>;

/** One round of several systems that go the same way (docs/reckoning.md 4b). */
export interface RoundTerms {
  /** The first day on which its work may be done. */
  readonly from: Day;
  /** What it needs of the crew for the blocks of the move at a place of the route. */
  sharesOf?(move: number): Shares;
  /** Last days of what has to be over before each move begins, in an order across systems. */
  readonly behind?: readonly Day[];
  /** Epoch minutes before which no block of each move begins; where work is laid into windows. */
  readonly notBefore?: readonly (number | undefined)[];
  /** What else the crew of an occurrence is busy with. */
  taken?(occurrence: Occurrence): readonly Booked[];
}

/** A stretch of time in which so many systems are under work; in epoch minutes. */
export interface Booked {
  readonly begins: number;
  readonly ends: number;
  readonly systems: number;
}

/** For a move's own block, and for a patch that is one. */
export interface Shares {
  own(node: number): CrewShare;
  readonly patch: CrewShare;
}

/** What a route is judged by: one product, one goal, one case's own inputs, one day. */
export interface Terms {
  readonly model: ProductModel;
  readonly goal: CaseGoal;
  readonly countsExpected: boolean;
  /** Unknown days are later than this one. */
  readonly today: Day;
  /** The first day on which work may be done: today, or another day when looking for the latest start. */
  readonly from: Day;
  /** The day on which what has to be bought is ordered: `from`, but for a fallback, which is prepared beforehand. */
  readonly leadsFrom: Day;
  readonly nodes: number;
  /** When work may be done; absent: any day, any hour. */
  readonly calendar?: Calendar;
  /** Where several systems go in rounds: which of them is laid. */
  readonly round?: RoundTerms;
  /** Careful minutes of a way back nobody has published; absent: as long as the way. */
  readonly wayBackMinutes?: number;
  /** Whether the installed product is activated, so that it can carry its right. */
  readonly activated: Truth;
  /** Ids of agreements and other rights the estate holds. */
  readonly held: ReadonlySet<string>;
  readonly asking: Asking;
  readonly gates: RouteGates;
  /** Facts at the start, where they are taken for known. */
  readonly along: Along;
  /** The counted steps a way has to take, one after the other, where somebody has chosen it; see `search/on-way`. */
  readonly way?: readonly WayStep[];
  /** Hops, in all their ways, that are not to be used, with the decision that says so. */
  readonly barred: ReadonlyMap<string, Bar | undefined>;
  /** Clauses (`clauseKey`) taken to hold, for openings. */
  readonly lifted: ReadonlySet<string>;
  /** What unknown clauses are taken for, for questions. */
  readonly learned: ReadonlyMap<string, Truth>;
  /** What steps ask, once worked out; belongs to everything above but the days. */
  readonly memo: Map<string, AskedWays>;
  /** What the search these terms are used in comes by; see `Notes`. */
  readonly notes: Notes;
  /** Per release: its publication for the goal's maturities; undefined when it comes in none. */
  readonly publication: readonly (MaybeDay | undefined)[];
  /** Per release: the day from which the goal takes it as a target: publication, settling days, its first patch level where asked for. */
  readonly settled: readonly (MaybeDay | undefined)[];
  /** Per release: published only as a preview or early build. */
  readonly isPreview: readonly boolean[];
  readonly serviceEnd: readonly MaybeDay[];
}

/** From where to where. */
export interface Ends {
  readonly start: Place;
  readonly target: Place;
}

export interface CaseInputs {
  readonly goal: CaseGoal;
  readonly countsExpected: boolean;
  readonly today: Day;
  readonly nodes: number;
  readonly activated: Truth;
  readonly held: ReadonlySet<string>;
  readonly calendar?: Calendar;
  readonly wayBackMinutes?: number;
  readonly asking?: Asking;
  readonly gates?: RouteGates;
  /** Hops and changes of edition that are not to be gone. */
  readonly barred?: ReadonlyMap<string, Bar | undefined>;
}

/** Evidence of a system of which nothing is known. */
export const NOTHING_KNOWN: Asking['evidence'] = () => ({
  fact: () => ({ kind: 'unknown', why: 'not asked' }),
  listed: () => 'unknown',
  inRange: () => 'unknown',
  linked: () => 'unknown'
});

/** Nothing known, nothing decided. */
const ASKED_NOTHING: Asking = {
  evidence: NOTHING_KNOWN,
  companions: [],
  companionsWhole: false,
  nodes: [],
  isStale: () => false,
  hasStale: false,
  checked: { requirements: new Map(), companions: new Map(), unplaced: [] },
  decided: { accepted: new Map(), waived: new Map(), ignored: new Map() }
};

/** The same terms with other facts, lifted clauses or bars; what steps ask is worked out anew. */
export const termsWith = (
  terms: Terms,
  change: Partial<
    Pick<
      Terms,
      | 'along'
      | 'way'
      | 'barred'
      | 'lifted'
      | 'learned'
      | 'today'
      | 'from'
      | 'leadsFrom'
      | 'goal'
      | 'activated'
    >
  >
): Terms => ({ ...terms, ...change, memo: new Map(), notes: new Notes() });

/** The same terms for one search, with notes of its own. */
export const noted = (terms: Terms): Terms => ({ ...terms, notes: new Notes() });

/** A product without patch levels has none to wait for; a first one that nobody has dated is waited for without a day. */
function settledOn(
  { releases }: ProductModel,
  at: number,
  published: MaybeDay,
  { goal, countsExpected }: Pick<CaseInputs, 'goal' | 'countsExpected'>
): MaybeDay {
  if (published === 'unknown') return published;
  const settled = published + goal.settlingDays;
  if (!goal.afterFirstPatch || releases.every((r) => r.patches.length < 2)) return settled;
  const days = (releases[at]?.patches ?? []).flatMap((p) =>
    p.published ? [readDay(p.published, countsExpected)] : []
  );
  const known = days.filter((d) => d !== 'unknown');
  return known.length > 0 ? Math.max(settled, Math.min(...known)) : 'unknown';
}

/** Gathers the terms of one case. */
export function termsOf(model: ProductModel, inputs: CaseInputs): Terms {
  const { today } = inputs;
  return {
    model,
    from: today,
    leadsFrom: today,
    ...inputs,
    asking: inputs.asking ?? ASKED_NOTHING,
    gates: inputs.gates ?? (() => []),
    along: startAlong(undefined, inputs.asking?.nodes),
    barred: inputs.barred ?? new Map(),
    lifted: new Set(),
    learned: new Map(),
    memo: new Map(),
    notes: new Notes(),
    ...releaseDaysOf(model, inputs)
  };
}

type ReleaseDays = Pick<Terms, 'publication' | 'settled' | 'isPreview' | 'serviceEnd'>;

const RELEASE_DAYS = new WeakMap<ProductModel, WeakMap<CaseGoal, Map<boolean, ReleaseDays>>>();

/** The days of releases under a goal, made once. */
function releaseDaysOf(model: ProductModel, inputs: CaseInputs): ReleaseDays {
  const { goal, countsExpected } = inputs;
  const ofModel = RELEASE_DAYS.get(model) ?? new WeakMap<CaseGoal, Map<boolean, ReleaseDays>>();
  RELEASE_DAYS.set(model, ofModel);
  const made = ofModel.get(goal) ?? new Map<boolean, ReleaseDays>();
  ofModel.set(goal, made);
  const known = made.get(countsExpected) ?? makeReleaseDays(model, inputs);
  made.set(countsExpected, known);
  return known;
}

function makeReleaseDays(model: ProductModel, inputs: CaseInputs): ReleaseDays {
  const { goal, countsExpected } = inputs;
  const publications = model.releases.map((r) => findPublication(r, goal.maturities, countsExpected));
  return {
    publication: publications.map((p) => p?.day),
    settled: publications.map((p, i) => p && settledOn(model, i, p.day, inputs)),
    isPreview: publications.map((p) => p !== undefined && p.maturity !== 'general'),
    serviceEnd: model.releases.map((r) => serviceEndOf(r, goal.phase, countsExpected))
  };
}
