/** `npm run bench:order`: the order of 200 linked systems in 40 teams beside planning 10,000 systems; a part of docs/benchmarks.md. */
import { generateWorld } from './generate';
import { writePart } from './sections';
import { bareSystem } from '../tests/support/bare-system';
import type { Catalogue, Product } from '../src/core/catalogue/schema';
import { DEFAULT_GOAL, type Estate } from '../src/core/estate/schema';
import { orderOf, type Order } from '../src/core/order';
import { plan, Planning, planWith } from '../src/core/plan';

const TODAY = 22_348;
const TEAMS = 40;
const EACH = 5;

const end = <T>(steps: Generator<unknown, T>): T => {
  for (let next = steps.next(); ; next = steps.next()) if (next.done) return next.value;
};

function product(id: string, releases: number, pairings: Product['pairings'] = []): Product {
  const name = (n: number): string => `${id}${n}`;
  return {
    id,
    name: id,
    publisher: 'made up',
    hopTable: 'complete',
    releases: Array.from({ length: releases }, (_, n) => ({ id: name(n), published: '2028-01-01' })),
    hops: Array.from({ length: releases - 1 }, (_, n) => ({
      id: `${id}-${n}`,
      kind: 'in place' as const,
      from: name(n),
      to: name(n + 1),
      kept: 'everything' as const,
      typicalMinutes: 30,
      carefulMinutes: 60
    })),
    pairings,
    rights: [{ id: `${id}-r`, kind: 'free' }]
  } as unknown as Product;
}

/** A manager, hosts of each team that are peers of each other, guests on them: everything hangs on the manager. */
function linkedWorld(): { catalogue: Catalogue; estate: Estate; today: number } {
  const manager = product('m', 3);
  const host = product('h', 4, [
    {
      id: 'h-m',
      kind: 'managed by',
      other: 'm',
      table: 'complete',
      fits: [
        { own: 'h0 to h1', other: 'any' },
        { own: 'h2', other: 'from m1' },
        { own: 'h3', other: 'from m2' }
      ]
    },
    { id: 'h-h', kind: 'peer of', other: 'h', apart: 1 }
  ] as unknown as Product['pairings']);
  const guest = product('g', 3, [
    {
      id: 'g-h',
      kind: 'hosted on',
      other: 'h',
      table: 'complete',
      fits: [
        { own: 'g0', other: 'h0 to h2' },
        { own: 'g1', other: 'any' },
        { own: 'g2', other: 'from h2' }
      ]
    }
  ] as unknown as Product['pairings']);
  const systems = [bareSystem('manager', 'm', 'all', [])];
  for (let t = 0; t < TEAMS; t++)
    for (let i = 0; i < EACH; i++) {
      const team = `team ${t}`;
      const id = `${t}-${i}`;
      if (i < 3)
        systems.push(
          bareSystem(id, 'h', team, [
            { kind: 'managed by', to: 'manager' },
            ...(i > 0 ? [{ kind: 'peer of' as const, to: `${t}-0` }] : [])
          ])
        );
      else systems.push(bareSystem(id, 'g', team, [{ kind: 'hosted on', to: `${t}-${i - 3}` }]));
    }
  const catalogue = {
    format: 'orange-stair-catalogue',
    version: 3,
    name: 'made up',
    products: [manager, host, guest]
  } as unknown as Catalogue;
  const estate = {
    site: { name: '', countsExpected: true },
    systems,
    goals: [{ ...DEFAULT_GOAL, settlingDays: 0 }],
    decisions: [],
    rightsHeld: [],
    calendars: [
      {
        id: 'nights',
        zone: 'UTC',
        windows: [
          { id: 'w', start: '2031-01-06T20:00', rule: 'FREQ=DAILY', minutes: 480, crew: { systems: 12 } }
        ]
      }
    ]
  } as unknown as Estate;
  return { catalogue, estate, today: TODAY };
}

const before = performance.now();
plan({ ...generateWorld(7, 10_000, 400), every: 'goal' });
const planning10 = performance.now() - before;

const planning = new Planning(linkedWorld());
const { cases } = end(planWith(planning, 'goal'));
const start = performance.now();
const order: Order = end(orderOf(planning, cases));
const took = performance.now() - start;
const parts = order.components.flatMap((c) => c.parts);
const waves = order.components.map((c) => c.waves.length);
const lines = [
  'Written by `npm run bench:order`. The bar: the order of 200 linked systems in 40 teams within planning 10,000 systems.',
  '',
  '| | |',
  '|---|---|',
  `| order against planning 10,000 systems | ${(took / planning10).toFixed(2)} |`,
  `| components, parts, waves | ${order.components.length}, ${parts.length}, ${waves.join(' and ')} |`,
  `| parts that reach their goals | ${parts.filter((p) => p.fate === 'reached').length} |`,
  `| proven to be the best | ${order.components.every((c) => c.proven) ? 'yes' : 'no'} |`
];
writePart('Order', lines);
console.log(lines.join('\n'));
