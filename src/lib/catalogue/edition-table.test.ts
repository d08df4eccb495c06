import { expect, test } from 'vitest';
import { Random } from '../../../tests/support/random';
import { arrivesIn, type EditionTable, withPair } from './edition-table';

test('a pair taken in or out is the only one that changes, whatever stood there', () => {
  const editions = ['a', 'b', 'c'];
  for (let seed = 1; seed <= 200; seed++) {
    const r = new Random(seed);
    let table: EditionTable = r.int(0, 2) === 0 ? undefined : {};
    for (let step = 0; step < 8; step++) {
      const pair = [editions[r.int(0, 2)] ?? 'a', editions[r.int(0, 2)] ?? 'a'] as const;
      const isOn = r.int(0, 1) === 1;
      const before: EditionTable = table;
      table = withPair(before, editions, pair, isOn);
      for (const from of editions)
        for (const to of editions)
          expect(arrivesIn(table, from).includes(to)).toBe(
            from === pair[0] && to === pair[1] ? isOn : arrivesIn(before, from).includes(to)
          );
    }
  }
});
