/** `npm run bench:calendars`: planning with windows, freezes, crews and pilots beside planning on any day; a part of docs/benchmarks.md. */
import { writePart } from './sections';
import { generateWorld, type GeneratedWorld } from './generate';
import type { Estate } from '../src/core/estate/schema';
import { plan } from '../src/core/plan/plan';

const RUNS = 3;

/** Least of some runs, in ms, of a catalogue read anew each time. */
function time(world: GeneratedWorld, change: (estate: Estate) => Estate): number {
  let least = Infinity;
  for (let i = 0; i < RUNS; i++) {
    const { catalogue, estate, ...rest } = world;
    const input = {
      ...rest,
      catalogue: structuredClone(catalogue),
      estate: change(estate),
      every: 'goal' as const
    };
    const start = performance.now();
    plan(input);
    least = Math.min(least, performance.now() - start);
  }
  return least;
}

const world = generateWorld(7, 1000, 40);
const nights = (crew?: number) => [
  {
    id: 'all',
    zone: 'UTC',
    windows: [
      {
        id: 'nights',
        start: '2030-01-07T22:00',
        rule: 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH',
        minutes: 480,
        ...(crew === undefined ? {} : { crew: { systems: crew } })
      }
    ],
    freezes: [{ first: '2031-12-13', last: '2032-01-02' }]
  }
];
const without = time(world, (e) => ({ ...e, calendars: [] }));
const measured = (
  [
    ['windows and a freeze', (e) => ({ ...e, calendars: nights() })],
    ['and a crew of twenty', (e) => ({ ...e, calendars: nights(20) })],
    [
      'and two pilots of each team and product',
      (e) => ({
        ...e,
        calendars: nights(20),
        goals: e.goals.map((g) => ({ ...g, pilots: { systems: 2, watchDays: 7 } }))
      })
    ]
  ] as readonly (readonly [string, (estate: Estate) => Estate])[]
).map(([name, change]) => [name, time(world, change) / without] as const);

const lines = [
  'Written by `npm run bench:calendars`. 1,000 systems in 40 cases, goals alone; the bar is 1.5.',
  '',
  '| with | against planning on any day |',
  '|---|---|',
  ...measured.map(([name, ratio]) => `| ${name} | ${ratio.toFixed(2)} |`)
];
writePart('Calendars', lines);
console.log(lines.join('\n'));
