/** `npm run bench`: the planning bars that this slice has, as ratios within one run; writes docs/benchmarks.md. */
import { writePart } from './sections';
import { plan } from '../src/core/plan';
import { generateWorld } from './generate';

/** Less of two runs, in ms. */
function time(work: () => unknown): number {
  let least = Infinity;
  for (let i = 0; i < 2; i++) {
    const start = performance.now();
    work();
    least = Math.min(least, performance.now() - start);
  }
  return least;
}

interface Row {
  readonly systems: number;
  readonly cases: number;
  readonly planMs: number;
  readonly parseMs: number;
}

function measure(systems: number, cases: number): Row {
  const world = generateWorld(7, systems, cases);
  const text = JSON.stringify(world);
  return { systems, cases, planMs: time(() => plan(world)), parseMs: time(() => JSON.parse(text)) };
}

const rows = [measure(10_000, 400), measure(100_000, 400), measure(100_000, 800)];
const [a, c, d] = rows as [Row, Row, Row];
const exponent = (x: Row, y: Row, by: 'systems' | 'cases'): string =>
  (Math.log(y.planMs / x.planMs) / Math.log(y[by] / x[by])).toFixed(2);
const lines = [
  'Written by `npm run bench`.',
  'The world is generated from a seed: 60 products of 25 releases, 14 facts a system, two editions, hops up to three ahead.',
  '"Plan" is `plan()` whole: every target of every case, chosen routes, reasons, deadline, slack. Less of two runs.',
  '',
  '| systems | cases | plan / JSON.parse of the same workspace | plan, ms | parse, ms |',
  '|---:|---:|---:|---:|---:|',
  ...rows.map(
    (r) =>
      `| ${r.systems} | ${r.cases} | ${(r.planMs / r.parseMs).toFixed(2)} | ${r.planMs.toFixed(0)} | ${r.parseMs.toFixed(0)} |`
  ),
  '',
  `Growth: exponent in systems at 400 cases ${exponent(a, c, 'systems')}; in cases at 100,000 systems ${exponent(c, d, 'cases')}.`,
  ''
];
console.log(lines.join('\n'));
if (process.argv.includes('--write')) writePart('Planning', lines);
