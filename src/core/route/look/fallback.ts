import { findChosen } from '../search/choose';
import { routeOf } from '../tell/explain';
import type { Label } from '../search/label';
import type { Place } from '../../compile';
import type { Terms } from '../terms';
import type { Route } from '../types';

/** What is done when one counted hop of a route fails: another way from where that leaves the system. */
export interface Fallback {
  /** Place of the hop among the route's counted steps. */
  readonly hop: number;
  readonly id: string;
  /** Absent where nothing else leads there. */
  readonly route?: Route;
}

/**
 * A fallback for every counted hop of a route: the chosen route from the state after the patches and cures
 * that serve the hop, on its planned day, with that hop barred in all its ways. Cost: one search a hop.
 */
export function findFallbacks(terms: Terms, label: Label, target: Place): Fallback[] {
  return label.moves.map((move, i): Fallback => {
    const days = label.judgement.schedule.days[i]?.hop;
    const after: Terms = {
      ...terms,
      from: days?.first ?? terms.from,
      along: move.asked.before,
      barred: new Map([...terms.barred, [move.id, undefined]])
    };
    const start = { ...move.from, patch: move.level };
    const { label: chosen } = findChosen(after, { start, target }, 'sure');
    return { hop: i, id: move.id, ...(chosen ? { route: routeOf(after, chosen) } : {}) };
  });
}
