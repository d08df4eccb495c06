import { compareText } from '../../kit';
import { reasonOf, routeOf } from '../tell/explain';
import type { Label } from '../search/label';
import { type Place, targetKey } from '../../compile';
import { findChosen } from '../search/choose';
import { findRoutes } from '../search/search';
import { termsWith, type Terms } from '../terms';
import type { Route, Verdict } from '../types';
import { clauseKey, type Reason } from '../reason';

const MAX_OPENINGS = 20;
/** Most least sets whose routes are looked for, fewest clauses first; past it the list is cut, and says so. */
const MOST_TRIED = 100;
/** Work of the search and of all the routes looked for; see `workOf`. */
const MOST_WORK = 1_500_000;

/** A least set of clauses whose lifting makes a closed target better than closed. */
export interface Opening {
  /** Names of the clauses (`clauseKey`), sorted. */
  readonly clauses: readonly string[];
  readonly reasons: readonly Reason[];
  readonly verdict: Verdict;
  /** The route that is chosen once they are lifted. */
  readonly route: Route;
}

export interface Openings {
  readonly openings: readonly Opening[];
  /** There are more than are listed, or the search ended on its budget. */
  readonly cut: boolean;
}

/**
 * The openings of a closed target: what stands in the way of some route there, at most three clauses, none of which could
 * be left out. Ordered by number, then money (an unknown sum last) and careful minutes of the route chosen after lifting.
 * Cost: one search with lifting, and one for the chosen route of each set found, a hundred at most.
 */
export function findOpenings(terms: Terms, start: Place, target: Place): Openings {
  const { routes, cut, work } = findRoutes(terms, start, 'open', { target });
  const labels = routes.get(targetKey(target)) ?? [];
  const sets = new Map<string, Label>();
  for (const label of labels) {
    const key = label.criteria.restsOn.join('|');
    if (!sets.has(key)) sets.set(key, label);
  }
  const least = [...sets.values()].filter((a) => ![...sets.values()].some((b) => b !== a && isWithin(b, a)));
  least.sort((a, b) => compareSets(a.criteria.restsOn, b.criteria.restsOn));
  let spent = work;
  let tried = 0;
  const openings: Opening[] = [];
  for (; tried < Math.min(least.length, MOST_TRIED) && spent <= MOST_WORK; tried++) {
    const found = openingOf(terms, start, target, least[tried] as Label);
    spent += found.work;
    openings.push(...found.openings);
  }
  return {
    openings: openings.sort(compareOpenings).slice(0, MAX_OPENINGS),
    cut: cut || openings.length > MAX_OPENINGS || least.length > tried
  };
}

const compareSets = (a: readonly string[], b: readonly string[]): number =>
  a.length - b.length || compareText(a.join('|'), b.join('|'));

const isWithin = (a: Label, b: Label): boolean =>
  a.criteria.restsOn.every((key) => b.criteria.restsOn.includes(key));

interface Tried {
  readonly openings: readonly Opening[];
  readonly work: number;
}

function openingOf(terms: Terms, start: Place, target: Place, label: Label): Tried {
  const clauses = label.criteria.restsOn;
  const lifted = termsWith(terms, { lifted: new Set([...terms.lifted, ...clauses]) });
  const { verdict, label: chosen, work } = findChosen(lifted, { start, target }, 'sure');
  if (!chosen) return { openings: [], work };
  const { findings } = label.judgement;
  const reasons = clauses.flatMap((key) => {
    const finding = findings.find((f) => clauseKey(f) === key);
    return finding ? [reasonOf(terms, label.moves, label.judgement, finding)] : [];
  });
  return { openings: [{ clauses, reasons, verdict, route: routeOf(lifted, chosen) }], work };
}

const compareOpenings = (a: Opening, b: Opening): number =>
  a.clauses.length - b.clauses.length ||
  Number(a.route.unknownSums.length > 0) - Number(b.route.unknownSums.length > 0) ||
  a.route.costCents - b.route.costCents ||
  a.route.carefulMinutes - b.route.carefulMinutes ||
  compareText(a.clauses.join('|'), b.clauses.join('|'));
