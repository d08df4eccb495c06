import { describe, expect, test } from 'vitest';
import { mergeCatalogues } from '../../src/core/catalogue/merge';
import { emptyCatalogue, type Catalogue } from '../../src/core/catalogue/schema';
import { settleCatalogue } from '../../src/core/catalogue/settle';
import { parseCatalogue } from '../../src/core/exchange/catalogue-file';
import { diffValues, editValue } from '../../src/core/catalogue/diff-values';
import { demoCatalogue } from '../support/demo';
import { oftenerThan, seedsOf } from '../support/laws';
import { Random } from '../support/random';

const merged = (a: Catalogue, b: Catalogue): Catalogue => {
  const result = mergeCatalogues(a, b);
  if (!result.ok) throw new Error(JSON.stringify(result.issues));
  return result.value;
};

/** The demo as somebody else might have kept it: entries gone, added, changed, sequences stirred. */
function variant(random: Random): Catalogue {
  const catalogue = structuredClone(demoCatalogue());
  for (const product of catalogue.products) {
    product.hops = product.hops?.filter((h) => h.id === 'desk-5-6' || random.chance(0.8));
    product.rights = product.rights?.filter(() => random.chance(0.8));
    for (const hop of product.hops ?? []) {
      if (random.chance(0.3)) hop.carefulMinutes += random.int(1, 9);
      if (random.chance(0.2)) hop.note = `note ${random.int(1, 3)}`;
      if (random.chance(0.2)) hop.source = 'gw-table';
      if (random.chance(0.1)) delete hop.levels;
    }
    for (const right of product.rights ?? [])
      if (random.chance(0.3)) right.until = `2032-0${random.int(1, 9)}-01`;
    for (const line of product.lines ?? [])
      for (const phase of line.service ?? [])
        if (random.chance(0.3)) phase.until = `2033-0${random.int(1, 9)}`;
    if (random.chance(0.2)) product.releases = random.shuffle(product.releases);
    if (random.chance(0.3)) product.about = `about ${random.int(1, 3)}`;
  }
  if (random.chance(0.3)) catalogue.products = random.shuffle(catalogue.products);
  return catalogue;
}

describe('merging', () => {
  test('either way round is the same; with itself, and again, changes nothing', () => {
    let conflicts = 0;
    for (const seed of seedsOf(150)) {
      const random = new Random(seed);
      const [a, b] = [variant(random), variant(random)];
      const both = merged(a, b);
      expect(merged(b, a), `seed ${seed}`).toEqual(both);
      expect(JSON.stringify(merged(b, a))).toBe(JSON.stringify(both));
      expect(merged(a, a)).toEqual(a);
      expect(merged(both, both)).toEqual(both);
      expect(merged(both, a), `seed ${seed}`).toEqual(both);
      expect(merged(b, both), `seed ${seed}`).toEqual(both);
      conflicts += settleCatalogue(both, []).disputes.length;
    }
    expect(conflicts).toBeGreaterThan(oftenerThan(400));
  });

  test('what both changed is kept twice and reads as unknown, or the careful way, until ruled', () => {
    const a = structuredClone(demoCatalogue());
    const b = structuredClone(a);
    const hopOf = (c: Catalogue) => c.products[0]!.hops!.find((h) => h.id === 'desk-4-5')!;
    Object.assign(hopOf(a), { levels: 'from 4/r1', source: 'gw-service', carefulMinutes: 200 });
    const both = merged(a, b);
    expect(hopOf(both).also).toHaveLength(1);
    const { catalogue, disputes } = settleCatalogue(both, []);
    expect(hopOf(catalogue)).toMatchObject({ levels: 'unknown', carefulMinutes: 200 });
    expect(disputes.filter((d) => d.entry.includes('desk-4-5'))).toMatchObject([
      { entry: 'garnock-desk/hops/desk-4-5', fields: ['carefulMinutes', 'levels'] }
    ]);
    for (const [holds, levels, minutes] of [
      ['gw-service', 'from 4/r1', 200],
      ['gw-table', 'from 4/r2', 95]
    ] as const) {
      const ruled = settleCatalogue(both, [{ entry: 'garnock-desk/hops/desk-4-5', holds }]);
      expect(hopOf(ruled.catalogue)).toMatchObject({ levels, carefulMinutes: minutes, source: holds });
      expect(ruled.disputes.map((d) => d.ruled)).toContain(holds);
    }
  });

  test('the merged catalogue is one the reader takes', () => {
    for (let seed = 200; seed < 215; seed++) {
      const random = new Random(seed);
      const text = JSON.stringify(merged(variant(random), variant(random)));
      expect(parseCatalogue(text)).toMatchObject({ ok: true });
    }
  });

  test('edits take one side to the merged one', () => {
    const random = new Random(9);
    for (let i = 0; i < 20; i++) {
      const [a, b] = [variant(random), variant(random)];
      const both = merged(a, b);
      expect(diffValues(a, both).reduce(editValue, a as unknown)).toEqual(both);
    }
  });

  test('two currencies are not added up', () => {
    expect(
      mergeCatalogues(
        { ...emptyCatalogue('a'), currency: 'EUR' },
        { ...emptyCatalogue('b'), currency: 'CHF' }
      )
    ).toMatchObject({
      ok: false,
      issues: [{ code: 'two-currencies' }]
    });
  });
});
