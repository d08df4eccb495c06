import { describe, expect, test } from 'vitest';
import { copyRelease } from '../../src/core/catalogue/copy-release';
import { lintCatalogue } from '../../src/core/lint/lint-catalogue';
import { modelOf } from '../../src/core/compile/model';
import { choicesAt, outlineAt } from '../../src/core/catalogue/outline';
import { emptyCatalogue, type Product } from '../../src/core/catalogue/schema';
import { freeId } from '../../src/core/catalogue/sketch/sketch';
import { parseCatalogue } from '../../src/core/exchange/catalogue-file';
import { formatInline, parseInline } from '../../src/core/exchange/inline-value';
import { describeIssue } from '../../src/core/wording/issue';
import { scaleOf, shareOf, treadsOf } from '../../src/lib/catalogue/calendar';
import { entryAt } from '../../src/core/catalogue';
import { fieldsOf, withEntry, withIds, withoutEntry, withValue } from '../../src/lib/catalogue/entries';
import { demoCatalogue, demoCatalogueText } from '../support/demo';
import { pathsOf, valueAt } from '../support/edits';

const productOf = (id: string): Product => demoCatalogue().products.find((p) => p.id === id)!;

describe('a new release after the likeness of another', () => {
  test.each(demoCatalogue().products.map((p) => p.id))(
    '%s: can be read, nothing is said to be known, hops lead to it',
    (id) => {
      const product = productOf(id);
      const last = product.releases.at(-1)!;
      const copied = copyRelease(product, last.id)!;
      const catalogue = {
        ...demoCatalogue(),
        products: demoCatalogue().products.map((p) => (p.id === id ? copied.product : p))
      };
      const read = parseCatalogue(JSON.stringify(catalogue));
      expect(read.ok ? [] : read.issues.map(describeIssue)).toEqual([]);
      const made = copied.product.releases.find((r) => r.id === copied.release)!;
      expect(copied.product.releases.indexOf(made)).toBe(copied.product.releases.indexOf(last) + 1);
      expect([
        made.published,
        made.patches,
        made.service?.every((s) => s.until === 'unknown') ?? true
      ]).toEqual(['unknown', undefined, true]);
      const before = product.releases.at(-2)!;
      const like = product.hops!.filter((h) => h.to === last.id && h.from === before.id).length;
      expect(copied.product.hops!.filter((h) => h.to === made.id && h.from === last.id)).toHaveLength(like);
      // What it does to what is amiss: at most that nothing leads there yet.
      const codes = (c: typeof catalogue) => lintCatalogue(c, 22_350).map((f) => f.code);
      expect(codes(catalogue).filter((c) => c.startsWith('hop'))).toEqual([]);
    }
  );

  test('is numbered on, and there is none after a release that is not there', () => {
    expect(copyRelease(productOf('ossian-shelf'), '31.6')?.release).toBe('31.7');
    expect(copyRelease(productOf('windlass-hub'), 'hub-8.5')?.release).toBe('hub-8.6');
    expect(copyRelease(productOf('ossian-shelf'), '31.5')?.release).not.toBe('31.6');
    expect(copyRelease(productOf('ossian-shelf'), 'none')).toBeUndefined();
  });
});

test('an id made of any name is one, and is free', () => {
  const taken = new Set<string>();
  for (const name of [
    'Box 7',
    'box-7',
    'from',
    'to',
    'unknown',
    'not',
    'listed',
    'constructor',
    '  ',
    'äöü',
    '...',
    '№ 7'.repeat(60),
    '__proto__'
  ]) {
    const id = freeId(name, taken);
    expect(taken.has(id)).toBe(false);
    taken.add(id);
    const releases = [{ id, published: '2031' }];
    const requirements = [{ id, at: 'any', grade: 'blocks', needs: `model is listed in ${id}` }];
    const text = JSON.stringify({
      ...emptyCatalogue('n'),
      lists: [{ id, name: 'n', entries: ['a'] }],
      products: [{ id, name: 'n', publisher: 'n', releases, requirements }]
    });
    expect(parseCatalogue(text), id).toMatchObject({ ok: true });
  }
});

describe('what a form shows of an entry', () => {
  const catalogue = demoCatalogue();

  test('the outline of the schema has every field that the demo uses, and says which are needed', () => {
    for (const path of pathsOf(catalogue)) {
      const value = valueAt(catalogue, path);
      if (typeof value !== 'object' || value === null || Array.isArray(value)) continue;
      const outline = outlineAt(path);
      if (outline.length === 0) continue; // tables with keys of the author's own
      expect(
        Object.keys(value).filter((key) => !outline.some((f) => f.key === key)),
        path.join('/')
      ).toEqual([]);
      if (path.length < 3) continue; // product and catalogue show only what has no view of its own
      const { shown } = fieldsOf(path, value as Record<string, unknown>, true);
      expect(new Set(shown.map((f) => f.key))).toEqual(new Set(Object.keys(value)));
    }
    expect(choicesAt(['products', 0, 'hops', 0, 'kind'])).toEqual(['in place', 'fresh install']);
    expect(choicesAt(['products', 0, 'hops', 0, 'note'])).toEqual([]);
  });

  test('a value written on one line is read back', () => {
    for (const path of pathsOf(catalogue)) {
      const value = valueAt(catalogue, path);
      const text = formatInline(value);
      // Numbers are read by their field; lists of plain words stand without brackets.
      if (
        typeof value === 'string' ||
        typeof value === 'number' ||
        (Array.isArray(value) && !text.startsWith('['))
      )
        continue;
      expect(parseInline(text), text).toEqual({ value });
    }
    expect(parseInline('{a: [b')).toBeUndefined();
  });

  test('fields are set and removed, entries come and go, and the rest is the same object', () => {
    const at = ['products', 0, 'hops', 2];
    const set = withValue(catalogue, [...at, 'note'], 'x');
    expect(entryAt(set, [...at, 'note'])).toBe('x');
    expect(set.products[1]).toBe(catalogue.products[1]);
    expect(withValue(set, [...at, 'note'], undefined)).toEqual(catalogue);
    const made = withEntry(catalogue, ['products', 1, 'pairings'], 'pairing', {
      kind: 'peer of',
      other: 'brindle-server'
    });
    expect(entryAt(made.catalogue, made.path)).toMatchObject({ id: 'pairing' });
    expect(withoutEntry(made.catalogue, made.path)).toEqual(catalogue);
  });
});

test('the calendar stands in order, inside its years, today among them', () => {
  for (const product of demoCatalogue().products) {
    const treads = treadsOf(modelOf(product));
    const scale = scaleOf(treads, 22_350);
    expect(treads.map((t) => t.id)).toEqual(product.releases.map((r) => r.id).reverse());
    for (const tread of treads) {
      const days = [
        ...(tread.start === undefined ? [] : [tread.start]),
        ...tread.phases.flatMap((p) => [p.from, p.to])
      ];
      expect(days).toEqual([...days].sort((a, b) => a - b));
      for (const day of [...days, 22_350]) {
        expect(day).toBeGreaterThanOrEqual(scale.first);
        expect(day).toBeLessThanOrEqual(scale.last);
      }
    }
    expect(scale.years.map((y) => shareOf(scale, y.day))).toEqual(
      [...scale.years.map((y) => shareOf(scale, y.day))].sort((a, b) => a - b)
    );
  }
  expect(treadsOf(modelOf(productOf('garnock-desk')))[0]).toMatchObject({
    id: '7',
    open: true,
    announced: true
  });
});

test('a fault in a condition is told with its line, its column and what would fit', () => {
  const text = demoCatalogueText().replace('needs: memory at least 4 GB', 'needs: memory at leest 4 GB');
  const read = parseCatalogue(text);
  const issue = read.ok ? undefined : read.issues[0];
  expect(issue && describeIssue(issue)).toContain('"leest" stands where least, most would fit');
  const line = text.split('\n')[(issue?.line ?? 0) - 1] ?? '';
  expect(line.slice((issue?.column ?? 0) - 1)).toMatch(/^leest/);
});

test('an entry is named as the screen names it; an identifier, and what is neither, stays as it is said', () => {
  const editions = [
    { id: 'e1', name: 'Home' },
    { id: 'home', name: 'Large' }
  ];
  const product = { ...demoCatalogue().products[0]!, editions };
  const at = (...path: (string | number)[]): readonly (string | number)[] => ['products', 0, ...path];
  expect(withIds(product, at('editionChanges', 0, 'to'), 'LARGE')).toBe('home');
  expect(withIds(product, at('requirements', 0, 'editions'), ['Large', 'Home', 'e1', 'Huge'])).toEqual([
    'home',
    'e1',
    'e1',
    'Huge'
  ]);
  expect(withIds(product, at('requirements', 0, 'note'), 'Large')).toBe('Large');
});
