import type { DemandModel, ProductModel } from '../../compile';
import { factsIn } from '../../condition';
import type { Asking } from '../../bind';
import { failsFromStart, isClosing } from './ask-demand';
import { isOfItself, leftByHops } from './left-alone';
import type { Terms } from '../terms';

/**
 * By release: whether no hop of any way arrives there in either run, since something it demands of whatever arrives is not so, and no
 * step and no cure of any way ever changes what that turns on. None where clauses are lifted. Cost: once a system and what is
 * known of it beforehand, the demands of that kind.
 */
export function shutFor(terms: Terms): readonly boolean[] {
  if (terms.lifted.size > 0) return NONE;
  const made = MADE.get(terms.asking) ?? new Map<string, readonly boolean[]>();
  MADE.set(terms.asking, made);
  const known = made.get(terms.along.key) ?? findShut(terms);
  made.set(terms.along.key, known);
  return known;
}

const NONE: readonly boolean[] = [];

/** By what is known of a system, then by what its way begins with. */
const MADE = new WeakMap<Asking, Map<string, readonly boolean[]>>();

function findShut(terms: Terms): readonly boolean[] {
  const failing = standingOf(terms.model).filter(
    (d) => !terms.asking.checked.requirements.has(d.requirement.id) && failsFromStart(terms, d)
  );
  if (failing.length === 0) return NONE;
  return terms.model.releases.map(({ index }) =>
    failing.some((d) => d.at[index]?.every((binds) => binds) === true)
  );
}

/** Demands that bind whatever arrives, and that nothing on any way changes. */
function standingOf(model: ProductModel): readonly DemandModel[] {
  const known = STANDING.get(model) ?? findStanding(model);
  STANDING.set(model, known);
  return known;
}

const STANDING = new WeakMap<ProductModel, readonly DemandModel[]>();

function findStanding(model: ProductModel): DemandModel[] {
  const isLeft = leftByHops(model);
  const cured = new Set([...model.needs.cures.values()].flat().map((c) => c.cure.fact));
  return model.needs.demands.filter(({ requirement: { methods, editions, hops }, grade, needs, when }) => {
    if (methods || editions || hops || !isClosing(grade)) return false;
    if (needs === 'unknown' || when === 'unknown') return false;
    const conditions = [needs, ...(when ? [when] : [])];
    return conditions.every(isOfItself) && factsIn(conditions).every((f) => isLeft(f) && !cured.has(f));
  });
}
