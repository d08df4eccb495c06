import fc from 'fast-check';
import { CONDITION_WORDS, QUANTIFIERS, RELATIONS, type Condition } from '../../src/core/condition/condition';
import type { Evidence, Seen } from '../../src/core/condition/evidence';
import { matchesRange } from '../../src/core/version/range';
import { sequenceOf } from '../../src/core/version/sequence';
import { truthOf } from '../../src/core/condition/truth';

const word = fc.constantFrom('P3', 'quick-part', 'b64', 'x.1', 'Sheet', '7');
const anyText = fc.string({ minLength: 1, maxLength: 12 }).filter((s) => !/[\n\r]/.test(s) && s.trim() === s);
const figures: Record<string, fc.Arbitrary<{ amount: string; unit?: string }>> = {
  memory: unitFigure('kB', 'MB', 'GB', 'GiB'),
  'disk.free.system': unitFigure('MB', 'GB', 'TiB'),
  'processor.speed': unitFigure('MHz', 'GHz'),
  'processor.cores': fc.integer({ min: 0, max: 64 }).map((n) => ({ amount: String(n) })),
  'certificate.ends': fc.constantFrom({ amount: '2031-05-01' }, { amount: '2033-12-31' })
};

function unitFigure(...units: string[]): fc.Arbitrary<{ amount: string; unit: string }> {
  return fc.record({
    amount: fc.constantFrom('1', '2', '2.5', '8', '16', '0.25'),
    unit: fc.constantFrom(...units)
  });
}

const figure = fc.constantFrom(...Object.keys(figures)).chain((fact) =>
  fc.record({
    kind: fc.constant('figure' as const),
    fact: fc.constant(fact),
    relation: fc.constantFrom(...RELATIONS),
    figure: figures[fact] as fc.Arbitrary<{ amount: string; unit?: string }>
  })
);
const value = fc.record({
  kind: fc.constant('value' as const),
  fact: fc.constantFrom('model', 'drive.kind'),
  negated: fc.boolean(),
  values: fc.array(fc.oneof(word, anyText, fc.constantFrom(...CONDITION_WORDS)), {
    minLength: 1,
    maxLength: 3
  })
});
const flip = fc.record({
  kind: fc.constant('value' as const),
  fact: fc.constantFrom('security-part', 'setting.remote-seat'),
  negated: fc.boolean(),
  values: fc.constantFrom(['on'], ['off'], ['absent'], ['present'])
});
const leaf: fc.Arbitrary<Condition> = fc.oneof(
  figure,
  value,
  flip,
  fc.record({
    kind: fc.constant('listed' as const),
    fact: fc.constant('processor.model'),
    negated: fc.boolean(),
    list: fc.constant('good-parts')
  }),
  fc.constant({ kind: 'range' as const, fact: 'release', range: 'from 4/r2 to before 6, 9 on blue' }),
  fc.constantFrom({ kind: 'always' as const }, { kind: 'never' as const })
);

/** Conditions of every kind, nested up to four deep. */
export const anyCondition: fc.Arbitrary<Condition> = fc.letrec<{ condition: Condition }>((tie) => ({
  condition: fc.oneof(
    { maxDepth: 4, withCrossShrink: true },
    leaf,
    fc.record({
      kind: fc.constantFrom('and' as const, 'or' as const),
      parts: fc.array(tie('condition'), { minLength: 2, maxLength: 3 })
    }),
    fc.record({ kind: fc.constant('not' as const), part: tie('condition') }),
    fc.record({
      kind: fc.constant('linked' as const),
      members: fc.constantFrom(...QUANTIFIERS),
      link: fc.constant('peer'),
      part: tie('condition')
    })
  )
})).condition;

const seenText = (values: readonly (string | number | boolean)[]): fc.Arbitrary<Seen> =>
  fc.constantFrom(...values.map((v): Seen => ({ kind: 'known', value: v })));
const FACTS: Record<string, fc.Arbitrary<Seen>> = {
  memory: seenText(['1 GB', '2560 MB', '8 GB', '7.9 GB', '16GiB']),
  'disk.free.system': seenText(['1 GB', '8 GB', '2.5 TiB', '300 MB']),
  'processor.speed': seenText(['1 GHz', '2500 MHz', '8 GHz']),
  'processor.cores': seenText([1, 8, '16']),
  'certificate.ends': seenText(['2031-04-30', '2031-05-01', '2040-01-01']),
  model: seenText(['P3', 'p3', 'other']),
  'drive.kind': seenText(['quick-part', 'b64']),
  'security-part': seenText([true, false, 'absent']),
  'setting.remote-seat': seenText(['on', 'off']),
  'processor.model': seenText(['good', 'poor'])
};

/** What is known of one system; any fact may be missing. */
export const anyFacts: fc.Arbitrary<Readonly<Record<string, Seen | undefined>>> = fc.record(FACTS, {
  requiredKeys: []
});
export const allFacts: fc.Arbitrary<Readonly<Record<string, Seen>>> = fc.record(FACTS);

const sequence = sequenceOf({
  releases: ['4', '5', '6', '9'].map((id) => ({ id, patches: [{ id: 'r1' }, { id: 'r2' }] }))
});

/** Evidence from a record of facts; linked systems have records of their own. */
export const evidenceOf = (
  facts: Readonly<Record<string, Seen | undefined>>,
  peers: readonly Readonly<Record<string, Seen>>[] | 'unknown' = 'unknown'
): Evidence => ({
  fact: (id) => facts[id] ?? { kind: 'unknown', why: 'not asked' },
  listed: (_, v) => truthOf(v === 'good'),
  inRange: (range) => truthOf(matchesRange(sequence, range, { release: '5', patch: 'r1' })),
  linked: () =>
    peers === 'unknown'
      ? 'unknown'
      : { members: peers.map((p) => evidenceOf(p, [])), lowest: peers.length > 1 ? 'unknown' : 0 }
});
