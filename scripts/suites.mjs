// What `npm test`, `npm run test:full` and the check of what a change touches share: how tests are run, counted and told.
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join, relative } from 'node:path';
import { build, installChromium, installPackages, installServers, root } from './install.mjs';

export const results = join(root, 'test-results');

/** Installs what is missing; gives what tests are told of their machine. */
export function prepare() {
  installPackages();
  const chromium = installChromium();
  installServers();
  rmSync(results, { recursive: true, force: true });
  mkdirSync(results, { recursive: true });
  return { CHROMIUM: chromium };
}

/** A command of the packages, run to its end; kills it, with all it has begun, once the time is over. */
export function run(command, { env = {}, within = Infinity } = {}) {
  return new Promise((done) => {
    const child = spawn('npx', ['--no-install', ...command], {
      cwd: root,
      stdio: 'inherit',
      env: { ...process.env, ...env },
      detached: within !== Infinity
    });
    let isOver = false;
    const end = () => {
      isOver = true;
      process.kill(-child.pid, 'SIGKILL');
    };
    const timer = within === Infinity ? undefined : setTimeout(end, within);
    child.on('exit', (code) => {
      clearTimeout(timer);
      done({ isOk: code === 0, isOver });
    });
  });
}

/** Builds beside whatever else is run. */
export const buildAside = async () => {
  const { isOk } = await run([
    'node',
    '--input-type=module',
    '-e',
    `import('${join(root, 'scripts', 'install.mjs')}').then((m) => m.build())`
  ]);
  if (!isOk) throw new Error('the application could not be built');
};
export { build };

const read = (name) => {
  const file = join(results, name);
  return existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : undefined;
};

/** Unit tests: all, or those of some files, or a shard of them. */
export async function runUnit(args, options = {}, name = 'unit.json') {
  const reporters = ['--reporter=default', '--reporter=json', `--outputFile.json=${join(results, name)}`];
  const { isOk, isOver } = await run(['vitest', 'run', ...reporters, ...args], options);
  const found = read(name);
  const files = (found?.testResults ?? []).map((f) => ({
    file: relative(root, f.name),
    ms: f.endTime - f.startTime
  }));
  return { isOk, isOver, passed: found?.numPassedTests ?? 0, failed: found?.numFailedTests ?? 0, files };
}

/** Browser tests, in the same way. */
export async function runBrowser(args, options = {}, name = 'browser.json') {
  const env = { ...options.env, BROWSER_RESULTS: join(results, name) };
  const { isOk, isOver } = await run(['playwright', 'test', ...args], { ...options, env });
  const found = read(name);
  const times = new Map();
  const walk = (suite, file) => {
    for (const spec of suite.specs ?? [])
      for (const { results: tries } of spec.tests)
        times.set(file, (times.get(file) ?? 0) + tries.reduce((n, r) => n + r.duration, 0));
    for (const inner of suite.suites ?? []) walk(inner, file);
  };
  for (const suite of found?.suites ?? []) walk(suite, join('tests/browser', suite.file));
  const { expected = 0, unexpected = 0, flaky = 0 } = found?.stats ?? {};
  return {
    isOk,
    isOver,
    passed: expected,
    failed: unexpected + flaky,
    files: [...times].map(([file, ms]) => ({ file, ms }))
  };
}

/** The sum of several runs. */
export const sumOf = (runs) => ({
  isOk: runs.every((r) => r.isOk),
  passed: runs.reduce((n, r) => n + r.passed, 0),
  failed: runs.reduce((n, r) => n + r.failed, 0),
  files: runs.flatMap((r) => r.files)
});

/** The ten slowest files, then the count, which stands last and alone on its line. */
export function tellCount({ isOk, passed, failed, files }, seconds) {
  console.log(`\nThe ten slowest files of ${files.length}, in seconds; ${Math.round(seconds)} s in all:`);
  const slowest = [...files].sort((a, b) => b.ms - a.ms).slice(0, 10);
  for (const { file, ms } of slowest) console.log(`${(ms / 1000).toFixed(1).padStart(7)}  ${file}`);
  // A suite that could not begin has no test that failed, and is no success.
  if (!isOk && failed === 0) console.error('\nA suite ended without having run: see above.');
  console.log(`\n${passed} passed, ${failed} failed`);
}
