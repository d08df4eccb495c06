import type { DemandModel, Place, ProductModel } from '../compile';
import { truthOf, type Truth } from '../condition';
import { BASE_PATCH, matchesRange, parseRange, type Range, sequenceOf } from '../version';

/** A requirement on the release of everything linked under a word: along an order it is a pairing. */
export interface LinkedDemand {
  readonly requirement: string;
  readonly word: string;
  /** Whether it holds with a system on a place of its own and another on one of its own. */
  holds(own: Place, other: { readonly model: ProductModel; readonly place: Place }): Truth;
}

/** The blocking requirements of a product that ask of every linked system, or of the lowest, on which release it is. */
export function linkedDemandsOf(model: ProductModel): readonly LinkedDemand[] {
  const known = FOUND.get(model) ?? model.needs.demands.flatMap((d) => linkedDemandOf(d) ?? []);
  FOUND.set(model, known);
  return known;
}

const FOUND = new WeakMap<ProductModel, readonly LinkedDemand[]>();

function linkedDemandOf({ requirement, grade, at, when, needs }: DemandModel): LinkedDemand | undefined {
  if (grade !== 'blocks' || when !== undefined || needs === 'unknown' || needs.kind !== 'linked')
    return undefined;
  const { members, link, part } = needs;
  if (members === 'some' || part.kind !== 'range' || part.fact !== 'release') return undefined;
  const parsed = parseRange(part.range);
  if (!('range' in parsed)) return undefined;
  return {
    requirement: requirement.id,
    word: link,
    holds: (own, other) =>
      at[own.release]?.[own.patch] === true ? truthOf(isWithin(parsed.range, other)) : 'yes'
  };
}

function isWithin(
  range: Range,
  { model, place }: { readonly model: ProductModel; readonly place: Place }
): boolean {
  const release = model.releases[place.release];
  const position = {
    release: release?.release.id ?? '',
    patch: release?.patches[place.patch]?.id ?? BASE_PATCH
  };
  return matchesRange(sequenceOf(model.product), range, position);
}
