// `npm run test:touched`: of the whole suite what a change can touch, the nearest first, within a budget of 25 minutes; the rest is named
// as not run. The change: since TEST_BASE, else since the commit of the last whole run in docs/laws.md, else the newest commit.
import { execFileSync } from 'node:child_process';
import { root } from './install.mjs';
import { wholeRuns } from './law-lines.mjs';
import { testsTouchedBy } from './module-graph.mjs';
import { build, prepare, runBrowser, runUnit, sumOf, tellCount } from './suites.mjs';

const MINUTE = 60_000;
const BUDGET = Number(process.env.TEST_MINUTES ?? 25) * MINUTE;
const git = (...args) => execFileSync('git', args, { cwd: root, encoding: 'utf8' });
const isCommit = (name) => {
  try {
    git('cat-file', '-e', `${name}^{commit}`);
    return true;
  } catch {
    return false;
  }
};

const base = [process.env.TEST_BASE, ...wholeRuns(), 'HEAD~1'].find((c) => c && isCommit(c));
if (!base) {
  console.log('nothing to compare with: this is the first commit');
  process.exit(0);
}
const changed = git('diff', '--name-only', base, '--').split('\n').filter(Boolean);
const touched = testsTouchedBy(changed);
console.log(
  `${changed.length} files changed since ${base.slice(0, 12)}; ${touched.length} test files can see that`
);

const began = Date.now();
const left = () => BUDGET - (Date.now() - began);
const env = { ...prepare(), LAWS: 'tenth' };
build();
const runs = [];
const notRun = [];
/** A few at a time, so that what is slow does not keep the rest from being tried. */
async function runAll(files, size, once) {
  for (let at = 0; at < files.length; at += size) {
    const some = files.slice(at, at + size);
    if (left() < MINUTE) {
      notRun.push(...some);
      continue;
    }
    const run = await once(some, { env, within: left() });
    if (run.isOver) notRun.push(...some);
    else runs.push(run);
  }
}
await runAll(
  touched.filter((f) => f.endsWith('.test.ts')),
  6,
  (files, options) => runUnit(files, options)
);
await runAll(
  touched.filter((f) => f.endsWith('.spec.ts')),
  2,
  (files, options) => runBrowser(files, options)
);
if (notRun.length > 0) console.log(`\nnot run within ${BUDGET / MINUTE} minutes:\n  ${notRun.join('\n  ')}`);
const sum = sumOf(runs);
tellCount(sum, (Date.now() - began) / 1000);
process.exit(sum.isOk && sum.failed === 0 ? 0 : 1);
