import { readFileSync } from 'node:fs';
import { parse as parseYaml, stringify } from 'yaml';
import { expect, test } from 'vitest';
import { POST } from '../../src/routes/api/plan/+server';
import { parseCatalogue } from '../../src/core/exchange/catalogue-file';
import { parseCsv } from '../../src/core/exchange/csv-in';
import { decodeText } from '../../src/core/exchange/decode-text';
import { parseEstate } from '../../src/core/exchange/estate-file';
import { FactKinds } from '../../src/core/condition/fact-kind';
import { readRows } from '../../src/core/exchange/import-rows';
import { previewImport } from '../../src/core/exchange/preview-import';
import { suggestMapping, type Mapping } from '../../src/core/exchange/mapping';
import { formatPlanCsv, PLAN_COLUMNS } from '../../src/core/exchange/plan-csv';
import { planFileOf } from '../../src/core/exchange/plan-file';
import { planFileSchema } from '../../src/core/exchange/plan-file-schema';
import { planWordsOf } from '../../src/core/wording/plan-words';
import { importWords } from '../../src/core/wording/system';
import { formatWorkspace, parseWorkspace } from '../../src/core/exchange/workspace-file';
import { readWorkspaceLines } from '../../src/core/exchange/workspace-lines';
import { planInDepth } from '../../src/core/plan/plan';
import { outlineAt } from '../../src/core/catalogue/outline';
import { writeCatalogue } from '../../src/core/exchange/revise-catalogue';
import { readingKey } from '../../src/core/estate/situation';
import { makeDemoText } from '../../scripts/make-demo';
import { SCHEMA_FOLDER, schemaFiles } from '../../scripts/write-schemas';
import { demoCatalogue, demoCatalogueText, demoInput, demoPlan, littleInput } from '../support/demo';
import { pathsOf } from '../support/edits';

test('every format version ever published is still read', () => {
  const catalogue = parseCatalogue(readFileSync('tests/fixtures/formats/catalogue-1.yaml', 'utf8'));
  expect(catalogue).toMatchObject({ ok: true });
  if (catalogue.ok) expect(catalogue.value.products[0]?.releases[1]?.id).toBe('1.50');
  expect(parseCatalogue(readFileSync('tests/fixtures/formats/catalogue-2.yaml', 'utf8'))).toMatchObject({
    ok: true
  });
  for (const version of [1, 2, 3, 4, 5, 6, 7])
    expect(
      parseWorkspace(readFileSync(`tests/fixtures/formats/workspace-${version}.json`, 'utf8'))
    ).toMatchObject({
      ok: true
    });
});

test('a workspace of a record a line is the same as one JSON, on the screen and on the command line', async () => {
  const [whole, lines] = ['workspace-7.json', 'workspace-lines-7.jsonl'].map((name) =>
    readFileSync(`tests/fixtures/formats/${name}`)
  ) as [Buffer, Buffer];
  expect(await readWorkspaceLines([lines])).toEqual(parseWorkspace(whole.toString()));
  const [one, other] = await Promise.all(
    [whole, lines].map((bytes) => parseEstate(bytes, 'file', undefined, '2031-03-10'))
  );
  expect(one).toMatchObject({ ok: true });
  expect(other).toEqual(one);
});

test('the fixture of this version has every field there is, and is written again as it means', () => {
  const text = readFileSync('tests/fixtures/formats/catalogue-3.yaml', 'utf8');
  const read = parseCatalogue(text);
  if (!read.ok) throw new Error(JSON.stringify(read.issues));
  const again = parseCatalogue(writeCatalogue(read.value));
  expect(again).toEqual(read);
  const old = readFileSync('tests/fixtures/formats/catalogue-1.yaml', 'utf8');
  const said = new Set(
    [...pathsOf(read.value), ...pathsOf(parseCatalogue(old))].flatMap((p) =>
      p.filter((s) => typeof s === 'string')
    )
  );
  const product = outlineAt(['products', 0]).map((f) => f.key);
  expect(product.filter((key) => !said.has(key))).toEqual([]);
  for (const list of product)
    expect(
      outlineAt(['products', 0, list, 0])
        .map((f) => f.key)
        .filter((key) => !said.has(key)),
      list
    ).toEqual([]);
});

test('the workspace fixture of this version has every field there is', () => {
  const keysOf = (value: unknown, properties: boolean): string[] => {
    if (Array.isArray(value)) return value.flatMap((v) => keysOf(v, properties));
    if (typeof value !== 'object' || value === null) return [];
    return Object.entries(value).flatMap(([key, v]) => [
      ...(!properties || key === 'properties' ? (properties ? Object.keys(v as object) : [key]) : []),
      ...keysOf(v, properties)
    ]);
  };
  const read = (path: string): unknown => JSON.parse(readFileSync(path, 'utf8'));
  const said = new Set(keysOf(read('tests/fixtures/formats/workspace-7.json'), false));
  const fields = keysOf(read('static/schemas/workspace-7.schema.json'), true);
  expect(fields.length).toBeGreaterThan(100);
  expect(fields.filter((f) => !said.has(f))).toEqual([]);
});

test('a catalogue means the same as YAML and as JSON', () => {
  const yaml = parseCatalogue(demoCatalogueText());
  const json = parseCatalogue(JSON.stringify(demoCatalogue()));
  expect(json).toEqual(yaml);
  expect(parseCatalogue(stringify(demoCatalogue()))).toEqual(yaml);
  expect(parseYaml(demoCatalogueText())).toBeDefined();
});

test('a workspace goes out and comes in as it was', () => {
  const text = readFileSync('demo/saltmarsh.json', 'utf8');
  const read = parseWorkspace(text);
  if (!read.ok) throw new Error('demo');
  const { format: _format, version: _version, catalogue, ...estate } = read.value;
  void [_format, _version];
  expect(formatWorkspace(estate, catalogue)).toBe(text);
});

test('what is generated and kept is what would be generated now', () => {
  expect(readFileSync('demo/saltmarsh.json', 'utf8')).toBe(makeDemoText());
  for (const [name, text] of schemaFiles())
    expect(readFileSync(`${SCHEMA_FOLDER}/${name}`, 'utf8'), name).toBe(text);
});

function messy() {
  const decoded = decodeText(readFileSync('demo/messy-machines.csv'));
  const table = parseCsv(decoded.text);
  if (!table.ok) throw new Error('messy');
  const mapping = suggestMapping(table.value.rows) as Mapping;
  const context = {
    catalogue: demoCatalogue(),
    existing: demoInput().estate.systems,
    source: 'messy',
    today: '2031-03-10'
  };
  const records = readRows(table.value.rows, mapping, new FactKinds(context.catalogue.facts));
  return {
    decoded,
    records,
    mapping,
    context,
    preview: previewImport(records, context, importWords)
  };
}

test('the messy list is understood row by row, and nothing is guessed', () => {
  const { decoded, mapping, preview } = messy();
  expect(decoded).toMatchObject({ encoding: 'UTF-8', hadMark: true });
  expect(mapping.headerRow).toBe(3);
  const say = preview.rows.map((r) => {
    const s = r.system;
    return `${r.row} ${r.fate}${r.reason ? ` ${r.reason.code}` : ''}${s && r.fate !== 'not taken' ? ` ${[s.product, s.release, s.patch, s.edition].map(readingKey).join(' ')}` : ''}`;
  });
  expect(say).toEqual([
    '5 new garnock-desk 4 r1 studio',
    '6 new garnock-desk 4 r1 studio',
    '7 new garnock-desk 4 r2 studio',
    '8 new garnock-desk 4 r1 studio',
    '9 new garnock-desk ? ? studio',
    '10 not taken repeats',
    '11 new garnock-desk ?4|5 ?r1 ?plain',
    '12 new garnock-desk ? ? ?plain',
    '13 new garnock-desk ?4|5 ? ?plain',
    '14 not taken missing-name',
    '15 new garnock-desk 6 r1 bureau',
    '16 new brindle-server 7 ? only',
    '17 not taken older-reading',
    '18 new brindle-server 9 base only',
    '19 new brindle-server 9 base only',
    '20 new ossian-shelf 31.4 p7 only',
    '21 new ? ? ? ?',
    '22 new garnock-desk 3 r5 office'
  ]);
});

test('taking the same list in again changes nothing', () => {
  const { records, context, preview } = messy();
  const now = [...context.existing, ...preview.taken];
  const again = previewImport(records, { ...context, existing: now }, importWords);
  expect(again.taken).toEqual([]);
  expect(new Set(again.rows.map((r) => r.fate))).toEqual(new Set(['same', 'not taken']));
});

test('the plan leaves as its published schema says, in JSON and in rows', () => {
  const input = demoInput();
  const { plan: result, wait } = planInDepth(input);
  const file = planFileOf(result, planWordsOf(input.catalogue), undefined, wait(120));
  expect(file.waiting?.some((s) => s.without.length > 0)).toBe(true);
  expect(new Set(file.waiting?.flatMap((s) => s.causes.map((c) => c.kind)))).toEqual(
    new Set(['right', 'closes', 'pool'])
  );
  expect(planFileSchema.parse(JSON.parse(JSON.stringify(file)))).toEqual(file);
  const rows = (everyTarget: boolean): string[][] => {
    const table = parseCsv(
      formatPlanCsv({
        plan: result,
        catalogue: input.catalogue,
        estate: input.estate,
        words: planWordsOf(input.catalogue),
        everyTarget
      })
    );
    return table.ok ? table.value.rows.map((r) => [...r]) : [];
  };
  const [header, ...goalRows] = rows(false);
  expect(header).toEqual([...PLAN_COLUMNS]);
  expect(goalRows.length).toBe(input.estate.systems.length);
  expect(rows(true).length - 1).toBe(
    result.cases.reduce((n, c) => n + c.systems.length * Math.max(1, c.targets.length), 0)
  );
  const at = (column: (typeof PLAN_COLUMNS)[number]): number => PLAN_COLUMNS.indexOf(column);
  const sum = (column: (typeof PLAN_COLUMNS)[number]): number =>
    goalRows.reduce((n, r) => n + Number(r[at(column)]), 0);
  const total = (of: (t: (typeof result.rights)[number]) => number | 'unknown'): number =>
    result.rights.reduce((n, t) => n + Number(of(t)), 0);
  expect(sum('rights_needed')).toBe(total((t) => t.needed));
  expect(sum('rights_to_buy')).toBe(total((t) => t.toBuy));
});

test('rights to buy are what is needed beyond what is held', () => {
  const { rights, pools } = demoPlan();
  expect(rights.length).toBeGreaterThan(3);
  for (const t of rights) expect(t.toBuy).toBe(Number(t.needed) - t.drawn - t.short);
  for (const p of pools) expect(p.remainder).toBe(Number(p.held) - p.drawn);
  const sum = (numbers: readonly number[]): number => numbers.reduce((a, b) => a + b, 0);
  expect(sum(rights.map((t) => t.drawn))).toBe(sum(pools.map((p) => p.drawn)));
  // Six are held of any edition: the dearer of the two that want them gets them.
  const offers = rights.filter((t) => t.right === 'desk-offer-5');
  expect(offers.map((t) => [t.held, t.drawn])).toEqual([
    [6, 6],
    [6, 0]
  ]);
});

const post = async (body: string): Promise<{ status: number; text: string }> => {
  const response = await POST({
    request: new Request('http://127.0.0.1/api/plan', { method: 'POST', body })
  } as never);
  return { status: response.status, text: await response.text() };
};

test('the server plans what it is sent, the same as here', async () => {
  const { estate } = littleInput();
  const answer = await post(
    JSON.stringify({ catalogue: demoCatalogueText(), estate, today: '2031-03-10', waiting: 2 })
  );
  expect(answer.status).toBe(200);
  const { plan: here, wait } = planInDepth(littleInput());
  expect(JSON.parse(answer.text)).toEqual(
    JSON.parse(JSON.stringify(planFileOf(here, planWordsOf(demoCatalogue()), undefined, wait(2))))
  );
  const csv = await post(
    JSON.stringify({ catalogue: demoCatalogue(), estate, format: 'csv', everyTarget: true })
  );
  expect(csv.text.split('\r\n').length).toBeGreaterThan(100);
});

test.each([
  ['not JSON', '{', 400, 'syntax'],
  ['no catalogue', '{"estate": {}}', 400, 'catalogue'],
  [
    'a broken catalogue',
    JSON.stringify({
      catalogue: 'format: orange-stair-catalogue\nversion: 1\nname: n\nproducts: 3',
      estate: {}
    }),
    400,
    '"line":4'
  ],
  [
    'a day that is none',
    JSON.stringify({ catalogue: demoCatalogueText(), estate: {}, today: 'soon' }),
    400,
    'bad-today'
  ],
  ['prototype keys', '{"__proto__": {}, "catalogue": "x", "estate": {}}', 400, 'key-forbidden'],
  ['more than 32 MB', `"${'x'.repeat(33 * 1024 * 1024)}"`, 413, 'too-big']
])('the server answers %s with the place of the fault', async (_, body, status, code) => {
  const answer = await post(body);
  expect(answer.status).toBe(status);
  expect(answer.text).toContain(code);
});

test('a list of machines is an estate for the command line', async () => {
  const file = await parseEstate(
    readFileSync('demo/messy-machines.csv'),
    'messy-machines.csv',
    demoCatalogue(),
    '2031-03-10'
  );
  expect(file.ok && file.value.estate.systems.length).toBe(15);
  expect(
    await parseEstate(new TextEncoder().encode('a;b\n1;2'), 'x.csv', demoCatalogue(), '2031-03-10')
  ).toMatchObject({
    ok: false,
    issues: [{ code: 'no-header' }]
  });
});
