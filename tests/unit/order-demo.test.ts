import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { formatDay, parseDay } from '$core/date';
import { type Change, type Goal, ORDER_BY, type OrderLock } from '$core/estate';
import { type orderFile, parseCatalogue, parseWorkspace } from '$core/exchange';
import { type ComponentOrder, type Order, orderOf, type OrderedWave } from '$core/order';
import { Planning, planWith } from '$core/plan';
import { planningWith } from '$core/what-if';
import { answerPlan } from '$lib/server/answer-plan';
import { type VerifyLink, verifyOrder, type VerifyOrderTerms } from '../../src/core/verify/verify-order';

const end = <T>(steps: Generator<unknown, T>): T => {
  for (let next = steps.next(); ; next = steps.next()) if (next.done) return next.value;
};

const read = parseWorkspace(readFileSync('demo/saltmarsh.json', 'utf8'));
if (!read.ok) throw new Error('the demo cannot be read');
const { catalogue: file, ...estate } = read.value;
const catalogue = parseCatalogue(file?.text ?? '');
if (!catalogue.ok) throw new Error('its catalogue cannot be read');

/** With a crew of so many on every night of the machine room, or as it is. */
function planningOf(crew?: number, systems = estate.systems): Planning {
  const night = {
    id: 'night',
    start: '2031-03-10T20:00',
    rule: 'FREQ=DAILY',
    minutes: 600,
    crew: { systems: crew ?? 1 }
  };
  const calendars =
    crew === undefined
      ? estate.calendars
      : [{ id: 'room', team: 'Machine room', zone: 'UTC', windows: [night] }, ...(estate.calendars ?? [])];
  return new Planning({
    catalogue: catalogue.ok ? catalogue.value : ({} as never),
    estate: { ...estate, systems, ...(calendars ? { calendars } : {}) },
    today: parseDay('2031-03-10') as number
  });
}
/** What hangs on each other and takes an order no time: neither the ten hosts nor those on them. */
const LINKED = /^(depot|door|host-b|keeper)/;
const linked = estate.systems.filter((s) => LINKED.test(s.id));
const orderWith = (planning: Planning): Order =>
  end(orderOf(planning, end(planWith(planning, 'goal')).cases));

/** Links as they are written, and the crews. */
function termsOf(planning: Planning): VerifyOrderTerms {
  const links = planning.estate.systems.flatMap((system): VerifyLink[] =>
    planning.links.around(system).flatMap(({ kind, system: other }): VerifyLink[] => {
      if (typeof other === 'string') return [];
      const product = planning.modelFor(system)?.product;
      const theirs = planning.modelFor(other)?.product.id;
      return (product?.pairings ?? []).flatMap((p) =>
        p.kind === kind && p.other === theirs ? [{ own: system.id, other: other.id, pairing: p.id }] : []
      );
    })
  );
  const demands = planning.estate.systems.flatMap((system): VerifyLink[] =>
    (planning.modelFor(system)?.product.requirements ?? []).flatMap(({ id, grade, needs }) => {
      const word = /^(?:every|lowest) linked (\S+) \(release in/.exec(String(needs))?.[1];
      if (grade !== 'blocks' || word === undefined) return [];
      return (planning.links.find(system, word)?.systems ?? []).map(({ id: other }) => ({
        own: system.id,
        other,
        pairing: id
      }));
    })
  );
  const cases = new Map(planning.gather().cases.flatMap((c) => c.systems.map((s) => [s, c] as const)));
  return {
    watches: (id) => (cases.get(id)?.goal.watchDays ?? 0) > 0,
    pilotsOf: (id) => {
      const [pilots, system] = [cases.get(id)?.goal.pilots, planning.system(id)];
      return pilots && system
        ? { group: `${system.team} ${planning.modelFor(system)?.product.id}`, ...pilots }
        : undefined;
    },
    productOf: (id) => {
      const system = planning.system(id);
      return system && planning.modelFor(system)?.product;
    },
    links: [...links, ...demands],
    crewOf: (window) =>
      planning.estate.calendars?.flatMap((c) => c.windows).find((w) => w.id === window)?.crew?.systems
  };
}

const planning = planningOf();
const order = orderWith(planning);
const terms = termsOf(planning);
const component = (system: string, of = order): ComponentOrder => {
  const found = of.components.find((c) => c.parts.some((p) => p.systems.includes(system)));
  if (!found) throw new Error(`nothing hangs on ${system}`);
  return found;
};
/** `depot-hub 8.50>9` for each step, a list a wave. */
const told = ({ parts, waves }: ComponentOrder): string[][] =>
  waves.map((w) => w.steps.map((s) => `${parts[s.part]?.id} ${s.from.release}>${s.to.release}`));

test('the verifier accepts every order of the demo', () => {
  expect(order.components.map((c) => [c.id, verifyOrder(c, terms)])).toEqual(
    order.components.map((c) => [c.id, []])
  );
  expect(order.components.every((c) => c.proven)).toBe(true);
});

test('manager, then the bundle past the one between, then both products at once', () => {
  const depot = component('depot-hub');
  expect(told(depot)).toEqual([
    ['depot-hub hub-8.50>hub-9'],
    ['depot-content c-31>c-44'],
    ['depot-ledger 3.7>4.0', 'depot-watch 8.6>9.1']
  ]);
  expect(depot.waves.map((w) => w.bound.length)).toEqual([0, 0, 1]);
  const [ledger, watch] = depot.waves[2]?.steps ?? [];
  expect(ledger?.first).toBe(watch?.first);
});

test('hosts go one by one, rest in the middle for each other, and after their manager', () => {
  const waves = told(component('host-b-01'));
  const at = (step: string): number => waves.findIndex((w) => w.includes(step));
  expect(waves.every((w) => w.filter((s) => s.startsWith('host-b')).length <= 1)).toBe(true);
  expect(at('keeper k6>k7')).toBeLessThan(at('host-b-01 h5>h6'));
  expect(waves.flat().filter((s) => s.endsWith('h5>h6')).length).toBe(4);
  const end = waves.flat().filter((s) => s.startsWith('host-b') && s.endsWith('>h7'));
  expect(end.length).toBe(5);
});

test('where there is no order it says why: a host that has no way of its own, a hub that may not move', () => {
  const hosts = component('host-a-01');
  const fate = (id: string, of: ComponentOrder) => of.parts.find((p) => p.systems.includes(id))?.fate;
  expect(fate('host-a-04', hosts)).toBe('no way');
  expect(fate('host-a-01', hosts)).toBe('no order');
  const why = hosts.conflicts.find((c) => c.goals.some((g) => hosts.parts[g]?.id === 'host-a-01'));
  expect(why?.constraints).toMatchObject([{ kind: 'pairing', pairing: 'host-lowest' }]);
  const suite = component('ledger');
  expect(suite.waves).toEqual([]);
  expect(fate('hub', suite)).toBe('no way');
  expect(fate('ledger', suite)).toBe('no order');
});

/** The same order with its waves changed. */
const changed = (of: ComponentOrder, change: (waves: OrderedWave[]) => OrderedWave[]): ComponentOrder => ({
  ...of,
  waves: change(structuredClone(of.waves) as OrderedWave[])
});

test.each<[string, string, (waves: OrderedWave[]) => OrderedWave[], string]>([
  ['a wave swapped with the next', 'depot-hub', ([a, b, ...rest]) => [b!, a!, ...rest], 'broken'],
  ['what is bound made one by one', 'depot-hub', (w) => w.map((x) => ({ ...x, bound: [] })), 'broken'],
  [
    'two peers at once',
    'door-east',
    ([a, b, ...rest]) => [{ ...a!, steps: [...a!.steps, ...b!.steps], last: b!.last }, ...rest],
    'peers at once'
  ],
  [
    'a wave before the last has ended',
    'depot-hub',
    ([a, b, ...rest]) => [
      a!,
      { ...b!, first: a!.first, steps: b!.steps.map((s) => ({ ...s, first: a!.first })) },
      ...rest
    ],
    'before its turn'
  ],
  ['a wave left out', 'depot-hub', ([, ...rest]) => rest, 'broken'],
  ['the last wave left out', 'depot-hub', (w) => w.slice(0, -1), 'not there'],
  ['a step from where it does not stand', 'host-b-01', (w) => [...w, w[0]!], 'starts elsewhere'],
  [
    'two that are bound on different days',
    'depot-hub',
    (w) =>
      w.map((x) =>
        x.bound.length === 0 ? x : { ...x, steps: x.steps.map((s, i) => ({ ...s, first: s.first + i })) }
      ),
    'not at one time'
  ]
])('the verifier refuses %s', (_, system, change, code) => {
  const faults = verifyOrder(changed(component(system), change), terms);
  expect(faults.map((f) => f.code)).toContain(code);
});

test('what hangs on something of which nobody has told where it stands does not move', () => {
  const systems = linked.map((s) =>
    s.id === 'depot-hub' ? { ...s, release: { unknown: 'not asked' as const } } : s
  );
  const { catalogue: own, today } = planning;
  const blind = orderWith(new Planning({ catalogue: own, estate: { ...estate, systems }, today }));
  const found = blind.components.find((c) => c.parts.some((p) => p.id === 'depot-content'));
  const content = found?.parts.find((p) => p.id === 'depot-content');
  expect(content?.fate).toBe('not told');
  expect(found?.waves).toEqual([]);
});

test('what must change at once wants crew for all: with one on watch there is no room, and nothing else is held up by it', () => {
  const calendars = (estate.calendars ?? []).map((c) =>
    c.team === 'Control room' ? { ...c, windows: c.windows.map((w) => ({ ...w, crew: { systems: 1 } })) } : c
  );
  const { catalogue: own, today } = planning;
  const alone = orderWith(
    new Planning({ catalogue: own, estate: { ...estate, systems: linked, calendars }, today })
  );
  const depot = component('depot-hub', alone);
  expect(depot.waves).toEqual([]);
  expect(depot.parts.map((p) => p.fate)).toEqual(depot.parts.map(() => 'no room'));
  const before = orderWith(planningOf(undefined, linked));
  expect(told(component('host-b-01', alone))).toEqual(told(component('host-b-01', before)));
  const both = component('depot-hub').waves[2]?.steps.map((s) => s.rounds[0]?.at?.begins) ?? [];
  expect(both[0]).toBeDefined();
  expect(both[0]).toBe(both[1]);
});

test('the latest day a wave may begin on is the last from which nothing more is missed', () => {
  const asOf = (today: number): ComponentOrder[] => {
    const systems = estate.systems.filter((s) => /^(depot|door)-/.test(s.id));
    const moved = new Planning({ catalogue: planning.catalogue, estate: { ...estate, systems }, today });
    return ['depot-hub', 'door-east'].map((id) => component(id, orderWith(moved)));
  };
  const [depot, doors] = ['depot-hub', 'door-east'].map((id) => component(id).waves[0]?.latest ?? 0);
  const missed = (c: ComponentOrder | undefined): boolean => c?.parts.some((p) => p.missed) ?? true;
  expect(asOf(depot ?? 0).map(missed)[0]).toBe(false);
  expect(asOf((depot ?? 0) + 1).map(missed)[0]).toBe(true);
  expect(asOf(doors ?? 0).map(missed)[1]).toBe(false);
  expect(asOf((doors ?? 0) + 1).map(missed)[1]).toBe(true);
});

test('a crew of one has no two under work at a time, whoever owns them; one too many is refused', () => {
  const crewed = planningOf(1, linked);
  const of = orderWith(crewed);
  const crew = termsOf(crewed);
  for (const c of of.components) expect(verifyOrder(c, crew)).toEqual([]);
  const blocks = of.components.flatMap((c) =>
    c.waves.flatMap((w) => w.steps.flatMap((s) => s.rounds.flatMap((r) => (r.at ? [r.at] : []))))
  );
  const own = blocks.filter((b) => b.window === 'night').sort((a, b) => a.begins - b.begins);
  expect(own.length).toBeGreaterThan(8);
  own.slice(1).forEach((b, i) => expect(b.begins).toBeGreaterThanOrEqual(own[i]!.ends));
  const hub = component('depot-hub', of);
  const crowded = changed(hub, (w) =>
    w.map((x) => ({
      ...x,
      steps: x.steps.map((s) => ({ ...s, rounds: s.rounds.map((r) => ({ ...r, systems: 2 })) }))
    }))
  );
  expect(verifyOrder(crowded, crew).map((f) => f.code)).toContain('crew');
});

test('the order as a file: the same waves, in words a program reads', async () => {
  const { site, goals, decisions, rightsHeld, calendars } = estate;
  const systems = linked;
  const body = JSON.stringify({
    catalogue: catalogue.ok ? catalogue.value : undefined,
    estate: { site, systems, goals, decisions, rightsHeld, calendars },
    today: '2031-03-10',
    format: 'order'
  });
  const answer = answerPlan({ bytes: new TextEncoder().encode(body), today: '2031-03-10' });
  expect(answer.status).toBe(200);
  const file = JSON.parse(answer.body) as Omit<ReturnType<typeof orderFile>, 'components'> & {
    components: {
      waves: { first: string; bound: string[][]; steps: { part: string; because: unknown[] }[] }[];
    }[];
  };
  expect(file).toMatchObject({ format: 'orange-stair-order', version: 1, today: '2031-03-10' });
  const { components } = orderWith(planningOf(undefined, linked));
  expect(file.components.map((c) => c.waves.length)).toEqual(components.map((c) => c.waves.length));
  const bound = file.components.flatMap((c) => c.waves.flatMap((w) => w.bound));
  expect(bound).toEqual([['depot-ledger', 'depot-watch']]);
});

/** The order with changes made, and the verifier's word on it. */
function orderAfter(changes: readonly Change[]): { order: Order; planning: Planning; faults: unknown[] } {
  const { catalogue: own, today } = planning;
  const tried = planningWith({ catalogue: own, estate: { ...estate, systems: linked }, today }, changes);
  const found = orderWith(tried);
  const kept = { ...termsOf(tried), locks: tried.estate.locks ?? [] };
  return { order: found, planning: tried, faults: found.components.flatMap((c) => verifyOrder(c, kept)) };
}
const isoOf = (day: number): string => formatDay(day);
const finishOf = (c: ComponentOrder): number => Math.max(...c.waves.map((w) => w.last));

test('a wave laid down for another night lies there, what follows comes behind it, and what nothing allows is refused', () => {
  const before = component('depot-hub', orderAfter([]).order);
  const nights = before.waves.map((w) => w.first);
  const lock = (must: OrderLock['must'], ids = ['depot-hub']): Change => ({ lock: { systems: ids, must } });
  const later = orderAfter([lock({ on: isoOf(nights[1]!) })]);
  const moved = component('depot-hub', later.order);
  expect(moved.waves[0]?.first).toBe(nights[1]);
  expect(moved.waves[1]?.first).toBeGreaterThan(nights[1]!);
  expect(finishOf(moved)).toBeGreaterThan(finishOf(before));
  expect(later.faults).toEqual([]);
  // The same order, had somebody laid down something else.
  const other = [{ id: 'x', day: '2031-03-10', systems: ['depot-hub'], must: { on: isoOf(nights[0]!) } }];
  expect(verifyOrder(moved, { ...terms, locks: other }).map((f) => f.code)).toEqual(['lock']);
  // A day with no window: nothing reaches the goal, and lifting the lock would.
  const never = component('depot-hub', orderAfter([lock({ notAfter: isoOf(nights[0]! - 1) })]).order);
  expect(never.waves).toEqual([]);
  expect(never.parts.find((p) => p.id === 'depot-hub')?.fate).toBe('no room');
  expect(never.parts.find((p) => p.id === 'depot-hub')?.savedBy).toMatchObject([{ kind: 'lock' }]);
});

test('what is laid down to go apart never shares a wave, in one component or two', () => {
  const both = orderAfter([
    { lock: { systems: ['door-east'], must: { apartFrom: ['depot-hub'] } } },
    { lock: { systems: ['depot-ledger'], must: { apartFrom: ['depot-watch'] } } }
  ]);
  expect(both.faults).toEqual([]);
  const joined = component('depot-hub', both.order);
  expect(joined.parts.some((p) => p.id === 'door-east')).toBe(true);
  const fate = (id: string) => joined.parts.find((p) => p.id === id)?.fate;
  // The two only fit when they change at once.
  expect([fate('depot-ledger'), fate('depot-watch')]).toEqual(['no order', 'no order']);
  expect(joined.conflicts.flatMap((c) => c.constraints.map((x) => x.kind))).toContain('lock');
});

test('waves share a night behind each other; what is laid down to go apart has nights of its own', () => {
  const nightly = planningOf(3);
  const systems = nightly.estate.systems.filter((s) => /^(host-b|keeper)/.test(s.id));
  const orderOfHosts = (changes: readonly Change[]) => {
    const input = {
      catalogue: nightly.catalogue,
      estate: { ...nightly.estate, systems },
      today: nightly.today
    };
    const tried = planningWith(input, changes);
    const hosts = component('host-b-01', orderWith(tried));
    expect(verifyOrder(hosts, { ...termsOf(tried), locks: tried.estate.locks ?? [] })).toEqual([]);
    return hosts;
  };
  const nightsOf = (of: ComponentOrder, id: string): Set<string> =>
    new Set(
      of.waves.flatMap((w) =>
        w.steps
          .filter((s) => of.parts[s.part]?.systems.includes(id))
          .flatMap((s) => s.rounds.map((r) => String(r.at?.closes)))
      )
    );
  const free = orderOfHosts([]);
  expect(free.waves.some((w, i) => i > 0 && w.first <= free.waves[i - 1]!.last)).toBe(true);
  const ids = ['host-b-01', 'host-b-02', 'host-b-03', 'host-b-04', 'host-b-05'];
  const pairs = ids.flatMap((a, i) => ids.slice(i + 1).map((b) => [a, b] as const));
  const [one, other] =
    pairs.find(([a, b]) => [...nightsOf(free, a)].some((n) => nightsOf(free, b).has(n))) ?? [];
  expect(one).toBeDefined();
  const must = { apartFrom: [other!] };
  const apart = orderOfHosts([{ lock: { systems: [one!], must } }]);
  expect([...nightsOf(apart, one!)].some((n) => nightsOf(apart, other!).has(n))).toBe(false);
  // The order found without it is refused with it.
  const locks = [{ id: 'x', day: '2031-03-10', systems: [one!], must }];
  expect(verifyOrder(free, { ...termsOf(nightly), locks }).map((f) => f.code)).toContain('lock');
});

test('a longer window, more people, a freeze gone, and another choice are tried like anything else', () => {
  const calendar = estate.calendars?.find((c) => c.team === 'Control room');
  const window = calendar?.windows[0];
  const one = { window: window?.id ?? '', calendar: calendar?.id ?? '' };
  const alone = component('depot-hub', orderAfter([{ ...one, crew: 1 }]).order);
  expect(alone.waves).toEqual([]);
  expect(alone.parts[0]?.savedBy).toMatchObject([{ kind: 'crew' }]);
  expect(component('depot-hub', orderAfter([{ ...one, crew: 2 }]).order).waves.length).toBe(3);
  const brief = (calendar?.windows ?? []).map((w) => ({ ...one, window: w.id, minutes: 10 }));
  const short = component('depot-hub', orderAfter(brief).order);
  expect(short.parts.find((p) => p.id === 'depot-ledger')?.fate).toBe('no way');
  for (const orderBy of ORDER_BY) {
    const found = orderAfter([{ orderBy }]);
    expect(found.faults).toEqual([]);
    expect(component('depot-hub', found.order).waves.length).toBe(3);
  }
});

test('how long work may wait in the order is less than alone by what others need before', () => {
  const depot = component('depot-hub');
  const last = depot.parts.find((p) => p.id === 'depot-ledger');
  const waits = (last?.waitsFor ?? []).map((p) => depot.parts[p]?.id);
  expect(waits).toContain('depot-hub');
  const latest = depot.waves[0]?.latest ?? 0;
  const slacks = depot.parts.flatMap((p) => p.slack ?? []);
  expect(Math.min(...slacks)).toBe(latest - planning.today);
});

/** The demo with a goal of one team changed, in a smaller estate. */
function orderAsked(team: string, asked: Partial<Goal>, ids: RegExp): ReturnType<typeof orderAfter> {
  const { catalogue: own, today } = planning;
  const systems = estate.systems.filter((s) => ids.test(s.id));
  const [first] = estate.goals ?? [];
  const goals = [
    ...(estate.goals ?? []).filter((g) => g.team !== team),
    { ...first!, id: 'asked', team, ...asked }
  ];
  const tried = new Planning({ catalogue: own, estate: { ...estate, systems, goals }, today });
  const found = orderWith(tried);
  return {
    order: found,
    planning: tried,
    faults: found.components.flatMap((c) => verifyOrder(c, termsOf(tried)))
  };
}

test('pilots of linked systems go first, the others wait for them and the days they are watched', () => {
  const team = planning.system('door-east')?.team ?? '';
  const pilots = { systems: 1, watchDays: 9 };
  const asked = orderAsked(team, { pilots, phase: 'security' }, /^door-/);
  expect(asked.faults).toEqual([]);
  const doors = component('door-east', asked.order);
  const first = doors.pilots[0]?.first ?? [];
  expect(doors.parts[first[0] ?? 0]?.systems.length).toBe(1);
  const of = (parts: readonly number[]) =>
    doors.waves.flatMap((w) => w.steps.filter((s) => parts.includes(s.part)));
  const ended = Math.max(...of(first).map((s) => s.last));
  const begun = Math.min(...of(doors.pilots[0]?.then ?? []).map((s) => s.first));
  expect(begun).toBeGreaterThan(ended + 9);
  // The same order laid without them is refused.
  const { pilots: none, ...rest } = asked.planning.estate.goals!.at(-1)!;
  void none;
  const unasked = orderAsked(team, { ...rest, pilots: undefined as never }, /^door-/);
  const refused = unasked.order.components.flatMap((c) => verifyOrder(c, termsOf(asked.planning)));
  expect(refused.map((f) => f.code)).toContain('pilots');
});

test('a requirement on where linked systems stand is verified like a pairing', () => {
  const hosts = component('host-b-01');
  // As it would be were at least 6 asked of all: by then every host rests there.
  const stricter = (product: ReturnType<typeof terms.productOf>): typeof product =>
    product && {
      ...product,
      requirements: (product.requirements ?? []).map((r) =>
        r.id === 'host-lowest' ? { ...r, needs: 'lowest linked cluster (release in (from h6))' } : r
      )
    };
  const only = {
    ...terms,
    productOf: (id: string) => stricter(terms.productOf(id)),
    links: terms.links.filter((l) => l.pairing === 'host-lowest')
  };
  expect(only.links.length).toBeGreaterThan(0);
  expect(verifyOrder(hosts, only)).toEqual([]);
  // One host to the end at once, while the others are still where they were.
  const early = changed(hosts, (waves) => {
    const last = waves.findIndex((w) => w.steps.some((s) => s.from.release === 'h6'));
    const step = waves[last]!.steps.find((s) => s.from.release === 'h6' && s.to.release === 'h7')!;
    const before = waves.findIndex((w) => w.steps.some((s) => s.part === step.part));
    return waves.map((w, i) =>
      i === before
        ? { ...w, steps: w.steps.map((s) => (s.part === step.part ? { ...s, to: step.to } : s)) }
        : w
    );
  });
  expect(verifyOrder(early, only).map((f) => f.code)).toContain('broken');
});

test('where nobody has told whether two fit, an order that would reach more stands beside', () => {
  const { catalogue: own, today } = planning;
  const products = own.products.map((p) => ({
    ...p,
    ...(p.pairings
      ? {
          pairings: p.pairings.map((x) => ({
            ...x,
            table: 'partial' as const,
            ...(x.fits ? { fits: x.fits.slice(0, 1) } : {})
          }))
        }
      : {})
  }));
  const systems = estate.systems.filter((s) => /^depot-/.test(s.id));
  const blind = new Planning({ catalogue: { ...own, products }, estate: { ...estate, systems }, today });
  const found = orderWith(blind).components.filter((c) => c.perhaps);
  expect(found.length).toBeGreaterThan(0);
  for (const { perhaps, parts, waves } of found) {
    expect(perhaps!.rests.length).toBeGreaterThan(0);
    for (const goal of perhaps!.goals) {
      expect(parts[goal]?.fate).not.toBe('reached');
      expect(
        waves
          .flatMap((w) => w.steps)
          .filter((s) => s.part === goal && s.to.release === parts[goal]?.goal?.release)
      ).toEqual([]);
      const last = perhaps!.waves.flatMap((w) => w.steps.filter((s) => s.part === goal)).at(-1);
      expect(last?.to.release).toBe(parts[goal]?.goal?.release);
    }
  }
});
