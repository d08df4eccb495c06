import { checkCondition, comparisonsOf, type FactKinds, linkedRangesOf, parseCondition } from '../condition';
import type { Issue } from '../kit';
import { BASE_PATCH, parseRange, patchIndex, placesOf, type Sequence, sequenceOf } from '../version';
import type { Product } from './schema';

type Path = readonly (string | number)[];
type Kind = 'edition' | 'architecture' | 'line' | 'branch' | 'feature' | 'hop' | 'caution';

/** What a product's entries may name beyond the product itself. */
export interface CatalogueNames {
  readonly kinds: FactKinds;
  readonly lists: ReadonlySet<string>;
  /** Sequences of all products, for ranges across a pairing. */
  readonly sequences: ReadonlyMap<string, Sequence>;
}

/** Gathers what one product's entries name and there is none of. Every method but `issues` adds at a path below the product. */
export class ReferenceCheck {
  readonly issues: Issue[] = [];
  readonly #ids: Record<Kind, ReadonlySet<string>>;
  readonly #sequence: Sequence;
  readonly #names: CatalogueNames;
  readonly #path: Path;

  constructor(product: Product, path: Path, names: CatalogueNames) {
    const ids = (list: readonly { id: string }[] | undefined): Set<string> =>
      new Set((list ?? []).map((e) => e.id));
    this.#path = path;
    this.#names = names;
    this.#sequence = sequenceOf(product);
    this.#ids = {
      edition: ids(product.editions),
      architecture: ids(product.architectures),
      line: ids(product.lines),
      branch: ids(product.branches),
      feature: ids(product.features),
      hop: ids(product.hops),
      caution: ids(product.cautions)
    };
  }

  add(code: string, detail: string, at: Path): void {
    this.issues.push({ code, detail, path: [...this.#path, ...at] });
  }

  oneOf(kind: Kind, id: string | undefined, at: Path): void {
    if (id !== undefined && !this.#ids[kind].has(id)) this.add(`no-such-${kind}`, id, at);
  }

  each(kind: Kind, ids: readonly string[] | undefined, at: Path): void {
    ids?.forEach((id, i) => this.oneOf(kind, id, [...at, i]));
  }

  place(release: string, patch: string, at: Path, sequence = this.#sequence): void {
    if (patchIndex(sequence, { release, patch }) < 0)
      this.add('no-such-release', patch === BASE_PATCH ? release : `${release}/${patch}`, at);
  }

  /** A range over this product's sequence, or another's. */
  range(text: string | undefined, at: Path, of?: string): void {
    const sequence = of === undefined ? this.#sequence : this.#names.sequences.get(of);
    const parsed = text === undefined || text === 'unknown' ? undefined : parseRange(text);
    if (!sequence || !parsed || !('range' in parsed)) return;
    for (const end of placesOf(parsed.range)) this.place(end.release, end.patch ?? BASE_PATCH, at, sequence);
    if (of === undefined) for (const { branch } of parsed.range.parts) this.oneOf('branch', branch, at);
  }

  product(id: string, at: Path): void {
    if (!this.#names.sequences.has(id)) this.add('no-such-product', id, at);
  }

  fact(id: string, at: Path): void {
    if (!this.#names.kinds.find(id)) this.add('no-such-fact', id, at);
  }

  condition(text: string | undefined, at: Path): void {
    const parsed = text === undefined || text === 'unknown' ? undefined : parseCondition(text);
    if (!parsed || !('condition' in parsed)) return;
    for (const { code, detail } of checkCondition(parsed.condition, this.#names.kinds, this.#names.lists))
      this.add(code, detail, at);
    const across = linkedRangesOf(parsed.condition);
    const ranges = comparisonsOf(parsed.condition).flatMap((c) => (c.kind === 'range' ? [c.range] : []));
    for (const range of ranges)
      if (across.some((a) => a.range === range)) this.#rangeOfAny(range, at);
      else this.range(range, at);
  }

  /** A range over the releases of whatever a link leads to: some product has all its places. */
  #rangeOfAny(text: string, at: Path): void {
    const parsed = parseRange(text);
    const places = 'range' in parsed ? placesOf(parsed.range) : [];
    const isKnown = [...this.#names.sequences.values()].some((sequence) =>
      places.every(({ release, patch }) => patchIndex(sequence, { release, patch: patch ?? BASE_PATCH }) >= 0)
    );
    if (!isKnown) this.add('no-such-release', text, at);
  }

  table(kind: Kind, table: Readonly<Record<string, string | readonly string[]>> | undefined, at: Path): void {
    for (const [from, to] of Object.entries(table ?? {}))
      for (const id of [from, ...(typeof to === 'string' ? [to] : to)]) this.oneOf(kind, id, [...at, from]);
  }
}
