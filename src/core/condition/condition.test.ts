import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { allFacts, anyCondition, anyFacts, evidenceOf } from '../../../tests/support/conditions';
import { findReachable } from './cells';
import { checkCondition } from './check-condition';
import { comparisonsOf, type Condition } from './condition';
import { evaluateCondition } from './evaluate-condition';
import { FactKinds } from './fact-kind';
import { formatCondition } from './format-condition';
import { figureIn, parseFigure, sayFigure, unitsOf } from './measure';
import { parseCondition } from './parse-condition';
import { and, not, or, type Truth } from './truth';

const kinds = new FactKinds();
const read = (text: string): Condition => {
  const parsed = parseCondition(text);
  if ('fault' in parsed) throw new Error(`${text}: ${JSON.stringify(parsed.fault)}`);
  return parsed.condition;
};
const truth = (
  text: string,
  facts: Parameters<typeof evidenceOf>[0],
  peers?: Parameters<typeof evidenceOf>[1]
): Truth => evaluateCondition(read(text), evidenceOf(facts, peers), kinds).truth;
const known = (value: string | number | boolean) => ({ kind: 'known', value }) as const;

test('what is written is read back, and written the same again', () => {
  fc.assert(
    fc.property(anyCondition, (condition) => {
      const text = formatCondition(condition);
      expect(read(text)).toEqual(condition);
      const spaced = text.replace(/"(?:[^"\\]|\\.)*"| /g, (m) => (m === ' ' ? ' \n ' : m));
      expect(formatCondition(read(spaced))).toBe(text);
    }),
    { seed: 11, numRuns: 600 }
  );
});

test.each([
  'memory at least 1 GB or model is P3 and not security-part is on',
  '(memory at least 1 GB or model is P3) and not (security-part is on or always)',
  'some linked peer (memory at least 1 GB or always)'
])('brackets stand only where they are needed: %s', (text) => expect(formatCondition(read(text))).toBe(text));

test('learning a fact never turns yes into no or no into yes', () => {
  fc.assert(
    fc.property(
      anyCondition,
      allFacts,
      anyFacts,
      fc.array(allFacts, { maxLength: 2 }),
      (condition, all, some, peers) => {
        const fewer = Object.fromEntries(Object.entries(all).filter(([k]) => k in some));
        const before = evaluateCondition(condition, evidenceOf(fewer), kinds).truth;
        const after = evaluateCondition(condition, evidenceOf(all, peers), kinds).truth;
        if (before !== 'unknown') expect(after).toBe(before);
      }
    ),
    { seed: 12, numRuns: 600 }
  );
});

test('the truth of a whole is that of its parts, in Kleene’s tables, and comes with them', () => {
  fc.assert(
    fc.property(anyCondition, anyCondition, anyFacts, (a, b, facts) => {
      const evidence = evidenceOf(facts);
      const of = (c: Condition): Truth => evaluateCondition(c, evidence, kinds).truth;
      const both = evaluateCondition({ kind: 'and', parts: [a, b] }, evidence, kinds);
      expect(both.truth).toBe(and(of(a), of(b)));
      expect(both.parts.map((p) => p.condition)).toEqual([a, b]);
      expect(of({ kind: 'or', parts: [a, b] })).toBe(or(of(a), of(b)));
      expect(of({ kind: 'not', part: a })).toBe(not(of(a)));
    }),
    { seed: 13, numRuns: 300 }
  );
});

describe('measures', () => {
  test('a figure means the same in every unit it can be written in', () => {
    const amount = fc.integer({ min: 1, max: 4_000_000 });
    for (const measure of ['memory', 'disk', 'frequency'] as const)
      fc.assert(
        fc.property(
          amount,
          fc.constantFrom(...unitsOf(measure)),
          fc.constantFrom(...unitsOf(measure)),
          (n, from, to) => {
            const base = figureIn(measure, { amount: String(n), unit: from });
            const one = figureIn(measure, { amount: '1', unit: to });
            if (base === undefined || one === undefined) return;
            const there = base / one;
            const text = there.toFixed(9).replace(/\.?0+$/, '');
            const back = figureIn(measure, { amount: text, unit: to });
            if (Number(text) === there) expect(back).toBe(base);
            else expect(Math.abs((back ?? 0) - base)).toBeLessThanOrEqual(one * 1e-9 + 1);
          }
        ),
        { seed: 14 }
      );
  });

  test.each([
    ['memory', '8 GB', 8 * 2 ** 30],
    ['memory', '8192 MB', 8 * 2 ** 30],
    ['memory', '2 TB', 2048 * 2 ** 30],
    ['disk', '2 TiB', 2048 * 2 ** 30],
    ['disk', '8 GB', 8e9],
    ['disk', '0.1 TB', 1e11],
    ['disk', '8 gb', 8e9],
    ['frequency', '2.4 GHz', 2.4e9],
    ['bits', '64', 64],
    ['year', '2027', 2027],
    ['memory', '8', undefined],
    ['memory', '8 GHz', undefined],
    ['text', '8', undefined],
    ['count', '99999999999999.5 x', undefined]
  ] as const)('%s %s', (measure, text, base) => {
    const figure = parseFigure(text);
    expect(figure && figureIn(measure, figure)).toBe(base);
  });

  test('figures are said in the largest unit that fits', () => {
    expect(sayFigure('memory', 8 * 2 ** 30)).toBe('8 GB');
    expect(sayFigure('disk', 1_500_000_000)).toBe('1.5 GB');
    expect(sayFigure('count', 4)).toBe('4');
  });
});

describe('what is seen against what is demanded', () => {
  test.each<[string, Record<string, ReturnType<typeof known>>, Truth]>([
    ['memory at least 8 GB', { memory: known('8 GB') }, 'yes'],
    ['memory above 8 GB', { memory: known('8 GB') }, 'no'],
    ['memory at most 8 GB', { memory: known('8 GB') }, 'yes'],
    ['memory below 8 GB', { memory: known('8 GB') }, 'no'],
    ['memory at least 8 GB', { memory: known(8) }, 'unknown'],
    ['memory at least 8 GB', {}, 'unknown'],
    ['not memory at least 8 GB', {}, 'unknown'],
    ['memory at least 8 GB or always', {}, 'yes'],
    ['security-part is present', { 'security-part': known('off') }, 'yes'],
    ['security-part is on', { 'security-part': known('off') }, 'no'],
    ['security-part is present', { 'security-part': known('absent') }, 'no'],
    ['model is one of (P3, "P 4")', { model: known('p  4') }, 'yes'],
    ['model is not one of (P3, P4)', { model: known('P5') }, 'yes'],
    ['processor.model is listed in good-parts', { 'processor.model': known('good') }, 'yes'],
    ['release in (from 5 to before 9)', {}, 'yes'],
    ['some linked peer (always)', {}, 'unknown'],
    ['shoe-size at least 4', { 'shoe-size': known(5) }, 'unknown']
  ])('%s', (text, facts, expected) => expect(truth(text, facts)).toBe(expected));

  test('a raise settles that a limit is reached, never that it is not', () => {
    const raised = { memory: { kind: 'at least', value: '8 GB' } } as const;
    expect(truth('memory at least 8 GB', raised)).toBe('yes');
    expect(truth('memory below 8 GB', raised)).toBe('no');
    expect(truth('memory at least 16 GB', raised)).toBe('unknown');
    expect(truth('memory at most 16 GB', raised)).toBe('unknown');
  });

  test('disputed is unknown, linked members count one by one', () => {
    const disputed = { memory: { kind: 'disputed', statements: [known('8 GB'), known('16 GB')] } } as const;
    expect(truth('memory at least 4 GB', disputed)).toBe('unknown');
    const [big, small] = [{ memory: known('16 GB') }, { memory: known('2 GB') }];
    expect(truth('every linked peer (memory at least 4 GB)', {}, [big, small])).toBe('no');
    expect(truth('some linked peer (memory at least 4 GB)', {}, [big, small])).toBe('yes');
    expect(truth('lowest linked peer (memory at least 4 GB)', {}, [big, small])).toBe('unknown');
    expect(truth('lowest linked peer (memory at least 4 GB)', {}, [small])).toBe('no');
    expect(truth('every linked peer (never)', {}, [])).toBe('yes');
    expect(truth('some linked peer (always)', {}, [])).toBe('no');
  });
});

test.each([
  ['memory at leest 8 GB', 10, 'leest', 'least'],
  ['memory at least', 15, '', 'a figure'],
  ['memory 8 GB', 7, '8', 'at least'],
  ['(memory at least 8 GB', 21, '', ')'],
  ['memory at least 8 GB model is P3', 21, 'model', 'and'],
  ['model is one of (P3', 19, '', ')'],
  ['model is and', 9, 'and', 'a value'],
  ['release in (from to)', 12, 'from to', 'a range'],
  ['every peer (always)', 6, 'peer', 'linked'],
  ['memory at least { 8', 16, '{', undefined],
  ['', 0, '', 'a fact'],
  ['memory at least lots', 16, 'lots', 'a figure']
])('"%s" is refused at place %i', (text, at, found, expected) => {
  const parsed = parseCondition(text);
  expect(parsed).toMatchObject({ fault: { at, found } });
  if ('fault' in parsed && expected) expect(parsed.fault.expected).toContain(expected);
});

test('deep and long texts are refused, not followed', () => {
  expect(parseCondition('('.repeat(3000))).toMatchObject({ fault: { code: 'condition-too-deep' } });
  expect(parseCondition('not '.repeat(900) + 'always')).toMatchObject({
    fault: { code: 'condition-too-deep' }
  });
  expect(parseCondition('always and '.repeat(900))).toMatchObject({ fault: { code: 'condition-too-long' } });
});

test.each([
  ['shoe-size at least 4', 'no-such-fact'],
  ['memory at least 4 GHz', 'wrong-measure'],
  ['memory is 4', 'wrong-measure'],
  ['model is listed in nowhere', 'no-such-list'],
  ['security-part is broken', 'no-such-switch'],
  ['setting.x is on and access.console is on', undefined]
])('%s: %s', (text, code) => {
  expect(checkCondition(read(text), kinds, new Set(['good-parts'])).map((m) => m.code)).toEqual(
    code ? [code] : []
  );
});

test.each([
  ['memory at least 8 GB and memory below 4 GB', false, true],
  ['memory at least 8 GB or memory below 9 GB', true, false],
  ['memory above 4 GB and memory below 5 GB', true, true],
  ['model is P3 and model is P4', false, true],
  ['security-part is present or security-part is absent', true, false]
])('%s can hold: %s, can fail: %s', (text, holds, fails) => {
  expect(findReachable(read(text), kinds)).toEqual({ holds, fails });
});

test('comparisons come from left to right', () => {
  expect(
    comparisonsOf(
      read('model is a and not (memory at least 1 GB or every linked peer (model.year at least 2029))')
    ).map((c) => c.fact)
  ).toEqual(['model', 'memory', 'model.year']);
});
