import { factOfOption } from './schema-right';
import type { Issue } from '../kit';
import { FactKinds } from '../condition';
import { BASE_PATCH, sequenceOf } from '../version';
import { checkNeeds } from './check-need';
import { ReferenceCheck, type CatalogueNames } from './reference-check';
import type { Catalogue, Product } from './schema';

type Path = readonly (string | number)[];

/** What a catalogue names must exist: ids are unique, every reference leads somewhere. In file order. */
export function checkCatalogue(catalogue: Catalogue): Issue[] {
  const sources = new Set((catalogue.sources ?? []).map((s) => s.id));
  const issues: Issue[] = [
    ...findDuplicates(catalogue.sources ?? [], ['sources']),
    ...findDuplicates(catalogue.facts ?? [], ['facts']),
    ...findDuplicates(catalogue.lists ?? [], ['lists']),
    ...findDuplicates(catalogue.products, ['products'])
  ];
  const names: CatalogueNames = {
    kinds: new FactKinds(catalogue.facts),
    lists: new Set((catalogue.lists ?? []).map((l) => l.id)),
    sequences: new Map(catalogue.products.map((p) => [p.id, sequenceOf(p)]))
  };
  catalogue.products.forEach((product, i) => issues.push(...checkProduct(product, ['products', i], names)));
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
function checkProduct(product: Product, path: Path, names: CatalogueNames): Issue[] {
  const lists = [
    'editions',
    'architectures',
    'branches',
    'lines',
    'releases',
    'hops',
    'noHops',
    'editionChanges',
    'rights',
    'features',
    'requirements',
    'companions',
    'pairings',
    'cautions',
    'places',
    'models',
    'tracks',
    'offers'
  ] as const;
  const issues = lists.flatMap((list) => findDuplicates(product[list] ?? [], [...path, list]));
  const check = new ReferenceCheck(product, path, names);
  product.releases.forEach((release, i) => {
    const at = ['releases', i];
    issues.push(...findDuplicates(release.patches ?? [], [...path, ...at, 'patches']));
    check.oneOf('line', release.line, [...at, 'line']);
    check.oneOf('branch', release.branch, [...at, 'branch']);
    release.editions?.forEach((e, j) => check.oneOf('edition', e, [...at, 'editions', j]));
    release.architectures?.forEach((a, j) => check.oneOf('architecture', a, [...at, 'architectures', j]));
    check.each('feature', release.gains, [...at, 'gains']);
    release.loses?.forEach((l, j) => check.oneOf('feature', l.feature, [...at, 'loses', j, 'feature']));
  });
  (product.editions ?? []).forEach((e, i) =>
    check.oneOf('edition', e.successor, ['editions', i, 'successor'])
  );
  checkHops(product, check);
  checkRights(product, check);
  checkNeeds(product, check);
  return [...issues, ...check.issues, ...findSuccessorLoops(product, path)];
}

function checkHops(product: Product, check: ReferenceCheck): void {
  (product.hops ?? []).forEach((hop, i) => {
    const at = ['hops', i];
    check.range(hop.from, [...at, 'from']);
    check.range(hop.levels, [...at, 'levels']);
    check.condition(hop.withheld?.from, [...at, 'withheld', 'from']);
    Object.keys({ ...hop.uses, ...hop.takes, ...hop.sets }).forEach((fact) => check.fact(fact, at));
    hop.also?.forEach((a, j) => check.range(a.levels, [...at, 'also', j, 'levels']));
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
  (product.noHops ?? []).forEach((cell, i) => {
    check.range(cell.from, ['noHops', i, 'from']);
    check.place(cell.to, BASE_PATCH, ['noHops', i, 'to']);
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
    check.each('hop', right.hops, [...at, 'hops']);
    check.range(right.from, [...at, 'from']);
    check.range(right.to, [...at, 'to']);
    right.fromEditions?.forEach((e, j) => check.oneOf('edition', e, [...at, 'fromEditions', j]));
    right.toEditions?.forEach((e, j) => check.oneOf('edition', e, [...at, 'toEditions', j]));
    check.table('edition', right.mapsEditions, [...at, 'mapsEditions']);
    right.units?.options?.forEach((o, j) => check.fact(factOfOption(o), [...at, 'units', 'options', j]));
    if (right.units?.fact) check.fact(right.units.fact, [...at, 'units', 'fact']);
    if (right.kind === 'purchase' && right.priceCents === undefined) check.add('price-missing', right.id, at);
  });
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
  for (const key of ['facts', 'lists', 'products'] as const) walk(catalogue[key] ?? [], [key]);
  return issues;
}
