// docs/laws.md: what laws were tried in full, and a line for every run of the whole suite. Read and written in this one place.
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './install.mjs';

const FILE = join(root, 'docs', 'laws.md');
const today = () => new Date().toISOString().slice(0, 10);

/** Rows of the tables as they stand there: laws by name, and runs, the oldest first. */
function readRows() {
  const laws = new Map();
  const runs = [];
  for (const line of existsSync(FILE) ? readFileSync(FILE, 'utf8').split('\n') : []) {
    const cells = line.split('|').map((c) => c.trim());
    if (/^\d{4}-/.test(cells[3] ?? '')) laws.set(cells[1], [cells[2], cells[3]]);
    else if (/^\d{4}-/.test(cells[2] ?? '')) runs.push(cells.slice(1, 6));
  }
  return { laws, runs };
}

function write({ laws, runs }) {
  const lawRows = [...laws].sort().map(([law, [seen, day]]) => `| ${law} | ${seen} | ${day} |`);
  const runRows = runs.slice(-40).map((cells) => `| ${cells.join(' | ')} |`);
  writeFileSync(
    FILE,
    `# Laws

\`npm test\` tries a hundredth of every law, \`npm run test:full\` a tenth, \`npm run laws\` all of it, or of the test files it is given.
Every one of them held in full. What a trait is counted in - targets, routes, estates - stands in its test.

| law | seen | in full on |
|---|---|---|
${lawRows.join('\n')}

## Runs of the whole suite

Written by \`npm run test:full\`: a line a run, the newest last.

| commit | day | part | tried | failed |
|---|---|---|---|---|
${runRows.join('\n')}
`
  );
}

/** Laws tried in full today, with what was seen; what was tried before and not now stays as it was seen then. */
export function noteLaws(seen) {
  const rows = readRows();
  for (const [law, sums] of seen)
    rows.laws.set(law, [
      Object.entries(sums)
        .map(([name, n]) => `${name} ${n}`)
        .join(', '),
      today()
    ]);
  write(rows);
}

/** A run of the whole suite, or of a part of it. */
export function noteRun({ commit, shard = 'all', passed, failed }) {
  const rows = readRows();
  rows.runs.push([commit, today(), shard, `${passed + failed} tests, a tenth of the laws`, String(failed)]);
  write(rows);
}

/** The commits of earlier runs of all of it in which nothing failed, the newest first. */
export const wholeRuns = () =>
  readRows()
    .runs.filter(([, , shard, , failed]) => shard === 'all' && failed === '0')
    .map(([commit]) => commit)
    .reverse();
