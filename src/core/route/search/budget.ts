/**
 * What searches may take, in work counted and never in time, so that they end alike everywhere. What they are exponential in -
 * ways that differ in what was cured or passed and that nothing ahead makes alike - is cut there: the best found is told, with
 * the cut, and what was not found is not called closed.
 */
export interface Budget {
  /** Labels gone on from. */
  readonly labels: number;
  /** Comparisons of labels. */
  readonly comparisons: number;
  /** Clauses that steps were asked, one set of cures after another. */
  readonly clauses: number;
}

export interface Spent {
  readonly labels: number;
  readonly comparisons: number;
  readonly clauses: number;
}

/** Every route to every target. */
export const LIST_BUDGET: Budget = { labels: 50_000, comparisons: 20_000_000, clauses: 500_000 };
/** One chosen route. */
export const CHOICE_BUDGET: Budget = { labels: 20_000, comparisons: 10_000_000, clauses: 500_000 };

/** Whether any part of a budget is used up. */
export const isSpent = (budget: Budget, spent: Spent): boolean =>
  spent.labels >= budget.labels || spent.comparisons > budget.comparisons || spent.clauses > budget.clauses;

/** The work of a search as one number: about so many clauses asked. */
export const workOf = ({ labels, comparisons, clauses }: Spent): number =>
  clauses + 5 * labels + Math.ceil(comparisons / 20);
