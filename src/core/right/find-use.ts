import type { RightModel } from '../catalogue/model';
import { and, collapse, truthOf, type Run, type Truth } from '../condition/truth';
import { readDay } from '../date/interval';
import type { Move } from '../route/move';
import type { Terms } from '../route/terms';
import type { RightUse, StepDays } from '../route/types';

export interface FoundUse {
  readonly use: RightUse;
  /** `unknown`: usable only if an unknown fact or day turns out well. */
  readonly met: Truth;
  /** Only rights by agreement or not for sale apply, and none is held. */
  readonly closes: boolean;
}

/**
 * The right a step is made under, on the day it falls on (RECKONING D, "beside it").
 *
 * 1. Of the published rights that apply to the step and are usable that day, the cheapest: known price before
 *    unknown, then price, then id; where the goal forbids spending, free first, then unknown.
 * 2. None usable, but rights by agreement or not for sale apply and are not held: the step is closed.
 * 3. None at all: the publisher must be asked; the sum is unknown, the step open.
 */
export function findUse(terms: Terms, move: Move, on: StepDays, run: Run): FoundUse {
  if (move.id.startsWith('cell '))
    return { use: { kind: 'ask', costCents: 'unknown' }, met: 'yes', closes: false };
  const applying = terms.model.rights.filter((r) => appliesTo(terms, r, move));
  const usable: { use: RightUse; met: Truth }[] = [];
  let locked = false;
  for (const right of applying) {
    const needsHolding = right.right.kind === 'agreement' || right.right.kind === 'not for sale';
    if (needsHolding && !terms.held.has(right.right.id)) {
      locked = true;
      continue;
    }
    const met = isUsable(terms, right, move, on);
    if (collapse(met, run, 'demand')) usable.push({ use: useOf(terms, right), met });
  }
  const [best] = usable.sort((a, b) => compareUses(a.use, b.use, terms.goal.allow.spending));
  if (best) return { ...best, closes: false };
  return { use: { kind: 'ask', costCents: 'unknown' }, met: 'yes', closes: locked };
}

function appliesTo(terms: Terms, { right, from, to }: RightModel, move: Move): boolean {
  const { model } = terms;
  return (
    (!right.ways || right.ways.includes(move.kind)) &&
    (!right.fromEditions || right.fromEditions.includes(model.editions[move.from.edition] ?? '')) &&
    (!right.toEditions || right.toEditions.includes(model.editions[move.to.edition] ?? '')) &&
    (!from || from[move.from.release]?.[move.level] === true) &&
    (!to || to[move.to.release]?.[move.to.patch] === true)
  );
}

function isUsable(terms: Terms, { right, until }: RightModel, move: Move, on: StepDays): Truth {
  const carried = right.kind === 'carried' ? terms.activated : 'yes';
  return until
    ? and(carried, isInTime(terms, readDay(until, terms.countsExpected), right.counts, move, on))
    : carried;
}

function isInTime(
  terms: Terms,
  until: number | 'unknown',
  counts: string | undefined,
  move: Move,
  on: StepDays
): Truth {
  if (until === 'unknown') return 'unknown';
  if (counts !== 'release day') return on.first > until ? 'no' : on.exact ? 'yes' : 'unknown';
  const published = terms.publication[move.to.release];
  if (published === undefined || published === 'unknown') return until > terms.today ? 'unknown' : 'no';
  return truthOf(published <= until);
}

function useOf(terms: Terms, { right, until }: RightModel): RightUse {
  const day = until && right.counts !== 'release day' ? readDay(until, terms.countsExpected) : 'unknown';
  const kinds = {
    free: 'free',
    carried: 'carried',
    purchase: 'purchase',
    ask: 'ask',
    agreement: 'held',
    'not for sale': 'held'
  } as const;
  const costCents =
    right.kind === 'purchase' ? (right.priceCents ?? 'unknown') : right.kind === 'ask' ? 'unknown' : 0;
  return {
    kind: kinds[right.kind],
    right: right.id,
    costCents,
    ...(day === 'unknown' ? {} : { until: day })
  };
}

/** Rank of a price, least first; forbidden spending puts a price behind an unknown sum. */
function rankOf({ costCents }: RightUse, maySpend: boolean): number {
  if (costCents === 0) return 0;
  return (costCents === 'unknown') === maySpend ? 2 : 1;
}

const compareUses = (a: RightUse, b: RightUse, maySpend: boolean): number =>
  rankOf(a, maySpend) - rankOf(b, maySpend) ||
  (typeof a.costCents === 'number' && typeof b.costCents === 'number' ? a.costCents - b.costCents : 0) ||
  ((a.right ?? '') < (b.right ?? '') ? -1 : 1);
