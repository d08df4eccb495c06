import { matchesRelease, parseRange, sequenceOf } from '../version';
import type { Catalogue, Hop, Product, Source } from './schema';
import { fillHops, freeId, GUESS, type HopSentence, type SequencedRelease } from './sketch/sketch';

/** An upgrade path of which nobody has said whether there is one: from release to release. */
export interface PathAsked {
  readonly product: string;
  readonly from: string;
  readonly to: string;
}

/** What somebody says of it: straight, not at all straight, or only over these releases. */
export type PathAnswer = 'straight' | 'not straight' | { readonly over: readonly string[] };

/** Who says so, and on which day (`2026-05-01`). */
export interface SaidBy {
  readonly who?: string;
  readonly day: string;
}

/** How far releases lead, of a whole product; `isAll`: nothing else leads anywhere in place. */
export type PathRule = HopSentence & { readonly isAll?: boolean };

/** Releases an empty cell of the hop table leads to from a release, earliest first: nothing is stated of them, neither yes nor no. */
export function findOpenCells(product: Product, from: string): string[] {
  if (product.hopTable === 'complete') return [];
  const { releases, indexById } = sequenceOf(product);
  const at = indexById.get(from);
  const strand = at === undefined ? undefined : releases[at]?.strand;
  const stated = statedCells(product);
  return releases
    .filter((r, i) => at !== undefined && i > at && r.strand === strand && !stated.has(cellOf(from, r.id)))
    .map((r) => r.id);
}

/** Releases that lie between two, on their strand, in sequence. */
export function findBetween(product: Product, from: string, to: string): string[] {
  const { releases, indexById } = sequenceOf(product);
  const [first, last] = [indexById.get(from) ?? 0, indexById.get(to) ?? 0];
  return releases
    .slice(first + 1, Math.max(first + 1, last))
    .filter((r) => r.strand === releases[first]?.strand)
    .map((r) => r.id);
}

/** The catalogue with an answer in it, stated by whoever gives it. What is stated already stays as it is. */
export function answerPath(
  catalogue: Catalogue,
  { product, from, to }: PathAsked,
  answer: PathAnswer,
  by: SaidBy
): Catalogue {
  return withStatements(catalogue, product, by, (of, source) => {
    if (answer === 'straight') return withPaths(of, [[from, to]], source);
    const forbidden = withoutPath(of, [from, to], source);
    if (answer === 'not straight') return forbidden;
    const ids = [from, ...answer.over, to];
    const paths = ids.slice(1).map((id, i): Path => [ids[i] ?? from, id]);
    return withPaths(forbidden, paths, source);
  });
}

/** The catalogue with paths as a rule says them, between releases that are ordered against each other. */
export function answerPathsByRule(
  catalogue: Catalogue,
  product: string,
  rule: PathRule,
  by: SaidBy
): Catalogue {
  return withStatements(catalogue, product, by, (of, source) => {
    const filled = withPaths(of, pathsByRule(of, rule), source);
    return rule.isAll ? { ...filled, hopTable: 'complete' } : filled;
  });
}

type Path = readonly [from: string, to: string];

function pathsByRule(product: Product, rule: PathRule): Path[] {
  const strands = new Map<string, SequencedRelease[]>();
  const { releases } = sequenceOf(product);
  product.releases.forEach((release, i) => {
    const strand = releases[i]?.strand ?? '';
    strands.set(strand, [...(strands.get(strand) ?? []), sequencedOf(product, release)]);
  });
  return [...strands.values()].flatMap((list) => fillHops(list, rule).map((h): Path => [h.from, h.to]));
}

/** A release as sentences of hops speak of it: its id the label, with the days that tell which are served long. */
export function sequencedOf(product: Product, release: Product['releases'][number]): SequencedRelease {
  const service = release.service ?? product.lines?.find((l) => l.id === release.line)?.service ?? [];
  const end = (phase: string): string | undefined => service.find((p) => p.phase === phase)?.until;
  const { published } = release;
  const parts = {
    published: typeof published === 'string' ? published : published.general,
    ends: end('full'),
    security: end('security'),
    extension: end('extension')
  };
  return {
    label: release.id,
    names: [...(release.name === undefined ? [] : [release.name]), ...(release.aliases ?? [])],
    ...Object.fromEntries(Object.entries(parts).filter(([, day]) => day !== undefined))
  };
}

/** Puts what is stated of a product in, with the source of whoever states it; the very same where nothing new is. */
function withStatements(
  catalogue: Catalogue,
  id: string,
  by: SaidBy,
  state: (product: Product, source: string) => Product
): Catalogue {
  const known = catalogue.sources ?? [];
  const title = by.who === undefined ? 'Said here' : `Said by ${by.who}`;
  const same = known.find((s) => s.title === title && s.entered === by.day);
  const source: Source = same ?? {
    id: freeId(`said-${by.day}`, new Set(known.map((s) => s.id))),
    title,
    standing: 'observed',
    entered: by.day,
    ...(by.who === undefined ? {} : { enteredBy: by.who })
  };
  const products = catalogue.products.map((p) => (p.id === id ? state(p, source.id) : p));
  if (products.every((p, i) => p === catalogue.products[i])) return catalogue;
  return { ...catalogue, sources: same ? known : [...known, source], products };
}

function withPaths(product: Product, paths: readonly Path[], source: string): Product {
  const taken = new Set((product.hops ?? []).map((h) => h.id));
  const stated = statedCells(product);
  const made = paths
    .filter(([from, to]) => !stated.has(cellOf(from, to)))
    .map(([from, to]): Hop => {
      const id = freeId(`${from}-to-${to}`, taken);
      taken.add(id);
      return { id, kind: 'in place', from, to, ...GUESS['in place'], source };
    });
  return made.length === 0 ? product : { ...product, hops: [...(product.hops ?? []), ...made] };
}

function withoutPath(product: Product, [from, to]: Path, source: string): Product {
  if (statedCells(product).has(cellOf(from, to))) return product;
  const known = product.noHops ?? [];
  const id = freeId(`not-${from}-to-${to}`, new Set(known.map((c) => c.id)));
  return { ...product, noHops: [...known, { id, from, to, source }] };
}

/** Cells of which something is stated: that it goes there in place, or that it does not. */
function statedCells(product: Product): Set<string> {
  const sequence = sequenceOf(product);
  const statements = [
    ...(product.hops ?? []).filter((h) => h.kind === 'in place'),
    ...(product.noHops ?? [])
  ];
  const cells = new Set<string>();
  for (const { from, to } of statements) {
    const read = parseRange(from);
    if (!('range' in read)) continue;
    for (const { id } of sequence.releases)
      if (matchesRelease(sequence, read.range, id)) cells.add(cellOf(id, to));
  }
  return cells;
}

const cellOf = (from: string, to: string): string => JSON.stringify([from, to]);
