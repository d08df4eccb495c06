import { askWith, type AskedStep } from './ask-clauses';
import { type CureModel, idsOfPlace, type Place } from '../../compile';
import type { AskedClause } from '../asked';
import { listOpenings, openingAt } from '../move';
import type { Terms } from '../terms';
import { isCounted, type Step } from '../types';
import type { Standing } from '../../version';

/** A counted step of a route as it is asked, with the cures done before it. */
export interface Replayed {
  readonly step: AskedStep;
  readonly cures: readonly CureModel[];
}

/**
 * The counted steps of a route again, with the facts as they then are, from its steps alone. Steps the catalogue no longer
 * has are left out. Cost: one asking a step.
 */
export function replay(terms: Terms, start: Place, steps: readonly Step[]): Replayed[] {
  const found: Replayed[] = [];
  let along = terms.along;
  let at = start;
  let cures: CureModel[] = [];
  for (const step of steps) {
    if (step.kind === 'cure') {
      const cure = terms.model.needs.cures.get(step.requirement)?.find((c) => c.cure.id === step.id);
      if (cure) cures.push(cure);
    }
    if (!isCounted(step)) continue;
    const level = levelOf(terms, at, step.from);
    const open = listOpenings(terms.model, at, true).find(
      (o) => o.kind === step.kind && o.id === step.id && isSame(idsOfPlace(terms, o.to), step.to)
    );
    if (!open) continue;
    const opening = openingAt(open, level);
    const asked: AskedStep = { opening, level, along };
    found.push({ step: asked, cures });
    along = askWith(terms, asked, cures, { run: 'sure', met: new Set() }).after;
    at = opening.to;
    cures = [];
  }
  return found;
}

const levelOf = ({ model }: Terms, at: Place, { patch }: Standing): number =>
  Math.max(at.patch, model.releases[at.release]?.patches.findIndex((p) => p.id === patch) ?? 0);

const isSame = (a: Standing, b: Standing): boolean =>
  a.release === b.release && a.edition === b.edition && a.architecture === b.architecture;

/** Every clause a step asks with these cures, as it comes out on these facts: what reasons, marks and questions are told by. */
export function clausesOf(
  terms: Terms,
  step: AskedStep,
  cures: readonly CureModel[] = []
): readonly AskedClause[] {
  const clauses: AskedClause[] = [];
  askWith(terms, step, cures, { run: 'sure', met: new Set(), clauses });
  return clauses;
}
