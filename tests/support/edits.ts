import { entryKey } from '../../src/core/catalogue/entry-path';
import type { Edit } from '../../src/core/catalogue/diff-values';
import type { Random } from './random';

type Path = (string | number)[];

/** Every path below a value, parents before children. */
export function pathsOf(value: unknown, path: Path = []): Path[] {
  if (typeof value !== 'object' || value === null) return [];
  const steps = Array.isArray(value) ? value.map((_, i) => i) : Object.keys(value);
  return steps.flatMap((step) => {
    const at = [...path, step];
    return [at, ...pathsOf((value as Record<string | number, unknown>)[step], at)];
  });
}

export const valueAt = (value: unknown, path: readonly (string | number)[]): unknown =>
  path.reduce<unknown>((v, step) => (v as Record<string | number, unknown>)[step], value);

const VALUES: unknown[] = [
  'plain',
  '4',
  '31.50',
  'a: b',
  '# no comment',
  'with "quotes" and \\',
  "it's",
  '- dash',
  '',
  'true',
  'null',

  false,
  ['a', 'b'],
  { id: 'new', name: 'N' },
  'x'.repeat(150)
];

/** A change somewhere in a value, of any kind an editor makes. */
export function randomEdit(random: Random, root: unknown): Edit {
  for (;;) {
    const path = random.pick(pathsOf(root));
    const value = valueAt(root, path);
    const kind = random.int(0, 4);
    if (kind === 0) return { kind: 'set', path, value: random.pick(VALUES) };
    if (kind === 1 && path.length > 1) return { kind: 'remove', path };
    if (kind === 2 && Array.isArray(value) && value.length > 0) {
      const like: unknown = random.pick(value);
      const more = entryKey(like)
        ? { ...(like as object), id: `new-${random.int(0, 99999)}` }
        : random.pick(VALUES.slice(0, 9));
      return {
        kind: 'insert',
        path,
        at: random.int(0, value.length + 1),
        values: random.int(0, 2) ? [more] : [more, more]
      };
    }
    if (kind === 3 && typeof value === 'object' && value !== null && !Array.isArray(value))
      return { kind: 'set', path: [...path, `added-${random.int(0, 999)}`], value: random.pick(VALUES) };
  }
}
