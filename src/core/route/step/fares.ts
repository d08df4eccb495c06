import type { CompanionModel, Place } from '../../compile';
import { type Evidence, truthIn } from '../../condition';
import type { FareOn } from '../asked';
import type { Terms } from '../terms';

/** How a companion may fare on a place: each line that may apply, up to the first that applies for certain. */
export function faresOn(terms: Terms, { fares }: CompanionModel, to: Place, evidence: Evidence): FareOn[] {
  const found: FareOn[] = [];
  for (const { fare, at, when } of fares) {
    if (at[to.release]?.[to.patch] !== true) continue;
    const truth = when === undefined ? 'yes' : truthIn(when, evidence, terms.model.needs.kinds);
    if (truth === 'no') continue;
    found.push({ fare, truth });
    if (truth === 'yes') break;
  }
  return found;
}
