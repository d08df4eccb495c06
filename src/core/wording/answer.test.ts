import { expect, test } from 'vitest';
import { nameAnswers } from './answer';

test('amounts round a threshold are named by it, words stay as they are', () => {
  const names = (answers: string[]) => nameAnswers(answers).map((a) => a.name);
  expect(names(['0 B', '1 B', '19999999999 B', '20000000000 B', '20000000001 B'])).toEqual([
    'below 20 GB',
    '20 GB',
    'above 20 GB'
  ]);
  expect(names(['2147483647 B', '2147483648 B', '2147483649 B', '6442450944 B'])).toEqual([
    'below 2 GB',
    '2 GB',
    'above 2 GB',
    '6 GB'
  ]);
  expect(names(['0', '63', '64', '65', 'on', 'something else'])).toEqual([
    '0',
    'below 64',
    '64',
    'above 64',
    'on',
    'something else'
  ]);
});
