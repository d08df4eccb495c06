import { ONLY } from '../../version';
import { countUnits, findUse, type RightUse } from '../../right';
import type { StepDays } from '../../date';
import type { Run, Truth } from '../../condition';
import { evidenceAlong } from '../along';
import type { Move } from '../move';
import type { Terms } from '../terms';

/** The right a move is made under, with the units it takes. */
export interface UsedRight {
  readonly use: RightUse;
  readonly met: Truth;
  readonly closes: boolean;
  readonly locked: string;
}

/** The right of a move on the day it falls on; units are counted of the system as it stands before the move. */
export function useRight(terms: Terms, move: Move, on: StepDays, run: Run): UsedRight {
  const found = findUse(terms, move, on, run);
  if (!found.units) return found;
  const { kinds } = terms.model.needs;
  const edition = terms.model.editions[move.to.edition];
  const base = terms.asking.evidence({ release: '', patch: '', edition: '', architecture: '' });
  const evidence = evidenceAlong(move.asked.before, base, kinds);
  const counted = countUnits(found.units, {
    evidence,
    kinds,
    nodes: terms.nodes,
    edition: edition === ONLY ? undefined : edition
  });
  return { ...found, use: { ...found.use, units: counted } };
}
