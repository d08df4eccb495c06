// `npm test`: installs what is missing, Chromium included, runs unit tests with a hundredth of every law and the browser tests that
// walk each place, and closes with the ten slowest files and a count. Everything there is: `npm run test:full`.
import { buildAside, prepare, runBrowser, runUnit, sumOf, tellCount } from './suites.mjs';

const began = Date.now();
const env = prepare();
// The browser waits as often as it works, and so do unit tests: one beside the other, from when there is something to serve.
const suites = await Promise.all([
  runUnit([], { env }),
  buildAside().then(() => runBrowser(['--grep', '@quick'], { env }))
]);
const sum = sumOf(suites);
tellCount(sum, (Date.now() - began) / 1000);
process.exit(sum.isOk && sum.failed === 0 ? 0 : 1);
