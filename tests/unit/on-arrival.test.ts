import { expect, test } from 'vitest';
import type { Catalogue, Hop, Product } from '../../src/core/catalogue/schema';
import { parseDay } from '../../src/core/date/day';
import { DEFAULT_GOAL, emptyEstate, type Estate } from '../../src/core/estate/schema';
import { plan } from '../../src/core/plan/plan';
import { planCase } from '../../src/core/plan/plan-case';
import { Planning } from '../../src/core/plan/planning';
import { targetKey } from '../../src/core/compile/place';
import { findNearestMisses } from '../../src/core/route/look/nearest-miss';
import { faultsOn, shutFor } from '../../src/core/route/step/on-arrival';
import { oftenerThan, seedsOf } from '../support/laws';
import { generateWorld } from '../../bench/generate';
import { startsOf } from '../../src/core/bind/starts';
import { targetsOf } from '../../src/core/plan/targets';

type Requirement = NonNullable<Product['requirements']>[number];

const hop = (id: string, from: string, to: string, more: Partial<Hop> = {}): Hop => ({
  id,
  kind: 'in place',
  from,
  to,
  kept: 'everything',
  typicalMinutes: 10,
  carefulMinutes: 20,
  ...more
});
const NEED: Requirement = { id: 'part', at: 'from c', grade: 'blocks', needs: 'fitted is on' };

/** A machine on `a` whose part is not fitted, with hops to `c` straight and over `b`, and what is demanded there. */
function worldOf(need: Partial<Requirement>, over: Partial<Hop> = {}, arrives: Partial<Hop> = {}) {
  const releases = ['a', 'b', 'c'].map((id, i) => ({
    id,
    published: `202${i}-01-01`,
    patches: [{ id: 'p1', published: `202${i}-06-01` }]
  }));
  const catalogue: Catalogue = {
    format: 'orange-stair-catalogue',
    version: 3,
    name: 'small',
    currency: 'EUR',
    facts: [{ id: 'fitted', name: 'part', measure: 'switch', keptBy: 'hardware', shelfLifeDays: 400 }],
    products: [
      {
        id: 'small',
        name: 'Small',
        publisher: 'Nobody',
        releases,
        hopTable: 'complete',
        hops: [hop('ac', 'a', 'c', arrives), hop('ab', 'a', 'b', over), hop('bc', 'b', 'c', arrives)],
        requirements: [{ ...NEED, ...need }],
        rights: [{ id: 'free', kind: 'free' }]
      }
    ]
  };
  const is = (id: string): { is: string } => ({ is: id });
  const estate: Estate = {
    ...emptyEstate(),
    goals: [{ ...DEFAULT_GOAL, allow: { ...DEFAULT_GOAL.allow, restingOutOfService: true } }],
    systems: [
      {
        id: 'one',
        name: 'one',
        product: is('small'),
        release: is('a'),
        patch: is('base'),
        edition: is('only'),
        architecture: is('only'),
        facts: { fitted: { value: 'off' } }
      }
    ]
  };
  return { catalogue, estate, today: parseDay('2031-03-10') ?? 0 };
}

/** The verdict of `c`, whichever way it is planned, and whether it is known to be shut before any way is looked at. */
function seenOf(world: ReturnType<typeof worldOf>): { verdict: string | undefined; shut: boolean } {
  const planning = new Planning(world);
  const [one] = planning.gather().cases;
  const model = one && planning.modelFor(one.system);
  if (!one || !model) throw new Error('no case');
  const [every] = plan(world).cases;
  const verdict = every?.targets.find((t) => t.target.release === 'c')?.verdict;
  expect(planCase(planning, model, one, 'goal').verdict).toBe(verdict);
  return { verdict, shut: shutFor(planning.termsFor(model, one))[2] === true };
}

test('a release is shut where what it demands of whatever arrives is not so and stays so', () => {
  expect(seenOf(worldOf({}))).toEqual({ verdict: 'closed', shut: true });
});

test('it is not shut where a cure, a hop on the way, a level or a way of arriving makes it so', () => {
  const cure = {
    id: 'fit',
    kind: 'purchase',
    how: 'Fit it.',
    fact: 'fitted',
    set: 'on',
    minutes: 5
  } as const;
  expect(seenOf(worldOf({ cures: [{ ...cure, when: 'fitted is off' }] }))).toEqual({
    verdict: 'straight',
    shut: false
  });
  expect(seenOf(worldOf({}, { sets: { fitted: 'on' } }))).toEqual({ verdict: 'by hops', shut: false });
  expect(seenOf(worldOf({ at: 'up to c/base' }, {}, { arrives: 'p1' }))).toMatchObject({ shut: false });
  expect(seenOf(worldOf({ methods: ['fresh install'] }))).toEqual({ verdict: 'straight', shut: false });
  expect(seenOf(worldOf({ grade: 'degrades' }))).toEqual({ verdict: 'straight', shut: false });
});

test('nor where a decision lets it pass', () => {
  const world = worldOf({ grade: 'warning' });
  const accepted = {
    id: 'd1',
    kind: 'accept' as const,
    day: '2031-03-01',
    who: 'somebody',
    scope: { system: 'one' },
    about: 'small/requirements/part'
  };
  expect(seenOf(world)).toEqual({ verdict: 'closed', shut: true });
  const decided = { ...world, estate: { ...world.estate, decisions: [accepted] } };
  expect(seenOf(decided)).toEqual({ verdict: 'straight', shut: false });
});

test.each<[string, Hop['kept'], Partial<Product>, string[]]>([
  ['around it', 'everything', {}, ['ac', 'cd', 'de']],
  ['where the way around keeps less', 'data', {}, ['ab', 'be']],
  ['where the way around is shut', 'everything', { requirements: [{ ...NEED, at: 'd' }] }, ['ab', 'be']]
])('a standing risk is taken, or not: %s', (where, kept, more, chosen) => {
  const { catalogue, estate, today } = worldOf({ at: 'c/none' });
  const [product] = catalogue.products as [Product];
  const releases = ['a', 'b', 'c', 'd', 'e'].map((id, i) => ({ id, published: `202${i}-01-01` }));
  const hops = [
    hop('ab', 'a', 'b'),
    hop('be', 'b', 'e'),
    hop('ac', 'a', 'c', { kept }),
    hop('cd', 'c', 'd'),
    hop('de', 'd', 'e')
  ];
  const cautions = [{ id: 'noise', name: 'Noise', to: 'b', consequence: 'cosmetic' as const }];
  const other: Product = { ...product, releases, hops, cautions, requirements: [], ...more };
  const [one] = plan({ catalogue: { ...catalogue, products: [other] }, estate, today, every: 'goal' }).cases;
  expect(one?.goalPlan?.route?.steps.flatMap((s) => ('id' in s ? [s.id] : []))).toEqual(chosen);
  expect(one?.goalPlan?.route?.risks.length, where).toBe(chosen.length === 2 ? 1 : 0);
});

test('why one target is closed is what is found where all are asked about', () => {
  let shut = 0;
  for (const seed of seedsOf(40)) {
    const planning = new Planning(generateWorld(seed, 40, 40, 2));
    for (const one of planning.gather().cases) {
      const model = planning.modelFor(one.system);
      const [start] = model ? startsOf(model, one.system) : [];
      if (!model || !start) throw new Error('no case');
      const terms = planning.termsFor(model, one);
      const every = findNearestMisses(terms, start);
      for (const target of targetsOf(model).filter((t) => t.release > start.release)) {
        const miss = findNearestMisses(terms, start, target).get(targetKey(target));
        expect(miss, `estate ${seed}, ${one.id}, ${targetKey(target)}`).toEqual(every.get(targetKey(target)));
        if (miss && faultsOn(terms)?.[target.release]) shut++;
      }
    }
  }
  expect(shut).toBeGreaterThan(oftenerThan(100));
});
