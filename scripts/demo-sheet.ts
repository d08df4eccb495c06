/** Writes demo/tables/pellow-terminal.xlsx: two tables under titles, as somebody keeps them in a sheet. */
import { writeFileSync } from 'node:fs';
import { strToU8, zipSync } from 'fflate';

/** Days since 1899-12-30, as sheets keep them. */
const serial = (day: string): number => Date.parse(`${day}T00:00:00Z`) / 86_400_000 + 25_569;

const ROWS: readonly (readonly (string | { readonly day: string })[])[] = [
  ['Pellow Terminal: service of releases'],
  ['Release', 'Out', 'Service ends'],
  ['11', { day: '2025-05-05' }, { day: '2031-05-31' }],
  ['12', { day: '2027-03-08' }, { day: '2032-05-31' }],
  ['13', { day: '2029-02-26' }, { day: '2034-05-31' }],
  ['14', { day: '2030-10-14' }, { day: '2036-05-31' }],
  [],
  ['Pellow Terminal: what releases need'],
  ['Part', 'Least', 'Recommended', 'Release'],
  ['Memory', '2 GB', '', '13 and later'],
  ['Whole drive', '32 GB', '', '14 and later'],
  ['Display width', '', '800 px', '14']
];

const escape = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;');
const cell = (value: string | { readonly day: string }, at: string): string =>
  typeof value === 'string'
    ? `<c r="${at}" t="inlineStr"><is><t>${escape(value)}</t></is></c>`
    : `<c r="${at}" s="1"><v>${serial(value.day)}</v></c>`;
const rows = ROWS.map(
  (row, r) => `<row r="${r + 1}">${row.map((v, c) => cell(v, `${'ABCD'[c]}${r + 1}`)).join('')}</row>`
).join('');

const MAIN = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
const RELATIONS = 'http://schemas.openxmlformats.org/package/2006/relationships';
const OFFICE = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const TYPES = 'application/vnd.openxmlformats-officedocument.spreadsheetml';
const HEAD = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>';

const files: Readonly<Record<string, string>> = {
  '[Content_Types].xml': `${HEAD}<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/xl/workbook.xml" ContentType="${TYPES}.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="${TYPES}.worksheet+xml"/><Override PartName="/xl/styles.xml" ContentType="${TYPES}.styles+xml"/></Types>`,
  '_rels/.rels': `${HEAD}<Relationships xmlns="${RELATIONS}"><Relationship Id="r1" Type="${OFFICE}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
  'xl/workbook.xml': `${HEAD}<workbook xmlns="${MAIN}" xmlns:r="${OFFICE}"><sheets><sheet name="Terminals" sheetId="1" r:id="r1"/></sheets></workbook>`,
  'xl/_rels/workbook.xml.rels': `${HEAD}<Relationships xmlns="${RELATIONS}"><Relationship Id="r1" Type="${OFFICE}/worksheet" Target="worksheets/sheet1.xml"/><Relationship Id="r2" Type="${OFFICE}/styles" Target="styles.xml"/></Relationships>`,
  'xl/styles.xml': `${HEAD}<styleSheet xmlns="${MAIN}"><fonts count="1"><font/></fonts><fills count="1"><fill/></fills><borders count="1"><border/></borders><cellStyleXfs count="1"><xf/></cellStyleXfs><cellXfs count="2"><xf numFmtId="0"/><xf numFmtId="14" applyNumberFormat="1"/></cellXfs></styleSheet>`,
  'xl/worksheets/sheet1.xml': `${HEAD}<worksheet xmlns="${MAIN}"><sheetData>${rows}</sheetData></worksheet>`
};

writeFileSync(
  'demo/tables/pellow-terminal.xlsx',
  zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])), {
    mtime: '2031-03-10T00:00:00Z'
  })
);
