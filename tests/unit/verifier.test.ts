import { expect, test } from 'vitest';
import {
  isCounted,
  type CountedStep,
  type NeededFirst,
  type Route,
  type Step
} from '../../src/core/route/types';
import { verifyRoute } from '../../src/core/verify/verify-route';
import { solveBySearch, verifierOf } from '../support/solve';
import { oftenerThan, seedsOf } from '../support/laws';
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

const changeNeeds = (r: Route, change: (n: NeededFirst) => NeededFirst): Route | undefined =>
  r.needsFirst.length > 0 ? { ...r, needsFirst: r.needsFirst.map(change) } : undefined;

/** Each way of breaking a route, with the fault that must be told of it. */
const BREAKS: Record<string, readonly [Break, RegExp]> = {
  'a counted step left out': [
    (r) => {
      const at = r.steps.findIndex(isCounted);
      return at < 0 ? undefined : { ...r, steps: r.steps.filter((_, i) => i !== at) };
    },
    /^does not start where|^does not end on the target|^ends with a step that serves none/
  ],
  'a step twice': [
    (r) => {
      const step = counted(r).pop();
      return step && { ...r, steps: [...r.steps, step] };
    },
    /^turns back/
  ],
  'steps turned round': [
    (r) => (counted(r).length > 1 ? { ...r, steps: [...r.steps].reverse() } : undefined),
    /^does not start where/
  ],
  'a day early': [
    (r) => (r.finish.exact ? last(r, (s) => ({ days: shift(s, -1) })) : undefined),
    /^starts before|^falls before/
  ],
  'a day late': [
    (r) =>
      last(r, (s) => (s.days.exact ? { days: shift(s, 1) } : { days: { ...s.days, last: s.days.last + 1 } })),
    /^could be earlier|^falls after it closes|^takes another number of days|^a newer patch is out/
  ],
  'a longer step': [
    (r) => last(r, (s) => ({ days: { ...s.days, last: s.days.last + 1 } })),
    /^takes another number of days/
  ],
  'an unknown hop': [(r) => last(r, () => ({ id: 'nowhere' })), /^no such hop/],
  'another edition': [
    (r) => last(r, (s) => ({ to: { ...s.to, edition: s.to.edition === 'low' ? 'mid' : 'low' } })),
    /^does not end on the target/
  ],
  'another architecture': [
    (r) => last(r, (s) => ({ to: { ...s.to, architecture: 'other' } })),
    /^the release does not come so|^does not end on the target/
  ],
  'another patch level': [
    (r) => last(r, (s) => ({ to: { ...s.to, patch: 'p9' } })),
    /^does not lead there|^an edition change changes the edition only/
  ],
  'a lower price': [
    (r) => last(r, (s) => ({ right: { ...s.right, costCents: s.right.costCents === 0 ? 1 : 0 } })),
    /^another price than published|^a price nobody published/
  ],
  'another right': [
    (r) => last(r, (s) => ({ right: { ...s.right, right: 'made-up' } })),
    /^the right does not apply/
  ],
  'more kept': [
    (r) => last(r, (s) => ({ kept: s.kept === 'everything' ? 'nothing' : 'everything' })),
    /^kept differs from the catalogue/
  ],
  'a kinder sum of what is kept': [
    (r) => ({ ...r, kept: r.kept === 'everything' ? 'data' : 'everything' }),
    /^claims to keep something else/
  ],
  'fewer hops': [(r) => ({ ...r, hops: r.hops - 1 }), /^counts its hops wrongly/],
  'less money': [(r) => ({ ...r, costCents: r.costCents - 1 }), /^adds up its cost wrongly/],
  'fewer minutes': [(r) => ({ ...r, carefulMinutes: r.carefulMinutes - 1 }), /^adds up its minutes wrongly/],
  'another finish': [
    (r) => ({ ...r, finish: { ...r.finish, last: r.finish.last - 1 } }),
    /^ends on another day/
  ],
  'an earlier wait': [
    (r) => ({ ...r, waitsUntil: r.waitsUntil === 'unknown' ? 0 : r.waitsUntil - 1 }),
    /^waits for another day/
  ],
  'a hidden unknown sum': [
    (r) => ({ ...r, unknownSums: r.unknownSums.length > 0 ? [] : ['x'] }),
    /^hides an unknown sum/
  ],
  'more at least than at most': [
    (r) => ({ ...r, least: { ...r.least, costCents: r.costCents + 1 } }),
    /^comes at least to more/
  ],
  'spares what it needs': [
    (r) => ({ ...r, least: { ...r.least, costCents: r.least.costCents - 1 } }),
    /^adds up what is needed only perhaps wrongly/
  ],
  'a cure left out': [(r) => without(r, 'cure'), /^something asked of the system does not hold/],
  'a cure in other time': [
    (r) => changeFirst(r, 'cure', (s) => ({ ...s, carefulMinutes: s.carefulMinutes + 1 })),
    /^a cure at another price, lead or time/
  ],
  'a cure needed otherwise': [
    (r) => changeFirst(r, 'cure', (s) => (s.kind === 'cure' ? { ...s, ifNeeded: !s.ifNeeded } : s)),
    /^a cure that is needed for certain|^hides that a cure is needed only perhaps/
  ],
  'a work-around left out': [(r) => without(r, 'work-around'), /^other work-arounds than/],
  'a work-around in less time': [
    (r) => changeFirst(r, 'work-around', (s) => ({ ...s, carefulMinutes: s.carefulMinutes - 1 })),
    /^a work-around takes another time/
  ],
  'a work-around once more': [
    (r) =>
      changeFirst(r, 'work-around', (s) => (s.kind === 'work-around' ? { ...s, times: s.times + 1 } : s)),
    /^a work-around done another number of times/
  ],
  'work left out': [(r) => without(r, 'work'), /^other work than what is on the system wants/],
  'work in less time': [
    (r) => changeFirst(r, 'work', (s) => ({ ...s, carefulMinutes: s.carefulMinutes - 1 })),
    /^other work than what is on the system wants/
  ],
  'work on another day': [
    (r) => changeFirst(r, 'work', (s) => ({ ...s, days: shift(s, 1) })),
    /^work on other days than its hop/
  ],
  'nothing needed first': [
    (r) => (r.needsFirst.length > 0 ? { ...r, needsFirst: [] } : undefined),
    /^hangs on something that does not go with it/
  ],
  'needed first sooner': [
    (r) => changeNeeds(r, (n) => ({ ...n, finish: { ...n.finish, last: n.finish.last - 1 } })),
    /^needs first something on another day/
  ],
  'together or not': [
    (r) => changeNeeds(r, (n) => ({ ...n, together: !n.together })),
    /^claims otherwise whether two go only together/
  ],
  'fewer units': [
    (r) => (r.units.length > 0 ? { ...r, units: r.units.slice(1) } : undefined),
    /^adds up its units wrongly/
  ],
  'an unknown it rests on': [
    (r) => ({ ...r, restsOn: [{ code: 'cell', subject: 'a to b' }] }),
    /^rests on something unknown/
  ]
};

test('the verifier rejects every route broken on purpose, and says so for each way of breaking', () => {
  const missed = new Map<string, string>();
  const tried = new Map<string, number>(Object.keys(BREAKS).map((name) => [name, 0]));
  for (const seed of seedsOf(800)) {
    const world = worldOf(seed);
    for (const [key, target] of solveBySearch(world).targets) {
      const [release = '', edition = '', architecture = ''] = key.split(' ');
      for (const route of target.all)
        for (const [name, [breakIt, fault]] of Object.entries(BREAKS)) {
          const broken = breakIt(route);
          if (!broken) continue;
          tried.set(name, (tried.get(name) ?? 0) + 1);
          const faults = verifyRoute(
            verifierOf(world),
            world.start,
            { release, edition, architecture },
            broken
          );
          if (!faults.some((f) => fault.test(f.code)))
            missed.set(name, `world ${seed}, ${key}: ${faults.map((f) => f.code).join('; ')}`);
        }
    }
  }
  expect(Object.fromEntries(missed)).toEqual({});
  for (const [name, count] of tried) expect(count, name).toBeGreaterThan(oftenerThan(3));
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
