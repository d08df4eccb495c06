// `npm test`: installs what is missing, Chromium included, runs unit and browser tests, and closes with a count.
import { spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { build, installChromium, installPackages, installServers, root } from './install.mjs';

installPackages();
const chromium = installChromium();
installServers();
build();

const results = join(root, 'test-results');
rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });
const run = (args) =>
  spawnSync('npx', ['--no-install', ...args], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, CHROMIUM: chromium }
  }).status === 0;
const read = (file) => JSON.parse(readFileSync(join(results, file), 'utf8'));

const unitOk = run([
  'vitest',
  'run',
  '--reporter=default',
  '--reporter=json',
  `--outputFile.json=${join(results, 'unit.json')}`
]);
const unit = read('unit.json');
const browserOk = run(['playwright', 'test']);
const browser = read('browser.json').stats;
const passed = unit.numPassedTests + browser.expected;
const failed = unit.numFailedTests + browser.unexpected + browser.flaky;
console.log(`${passed} passed, ${failed} failed`);
process.exit(unitOk && browserOk && failed === 0 ? 0 : 1);
