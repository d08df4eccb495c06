import { expect, test } from 'vitest';
import { chooseOnOtherDays, solveBySearch } from '../support/solve';
import { fullWorldOf } from '../support/worlds';
import { seedsOf, tell } from '../support/laws';

test('what is chosen on one day and told of another is what is chosen there', () => {
  let [days, shared] = [0, 0];
  for (const seed of seedsOf(800)) {
    const world = fullWorldOf(seed);
    for (const key of solveBySearch(world).targets.keys()) {
      const chosen = chooseOnOtherDays(world, key);
      expect(chosen.differs, `world ${seed}, ${key}`).toBeUndefined();
      days++;
      shared += chosen.shared;
    }
  }
  tell('other days', { targets: days, shared });
  expect(shared).toBeGreaterThan(days / 10);
});
