import { expect, test } from 'vitest';
import { parseDay } from '../../src/core/date/day';
import type { Estate, System } from '../../src/core/estate/schema';
import { exploreSystem } from '../../src/core/plan/explore';
import { plan, type PlanInput } from '../../src/core/plan/plan';
import type { CasePlan, TargetPlan } from '../../src/core/plan/plan-types';
import { Planning } from '../../src/core/plan/planning';
import { isCounted, type Route } from '../../src/core/route/types';
import { demoInput, demoPlan } from '../support/demo';

/** Traps of reach and readiness, seen in the demo's plan by code and not by words. */
const input = demoInput();
const result = demoPlan();
const of = (system: string, cases = result.cases): CasePlan =>
  cases.find((c) => c.systems.includes(system)) as CasePlan;
const targetOf = (one: CasePlan, release: string, edition?: string): TargetPlan =>
  one.targets.find(
    (t) => t.target.release === release && (edition === undefined || t.target.edition === edition)
  ) as TargetPlan;
const kinds = (route: Route | undefined): string[] =>
  route?.steps.flatMap((s) => (s.kind === 'work' ? [] : [s.kind])) ?? [];
const ids = (route: Route | undefined): string[] =>
  route?.steps.map((s) => (s.kind === 'patch' ? s.to.patch : s.id)) ?? [];
const codes = (target: TargetPlan | undefined): string[] =>
  target?.reasons.map((r) => `${r.code} ${r.subject}`) ?? [];

function planWithout(change: (estate: Estate) => Estate, today = input.today): CasePlan[] {
  const next: PlanInput = { ...input, estate: change(input.estate), today };
  return [...plan(next).cases];
}
const changed = (estate: Estate, id: string, change: (s: System) => System): Estate => ({
  ...estate,
  systems: estate.systems.map((s) => (s.id === id ? change(s) : s))
});

test('buying an upgrade that has no in-place path: it is sold, and there is only a fresh install', () => {
  const product = input.catalogue.products.find((p) => p.id === 'marram-draft');
  expect(product?.rights?.find((r) => r.id === 'draft-jump')).toMatchObject({
    kind: 'purchase',
    from: '21',
    to: '24'
  });
  expect(kinds(targetOf(of('cad-01'), '24', 'sheet').route)).not.toContain('in place');
  expect(of('west-01')).toMatchObject({ verdict: 'fresh only', goalPlan: { sure: 'fresh only' } });
});

test('assuming a same-named edition: the renamed one is where the hop arrives', () => {
  expect(of('east-01').start?.edition).toBe('office');
  expect(of('east-01').goal?.edition).toBe('studio');
});

test('crossing the word size in place: only a fresh install does', () => {
  const { start, goal, goalPlan } = of('cad-01');
  expect([start?.architecture, goal?.architecture, goalPlan?.verdict]).toEqual([
    'narrow',
    'wide',
    'fresh only'
  ]);
});

test('checking free space for the wrong method: too little in place, enough for a fresh install', () => {
  expect(of('cad-05').verdict).toBe('fresh only');
  const goals = input.estate.goals.map((g) => ({ ...g, allow: { ...g.allow, fresh: false } }));
  const planning = new Planning({ ...input, estate: { ...input.estate, goals } });
  const openings = exploreSystem(planning, 'cad-05')?.looked?.openings.openings ?? [];
  expect(openings.map((o) => o.clauses)).toEqual([
    ['requirement draft-space-in-place'],
    ['fresh not allowed']
  ]);
});

test('devices off during the check are unknown, not fine', () => {
  expect(codes(of('stop-dark').goalPlan)).toContain('companion mesh-part');
  expect(of('stop-dark').verdict).toBe('cannot tell');
});

test('forgetting the patch level first: the patch is a step', () => {
  expect(ids(of('draw-01').goalPlan?.route)[0]).toBe('r2');
  expect(ids(of('rack-01').goalPlan?.route)[0]).toBe('u6');
});

test('upgrading a product before its manager knows it: the manager first, then its bundle', () => {
  expect(of('host-b-01').goalPlan?.route?.needsFirst).toContainEqual(
    expect.objectContaining({
      pairing: 'host-keeper',
      system: 'keeper',
      to: expect.objectContaining({ release: 'k8' }) as object
    })
  );
  // The hub cannot go, so neither can its bundle, nor what hangs on the bundle.
  expect(codes(of('content').goalPlan)).toEqual(['pairing content-hub']);
  expect(codes(of('watch').goalPlan)).toEqual(['pairing watch-content']);
  expect(codes(of('ledger').goalPlan)).toContain('pairing ledger-content');
  const mended = planWithout((e) =>
    changed(e, 'hub', (s) => ({
      ...s,
      facts: {
        ...s.facts,
        'precheck.failures': { value: 0 },
        'backup.finished': { value: '2031-03-08' },
        'backup.restored': { value: '2031-03-08' }
      }
    }))
  );
  const first = of('watch', mended).goalPlan?.route?.needsFirst ?? [];
  expect(first.map((n) => n.system)).toEqual(expect.arrayContaining(['content', 'hub']));
  const both = of('ledger', mended).goalPlan?.route?.needsFirst.find((n) => n.system === 'watch');
  expect(both).toMatchObject({ together: true });
});

test('a pre-check that was not read to the end leaves the verdict open until somebody reads it', () => {
  expect(codes(of('hub').goalPlan)).toContain('requirement hub-precheck');
  const accepted = planWithout((e) => ({
    ...e,
    decisions: [
      ...e.decisions,
      {
        id: 'a',
        kind: 'accept',
        scope: { system: 'hub' },
        about: 'windlass-hub/requirements/hub-backup',
        day: '2031-03-09'
      }
    ]
  }));
  expect(of('hub', accepted).verdict).toBe('cannot tell');
  const failed = planWithout((e) =>
    changed(e, 'hub', (s) => ({ ...s, facts: { ...s.facts, 'precheck.failures': { value: 2 } } }))
  );
  expect(of('hub', failed).verdict).toBe('closed');
});

test('trusting the checker against the publisher’s own list: disputed is unknown, and asked', () => {
  const planning = new Planning(input);
  expect(of('survey-01').goalPlan?.route?.steps.find((s) => s.kind === 'cure')).toMatchObject({
    id: 'draft-security-on',
    ifNeeded: true
  });
  expect(ids(of('survey-02').goalPlan?.route)).not.toContain('draft-security-on');
  const asked = exploreSystem(planning, 'fare-01')?.looked?.questions.flat() ?? [];
  expect(asked.map((q) => ('clause' in q.about ? q.about.clause : ''))).toContain('companion quay-archive');
});

test('resting on an intermediate release out of service closes it, passing through does not', () => {
  const later = planWithout((e) => e, parseDay('2031-04-20') ?? 0);
  expect(codes(targetOf(of('clock-01', later), '7'))).toContain('resting 7');
  expect(of('clock-01', later).verdict).toBe('by hops');
});

test('counting units of another edition, and reading an expired free month as free', () => {
  const rightsOf = (cases: readonly CasePlan[], id: string) =>
    of(id, [...cases])
      .goalPlan?.route?.steps.filter(isCounted)
      .map((s) => s.right) ?? [];
  expect(rightsOf(result.cases, 'door-market')[0]).toMatchObject({ kind: 'free', right: 'door-free-month' });
  const later = planWithout((e) => e, parseDay('2031-06-15') ?? 0);
  expect(rightsOf(later, 'door-market')[0]).toMatchObject({
    right: 'door-units',
    units: { pool: 'terrace units', edition: 'terrace', number: 12 }
  });
  expect(rightsOf(later, 'door-west')[0]?.units).toMatchObject({ pool: 'cottage units', number: 4 });
});

test('joining a one-way build: the only way out keeps nothing', () => {
  expect(targetOf(of('shelf-lab'), '31.5').verdict).toBe('cannot tell');
  const accepted = planWithout((e) => ({
    ...e,
    decisions: [
      ...e.decisions,
      {
        id: 'a',
        kind: 'accept',
        scope: { system: 'shelf-lab' },
        about: 'ossian-shelf/requirements/shelf-cable',
        day: '2031-03-09'
      }
    ]
  }));
  const out = targetOf(of('shelf-lab', accepted), '31.5').route;
  expect([kinds(out), out?.kept]).toEqual([['fresh install'], 'nothing']);
});

test('a work-around done that the chosen target made needless', () => {
  const alone = planWithout((e) =>
    changed(
      changed(e, 'mirror-west', (s) => ({ ...s, stage: 'retired' })),
      'mirror-east',
      (s) => ({
        ...s,
        links: [
          { kind: 'peer of', absent: true },
          { kind: 'hosted on', to: 'host-b-01' }
        ],
        facts: { ...s.facts, 'open-items': { value: 0 } }
      })
    )
  );
  const one = of('mirror-east', alone);
  expect(ids(one.goalPlan?.route)).toEqual(['mirror-9-11']);
  expect(ids(targetOf(one, '2.10').route)).toEqual(['mirror-stall', 'mirror-9-10']);
});

test('cures: what is off is switched on for nothing, what is bought has its lead, what cannot be taken is replaced', () => {
  expect(ids(of('shed-01').goalPlan?.route)).toEqual(['desk-clean-up', 'desk-start-on', 'desk-5-6']);
  const bought = of('stop-16').goalPlan?.route?.steps.find((s) => s.kind === 'cure');
  expect(bought).toMatchObject({ id: 'term-more-memory', leadDays: 21, costCents: 7400 });
  expect(of('stop-11')).toMatchObject({ verdict: 'closed', replace: { advised: true } });
});

test('a patch newer than the next release, with equally cheap openings', () => {
  expect(codes(of('shelf-south').goalPlan)).toContain('newer than target shelf-4-5');
  const openings = exploreSystem(new Planning(input), 'shelf-south')?.looked?.openings.openings ?? [];
  expect(openings.map((o) => o.clauses)).toEqual([['newer than target shelf-4-5']]);
});

test('a fallback is there before it is needed', () => {
  const [first] = of('shed-01').fallbacks;
  expect([first?.id, kinds(first?.route)]).toEqual(['desk-5-6', ['fresh install']]);
  expect(of('cad-01').fallbacks.every((f) => f.route === undefined)).toBe(true);
});
