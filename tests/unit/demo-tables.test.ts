import { readFileSync } from 'node:fs';
import { beforeAll, expect, test } from 'vitest';
import {
  type Catalogue,
  companionKindOf,
  listFactOf,
  partByProduct,
  type Product,
  productNamedIn,
  placesOfProduct,
  rangeOfWords,
  suggestKind,
  TABLE_READERS,
  type TableChange,
  type TableGround,
  type TableKind
} from '$core/catalogue';
import { parseCatalogue, type PublishedTable } from '$core/exchange';
import { BASE_PATCH, matchesRange, parseRange, sequenceOf } from '../../src/core/version';
import { publishedTables } from '../../src/lib/workers/published-tables';

/** The made-up publishers' pages of the demo, and what of its catalogue each is. */
const PAGES = [
  'garnock-desk.html',
  'ossian-shelf.csv',
  'brindle-server.md',
  'pellow-terminal.xlsx',
  'marram-draft.html',
  'twinbank-mirror.html'
] as const;

const read = parseCatalogue(readFileSync('demo/catalogue.yaml', 'utf8'));
const demo = (read.ok ? read.value : undefined) as Catalogue;
const find = (catalogue: Catalogue, id: string): Product =>
  catalogue.products.find((p) => p.id === id) as Product;
const known = demo.products.flatMap((p) => [p.name, ...(p.aliases ?? [])]);

async function tablesOf(
  page: string,
  change: (text: string) => string = (t) => t
): Promise<PublishedTable[]> {
  const bytes = readFileSync(`demo/tables/${page}`);
  const found = await publishedTables(
    page.endsWith('.xlsx') ? bytes : new TextEncoder().encode(change(bytes.toString('utf8')))
  );
  expect(found.ok, page).toBe(true);
  return found.ok ? found.value.flatMap((t) => partByProduct(t, known)) : [];
}

/** A table as it is taken when nobody says anything: kind, product, columns and words as they are suggested. */
function take(
  catalogue: Catalogue,
  table: PublishedTable
): { catalogue: Catalogue; changes: readonly TableChange[]; kind: TableKind } {
  const product = productNamedIn(catalogue, `${table.title} ${table.head.join(' ')}`) as Product;
  const ground: TableGround = { product, lists: catalogue.lists ?? [], facts: catalogue.facts ?? [] };
  const kind = suggestKind({ title: table.title, table, product });
  const reader = TABLE_READERS[kind];
  const at = rangeOfWords(placesOfProduct(product), table.title.replace(/\D*(\d.*\d)\D*/, '$1'));
  const words = `${table.title} ${table.head.join(' ')}`;
  const taken = reader.take(
    {
      table,
      roles: reader.suggestRoles(table, ground),
      meanings: new Map(),
      about: { fact: listFactOf(words), companion: companionKindOf(words), ...(at ? { at } : {}) },
      title: table.title,
      source: 'page'
    },
    ground
  );
  expect([taken.left, taken.unread], table.title).toEqual([[], []]);
  return {
    catalogue: {
      ...catalogue,
      lists: [...taken.lists],
      products: catalogue.products.map((p) => (p === product ? taken.product : p))
    },
    changes: taken.changes,
    kind
  };
}

const without = <T extends object>(entry: T, key: keyof T): T =>
  Object.fromEntries(Object.entries(entry).filter(([k]) => k !== key)) as T;

/** The demo's catalogue without anything the pages say. */
function stripped(): Catalogue {
  const strip = (p: Product): Product => {
    switch (p.id) {
      case 'garnock-desk':
        return {
          ...p,
          lines: p.lines?.map((l) => without(l, 'service')),
          releases: p.releases.map((r) => (r.id === '7' ? r : { ...r, published: 'unknown' }))
        } as Product;
      case 'ossian-shelf':
        return {
          ...p,
          releases: p.releases.map((r) => ({ ...without(r, 'service'), published: 'unknown' }))
        } as Product;
      case 'pellow-terminal':
        return {
          ...p,
          releases: p.releases.map((r) => ({ ...without(r, 'service'), published: 'unknown' })),
          requirements: []
        } as Product;
      case 'brindle-server':
        return {
          ...p,
          hops: [],
          features: [],
          releases: p.releases.map((r) => without(r, 'loses'))
        } as Product;
      case 'marram-draft':
        return {
          ...p,
          requirements: p.requirements?.filter((r) => r.id !== 'draft-processor'),
          companions: []
        } as Product;
      case 'twinbank-mirror':
        return { ...p, cautions: [] } as Product;
      default:
        return p;
    }
  };
  return { ...demo, lists: [], products: demo.products.map(strip) };
}

const releasesIn = (product: Product, range: string): string[] => {
  const parsed = parseRange(range);
  const sequence = sequenceOf(product);
  return 'range' in parsed
    ? product.releases
        .map((r) => r.id)
        .filter((release) => matchesRange(sequence, parsed.range, { release, patch: BASE_PATCH }))
    : [];
};
const servedOf = (p: Product): unknown[] =>
  [...(p.lines ?? []), ...p.releases].map((r) => [r.id, (r.service ?? []).map((s) => [s.phase, s.until])]);
const hopsOf = (p: Product): string[] =>
  (p.hops ?? [])
    .flatMap((h) =>
      releasesIn(p, h.from)
        .filter((f) => f !== h.to)
        .map((f) => `${f} ${h.to} ${h.kind}`)
    )
    .sort();
const needsOf = (p: Product): string[] =>
  (p.requirements ?? []).map(
    (r) =>
      `${releasesIn(p, r.at).join()} ${r.grade} ${r.needs.replace('processors-marram-draft-23-and-24-know', 'marram-processors')}`
  );
const faresOf = (p: Product, name: string): unknown =>
  p.releases.map(
    (r) =>
      p.companions?.find((c) => c.name === name)?.fares.find((f) => releasesIn(p, f.at).includes(r.id))
        ?.verdict
  );

let rebuilt: Catalogue;
const kinds: TableKind[] = [];

beforeAll(async () => {
  rebuilt = stripped();
  for (const page of PAGES)
    for (const table of await tablesOf(page)) {
      const taken = take(rebuilt, table);
      rebuilt = taken.catalogue;
      kinds.push(taken.kind);
    }
});

test('every kind of table in them is known by what it says', () => {
  expect(kinds).toEqual([
    'life cycle',
    'life cycle',
    'hops',
    'hops',
    'features',
    'life cycle',
    'requirements',
    'list',
    'companions',
    'problems'
  ]);
});

test('the demo’s own catalogue is rebuilt from its publishers’ pages', () => {
  for (const id of ['garnock-desk', 'ossian-shelf', 'pellow-terminal'])
    expect(servedOf(find(rebuilt, id)), id).toEqual(servedOf(find(demo, id)));
  const days = (c: Catalogue) => find(c, 'garnock-desk').releases.map((r) => r.published);
  expect(days(rebuilt)).toEqual(days(demo));
  expect(hopsOf(find(rebuilt, 'brindle-server'))).toEqual(hopsOf(find(demo, 'brindle-server')));
  const lost = (c: Catalogue) =>
    find(c, 'brindle-server').releases.map((r) =>
      (r.loses ?? []).map((l) => [l.feature.split('-')[0], l.instead])
    );
  expect(lost(rebuilt)).toEqual(lost(demo));
  expect(rebuilt.lists?.map((l) => l.entries)).toEqual(demo.lists?.map((l) => l.entries));
  const draft = find(rebuilt, 'marram-draft');
  expect(needsOf(draft).sort()).toEqual(needsOf(find(demo, 'marram-draft')).sort());
  for (const name of ['Contour kit', 'Route stamp', 'Sheet viewer 2'])
    expect(faresOf(draft, name), name).toEqual(faresOf(find(demo, 'marram-draft'), name));
  const asked = needsOf(find(demo, 'pellow-terminal'));
  for (const needs of needsOf(find(rebuilt, 'pellow-terminal'))) expect(asked).toContain(needs);
  const cautions = (c: Catalogue) =>
    (find(c, 'twinbank-mirror').cautions ?? []).map((k) => [
      k.name,
      k.from,
      k.to,
      k.consequence,
      k.ignored,
      k.check,
      k.workAround?.how
    ]);
  expect(cautions(rebuilt)).toEqual(cautions(demo));
});

test('taken in once more they change nothing', async () => {
  for (const page of PAGES)
    for (const table of await tablesOf(page)) {
      const { changes, catalogue } = take(rebuilt, table);
      expect([...new Set(changes.map((c) => c.kind))], table.title).toEqual(['same']);
      expect(catalogue.products, table.title).toEqual(rebuilt.products);
    }
});

test('a later workbook is an update as well', async () => {
  const [life] = await tablesOf('pellow-terminal.xlsx');
  const later = {
    ...life,
    rows: life?.rows.map((r) => (r[0] === '13' ? ['13', r[1], '2035-05-31'] : r))
  } as PublishedTable;
  const moved = take(rebuilt, later).changes.filter((c) => c.kind !== 'same');
  expect(moved).toMatchObject([
    { kind: 'changed', what: '13', details: [{ before: '2034-05-31', after: '2035-05-31' }] }
  ]);
});

test.each<[string, (text: string) => string, readonly [string, string, string][]]>([
  [
    'garnock-desk.html',
    (t) => t.replace('30 June 2031', '28 September 2031').replace(/<tr><td>Line 6.*\n/, ''),
    [['changed', 'line 4', '2031-06-30 > 2031-09-28']]
  ],
  [
    'ossian-shelf.csv',
    (t) => t.replace('08.01.2034', '08.01.2035'),
    [['changed', '31.5', '2034-01-08 > 2035-01-08']]
  ],
  [
    'brindle-server.md',
    (t) =>
      t.replace('| **6**     |       | yes   | yes   | no ', '| **6**     |       | yes   | yes   | yes '),
    [['new', '6 to 9', 'in place']]
  ],
  ['marram-draft.html', (t) => t.replace('M2, M3', 'M2, M3, M4'), [['new', 'Stanza M4', '']]],
  [
    'twinbank-mirror.html',
    (t) => t.replace('2.9 to 2.10', '2.9 to 2.11').replace(/<tr><td><\/td><td>The far.*\n/, ''),
    [
      ['changed', 'Copying stalls at the first restart', '2.9 to 2.10 > 2.9 to 2.11'],
      ['gone', 'The far copy is built anew', '']
    ]
  ]
])(
  'a later %s is an update: what moved, came and went is told, and nothing is deleted',
  async (page, change, expected) => {
    const told = (await tablesOf(page, change)).flatMap((table) => {
      const { changes, catalogue } = take(rebuilt, table);
      for (const p of rebuilt.products) {
        const after = find(catalogue, p.id);
        expect(after.releases.length).toBe(p.releases.length);
        expect(after.cautions?.length).toBe(p.cautions?.length);
      }
      return changes
        .filter((c) => c.kind !== 'same')
        .map((c) => [
          c.kind,
          c.what,
          c.details.map((d) => (d.before ? `${d.before} > ${d.after}` : d.after)).join()
        ]);
    });
    expect(told).toEqual(expected);
  }
);
