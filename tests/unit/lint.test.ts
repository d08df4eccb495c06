import { describe, expect, test } from 'vitest';
import { checkCatalogue } from '../../src/core/catalogue/check';
import { editValue } from '../../src/core/catalogue/diff-values';
import { LINT_CODES } from '../../src/core/lint/finding';
import { lintCatalogue } from '../../src/core/lint/lint-catalogue';
import type { Catalogue } from '../../src/core/catalogue/schema';
import { parseCatalogue } from '../../src/core/exchange/catalogue-file';
import { parseDay } from '../../src/core/date/day';
import { isKnownCode } from '../../src/core/wording/issue';
import { describeFinding, describeMend } from '../../src/core/wording/lint';
import { demoCatalogue } from '../support/demo';
import { countOf } from '../support/laws';
import { LINT_FAULTS, REFERENCE_FAULTS, type Fault } from '../support/lint-faults';
import { Random } from '../support/random';

const today = parseDay('2031-03-10') ?? 0;
const SEEDS = countOf(40);

/** A copy of the demo with one fault, in a product that has room for it. */
function plant(fault: Fault, seed: number): { catalogue: Catalogue; names: string } {
  const random = new Random(seed);
  for (const product of random.shuffle(demoCatalogue().products.map((_, i) => i))) {
    const catalogue = structuredClone(demoCatalogue());
    const names = fault.plant(catalogue.products[product]!, random, catalogue);
    if (names !== undefined) return { catalogue, names };
  }
  throw new Error(`no room for ${fault.code}`);
}

test('on the demo it reports what the scenario plants, and nothing else', () => {
  expect(lintCatalogue(demoCatalogue(), today).map((f) => [f.code, describeFinding(f)])).toEqual([
    ['edition-hole', 'desk-3-5 says nothing of edition office, which 3 comes in; so it is forbidden.'],
    ['no-figure', 'shelf-cable asks for something nobody has put a figure to.'],
    ['companion-not-listed', 'Tide table is not listed for the newest release, 24.'],
    ['right-without-path', '“Jump from 21 to 24” is sold for hops in place to 24, but none leads there.'],
    ['stale-source', '“List of processors” was last read more than a year ago.'],
    [
      'disputed',
      'pellow-terminal/requirements/term-memory is stated differently by pellow-sheet, pellow-bench: needs.'
    ]
  ]);
});

test('what opens and closes on one day, or stands in the right order, is not amiss', () => {
  const catalogue = structuredClone(demoCatalogue());
  Object.assign(catalogue.products[0]!.hops![0]!, { opens: '2031-06-01', closes: '2031-06-01' });
  Object.assign(catalogue.sources![0]!, { written: '2031-02-01', read: '2031-02-01' });
  expect(lintCatalogue(catalogue, today)).toEqual(lintCatalogue(demoCatalogue(), today));
});

test('a fault is listed here for everything the lint claims to find', () => {
  expect(new Set(LINT_FAULTS.map((f) => f.code))).toEqual(new Set(LINT_CODES));
});

describe('a planted fault is found, with its place, in words', () => {
  test.each(LINT_FAULTS.map((f) => [f.code, f.entry, f] as const))('%s in %s', (code, _, fault) => {
    const before = lintCatalogue(demoCatalogue(), today).filter((f) => f.code === code).length;
    for (let seed = 1; seed <= SEEDS; seed++) {
      const { catalogue, names } = plant(fault, seed);
      const found = lintCatalogue(catalogue, today).filter((f) => f.code === code);
      const it = found.find((f) => Object.values(f.detail).some((d) => d.includes(names)));
      expect(it, `${names}, seed ${seed}`).toBeDefined();
      expect(found.length).toBeGreaterThan(before - 1);
      expect(describeFinding(it!)).not.toMatch(/[{}]/);
      expect(describeMend(it!).length).toBeGreaterThan(10);
    }
  });

  test.each(LINT_FAULTS.map((f) => [f.code, f] as const))(
    '%s: where there is a mend, it mends',
    (code, fault) => {
      for (let seed = 1; seed <= Math.min(4, SEEDS); seed++) {
        const { catalogue, names } = plant(fault, seed);
        const it = lintCatalogue(catalogue, today).find(
          (f) => f.code === code && Object.values(f.detail).some((d) => d.includes(names))
        );
        if (!it?.mend) return;
        const mended = it.mend.reduce(editValue, catalogue as unknown) as Catalogue;
        const left = lintCatalogue(mended, today).filter(
          (f) => f.code === code && JSON.stringify(f.detail) === JSON.stringify(it.detail)
        );
        expect(left, JSON.stringify(it)).toEqual([]);
      }
    }
  );
});

test.each(REFERENCE_FAULTS.map((f) => [f.code, f.entry, f] as const))(
  'the reader refuses %s in %s, with line and column',
  (code, _, fault) => {
    for (let seed = 1; seed <= SEEDS; seed++) {
      const { catalogue } = plant(fault, seed);
      expect(
        checkCatalogue(catalogue).map((i) => i.code),
        `seed ${seed}`
      ).toContain(code);
      const read = parseCatalogue(JSON.stringify(catalogue, null, 1));
      const issue = read.ok ? undefined : read.issues.find((i) => i.code === code);
      expect(issue?.line).toBeGreaterThan(1);
      expect(isKnownCode(code)).toBe(true);
    }
  }
);
