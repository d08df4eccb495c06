import {
  BASE_PATCH,
  matchesRelease,
  ONLY,
  parseRange,
  type PlaceTable,
  type Range,
  type Sequence,
  sequenceOf,
  tabulateRange
} from '../version';
import {
  type DateInterval,
  findCountedPhase,
  findServiceEnd,
  type MaybeDay,
  parseDateText,
  type PhaseName,
  readDay,
  type ServicePhase
} from '../date';
import { needModelOf, type Shared, type NeedModel } from './need-model';
import {
  type EditionChange,
  type Hop,
  MATURITIES,
  type Maturity,
  type Patch,
  type Product,
  type Release,
  type Right
} from '../catalogue';

/** A product made ready for planning: ids become list places, dates and ranges are read once. */
export interface ProductModel {
  readonly product: Product;
  readonly sequence: Sequence;
  readonly releases: readonly ReleaseModel[];
  readonly editions: readonly string[];
  readonly architectures: readonly string[];
  /** `richer[a][b]`: edition b has every feature of a and at least one more, as far as both state theirs. */
  readonly richer: readonly (readonly boolean[])[];
  /** Hops by the place of the release they lead from, sorted by id. */
  readonly hopsFrom: readonly (readonly HopModel[])[];
  readonly changesAt: readonly (readonly ChangeModel[])[];
  readonly rights: readonly RightModel[];
  /** Some right takes days to come. */
  readonly hasRightLeads: boolean;
  readonly tableComplete: boolean;
  /** Empty cells that are known to be forbidden; see `isForbidden`. */
  readonly forbidden: ReadonlySet<number>;
  /** Some branch stands apart, so releases may be unordered. */
  readonly hasStrands: boolean;
  readonly needs: NeedModel;
  /** Fresh installs that lead from nothing too; sorted by id. */
  readonly hopsFromNothing: readonly HopModel[];
}

export interface ReleaseModel {
  readonly release: Release;
  readonly index: number;
  readonly strand: string;
  readonly publication: Readonly<Partial<Record<Maturity, DateInterval>>>;
  readonly service: readonly PhaseModel[];
  readonly patches: readonly PatchModel[];
  /** Places of the editions and architectures it comes in. */
  readonly editions: readonly number[];
  readonly architectures: readonly number[];
}

/** A phase of service; `isDisputed`: its end is stated in several ways and nobody has ruled, so the earliest counts. */
export interface PhaseModel extends ServicePhase {
  readonly source?: string | undefined;
  readonly isDisputed: boolean;
}

export interface PatchModel {
  readonly id: string;
  readonly patch?: Patch;
  readonly published?: DateInterval;
  readonly until?: DateInterval;
  readonly typicalMinutes: number;
  readonly carefulMinutes: number;
}

export interface HopModel {
  readonly hop: Hop;
  readonly to: number;
  readonly arrives: number;
  /** Per edition or architecture left, the places of those it may arrive in. */
  readonly editions: readonly (readonly number[])[];
  readonly architectures: readonly (readonly number[])[];
  readonly levels?: PlaceTable;
  readonly opens?: DateInterval;
  readonly closes?: DateInterval;
}

export interface ChangeModel {
  readonly change: EditionChange;
  readonly from: number;
  readonly to: number;
  readonly at: PlaceTable;
  readonly opens?: DateInterval;
  readonly closes?: DateInterval;
}

export interface RightModel {
  readonly right: Right;
  readonly from?: PlaceTable;
  readonly to?: PlaceTable;
  readonly until?: DateInterval;
}

/**
 * Builds the model of a checked product; `shared` is what its catalogue declares for all. Throws on text the schema would
 * have refused: that is a bug.
 */
export function modelOf(product: Product, shared?: Shared): ProductModel {
  const sequence = sequenceOf(product);
  const editions = product.editions?.map((e) => e.id) ?? [ONLY];
  const architectures = product.architectures?.map((a) => a.id) ?? [ONLY];
  const releases = product.releases.map((release, index) =>
    releaseModel(product, release, index, { sequence, editions, architectures })
  );
  const scope = { sequence, editions, architectures, releases };
  const hops = [...(product.hops ?? [])].sort(byId).map((hop) => hopModel(hop, scope));
  const ranges = hops.map((h) => rangeOf(h.hop.from));
  const changes = [...(product.editionChanges ?? [])].sort(byId).map((change) => changeModel(change, scope));
  return {
    product,
    ...scope,
    richer: richerEditions(product, editions),
    hopsFrom: releases.map((r) =>
      hops.filter((_, i) => matchesRelease(sequence, ranges[i] as Range, r.release.id))
    ),
    changesAt: releases.map((r) => changes.filter((c) => c.at[r.index]?.includes(true))),
    rights: [...(product.rights ?? [])].sort(byId).map((right) => rightModel(right, sequence)),
    hasRightLeads: (product.rights ?? []).some((r) => r.leadDays),
    tableComplete: product.hopTable === 'complete',
    forbidden: forbiddenCells(product, sequence),
    hasStrands: new Set(releases.map((r) => r.strand)).size > 1,
    needs: needModelOf(product, sequence, shared),
    hopsFromNothing: hops.filter((h) => leadsFromNothing(h, releases, sequence))
  };
}

/** A fresh install that every earlier release may take leads from nothing too: there is still less in its way. */
function leadsFromNothing(
  { hop, to }: HopModel,
  releases: readonly ReleaseModel[],
  sequence: Sequence
): boolean {
  const range = rangeOf(hop.from);
  const earlier = releases.filter((r) => r.index < to && r.strand === releases[to]?.strand);
  return hop.kind === 'fresh install' && earlier.every((r) => matchesRelease(sequence, range, r.release.id));
}

/** Whether an empty cell, by the places of its releases, is known to be forbidden. */
export const isForbidden = ({ forbidden, releases }: ProductModel, from: number, to: number): boolean =>
  forbidden.has(from * releases.length + to);

function forbiddenCells(product: Product, sequence: Sequence): ReadonlySet<number> {
  const cells = new Set<number>();
  for (const cell of product.noHops ?? []) {
    const range = rangeOf(cell.from);
    const to = sequence.indexById.get(cell.to) ?? -1;
    sequence.releases.forEach((r, from) => {
      if (matchesRelease(sequence, range, r.id)) cells.add(from * sequence.releases.length + to);
    });
  }
  return cells;
}

interface Scope {
  readonly sequence: Sequence;
  readonly editions: readonly string[];
  readonly architectures: readonly string[];
}

function releaseModel(product: Product, release: Release, index: number, scope: Scope): ReleaseModel {
  const service = release.service ?? product.lines?.find((l) => l.id === release.line)?.service ?? [];
  const stated = typeof release.published === 'string' ? { general: release.published } : release.published;
  const publication: Partial<Record<Maturity, DateInterval>> = {};
  for (const maturity of MATURITIES) {
    const day = stated[maturity];
    if (day !== undefined) publication[maturity] = dateOf(day);
  }
  return {
    release,
    index,
    strand: scope.sequence.releases[index]?.strand ?? '',
    publication,
    service: service.map((p) => ({
      phase: p.phase,
      until: dateOf(p.until),
      source: p.source,
      isDisputed: (p.also ?? []).some((a) => a.until !== undefined && a.until !== p.until)
    })),
    patches: [
      { id: BASE_PATCH, typicalMinutes: 0, carefulMinutes: 0 },
      ...(release.patches ?? []).map(patchModel)
    ],
    editions: placesIn(scope.editions, release.editions),
    architectures: placesIn(scope.architectures, release.architectures)
  };
}

const patchModel = (patch: Patch): PatchModel => ({
  id: patch.id,
  patch,
  published: dateOf(patch.published),
  ...(patch.until === undefined ? {} : { until: dateOf(patch.until) }),
  typicalMinutes: patch.typicalMinutes ?? 0,
  carefulMinutes: patch.carefulMinutes ?? patch.typicalMinutes ?? 0
});

function hopModel(hop: Hop, scope: Scope & { releases: readonly ReleaseModel[] }): HopModel {
  const to = scope.sequence.indexById.get(hop.to) ?? 0;
  const release = scope.releases[to] as ReleaseModel;
  const fresh = hop.kind === 'fresh install';
  const within = (rows: number[][], allowed: readonly number[]): number[][] =>
    rows.map((row) => row.filter((i) => allowed.includes(i)));
  return {
    hop,
    to,
    arrives: Math.max(
      0,
      release.patches.findIndex((p) => p.id === (hop.arrives ?? BASE_PATCH))
    ),
    editions: within(tableRows(scope.editions, hop.editions, false), release.editions),
    architectures: within(tableRows(scope.architectures, hop.architectures, fresh), release.architectures),
    ...(hop.levels === undefined || hop.levels === 'unknown'
      ? {}
      : { levels: tabulateRange(scope.sequence, rangeOf(hop.levels)) }),
    ...openDays(hop)
  };
}

/** Without a table every id leads to itself, or - fresh installs on architectures - to all. */
function tableRows(ids: readonly string[], table: Hop['editions'], freeWithout: boolean): number[][] {
  return ids.map((id, i) => {
    if (!table) return freeWithout ? ids.map((_, j) => j) : [i];
    const to = Object.hasOwn(table, id) ? table[id] : undefined;
    return placesIn(ids, typeof to === 'string' ? [to] : (to ?? []));
  });
}

const changeModel = (change: EditionChange, { sequence, editions }: Scope): ChangeModel => ({
  change,
  from: editions.indexOf(change.from),
  to: editions.indexOf(change.to),
  at: tabulateRange(sequence, rangeOf(change.at)),
  ...openDays(change)
});

const openDays = (entry: {
  opens?: string | undefined;
  closes?: string | undefined;
}): { opens?: DateInterval; closes?: DateInterval } => ({
  ...(entry.opens === undefined ? {} : { opens: dateOf(entry.opens) }),
  ...(entry.closes === undefined ? {} : { closes: dateOf(entry.closes) })
});

const rightModel = (right: Right, sequence: Sequence): RightModel => ({
  right,
  ...(right.from === undefined ? {} : { from: tabulateRange(sequence, rangeOf(right.from)) }),
  ...(right.to === undefined ? {} : { to: tabulateRange(sequence, rangeOf(right.to)) }),
  ...(right.until === undefined ? {} : { until: dateOf(right.until) })
});

function richerEditions(product: Product, editions: readonly string[]): boolean[][] {
  const stated = editions.map((id) => product.editions?.find((e) => e.id === id)?.features);
  const features = stated.map((f) => f && new Set(f));
  return features.map((a) =>
    features.map((b) => !a || !b || (b.size > a.size && [...a].every((f) => b.has(f))))
  );
}

const placesIn = (ids: readonly string[], chosen: readonly string[] | undefined): number[] =>
  chosen === undefined
    ? ids.map((_, i) => i)
    : [...new Set(chosen)]
        .map((id) => ids.indexOf(id))
        .filter((i) => i >= 0)
        .sort((a, b) => a - b);

const byId = (a: { readonly id: string }, b: { readonly id: string }): number =>
  a.id < b.id ? -1 : a.id > b.id ? 1 : 0;

function dateOf(text: string): DateInterval {
  const date = parseDateText(text);
  if (!date) throw new Error(`not a date: ${text}`);
  return date;
}

function rangeOf(text: string): Range {
  const parsed = parseRange(text);
  if (!('range' in parsed)) throw new Error(`not a range: ${text}`);
  return parsed.range;
}

/** The day a release counts as published for the maturities allowed; undefined when it comes in none of them. */
export function findPublication(
  release: ReleaseModel,
  maturities: readonly Maturity[],
  countsExpected: boolean
): { readonly day: MaybeDay; readonly maturity: Maturity } | undefined {
  let found: { day: MaybeDay; maturity: Maturity } | undefined;
  for (const maturity of MATURITIES) {
    const date = maturities.includes(maturity) ? release.publication[maturity] : undefined;
    if (!date) continue;
    const day = readDay(date, countsExpected);
    if (!found || (day !== 'unknown' && (found.day === 'unknown' || day < found.day)))
      found = { day, maturity };
  }
  return found;
}

/** End of the phase that counts, with the phase itself for its source and certainty. */
export const serviceEndOf = (release: ReleaseModel, counted: PhaseName, countsExpected: boolean): MaybeDay =>
  findServiceEnd(release.service, counted, countsExpected);

/** The phase of a release that a goal counting this one goes by; undefined where none is stated. */
export const countedPhaseOf = (release: ReleaseModel, counted: PhaseName): PhaseModel | undefined =>
  findCountedPhase(release.service, counted);
