/**
 * The order of a product's releases. Only the declared sequence orders them; no label is read as a number.
 * Releases on a branch declared `apart` are not ordered against releases of any other branch.
 */
export interface Sequence {
  readonly releases: readonly SequenceRelease[];
  readonly indexById: ReadonlyMap<string, number>;
}

export interface SequenceRelease {
  readonly id: string;
  readonly branch: string | undefined;
  /** Releases of equal strand are ordered by their place in the list, others are unordered. */
  readonly strand: string;
  /** Patch level ids in order; the first is always `base`. */
  readonly patches: readonly string[];
}

/** A place in the sequence: a release and one of its patch levels. */
export interface Position {
  readonly release: string;
  readonly patch: string;
}

export const BASE_PATCH = 'base';
export type Comparison = -1 | 0 | 1 | 'unordered';

interface SequenceSource {
  readonly branches?: readonly { readonly id: string; readonly apart?: boolean | undefined }[] | undefined;
  readonly releases: readonly {
    readonly id: string;
    readonly branch?: string | undefined;
    readonly patches?: readonly { readonly id: string }[] | undefined;
  }[];
}

const MADE = new WeakMap<SequenceSource, Sequence>();

/** The sequence of a product as its catalogue entry declares it; made once for each product, which never changes. */
export function sequenceOf(product: SequenceSource): Sequence {
  const known = MADE.get(product);
  if (known) return known;
  const made = makeSequence(product);
  MADE.set(product, made);
  return made;
}

function makeSequence(product: SequenceSource): Sequence {
  const apart = new Set((product.branches ?? []).filter((b) => b.apart).map((b) => b.id));
  const releases = product.releases.map((r) => ({
    id: r.id,
    branch: r.branch,
    strand: r.branch !== undefined && apart.has(r.branch) ? r.branch : '',
    patches: [BASE_PATCH, ...(r.patches ?? []).map((p) => p.id)]
  }));
  return { releases, indexById: new Map(releases.map((r, i) => [r.id, i])) };
}

/** Compares two releases of one product by sequence. Unknown ids are unordered. */
export function compareReleases(sequence: Sequence, a: string, b: string): Comparison {
  const i = sequence.indexById.get(a);
  const j = sequence.indexById.get(b);
  if (i === undefined || j === undefined) return 'unordered';
  if (i === j) return 0;
  if (sequence.releases[i]?.strand !== sequence.releases[j]?.strand) return 'unordered';
  return i < j ? -1 : 1;
}

/** Compares two places: by release, then by patch level. */
export function comparePositions(sequence: Sequence, a: Position, b: Position): Comparison {
  const byRelease = compareReleases(sequence, a.release, b.release);
  if (byRelease !== 0) return byRelease;
  const i = patchIndex(sequence, a);
  const j = patchIndex(sequence, b);
  if (i < 0 || j < 0) return 'unordered';
  return i < j ? -1 : i > j ? 1 : 0;
}

/** The place of a patch level among its release's levels, 0 for the base; -1 when there is none such. */
export function patchIndex(sequence: Sequence, place: Position): number {
  const index = sequence.indexById.get(place.release);
  return index === undefined ? -1 : (sequence.releases[index]?.patches.indexOf(place.patch) ?? -1);
}

/** The edition or architecture of a product that declares none. */
export const ONLY = 'only';
