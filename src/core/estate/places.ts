import type { Product } from '../catalogue';
import { foldText, matchesRange, parseRange, sequenceOf, type Standing } from '../version';
import { findFact, statementsOf } from './facts';
import type { System } from './schema';

export type Place = NonNullable<Product['places']>[number];

/** Where a fact is read, best fitting first. */
export interface PlacesFound {
  readonly places: readonly Place[];
  /** False where version or model are not known well enough to be sure that they fit. */
  readonly sure: boolean;
}

/**
 * Where to read (or set) a fact on the version and model of a system (FIELD-NOTES N3). Places for another version or
 * model are left out; where the version or model is not known, what may fit is listed and `sure` is false.
 */
export function findPlaces(
  product: Product | undefined,
  system: System,
  fact: string,
  purpose: 'read' | 'set' = 'read'
): PlacesFound {
  const release = 'is' in system.release ? system.release.is : undefined;
  const models = statementsOf(findFact(system, 'model')).map((s) => foldText(String(s.value)));
  const places = (product?.places ?? []).filter(
    (p) =>
      p.fact === fact &&
      (p.purpose ?? 'read') === purpose &&
      fitsModel(p, models) &&
      (release === undefined || p.at === undefined || !product || fitsRelease(product, p.at, release, system))
  );
  const needsModel = places.some((p) => p.models !== undefined);
  const needsRelease = places.some((p) => p.at !== undefined);
  return {
    places,
    sure: (!needsModel || models.length === 1) && (!needsRelease || release !== undefined)
  };
}

const fitsModel = (place: Place, models: readonly string[]): boolean =>
  place.models === undefined || models.length === 0 || place.models.some((m) => models.includes(foldText(m)));

function fitsRelease(product: Product, at: string, release: string, system: System): boolean {
  const parsed = parseRange(at);
  const standing: Standing = {
    release,
    patch: 'is' in system.patch ? system.patch.is : 'base',
    edition: '',
    architecture: ''
  };
  return 'range' in parsed && matchesRange(sequenceOf(product), parsed.range, standing);
}
