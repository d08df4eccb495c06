// `npm run laws`: every law in full, two shards side by side, and what was seen written to docs/laws.md.
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

const began = Date.now();
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
const rows = [...laws].sort().map(
  ([law, sums]) =>
    `| ${law} | ${Object.entries(sums)
      .map(([name, n]) => `${name} ${n}`)
      .join(', ')} |`
);
const failed = codes.some((c) => c !== 0);
if (only.length === 0 && !failed)
  writeFileSync(
    join(root, 'docs', 'laws.md'),
    `# Laws

Written by \`npm run laws\`, which tries every law in full (${Math.round((Date.now() - began) / 60_000)} minutes in two shards); CI tries a tenth of each.
Every one of them held. What a trait is counted in - targets, routes, estates - stands in its test.

| law | seen |
|---|---|
${rows.join('\n')}
`
  );
process.exit(failed ? 1 : 0);
