import { factOfOption, factsNeededBy } from '../catalogue';
import { factsIn } from '../condition';
import type { ProductModel } from './model';

const MADE = new WeakMap<ProductModel, Map<number, ReadonlySet<string>>>();

/**
 * The facts that steps may still ask for from a release on: two ways that stand there and differ in no other may go on
 * alike. More rather than less: what is asked at no certain place counts everywhere. Cost: once a release, what the product
 * asks times its releases.
 */
export function factsAheadOf(model: ProductModel, release: number): ReadonlySet<string> {
  const made = MADE.get(model) ?? new Map<number, ReadonlySet<string>>();
  MADE.set(model, made);
  const known = made.get(release) ?? findFacts(model, release);
  made.set(release, known);
  return known;
}

function findFacts(model: ProductModel, release: number): ReadonlySet<string> {
  const { needs, rights } = model;
  const arrived = releasesAhead(model, release);
  const isAhead = (at: readonly (readonly boolean[])[]): boolean =>
    [...arrived].some((r) => at[r]?.includes(true));
  const demands = needs.demands.filter((d) => isAhead(d.at));
  const cures = demands.flatMap((d) => needs.cures.get(d.requirement.id) ?? []);
  const hops = [release, ...arrived].flatMap((r) => model.hopsFrom[r] ?? []);
  const conditions = [
    ...demands.flatMap((d) => [d.when, d.needs]),
    ...cures.flatMap((c) => [c.when, c.guard]),
    ...needs.cautions.filter((c) => isAhead(c.to)).map((c) => c.when),
    ...needs.companions.flatMap((c) => c.fares.filter((f) => isAhead(f.at)).map((f) => f.when)),
    ...[...needs.offers.values()].map((o) => o.firstTo),
    ...needs.withheld.values()
  ];
  return new Set([
    'activated',
    'model',
    ...factsIn(conditions),
    ...cures.map((c) => c.cure.fact),
    ...hops.flatMap((h) => factsNeededBy(h.hop)),
    ...[...needs.offers.values()].map((o) => `offer.${o.offer.id}`),
    ...rights.flatMap(factsOfUnits)
  ]);
}

const READERS = new WeakMap<ProductModel, ReadonlyMap<string, number>>();

/** How many of the things a product asks turn on a fact. Cost: once a product. */
export function readersOf(model: ProductModel, fact: string): number {
  const known = READERS.get(model) ?? countReaders(model);
  READERS.set(model, known);
  return known.get(fact) ?? 0;
}

function countReaders({ needs, rights, product }: ProductModel): Map<string, number> {
  const { demands, cures, cautions, companions, offers, withheld } = needs;
  const read = [
    ...demands.map((d) => factsIn([d.when, d.needs])),
    ...[...cures.values()].flat().map((c) => factsIn([c.when])),
    ...cautions.map((c) => factsIn([c.when])),
    ...companions.map((c) => factsIn(c.fares.map((f) => f.when))),
    ...[...offers.values()].map((o) => factsIn([o.firstTo])),
    ...[...withheld.values()].map((w) => factsIn([w])),
    ...(product.hops ?? []).map(factsNeededBy),
    ...rights.map(factsOfUnits)
  ];
  const count = new Map<string, number>([
    ['model', 2],
    ['activated', 2]
  ]);
  for (const fact of read.flat()) count.set(fact, (count.get(fact) ?? 0) + 1);
  return count;
}

/** The facts that say how many units a right takes. */
const factsOfUnits = ({ right: { units } }: ProductModel['rights'][number]): string[] => [
  ...(units?.fact === undefined ? [] : [units.fact]),
  ...(units?.options ?? []).map(factOfOption)
];

/** Releases that some step from one on arrives at, empty cells of a partial table among them. */
function releasesAhead(model: ProductModel, release: number): ReadonlySet<number> {
  const { releases, hopsFrom, changesAt, tableComplete } = model;
  const arrived = new Set<number>();
  const open = [release];
  for (let at = open.pop(); at !== undefined; at = open.pop()) {
    const from = at;
    const to = [
      ...(hopsFrom[from] ?? []).map((h) => h.to),
      ...((changesAt[from]?.length ?? 0) > 0 ? [from] : []),
      ...(tableComplete
        ? []
        : releases.filter((r) => r.index > from && r.strand === releases[from]?.strand).map((r) => r.index))
    ];
    for (const next of to) {
      if (arrived.has(next)) continue;
      arrived.add(next);
      open.push(next);
    }
  }
  return arrived;
}
