import { isSpent, LIST_BUDGET, type Spent, workOf } from './budget';
import { Expander, type Item, searchWarily } from './expand';
import { startLabel, type Label, type Mode } from './label';
import type { Place } from '../../compile';
import { type IsBeaten, Pool } from './pool';
import { noted, type Terms } from '../terms';

export interface SearchOptions {
  /** Expanded labels after which the search stops with what it has. */
  readonly budget?: number;
  /** The one target that is asked for: what cannot lead there is left out. */
  readonly target?: Place;
  /** Whether empty cells count in the best run; `findReach` asks of them. */
  readonly cells?: boolean;
  /** What a label is dropped for, where that is not the usual. */
  readonly beats?: IsBeaten;
}

export interface SearchResult {
  /** Per target (`targetKey`): the unbeaten routes, in the site's order of preference. */
  readonly routes: ReadonlyMap<string, readonly Label[]>;
  readonly expanded: number;
  /** See `workOf`. */
  readonly work: number;
  /** Names of the unknowns met on the way: where there are none, the other run goes the same. */
  readonly met: ReadonlySet<string>;
  /** True when the budget ended the search, or not every set of cures was tried, so that better routes may exist. */
  readonly cut: boolean;
}

/**
 * Finds the routes from one start to every target, in one run - or, to find
 * openings, with a few clauses lifted (F2), where every patch level and every set of cures is tried.
 *
 * Labels are worked off first in, first out, so shorter routes come first. From each label, for each counted step
 * the catalogue knows:
 * 1. A step that turns back is left out.
 * 2. As a stepping stone the step takes the lowest patch level at which all clauses hold. It goes on from there.
 * 3. As a target the same is judged anew, with settling, resting and months left. From a target only steps inside
 *    its release go on.
 * 4. A label is dropped where another at the same standing is no worse in everything that can still matter.
 * Must not: invent steps, look at the clock, depend on the order of the catalogue's hops.
 * Cost: expanded labels x openings x levels x moves, within `LIST_BUDGET`.
 */
export function findRoutes(
  given: Terms,
  start: Place,
  mode: Mode,
  options: SearchOptions = {}
): SearchResult {
  const terms = noted(given);
  return searchWarily(terms, (wary) => searchRoutes(terms, { start, mode, wary }, options));
}

function searchRoutes(
  terms: Terms,
  { start, mode, wary }: { readonly start: Place; readonly mode: Mode; readonly wary: boolean },
  options: SearchOptions
): SearchResult {
  const before = terms.notes.work;
  const budget = { ...LIST_BUDGET, ...(options.budget === undefined ? {} : { labels: options.budget }) };
  const expander = new Expander(terms, mode, { target: options.target, cells: options.cells ?? false, wary });
  const [stones, targets] = [0, 1].map(() => new Pool(mode, expander.mayPutOff, options.beats)) as [
    Pool,
    Pool
  ];
  const queue: Item[] = [{ label: startLabel(terms, start), asTarget: false }];
  let expanded = 0;
  const spent = (): Spent => ({
    labels: expanded,
    comparisons: stones.work + targets.work,
    clauses: terms.notes.work - before
  });
  for (let next = 0; next < queue.length && !isSpent(budget, spent()); next++) {
    const item = queue[next];
    if (!item || (item.asTarget ? targets : stones).hasDropped(item.label)) continue;
    expanded++;
    for (const longer of expander.next(item))
      if ((longer.asTarget ? targets : stones).insert(expander.keyOf(longer), longer.label))
        queue.push(longer);
  }
  return {
    routes: targets.byTarget((label) => expander.takesLowest(label)),
    expanded,
    work: workOf(spent()),
    met: terms.notes.met,
    cut: isSpent(budget, spent()) || terms.notes.cut
  };
}
