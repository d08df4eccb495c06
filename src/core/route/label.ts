import { KEPT } from '../catalogue/schema';
import type { Run } from '../condition/truth';
import { judgeMoves, type Judgement } from './judge';
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
  return labelOf(terms, start, [], { schedule: { days: [], waitsUntil: terms.today, overstays: [] }, rights: [], findings: [] });
}

/** The moves as a label where they are admitted in this run, else the judgement that refuses them. */
export function admitMoves(terms: Terms, start: Place, moves: readonly Move[], isTarget: boolean, run: Run): Label | Judgement {
  const judgement = judgeMoves(terms, moves, isTarget, run);
  return judgement.findings.some((f) => f.truth === 'no' || run === 'sure') ? judgement : labelOf(terms, start, moves, judgement);
}

export const isLabel = (value: Label | Judgement): value is Label => 'criteria' in value;

function labelOf(terms: Terms, start: Place, moves: readonly Move[], judgement: Judgement): Label {
  return {
    moves,
    at: moves[moves.length - 1]?.to ?? start,
    visited: [start, ...moves.map((m) => m.to)],
    judgement,
    criteria: criteriaOf(terms, moves, judgement)
  };
}

function criteriaOf(terms: Terms, moves: readonly Move[], { schedule, rights }: Judgement): Criteria {
  const tokens: string[] = [];
  const risks = new Set<string>();
  const unknownSums: string[] = [];
  let keptRank = 0;
  let costCents = 0;
  let minutes = 0;
  moves.forEach((move, i) => {
    const use = rights[i]?.use;
    if (move.level !== move.from.patch) {
      tokens.push(`0 ${String(move.level).padStart(4, '0')}`);
      minutes += terms.model.releases[move.from.release]?.patches[move.level]?.carefulMinutes ?? 0;
    }
    tokens.push(`1 ${move.id} ${move.to.edition} ${move.to.architecture} ${use?.right ?? ''}`);
    minutes += carefulMinutesOf(move);
    keptRank = Math.max(keptRank, move.hop ? KEPT.indexOf(move.hop.hop.kept) : 0);
    if (move.hop?.hop.unsupported) risks.add(`unsupported ${move.id}`);
    if (terms.isPreview[move.to.release]) risks.add(`preview ${move.to.release}`);
    if (use?.costCents === 'unknown') unknownSums.push(move.id);
    else costCents += use?.costCents ?? 0;
  });
  const finish = schedule.days[moves.length - 1]?.hop;
  return {
    keptRank,
    risks: [...risks].sort(),
    hops: moves.length,
    costCents,
    unknownSums: unknownSums.sort(),
    carefulMinutes: minutes * terms.nodes,
    finish: finish?.last ?? terms.from - 1,
    finishExact: finish?.exact ?? true,
    steps: tokens.length,
    tokens,
    waits: schedule.waitsUntil === 'unknown' ? Infinity : schedule.waitsUntil,
    hasFresh: moves.some((m) => m.kind === 'fresh install'),
    usesCell: moves.some((m) => m.cell !== undefined)
  };
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
export function compareTokens(a: readonly string[], b: readonly string[]): number {
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
  const lasting = by.hops < label.hops || by.costCents < label.costCents || by.carefulMinutes < label.carefulMinutes || by.steps < label.steps;
  return lasting || compareTokens(by.tokens, label.tokens) <= 0;
}

const isSubset = (a: readonly string[], b: readonly string[]): boolean => a.every((x) => b.includes(x));
