import type { DemandModel, ProductModel } from '../../compile';
import type { PlaceTable } from '../../version';
import { collapse, factsIn, type Run, type Truth } from '../../condition';
import { cautionKeyOf, isClosing, riskKeyOf, truthAtStart } from './ask-demand';
import { isOfItself, leftByHops } from './left-alone';
import type { Terms } from '../terms';

/**
 * By release: whether no hop of any way arrives there in either run, since something it demands of whatever arrives is not so, and no
 * step and no cure of any way ever changes what that turns on. None where clauses are lifted. Cost: once a system and what is
 * known of it beforehand, the demands of that kind.
 */
export const shutFor = (terms: Terms): readonly boolean[] =>
  terms.lifted.size > 0 ? NONE : beforehand(terms).shut;

/** A risk that every hop takes which arrives where it lies, whatever way it comes. */
export interface StandingRisk {
  readonly key: string;
  /** By release. */
  readonly at: readonly boolean[];
}

/** The standing risks of a system in a run: cautions for everybody, and what is demanded with a lower grade and is not so, or may not be. */
export function standingRisks(terms: Terms, run: Run): readonly StandingRisk[] {
  if (terms.lifted.size + terms.learned.size > 0) return NO_RISKS;
  const { cautions, failing } = beforehand(terms);
  const risked = failing.filter(
    ({ demand, truth }) => !isClosing(demand.grade) && !collapse(truth, run, 'demand')
  );
  return risked.length === 0
    ? cautions
    : [...cautions, ...risked.map(({ demand }) => ({ key: riskKeyOf(demand), at: wholeOf(demand.at) }))];
}

/**
 * By release: how many clauses at least do not hold in the sure run where a way arrives there, whatever way it is: what is demanded there and
 * is not so, or may not be. Undefined where clauses are lifted or learned.
 */
export function faultsOn(terms: Terms): readonly number[] | undefined {
  if (terms.lifted.size + terms.learned.size > 0) return undefined;
  const { failing } = beforehand(terms);
  const closing = failing
    .filter(({ demand }) => isClosing(demand.grade))
    .map(({ demand }) => wholeOf(demand.at));
  return terms.model.releases.map((_, release) => closing.filter((at) => at[release]).length);
}

const NONE: readonly boolean[] = [];
const NO_RISKS: readonly StandingRisk[] = [];

/** What stands beforehand, whatever way is taken. */
interface Beforehand {
  readonly shut: readonly boolean[];
  /** Cautions that hit whatever arrives. */
  readonly cautions: readonly StandingRisk[];
  /** Standing demands that are not so, or may not be. */
  readonly failing: readonly { readonly demand: DemandModel; readonly truth: Truth }[];
}

/** By what belongs to what is known of a system, then by what its way begins with. */
const MADE = new WeakMap<Terms['memo'], Map<string, Beforehand>>();

function beforehand(terms: Terms): Beforehand {
  let made = MADE.get(terms.memo);
  if (!made) MADE.set(terms.memo, (made = new Map()));
  let known = made.get(terms.along.key);
  if (!known) made.set(terms.along.key, (known = findBeforehand(terms)));
  return known;
}

function findBeforehand(terms: Terms): Beforehand {
  const { model, asking } = terms;
  const failing = standingOf(model).flatMap((demand) => {
    if (asking.checked.requirements.has(demand.requirement.id)) return [];
    const truth = truthAtStart(terms, demand);
    return truth === undefined || truth === 'yes' ? [] : [{ demand, truth }];
  });
  const closing = failing.filter(({ demand, truth }) => truth === 'no' && isClosing(demand.grade));
  const walls = closing.map(({ demand }) => wholeOf(demand.at));
  const cautions = model.needs.cautions
    .filter(
      ({ caution, from, when }) => !from && when === undefined && !asking.decided.ignored.has(caution.id)
    )
    .map(({ caution, to }) => ({ key: cautionKeyOf(caution.id), at: wholeOf(to) }));
  return {
    shut: walls.length === 0 ? NONE : model.releases.map((_, i) => walls.some((at) => at[i])),
    cautions,
    failing
  };
}

/** By release, whether it lies in a table with every level. */
const wholeOf = (at: PlaceTable): boolean[] => at.map((levels) => levels.every((is) => is));

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
  return model.needs.demands.filter(({ requirement: { methods, editions, hops }, needs, when }) => {
    if (methods || editions || hops) return false;
    if (needs === 'unknown' || when === 'unknown') return false;
    const conditions = [needs, ...(when ? [when] : [])];
    return conditions.every(isOfItself) && factsIn(conditions).every((f) => isLeft(f) && !cured.has(f));
  });
}
