import { KEPT } from '../catalogue/schema';
import type { Run } from '../condition/truth';
import { judgeMoves, judgeNext, type Judgement } from './judge';
import { carefulMinutesOf } from './lay-days';
import type { Move, Place } from './move';
import type { Terms } from './terms';

/** What routes are compared by. */
export interface Criteria {
  /** Place in KEPT: 0 is everything. */
  readonly keptRank: number;
  /** Sorted. */
  readonly risks: readonly string[];
  readonly hops: number;
  readonly costCents: number;
  /** Sorted. */
  readonly unknownSums: readonly string[];
  readonly carefulMinutes: number;
  readonly finish: number;
  readonly finishExact: boolean;
  readonly steps: number;
  /** One token a step; the last tie-breaker. */
  readonly tokens: readonly string[];
  readonly waits: number;
  readonly hasFresh: boolean;
  readonly usesCell: boolean;
}

/** A route in the making: moves that hold, and what they come to. */
export interface Label {
  readonly moves: readonly Move[];
  readonly at: Place;
  readonly visited: readonly Place[];
  readonly judgement: Judgement;
  readonly criteria: Criteria;
}

/** The label of the start: nothing done yet. */
export function startLabel(terms: Terms, start: Place): Label {
  return {
    moves: [],
    at: start,
    visited: [start],
    judgement: { schedule: { days: [], waitsUntil: terms.today, overstays: [] }, rights: [], findings: [] },
    criteria: {
      keptRank: 0,
      risks: [],
      hops: 0,
      costCents: 0,
      unknownSums: [],
      carefulMinutes: 0,
      finish: terms.from - 1,
      finishExact: true,
      steps: 0,
      tokens: [],
      waits: terms.today,
      hasFresh: false,
      usesCell: false
    }
  };
}

/** The label one move longer, where that is admitted in this run: nothing fails, and in the sure run nothing is unknown. */
export function extendLabel(
  terms: Terms,
  label: Label,
  move: Move,
  isTarget: boolean,
  run: Run
): Label | undefined {
  const moves = [...label.moves, move];
  const next = judgeNext(terms, label.judgement, moves, isTarget, run);
  const judgement = next ?? judgeMoves(terms, moves, isTarget, run);
  if (judgement.findings.some((f) => f.truth === 'no' || run === 'sure')) return undefined;
  // Where days were put off, earlier steps may stand under other rights: the sums are made anew.
  const base = next
    ? label.criteria
    : moves
        .slice(0, -1)
        .reduce(
          (sum, m, i) => addMove(terms, sum, m, judgement, i),
          startLabel(terms, label.visited[0] as Place).criteria
        );
  return {
    moves,
    at: move.to,
    visited: [...label.visited, move.to],
    judgement,
    criteria: addMove(terms, base, move, judgement, moves.length - 1)
  };
}

/** The criteria of a route with one more move, at its place in the judgement. */
function addMove(
  terms: Terms,
  sum: Criteria,
  move: Move,
  { schedule, rights }: Judgement,
  at: number
): Criteria {
  const use = rights[at]?.use;
  const days = schedule.days[at]?.hop;
  const patched = move.level !== move.from.patch;
  const patchMinutes = patched
    ? (terms.model.releases[move.from.release]?.patches[move.level]?.carefulMinutes ?? 0)
    : 0;
  const token = `1 ${move.id} ${move.to.edition} ${move.to.architecture} ${use?.right ?? ''}`;
  return {
    keptRank: Math.max(sum.keptRank, move.hop ? KEPT.indexOf(move.hop.hop.kept) : 0),
    risks: addRisks(terms, sum.risks, move),
    hops: sum.hops + 1,
    costCents: sum.costCents + (typeof use?.costCents === 'number' ? use.costCents : 0),
    unknownSums: use?.costCents === 'unknown' ? [...sum.unknownSums, move.id].sort() : sum.unknownSums,
    carefulMinutes: sum.carefulMinutes + (patchMinutes + carefulMinutesOf(move)) * terms.nodes,
    finish: days?.last ?? sum.finish,
    finishExact: days?.exact ?? true,
    steps: sum.steps + (patched ? 2 : 1),
    tokens: patched
      ? [...sum.tokens, `0 ${String(move.level).padStart(4, '0')}`, token]
      : [...sum.tokens, token],
    waits: schedule.waitsUntil === 'unknown' ? Infinity : schedule.waitsUntil,
    hasFresh: sum.hasFresh || move.kind === 'fresh install',
    usesCell: sum.usesCell || move.cell !== undefined
  };
}

function addRisks(terms: Terms, risks: readonly string[], move: Move): readonly string[] {
  const unsupported = move.hop?.hop.unsupported ? [`unsupported ${move.id}`] : [];
  const early = terms.isPreview[move.to.release] ? [`early ${move.to.release}`] : [];
  return unsupported.length + early.length === 0
    ? risks
    : [...new Set([...risks, ...unsupported, ...early])].sort();
}

/**
 * The order in which a site prefers routes (RECKONING E3): most kept, fewest risks, hops, money (an unknown sum
 * last, then its known part), careful minutes, finish day (unknown last), steps, ids. Total.
 */
export function compareByPreference(a: Criteria, b: Criteria): number {
  return (
    a.keptRank - b.keptRank ||
    a.risks.length - b.risks.length ||
    a.hops - b.hops ||
    Number(a.unknownSums.length > 0) - Number(b.unknownSums.length > 0) ||
    a.costCents - b.costCents ||
    a.carefulMinutes - b.carefulMinutes ||
    Number(b.finishExact) - Number(a.finishExact) ||
    a.finish - b.finish ||
    a.steps - b.steps ||
    compareTokens(a.tokens, b.tokens)
  );
}

/** Compares step ids one by one, by code unit. */
function compareTokens(a: readonly string[], b: readonly string[]): number {
  for (let i = 0; i < Math.min(a.length, b.length); i++) {
    const [x = '', y = ''] = [a[i], b[i]];
    if (x !== y) return x < y ? -1 : 1;
  }
  return a.length - b.length;
}

/**
 * True when a label may be dropped for another at the same standing: however both go on, the other ends no worse
 * on every criterion and on what verdicts ask, and wins the tie. Criteria that a common rest may level out (kept,
 * risks, days) do not decide ties, so there the ids must.
 */
export function isBeaten(label: Criteria, by: Criteria): boolean {
  const noWorse =
    by.keptRank <= label.keptRank &&
    by.hops <= label.hops &&
    by.costCents <= label.costCents &&
    by.carefulMinutes <= label.carefulMinutes &&
    by.finish <= label.finish &&
    by.finishExact >= label.finishExact &&
    by.steps <= label.steps &&
    by.waits <= label.waits &&
    by.hasFresh <= label.hasFresh &&
    by.usesCell <= label.usesCell &&
    isSubset(by.risks, label.risks) &&
    isSubset(by.unknownSums, label.unknownSums);
  if (!noWorse) return false;
  const lasting =
    by.hops < label.hops ||
    by.costCents < label.costCents ||
    by.carefulMinutes < label.carefulMinutes ||
    by.steps < label.steps;
  return lasting || compareTokens(by.tokens, label.tokens) <= 0;
}

const isSubset = (a: readonly string[], b: readonly string[]): boolean => a.every((x) => b.includes(x));
