// `npm run laws [FILE...]`: every law in full, or those of some test files, two shards side by side; what was seen goes to docs/laws.md.
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { installPackages, root } from './install.mjs';

installPackages();
const SHARDS = 2;
const folder = join(root, 'test-results', 'laws');
rmSync(folder, { recursive: true, force: true });
mkdirSync(folder, { recursive: true });
const only = process.argv.slice(2);

const runShard = (shard) =>
  new Promise((resolve) => {
    const child = spawn('npx', ['--no-install', 'vitest', 'run', '--maxWorkers=1', ...only], {
      cwd: root,
      stdio: 'inherit',
      env: {
        ...process.env,
        LAWS: 'all',
        SHARD: `${shard}/${SHARDS}`,
        LAWS_FILE: join(folder, `${shard}.jsonl`)
      }
    });
    child.on('exit', resolve);
  });

const codes = await Promise.all(Array.from({ length: SHARDS }, (_, i) => runShard(i)));
const laws = new Map();
for (let i = 0; i < SHARDS; i++) {
  const file = join(folder, `${i}.jsonl`);
  const lines = existsSync(file) ? readFileSync(file, 'utf8').trim().split('\n').filter(Boolean) : [];
  for (const { law, seen } of lines.map((l) => JSON.parse(l))) {
    const sums = laws.get(law) ?? {};
    for (const [name, n] of Object.entries(seen)) sums[name] = (sums[name] ?? 0) + n;
    laws.set(law, sums);
  }
}
// What was run before and not now stays as it was seen then.
const file = join(root, 'docs', 'laws.md');
const rows = new Map();
for (const line of existsSync(file) ? readFileSync(file, 'utf8').split('\n') : []) {
  const cells = line.split('|').map((c) => c.trim());
  if (/^\d{4}-/.test(cells[3] ?? '')) rows.set(cells[1], [cells[2], cells[3]]);
}
const today = new Date().toISOString().slice(0, 10);
for (const [law, sums] of laws) {
  const seen = Object.entries(sums).map(([name, n]) => `${name} ${n}`);
  rows.set(law, [seen.join(', '), today]);
}
const failed = codes.some((c) => c !== 0);
if (!failed)
  writeFileSync(
    file,
    `# Laws

Written by \`npm run laws\`, which tries every law in full, or the test files it is given; CI tries a tenth of each.
Every one of them held. What a trait is counted in - targets, routes, estates - stands in its test.

| law | seen | in full on |
|---|---|---|
${[...rows]
  .sort()
  .map(([law, [seen, day]]) => `| ${law} | ${seen} | ${day} |`)
  .join('\n')}
`
  );
process.exit(failed ? 1 : 0);
