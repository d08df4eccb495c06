import { expect, test } from 'vitest';
import { plan, planWith, type PlanInput } from '../../src/core/plan/plan';
import { PlanCache } from '../../src/core/plan/plan-cache';
import { Planning } from '../../src/core/plan/planning';
import type { CasePlan, Plan, PlanProgress } from '../../src/core/plan/plan-types';
import { type Helper, Helping, type Share } from '../../src/lib/workers/helpers';
import { planAlong, planTogether, type Together } from '../../src/lib/workers/sharing';
import { generateWorld } from '../../bench/generate';
import { lawInput } from '../support/demo';
import { isQuick, seedsOf } from '../support/laws';
import { Random } from '../support/random';
import { estateOf } from '../support/world-estates';
import { fullWorldOf } from '../support/worlds';

/** Somebody who helps, across a border that only values pass; counts what it has planned. */
class Hand implements Helper {
  readonly #helping = new Helping();
  readonly planned: CasePlan[] = [];
  isEnded = false;

  async planShare(share: Share): Promise<CasePlan[]> {
    await Promise.resolve();
    const plans = structuredClone(this.#helping.planShare(structuredClone(share)));
    this.planned.push(...plans);
    return plans;
  }

  end(): void {
    this.isEnded = true;
  }
}

/** Plans two parts, then fails. */
class Failing extends Hand {
  override planShare(share: Share): Promise<CasePlan[]> {
    return this.planned.length < 4 ? super.planShare(share) : Promise.reject(new Error('no memory left'));
  }
}

/** Hears and never answers. */
class Silent extends Hand {
  override planShare(): Promise<CasePlan[]> {
    return new Promise(() => undefined);
  }
}

const togetherWith = (
  { catalogue }: PlanInput,
  hands: readonly Hand[],
  more: Partial<Together> = {}
): Together => ({
  catalogue,
  cache: new PlanCache(),
  startHelpers: () => hands,
  tell: () => undefined,
  isOver: () => false,
  patience: { alone: 0, worth: 0, silent: 50 },
  ...more
});

function finish(steps: Generator<PlanProgress, Plan>): Plan {
  for (let next = steps.next(); ; next = steps.next()) if (next.done) return next.value;
}

/** The plan of cases dealt out by threes, from the first on; and what the same planning and cache plan behind it. */
async function dealtOut(input: PlanInput, hands: readonly Hand[]): Promise<readonly [Plan, Plan]> {
  const together = togetherWith(input, hands);
  const planning = new Planning(input);
  await planAlong(planning, together, { done: 0, of: 0, msEach: 30 });
  expect(hands.every((h) => h.isEnded)).toBe(true);
  const first = finish(planWith(planning, 'goal', together.cache));
  const { planned } = together.cache;
  const again = finish(planWith(new Planning(input), 'goal', together.cache));
  // What was planned elsewhere is kept as well as what was planned here.
  expect(together.cache.planned).toBe(planned);
  return [first, again];
}

/** The demo with a hop that two publishers state in two ways, one of which holds. */
function disputedDemo(): PlanInput {
  const { catalogue: given, estate, today } = lawInput();
  const catalogue = structuredClone(given);
  const hop = catalogue.products[0]?.hops?.find((h) => h.id === 'desk-4-5');
  if (hop) hop.also = [{ levels: 'from 4/r1', source: 'gw-service' }];
  const scope = { entry: 'garnock-desk/hops/desk-4-5' };
  const ruling = { id: 'r', kind: 'rule' as const, scope, holds: 'gw-table', day: '2031-03-01' };
  return { catalogue, estate: { ...estate, decisions: [...estate.decisions, ruling] }, today };
}

test('whoever plans along, the plan is the same', async () => {
  const demo = disputedDemo();
  const inputs = [
    demo,
    generateWorld(7, 200, isQuick ? 30 : 80),
    ...seedsOf(200).map((seed) => estateOf(fullWorldOf(seed), new Random(seed * 17)))
  ];
  let elsewhere = 0;
  for (const input of inputs) {
    const alone = plan({ ...input, every: 'goal' });
    // By one nearly all is planned here, by many nearly nothing.
    for (const count of input === demo ? (isQuick ? [2] : [1, 2, 20]) : [4]) {
      const hands = Array.from({ length: count }, () => new Hand());
      for (const planned of await dealtOut(input, hands)) expect(planned).toEqual(alone);
      elsewhere += hands.reduce((sum, h) => sum + h.planned.length, 0);
    }
  }
  expect(elsewhere).toBeGreaterThan(isQuick ? 30 : 100);
});

test('who fails or is silent costs time and nothing else', async () => {
  const input = isQuick ? generateWorld(7, 60, 20) : generateWorld(7, 120, 60);
  const alone = plan({ ...input, every: 'goal' });
  for (const hands of [[new Failing(), new Hand()], [new Silent(), new Silent()], [new Failing()], []])
    for (const planned of await dealtOut(input, hands)) expect(planned).toEqual(alone);
});

test('help is asked for once it is known to be worth its time, and a newer order ends it', async () => {
  const world = isQuick ? generateWorld(7, 200, 60) : generateWorld(7, 600, 200);
  const systems = world.estate.systems.map((s, i) =>
    i % 5 === 0 ? { ...s, links: [{ kind: 'peer of' as const, to: s.id }] } : s
  );
  const input = { ...world, estate: { ...world.estate, systems } };
  for (const estate of [world, input]) {
    const hand = new Hand();
    const told: number[] = [];
    const tell = ({ done }: PlanProgress): number => told.push(done);
    const patience = { alone: 0, worth: 0, silent: 50 };
    const together = togetherWith(estate, [hand], { tell, patience });
    const planned = await planTogether(new Planning(estate), together);
    const alone = plan({ ...estate, every: 'goal' });
    expect(planned).toEqual({ ok: true, value: alone });
    expect(hand.planned.length).toBeGreaterThan(0);
    // No case is done twice, and none is told of as undone again.
    expect(told).toEqual([...told].sort((a, b) => a - b));
    expect(told.at(-1)).toBeLessThanOrEqual(alone.cases.length);
  }

  const alone = plan({ ...input, every: 'goal' });
  const unasked = new Hand();
  const patience = { alone: 0, worth: 1e9, silent: 50 };
  const without = togetherWith(input, [unasked], { patience });
  expect(await planTogether(new Planning(input), without)).toEqual({ ok: true, value: alone });
  expect(unasked.planned).toEqual([]);

  const ended = new Hand();
  const many = isQuick ? generateWorld(7, 300, 300) : generateWorld(7, 900, 900);
  const over = togetherWith(many, [ended], { isOver: () => ended.planned.length > 0 });
  expect(await planTogether(new Planning(many), over)).toMatchObject({ issues: [{ code: 'superseded' }] });
  expect(ended.isEnded).toBe(true);
  expect(over.cache.planned).toBeLessThan(isQuick ? 150 : 450);
});
