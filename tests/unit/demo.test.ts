import { describe, expect, test } from 'vitest';
import { parseDay } from '../../src/core/date/day';
import { plan } from '../../src/core/plan/plan';
import type { CasePlan } from '../../src/core/plan/plan-types';
import { isCounted } from '../../src/core/route/types';
import { verifyRoute } from '../../src/core/verify/verify-route';
import { Planning } from '../../src/core/plan/planning';
import { describeReason } from '../../src/core/wording/reason';
import { layLines, linesBetween, bandsOf } from '../../src/lib/state/rows';
import { bendTime, placeOf } from '../../src/lib/stair/scale';
import { drawWay } from '../../src/lib/stair/way';
import { Names } from '../../src/core/catalogue/names';
import { demoInput } from '../support/demo';
import { verifyRounds } from '$core/verify/verify-rounds';
import { verifierFor } from '../support/verify-demo';

const input = demoInput();
const result = plan(input);
const of = (system: string): CasePlan => result.cases.find((c) => c.systems.includes(system)) as CasePlan;

describe('what the demo must say', () => {
  test.each([
    ['east-01', 'by hops', '2031-02-14', 'desk-3-4 patch r2 desk-4-5 desk-5-6'],
    ['west-01', 'fresh only', '2031-02-14', 'desk-fresh-6'],
    ['draw-01', 'by hops', '2031-06-30', 'patch r2 desk-4-5 desk-5-6 desk-studio-bureau'],
    ['tick-06', 'by hops', '2031-06-30', 'desk-4-5 desk-5-6'],
    ['rack-01', 'straight', '2031-04-04', 'patch u6 brindle-7-9'],
    ['shelf-north', 'straight', '2031-05-20', 'shelf-4-5'],
    ['shelf-south', 'closed', '2032-12-05', ''],
    ['trial-01', 'not yet', '2032-09-20', 'brindle-9-10'],
    ['board-01', 'here', '2036-03-31', ''],
    ['recorder-01', 'cannot tell', '', '']
  ])('%s: %s by %s', (system, verdict, deadline, steps) => {
    const one = of(system);
    expect(one.verdict).toBe(verdict);
    expect(one.deadline.day).toBe(deadline === '' ? undefined : parseDay(deadline));
    expect(
      one.goalPlan?.route?.steps
        .filter((s) => s.kind === 'patch' || isCounted(s))
        .map((s) => (s.kind === 'patch' ? `patch ${s.to.patch}` : s.id))
        .join(' ') ?? ''
    ).toBe(steps);
  });

  test('why a target is closed, and what closes when', () => {
    const south = of('shelf-south');
    expect(south.goalPlan?.reasons.map(describeReason)).toEqual([
      '31.4/p9 is newer than the target, so the hop is forbidden'
    ]);
    expect(drawWay(south, new Names(input.catalogue.products[2]), false, 'closed').words).toBe(
      'closed: 31.4/p9 is newer than the target, so the hop is forbidden; best open: 31.6'
    );
    expect(south.bestOpen).toMatchObject({ release: '31.6' });
    expect(of('shelf-north').deadline.setBy).toMatchObject({
      kind: 'closing',
      subject: 'shelf-4-5',
      cost: { code: 'out of reach' }
    });
    expect(of('draw-01').deadline.contributors).toContainEqual(
      expect.objectContaining({
        kind: 'right',
        subject: 'desk-offer-5',
        sets: false,
        cost: { code: 'money', cents: 1000 }
      })
    );
    expect(
      of('west-01').targets.find((t) => t.target.release === '4' && t.target.edition === 'plain')?.reasons[0]
    ).toMatchObject({
      code: 'level',
      seen: [{ kind: 'level', release: '3', patch: 'r2' }],
      demanded: { kind: 'levels', range: '3 r5 or later' },
      source: 'gw-table'
    });
  });

  test('slack counts back from the deadline through every day of the route', () => {
    // The change to Bureau is six days on order: not the 28 June that its days alone would leave.
    expect(of('draw-01').slack).toBe(106);
    // Its way alone would be 26 days late: two pilots go first, and are watched for two weeks.
    expect(of('east-01').slack).toBe(-41);
    expect(of('clock-01').latestStart).toBe('none');
    expect(of('board-01').slack).toBeUndefined();
  });

  test('every verdict is in it', () => {
    expect(new Set(result.cases.map((c) => c.verdict))).toEqual(
      new Set(['here', 'straight', 'by hops', 'fresh only', 'not yet', 'closed', 'cannot tell'])
    );
  });
});

test('the verifier accepts the rounds of the demo', () => {
  const planning = new Planning(input);
  const inRounds = result.cases.filter((c) => c.rounds);
  expect(inRounds.map((c) => c.systems[0])).toEqual(['east-01', 'shed-01', 'ctrl-01']);
  for (const one of inRounds) {
    const system = planning.system(one.systems[0] ?? '');
    const terms = system && verifierFor(planning, system.id);
    const goal = system && planning.goalOf(system);
    const pilots = one.rounds?.filter((r) => r.isPilot).reduce((n, r) => n + r.systems, 0) ?? 0;
    // The pilots of the depot are of the larger of its two cases.
    expect(pilots).toBe(one.systems[0] === 'shed-01' ? 2 : 0);
    const first = one.systems[0] === 'east-01' ? inRounds.find((c) => c.systems[0] === 'shed-01') : undefined;
    const party = {
      systems: one.systems.length,
      pilots,
      watchDays: goal?.pilots?.watchDays ?? 0,
      ...(first?.rounds?.[0] ? { pilotedBy: first.rounds[0].finish.last } : {})
    };
    expect(verifyRounds(terms?.calendar, party, one.rounds ?? []), one.systems[0]).toEqual([]);
  }
});

test('the verifier accepts every route of the demo, the fallbacks and what is needed first', () => {
  const planning = new Planning(input);
  let routes = 0;
  for (const one of planning.gather().cases) {
    const found = result.cases.find((c) => c.id === one.id);
    const terms = verifierFor(planning, one.system.id);
    if (!found?.start || !found.startIsSure || !terms) continue;
    for (const target of found.targets) {
      if (!target.route) continue;
      routes++;
      expect(
        verifyRoute(terms, found.start, target.target, target.route),
        `${one.system.id} to ${target.target.release}`
      ).toEqual([]);
    }
  }
  expect(routes).toBeGreaterThan(40);
});

test('the lines in sight are those that overlap the window', () => {
  const lines = layLines(bandsOf(result.cases, result.today), 'two lines');
  for (let from = -50; from < 1000; from += 37) {
    const seen = new Set(linesBetween(lines, from, from + 300));
    for (const line of lines)
      if (line.top + line.height > from && line.top < from + 300) expect(seen.has(line)).toBe(true);
  }
  expect(lines.filter((l) => l.kind === 'row').length).toBe(result.cases.length);
});

test('bent time keeps the order of days, fills the width and leaves room for the climb', () => {
  for (let span = 0; span < 300; span += 7) {
    const climb = [1000, 1001, 1000 + span];
    const scale = bendTime({ first: 0, last: 4000, work: climb, climb, width: 800, left: 10 });
    expect([placeOf(scale, 0), placeOf(scale, 4000)]).toEqual([10, 810]);
    for (let day = 0; day < 4000; day += 13)
      expect(placeOf(scale, day + 13)).toBeGreaterThan(placeOf(scale, day));
    expect(placeOf(scale, 1000 + span) - placeOf(scale, 1000)).toBeGreaterThanOrEqual(span === 0 ? 0 : 20);
  }
});
