import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { plan, type PlanInput } from '../../src/core/plan/plan';
import { demoInput } from '../support/demo';
import { linesOfPlan } from '../support/plan-lines';
import { Random } from '../support/random';
import { estateOf } from '../support/world-estates';
import { fullWorldOf, type World } from '../support/worlds';

/** The fixture is older than goals that wait for a first patch level. */
function worldAsKept(seed: number): World {
  const world = fullWorldOf(seed);
  const { afterFirstPatch: _younger, ...goal } = world.goal;
  void _younger;
  return { ...world, goal };
}

/**
 * What plans said before the house was put in order. A change that is meant to change plans writes them anew: delete the
 * file, run this test, and read the difference before keeping it.
 */
function expectSame(name: string, inputs: readonly (readonly [string, PlanInput])[]): void {
  const file = `tests/fixtures/plans/${name}.txt`;
  const text = inputs.flatMap(([title, input]) => [title, ...linesOfPlan(plan(input))]).join('\n') + '\n';
  if (!existsSync(file) && !process.env['CI']) writeFileSync(file, text);
  const before = readFileSync(file, 'utf8').split('\n');
  expect(text.split('\n').filter((line, i) => line !== before[i])).toEqual([]);
  expect(text.split('\n').length).toBe(before.length);
}

test('the demo is planned as before', () => expectSame('demo', [['demo', demoInput()]]));

test('200 random estates are planned as before', () => {
  const seeds = Array.from({ length: 200 }, (_, i) => i + 1);
  expectSame(
    'estates',
    seeds.map((seed) => [`estate ${seed}`, estateOf(worldAsKept(seed), new Random(seed * 17))])
  );
});
