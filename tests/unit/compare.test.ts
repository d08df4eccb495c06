import { expect, test } from 'vitest';
import { compareOptions, type Option } from '../../src/core/compare/compare-options';
import { findFeatureDifference } from '../../src/core/catalogue/features';
import { parseDay } from '../../src/core/date/day';
import { exploreSystem } from '../../src/core/plan/explore';
import { Planning } from '../../src/core/plan/planning';
import { isSameWay, wayOf } from '../../src/core/route/search/on-way';
import { Names } from '../../src/core/catalogue/names';
import { sayNotStraight } from '../../src/core/wording/verdict';
import { demoCatalogue, demoInput } from '../support/demo';

const planning = new Planning(demoInput());
const bureau = { release: '6', edition: 'bureau', architecture: 'only' };

test('options side by side say what exploring each by itself says', () => {
  const options: Option[] = [
    { kind: 'target', target: bureau },
    { kind: 'target', target: { ...bureau, release: '5' } },
    { kind: 'stay' },
    { kind: 'replace' }
  ];
  const sides = compareOptions(planning, 'draw-01', options);
  expect(sides.map((s) => s.option.kind)).toEqual(['target', 'target', 'stay', 'replace']);
  for (const [i, target] of [bureau, { ...bureau, release: '5' }].entries()) {
    const { plan } = exploreSystem(planning, 'draw-01', target) ?? {};
    const own = plan?.targets.find(
      (t) => t.target.release === target.release && t.target.edition === 'bureau'
    );
    expect(sides[i]?.verdict).toBe(own?.verdict);
    expect(sides[i]?.route).toEqual(own?.route);
  }
  const [goal, , stay, replace] = sides;
  expect(stay).toMatchObject({ verdict: 'stay', monthsLeft: 3, serviceEnd: parseDay('2031-06-30') });
  expect(goal?.monthsLeft).toBeGreaterThan(48);
  expect(goal?.features.gained).toContain('remote seat');
  expect(goal?.features.lost).toEqual([
    { name: 'Card file', instead: 'the calendar’s notes'.replace('’', "'") }
  ]);
  expect(stay?.features).toEqual({ gained: [], lost: [] });
  expect(replace?.machineCents).toBeGreaterThan(80_000);
});

test('waiting moves the day and does nothing meanwhile: rights lapse, media go, service ends', () => {
  const later: Option = { kind: 'wait', until: '2031-07-15', target: bureau };
  const [now, waited] = compareOptions(planning, 'draw-01', [{ kind: 'target', target: bureau }, later]);
  expect(waited?.asOf).toBe(parseDay('2031-07-15'));
  // The spring offer ends in April, the carried right in May: the same way costs more by then.
  expect(waited?.route?.costCents ?? Infinity).toBeGreaterThan(now?.route?.costCents ?? 0);
  expect(waited?.slack ?? -1).toBeLessThan(0);
  const [shelf] = compareOptions(planning, 'shelf-north', [{ kind: 'wait', until: '2031-06-01' }]);
  expect(shelf?.verdict).not.toBe('straight');
});

test('another way, a preview track with its exit; what is not there is left out', () => {
  const { looked, plan } = exploreSystem(planning, 'draw-01') ?? {};
  const ways = looked?.routes.map(wayOf) ?? [];
  const chosen = plan?.goalPlan?.route;
  const way = ways.find((w) => chosen && !isSameWay(w, wayOf(chosen)));
  const sides = compareOptions(planning, 'draw-01', [
    { kind: 'route', target: bureau, way: way ?? [] },
    { kind: 'track', track: 'seven-early' },
    { kind: 'track', track: 'nothing' },
    { kind: 'wait', until: 'soon' },
    { kind: 'route', target: bureau, way: [{ step: 'no-such-hop' }] }
  ]);
  expect(sides).toHaveLength(2);
  expect(sides[0]?.route && wayOf(sides[0].route)).toEqual(way);
  expect(sides[1]).toMatchObject({ leaving: 'fresh install', forfeits: 'security updates come late' });
  expect(sides[1]?.target?.release).toBe('7');
  // Whoever joins a preview does not wait for it to settle.
  const input = demoInput();
  const goals = input.estate.goals.map((g) => ({ ...g, settlingDays: 3000 }));
  const patient = new Planning({ ...input, estate: { ...input.estate, goals } });
  const [track] = compareOptions(patient, 'draw-01', [{ kind: 'track', track: 'seven-early' }]);
  expect(track?.verdict).toBe(sides[1]?.verdict);
});

test('features there and back cancel out; an edition keeps what a release drops for others only', () => {
  const product = demoCatalogue().products.find((p) => p.id === 'marram-draft');
  if (!product) throw new Error('demo');
  const at = (release: string, edition: string) => ({ release, edition, architecture: 'wide' });
  expect(findFeatureDifference(product, at('22', 'sheet'), at('23', 'sheet'))).toEqual({
    gained: ['Live shadows'],
    lost: [{ name: 'Plot queue', instead: "the plotter's own queue" }]
  });
  expect(findFeatureDifference(product, at('22', 'site'), at('23', 'site')).lost).toEqual([]);
  expect(findFeatureDifference(product, at('22', 'sheet'), at('22', 'sheet'))).toEqual({
    gained: [],
    lost: []
  });
});

test('why not straight: no hop in a complete table, a hole in the table of editions, a starting level', () => {
  const names = new Names(planning.catalogue.products.find((p) => p.id === 'garnock-desk'));
  const why = (system: string, target?: typeof bureau): string => {
    const { looked, plan } = exploreSystem(planning, system, target) ?? {};
    return looked?.notStraight && plan?.start
      ? sayNotStraight(looked.notStraight, plan.start, looked.target, names)
      : '';
  };
  expect(why('west-01')).toContain('no hop in place leads from 3 to 6');
  expect(why('west-01', { ...bureau, release: '4', edition: 'plain' })).toContain('it stands on 3/r2');
  expect(why('east-01', { ...bureau, release: '5', edition: 'studio' })).toContain(
    'table of editions decides'
  );
  expect(why('tick-23', { ...bureau, release: '5', edition: 'plain' })).toBe('');
});
