import type { PairingModel, Place, ProductModel } from '../compile';
import { type Truth, truthOf } from '../condition';
import { BASE_PATCH, matchesRange, sequenceOf } from '../version';

/** A place of a product. */
interface PlaceIn {
  readonly model: ProductModel;
  readonly place: Place;
}

/**
 * Whether a release of one product and one of a linked system may be together, as a pairing of the first says: a line of
 * `fits` has both, or they are at most so many releases of one product apart. A release in no line is unknown in a partial
 * table, not allowed in a complete one; releases on branches apart are unknown.
 */
export function fitsTogether(
  { pairing, fits }: PairingModel,
  { model: own, place: arrival }: PlaceIn,
  { model: other, place }: PlaceIn
): Truth {
  const { apart, table } = pairing;
  const there = other.releases[place.release];
  if (apart !== undefined) {
    const here = own.releases[arrival.release];
    if (own.product.id !== other.product.id || here?.strand !== there?.strand) return 'unknown';
    return truthOf(Math.abs(arrival.release - place.release) <= apart);
  }
  const sequence = sequenceOf(other.product);
  const position = {
    release: there?.release.id ?? '',
    patch: there?.patches[place.patch]?.id ?? BASE_PATCH
  };
  const lines = fits.filter((f) => f.own[arrival.release]?.[arrival.patch] === true);
  if (lines.some((f) => matchesRange(sequence, f.other, position))) return 'yes';
  const isNamed = lines.length > 0 && fits.some((f) => matchesRange(sequence, f.other, position));
  return table === 'complete' || isNamed ? 'no' : 'unknown';
}
