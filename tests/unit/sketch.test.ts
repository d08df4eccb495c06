import { describe, expect, test } from 'vitest';
import { clusterTexts, compareLabels, splitText } from '../../src/core/catalogue/sketch/cluster-texts';
import { applyHopGrid } from '../../src/core/catalogue/sketch/apply-tables';
import { applyDateTable, parseDateTable } from '../../src/core/catalogue/sketch/date-table';
import {
  ANY_REACH,
  fillHops,
  joinSketches,
  productOfSketch,
  sketchOf
} from '../../src/core/catalogue/sketch/sketch';
import { findUnlisted, listRelease } from '../../src/core/catalogue/sketch/unlisted';
import { emptyCatalogue } from '../../src/core/catalogue/schema';
import { comparePlans } from '../../src/core/plan/compare-plans';
import { parseDay } from '../../src/core/date/day';
import { parseMessyDate } from '../../src/core/date/messy-date';
import { emptyEstate, type System } from '../../src/core/estate/schema';
import { readAgain } from '../../src/core/estate/read-again';
import { completeCatalogueText } from '../../src/core/exchange/complete-text';
import { parseCatalogue } from '../../src/core/exchange/catalogue-file';
import { reviseCatalogueText } from '../../src/core/exchange/revise-catalogue';
import { plan } from '../../src/core/plan/plan';
import { demoCatalogue, demoCatalogueText, demoInput, demoPlan } from '../support/demo';

const unknown = { unknown: 'not understood' } as const;
const system = (id: string, installedText: string): System => ({
  id,
  name: id,
  installedText,
  product: unknown,
  release: unknown,
  patch: unknown,
  edition: unknown,
  architecture: unknown
});
const texts = [
  'Kestrel panel 3.10',
  'kestrel  panel 3.9',
  'Kestrel panel 3.9',
  'Lamp desk 7 R2 Sheet',
  'Lamp desk 7 R10 Sheet',
  'Lamp desk version 8 Site',
  'Tide gauge'
];
const systems = texts.map((t, i) => system(`s${i}`, t));

test.each([
  ['Kestrel panel 3.1 R2 Sheet', 'Kestrel panel', '3.1 R2', 'Sheet'],
  ['Lamp desk version 8', 'Lamp desk', '8', ''],
  ['4ward line 2', '4ward', '2', ''],
  ['Tide gauge', 'Tide gauge', 'as installed', '']
])('%s is cut into name, label and rest', (text, name, label, rest) => {
  expect(splitText(text)).toEqual({ name, label, rest });
});

test('labels are suggested in the order of their numbers, and that is an order', () => {
  const labels = ['3.9', '3.10', '3', '10', '7 R2', '7 R10', '7', 'x1', 'as installed'];
  for (const a of labels)
    for (const b of labels) expect(compareLabels(a, b)).toBe(a === b ? 0 : (-compareLabels(b, a) as 1));
  expect([...labels].sort(compareLabels).slice(0, 6)).toEqual(['3', '3.9', '3.10', '7', '7 R2', '7 R10']);
});

describe('products from what machines run', () => {
  const clusters = clusterTexts(systems);
  const sketches = clusters.map(sketchOf);

  test('texts are gathered, whatever their spelling', () => {
    expect(clusters.map((c) => [c.name, c.systems, c.versions.map((v) => v.label)])).toEqual([
      ['Kestrel panel', 3, ['3.9', '3.10']],
      ['Lamp desk', 3, ['7 R2', '7 R10', '8']],
      ['Tide gauge', 1, ['as installed']]
    ]);
    expect(sketches.map((s) => s.withEditions)).toEqual([false, true, false]);
  });

  test('the catalogue made of them knows every machine, and deadlines follow from dates alone', () => {
    const table = parseDateTable(
      'Release\tEnd\nKestrel panel 3.9\t30.6.2031\nKestrel panel 3.10\tDec 2032\n8  2029-01-01  2034-01-31',
      sketches
    );
    expect(table.rows.map((r) => r.problem)).toEqual(['heading', undefined, undefined, undefined]);
    const dated = applyDateTable(sketches, table);
    const products = dated.map((s) => productOfSketch(s, new Set(), 'walk'));
    const catalogue = {
      ...emptyCatalogue('own'),
      sources: [{ id: 'walk', title: 'Walk-round', standing: 'observed' as const }],
      products
    };
    const written = reviseCatalogueText('', catalogue);
    if (!written.ok) throw new Error(JSON.stringify(written.issues));
    const known = readAgain(written.value.catalogue, systems);
    expect(known.map((s) => [s.id, s.release])).toEqual(
      ['3.10', '3.9', '3.9', '7-r2', '7-r10', '8', 'as-installed'].map((is, i) => [`s${i}`, { is }])
    );
    expect(known[5]?.edition).toEqual({ is: 'site' });
    const result = plan({
      catalogue: written.value.catalogue,
      estate: { ...emptyEstate(), systems: known },
      today: parseDay('2031-03-10') ?? 0
    });
    const deadline = (id: string) => result.cases.find((c) => c.systems.includes(id))?.deadline.day;
    expect([deadline('s1'), deadline('s0'), deadline('s5'), deadline('s6')]).toEqual([
      parseDay('2031-06-30'),
      parseDay('2032-12-31'),
      parseDay('2034-01-31'),
      undefined
    ]);
  });

  test('joined under one name they are one product with both sequences and all machines', () => {
    const [a, b] = [sketches[0]!, sketches[1]!];
    const joined = joinSketches(a, {
      ...b,
      releases: [...b.releases, { ...a.releases[0]!, systems: ['other'] }]
    });
    expect(joined.releases.map((r) => r.label)).toEqual(['3.9', '3.10', '7 R2', '7 R10', '8']);
    expect(joined.releases[0]?.systems).toContain('other');
  });

  test('hops are filled as people mean it', () => {
    const of = (...labels: string[]) => labels.map((label) => ({ label, texts: [], rests: [], systems: [] }));
    const said = (labels: string[], sentence: Parameters<typeof fillHops>[1]) =>
      fillHops(of(...labels), sentence).map((h) => h.from + h.to);
    expect(said(['a', 'b', 'c'], { reach: 1 })).toEqual(['ab', 'bc']);
    expect(said(['a', 'b', 'c', 'd'], { reach: 2 })).toEqual(['ab', 'ac', 'bc', 'bd', 'cd']);
    expect(said(['a', 'b', 'c'], { reach: ANY_REACH })).toEqual(['ab', 'ac', 'bc']);
    expect(said(['a', 'b', 'c'], { reach: ANY_REACH, from: 'b' })).toEqual(['bc']);
    expect(said(['4 LTS', '5', '6', '7 LTS', '8 LTS'], { reach: 1, isLongOnly: true })).toEqual([
      '4 LTS7 LTS',
      '7 LTS8 LTS'
    ]);
  });
});

test('a grid alone: its releases are releases, what machines run falls into them', () => {
  const made = (label: string) => ({ label, texts: [], rests: [], systems: [label] });
  const sketch = {
    name: 'Box',
    spellings: [],
    publisher: 'x',
    releases: [made('2.1'), made('2.1.4')],
    hops: [],
    withEditions: false
  };
  const pair = (from: string, to: string, word: string) => ({ from, to, word });
  const cells = [pair('2', '2.1', 'yes'), pair('2', '3', 'no'), pair('2.1', '3', 'yes')];
  const taken = applyHopGrid(sketch, { cells, words: ['yes', 'no'] });
  expect(taken.taken).toBe(2);
  expect(taken.sketch.hops.map((h) => `${h.from}>${h.to}`)).toEqual(['2>2.1', '2.1>3']);
  expect(taken.sketch.releases.map((r) => [r.label, (r.patches ?? []).map((p) => p.name)])).toEqual([
    ['2', []],
    ['2.1', ['2.1.4']],
    ['3', []]
  ]);
});

test.each([
  ['June 2031', '2031-06'],
  ['06/2031', '2031-06'],
  ['Q3 2031', '2031-Q3'],
  ['2031 q4', '2031-Q4'],
  ['expected Q2 2033', 'expected 2033-Q2'],
  ['announced 30 Jun 2031', 'announced 2031-06-30'],
  ['not before Q3 2031', 'expected 2031-Q3'],
  ['31.12.2031', '2031-12-31'],
  ['2031', '2031'],
  ['tba', 'unknown'],
  ['soon', undefined],
  ['13/2031', undefined]
])('the date %s', (text, read) => expect(parseMessyDate(text)?.text).toBe(read));

describe('a pasted table of dates', () => {
  const sketches = clusterTexts(systems).map(sketchOf);
  const problems = (text: string, order?: 'day first' | 'month first') =>
    parseDateTable(text, sketches, order).rows.map((r) => r.problem ?? r.ends);

  test('asks for the order of day and month only where no line tells', () => {
    expect(parseDateTable('3.9\t03/04/2031', sketches)).toMatchObject({
      needsOrder: true,
      rows: [{ problem: 'day or month first' }]
    });
    expect(parseDateTable('3.9\t2034-01-31\t2029-01-01', sketches).rows[0]).toMatchObject({
      published: '2029-01-01',
      ends: '2034-01-31'
    });
    expect(problems('3.9\t03/04/2031', 'month first')).toEqual(['2031-03-04']);
    expect(problems('3.9\t03/04/2031\n3.10\t25/04/2031')).toEqual(['2031-04-03', '2031-04-25']);
  });

  test('a release only the table knows is taken where its number suggests', () => {
    const table = parseDateTable(
      'kestrel panel 3.9b 2031-01-01 2033-01-01\nKestrel panel 4\t2030-05-05\t2035',
      sketches
    );
    expect(table.rows.map((r) => r.isNew)).toEqual([true, true]);
    expect(applyDateTable(sketches, table)[0]?.releases.map((r) => [r.label, r.ends])).toEqual([
      ['3.9', undefined],
      ['3.9b', '2033-01-01'],
      ['3.10', undefined],
      ['4', '2035']
    ]);
  });

  test('says why a line is left out', () => {
    expect(
      problems('Ends\nOther box 9.9, 2031-01-01\n3.9 soon\nTide gauge as installed; 2031-05-05')
    ).toEqual(['heading', 'no such release', 'no date', '2031-05-05']);
  });
});

test('the changed verdicts are told, each way of changing once', () => {
  const input = demoInput();
  const before = demoPlan('goal');
  expect(comparePlans(before, before)).toEqual([]);
  const catalogue = structuredClone(input.catalogue);
  const desk = catalogue.products[0]!;
  desk.hops = desk.hops?.filter((h) => h.id !== 'desk-4-5');
  const changes = comparePlans(before, plan({ ...input, catalogue, every: 'goal' }));
  const draw = changes.find((c) => c.systems.includes('draw-01'));
  expect(draw).toMatchObject({
    verdictChanges: true,
    before: { found: { verdict: 'by hops' } },
    after: { found: { verdict: 'fresh only' } }
  });
  expect(draw?.systems.length).toBe(9);
  expect(changes.flatMap((c) => c.systems)).not.toContain('rack-01');
  expect(changes.findIndex((c) => !c.verdictChanges)).toBeGreaterThanOrEqual(
    changes.filter((c) => c.verdictChanges).length - 1
  );
});

describe('completion in the text', () => {
  const yaml = demoCatalogueText();
  const at = (before: string, typed: string) => {
    const i = yaml.indexOf(before) + before.length;
    const text = yaml.slice(0, i) + typed + yaml.slice(i);
    return completeCatalogueText(text, i + typed.length).options.map((o) => o.label);
  };

  test('fields of the entry, ids of the product, words of a condition', () => {
    expect(at('    source: gw-table\n', '    pa')).toContain('pairings');
    expect(at('        source: gw-table\n', '        ev')).toContain('everyPatch');
    expect(at('      - id: desk-4-5\n        kind: ', '')).toEqual(['in place', 'fresh install']);
    expect(at('      - id: desk-4-5\n        kind: in place\n        from: ', '"4"/')).not.toContain('k3');
    expect(
      at('- id: desk-memory-6\n        at: from 6\n        grade: blocks\n        needs: ', 'mem')
    ).toContain('memory');
    expect(at('# What the', ' id')).toEqual([]);
  });

  test('never throws, wherever it is asked', () => {
    for (let i = 0; i < yaml.length; i += 1511)
      expect(completeCatalogueText(yaml.slice(0, i), i).from).toBeLessThanOrEqual(i);
  });
});

test('a catalogue written anew is read back as it was', () => {
  const written = reviseCatalogueText('', demoCatalogue());
  expect(written.ok && written.value.catalogue).toEqual(demoCatalogue());
  const one = 'format: orange-stair-catalogue\nversion: 1 # old\nname: n\nproducts: []\n';
  const read = parseCatalogue(one);
  const revised = read.ok ? reviseCatalogueText(one, { ...read.value, name: 'm' }) : read;
  expect(revised.ok && revised.value.text).toBe(
    one.replace('version: 1', 'version: 3').replace('name: n', 'name: m')
  );
});

test('a version that a known product does not list is listed where its number suggests, and then understood', () => {
  const catalogue = demoCatalogue();
  const product = catalogue.products.find((p) => p.id === 'twinbank-mirror')!;
  const of = (id: string, text: string): System => ({ ...system(id, text), product: { is: product.id } });
  const systems = [
    of('a', 'Twinbank Mirror 2.12'),
    of('b', 'twinbank mirror  2.12'),
    of('c', 'Twinbank Mirror 2.9b'),
    system('d', 'Other 1')
  ];
  expect(findUnlisted(systems, product).map((u) => u.systems)).toEqual([1, 1, 1]);
  const listed = ['Twinbank Mirror 2.12', 'Twinbank Mirror 2.9b'].reduce(listRelease, product);
  expect(listed.releases.map((r) => r.id)).toEqual(['2.8', '2.9', '2.9b', '2.10', '2.11', '2.12']);
  const known = readAgain({ ...catalogue, products: [listed] }, systems);
  expect(known.map((s) => [s.id, s.release])).toEqual([
    ['a', { is: '2.12' }],
    ['b', { is: '2.12' }],
    ['c', { is: '2.9b' }]
  ]);
});

test('what is settled stays settled when a text is read again', () => {
  const is = (id: string) => ({ is: id });
  const desk = { ...system('a', 'Garnock Desk 5 Plain'), product: is('garnock-desk') };
  const settled = { ...desk, edition: is('studio'), patch: is('r1') };
  expect(readAgain(demoCatalogue(), [settled])).toMatchObject([
    { release: is('5'), edition: is('studio'), patch: is('r1') }
  ]);
  expect(readAgain(demoCatalogue(), [desk])).toMatchObject([{ release: is('5'), edition: is('plain') }]);
  expect(readAgain(demoCatalogue(), [{ ...desk, product: is('brindle-server') }])).toEqual([]);
  expect(readAgain(demoCatalogue(), [{ ...desk, release: is('4') }])).toEqual([]);
});
