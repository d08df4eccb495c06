// `npm run laws [FILE...]`: every law in full, or those of some test files, two shards side by side; what was seen goes to docs/laws.md.
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { installPackages, root } from './install.mjs';
import { noteLaws } from './law-lines.mjs';

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
const failed = codes.some((c) => c !== 0);
if (!failed) noteLaws(laws);
process.exit(failed ? 1 : 0);
