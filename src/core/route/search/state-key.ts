import { type DemandModel, factsAheadOf, type ProductModel, readersOf } from '../../compile';
import { factsIn, truthIn } from '../../condition';
import { type Along, evidenceAlong, keyOfFacts } from '../along';
import { isOfItself, leftByHops } from '../step/left-alone';
import type { Terms } from '../terms';

/** A demand nothing ahead can undo once it holds, with the facts that are its alone. */
interface Lasting {
  readonly demand: DemandModel;
  readonly facts: readonly string[];
}

const LASTING = new WeakMap<ProductModel, readonly Lasting[]>();

/**
 * Equal for states between which nothing ahead can tell: the facts that are still asked for - but those of a demand that
 * holds and that nothing can undo are told by that alone, however it was met. Cost: demands whose facts have changed.
 */
export function stateKeyOf(terms: Terms, along: Along, release: number): string {
  if (along.key === '/') return along.key;
  const ahead = factsAheadOf(terms.model, release);
  const met = along.nodes.length > 0 ? [] : metOf(terms, along);
  if (met.length === 0) return keyOfFacts(along, ahead);
  const told = new Set(met.flatMap((m) => m.facts));
  const facts = new Set([...ahead].filter((f) => !told.has(f)));
  const holds = met.filter((m) => m.facts.some((f) => ahead.has(f))).map((m) => nameOf(m.demand));
  return `${keyOfFacts(along, facts)} ${holds.join(' ')}`;
}

const nameOf = ({ requirement, isSite }: DemandModel): string => `${requirement.id}${isSite ? '!' : ''}`;

/** Lasting demands with changed facts that hold; one a tool has spoken of counts by what has changed since. */
function metOf({ model, asking }: Terms, along: Along): Lasting[] {
  const { kinds } = model.needs;
  const evidence = evidenceAlong(along, asking.evidence(NOWHERE), kinds);
  return lastingOf(model).filter(
    ({ demand, facts }) =>
      !asking.checked.requirements.has(demand.requirement.id) &&
      facts.some((f) => along.facts.has(f)) &&
      demand.needs !== 'unknown' &&
      truthIn(demand.needs, evidence, kinds) === 'yes'
  );
}

const NOWHERE = { release: '', patch: '', edition: '', architecture: '' };

function lastingOf(model: ProductModel): readonly Lasting[] {
  const known = LASTING.get(model) ?? findLasting(model);
  LASTING.set(model, known);
  return known;
}

function findLasting(model: ProductModel): Lasting[] {
  const { needs } = model;
  const isLeft = leftByHops(model);
  const cures = [...needs.cures.values()].flat();
  const isQuiet = (fact: string, requirement: string): boolean =>
    isLeft(fact) &&
    readersOf(model, fact) <= 1 &&
    cures.every((c) => c.cure.fact !== fact || c.requirement === requirement);
  return needs.demands.flatMap((demand) => {
    const { needs: needed, when, requirement } = demand;
    if (needed === 'unknown' || when === 'unknown') return [];
    if (![needed, ...(when ? [when] : [])].every(isOfItself)) return [];
    const facts = factsIn([needed, when]);
    return facts.every((f) => isQuiet(f, requirement.id)) ? [{ demand, facts }] : [];
  });
}
