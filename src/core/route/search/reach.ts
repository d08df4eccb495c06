import { type Place, targetKey } from '../../compile';
import { Expander } from './expand';
import { compareByPreference, isBeatenOverCells, startLabel, type Label } from './label';
import { findRoutes, type SearchResult } from './search';
import { noted, type Terms } from '../terms';

/**
 * What can perhaps be reached where a hop table has empty cells (docs/reckoning.md 8c), from one start: every target, or one. Per target the
 * labels of the best run, those over the fewest empty cells first, then by preference.
 *
 * Every path through empty cells rests on another set of them, so that no label would beat another by what it rests on: there are as many
 * unbeaten ones as there are sets. Asked is less: whether a target is perhaps reached, in which way, and over how few cells. So a label is
 * beaten whatever it rests on, where it leads over no fewer cells. Cost: as `findRoutes` in a table without gaps.
 */
export function findReach(terms: Terms, start: Place, target?: Place): SearchResult {
  const found = findRoutes(terms, start, 'best', {
    cells: true,
    beats: isBeatenOverCells,
    ...(target ? { target } : {})
  });
  const routes = [...found.routes].map(([key, labels]) => [key, [...labels].sort(compareByCells)] as const);
  return { ...found, routes: new Map(routes) };
}

/** Fewest empty cells first, then by preference. */
const compareByCells = ({ criteria: a }: Label, { criteria: b }: Label): number =>
  a.cells - b.cells || compareByPreference(a, b);

/** By target (`targetKey`), of every target or one: the label over one empty cell straight to it, where nothing stands against it for certain. */
export function findStraightCells(given: Terms, start: Place, target?: Place): ReadonlyMap<string, Label> {
  const terms = noted(given);
  const expander = new Expander(terms, 'best', target ? { target } : {});
  const item = { label: startLabel(terms, start), asTarget: false };
  const found = new Map<string, Label>();
  for (const { opening } of expander.stepsFrom(item)) {
    const key = targetKey(opening.to);
    if (opening.cell === undefined || opening.kind !== 'in place' || found.has(key)) continue;
    if (target && key !== targetKey(target)) continue;
    const label = expander.take(item.label, opening, true).find((l) => expander.takesLowest(l));
    if (label) found.set(key, label);
  }
  return found;
}
