import type { Issue } from '../issue';
import { parseRange, placesOf } from '../version/range';
import { BASE_PATCH, patchIndex, sequenceOf } from '../version/sequence';
import type { Catalogue, Product } from './schema';

type Path = readonly (string | number)[];

/** What a catalogue names must exist: ids are unique, every reference leads somewhere. In file order. */
export function checkCatalogue(catalogue: Catalogue): Issue[] {
  const sources = new Set((catalogue.sources ?? []).map((s) => s.id));
  const issues: Issue[] = [
    ...findDuplicates(catalogue.sources ?? [], ['sources']),
    ...findDuplicates(catalogue.products, ['products'])
  ];
  catalogue.products.forEach((product, i) => issues.push(...checkProduct(product, ['products', i])));
  issues.push(...findMissingSources(catalogue, sources));
  return issues;
}

function findDuplicates(entries: readonly { readonly id: string }[], path: Path): Issue[] {
  const seen = new Set<string>();
  return entries.flatMap(({ id }, i) => {
    if (seen.has(id)) return [{ code: 'duplicate-id', detail: id, path: [...path, i, 'id'] }];
    seen.add(id);
    return [];
  });
}

/** Checks the references of one product; `path` leads to it in the file. */
function checkProduct(product: Product, path: Path): Issue[] {
  const lists = [
    'editions',
    'architectures',
    'branches',
    'lines',
    'releases',
    'hops',
    'editionChanges',
    'rights'
  ] as const;
  const issues = lists.flatMap((list) => findDuplicates(product[list] ?? [], [...path, list]));
  const check = new ReferenceCheck(product, path);
  product.releases.forEach((release, i) => {
    const at = ['releases', i];
    issues.push(...findDuplicates(release.patches ?? [], [...path, ...at, 'patches']));
    check.oneOf('line', release.line, [...at, 'line']);
    check.oneOf('branch', release.branch, [...at, 'branch']);
    release.editions?.forEach((e, j) => check.oneOf('edition', e, [...at, 'editions', j]));
    release.architectures?.forEach((a, j) => check.oneOf('architecture', a, [...at, 'architectures', j]));
  });
  (product.editions ?? []).forEach((e, i) =>
    check.oneOf('edition', e.successor, ['editions', i, 'successor'])
  );
  checkHops(product, check);
  checkRights(product, check);
  return [...issues, ...check.issues, ...findSuccessorLoops(product, path)];
}

function checkHops(product: Product, check: ReferenceCheck): void {
  (product.hops ?? []).forEach((hop, i) => {
    const at = ['hops', i];
    check.range(hop.from, [...at, 'from']);
    check.range(hop.levels, [...at, 'levels']);
    check.place(hop.to, hop.arrives ?? BASE_PATCH, [...at, hop.arrives ? 'arrives' : 'to']);
    check.table('edition', hop.editions, [...at, 'editions']);
    check.table('architecture', hop.architectures, [...at, 'architectures']);
    if (hop.kind === 'in place' && hop.architectures)
      check.add('crosses-architecture', '', [...at, 'architectures']);
    if (typeof hop.containedBy === 'object')
      for (const [place, release] of Object.entries(hop.containedBy)) {
        const [from = '', patch = ''] = place.split('/');
        check.place(from, patch, [...at, 'containedBy', place]);
        check.place(release, BASE_PATCH, [...at, 'containedBy', place]);
      }
  });
  (product.editionChanges ?? []).forEach((change, i) => {
    check.range(change.at, ['editionChanges', i, 'at']);
    check.oneOf('edition', change.from, ['editionChanges', i, 'from']);
    check.oneOf('edition', change.to, ['editionChanges', i, 'to']);
  });
}

function checkRights(product: Product, check: ReferenceCheck): void {
  (product.rights ?? []).forEach((right, i) => {
    const at = ['rights', i];
    check.range(right.from, [...at, 'from']);
    check.range(right.to, [...at, 'to']);
    right.fromEditions?.forEach((e, j) => check.oneOf('edition', e, [...at, 'fromEditions', j]));
    right.toEditions?.forEach((e, j) => check.oneOf('edition', e, [...at, 'toEditions', j]));
    if (right.kind === 'purchase' && right.priceCents === undefined) check.add('price-missing', right.id, at);
  });
}

type Kind = 'edition' | 'architecture' | 'line' | 'branch';

class ReferenceCheck {
  readonly issues: Issue[] = [];
  readonly #ids: Record<Kind, ReadonlySet<string>>;
  readonly #sequence;
  readonly #path: Path;

  constructor(product: Product, path: Path) {
    const ids = (list: readonly { id: string }[] | undefined): Set<string> =>
      new Set((list ?? []).map((e) => e.id));
    this.#path = path;
    this.#sequence = sequenceOf(product);
    this.#ids = {
      edition: ids(product.editions),
      architecture: ids(product.architectures),
      line: ids(product.lines),
      branch: ids(product.branches)
    };
  }

  add(code: string, detail: string, at: Path): void {
    this.issues.push({ code, detail, path: [...this.#path, ...at] });
  }

  oneOf(kind: Kind, id: string | undefined, at: Path): void {
    if (id !== undefined && !this.#ids[kind].has(id)) this.add(`no-such-${kind}`, id, at);
  }

  place(release: string, patch: string, at: Path): void {
    if (patchIndex(this.#sequence, { release, patch }) < 0)
      this.add('no-such-release', patch === BASE_PATCH ? release : `${release}/${patch}`, at);
  }

  range(text: string | undefined, at: Path): void {
    const parsed = text === undefined ? undefined : parseRange(text);
    if (!parsed || !('range' in parsed)) return;
    for (const end of placesOf(parsed.range)) this.place(end.release, end.patch ?? BASE_PATCH, at);
    for (const { branch } of parsed.range.parts) this.oneOf('branch', branch, at);
  }

  table(kind: Kind, table: Readonly<Record<string, string | readonly string[]>> | undefined, at: Path): void {
    for (const [from, to] of Object.entries(table ?? {}))
      for (const id of [from, ...(typeof to === 'string' ? [to] : to)]) this.oneOf(kind, id, [...at, from]);
  }
}

function findSuccessorLoops(product: Product, path: Path): Issue[] {
  const successor = new Map((product.editions ?? []).map((e) => [e.id, e.successor]));
  return [...successor.keys()].flatMap((start, i) => {
    const seen = new Set<string>();
    for (let at: string | undefined = start; at !== undefined; at = successor.get(at)) {
      if (seen.has(at))
        return [{ code: 'successor-loop', detail: start, path: [...path, 'editions', i, 'successor'] }];
      seen.add(at);
    }
    return [];
  });
}

/** Walks the whole file for `source` entries that name nothing. */
function findMissingSources(catalogue: Catalogue, sources: ReadonlySet<string>): Issue[] {
  const issues: Issue[] = [];
  const walk = (value: unknown, path: Path): void => {
    if (Array.isArray(value)) return value.forEach((v, i) => walk(v, [...path, i]));
    if (typeof value !== 'object' || value === null) return;
    for (const [key, child] of Object.entries(value)) {
      if (key === 'source' && typeof child === 'string') {
        if (!sources.has(child)) issues.push({ code: 'no-such-source', detail: child, path: [...path, key] });
      } else walk(child, [...path, key]);
    }
  };
  walk(catalogue.products, ['products']);
  return issues;
}
