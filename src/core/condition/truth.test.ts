import { expect, test } from 'vitest';
import { and, collapse, not, or, type Truth } from './truth';

const ALL: Truth[] = ['no', 'unknown', 'yes'];
const rank = (t: Truth): number => ALL.indexOf(t);

test('and is the least, or the greatest, not turns them round', () => {
  for (const a of ALL) {
    expect(rank(not(a))).toBe(2 - rank(a));
    for (const b of ALL) {
      expect(rank(and(a, b))).toBe(Math.min(rank(a), rank(b)));
      expect(rank(or(a, b))).toBe(Math.max(rank(a), rank(b)));
    }
  }
});

test('unknown collapses against the route in the sure run and for it in the best run', () => {
  expect(collapse('unknown', 'sure', 'demand')).toBe(false);
  expect(collapse('unknown', 'sure', 'guard')).toBe(true);
  expect(collapse('unknown', 'best', 'demand')).toBe(true);
  expect(collapse('unknown', 'best', 'guard')).toBe(false);
  for (const run of ['sure', 'best'] as const)
    for (const role of ['demand', 'guard'] as const)
      expect([collapse('yes', run, role), collapse('no', run, role)]).toEqual([true, false]);
});
