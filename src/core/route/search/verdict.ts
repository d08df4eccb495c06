import type { Label } from './label';
import type { Terms } from '../terms';
import { VERDICTS, type ShownVerdict, type Verdict } from '../types';

/** Rank of a verdict, 0 the best. */
export const rankVerdict = (verdict: Verdict): number => VERDICTS.indexOf(verdict);

/** Whether the first verdict is better; equal ones are not. */
export const isBetter = (a: Verdict, b: Verdict): boolean => rankVerdict(a) < rankVerdict(b);

/**
 * The verdict of a target that is neither installed nor older, from its routes.
 * Open today: one release hop in place and nothing else counted is `straight`; all in place `by hops`;
 * otherwise `fresh only`. Open later: `not yet`. No route: `closed`.
 */
export function verdictOf(terms: Terms, labels: readonly Label[]): Verdict {
  let best: Verdict = 'closed';
  for (const label of labels) {
    const verdict = verdictOfLabel(terms, label);
    if (isBetter(verdict, best)) best = verdict;
  }
  return best;
}

/** The verdict a single route gives. */
export function verdictOfLabel(terms: Terms, { criteria, moves }: Label): Verdict {
  if (criteria.waits > terms.today) return 'not yet';
  if (criteria.hasFresh) return 'fresh only';
  return moves.length === 1 && moves[0]?.kind === 'in place' ? 'straight' : 'by hops';
}

/** The first route by preference among those that give the verdict. Labels come in that order. */
export function chosenOf(terms: Terms, labels: readonly Label[]): Label | undefined {
  const verdict = verdictOf(terms, labels);
  return labels.find((l) => verdict === 'not yet' || verdictOfLabel(terms, l) === verdict);
}

export interface Shown {
  readonly verdict: ShownVerdict;
  /** The better verdict of the best run, where it is shown beside the sure one. */
  readonly perhaps?: Verdict;
}

/**
 * What is shown of the two runs: `cannot tell` where sure is `not yet` or `closed` and best is
 * better; "perhaps" where best is better otherwise - withheld where only empty cells make it so and a sure route
 * in place exists. What a search that was cut short has not found is not closed: nobody can tell.
 */
export function shownOf(sure: Verdict, best: Verdict, bestWithoutCells: Verdict, cut = false): Shown {
  if (!isBetter(best, sure)) return { verdict: cut && sure === 'closed' ? 'cannot tell' : sure };
  if (sure === 'not yet' || sure === 'closed') return { verdict: 'cannot tell', perhaps: best };
  const hasInPlace = sure === 'straight' || sure === 'by hops';
  const perhaps = hasInPlace ? bestWithoutCells : best;
  return isBetter(perhaps, sure) ? { verdict: sure, perhaps } : { verdict: sure };
}
