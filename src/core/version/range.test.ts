import fc from 'fast-check';
import { expect, test } from 'vitest';
import { formatRange, matchesRange, parseRange, type Range, type RangeEnd } from './range';
import { compareReleases, sequenceOf } from './sequence';

const sequence = sequenceOf({
  branches: [{ id: 'main' }, { id: 'side', apart: true }],
  releases: [
    { id: '9', branch: 'main', patches: [{ id: 'p1' }, { id: 'p2' }] },
    { id: '10', branch: 'main' },
    { id: 'x', branch: 'side', patches: [{ id: 'p1' }] },
    { id: '2', branch: 'main', patches: [{ id: 'p1' }] },
    { id: 'y', branch: 'side' }
  ]
});
const places = sequence.releases.flatMap((r) => r.patches.map((patch) => ({ release: r.id, patch })));
const inside = (text: string): string[] => {
  const parsed = parseRange(text);
  if (!('range' in parsed)) throw new Error(text);
  return places.filter((p) => matchesRange(sequence, parsed.range, p)).map((p) => `${p.release}/${p.patch}`);
};

test.each([
  ['9', ['9/base', '9/p1', '9/p2']],
  ['9/p1', ['9/p1']],
  ['from 9/p2', ['9/p2', '10/base', '2/base', '2/p1']],
  ['after 9', ['10/base', '2/base', '2/p1']],
  ['after 9/p1 to before 2', ['9/p2', '10/base']],
  ['9/p1 to 9', ['9/p1', '9/p2']],
  ['up to 9/p1', ['9/base', '9/p1']],
  ['before 10', ['9/base', '9/p1', '9/p2']],
  ['10, from x/p1', ['10/base', 'x/p1', 'y/base']],
  ['from 9/p1 on main', ['9/p1', '9/p2', '10/base', '2/base', '2/p1']],
  ['any on side', ['x/base', 'x/p1', 'y/base']]
])('%s', (text, expected) => {
  expect(inside(text)).toEqual(expected);
});

test.each(['', '9 10', 'from', 'to 9', '9/', '9/p1/2', 'from 9 until 10', '9,', 'from to 10'])(
  '"%s" is no range',
  (text) => {
    expect('range' in parseRange(text)).toBe(false);
  }
);

test('the sequence alone orders, branches apart are unordered', () => {
  expect(compareReleases(sequence, '9', '10')).toBe(-1);
  expect(compareReleases(sequence, '2', '10')).toBe(1);
  expect(compareReleases(sequence, 'x', '10')).toBe('unordered');
  expect(compareReleases(sequence, 'x', 'y')).toBe(-1);
});

test('ranges are written as they are read', () => {
  const end = (inclusive: boolean) =>
    fc.constantFrom<RangeEnd>(
      { release: '9', patch: 'p1', inclusive },
      { release: '10', inclusive },
      { release: '2', inclusive }
    );
  const part = fc
    .tuple(fc.boolean(), fc.boolean())
    .chain(([low, high]) => fc.record({ lower: end(low), upper: end(high) }, { requiredKeys: [] }))
    .chain((ends) => fc.constantFrom(ends, { ...ends, branch: 'main' }));
  fc.assert(
    fc.property(fc.array(part, { minLength: 1, maxLength: 3 }), (parts) => {
      const range: Range = { parts };
      const read = parseRange(formatRange(range));
      expect('range' in read && places.filter((p) => matchesRange(sequence, read.range, p))).toEqual(
        places.filter((p) => matchesRange(sequence, range, p))
      );
    }),
    { seed: 3 }
  );
});
