import { expect, test } from 'vitest';
import { askedOnWay } from '../../src/core/plan/asked-on-way';
import { lookAt } from '../../src/core/plan/find-out';
import { plan } from '../../src/core/plan/plan';
import { Planning } from '../../src/core/plan/planning';
import type { Estate, System } from '../../src/core/estate/schema';
import { describeEvaluation } from '../../src/core/wording/condition';
import { demoInput, demoPlan } from '../support/demo';

const input = demoInput();
const result = demoPlan();

/** What is asked of a system on the way chosen in the demo, with other facts. */
function demandsOf(id: string, facts: System['facts'], other: Partial<System> = {}) {
  const systems = input.estate.systems.map((s) => (s.id === id ? { ...s, facts, ...other } : s));
  const estate = { ...input.estate, systems };
  const planning = new Planning({ ...input, estate });
  const one = planning.gather().cases.find((c) => c.systems.includes(id))!;
  const planned = result.cases.find((c) => c.systems.includes(id))!;
  const model = planning.modelFor(one.system)!;
  const looking = lookAt(
    planning,
    { model, one: { ...one, system: planning.system(id)! }, plan: planned },
    planned.goal!
  )!;
  return askedOnWay(looking.terms, looking.start, looking.place, planned.goalPlan?.route);
}
const truths = (id: string, facts: System['facts']) =>
  Object.fromEntries(demandsOf(id, facts).requirements.map((r) => [r.requirement.id, r.truth]));

test('what is asked on the way is seen against what is known, each requirement once', () => {
  expect(truths('draw-01', {})).toMatchObject({
    'desk-memory-6': 'unknown',
    'desk-space-in-place': 'unknown'
  });
  expect(
    truths('draw-01', {
      memory: { value: '3 GB' },
      'disk.free.system': { value: '20 GB' },
      'disk.free.download': { value: '8 GB' },
      'graphics.level': { value: 4 }
    })
  ).toEqual({
    'desk-memory-6': 'no',
    'desk-remote-seat': 'no',
    'desk-start': 'unknown',
    'desk-space-in-place': 'yes',
    'desk-drawing': 'yes'
  });
});

test('what concerns another method, edition or release is not asked', () => {
  expect(Object.keys(truths('west-01', {}))).toEqual(expect.arrayContaining(['desk-space-fresh']));
  expect(Object.keys(truths('west-01', {}))).not.toContain('desk-space-in-place');
  expect(Object.keys(truths('tick-06', {}))).not.toContain('desk-drawing');
});

test('cautions are met on the hop they are about; companions by how they fare at the end', () => {
  const demands = demandsOf('draw-01', {});
  expect(demands.companions).toEqual([]);
  expect(demands.cautions.map((c) => c.caution.id)).toEqual(['desk-lost-printers']);
  expect(
    demandsOf('draw-01', {}, { companionsWhole: false }).companions.map((c) => [c.companion.id, c.verdict])
  ).toEqual([
    ['quay-archive', 'does not work'],
    ['fare-viewer', 'reinstall']
  ]);
  expect(
    demandsOf('rack-01', { 'network.kind': { value: 'plain' } }).cautions.map((c) => c.caution.id)
  ).not.toContain('brindle-names');
});

test('a reason tells what was seen', () => {
  const failing = demandsOf('draw-01', { memory: { value: '3 GB' } }).requirements[0];
  expect(failing?.needs && describeEvaluation(failing.needs, (fact) => `the ${fact}`)).toEqual([
    'no: the memory at least 4 GB; seen: 3 GB'
  ]);
});

test('a verdict says which disputed entries it rests on, and the ruling that settles them', () => {
  let catalogue = structuredClone(input.catalogue);
  const hop = catalogue.products[0]!.hops!.find((h) => h.id === 'desk-4-5')!;
  hop.also = [{ levels: 'from 4/r1', source: 'gw-service' }];
  const entry = 'garnock-desk/hops/desk-4-5';
  const withRuling = (holds?: string): Estate => ({
    ...input.estate,
    decisions: holds
      ? [...input.estate.decisions, { id: 'r', kind: 'rule', scope: { entry }, holds, day: '2031-03-01' }]
      : input.estate.decisions
  });
  const of = (estate: Estate, id: string) =>
    plan({ ...input, catalogue, estate: onlyAsked(estate), every: 'goal' }).cases.find((c) =>
      c.systems.includes(id)
    )!;
  /** Those that are asked about. */
  const onlyAsked = (estate: Estate): Estate => ({
    ...estate,
    systems: estate.systems.filter((s) => ['tick-06', 'draw-01', 'rack-01'].includes(s.id))
  });
  // Two floors and no ruling: the floor is unknown, so the hop is not sure; a fresh install is.
  expect(of(withRuling(), 'tick-06')).toMatchObject({ verdict: 'fresh only', restsOn: [{ entry }] });
  expect(of(withRuling('gw-service'), 'draw-01').goalPlan?.route?.steps.map((s) => s.kind)).not.toContain(
    'patch'
  );
  expect(of(withRuling('gw-table'), 'draw-01').restsOn).toEqual([{ entry, ruled: 'gw-table' }]);
  expect(of(withRuling('gw-table'), 'rack-01').restsOn).toBeUndefined();
  // A catalogue is settled once, so a changed one is another one.
  catalogue = structuredClone(catalogue);
  catalogue.products[0]!.lines![1]!.service![1]!.also = [{ until: '2031-05-31', source: 'garnock-parts' }];
  expect(of(withRuling('gw-table'), 'draw-01').restsOn).toContainEqual({
    entry: 'garnock-desk/lines/4/service/security'
  });
  expect(of(withRuling('gw-table'), 'draw-01').deadline.setBy?.kind).not.toBe('service');
});
