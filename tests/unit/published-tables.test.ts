import { expect, test } from 'vitest';
import { parseCatalogue } from '$core/exchange';
import {
  CELL_MEANINGS,
  type ColumnRole,
  type Product,
  readHopGrid,
  readLifeCycle,
  suggestColumns,
  suggestMeaning,
  takeHopGrid,
  takeLifeCycle
} from '$core/catalogue';
import { formatDay } from '$core/date';
import { type PublishedTable, readPublishedTables } from '$core/exchange';
import { countOf } from '../support/laws';
import { Random } from '../support/random';

const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December'
];

/** A day in one of the ways pages have it; a table keeps to one. */
function written(day: number, how: number): string {
  const iso = formatDay(day);
  const [y, m, d] = iso.split('-').map(Number) as [number, number, number];
  const month = MONTHS[m - 1] as string;
  return [iso, `${d} ${month} ${y}`, `${month} ${d}, ${y}`, `${d} ${month.slice(0, 3)} ${y}`][how] as string;
}

interface Line {
  readonly label: string;
  readonly codeName: string;
  readonly published: number;
  /** One a phase, later and later. */
  readonly ends: readonly number[];
}

const HEADINGS = {
  release: ['Release', 'Version', 'Branch', 'Series', ''],
  name: ['Code name', 'Name', 'Also called'],
  published: ['Released', 'Release date', 'Available since', 'Published'],
  // Some that say which phase it is, some that do not.
  ends: [
    ['Active until', 'Full service', 'Phase one', 'Ends'],
    ['Security fixes until', 'Maintenance ends', 'Phase two', 'Then'],
    ['Extended support', 'Paid extension ends', 'Phase three', 'At last']
  ]
} as const;

interface Made {
  readonly lines: readonly Line[];
  readonly head: readonly string[];
  readonly cells: readonly (readonly string[])[];
  readonly roles: readonly ColumnRole[];
  readonly hasName: boolean;
}

function tableOf(seed: number): Made {
  const r = new Random(seed * 2741 + 11);
  const ends = r.int(1, 3);
  const how = r.int(0, 3);
  const hasName = r.chance(0.5);
  let at = 20_000 + r.int(0, 400);
  const lines = Array.from({ length: r.int(3, 40) }, (_, i): Line => {
    at += r.int(60, 500);
    let end = at;
    return {
      label: `${i + 3}.${r.int(0, 9)}`,
      codeName: `Heron ${'abcdefghij'[i % 10]}${i}x`.replace(/\d/g, (d) => 'klmnopqrst'[Number(d)] as string),
      published: at,
      ends: Array.from({ length: ends }, () => (end += r.int(200, 900)))
    };
  });
  const columns: { role: ColumnRole; head: string; cell: (l: Line) => string }[] = [
    { role: 'release', head: r.pick([...HEADINGS.release]), cell: (l) => l.label },
    { role: 'published', head: r.pick([...HEADINGS.published]), cell: (l) => written(l.published, how) },
    ...(['full', 'security', 'extension'] as const).slice(0, ends).map((role, i) => ({
      role,
      head: r.pick([...(HEADINGS.ends[i] as readonly string[])]),
      cell: (l: Line) => written(l.ends[i] as number, how)
    }))
  ];
  if (hasName) columns.push({ role: 'name', head: r.pick([...HEADINGS.name]), cell: (l) => l.codeName });
  // A day before it came out, whatever it is called, is no end; nor is one on which it is sold no more.
  if (r.chance(0.2))
    columns.push({ role: 'left out', head: 'Begun', cell: (l) => written(l.published - 150, how) });
  if (r.chance(0.2))
    columns.push({
      role: 'left out',
      head: 'Sales end',
      cell: (l) => written((l.ends[0] as number) - 30, how)
    });
  if (r.chance(0.3))
    columns.push({ role: 'left out', head: 'Notes', cell: () => (r.chance(0.5) ? 'see the manual' : '') });
  const shuffled = columns
    .map((c) => ({ c, at: r.next() }))
    .sort((a, b) => a.at - b.at)
    .map((x) => x.c);
  return {
    lines,
    head: shuffled.map((c) => c.head),
    cells: lines.map((l) => shuffled.map((c) => c.cell(l))),
    roles: shuffled.map((c) => c.role),
    hasName
  };
}

/** The same table in each of the shapes it is published in. */
const SHAPES: readonly (readonly [string, (head: readonly string[], cells: Made['cells']) => string])[] = [
  [
    'a page',
    (head, cells) =>
      `<html><script>var x = "<table><tr><td>no</td></tr></table>";</script><h2>Life of <i>things</i></h2><table class=x><thead><tr>${head
        .map((h) => `<th scope="col">${h}</th>`)
        .join('')}</tr></thead><tbody>${cells
        .map(
          (row) =>
            `<tr>${row.map((c) => `<td><span><a href="//elsewhere/x">${c}</a></span><sup>2</sup></td>`).join('')}`
        )
        .join('')}</tbody></table><p>after</p>`
  ],
  [
    'Markdown',
    (head, cells) =>
      `# Life of things\n\n| ${head.join(' | ')} |\n|${head.map(() => '---').join('|')}|\n${cells.map((r) => `| ${r.map((c) => `**${c}**`).join(' | ')} |`).join('\n')}\n`
  ],
  ['tabs', (head, cells) => [head, ...cells].map((r) => r.join('\t')).join('\n')],
  ['semicolons', (head, cells) => [head, ...cells].map((r) => r.map((c) => `"${c}"`).join(';')).join('\r\n')],
  [
    'objects',
    (head, cells) =>
      JSON.stringify({
        cycles: cells.map((r) => Object.fromEntries(head.map((h, i) => [h === '' ? 'cycle' : h, r[i]])))
      })
  ]
];

test.each(SHAPES)(
  'life-cycle tables as %s: every release with its days, whatever the headings and their order',
  (_, write) => {
    for (let seed = 1; seed <= countOf(1200); seed++) {
      const made = tableOf(seed);
      const read = readPublishedTables(write(made.head, made.cells));
      expect(read.ok, `${seed}`).toBe(true);
      const [table] = read.ok ? read.value : [];
      const roles = suggestColumns(table as PublishedTable);
      const told = readLifeCycle(table as PublishedTable, roles);
      expect(told.left, `${seed}`).toEqual([]);
      expect(
        told.rows.map((r) => [r.label, r.published, r.ends.full, r.ends.security, r.ends.extension]),
        `${seed}: ${made.head.join(' | ')} as ${roles.join(' | ')}`
      ).toEqual(
        made.lines.map((l) => [
          l.label,
          formatDay(l.published),
          ...[0, 1, 2].map((i) => (l.ends[i] === undefined ? undefined : formatDay(l.ends[i])))
        ])
      );
      if (made.hasName)
        expect(
          told.rows.map((r) => r.names[0]),
          `${seed}`
        ).toEqual(made.lines.map((l) => l.codeName));
    }
  }
);

const product = {
  id: 'box',
  name: 'Box',
  publisher: 'x',
  releases: [{ id: '3.1', published: '2024-01-01', source: 'hand' }]
} as unknown as Product;
const rowsOf = (text: string): ReturnType<typeof readLifeCycle> => {
  const read = readPublishedTables(text);
  const table = read.ok ? (read.value[0] as PublishedTable) : { head: [], rows: [] };
  return readLifeCycle(table, suggestColumns(table), { names: ['Box'] });
};

test('taken in, taken in again, and a month later: new, the same, moved and gone; what was said before is kept', () => {
  const first =
    'Version,Released,Active until,Security until\nBox 3.1,2024-01-01,2026-01-31,2027-01-31\n4.0 LTS,2025-03-01,2027-03-31,2029-03-31\n';
  const taken = takeLifeCycle(product, rowsOf(first).rows, 'page');
  expect(taken.changes.map((c) => [c.label, c.kind])).toEqual([
    ['3.1', 'changed'],
    ['4.0', 'new']
  ]);
  expect(
    taken.product.releases.map((r) => [r.id, r.service?.map((p) => `${p.phase} ${p.until}`), r.aliases])
  ).toEqual([
    ['3.1', ['full 2026-01-31', 'security 2027-01-31'], undefined],
    ['4.0', ['full 2027-03-31', 'security 2029-03-31'], ['4.0 LTS']]
  ]);
  const again = takeLifeCycle(taken.product, rowsOf(first).rows, 'page');
  expect(again.changes.map((c) => c.kind)).toEqual(['same', 'same']);
  expect(again.product).toEqual(taken.product);
  const later = takeLifeCycle(
    taken.product,
    rowsOf(
      'Version,Released,Active until,Security until\n3.5,2024-09-01,2026-09-30,2027-09-30\n3.1,2024-01-01,2026-01-31,2027-05-01\n'
    ).rows,
    'page'
  );
  expect(later.changes.map((c) => [c.label, c.kind])).toEqual([
    ['3.5', 'new'],
    ['3.1', 'changed'],
    ['4.0', 'gone']
  ]);
  expect(later.changes[1]?.ends).toEqual([{ phase: 'security', before: '2027-01-31', after: '2027-05-01' }]);
  expect(later.product.releases.map((r) => r.id)).toEqual(['3.1', '3.5', '4.0']);
  expect(later.product.releases[0]?.service?.[1]).toEqual({
    phase: 'security',
    until: '2027-05-01',
    was: [{ until: '2027-01-31', source: 'page' }],
    source: 'page'
  });
  // What comes out of it is a catalogue.
  const file = {
    format: 'orange-stair-catalogue',
    version: 3,
    name: 'c',
    sources: [
      { id: 'page', title: 'Page', standing: 'official' },
      { id: 'hand', title: 'Hand', standing: 'observed' }
    ],
    products: [later.product]
  };
  expect(parseCatalogue(JSON.stringify(file))).toMatchObject({ ok: true });
});

test('labels: a code name, a service word, a year, quotes; figures stay with the label', () => {
  const labels = (cell: string) => rowsOf(`Version,Until\n${cell},2031-05-31\nother 9,2032-05-31\n`).rows[0];
  expect(labels('22.04 LTS')).toMatchObject({ label: '22.04', names: ['22.04 LTS'] });
  expect(labels('12 (Heron)')).toMatchObject({ label: '12', names: ['Heron', '12 (Heron)'] });
  expect(labels('Box 12 "Quiet heron"')).toMatchObject({ label: '12' });
  expect(labels('12 Heron')).toMatchObject({ label: '12', names: ['Heron', '12 Heron'] });
  expect(labels('Version 7 R2')).toMatchObject({ label: '7 R2' });
  expect(labels('2025')).toMatchObject({ label: '2025', names: [] });
});

test('days with the month or the day first are settled by what can be read one way, else asked; unread cells are told', () => {
  const settled = rowsOf('Version,Until\n1,03/04/2031\n2,25/04/2032\n');
  expect(settled.needsOrder).toBe(false);
  expect(settled.rows[0]?.ends.full).toBe('2031-04-03');
  const open = rowsOf('Version,Until\n1,03/04/2031\n2,05/04/2032\n');
  expect(open.needsOrder).toBe(true);
  const told = rowsOf(
    'Version,Out,Until\n1,2030-01-01,when it is ready\n2,2031-01-01,2033-01-01\n3,2032-01-01,Q3 2034\n4,2033-01-01,June 2035\n'
  );
  expect(told.rows.map((r) => r.ends.full)).toEqual([undefined, '2033-01-01', '2034-Q3', '2035-06']);
  expect(told.rows[0]?.unread).toEqual(['when it is ready']);
});

test('cells that span others, tables in cells, several tables, and pages that mean harm', () => {
  const spans =
    '<table><caption>Ends</caption><tr><th>Line</th><th>Release</th><th>Until</th></tr><tr><td rowspan=2>A</td><td>1</td><td>2031-01-31</td></tr><tr><td>2</td><td rowspan="2">2032-01-31</td></tr><tr><td>B</td><td>3</td></tr></table><h3>Second</h3><table><tr><td>Release</td><td>Until<table><tr><td>x</td><td>y</td></tr><tr><td>z</td><td>w</td></tr></table></td></tr><tr><td>9</td><td>2039-01-31</td></tr></table>';
  const read = readPublishedTables(spans);
  expect(read.ok && read.value.map((t) => [t.title, t.rows])).toEqual([
    [
      'Ends',
      [
        ['A', '1', '2031-01-31'],
        ['A', '2', '2032-01-31'],
        ['B', '3', '2032-01-31']
      ]
    ],
    ['Second', [['z', 'w']]],
    ['Second', [['9', '2039-01-31']]]
  ]);
  const deep = `<table><tr><td>Release</td><td>Until</td></tr><tr><td>${'<span>'.repeat(10_000)}7${'</span>'.repeat(10_000)}</td><td>2031-01-31</td></tr></table>`;
  const wide = `<table><tr><td colspan=999999>Release</td></tr><tr><td rowspan=99999999>1</td><td>2031-01-31</td></tr></table>`;
  for (const text of [
    deep,
    wide,
    '<table>'.repeat(5000),
    '<table><tr><td>'.repeat(5000),
    '<tr><td>no table</td></tr>',
    '|a|b|\n|--|--|'
  ])
    expect(() => readPublishedTables(text)).not.toThrow();
  const seven = readPublishedTables(deep);
  expect(seven.ok && seven.value[0]?.rows).toEqual([['7', '2031-01-31']]);
});

const WORDS = {
  'in place': ['yes', '✓', 'Direct', 'Supported', 'in place'],
  'fresh install': ['clean install', 'Fresh', 'reinstall only'],
  no: ['no', '✗', '–', 'not supported', 'via 4.0'],
  'left out': ['', 'see note']
} as const;

test('grids of which leads to which, either way round, and one pair a row: every cell as it is meant; taken once', () => {
  for (let seed = 1; seed <= countOf(1500); seed++) {
    const r = new Random(seed * 911 + 5);
    const labels = Array.from({ length: r.int(3, 9) }, (_, i) => `${i + 3}.0`);
    const words = new Map(CELL_MEANINGS.map((m) => [m, r.pick([...WORDS[m]])] as const));
    const pairs = labels.flatMap((from, i) =>
      labels.flatMap((to, k) =>
        i === k ? [] : [{ from, to, meaning: k > i ? r.pick([...CELL_MEANINGS]) : ('left out' as const) }]
      )
    );
    const at = (from: string, to: string): string =>
      words.get(pairs.find((p) => p.from === from && p.to === to)?.meaning ?? 'left out') ?? '';
    const isTurned = r.chance(0.5);
    const isLong = r.chance(0.3);
    const rows = isLong
      ? pairs.map((p) => [p.to, words.get(p.meaning) ?? '', p.from])
      : labels.map((row) => [
          `Box ${row}`,
          ...labels.map((column) => (row === column ? 'same' : isTurned ? at(column, row) : at(row, column)))
        ]);
    const head = isLong ? ['To release', 'How', 'From release'] : ['', ...labels];
    const text = [head, ...rows].map((x) => `| ${x.join(' | ')} |`);
    const read = readPublishedTables(
      [text[0], `|${head.map(() => '---').join('|')}|`, ...text.slice(1)].join('\n')
    );
    const table = read.ok ? (read.value[0] as PublishedTable) : { head: [], rows: [] };
    const grid = readHopGrid(table, { names: ['Box'], isTurned: isTurned && !isLong });
    const told = new Map(grid?.cells.map((c) => [`${c.from} ${c.to}`, suggestMeaning(c.word)]));
    for (const p of pairs)
      expect(told.get(`${p.from} ${p.to}`), `${seed} ${p.from} ${p.to} ${words.get(p.meaning)}`).toBe(
        p.meaning
      );
    // Into a product that has one of the hops already, as a range.
    const box = {
      id: 'box',
      name: 'Box',
      publisher: 'x',
      releases: labels.map((l) => ({ id: l, published: '2024-01-01' })),
      hops: [
        {
          id: 'old',
          kind: 'in place',
          from: `up to ${labels[1]}`,
          to: labels[2],
          kept: 'everything',
          typicalMinutes: 1,
          carefulMinutes: 2
        }
      ]
    } as unknown as Product;
    const taken = takeHopGrid(box, grid!, { meanings: new Map(), source: 'page' });
    const covered = (p: { from: string; to: string }): boolean =>
      p.to === labels[2] && labels.indexOf(p.from) < 2;
    for (const p of pairs) {
      const change = taken.changes.find((c) => c.from === p.from && c.to === p.to);
      const kind =
        p.meaning === 'in place'
          ? covered(p)
            ? 'same'
            : 'new'
          : p.meaning === 'no'
            ? covered(p)
              ? 'against'
              : 'new'
            : 'new';
      expect(change?.kind, `${seed} ${p.from} ${p.to}`).toBe(p.meaning === 'left out' ? undefined : kind);
    }
    const again = takeHopGrid(taken.product, grid!, { meanings: new Map(), source: 'page' });
    expect(again.product, `${seed}`).toEqual(taken.product);
    expect(again.changes.some((c) => c.kind === 'new')).toBe(false);
    const file = {
      format: 'orange-stair-catalogue',
      version: 3,
      name: 'c',
      sources: [{ id: 'page', title: 'Page', standing: 'official' }],
      products: [taken.product]
    };
    expect(parseCatalogue(JSON.stringify(file)).ok, `${seed}`).toBe(true);
  }
});

test('a life-cycle table is no grid, a word that could be either is left to the person, and what is said by hand counts', () => {
  const life = readPublishedTables(
    'Version,Released,Until\n3.1,2024-01-01,2026-01-31\n4.0,2025-03-01,2027-03-31\n'
  );
  expect(life.ok && readHopGrid(life.value[0] as PublishedTable)).toBeUndefined();
  expect(['x', 'maybe', '2'].map(suggestMeaning)).toEqual(['left out', 'left out', 'left out']);
  const read = readPublishedTables('\t1\t2\t3\n1\t\tx\tx\n2\t\t\tx\n3\t\t\t\n');
  const grid = readHopGrid(read.ok ? (read.value[0] as PublishedTable) : { head: [], rows: [] });
  const box = {
    id: 'b',
    name: 'B',
    publisher: 'x',
    releases: ['1', '2'].map((id) => ({ id, published: '2024-01-01' }))
  } as unknown as Product;
  const taken = takeHopGrid(box, grid!, { meanings: new Map([['x', 'in place']]), source: 'page' });
  expect(taken.changes.map((c) => `${c.from}>${c.to} ${c.kind}`)).toEqual([
    '1>2 new',
    '1>3 no release',
    '2>3 no release'
  ]);
  expect(taken.product.hops?.map((h) => [h.id, h.source])).toEqual([['1-to-2', 'page']]);
});

test('a page with scripts, forms, remote pictures and ten thousand spans in one another is only its table', () => {
  const deep = `${'<span>'.repeat(10_000)}9${'</span>'.repeat(10_000)}`;
  const page = `<script>document.write('<table><tr><td>a</td></tr></table>')</script><form action="//elsewhere/x"><input name=q value="<table>"></form><img src="//elsewhere/p.png" onerror="run()"><table onclick="run()"><tr><th>Release<th>Until</tr><tr><td>${deep}<td><a href="javascript:run()">30 June 2031</a></tr><tr><td>10<td>${'<table><tr><td>'.repeat(500)}1 July 2032</tr></table>`;
  const read = readPublishedTables(page);
  const [first] = read.ok ? read.value.filter((t) => t.head[0] === 'Release') : [];
  expect(first?.rows[0]).toEqual(['9', '30 June 2031']);
  expect(JSON.stringify(read)).not.toContain('elsewhere');
});
