// `npm test`: installs what is missing, Chromium included, runs unit tests with a hundredth of every law and the browser tests that
// walk each place, and closes with the ten slowest files and a count. Everything there is: `npm run test:full`.
import { buildAside, prepare, runBrowser, runUnit, sumOf, tellCount } from './suites.mjs';

const began = Date.now();
const env = prepare();
const building = buildAside();
const unit = await runUnit([], { env });
await building;
const browser = await runBrowser(['--grep', '@quick'], { env });
const sum = sumOf([unit, browser]);
tellCount(sum, (Date.now() - began) / 1000);
process.exit(sum.isOk && sum.failed === 0 ? 0 : 1);
