/** `npm run bench:import`: what understanding a list costs against parsing it bare (DESIGN section 6); writes docs/benchmarks.md. Bundled first, as the application is. */
import { readFileSync } from 'node:fs';
import Papa from 'papaparse';
import { kindsOf } from '../src/core/estate/facts';
import { parseCatalogue } from '../src/core/exchange/catalogue-file';
import { parseCsv } from '../src/core/exchange/csv-in';
import { readRows } from '../src/core/exchange/import-rows';
import { suggestMapping } from '../src/core/exchange/mapping';
import { previewImport } from '../src/core/exchange/preview-import';
import { importWords } from '../src/core/wording/system';
import type { System } from '../src/core/estate/schema';
import { writePart } from './sections';

const RUNS = [
  'Garnock Desk 4 r1 Studio',
  'Garnock Desk 5 r1 Plain',
  'Brindle Server 9',
  'Brindle Server 8 u2',
  'Pellow Terminal 13 k1',
  'Marram Draft 22 a Site wide word'
];
const read = parseCatalogue(readFileSync('demo/catalogue.yaml', 'utf8'));
if (!read.ok) throw new Error('the demo cannot be read');
const catalogue = read.value;
const kinds = kindsOf(catalogue);

const listOf = (rows: number): string =>
  [
    'Name,OS,Team,Site,Memory (GB),Whole disk,Seen,Note',
    ...Array.from(
      { length: rows },
      (_, i) =>
        `machine-${i},${RUNS[i % 6] ?? ''},Team ${i % 40},Site ${i % 9},${4 + (i % 3)},${240 + (i % 5)} GB,2031-02-${10 + (i % 18)},note ${i}`
    )
  ].join('\n');

function time<T>(work: () => T): { ms: number; value: T } {
  let ms = Infinity;
  let value = work();
  for (let i = 0; i < 4; i++) {
    // What earlier runs left behind is not this run's to sweep.
    (globalThis as { gc?: () => void }).gc?.();
    const start = performance.now();
    value = work();
    ms = Math.min(ms, performance.now() - start);
  }
  return { ms, value };
}

function understand(csv: string, existing: readonly System[]) {
  const table = parseCsv(csv);
  if (!table.ok) throw new Error('list');
  const { rows } = table.value;
  const mapping = suggestMapping(rows, { kinds });
  if (!mapping) throw new Error('heading');
  return previewImport(
    readRows(rows, mapping, kinds),
    {
      catalogue,
      existing,
      source: 'list',
      today: '2031-03-10'
    },
    importWords
  );
}

const lines = [10_000, 100_000].map((rows) => {
  const csv = listOf(rows);
  const bare = time(() => Papa.parse(csv, { delimiter: ',' })).ms;
  const fresh = time(() => understand(csv, []));
  const again = time(() => understand(csv, fresh.value.taken)).ms;
  return `| ${rows} | ${(fresh.ms / bare).toFixed(1)} | ${(again / bare).toFixed(1)} | ${bare.toFixed(0)} | ${fresh.ms.toFixed(0)} | ${again.toFixed(0)} |`;
});
writePart('Bringing in', [
  'Written by `npm run bench:import`. A list of eight columns, two of them facts; least of four runs after one to warm up.',
  'Understanding is everything from the text to the preview: columns, versions, facts, comparing with what is there. Bar: 5.',
  '',
  '| rows | first time / bare parsing | again / bare parsing | bare, ms | first time, ms | again, ms |',
  '|---:|---:|---:|---:|---:|---:|',
  ...lines
]);
console.log(lines.join('\n'));
