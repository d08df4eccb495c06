import { compareText } from '../kit';
import { compareReleases, sequenceOf } from '../version';
import type { Product } from './schema';

/** A release in one of its editions. */
interface InEdition {
  readonly release: string;
  readonly edition: string;
}

/** Features one has beyond the other; a lost one with what takes its place, where that is told. */
export interface FeatureDifference {
  readonly gained: readonly string[];
  readonly lost: readonly { readonly name: string; readonly instead?: string }[];
}

/**
 * What a move from one release and edition to another gains and loses: features that releases on the way bring or drop, in
 * the edition arrived at, and those one edition has and the other has not. Names as the catalogue has them, sorted.
 */
export function findFeatureDifference(product: Product, from: InEdition, to: InEdition): FeatureDifference {
  const sequence = sequenceOf(product);
  const between = product.releases.filter(
    (r) =>
      compareReleases(sequence, r.id, from.release) === 1 &&
      (r.id === to.release || compareReleases(sequence, r.id, to.release) === -1)
  );
  const gained = new Set<string>();
  const lost = new Map<string, string | undefined>();
  for (const release of between) {
    for (const id of release.gains ?? []) {
      gained.add(id);
      lost.delete(id);
    }
    for (const { feature, instead, editions } of release.loses ?? []) {
      if (editions && !editions.includes(to.edition)) continue;
      lost.set(feature, instead);
      gained.delete(feature);
    }
  }
  const featuresOf = (edition: string): readonly string[] =>
    product.editions?.find((e) => e.id === edition)?.features ?? [];
  const [had, has] = [featuresOf(from.edition), featuresOf(to.edition)];
  const nameOf = (id: string): string => product.features?.find((f) => f.id === id)?.name ?? id;
  return {
    gained: [...gained]
      .map(nameOf)
      .concat(has.filter((f) => !had.includes(f)))
      .sort(),
    lost: [...lost]
      .map(([id, instead]) => ({ name: nameOf(id), ...(instead === undefined ? {} : { instead }) }))
      .concat(had.filter((f) => !has.includes(f)).map((name) => ({ name })))
      .sort((a, b) => compareText(a.name, b.name))
  };
}
