import { expect, test } from 'vitest';
import { type Catalogue, Names, type Product, splitEntryPath } from '$core/catalogue';
import {
  type Estate,
  FactDecisions,
  kindsOf,
  type System,
  type WorkItem,
  type Worksheet
} from '$core/estate';
import { FactKinds } from '$core/condition';
import { type CasePlan, exploreSystem, plan, Planning, sameTarget } from '$core/plan';
import type { PlanInput } from '../../src/core/plan/plan';
import { isCounted, type Step } from '$core/route';
import { sayOrigin, sayTask, type WorkNames } from '$core/wording';
import {
  beforeAndAfter,
  companionsSeen,
  effectOf,
  endedBy,
  ENOUGH_RUNS,
  enoughRuns,
  experienceOf,
  gatesBefore,
  heldAfter,
  isDone,
  learned,
  learnedCompanion,
  makeItems,
  nightOf,
  progressOf,
  seenOf,
  systemAfter
} from '$core/worksheet';
import { oftenerThan, seedsOf, tell } from '../support/laws';
import { Random } from '../support/random';
import { estateOf } from '../support/world-estates';
import { fullWorldOf } from '../support/worlds';

/** Whether what an item says it comes from is there: an entry of the catalogue, a rule, a fact or a link. */
function hasSource({ about }: WorkItem, product: Product, system: System): boolean {
  const [of, list, id, part, patch] = splitEntryPath(about);
  if (about.startsWith('rule: ') || about === 'route' || about === 'link: managed by') return true;
  if (about === 'companions of the system') return (system.companions ?? []).length > 0;
  if (about === 'name of the system' || about === 'references of the system') return true;
  if (of !== product.id) return false;
  const entries = product[list as 'hops'] as
    readonly { id: string; patches?: readonly { id: string }[] }[] | undefined;
  const entry = entries?.find((e) => e.id === id);
  return part === 'patches' ? entry?.patches?.some((p) => p.id === patch) === true : entry !== undefined;
}

const timesOf = (step: Step, nodes: number): number =>
  step.kind === 'work-around' ? step.times : isCounted(step) ? nodes : 1;

/** The worksheet of a case's first system, on its chosen way; undefined where it has none. */
function drawFor(one: CasePlan, { catalogue, estate }: PlanInput) {
  const { route, target } = one.goalPlan ?? {};
  const system = estate.systems.find((s) => s.id === one.systems[0]);
  const [product] = catalogue.products as [Product];
  if (!route || !target || !system || !one.start) return undefined;
  const { fallbacks } = one;
  const items = makeItems({ route, product, system, isCritical: false, linkedBy: () => [], fallbacks });
  const sheet: Worksheet = {
    id: 'w',
    system: system.id,
    product: product.id,
    made: '2031-03-10',
    start: one.start,
    target: { ...target, patch: '' },
    before: seenOf(system),
    items,
    entries: []
  };
  return { of: { route, target, system, items }, sheet };
}

/** Made, and worked through from the first item to the last, with whatever gates let it. */
function workThrough(sheet: Worksheet): { sheet: Worksheet; shut: number } {
  let at = sheet;
  let shut = 0;
  sheet.items.forEach((item, i) => {
    if (item.needless !== undefined) return;
    const asking = { now: '2031-03-10T20:00:00Z', isThere: () => true, failedOn: () => [] };
    shut += gatesBefore(at, item, asking).filter((g) => !g.isOpen).length;
    const entry = {
      id: `e${String(i).padStart(4, '0')}`,
      item: item.id,
      at: `2031-03-10T${String(18 + Math.floor(i / 60)).padStart(2, '0')}:${String(i % 60).padStart(2, '0')}:00Z`,
      state: 'passed' as const,
      minutes: 7
    };
    at = { ...at, entries: [...at.entries, entry] };
  });
  return { sheet: at, shut };
}

test('of 300 random plans: every step once a node it concerns, in turn; gates before hops open only by what stands before; no item without a source', () => {
  const seen = {
    sheets: 0,
    hops: 0,
    nodes: 0,
    cures: 0,
    arounds: 0,
    left: 0,
    patches: 0,
    work: 0,
    fallbacks: 0
  };
  for (const seed of seedsOf(300)) {
    const input = estateOf(fullWorldOf(seed), new Random(seed * 31));
    const [product] = input.catalogue.products as [Product];
    const names: WorkNames = { product: () => new Names(product), system: (id) => id };
    for (const one of plan({ ...input, every: 'goal' }).cases) {
      const drawn = drawFor(one, input);
      if (!drawn || drawn.of.route.steps.length === 0) continue;
      const { route, target, system, items } = drawn.of;
      const nodes = system.nodes ?? 1;
      const told = `${seed} ${one.id}`;
      // Each counted step once a node, in turn; each other step as often as it is done.
      const counted = route.steps.filter(isCounted);
      expect(
        items.filter((i) => i.kind === 'hop').map((i) => [i.step, splitEntryPath(i.about)[2], i.node ?? 1]),
        told
      ).toEqual(counted.flatMap((s, k) => Array.from({ length: nodes }, (_, n) => [k, s.id, n + 1])));
      for (const kind of ['work-around', 'cure', 'patch'] as const)
        expect(
          items.filter((i) => i.kind === kind && i.needless === undefined).length,
          `${told} ${kind}`
        ).toBe(
          route.steps
            .filter((s) => s.kind === kind && !isLeftBehind(s))
            .reduce((n, s) => n + timesOf(s, nodes), 0)
        );
      const left = route.steps.filter(isLeftBehind);
      expect(
        items.filter((i) => i.kind === 'post-work' && i.about.includes('/cautions/')).length,
        told
      ).toBeGreaterThanOrEqual(left.length);
      seen.left += left.length;
      const work = route.steps.filter((s) => s.kind === 'work' && s.task !== 'back up');
      expect(
        items.filter(
          (i) =>
            i.kind === 'work' ||
            (i.kind === 'post-work' && work.some((w) => w.kind === 'work' && w.task === i.text))
        ).length,
        told
      ).toBe(work.length);
      for (const item of items) {
        expect(hasSource(item, product, system), `${told} ${item.id}: ${item.about}`).toBe(true);
        expect(sayTask(item, { product: product.id, system: system.id } as Worksheet, names)).not.toMatch(
          /undefined|^$|: $/
        );
        expect(sayOrigin(item, names)).not.toBe('');
      }
      expect(new Set(items.map((i) => i.id)).size, told).toBe(items.length);
      // Worked through in its order no gate is ever shut; with any one item left open, a hop behind it that wants it is.
      const { sheet } = drawn;
      const { sheet: done, shut } = workThrough(sheet);
      expect(shut, told).toBe(0);
      const lastHop = items.filter((i) => i.kind === 'hop').at(-1) as WorkItem;
      for (const item of items.filter(
        (i) => i.kind === 'back up' || i.kind === 'check' || i.kind === 'fetch'
      )) {
        const open = { ...done, entries: done.entries.filter((e) => e.item !== item.id) };
        const asking = { now: '2031-03-10T20:00:00Z', isThere: () => true, failedOn: () => [] };
        expect(
          gatesBefore(open, lastHop, asking).some((g) => !g.isOpen),
          `${told} ${item.id}`
        ).toBe(true);
      }
      // What is installed behind it is what the way ends on, and the sheet of before and after has nothing unexpected.
      let at: System = system;
      const entered: Worksheet['entries'] = [];
      for (const entry of done.entries) {
        const effect = effectOf({ ...sheet, entries: entered }, entry);
        entered.push(entry);
        if (effect)
          at = systemAfter(at, effect, {
            day: '2031-03-10',
            was: '',
            note: '',
            kinds: kindsOf(input.catalogue)
          });
      }
      expect([at.release, at.edition], told).toEqual([{ is: target.release }, { is: target.edition }]);
      expect(
        beforeAndAfter(done, at, { product, kinds: kindsOf(input.catalogue) }).filter((d) => !d.isExpected),
        told
      ).toEqual([]);
      expect(
        beforeAndAfter(done, at, { product, kinds: kindsOf(input.catalogue) }).some(
          (d) => d.kind === 'release' || d.kind === 'edition'
        ),
        told
      ).toBe(target.release !== sheet.start.release || target.edition !== sheet.start.edition);
      seen.sheets++;
      seen.hops += counted.length;
      seen.nodes += nodes > 1 ? 1 : 0;
      seen.cures += items.filter((i) => i.kind === 'cure').length;
      seen.arounds += items.filter((i) => i.kind === 'work-around').length;
      seen.patches += items.filter((i) => i.kind === 'patch').length;
      seen.work += work.length;
      seen.fallbacks += items.filter((i) => i.details?.[0] === 'fallback').length;
    }
  }
  tell('worksheets have every step', { ...seen });
  for (const [what, n] of Object.entries(seen)) expect(n, what).toBeGreaterThan(oftenerThan(0));
});

const at = (release: string) => ({ release, patch: '', edition: 'only', architecture: 'only' });
const hop: WorkItem = {
  id: 'hop',
  kind: 'hop',
  about: 'p/hops/a',
  step: 0,
  to: at('2'),
  sets: { mode: 'new' },
  typicalMinutes: 30,
  carefulMinutes: 60
};
const sheetWith = (
  id: string,
  entries: Worksheet['entries'],
  items: readonly WorkItem[] = [hop]
): Worksheet => ({
  id,
  system: 's',
  product: 'p',
  made: '2031-03-10',
  night: '2031-03-10',
  start: at('1'),
  target: at('2'),
  items: [...items],
  entries
});
const entered = (
  state: 'passed' | 'failed',
  minutes?: number,
  when = '2031-03-10T23:30:00Z'
): Worksheet['entries'] => [
  { id: `e${String(minutes)}`, item: 'hop', at: when, state, ...(minutes === undefined ? {} : { minutes }) }
];
const product = {
  id: 'p',
  name: 'P',
  publisher: 'x',
  features: [
    { id: 'f', name: 'Fast' },
    { id: 'g', name: 'Gone' }
  ],
  releases: [{ id: '1' }, { id: '2', gains: ['f'], loses: [{ feature: 'g', instead: 'h' }] }],
  hops: [{ id: 'a', typicalMinutes: 30, carefulMinutes: 60, source: 'book' }]
} as unknown as Product;

test('own runs are gone by from the fifth on: the middle one, and the longest; failed ones are counted apart', () => {
  const runs = [40, 10, 30, 90, 20];
  const sheets = runs.map((m, i) => sheetWith(`w${i}`, entered('passed', m)));
  const failed = sheetWith('f', entered('failed', 5));
  const [seen] = experienceOf([...sheets, failed]);
  expect(seen).toEqual({
    about: 'p/hops/a',
    product: 'p',
    failed: 1,
    runs: { n: 5, typicalMinutes: 30, carefulMinutes: 90 },
    typicalMinutes: 30,
    carefulMinutes: 60
  });
  expect(ENOUGH_RUNS).toBe(5);
  expect(enoughRuns(experienceOf(sheets), 'p/hops/a')?.carefulMinutes).toBe(90);
  expect(enoughRuns(experienceOf(sheets.slice(1)), 'p/hops/a')).toBeUndefined();
  // What nobody timed, and what was left out, is no run.
  expect(experienceOf([sheetWith('n', entered('passed'))])).toEqual([]);
  // In the catalogue it stands beside what others say, once.
  const catalogue = {
    format: 'orange-stair-catalogue' as const,
    version: 3 as const,
    name: 'c',
    products: [product]
  };
  const once = learned(catalogue, seen!, '2031-03-11')!;
  const twice = learned(once, seen!, '2031-03-12')!;
  for (const c of [once, twice])
    expect(c.products[0]?.hops?.[0]).toEqual({
      id: 'a',
      typicalMinutes: 30,
      carefulMinutes: 60,
      source: 'book',
      also: [{ typicalMinutes: 30, carefulMinutes: 90, source: 'own-experience-5' }]
    });
  expect(twice.sources?.length).toBe(1);
  expect(learned(catalogue, { ...seen!, about: 'p/hops/none' }, '2031-03-11')).toBeUndefined();
});

test('before and after: what the way sets is expected, anything else that is otherwise is not', () => {
  const base = {
    id: 's',
    name: 's',
    companions: [{ name: 'Stamp' }, { name: 'Kit' }],
    facts: { mode: { value: 'old' }, memory: { value: '8 GB' } }
  } as unknown as System;
  const before = seenOf(base);
  const sheet = { ...sheetWith('w', entered('passed', 30)), before };
  const now = {
    ...base,
    release: { is: '2' },
    patch: { is: '' },
    edition: { is: 'only' },
    architecture: { is: 'only' },
    companions: [{ name: 'Stamp' }],
    facts: { mode: { value: 'new' }, memory: { value: '4 GB' } }
  } as unknown as System;
  expect(beforeAndAfter(sheet, now, { product, kinds: new FactKinds() })).toEqual([
    { kind: 'release', what: 'release', before: '1', after: '2', isExpected: true },
    { kind: 'fact', what: 'memory', before: '8 GB', after: '4 GB', isExpected: false },
    { kind: 'fact', what: 'mode', before: 'old', after: 'new', isExpected: true },
    { kind: 'companion', what: 'Kit', before: 'Kit', isExpected: false },
    { kind: 'gained', what: 'Fast', isExpected: true },
    { kind: 'lost', what: 'Gone', instead: 'h', isExpected: true }
  ]);
  // A hop that was entered as passed and did not move the machine is not as expected.
  const stuck = {
    ...now,
    release: { is: '1' },
    facts: { mode: { value: 'old' }, memory: { value: '8 GB' } }
  } as unknown as System;
  expect(
    beforeAndAfter(sheet, stuck, { product, kinds: new FactKinds() })
      .filter((d) => !d.isExpected)
      .map((d) => d.what)
  ).toEqual(['release', 'mode', 'Kit']);
});

test('a night goes from noon to noon on the clock of those who work it', () => {
  const late = sheetWith('late', entered('passed', 3, '2031-03-11T02:00:00Z'));
  const noon = sheetWith('noon', entered('passed', 3, '2031-03-11T12:00:00Z'));
  const ids = (night: string, offset = 0): string[] =>
    nightOf(
      [late, noon].map((s) => ({ ...s, night: '2030-01-01' })),
      night,
      offset
    ).map((r) => r.sheet.id);
  expect(ids('2031-03-10')).toEqual(['late']);
  expect(ids('2031-03-11')).toEqual(['noon']);
  expect(ids('2031-03-10', -60)).toEqual(['late', 'noon']);
  expect(ids('2031-03-11', 10 * 60)).toEqual(['late', 'noon']);
  expect(ids('2031-03-10', 10 * 60 - 1)).toEqual(['late']);
  // What is planned for it and was not begun is in it, too.
  const [run] = nightOf([sheetWith('idle', [])], '2031-03-10', 0);
  expect(run).toMatchObject({ done: 0, of: 1, hops: [], failed: [] });
  expect(run?.began).toBeUndefined();
  const [bad] = nightOf([sheetWith('bad', entered('failed', 9))], '2031-03-10', 0);
  expect(bad?.failed.map((i) => i.id)).toEqual(['hop']);
  expect(isDone(progressOf(sheetWith('bad', entered('failed', 9))).get('hop')?.state ?? 'open')).toBe(false);
});

test('how companions fared is counted, and stated only of releases nobody states them of', () => {
  const look: WorkItem = { id: 'look', kind: 'verify', about: 'companions of the system', text: 'Stamp' };
  const fared = (id: string, state: 'passed' | 'failed'): Worksheet =>
    sheetWith(id, [{ id: `e${id}`, item: 'look', at: '2031-03-10T23:30:00Z', state }], [hop, look]);
  const seen = companionsSeen([fared('a', 'failed'), fared('b', 'failed'), sheetWith('c', [], [look])]);
  expect(seen).toEqual([{ product: 'p', companion: 'Stamp', release: '2', worked: 0, failed: 2 }]);
  const withFares = (at: string) => ({
    format: 'orange-stair-catalogue' as const,
    version: 3 as const,
    name: 'c',
    products: [
      {
        ...product,
        companions: [{ id: 'stamp', name: 'Stamp', kind: 'device', fares: [{ at, verdict: 'works' }] }]
      } as unknown as Product
    ]
  });
  const stated = learnedCompanion(withFares('1'), seen[0]!, '2031-03-11');
  expect(stated?.products[0]?.companions?.[0]?.fares[1]).toEqual({
    at: '2',
    verdict: 'does not work',
    source: 'own-experience-2'
  });
  expect(learnedCompanion(stated!, seen[0]!, '2031-03-11')).toBeUndefined();
  expect(learnedCompanion(withFares('any'), seen[0]!, '2031-03-11')).toBeUndefined();
  const [both] = companionsSeen([fared('a', 'failed'), fared('b', 'passed')]);
  expect(learnedCompanion(withFares('1'), both!, '2031-03-11')).toBeUndefined();
});

/** An estate in which an entry has changed a system, and what is held. */
function estateAfter(
  estate: Estate,
  sheet: Worksheet,
  entry: Worksheet['entries'][number],
  catalogue: Catalogue
): Estate {
  const effect = effectOf(sheet, entry);
  const system = estate.systems.find((s) => s.id === sheet.system);
  if (!effect || !system) return estate;
  const day = '2031-03-10';
  const kinds = kindsOf(catalogue);
  const decided = new FactDecisions(estate.decisions, day);
  const after = systemAfter(system, effect, { day, was: '', note: '', kinds, decided });
  const ended = new Set(endedBy(effect, system.id, { decisions: estate.decisions, kinds }));
  const { draws } = effect;
  return {
    ...estate,
    systems: estate.systems.map((s) => (s.id === system.id ? after : s)),
    decisions: estate.decisions.filter((d) => !ended.has(d)),
    rightsHeld: draws
      ? [...heldAfter(estate.rightsHeld, draws, { team: system.team, site: system.site, day })]
      : estate.rightsHeld
  };
}

/** What a known problem wants done once the step is made: the worksheet's, no plan's from there. */
const isLeftBehind = (s: Step): boolean => s.kind === 'work-around' && s.behind === true;

/** Steps by what they are and what they cost, whenever they are taken. */
const toldOf = (steps: readonly Step[]): string =>
  steps
    .filter((s) => s.kind !== 'work' && !isLeftBehind(s))
    .map((s) => {
      const of = s.kind === 'patch' ? s.to.patch : 'id' in s ? s.id : '';
      return `${s.kind} ${of} ${'costCents' in s ? s.costCents : 0}`;
    })
    .join(', ');

/** Whether a step takes something that is to be had before a day only. */
const isOrderedBefore = (step: Step, day = -Infinity): boolean =>
  ('leadDays' in step && step.leadDays > 0) || (isCounted(step) && (step.right.until ?? Infinity) < day);

test('the record behind each step is what the plan had there: planned anew, the rest of the way is left, sums and all', () => {
  const seen = { ways: 0, cures: 0, fresh: 0, behind: 0, otherwise: 0 };
  for (const seed of seedsOf(2000)) {
    const input = estateOf(fullWorldOf(seed), new Random(seed * 31));
    for (const one of plan({ ...input, every: 'goal' }).cases) {
      const drawn = drawFor(one, input);
      if (!drawn || drawn.of.route.restsOn.length > 0 || one.verdict === 'not yet') continue;
      const { sheet: start } = drawn;
      const { route, target, system, items } = drawn.of;
      let estate = input.estate;
      const entries: Worksheet['entries'] = [];
      let step = 0;
      for (const entry of workThrough(start).sheet.entries) {
        const before = estate;
        estate = estateAfter(estate, { ...start, entries: [...entries] }, entry, input.catalogue);
        entries.push(entry);
        const item = items.find((i) => i.id === entry.item);
        if (estate === before || item?.kind !== 'hop') continue;
        step++;
        const at = route.steps.filter(isCounted)[step - 1] as Step;
        const steps = route.steps.slice(route.steps.indexOf(at) + 1);
        const rest = toldOf(steps);
        // On the day it goes on. What must have been ordered by then, nobody has ordered here.
        const next = steps.find((s) => s.kind !== 'work' && !isLeftBehind(s));
        if (next?.days.exact === false || steps.some((s) => isOrderedBefore(s, next?.days.first))) continue;
        const later = { ...input, estate, today: next?.days.exact ? next.days.first : input.today };
        const again = plan({ ...later, every: 'goal' }).cases.find((c) => c.systems.includes(system.id));
        // Where it stands now the goal's rule may choose another target.
        if (!again?.goal || !sameTarget(again.goal, target)) continue;
        const left = toldOf(again.goalPlan?.route?.steps ?? []);
        // From here another may come first by preference, which goes by ways as a whole: the rest stands among them.
        const others =
          left !== rest ? (exploreSystem(new Planning(later), system.id)?.looked?.routes ?? []) : [];
        const is = others.some((r) => toldOf(r.steps) === rest) ? rest : left;
        expect(is, `seed ${seed} ${system.id} behind ${step}: ${again.verdict}`).toBe(rest);
        seen.behind++;
        if (left !== rest) seen.otherwise++;
        if (at.kind === 'fresh install') seen.fresh++;
      }
      seen.ways++;
      seen.cures += items.filter((i) => i.cure).length;
    }
  }
  expect(seen.behind).toBeGreaterThan(oftenerThan(100));
  tell('records are what plans had', seen);
});
