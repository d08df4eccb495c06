import { expect, test } from 'vitest';
import type { Product, Release } from '../../src/core/catalogue/schema';
import type { System } from '../../src/core/estate/schema';
import { formatDay } from '../../src/core/date/day';
import { exploreSystem } from '../../src/core/plan/explore';
import { plan, type PlanInput } from '../../src/core/plan/plan';
import type { CasePlan } from '../../src/core/plan/plan-types';
import { Planning } from '../../src/core/plan/planning';
import { findReach } from '../../src/core/route/search/reach';
import { findRoutes } from '../../src/core/route/search/search';
import { FREE, productOf, systemOf, worldOf } from '../support/growth-worlds';
import { oftenerThan, seedsOf, tell } from '../support/laws';
import { Random } from '../support/random';
import { estateOf } from '../support/world-estates';
import { calendarWorldOf, fullWorldOf, TODAY } from '../support/worlds';

/** A product of a few releases with their dates, and as many of its hops told as chance has it: none to seven in ten. */
function withGaps(seed: number): PlanInput {
  const r = new Random(seed * 131 + 7);
  const count = r.int(4, 7);
  const releases = Array.from({ length: count }, (_, i): Release => ({
    id: `v${i}`,
    published: formatDay(TODAY - 3000 + i * 500 + r.int(0, 90)),
    service: [{ phase: 'security', until: formatDay(TODAY - 700 + i * 400 + r.int(0, 90)) }]
  }));
  const share = r.pick([0, 0, 0.1, 0.3, 0.5, 0.7]);
  const whole = productOf('thing', { releases: count, ahead: count, rights: FREE }, seed);
  const { hopTable: _complete, ...rest } = whole;
  void _complete;
  const requirements = [
    {
      id: 'room',
      at: `from v${r.int(1, count - 1)}`,
      grade: 'blocks' as const,
      needs: 'memory at least 4 GB'
    },
    { id: 'part', at: `v${count - 1}`, grade: 'blocks' as const, needs: 'security-part is on' }
  ];
  const [from, to] = [r.int(0, count - 2), count - 1];
  const product: Product = {
    ...rest,
    releases,
    hops: (whole.hops ?? []).filter(() => r.chance(share)),
    ...(r.chance(0.3) ? { requirements } : {}),
    ...(r.chance(0.3) ? { noHops: [{ id: 'n', from: `v${from}`, to: `v${to}` }] } : {})
  };
  const facts: System['facts'] = r.pick<NonNullable<System['facts']>>([
    {},
    { memory: { value: '8 GB' } },
    { memory: { value: '2 GB' }, 'security-part': { value: 'on' } }
  ]);
  const start = r.pick([{ is: 'v0' }, { is: 'v1' }, { unknown: 'not asked' as const }]);
  const isLinked = r.chance(0.3);
  const one = systemOf('one', product, {
    facts,
    release: start,
    ...(r.chance(0.2) ? { nodes: 2 } : {}),
    ...(isLinked ? { links: [{ kind: 'managed by' as const, to: 'two' }] } : {})
  });
  const manager = { ...product, id: 'manager', name: 'manager', noHops: [] };
  const fits = releases.map((x, i) => ({ own: x.id, other: `from v${Math.max(0, i - 1)}` }));
  const managed: Product = isLinked
    ? { ...product, pairings: [{ id: 'p', kind: 'managed by', other: 'manager', table: 'complete', fits }] }
    : product;
  const world = worldOf([managed, manager], isLinked ? [one, systemOf('two', manager)] : [one]);
  return r.chance(0.25) ? { ...world, estate: { ...world.estate, calendars: [NIGHTS] } } : world;
}

const NIGHTS = {
  id: 'nights',
  zone: 'UTC',
  windows: [{ id: 'w', start: '2031-01-06T22:00', rule: 'FREQ=WEEKLY;BYDAY=MO,TH', minutes: 300 }],
  freezes: [{ first: '2031-04-01', last: '2031-04-20' }]
};

/** What is told of a case's goal. */
const toldOf = (one: CasePlan): unknown => {
  const { goal, goalPlan, verdict, deadline, latestStart, slack, bestOpen, replace, fallbacks } = one;
  return { goal, goalPlan, verdict, deadline, latestStart, slack, bestOpen, replace, fallbacks };
};

/** The worlds of a law: products with gaps, and those of brute force, with calendars, links, nodes and whatever is unknown. */
function* inputs(count: number): Generator<readonly [string, PlanInput]> {
  for (const seed of seedsOf(count, 'one verdict in every scope')) {
    yield [`gaps ${seed}`, withGaps(seed)];
    yield [`world ${seed}`, estateOf(fullWorldOf(seed), new Random(seed * 17), 'as it is')];
    if (seed % 4 === 0)
      yield [`calendar ${seed}`, estateOf(calendarWorldOf(seed), new Random(seed * 17), 'as it is')];
  }
}

test('a goal alone, among all targets, and looked into in one system: the same is told', () => {
  const seen = { cases: 0, 'cannot tell': 0, closed: 0, perhaps: 0 };
  for (const [title, input] of inputs(1000)) {
    const alone = plan({ ...input, every: 'goal' });
    const every = plan({ ...input, every: 'target' });
    for (const one of alone.cases) {
      const among = every.cases.find((c) => c.systems.join() === one.systems.join());
      expect(among && toldOf(among), title).toEqual(toldOf(one));
      seen.cases++;
      if (one.verdict === 'cannot tell') seen['cannot tell']++;
      if (one.verdict === 'closed') seen.closed++;
      if (one.goalPlan?.perhaps) seen.perhaps++;
      const [id = ''] = one.systems;
      const explored = exploreSystem(new Planning(input), id);
      expect(explored && toldOf(explored.plan), `${title}, looked into`).toEqual(toldOf(one));
    }
  }
  tell('one verdict in every scope', seen);
  for (const [what, n] of Object.entries(seen)) expect(n, what).toBeGreaterThan(oftenerThan(20));
});

test('no target is closed without a reason, and none by a hop that is missing where nobody has said that it is', () => {
  for (const [title, input] of inputs(400))
    for (const one of plan({ ...input, every: 'target' }).cases) {
      const product = input.catalogue.products.find((p) => p.id === one.product);
      // Where a table has gaps a hop is missing only where that is said, or where an edition or an architecture stands between.
      const isSaid = product?.hopTable === 'complete' || (product?.noHops ?? []).length > 0;
      for (const { target, verdict, older, reasons } of one.targets) {
        if (verdict !== 'closed' || older) continue;
        expect(reasons.length, `${title}, ${target.release}`).toBeGreaterThan(0);
        const isAlike =
          target.edition === one.start?.edition && target.architecture === one.start.architecture;
        if (!isSaid && isAlike && !product?.branches && one.starts === 1)
          expect(
            reasons.map((r) => r.code),
            `${title}, ${target.release}`
          ).not.toContain('no hop');
      }
    }
});

test('the work of a table with gaps grows with its square, whatever part of it is told', () => {
  for (const share of [0, 0.3, 0.7]) {
    const workOf = (releases: number): number => {
      const r = new Random(releases * 7 + share * 100);
      const { hopTable: _complete, ...whole } = productOf(
        'thing',
        { releases, ahead: releases, rights: FREE },
        5
      );
      void _complete;
      const product: Product = { ...whole, hops: (whole.hops ?? []).filter(() => r.chance(share)) };
      const world = worldOf([product], [systemOf('one', product)]);
      const planning = new Planning(world);
      const one = planning.gather().cases[0];
      const model = one && planning.modelFor(one.system);
      if (!one || !model) throw new Error('no case');
      const terms = planning.termsFor(model, one);
      const start = { release: 0, patch: 0, edition: 0, architecture: 0 };
      const reach = findReach(terms, start);
      expect(reach.cut).toBe(false);
      return findRoutes(terms, start, 'sure').work + reach.work;
    };
    const exponent = Math.log2(workOf(88) / workOf(44));
    expect(exponent, `${share} told`).toBeLessThan(2.3);
  }
});
