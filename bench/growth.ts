/** `npm run bench:growth`: what each search takes as what it is exponential in grows; writes its part of docs/benchmarks.md. */
import { exploreSystem } from '../src/core/plan/explore';
import { plan } from '../src/core/plan/plan';
import { Planning } from '../src/core/plan/planning';
import { SWEEPS, type Sweep } from '../tests/support/growth-worlds';
import { writePart } from './sections';

interface Row {
  readonly size: number;
  readonly planMs: number;
  readonly lookMs: number;
  readonly verdict: string;
  readonly cut: readonly string[];
}

const timed = <T>(work: () => T): readonly [T, number] => {
  const start = performance.now();
  return [work(), performance.now() - start];
};

/** Plan with every target, then everything there is to say of the goal; from a catalogue not looked at before. */
function measure(sweep: Sweep, size: number): Row {
  const world = sweep.world(size);
  const [made, planMs] = timed(() => plan({ ...structuredClone(world), every: 'target' }));
  const planning = new Planning(structuredClone(world));
  const [seen, lookMs] = timed(() => exploreSystem(planning, world.estate.systems[0]?.id ?? '')?.looked);
  const [one] = made.cases;
  const cut = [
    ...(one?.cut ? ['plan'] : []),
    ...(seen?.routesCut ? ['routes'] : []),
    ...(seen?.openings.cut ? ['openings'] : []),
    ...(seen?.questionsCut ? ['questions'] : [])
  ];
  return { size, planMs, lookMs, verdict: one?.verdict ?? '', cut };
}

/** The exponent of time in size over the sizes within which nothing may be cut. */
function exponentOf(rows: readonly Row[], uncutUpTo: number): number {
  const within = rows.filter((r) => r.size <= uncutUpTo);
  const [first, last] = [within[0], within.at(-1)];
  if (!first || !last) return NaN;
  return (
    Math.log((last.planMs + last.lookMs) / (first.planMs + first.lookMs)) / Math.log(last.size / first.size)
  );
}

const lines = [
  'Written by `npm run bench:growth`. One system; plan with every target, then everything there is to say of its goal (ways, openings,',
  'questions, fallbacks). What is cut is told on screen and in the plan, and reads `cannot tell`, never `closed`. Searches are bounded',
  'by work counted (`route/search/budget.ts`): labels, comparisons and clauses asked. Exponent: of time in size, over what may not be cut.',
  ''
];
for (const sweep of SWEEPS) {
  measure(sweep, sweep.sizes[0] ?? 0);
  const rows = sweep.sizes.map((size) => measure(sweep, size));
  lines.push(
    `**${sweep.title}**: exponent ${exponentOf(rows, sweep.uncutUpTo).toFixed(1)} up to ${sweep.uncutUpTo}.`,
    '',
    '| size | plan, ms | looked into, ms | verdict | cut |',
    '|---:|---:|---:|---|---|',
    ...rows.map(
      (r) =>
        `| ${r.size} | ${r.planMs.toFixed(0)} | ${r.lookMs.toFixed(0)} | ${r.verdict} | ${r.cut.join(', ')} |`
    ),
    ''
  );
  console.error(lines.slice(-rows.length - 5).join('\n'));
}
writePart('Growth', lines);
