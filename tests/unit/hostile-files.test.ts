import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { strToU8, zipSync } from 'fflate';
import Papa from 'papaparse';
import { describe, expect, test } from 'vitest';
import { parseCatalogue } from '../../src/core/exchange/catalogue-file';
import { formatCondition } from '../../src/core/condition/format-condition';
import { parseCondition } from '../../src/core/condition/parse-condition';
import { lintCatalogue } from '../../src/core/lint/lint-catalogue';
import { parseCsv } from '../../src/core/exchange/csv-in';
import { formatCsv, restoreCell } from '../../src/core/exchange/csv-out';
import { decodeText } from '../../src/core/exchange/decode-text';
import { parseWorkspace } from '../../src/core/exchange/workspace-file';
import { formatWorkspaceLines, readWorkspaceLines } from '../../src/core/exchange/workspace-lines';
import type { Issue, Result } from '../../src/core/kit/issue';
import { describeIssue, isKnownCode } from '../../src/core/wording/issue';
import { editsOfPaste, textOfBox } from '../../src/lib/estate/grid';
import { understandFile } from '../../src/lib/workers/understand-file';
import { importersOf } from '../support/importers';
import { countOf, randomOf } from '../support/laws';
import { mutateText } from '../support/mutate-text';

const yaml = readFileSync('demo/catalogue.yaml', 'utf8');
const json = readFileSync('demo/saltmarsh.json', 'utf8');
const head = 'format: orange-stair-catalogue\nversion: 1\nname: n\n';

function codesOf(result: Result<unknown>): string[] {
  if (result.ok) return [];
  for (const issue of result.issues) {
    expect(isKnownCode(issue.code), issue.code).toBe(true);
    expect(describeIssue(issue).length).toBeGreaterThan(8);
  }
  return result.issues.map((i) => i.code);
}

describe('hostile and broken catalogues get a clear message', () => {
  const bomb = `a: &a [1,2,3,4,5,6,7,8,9]\nb: &b [*a,*a,*a,*a,*a,*a,*a,*a,*a]\nc: &c [*b,*b,*b,*b,*b,*b,*b,*b,*b]\nd: &d [*c,*c,*c,*c,*c,*c,*c,*c,*c]\ne: [*d,*d,*d,*d,*d,*d,*d,*d,*d]\n`;
  test.each([
    ['an alias bomb', head + bomb, 'too-many-aliases'],
    ['many aliases', `${head}x: &x 1\ny: [${Array(150).fill('*x').join(', ')}]`, 'too-many-aliases'],
    ['deep brackets', '['.repeat(100_000), 'too-deep'],
    ['deep blocks', Array.from({ length: 2000 }, (_, i) => `${' '.repeat(i)}a:`).join('\n'), 'too-deep'],
    ['zero bytes', `${head}\0`, 'not-text'],
    ['nothing', '  \n', 'empty'],
    ['a prototype key', `${head}products: []\n__proto__: {polluted: true}`, 'key-forbidden'],
    ['another kind', 'format: other\nversion: 1', 'wrong-format'],
    ['a list', '- 1', 'not-an-object'],
    ['a newer version', 'format: orange-stair-catalogue\nversion: 99', 'newer-version'],
    ['broken YAML', 'a: [1, 2', 'syntax'],
    ['the same key twice', `${head}products: []\nname: m`, 'syntax'],
    ['wrong types', `${head}products: 7`, 'invalid'],
    ['an unknown key', `${head}products: []\nextra: 1`, 'invalid'],
    [
      'a bad date',
      `${head}products: [{id: p, name: P, publisher: P, releases: [{id: a, published: soon}]}]`,
      'date-text'
    ],
    [
      'a hop to nowhere',
      `${head}products: [{id: p, name: P, publisher: P, releases: [{id: a, published: 2031}], hops: [{id: h, kind: in place, from: a, to: zz, kept: data, typicalMinutes: 1, carefulMinutes: 1}]}]`,
      'no-such-release'
    ],
    [
      'a loop of successors',
      `${head}products: [{id: p, name: P, publisher: P, editions: [{id: a, successor: b}, {id: b, successor: a}], releases: [{id: r, published: 2031}]}]`,
      'successor-loop'
    ],
    [
      'the same id twice',
      `${head}products: [{id: p, name: P, publisher: P, releases: [{id: a, published: 2031}, {id: a, published: 2032}]}]`,
      'duplicate-id'
    ]
  ])('%s', (_, text, code) => {
    expect(codesOf(parseCatalogue(text))).toContain(code);
    expect(({} as Record<string, unknown>)['polluted']).toBeUndefined();
  });

  test('an issue knows its line and column', () => {
    const result = parseCatalogue(yaml.replace('to: "4"\n        levels', 'to: "44"\n        levels'));
    expect(result.ok).toBe(false);
    if (!result.ok) expect(yaml.split('\n')[(result.issues[0]?.line ?? 0) - 1]).toContain('to: "4"');
  });
});

test.each([
  ['prototype keys', json.replace('"site": {', '"site": {"__proto__": {"x": 1},'), 'key-forbidden'],
  ['a negative count', json.replace('"nodes": 2', '"nodes": -2'), 'invalid'],
  ['a day that is none', json.replace('"2031-02-20"', '"2031-02-31"'), 'day'],
  ['the same system twice', json.replace('"id": "draw-02"', '"id": "draw-01"'), 'duplicate-id'],
  ['half a file', json.slice(0, 5000), 'syntax'],
  ['a broken catalogue inside', json.replace('hopTable: complete', 'hopTable: perhaps'), 'catalogue'],
  [
    'deep nesting',
    `{"format":"orange-stair-workspace","x":${'['.repeat(300)}${']'.repeat(300)}}`,
    'too-deep'
  ],
  ['a newer version', json.replace(/"version": \d+/, '"version": 99'), 'newer-version']
])('a workspace with %s is refused whole', (_, text, code) => {
  expect(text).not.toBe(json);
  expect(codesOf(parseWorkspace(text))).toContain(code);
});

test('mutated files never escape as a throw', () => {
  const random = randomOf(5);
  for (const [text, read] of [
    [yaml, parseCatalogue],
    [json, parseWorkspace],
    ['name;os\na;b\n"c;d\n', parseCsv]
  ] as const)
    for (let i = 0; i < countOf(200); i++) codesOf(read(mutateText(random, text)));
});

test('a workspace of a record a line is read however its bytes are cut, and a spoilt one never escapes nor is taken in part', async () => {
  const whole = parseWorkspace(json);
  if (!whole.ok) throw new Error('demo');
  const { catalogue, format: _format, version: _version, ...estate } = whole.value;
  void [_format, _version];
  const text = [...formatWorkspaceLines(estate, catalogue)].join('');
  const random = randomOf(15);
  const readInParts = (bytes: Uint8Array): ReturnType<typeof readWorkspaceLines> => {
    const chunks: Uint8Array[] = [];
    for (let at = 0; at < bytes.length;) {
      const next = at + random.int(1, 70_000);
      chunks.push(bytes.subarray(at, next));
      at = next;
    }
    return readWorkspaceLines(chunks);
  };
  expect(await readInParts(strToU8(text))).toEqual(whole);
  expect(await readInParts(strToU8(text.trimEnd().replaceAll('\n', '\r\n')))).toEqual(whole);
  const lines = text.trimEnd().split('\n');
  const refused = async (changed: readonly string[]): Promise<Issue | undefined> => {
    const read = await readInParts(strToU8(changed.join('\n')));
    return read.ok ? undefined : read.issues[0];
  };
  expect(await refused(lines.slice(0, -1))).toMatchObject({ code: 'other-number' });
  expect(await refused(lines.slice(1))).toMatchObject({ code: 'wrong-format', line: 1 });
  expect(await refused(lines.with(2, lines[1] ?? ''))).toMatchObject({ code: 'duplicate-id' });
  expect(await refused(lines.with(7, '{"id":'))).toMatchObject({ code: 'syntax', line: 8 });
  expect(await refused(lines.with(7, '{"__proto__":{}}'))).toMatchObject({ code: 'key-forbidden', line: 8 });
  expect(await refused(lines.with(0, lines[0]?.replace('"version":7', '"version":99') ?? ''))).toMatchObject({
    code: 'newer-version',
    line: 1
  });
  expect(await refused([])).toMatchObject({ code: 'empty' });
  const bad = strToU8(text);
  bad[text.indexOf('\n') + 40] = 0xff;
  expect(await readInParts(bad)).toMatchObject({ ok: false, issues: [{ code: 'not-utf-8', line: 2 }] });
  const small = { ...estate, systems: estate.systems.slice(0, 6) };
  const few = [...formatWorkspaceLines(small, { fileName: '', text: '' })].join('');
  for (let i = 0; i < countOf(300); i++) {
    const read = await readInParts(strToU8(mutateText(random, few)));
    if (read.ok) expect(read.value.systems).toHaveLength(6);
  }
});

test('mutated texts of every way in are read or refused, quickly, and what is taken can be stored', () => {
  const catalogue = parseCatalogue(yaml);
  if (!catalogue.ok) throw new Error('demo');
  const small = readFileSync('tests/fixtures/formats/workspace-7.json', 'utf8');
  for (const importer of importersOf(catalogue.value, small)) {
    const random = randomOf(8);
    expect(importer.read(importer.text), importer.name).toBe(true);
    const began = process.cpuUsage();
    importer.read(importer.text);
    // Against the text as it was, so that it holds on a slow machine as well.
    const own = Math.max(10, process.cpuUsage(began).user / 1000);
    let taken = 0;
    // Long after the tries asked for one that is taken must have come up.
    for (let i = 0; i < countOf(800) || (taken === 0 && i < 8000); i++) {
      const before = process.cpuUsage();
      if (importer.read(mutateText(random, importer.text))) taken++;
      expect(process.cpuUsage(before).user / 1000, importer.name).toBeLessThan(100 * own);
    }
    expect(taken, importer.name).toBeGreaterThan(0);
  }
});

test('mutated conditions and catalogues are read or refused, quickly, with a place', () => {
  const random = randomOf(6);
  const kept = readFileSync('tests/fixtures/formats/catalogue-3.yaml', 'utf8');
  const condition =
    'memory at least 8 GB and (model is one of (P3, "P 4") or not every linked peer (release in (from 4/r2)))';
  for (let i = 0; i < countOf(5000); i++) {
    const text = mutateText(random, condition);
    const parsed = parseCondition(text);
    if ('fault' in parsed) expect(parsed.fault.at).toBeLessThanOrEqual(text.length);
    else expect(parseCondition(formatCondition(parsed.condition))).toEqual(parsed);
  }
  for (let i = 0; i < countOf(800); i++) {
    const result = parseCatalogue(mutateText(random, kept));
    codesOf(result);
    if (result.ok) expect(lintCatalogue(result.value, 22_000).length).toBeGreaterThan(-1);
  }
});

test('no cell that leaves can be taken for a formula, and what leaves is read back', () => {
  const risky = fc
    .tuple(
      fc.constantFrom('', ' ', '\t', '\u00a0', '\u200b', '\u2060', '\u200d', '\u202e', '\u3000'),
      fc.constantFrom('=', '+', '-', '@', '\t', '\r', '＝'),
      fc.string()
    )
    .map((p) => p.join(''));
  fc.assert(
    fc.property(fc.array(fc.oneof(risky, fc.string()), { minLength: 2, maxLength: 4 }), (row) => {
      const [read = []] = Papa.parse<string[]>(formatCsv([row]), { newline: '\r\n', delimiter: ',' }).data;
      read.forEach((cell, i) => {
        expect(cell === row[i] || cell === `'${row[i]}`).toBe(true);
        expect(/^[\s\p{Cf}]*[=+@＝]/u.test(cell)).toBe(false);
        expect(restoreCell(cell)).toBe(row[i]);
      });
    }),
    { seed: 4 }
  );
  expect(formatCsv([[-26, '-26.5', '-1+1', '=cmd|x']])).toBe("-26,-26.5,'-1+1,'=cmd|x\r\n");
});

test('cells copied into a spreadsheet are no formulas either, and pasted back are what they were', () => {
  const cells = fc.oneof(fc.constantFrom('=1+1', '\u200b=1', '+a\nb', "'=x", '-26', '＝1', 'a'), fc.string());
  fc.assert(
    fc.property(cells, cells, (a, b) => {
      const box = { top: 0, bottom: 0, left: 0, right: 1 };
      const text = textOfBox(box, (_, column) => (column === 0 ? a : b));
      const [copied = []] = Papa.parse<string[]>(text, { delimiter: '\t' }).data;
      for (const cell of copied) expect(/^[\s\p{Cf}]*[=+@＝]/u.test(cell)).toBe(false);
      const columns = ['x', 'y'].map((id) => ({ id, name: id, width: 10 }));
      const into = { columns, count: 1, allowNew: false, keyOf: () => 'r' };
      expect(editsOfPaste(text, box, into).map((e) => e.text)).toEqual([a, b]);
    }),
    { seed: 5 }
  );
});

test('bytes are decoded as people have them', () => {
  const utf16 = (text: string): Uint8Array =>
    Uint8Array.from([...text].flatMap((c) => [c.charCodeAt(0) & 255, c.charCodeAt(0) >> 8]));
  expect(decodeText(Uint8Array.from([0xef, 0xbb, 0xbf, 0x61]))).toEqual({
    text: 'a',
    encoding: 'UTF-8',
    hadMark: true
  });
  expect(decodeText(utf16('\ufeffname;os'))).toEqual({ text: 'name;os', encoding: 'UTF-16', hadMark: true });
  expect(decodeText(utf16('name;os;team'))).toEqual({
    text: 'name;os;team',
    encoding: 'UTF-16',
    hadMark: false
  });
  expect(decodeText(Uint8Array.from([0x43, 0x61, 0x66, 0xe9]))).toEqual({
    text: 'Café',
    encoding: 'Windows-1252',
    hadMark: false
  });
});

test.each([',', ';', '\t', '|'])('the separator %j is found', (separator) => {
  const text = [
    ['name', 'os, edition', 'team'],
    ['a', 'b', 'c'],
    ['d', 'e', 'f']
  ]
    .map((r) => r.map((c) => `"${c}"`).join(separator))
    .join('\r\n');
  const table = parseCsv(text);
  expect(table.ok && table.value.rows[0]).toEqual(['name', 'os, edition', 'team']);
});

describe('spreadsheets', () => {
  const sheet = (rows: string[][]): Uint8Array => {
    const cells = (row: string[], r: number): string =>
      row
        .map((c, i) => `<c r="${String.fromCharCode(65 + i)}${r + 1}" t="inlineStr"><is><t>${c}</t></is></c>`)
        .join('');
    const ns = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
    const rel = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
    return zipSync({
      '[Content_Types].xml': strToU8(
        '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"/>'
      ),
      'xl/workbook.xml': strToU8(
        `<workbook xmlns="${ns}" xmlns:r="${rel}"><sheets><sheet name="List" sheetId="1" r:id="rId1"/></sheets></workbook>`
      ),
      'xl/_rels/workbook.xml.rels': strToU8(
        `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="${rel}/worksheet" Target="worksheets/sheet1.xml"/></Relationships>`
      ),
      'xl/worksheets/sheet1.xml': strToU8(
        `<worksheet xmlns="${ns}"><sheetData>${rows.map((row, i) => `<row r="${i + 1}">${cells(row, i)}</row>`).join('')}</sheetData></worksheet>`
      )
    });
  };

  test('a sheet is read as a list', async () => {
    const bytes = sheet([
      ['Machine', 'What it runs'],
      ['box', 'Garnock Desk 5 Plain']
    ]);
    const read = await understandFile(new Blob([Uint8Array.from(bytes)]), 'list.xlsx');
    expect(read.ok && read.value).toMatchObject({
      kind: 'list',
      rows: [
        ['Machine', 'What it runs'],
        ['box', 'Garnock Desk 5 Plain']
      ],
      mapping: { headerRow: 0, columns: { name: 0, installed: 1 } }
    });
  });

  test('what is no sheet is refused with a message', async () => {
    expect(
      codesOf(
        await understandFile(new Blob([Uint8Array.from(zipSync({ 'a.txt': strToU8('x') }))]), 'list.xlsx')
      )
    ).toEqual(['unreadable-sheet']);
    expect(
      codesOf(await understandFile(new Blob([Uint8Array.from([0x50, 0x4b, 3, 4, 0, 0])]), 'list.xlsx'))
    ).toEqual(['unreadable-sheet']);
  });

  test('a sheet that swells beyond the limit is not unpacked', async () => {
    const zip = sheet([['a']]);
    const swollen = zip.map((b) => b);
    const view = new DataView(swollen.buffer);
    for (let i = 0; i + 46 < swollen.length; i++)
      if (view.getUint32(i, true) === 0x02014b50) view.setUint32(i + 24, 0x7fffffff, true);
    expect(codesOf(await understandFile(new Blob([Uint8Array.from(swollen)]), 'list.xlsx'))).toEqual([
      'too-big'
    ]);
  });
});

test('a table that spells one companion in two ways, and says two things of it, says nothing new the second time', () => {
  const demo = parseCatalogue(readFileSync('demo/catalogue.yaml', 'utf8'));
  if (!demo.ok) throw new Error('demo');
  const tables = importersOf(demo.value, '').find((i) => i.name === 'tables of other kinds');
  const rows = '<tr><td>Ring<<td>works<tr><td>Ring<td>needs 3.1';
  expect(tables?.read(`<h2>Brindle Server 9 and later</h2><table><tr><th>Driver<th>8${rows}</table>`)).toBe(
    true
  );
});
