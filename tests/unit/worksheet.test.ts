import { expect, test } from 'vitest';
import {
  estateSchema,
  mergeEstates,
  type RightHeld,
  type System,
  type WorkEntry,
  type WorkItem,
  type Worksheet
} from '$core/estate';
import type { Product } from '$core/catalogue';
import { FactKinds } from '$core/condition';
import type { CasePlan } from '$core/plan';
import type { Route } from '$core/route';
import {
  BACK_UP_DAYS,
  compareEntries,
  driftOf,
  effectOf,
  type GateName,
  failedElsewhere,
  gatesBefore,
  heldAfter,
  isDone,
  makeItems,
  progressOf,
  standingOf,
  systemAfter
} from '$core/worksheet';
import { ITEM_STATES } from '../../src/core/estate/schema-worksheet';
import { emptyEstate } from '$core/estate';
import { sayRunning } from '$core/wording';
import { Random } from '../support/random';

const at = (release: string) => ({ release, patch: '', edition: 'only', architecture: 'only' });
const items: WorkItem[] = [
  { id: 'fetch', kind: 'fetch', about: 'p/hops/a' },
  { id: 'access', kind: 'access', about: 'p/hops/a' },
  { id: 'back', kind: 'back up', about: 'rule' },
  { id: 'prove', kind: 'prove', about: 'rule' },
  { id: 'check', kind: 'check', about: 'p/cautions/c' },
  { id: 'snap 0', kind: 'snapshot', about: 'rule', step: 0 },
  { id: 'around 1', kind: 'work-around', about: 'p/cautions/c', step: 0, node: 1 },
  { id: 'around 2', kind: 'work-around', about: 'p/cautions/c', step: 0, node: 2 },
  { id: 'hop 0 1', kind: 'hop', about: 'p/hops/a', step: 0, node: 1, to: at('2'), sets: { mode: 'new' } },
  { id: 'over', kind: 'hand-over', about: 'rule', step: 0, node: 2 },
  { id: 'hop 0 2', kind: 'hop', about: 'p/hops/a', step: 0, node: 2, to: at('2'), sets: { mode: 'new' } },
  { id: 'look', kind: 'verify', about: 'p/hops/a', step: 0 },
  { id: 'snap 1', kind: 'snapshot', about: 'rule', step: 1 },
  { id: 'hop 1', kind: 'hop', about: 'p/hops/b', step: 1, to: at('3') },
  { id: 'old', kind: 'work-around', about: 'p/cautions/d', needless: '3' }
];
const sheet: Worksheet = {
  id: 'w',
  system: 's',
  product: 'p',
  made: '2031-03-10',
  start: at('1'),
  target: at('3'),
  needsFirst: [{ system: 'manager', release: '9' }],
  items,
  entries: []
};
let n = 0;
const entry = (item: string, state: WorkEntry['state'], more: Partial<WorkEntry> = {}): WorkEntry => ({
  id: `e${String(++n).padStart(4, '0')}`,
  item,
  at: '2031-03-10T20:00:00Z',
  ...(state === undefined ? {} : { state }),
  ...more
});
const withEntries = (...entries: readonly WorkEntry[]): Worksheet => ({ ...sheet, entries: [...entries] });
const passed = (...ids: readonly string[]): WorkEntry[] => ids.map((id) => entry(id, 'passed'));
const READY = ['fetch', 'access', 'back', 'prove', 'check', 'snap 0', 'around 1', 'around 2'];
const itemOf = (id: string): WorkItem => items.find((i) => i.id === id) as WorkItem;
const shut = (of: Worksheet, hop: string, isThere = true, now = '2031-03-10T21:00:00Z'): GateName[] =>
  gatesBefore(of, itemOf(hop), { now, isThere: () => isThere, failedOn: () => [] })
    .filter((g) => !g.isOpen)
    .map((g) => g.name);

test('each gate stands before a hop for its own reason, and opens when that is met', () => {
  expect(shut(sheet, 'hop 0 1', false)).toEqual([
    'back-up',
    'access',
    'checks',
    'work-arounds',
    'what it hangs on'
  ]);
  expect(shut(withEntries(...passed(...READY)), 'hop 0 1')).toEqual([]);
  const without: readonly (readonly [string, GateName])[] = [
    ['fetch', 'access'],
    ['access', 'access'],
    ['back', 'back-up'],
    ['prove', 'back-up'],
    ['snap 0', 'back-up'],
    ['check', 'checks'],
    ['around 1', 'work-arounds'],
    ['around 2', 'work-arounds']
  ];
  for (const [id, gate] of without)
    expect(shut(withEntries(...passed(...READY.filter((r) => r !== id))), 'hop 0 1'), id).toEqual([gate]);
  expect(shut(withEntries(...passed(...READY)), 'hop 0 1', false)).toEqual(['what it hangs on']);
  // The second node waits for the first and for the load to be handed over; the next step for all of it.
  expect(shut(withEntries(...passed(...READY)), 'hop 0 2')).toEqual(['the step before']);
  expect(shut(withEntries(...passed(...READY, 'hop 0 1')), 'hop 0 2')).toEqual(['the step before']);
  expect(shut(withEntries(...passed(...READY, 'hop 0 1', 'over')), 'hop 0 2')).toEqual([]);
  const through = passed(...READY, 'hop 0 1', 'over', 'hop 0 2');
  expect(shut(withEntries(...through), 'hop 1', false)).toEqual(['back-up', 'the step before']);
  expect(shut(withEntries(...through, ...passed('look', 'snap 1')), 'hop 1', false)).toEqual([]);
  // Nothing else has gates.
  expect(gatesBefore(sheet, itemOf('look'), { now: '', isThere: () => false, failedOn: () => [] })).toEqual(
    []
  );
});

test('a back-up grows too old; a failed check shuts; a gate is gone through by a decision with a reason', () => {
  const all = passed(...READY);
  const later = new Date(Date.parse('2031-03-10T20:00:00Z') + BACK_UP_DAYS * 86_400_000);
  const iso = (ms: number): string => `${new Date(ms).toISOString().slice(0, 19)}Z`;
  expect(shut(withEntries(...all), 'hop 0 1', true, iso(later.getTime()))).toEqual([]);
  expect(shut(withEntries(...all), 'hop 0 1', true, iso(later.getTime() + 1000))).toEqual(['back-up']);
  const failed = entry('check', 'failed', { at: '2031-03-10T20:30:00Z' });
  expect(shut(withEntries(...all, failed), 'hop 0 1')).toEqual(['checks']);
  const opened = entry('hop 0 1', undefined, { gate: 'checks', note: 'known, harmless', who: 'Ida' });
  expect(shut(withEntries(...all, failed, opened), 'hop 0 1')).toEqual([]);
  // For that hop alone.
  const next = gatesBefore(withEntries(...all, failed, opened), itemOf('hop 0 2'), {
    now: '',
    isThere: () => true,
    failedOn: () => []
  });
  expect(next.find((g) => g.name === 'checks')?.isOpen).toBe(false);
});

test('a hop that failed on one stops it on all others until somebody decides, or it goes through', () => {
  const other = { ...withEntries(...passed(...READY)), id: 'other', system: 'other' };
  const failedHere = withEntries(...passed(...READY), entry('hop 0 1', 'failed'));
  const shutOf = (all: readonly Worksheet[], of: Worksheet, hop = 'hop 0 1'): GateName[] =>
    gatesBefore(of, itemOf(hop), {
      now: '2031-03-10T21:00:00Z',
      isThere: () => true,
      failedOn: (w, h) => failedElsewhere(all, w, h)
    })
      .filter((g) => !g.isOpen)
      .map((g) => g.name);
  expect(shutOf([failedHere, other], other)).toEqual(['the same hop elsewhere']);
  expect(failedElsewhere([failedHere, other], other, itemOf('hop 0 1'))).toEqual([sheet.system]);
  // Its own failure is its own affair, and another product's is none.
  expect(shutOf([failedHere, other], failedHere)).toEqual([]);
  expect(shutOf([{ ...failedHere, product: 'another' }, other], other)).toEqual([]);
  const opened = entry('hop 0 1', undefined, {
    gate: 'the same hop elsewhere',
    note: 'a bad disk',
    who: 'Ida'
  });
  expect(shutOf([failedHere, other], { ...other, entries: [...other.entries, opened] })).toEqual([]);
  const later = entry('hop 0 1', 'passed', { at: '2031-03-10T23:59:00Z' });
  const through = { ...failedHere, entries: [...failedHere.entries, later] };
  expect(shutOf([through, other], other)).toEqual([]);
});

test('the latest entry of an item stands, whoever made it and in whatever order they come', () => {
  for (let seed = 1; seed <= 300; seed++) {
    const r = new Random(seed);
    const entries = Array.from({ length: r.int(1, 14) }, (_, i): WorkEntry => ({
      id: `e${i}`,
      item: r.pick(items).id,
      at: `2031-03-10T2${r.int(0, 3)}:0${r.int(0, 9)}:00Z`,
      state: r.pick(ITEM_STATES)
    }));
    const shuffled = entries
      .map((e) => ({ e, k: r.next() }))
      .sort((a, b) => a.k - b.k)
      .map(({ e }) => e);
    const [a, b] = [progressOf({ items, entries }), progressOf({ items, entries: shuffled })];
    expect([...a].map(([id, p]) => [id, p.state])).toEqual([...b].map(([id, p]) => [id, p.state]));
    for (const { id } of items) {
      const own = entries.filter((e) => e.item === id);
      const last = own.reduce<WorkEntry | undefined>(
        (x, y) => (x && compareEntries(x, y) > 0 ? x : y),
        undefined
      );
      expect(a.get(id)?.state).toBe(last?.state ?? (id === 'old' ? 'not needed' : 'open'));
    }
    const standing = standingOf({ ...sheet, entries });
    expect(standing.of).toBe(items.length - 1);
    expect(standing.done).toBe(
      items.filter((i) => i.id !== 'old' && isDone(a.get(i.id)?.state ?? 'open')).length
    );
  }
});

test('two people’s halves join without loss, in either order, again and again', () => {
  const estate = { ...emptyEstate(), worksheets: [sheet] };
  const mine = { ...estate, worksheets: [withEntries(...passed('fetch', 'access'))] };
  const theirs = {
    ...estate,
    worksheets: [withEntries(entry('fetch', 'failed', { at: '2031-03-10T22:00:00Z' }), ...passed('back'))]
  };
  const joined = mergeEstates(mine, theirs);
  expect(joined.conflicts).toEqual([]);
  const [one] = joined.estate.worksheets ?? [];
  expect(one?.entries.map((e) => e.id).sort()).toEqual(
    [...(mine.worksheets[0]?.entries ?? []), ...(theirs.worksheets[0]?.entries ?? [])].map((e) => e.id).sort()
  );
  expect(progressOf(one as Worksheet).get('fetch')?.state).toBe('failed');
  expect(mergeEstates(theirs, mine).estate).toEqual(joined.estate);
  expect(mergeEstates(joined.estate, mine).estate).toEqual(joined.estate);
  expect(estateSchema.safeParse(joined.estate).success).toBe(true);
});

const system: System = {
  id: 's',
  name: 'S',
  installedText: 'P 1',
  product: { is: 'p' },
  release: { is: '1' },
  patch: { is: '' },
  edition: { is: 'only' },
  architecture: { is: 'only' },
  nodes: 2,
  members: [{ name: 'a', release: { is: '1' } }, { name: 'b' }],
  facts: { mode: { value: 'old', day: '2031-01-01' } }
};

test('what is installed moves on when the hop is through on every node, with its history and the facts it sets', () => {
  const half = withEntries(...passed(...READY));
  expect(effectOf(half, entry('hop 0 1', 'passed'))).toBeUndefined();
  const first = withEntries(...passed(...READY, 'hop 0 1'));
  expect(effectOf(first, entry('hop 0 2', 'failed'))).toBeUndefined();
  expect(effectOf(first, entry('look', 'passed'))).toBeUndefined();
  const effect = effectOf(first, entry('hop 0 2', 'passed with a warning'));
  expect(effect).toMatchObject({ to: at('2'), leaves: { sets: { mode: 'new' } } });
  const after = systemAfter(system, effect!, {
    day: '2031-03-11',
    who: 'Ida',
    was: '1',
    note: 'worksheet',
    kinds: new FactKinds()
  });
  expect(after).toMatchObject({
    release: { is: '2' },
    observed: '2031-03-11',
    facts: { mode: { value: 'new' } }
  });
  expect(after.installedText).toBeUndefined();
  expect(after.members).toEqual([{ name: 'a' }, { name: 'b' }]);
  expect(after.history).toEqual([
    { day: '2031-03-11', kind: 'changed', was: '1', note: 'worksheet', who: 'Ida' }
  ]);
});

test('a clean install that failed leaves nothing installed, a hop in place what was there; once more is not twice', () => {
  const kinds = new FactKinds();
  const entered = { day: '2031-03-11', was: '1', note: 'worksheet', kinds };
  const item = {
    id: 'wipe',
    kind: 'hop' as const,
    about: 'p/hops/h',
    step: 0,
    to: at('2'),
    afresh: true as const
  };
  const cure = { id: 'c', fact: 'memory', raise: '8 GB' };
  const disk = {
    id: 'use',
    kind: 'hop' as const,
    about: 'p/hops/i',
    step: 1,
    to: at('3'),
    uses: { 'disk.free.system': '20 GB' }
  };
  const sheet: Worksheet = {
    ...withEntries(),
    items: [item, { id: 'cure', kind: 'cure', about: 'p/requirements/q', step: 0, cure }, disk]
  };
  const { members: _members, nodes: _nodes, ...alone } = system;
  void [_members, _nodes];
  const known: System = {
    ...alone,
    facts: { mode: { value: 'old' }, memory: { value: '4 GB' }, 'disk.free.system': { value: '50 GB' } }
  };
  const failed = systemAfter(known, effectOf(sheet, entry('wipe', 'failed'))!, entered);
  expect(failed).toMatchObject({ stage: 'bare', meantFor: 'p', release: { unknown: 'not asked' } });
  expect(Object.keys(failed.facts ?? {})).toEqual(['memory']);
  const tried = systemAfter(failed, effectOf(sheet, entry('wipe', 'passed'))!, entered);
  expect(tried).toMatchObject({ release: { is: '2' }, product: { is: 'p' } });
  expect([tried.stage, tried.meantFor]).toEqual([undefined, undefined]);
  expect(effectOf(sheet, entry('use', 'failed'))).toBeUndefined();
  // Of several nodes one that failed leaves the others what they run.
  const twoNodes = {
    ...sheet,
    items: [
      { ...item, node: 1 },
      { ...item, id: 'wipe 2', node: 2 }
    ]
  };
  expect(effectOf(twoNodes, entry('wipe', 'failed'))).toBeUndefined();
  const cured = systemAfter(known, effectOf(sheet, entry('cure', 'passed'))!, entered);
  expect(cured).toMatchObject({
    release: { is: '1' },
    facts: { memory: { value: '8 GB', source: 'worksheet' } }
  });
  const used = systemAfter(known, effectOf(sheet, entry('use', 'passed'))!, entered);
  expect(used.facts?.['disk.free.system']).toMatchObject({ value: `${30e9} B` });
  const once = { ...sheet, entries: [entry('use', 'passed')] };
  expect(effectOf(once, entry('use', 'passed with a warning'))).toBeUndefined();
});

test('units are drawn from what serves the system, what lapses first; what is short was bought for it', () => {
  const held: RightHeld[] = [
    { right: 'u', held: 5 },
    { right: 'u', held: 3, until: '2031-06-30' },
    { right: 'u', held: 2, team: 'T' },
    { right: 'u', held: 2, team: 'other' },
    { right: 'u', held: 4, until: '2031-01-01' },
    { right: 'u', held: 7, edition: 'big' },
    { right: 'u', held: 'unknown' },
    { right: 'v', held: 9 }
  ];
  const numbers = (number: number) =>
    heldAfter(held, { right: 'u', number, edition: 'small' }, { team: 'T', day: '2031-03-10' }).map(
      (h) => h.held
    );
  expect(numbers(1)).toEqual([5, 3, 1, 2, 4, 7, 'unknown', 9]);
  expect(numbers(4)).toEqual([5, 1, 0, 2, 4, 7, 'unknown', 9]);
  expect(numbers(99)).toEqual([0, 0, 0, 2, 4, 7, 'unknown', 9]);
});

test('what has drifted before the day is told; what is through is not asked again', () => {
  const plan = (hops: readonly string[], goal = at('3')): CasePlan =>
    ({
      goal,
      goalPlan: { route: { steps: hops.map((id) => ({ kind: 'in place', id })) } }
    }) as unknown as CasePlan;
  expect(driftOf(sheet, system, plan(['a', 'b']))).toEqual([]);
  expect(driftOf(sheet, undefined, plan(['a', 'b']))).toEqual(['gone']);
  expect(driftOf(sheet, { ...system, release: { is: '2' } }, plan(['a', 'b']))).toEqual(['stands elsewhere']);
  expect(driftOf(sheet, system, plan(['a', 'b'], at('4')))).toEqual(['other target']);
  expect(driftOf(sheet, system, plan(['c']))).toEqual(['other way']);
  expect(driftOf(sheet, system, { goal: at('3') } as unknown as CasePlan)).toEqual(['no way']);
  const half = withEntries(...passed('hop 0 1', 'hop 0 2'));
  expect(driftOf(half, { ...system, release: { is: '2' } }, plan(['b']))).toEqual([]);
  expect(driftOf(half, system, plan(['b']))).toEqual(['stands elsewhere']);
  expect(driftOf(withEntries(...passed('hop 0 1', 'hop 0 2', 'hop 1')), system, plan([]))).toEqual([]);
});

test('slow but normal is told from stuck', () => {
  const slow: WorkItem = {
    ...itemOf('hop 1'),
    typicalMinutes: 20,
    carefulMinutes: 60,
    normal: ['the bar stands still at 80 %'],
    stuck: [{ looks: 'the light is red', then: 'turn round' }]
  };
  expect(sayRunning(slow, 20)).toBe('running for 20 min of 20 min');
  expect(sayRunning(slow, 21)).toContain('slow, but normal');
  expect(sayRunning(slow, 60)).toContain('the bar stands still at 80 %');
  expect(sayRunning(slow, 61)).toContain('Stuck? if the light is red: turn round');
});

test('a work-around is done on each linked system it names, else once a node; what the target is rid of stands struck out', () => {
  const step = { from: at('1'), to: at('2'), days: {}, typicalMinutes: 10, carefulMinutes: 20 };
  const around = { ...step, kind: 'work-around', id: 'c' };
  const route = {
    steps: [
      { ...around, times: 2 },
      { ...around, id: 'each', times: 2 },
      { ...step, kind: 'in place', id: 'h', kept: 'everything', right: { kind: 'free', costCents: 0 } }
    ],
    needsFirst: []
  } as unknown as Route;
  const workAround = { how: 'switch it off', typicalMinutes: 1, carefulMinutes: 2 };
  const product = {
    id: 'p',
    name: 'P',
    releases: [{ id: '1', name: 'One' }, { id: '2' }],
    hops: [{ id: 'h', kind: 'in place', from: '1', to: '2' }],
    cautions: [
      { id: 'c', name: 'C', to: '2', workAround: { ...workAround, per: 'part of' } },
      { id: 'each', name: 'Each', to: '2', workAround },
      { id: 'gone', name: 'Gone', from: '1', to: '1', workAround },
      { id: 'other', name: 'Other', from: '2', to: '1', workAround }
    ]
  } as unknown as Product;
  const made = makeItems({
    route,
    product,
    system: { ...system, name: 'box One' },
    isCritical: true,
    linkedBy: (word) => (word === 'part of' ? ['x', 'y'] : word === 'managed by' ? ['boss'] : [])
  });
  const arounds = made.filter((i) => i.kind === 'work-around');
  expect(arounds.map((i) => [i.about, i.of, i.node, i.needless])).toEqual([
    ['p/cautions/c', 'x', undefined, undefined],
    ['p/cautions/c', 'y', undefined, undefined],
    ['p/cautions/each', undefined, 1, undefined],
    ['p/cautions/each', undefined, 2, undefined],
    ['p/cautions/gone', undefined, undefined, '2']
  ]);
  expect(made.filter((i) => i.of === 'boss').map((i) => i.kind)).toEqual(['verify']);
  expect(made.filter((i) => i.kind === 'tidy').map((i) => i.text)).toEqual(['One']);
  expect(made.find((i) => i.kind === 'prove')?.details).toEqual(['critical']);
});
