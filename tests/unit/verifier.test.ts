import { expect, test } from 'vitest';
import { isCounted, type CountedStep, type Route, type Step } from '../../src/core/route/types';
import { verifyRoute } from '../../src/core/route/verify-route';
import { solveBySearch, verifierOf } from '../support/solve';
import { seedsOf } from '../support/laws';
import { fullWorldOf as worldOf } from '../support/worlds';

type Break = (route: Route) => Route | undefined;

const counted = (route: Route): CountedStep[] => route.steps.filter(isCounted);
/** Changes the last counted step. */
const last = (route: Route, change: (step: CountedStep) => Partial<CountedStep>): Route => {
  const at = route.steps.findLastIndex(isCounted);
  return {
    ...route,
    steps: route.steps.map((s, i) => (i === at && isCounted(s) ? { ...s, ...change(s) } : s))
  };
};
const shift = (step: Step, by: number): Step['days'] => ({
  ...step.days,
  first: step.days.first + by,
  last: step.days.last + by
});

const without = (route: Route, kind: Step['kind']): Route | undefined => {
  const at = route.steps.findIndex((s) => s.kind === kind);
  return at < 0 ? undefined : { ...route, steps: route.steps.filter((_, i) => i !== at) };
};
function changeFirst(route: Route, kind: Step['kind'], change: (s: Step) => Step): Route | undefined {
  const at = route.steps.findIndex((s) => s.kind === kind);
  return at < 0 ? undefined : { ...route, steps: route.steps.map((s, i) => (i === at ? change(s) : s)) };
}

const BREAKS: Record<string, Break> = {
  'a step left out': (r) => (r.steps.length > 1 ? { ...r, steps: r.steps.slice(1) } : undefined),
  'a step twice': (r) => ({ ...r, steps: [...r.steps, r.steps[r.steps.length - 1] as Step] }),
  'steps turned round': (r) => (counted(r).length > 1 ? { ...r, steps: [...r.steps].reverse() } : undefined),
  'a day early': (r) => last(r, (s) => ({ days: shift(s, -1) })),
  'a day late': (r) =>
    last(r, (s) => (s.days.exact ? { days: shift(s, 1) } : { days: { ...s.days, last: s.days.last + 1 } })),
  'a longer step': (r) => last(r, (s) => ({ days: { ...s.days, last: s.days.last + 1 } })),
  'an unknown hop': (r) => last(r, () => ({ id: 'nowhere' })),
  'another edition': (r) =>
    last(r, (s) => ({ to: { ...s.to, edition: s.to.edition === 'low' ? 'mid' : 'low' } })),
  'another architecture': (r) => last(r, (s) => ({ to: { ...s.to, architecture: 'other' } })),
  'another patch level': (r) => last(r, (s) => ({ to: { ...s.to, patch: 'p9' } })),
  'a lower price': (r) =>
    last(r, (s) =>
      s.right.costCents === 0
        ? { right: { ...s.right, costCents: 1 } }
        : { right: { ...s.right, costCents: 0 } }
    ),
  'another right': (r) => last(r, (s) => ({ right: { ...s.right, right: 'made-up' } })),
  'more kept': (r) => ({ ...last(r, (s) => ({ kept: s.kept === 'everything' ? 'nothing' : 'everything' })) }),
  'a kinder sum of what is kept': (r) => ({ ...r, kept: r.kept === 'everything' ? 'data' : 'everything' }),
  'fewer hops': (r) => ({ ...r, hops: r.hops - 1 }),
  'less money': (r) => ({ ...r, costCents: r.costCents - 1 }),
  'fewer minutes': (r) => ({ ...r, carefulMinutes: r.carefulMinutes - 1 }),
  'another finish': (r) => ({ ...r, finish: { ...r.finish, last: r.finish.last - 1 } }),
  'an earlier wait': (r) => ({ ...r, waitsUntil: r.waitsUntil === 'unknown' ? 0 : r.waitsUntil - 1 }),
  'a hidden unknown sum': (r) => ({ ...r, unknownSums: r.unknownSums.length > 0 ? [] : ['x'] }),
  'a cure left out': (r) => without(r, 'cure'),
  'a work-around left out': (r) => without(r, 'work-around'),
  'a cure on credit': (r) => changeFirst(r, 'cure', (s) => ({ ...s, carefulMinutes: s.carefulMinutes + 1 })),
  'a work-around in less time': (r) =>
    changeFirst(r, 'work-around', (s) => ({ ...s, carefulMinutes: s.carefulMinutes - 1 })),
  'nothing needed first': (r) => (r.needsFirst.length > 0 ? { ...r, needsFirst: [] } : undefined),
  'needed first sooner': (r) =>
    r.needsFirst.length > 0
      ? {
          ...r,
          needsFirst: r.needsFirst.map((n) => ({ ...n, finish: { ...n.finish, last: n.finish.last - 1 } }))
        }
      : undefined,
  'fewer units': (r) => (r.units.length > 0 ? { ...r, units: r.units.slice(1) } : undefined),
  'an unknown it rests on': (r) => ({ ...r, restsOn: [{ code: 'cell', subject: 'a to b' }] })
};

test('the verifier rejects every route broken on purpose, and says so for each way of breaking', () => {
  const tried = new Map<string, number>(Object.keys(BREAKS).map((name) => [name, 0]));
  for (const seed of seedsOf(800)) {
    const world = worldOf(seed);
    for (const [key, target] of solveBySearch(world).targets) {
      const [release = '', edition = '', architecture = ''] = key.split(' ');
      for (const route of target.all)
        for (const [name, breakIt] of Object.entries(BREAKS)) {
          const broken = breakIt(route);
          if (!broken) continue;
          tried.set(name, (tried.get(name) ?? 0) + 1);
          const faults = verifyRoute(
            verifierOf(world),
            world.start,
            { release, edition, architecture },
            broken
          );
          expect(faults.length, `world ${seed}, ${key}: ${name}`).toBeGreaterThan(0);
        }
    }
  }
  for (const [name, count] of tried) expect(count, name).toBeGreaterThan(3);
});

test('a route to another target, from another start or on another day is refused', () => {
  for (const seed of seedsOf(200)) {
    const world = worldOf(seed);
    for (const [key, { all }] of solveBySearch(world).targets) {
      const [release = '', edition = '', architecture = ''] = key.split(' ');
      for (const route of all) {
        const check = (
          start = world.start,
          to = { release, edition, architecture },
          today = world.today
        ): number => verifyRoute(verifierOf({ ...world, today }), start, to, route).length;
        expect(check({ ...world.start, edition: 'none' })).toBeGreaterThan(0);
        expect(check(undefined, { release: 'v0', edition, architecture })).toBeGreaterThan(0);
        if (route.steps[0]?.days.first === world.today)
          expect(check(undefined, undefined, world.today + 1)).toBeGreaterThan(0);
      }
    }
  }
});
