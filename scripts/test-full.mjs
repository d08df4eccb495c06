// `npm run test:full [-- --shard 2/4]`: every unit test with a tenth of every law, every browser test, or one of several equal parts of
// them, so that several machines can share them. What was run is written as a line into docs/laws.md.
import { execFileSync } from 'node:child_process';
import { parseArgs } from 'node:util';
import { root } from './install.mjs';
import { noteRun } from './law-lines.mjs';
import { buildAside, prepare, runBrowser, runUnit, sumOf, tellCount } from './suites.mjs';

const { shard } = parseArgs({ options: { shard: { type: 'string' } } }).values;
if (shard !== undefined && !/^\d+\/\d+$/.test(shard)) {
  console.error('--shard is a part of several, as in --shard 2/4');
  process.exit(2);
}
const began = Date.now();
const part = shard === undefined ? [] : ['--shard', shard];
const env = { ...prepare(), LAWS: 'tenth' };
const building = buildAside();
const unit = await runUnit(part, { env });
await building;
const browser = await runBrowser(part, { env });
const sum = sumOf([unit, browser]);
const commit = execFileSync('git', ['rev-parse', '--short', 'HEAD'], { cwd: root, encoding: 'utf8' }).trim();
const isClean = execFileSync('git', ['status', '--porcelain'], { cwd: root, encoding: 'utf8' }).trim() === '';
noteRun({ commit: isClean ? commit : `${commit} and more`, shard, ...sum });
tellCount(sum, (Date.now() - began) / 1000);
process.exit(sum.isOk && sum.failed === 0 ? 0 : 1);
