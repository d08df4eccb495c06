import { compareText } from '../../kit';
import { KEPT } from '../../catalogue';
import type { Run } from '../../condition';
import { judgeMoves, judgeNext, type Finding, type Judgement } from '../days/judge';
import { carefulMinutesOf, type Judging } from '../days/lay-days';
import { type Move } from '../move';
import { NOTHING, type Place } from '../../compile';
import type { MaybeDay, Slot, StepDays } from '../../date';
import type { Along } from '../along';
import { MAX_LIFTED } from '../step/ask';
import type { Outlay } from '../asked';
import type { Terms } from '../terms';
import { clauseKey } from '../reason';
import type { RightUse, UnitUse } from '../../right';

/** What routes are compared by. */
export interface Criteria {
  /** Place in KEPT: 0 is everything. */
  readonly keptRank: number;
  /** Sorted. */
  readonly risks: readonly string[];
  readonly hops: number;
  /** The most it may come to, and the least: cures that are needed only perhaps make the difference. */
  readonly most: Amount;
  readonly least: Amount;
  readonly finish: number;
  readonly finishExact: boolean;
  /** Where in an occurrence its last block ends, where work is laid into windows. */
  readonly slot?: Slot;
  readonly steps: number;
  /** One token a step; the last tie-breaker. */
  readonly tokens: readonly string[];
  readonly waits: number;
  readonly hasFresh: boolean;
  /** Steps over empty cells. */
  readonly cells: number;
  /** Some patch level may turn out not to be the lowest that does. */
  readonly higher: boolean;
  /** Units by `pool/edition`; `?` behind it where the number is unknown. Sorted. */
  readonly units: readonly (readonly [string, number])[];
  /** Clauses it rests on, sorted: unknown ones in the best run, lifted ones when looking for openings. */
  readonly restsOn: readonly string[];
}

/** What a route comes to, as far as it is known. */
export interface Amount {
  readonly costCents: number;
  /** What the sums nobody knows hang on, one word a sum, sorted: those of one word are of one ignorance and count alike. */
  readonly unknownSums: readonly string[];
  /** Of all nodes. */
  readonly carefulMinutes: number;
}

const NOTHING_SPENT: Amount = { costCents: 0, unknownSums: [], carefulMinutes: 0 };

/** How a search takes what is not plainly true: refuses it, rests on what is unknown, or lifts a few clauses. */
export type Mode = Run | 'open';

/** The run a mode of search reads unknowns by. */
export const runOf = (mode: Mode): Run => (mode === 'best' ? 'best' : 'sure');

/** A route in the making: moves that hold, and what they come to. */
export interface Label {
  readonly moves: readonly Move[];
  readonly at: Place;
  readonly visited: readonly Place[];
  readonly judgement: Judgement;
  /** Facts where it stands. */
  readonly along: Along;
  readonly criteria: Criteria;
}

/** The label of the start: nothing done yet. */
export function startLabel(terms: Terms, start: Place): Label {
  return {
    moves: [],
    at: start,
    visited: [start],
    judgement: { schedule: { days: [], waitsUntil: terms.today, overstays: [] }, rights: [], findings: [] },
    along: terms.along,
    criteria: {
      keptRank: 0,
      risks: [],
      hops: 0,
      most: NOTHING_SPENT,
      least: NOTHING_SPENT,
      finish: terms.from - 1,
      finishExact: true,
      steps: 0,
      tokens: [],
      waits: terms.today,
      hasFresh: false,
      cells: 0,
      higher: false,
      units: [],
      restsOn: []
    }
  };
}

/**
 * The label one move longer, where that is admitted: in the best run nothing fails, in the sure run nothing is unknown
 * either, and when looking for openings at most three clauses, all of which can be lifted, do not hold.
 */
export function extendLabel(
  terms: Terms,
  label: Label,
  move: Move,
  { isTarget, mode }: { readonly isTarget: boolean; readonly mode: Mode }
): Label | undefined {
  const how: Judging = { isTarget, run: runOf(mode) };
  const moves = [...label.moves, move];
  const next = judgeNext(terms, label.judgement, moves, how);
  const judgement = next ?? judgeMoves(terms, moves, how);
  const restsOn = restsOnOf(judgement, mode);
  if (!restsOn) return undefined;
  // Where days were put off, earlier steps may stand under other rights: the sums are made anew.
  const base = next
    ? label.criteria
    : moves
        .slice(0, -1)
        .reduce(
          (sum, m, i) => addMove(terms, sum, m, placedAt(judgement, i, restsOn)),
          startLabel(terms, label.visited[0] as Place).criteria
        );
  return {
    moves,
    at: move.to,
    visited: [...label.visited, move.to],
    judgement,
    along: move.asked.after,
    criteria: addMove(terms, base, move, placedAt(judgement, moves.length - 1, restsOn))
  };
}

const NONE: readonly string[] = [];

/** The clauses a judged route rests on in this mode; undefined where it does not stand. */
export function restsOnOf({ findings }: Judgement, mode: Mode): readonly string[] | undefined {
  if (findings.length === 0) return NONE;
  if (mode === 'sure') return undefined;
  if (mode === 'best' ? findings.some((f) => f.truth === 'no') : !findings.every(isLiftable))
    return undefined;
  const keys = [...new Set(findings.map(clauseKey))].sort();
  return mode === 'open' && keys.length > MAX_LIFTED ? undefined : keys;
}

/** What may be lifted: clauses, permissions, rights, publication; never a cell or a cure's limit. */
const isLiftable = ({ code }: Finding): boolean =>
  code !== 'cell' && code !== 'cure limit' && code !== 'cure';

/** What a judgement says of the move at a place. */
const placedAt = ({ schedule, rights }: Judgement, at: number, restsOn: readonly string[]): Placed => ({
  restsOn,
  use: rights[at]?.use,
  days: schedule.days[at]?.hop,
  slot: schedule.days[at]?.at,
  waitsUntil: schedule.waitsUntil
});

interface Placed {
  /** Of the route it is on, as one. */
  readonly restsOn: readonly string[];
  readonly use: RightUse | undefined;
  readonly days: StepDays | undefined;
  readonly slot: Slot | undefined;
  readonly waitsUntil: MaybeDay;
}

/** The criteria of a route with one more move, as it was judged. */
function addMove(terms: Terms, sum: Criteria, move: Move, placed: Placed): Criteria {
  const { use, days, slot, waitsUntil, restsOn } = placed;
  const patched = move.level !== move.from.patch;
  const right = use ?? NO_USE;
  const patchMinutes = patched
    ? (terms.model.releases[move.from.release]?.patches[move.level]?.carefulMinutes ?? 0)
    : 0;
  const { asked } = move;
  const token = `3 ${move.id} ${move.to.edition} ${move.to.architecture} ${use?.right ?? ''}`;
  const extra = asked.cures.length + asked.cautions.length;
  const minutes = patchMinutes + carefulMinutesOf(move);
  const tokens = [...sum.tokens];
  if (patched) tokens.push(`0 ${String(move.level).padStart(4, '0')}`);
  for (const { cure } of asked.cures) tokens.push(`1 ${cure.id}`);
  for (const { caution } of asked.cautions) tokens.push(`2 ${caution.id}`);
  tokens.push(token);
  const added: Criteria = {
    keptRank: Math.max(sum.keptRank, keptRankOf(move)),
    risks: addRisks(terms, sum.risks, move),
    units: addUnits(sum.units, use?.units),
    restsOn,
    hops: sum.hops + 1,
    most: addAmount(sum.most, right, asked, minutes * terms.nodes),
    least: addAmount(sum.least, right, asked.least, minutes * terms.nodes),
    finish: days?.last ?? sum.finish,
    finishExact: days?.exact ?? true,
    steps: sum.steps + (patched ? 2 : 1) + extra,
    tokens,
    waits: waitsUntil === 'unknown' ? Infinity : waitsUntil,
    hasFresh: sum.hasFresh || move.kind === 'fresh install',
    cells: move.cell === undefined ? sum.cells : sum.cells + 1,
    higher: sum.higher || move.higher === true
  };
  return slot ? { ...added, slot } : added;
}

const NO_USE: RightUse = { kind: 'free', costCents: 0 };

/** With a step's right, its cures, and minutes of its own over all nodes. */
function addAmount(sum: Amount, use: RightUse, outlay: Outlay, minutes: number): Amount {
  const unknown = outlay.unknownSums.map((id) => `cure ${id}`);
  if (use.costCents === 'unknown') unknown.push(`right ${use.right ?? ''}`);
  return {
    costCents: sum.costCents + (use.costCents === 'unknown' ? 0 : use.costCents) + outlay.costCents,
    unknownSums: unknown.length > 0 ? [...sum.unknownSums, ...unknown].sort() : sum.unknownSums,
    carefulMinutes: sum.carefulMinutes + minutes + outlay.carefulMinutes
  };
}

function addRisks(terms: Terms, risks: readonly string[], move: Move): readonly string[] {
  const isUnsupported = move.hop?.hop.unsupported === true;
  const isEarly = terms.isPreview[move.to.release] === true;
  if (!isUnsupported && !isEarly && move.asked.risks.length === 0) return risks;
  const all = new Set(risks);
  if (isUnsupported) all.add(`unsupported ${move.id}`);
  if (isEarly) all.add(`early ${move.to.release}`);
  for (const { key } of move.asked.risks) all.add(key);
  return [...all].sort();
}

/** From nothing there is nothing to lose. */
export const keptRankOf = ({ hop, from }: Pick<Move, 'hop' | 'from'>): number =>
  hop && from.release !== NOTHING ? KEPT.indexOf(hop.hop.kept) : 0;

/** The name under which units are summed; never across editions. */
const unitKey = ({ pool, edition, number }: UnitUse): string =>
  `${pool}/${edition ?? ''}${number === 'unknown' ? '?' : ''}`;

function addUnits(units: Criteria['units'], use: UnitUse | undefined): Criteria['units'] {
  if (!use) return units;
  const sums = new Map(units);
  const key = unitKey(use);
  sums.set(key, (sums.get(key) ?? 0) + (use.number === 'unknown' ? 1 : use.number));
  return [...sums].sort((a, b) => compareText(a[0], b[0]));
}

/**
 * The order in which a site prefers routes: most kept, fewest risks, hops, money (an unknown sum
 * last, then its known part, then how many sums are unknown) and careful minutes, of each the most it may be and then the
 * least, finish day (unknown last), steps, ids. Total.
 */
export function compareByPreference(a: Criteria, b: Criteria): number {
  return (
    a.keptRank - b.keptRank ||
    a.risks.length - b.risks.length ||
    a.hops - b.hops ||
    compareAmounts(a, b) ||
    Number(b.finishExact) - Number(a.finishExact) ||
    a.finish - b.finish ||
    a.steps - b.steps ||
    compareTokens(a.tokens, b.tokens)
  );
}

/** Money, then minutes; of each the most, then the least. */
const compareAmounts = (a: Criteria, b: Criteria): number =>
  compareSums(a, b) ||
  a.most.carefulMinutes - b.most.carefulMinutes ||
  a.least.carefulMinutes - b.least.carefulMinutes;

/** Money alone: the most it may be, then the least. */
export const compareSums = (a: Criteria, b: Criteria): number =>
  compareMoney(a.most, b.most) || compareMoney(a.least, b.least);

const compareMoney = (a: Amount, b: Amount): number =>
  Number(a.unknownSums.length > 0) - Number(b.unknownSums.length > 0) ||
  a.costCents - b.costCents ||
  a.unknownSums.length - b.unknownSums.length;

/** Compares step ids one by one, by code unit. */
function compareTokens(a: readonly string[], b: readonly string[]): number {
  for (let i = 0; i < Math.min(a.length, b.length); i++) {
    const [x = '', y = ''] = [a[i], b[i]];
    if (x !== y) return compareText(x, y);
  }
  return a.length - b.length;
}

/**
 * True when a label may be dropped for another at the same standing: however both go on, the other ends no worse
 * on every criterion and on what verdicts ask, and wins the tie. Criteria that a common rest may level out (kept,
 * risks, days) do not decide ties, so there the ids must.
 */
export const isBeaten = (label: Criteria, by: Criteria): boolean =>
  by.cells <= label.cells &&
  isSubset(by.restsOn, label.restsOn) &&
  isNoWorse(label, by) &&
  winsTie(label, by);

/**
 * The same, where it is asked whether there is a way, and which is preferred, and not over which unknowns ways lead: what a label rests on
 * closes nothing ahead of it. Of paths through a table with gaps each rests on another set of cells, so that none would ever be beaten.
 */
export const isBeatenWhateverItRestsOn = (label: Criteria, by: Criteria): boolean =>
  isNoWorse(label, by) && winsTie(label, by);

/** The same, with those over fewer empty cells told apart. */
export const isBeatenOverCells = (label: Criteria, by: Criteria): boolean =>
  by.cells <= label.cells && isNoWorse(label, by) && (by.cells < label.cells || winsTie(label, by));

const isNoWorse = (label: Criteria, by: Criteria): boolean =>
  by.keptRank <= label.keptRank &&
  by.hops <= label.hops &&
  isNoMore(by.most, label.most) &&
  isNoMore(by.least, label.least) &&
  by.finish <= label.finish &&
  by.finishExact >= label.finishExact &&
  standsNoLater(by, label) &&
  by.steps <= label.steps &&
  by.waits <= label.waits &&
  by.hasFresh <= label.hasFresh &&
  by.higher <= label.higher &&
  isSubset(by.risks, label.risks) &&
  takesNoMore(by.units, label.units);

/** Of two of which one is no worse: whether it stays the better one whatever follows for both. */
const winsTie = (label: Criteria, by: Criteria): boolean =>
  by.hops < label.hops ||
  isLess(by.most, label.most) ||
  isLess(by.least, label.least) ||
  by.steps < label.steps ||
  compareTokens(by.tokens, label.tokens) <= 0;

/**
 * Whether what follows is laid no later: behind the same or an earlier end of the same occurrence with no more ways back in it, or an end
 * before the other's occurrence begins. Only of windows that never overlap.
 */
export function standsNoLater({ slot: a }: Criteria, { slot: b }: Criteria): boolean {
  if (!a || !b) return a === b;
  return a.occurrence.start === b.occurrence.start
    ? a.end <= b.end && a.back <= b.back
    : a.occurrence.start + a.end <= b.occurrence.start;
}

/** No more money for certain, and no more minutes: of every ignorance no more sums. */
const isNoMore = (a: Amount, b: Amount): boolean =>
  a.costCents <= b.costCents &&
  a.carefulMinutes <= b.carefulMinutes &&
  countsNoMore(a.unknownSums, b.unknownSums);

/** Of amounts of which one is no more: whether it is less, which whatever follows for both does not level out. */
const isLess = (a: Amount, b: Amount): boolean =>
  a.costCents < b.costCents ||
  a.carefulMinutes < b.carefulMinutes ||
  a.unknownSums.length < b.unknownSums.length;

/** Both sorted: every word of `a` stands in `b` at least as often. */
function countsNoMore(a: readonly string[], b: readonly string[]): boolean {
  let next = 0;
  for (const word of a) {
    while (next < b.length && (b[next] as string) < word) next++;
    if (b[next] !== word) return false;
    next++;
  }
  return true;
}

/** Of no pool more. */
const takesNoMore = (a: Criteria['units'], b: Criteria['units']): boolean =>
  a.every(([key, number]) => number <= (b.find(([k]) => k === key)?.[1] ?? 0));
const isSameList = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((x, i) => x === b[i]);
const isSubset = (a: readonly string[], b: readonly string[]): boolean => a.every((x) => b.includes(x));

/**
 * True when a route beats another: it rests on no more unknowns, is no worse on every criterion and
 * better on one, or rests on strictly fewer. Sums of money compare at both ends of their range, unknown ones of one
 * ignorance by how many there are.
 */
function beats(by: Criteria, other: Criteria): boolean {
  if (!isSubset(by.restsOn, other.restsOn)) return false;
  const [a, b] = [finishOf(by), finishOf(other)];
  const noWorse =
    by.keptRank <= other.keptRank &&
    isNoMore(by.most, other.most) &&
    isNoMore(by.least, other.least) &&
    by.hops <= other.hops &&
    a <= b &&
    isSubset(by.risks, other.risks) &&
    takesNoMore(by.units, other.units);
  return noWorse && (!isEquivalent(by, other) || by.restsOn.length < other.restsOn.length);
}

const finishOf = ({ finish, finishExact }: Criteria): number => (finishExact ? finish : Infinity);

/** Equal on every criterion. */
const isEquivalent = (a: Criteria, b: Criteria): boolean =>
  a.keptRank === b.keptRank &&
  isSameAmount(a.most, b.most) &&
  isSameAmount(a.least, b.least) &&
  a.hops === b.hops &&
  finishOf(a) === finishOf(b) &&
  isSameList(a.risks, b.risks) &&
  takesNoMore(a.units, b.units) &&
  takesNoMore(b.units, a.units);

const isSameAmount = (a: Amount, b: Amount): boolean =>
  a.costCents === b.costCents &&
  a.carefulMinutes === b.carefulMinutes &&
  isSameList(a.unknownSums, b.unknownSums);

/**
 * The unbeaten of several routes, in the order of preference; of routes equal in criteria and unknowns the first by fewest
 * steps, then ids. Routes over empty cells stand in no list.
 */
export function unbeatenOf<T extends { readonly criteria: Criteria }>(labels: readonly T[]): T[] {
  const sorted = labels
    .filter((l) => l.criteria.cells === 0)
    .sort(
      (a, b) =>
        compareByPreference(a.criteria, b.criteria) || a.criteria.restsOn.length - b.criteria.restsOn.length
    );
  const distinct: T[] = [];
  for (const label of sorted) {
    const twin = (o: T): boolean =>
      isEquivalent(o.criteria, label.criteria) && isSameList(o.criteria.restsOn, label.criteria.restsOn);
    if (!distinct.some(twin)) distinct.push(label);
  }
  return distinct.filter((l) => !distinct.some((o) => o !== l && beats(o.criteria, l.criteria)));
}
