import { expect, test } from 'vitest';
import { findTrack, type Product } from '../../src/core/catalogue';
import { parseCatalogue } from '../../src/core/exchange';
import { parseDay } from '../../src/core/date';
import {
  type Decision,
  DEFAULT_GOAL,
  emptyEstate,
  type Estate,
  followGoal,
  type Goal,
  type System,
  type Worksheet
} from '../../src/core/estate';
import { exploreSystem, findingOf, plan, Planning, sumsOf } from '../../src/core/plan';
import { gatherReady } from '../../src/core/ready/gather-ready';
import {
  describeReason,
  sayBar,
  sayFinding,
  sayGate,
  sayGoalBrief,
  sayJob,
  sayTrack
} from '../../src/core/wording';
import { Names } from '../../src/core/catalogue/names';
import { gatesBefore, makeItems } from '../../src/core/worksheet';

/** Three releases of one made-up product, a hop between each two; what differs is said by each test. */
const RELEASES = ['a', 'b', 'c'].map((id, i) => ({ id, name: `${i + 1}`, published: `202${i + 7}-01-01` }));
const HOP = { kind: 'in place', kept: 'everything', typicalMinutes: 20, carefulMinutes: 40 };
const PRODUCT = {
  id: 'gate',
  name: 'Gate',
  publisher: 'Made up',
  hopTable: 'complete',
  releases: RELEASES,
  hops: [
    { id: 'ab', from: 'a', to: 'b', ...HOP },
    { id: 'bc', from: 'b', to: 'c', ...HOP }
  ]
};
const TODAY = parseDay('2031-03-10')!;
const system = (id: string, more: object = {}): System =>
  ({
    id,
    name: id.toUpperCase(),
    product: { is: 'gate' },
    release: { is: 'a' },
    patch: { is: 'base' },
    edition: { is: 'only' },
    architecture: { is: 'only' },
    ...more
  }) as System;

function planOf(products: readonly object[], estate: Partial<Estate>) {
  const read = parseCatalogue(
    JSON.stringify({
      format: 'orange-stair-catalogue',
      version: 3,
      name: 'of its own',
      currency: 'EUR',
      products
    })
  );
  if (!read.ok) throw new Error(JSON.stringify(read.issues));
  const input = {
    catalogue: read.value,
    estate: { ...emptyEstate(), goals: [DEFAULT_GOAL], ...estate },
    today: TODAY
  };
  const planning = new Planning(input);
  return { planning, result: plan({ ...input, every: 'goal' }), names: new Names(read.value.products[0]) };
}

test('a purchase is to be ordered by the day its price ends, where that comes before the latest start', () => {
  const releases = RELEASES.map((r) => ({ ...r, service: [{ phase: 'security', until: '2031-12-31' }] }));
  const right = (offer: object): object => ({
    id: 'upgrade',
    name: 'Upgrade',
    kind: 'purchase',
    to: 'b',
    priceCents: 9000,
    ...offer
  });
  const byOf = (offer: object): number | undefined =>
    planOf([{ ...PRODUCT, releases, rights: [right(offer)] }], { systems: [system('s')] }).result.rights[0]
      ?.by;
  const plain = byOf({})!;
  expect(plain).toBeGreaterThan(parseDay('2031-06-01')!);
  expect(byOf({ offer: { priceCents: 4000, until: '2031-03-31' } })).toBe(parseDay('2031-03-31'));
  // One that is over ends nothing.
  expect(byOf({ offer: { priceCents: 4000, until: '2031-01-31' } })).toBe(plain);
});

test('where nobody has said that a hop costs anything, nothing is to be priced, and nobody is kept from going', () => {
  const { planning, result } = planOf([PRODUCT], { systems: [system('s'), system('t')] });
  const [one] = result.cases;
  expect(sumsOf(one?.goalPlan?.route)).toEqual({ toAsk: 0, unstated: 2 });
  const gathering = gatherReady(planning, result);
  let step = gathering.next();
  while (!step.done) step = gathering.next();
  expect(step.value.wants.map((w) => w.needs)).toEqual([[]]);
  const asked = planOf([{ ...PRODUCT, rights: [{ id: 'upgrade', name: 'Upgrade', kind: 'ask' }] }], {
    systems: [system('s')]
  });
  expect(sumsOf(asked.result.cases[0]?.goalPlan?.route)).toEqual({ toAsk: 2, unstated: 0 });
});

test('of a hop that was barred it is said that it was, when, why and how to lift that; another target leaves it barred', () => {
  const bar: Decision = {
    id: 'd1',
    kind: 'bar',
    scope: { system: 's' },
    about: 'gate/hop/bc',
    day: '2031-03-01',
    who: 'A. Hale',
    reason: 'failed on S'
  };
  const estate = { systems: [system('s')], decisions: [bar] };
  for (const hopTable of ['complete', 'partial']) {
    const { result, names } = planOf([{ ...PRODUCT, hopTable }], estate);
    const reasons = result.cases[0]?.goalPlan?.reasons.map(describeReason).join('; ');
    const word =
      'the hop from 2 to 3 was barred on 1 Mar 2031: failed on S; it can be taken again once that decision is taken back';
    expect(reasons).toContain(word);
    expect(sayBar(bar, names)).toBe('The hop from 2 to 3 was barred on 1 Mar 2031 by A. Hale: failed on S.');
  }
  const whole = { ...emptyEstate(), ...estate };
  const alike = { situation: '', systems: ['s'] };
  expect(followGoal(whole, alike)).toEqual([]);
});

test('room on a disk that a fresh install makes itself is asked of the hop in place alone', () => {
  const room = { id: 'room', at: 'any', needs: 'disk.free.system at least 20 GB', grade: 'blocks' };
  const clean = { id: 'fresh', kind: 'fresh install', from: 'a', to: 'c', kept: 'nothing' };
  const full = planOf([{ ...PRODUCT, requirements: [room], hops: [...PRODUCT.hops, { ...HOP, ...clean }] }], {
    systems: [system('s', { facts: { 'disk.free.system': { value: '2 GB', day: '2031-03-09' } } })]
  });
  expect(full.result.cases[0]?.goalPlan?.verdict).toBe('fresh only');
});

test('where an edition ends, the tables of hops say which comes after it; a change of edition that is entered is made', () => {
  const editions = ['home', 'pro'].map((id) => ({ id, name: id }));
  const releases = RELEASES.map((r) => (r.id === 'c' ? { ...r, editions: ['pro'] } : r));
  const [ab, bc] = PRODUCT.hops;
  const table = { home: 'pro', pro: 'pro' };
  const ends = { ...PRODUCT, editions, releases, hops: [ab, { ...bc, editions: table }] };
  const at = { systems: [system('s', { edition: { is: 'home' } })] };
  const [one] = planOf([ends], at).result.cases;
  expect(one?.goal).toMatchObject({ release: 'c', edition: 'pro' });
  expect(one?.goalPlan?.verdict).toBe('by hops');
  const change = { id: 'richer', at: 'b', from: 'home', to: 'pro', typicalMinutes: 5, carefulMinutes: 9 };
  const [two] = planOf([{ ...PRODUCT, editions, releases, editionChanges: [change] }], at).result.cases;
  expect(two?.goalPlan?.route?.steps.map((s) => s.kind)).toContain('edition change');
});

test('what follows a hop stands behind it, on the stair and on the worksheet', () => {
  const caution = (id: string, more: object): object => ({
    id,
    name: id,
    to: 'c',
    consequence: 'degraded',
    workAround: { how: `Do ${id}.`, typicalMinutes: 5, carefulMinutes: 9, ...more }
  });
  const cautions = [caution('again', { behind: true }), caution('first', {})];
  const { result } = planOf([{ ...PRODUCT, cautions }], { systems: [system('s')] });
  const route = result.cases[0]?.goalPlan?.route;
  expect(route?.steps.map((s) => ('id' in s ? s.id : s.kind))).toEqual(['ab', 'first', 'bc', 'again']);
  const items = makeItems({
    product: { ...PRODUCT, cautions } as never,
    system: system('s'),
    route: route!,
    isCritical: false,
    linkedBy: () => []
  } as never);
  const kinds = items.filter((i) => i.about.includes('/cautions/')).map((i) => [i.kind, i.step]);
  expect(kinds).toEqual([
    ['work-around', 1],
    ['post-work', 1]
  ]);
});

test('a gate says what of the back-up is open, and nothing of what is done', () => {
  const item = (id: string, kind: string, more: object = {}): object => ({ id, kind, about: 'x', ...more });
  const sheet = {
    id: 'w',
    system: 's',
    product: 'gate',
    made: '2031-03-10',
    start: { release: 'a', patch: 'base', edition: 'small', architecture: 'only' },
    target: { release: 'a', patch: 'base', edition: 'large', architecture: 'only' },
    items: [
      item('1', 'back up'),
      item('2', 'prove'),
      item('3', 'snapshot', { step: 0 }),
      item('4', 'hop', { step: 0 })
    ],
    entries: ['1', '2'].map((id) => ({
      id: `e${id}`,
      item: id,
      at: '2031-03-10T20:00:00Z',
      state: 'passed'
    }))
  } as unknown as Worksheet;
  const names = {
    product: () =>
      new Names({ ...PRODUCT, editions: ['small', 'large'].map((id) => ({ id, name: id })) } as never),
    system: (id: string) => id
  } as never;
  const [gate] = gatesBefore(sheet, sheet.items[3]!, {
    now: '2031-03-10T21:00:00Z',
    isThere: () => true,
    failedOn: () => []
  });
  expect(sayGate(gate!, names, sheet.items)).toBe('back-up: the snapshot is not taken');
  // Two places that differ by their edition alone are told apart.
  expect(sayJob(sheet, names)).toBe('Gate 1 small to 1 large');
});

test('a pairing that fails names what fails, alike for all systems it is said of, in the estate and on the stair', () => {
  const hub = {
    ...PRODUCT,
    id: 'hub',
    name: 'Hub',
    releases: RELEASES.slice(0, 1),
    hops: []
  };
  const paired = {
    ...PRODUCT,
    pairings: [
      {
        id: 'with-hub',
        kind: 'managed by',
        other: 'hub',
        table: 'complete',
        fits: [{ own: 'a', other: 'a' }]
      }
    ]
  };
  const { planning, result } = planOf([paired, hub], {
    systems: [
      system('s', { links: [{ kind: 'managed by', to: 'h' }] }),
      system('t', { links: [{ kind: 'managed by', to: 'i' }] }),
      system('h', { product: { is: 'hub' } }),
      system('i', { product: { is: 'hub' } })
    ]
  });
  const one = result.cases.find((c) => c.systems.includes('s'));
  expect(one).toMatchObject({ verdict: 'closed', systems: ['s', 't'] });
  for (const plan of [one, ...['s', 't'].map((id) => exploreSystem(planning, id)?.plan)])
    expect(plan?.goalPlan?.reasons.map(describeReason).join()).toContain(': Hub 1 does not fit');
});

test('where days of passing through cannot be kept inside windows they are what is named, not a longer night', () => {
  const releases = RELEASES.map((r) =>
    r.id === 'b' ? { ...r, service: [{ phase: 'security', until: '2030-01-01' }] } : r
  );
  const { result, names } = planOf([{ ...PRODUCT, releases }], {
    systems: [system('s')],
    calendars: [
      {
        id: 'nights',
        zone: 'UTC',
        windows: [{ id: 'w', start: '2031-01-06T20:00', minutes: 100, rule: 'FREQ=MONTHLY' }]
      }
    ] as never,
    goals: [{ ...DEFAULT_GOAL, passDays: 5 } as Goal]
  });
  const said = sayFinding(findingOf(result.cases[0]!, TODAY), names, 'EUR');
  expect(said.reasons.join()).toContain('a stay on 2, out of service, may last 5 days at most');
  expect(said.reasons.join()).not.toContain('freeze');
});

test('the way out of a preview is told before it is stepped onto, until the release is out in general', () => {
  const product = {
    ...PRODUCT,
    releases: [
      ...RELEASES,
      { id: 'd', name: '4', published: { preview: '2031-01-01', general: '2031-05-01' } }
    ],
    tracks: [{ id: 'early', name: 'Early ring', releases: 'd', leaving: 'no way out', forfeits: 'no help' }]
  } as unknown as Product;
  const at = (release: string, day: string) =>
    findTrack(product, { release, patch: 'base' }, { today: parseDay(day)!, countsExpected: true });
  expect(sayTrack(at('d', '2031-04-30')!)).toBe('a preview, Early ring, with no way out at all; no help');
  expect(at('d', '2031-05-01')).toBeUndefined();
  expect(at('c', '2031-04-30')).toBeUndefined();
});

test('the site’s goal is said as it is, and who has another', () => {
  const goal: Goal = { ...DEFAULT_GOAL, rule: 'nearest in full service', settlingDays: 7 };
  expect(sayGoalBrief(goal, [goal, { ...goal, id: 'x', team: 'T' }])).toBe(
    'the nearest release in full service; 1 week after it is out; 1 team has its own'
  );
});
