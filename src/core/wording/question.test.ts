import { expect, test } from 'vitest';
import { Names } from '../catalogue/names';
import { clauseKey, clauseOf, type ClauseCode } from '../route/reason';
import { sayQuestion } from './ready';

const CODES: readonly ClauseCode[] = [
  'patch withdrawn',
  'months left',
  'pass days',
  'cure limit',
  'cure',
  'site demand',
  'closed',
  'level',
  'spending',
  'right',
  'cell',
  'space',
  'resting',
  'maturity'
];

test('every clause can be asked about in words, and its key read back', () => {
  for (const code of CODES)
    for (const subject of ['', 'a b']) {
      const key = clauseKey({ code, subject });
      expect(clauseOf(key)).toEqual({ code, subject });
      const words = sayQuestion({ about: { clause: key } }, new Names(undefined), {
        fact: (id) => `the ${id}`,
        list: (id) => id
      });
      expect(words, key).not.toBe(key);
      if (code !== 'space') expect(words.length, key).toBeGreaterThan(10);
    }
  expect(clauseOf('nothing of ours')).toBeUndefined();
});
