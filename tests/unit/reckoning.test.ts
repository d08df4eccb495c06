import { readFileSync } from 'node:fs';
import { parse } from 'yaml';
import { expect, test } from 'vitest';
import { checkCondition } from '../../src/core/condition/check-condition';
import { FactKinds } from '../../src/core/condition/fact-kind';
import { parseCondition } from '../../src/core/condition/parse-condition';
import { parseCatalogue } from '../../src/core/exchange/catalogue-file';
import {
  DEFAULT_GOAL,
  emptyEstate,
  type Check,
  type Decision,
  type Fact,
  type Goal,
  type Reading,
  type RightHeld,
  type System
} from '../../src/core/estate/schema';
import { readInstalled } from '../../src/core/estate/read-installed';
import { plan } from '../../src/core/plan/plan';
import { describeReason } from '../../src/core/wording/reason';
import { sayRisks } from '../../src/core/wording/risk';
import { exploreSystem } from '../../src/core/plan/explore';
import { Planning } from '../../src/core/plan/planning';
import type { TargetPlan } from '../../src/core/plan/plan-types';
import { formatDay } from '../../src/core/date/day';
import { TODAY } from '../support/worlds';

const page = readFileSync('docs/reckoning.md', 'utf8');
const examples = [...page.matchAll(/```yaml example\n# (.*)\n([\s\S]*?)```/g)].map(
  (m) => [m[1] ?? '', m[2] ?? ''] as const
);

/** `verdict, step day, step day` or `verdict, why`; a cure that is needed only perhaps has a question mark. */
function say({ verdict, route, reasons, sure }: TargetPlan): string {
  const steps = route?.steps.map(
    (s) =>
      `${s.kind === 'patch' ? `patch ${s.to.patch}` : s.id}${s.kind === 'cure' && s.ifNeeded ? '?' : ''} ${formatDay(s.days.first)}`
  );
  return [verdict, ...(steps ?? (verdict === 'cannot tell' ? [sure] : reasons.map((r) => r.code)))].join(
    ', '
  );
}

test('the page has examples', () => expect(examples.length).toBeGreaterThanOrEqual(30));

test.each(examples)('docs/reckoning.md: %s', (_, text) => {
  const said = parse(text) as Example;
  const product = text.replace(/^start:[\s\S]*/m, '').replace(/^/gm, '    ');
  const rights = [{ id: 'free', kind: 'free' }];
  const linked = [said.linked ?? []].flat();
  const others = linked.flatMap((l, i) =>
    l.product ? [{ id: l.runs ?? `y${i || ''}`, name: 'Y', publisher: 'Y', rights, ...l.product }] : []
  );
  const read = parse(
    `products:\n  - id: x\n    publisher: X\n${/^name:/m.test(text) ? '' : '    name: X\n'}${product}`
  ) as {
    products: { rights?: object[] }[];
  };
  const catalogue = parseCatalogue(
    JSON.stringify({
      format: 'orange-stair-catalogue',
      version: 3,
      name: 'example',
      products: [{ rights, ...read.products[0] }, ...others]
    })
  );
  if (!catalogue.ok) throw new Error(JSON.stringify(catalogue.issues));
  const links = linked.map((l, i) => ({ kind: l.kind, to: l.id ?? `o${i || ''}` }));
  const system: System = {
    ...standing('s', 'x', said.start),
    ...(said.nodes ? { nodes: said.nodes.length } : {}),
    ...(said.nodes ? { members: said.nodes.map((n, i) => ({ name: `n${i + 1}`, facts: factsOf(n) })) } : {}),
    facts: factsOf(said.facts ?? {}),
    companions: (said.companionsKnown ?? []).map((name) => ({ name })),
    companionsWhole: true,
    ...(said.checks
      ? { checks: [{ id: 'k', tool: 'tool', day: '2031-03-09', items: [...said.checks] }] }
      : {}),
    ...(links.length > 0 ? { links: links.filter((_l, i) => linked[i]?.of === undefined) } : {})
  };
  const alike = Array.from({ length: (said.count ?? 1) - 1 }, (_x, i) => ({
    ...system,
    id: `s${i}`,
    name: `s${i}`
  }));
  const beside = linked.map((l, i): System => {
    const id = l.id ?? `o${i || ''}`;
    const own = linked.flatMap((m, k) => (m.of === id ? [{ kind: m.kind, to: m.id ?? `o${k || ''}` }] : []));
    return {
      ...standing(id, l.runs ?? `y${i || ''}`, l.start),
      ...(own.length > 0 || l.back ? { links: [...own, ...(l.back ? [{ kind: l.kind, to: 's' }] : [])] } : {})
    };
  });
  const stays = linked.flatMap((l, i) =>
    l.stays
      ? [
          {
            id: `stay${i}`,
            kind: 'stay' as const,
            scope: { system: l.id ?? `o${i || ''}` },
            day: '2031-03-01'
          }
        ]
      : []
  );
  const decided = (said.decisions ?? []).map((d, i) => ({
    id: `d${i}`,
    scope: { system: 's' },
    day: '2031-03-01',
    ...d
  }));
  const estate = {
    ...emptyEstate(),
    systems: [system, ...alike, ...beside],
    goals: [{ ...DEFAULT_GOAL, ...said.goal }],
    rightsHeld: [...(said.rightsHeld ?? [])],
    decisions: [...stays, ...decided]
  };
  const input = { catalogue: catalogue.value, estate, today: TODAY };
  const planning = new Planning(input);
  const explored = (release: string) =>
    exploreSystem(planning, 's', { release, edition: said.edition ?? 'only', architecture: 'only' });
  const found = (release: string) =>
    explored(release)?.plan.targets.find(
      (t) => t.target.release === release && (!said.edition || t.target.edition === said.edition)
    ) as TargetPlan;
  for (const [release, verdict] of Object.entries(said.expect)) expect(say(found(release))).toBe(verdict);
  for (const [release, sets] of Object.entries(said.openings ?? {}))
    expect(explored(release)?.looked?.openings.openings.map((o) => o.clauses.join(' + '))).toEqual(sets);
  for (const [release, sets] of Object.entries(said.questions ?? {}))
    expect(
      explored(release)?.looked?.questions.map((set) =>
        set
          .map(({ about }) => ('fact' in about ? about.fact : 'clause' in about ? about.clause : ''))
          .join(' + ')
      )
    ).toEqual(sets);
  for (const [release, about] of Object.entries(said.matter ?? {}))
    expect(
      explored(release)?.looked?.matter.map((q) => ('fact' in q.about ? q.about.fact : q.about))
    ).toEqual(about);
  for (const [release, facts] of Object.entries(said.savings ?? {}))
    expect(
      explored(release)?.looked?.savings.map(
        (x) => `${'fact' in x.question.about ? x.question.about.fact : ''} ${x.savesCents}`
      )
    ).toEqual(facts);
  for (const [release, needs] of Object.entries(said.needsFirst ?? {}))
    expect(
      found(release).route?.needsFirst.map(
        (n) => `${n.system} ${n.to.release}${n.together ? ' together' : ''}`
      )
    ).toEqual(needs);
  for (const [release, sum] of Object.entries(said.sums ?? {})) {
    const route = found(release).route;
    expect(
      `${route?.least.costCents} to ${route?.costCents}, ${route?.least.carefulMinutes} to ${route?.carefulMinutes} min`
    ).toBe(sum);
  }
  for (const [release, why] of Object.entries(said.because ?? {}))
    expect(found(release).reasons.map(describeReason)).toEqual(why);
  for (const [release, risks] of Object.entries(said.risks ?? {}))
    expect(sayRisks(found(release).route?.risks ?? [])).toEqual(risks);
  const whole = plan(input);
  if (said.totals)
    expect(
      whole.rights.map(
        (r) =>
          `${r.right}/${r.edition}: ${r.needed} needed, ${r.held} held, ${r.toBuy} to buy, ${r.costCents}`
      )
    ).toEqual(said.totals);
  const one = whole.cases.find((c) => c.systems.includes('s'));
  if (said.deadline) {
    const { setBy, day } = one?.deadline ?? {};
    expect(
      `${formatDay(day ?? 0)} ${setBy?.kind}${setBy?.phase ? ` ${setBy.phase}` : ''}${setBy?.disputed ? ' disputed' : ''}`
    ).toBe(said.deadline);
  }
  if (said.way !== undefined) expect(one?.decidedWay?.stands).toBe(said.way);
  if (said.track) expect(one?.track?.leaving).toBe(said.track);
  for (const [words, candidates] of Object.entries(said.reads ?? {})) {
    const { readings } = readInstalled(catalogue.value, { installed: words });
    const of = (r: Reading): string => ('is' in r ? r.is : 'oneOf' in r ? r.oneOf.join(' or ') : '?');
    expect(`${of(readings.product)}: ${of(readings.release)}/${of(readings.patch)}`).toBe(candidates);
  }
});

interface LinkedExample {
  readonly kind: 'managed by' | 'peer of';
  readonly id?: string;
  /** The product it runs, where that is not one of its own. */
  readonly runs?: string;
  /** What it is linked from, where that is not the system itself. */
  readonly of?: string;
  /** It is linked back. */
  readonly back?: boolean;
  readonly stays?: boolean;
  readonly start: string;
  readonly product?: object;
}

interface Example {
  readonly start: string;
  readonly edition?: string;
  readonly count?: number;
  /** A value; `?` for unread; a list for what sources state differently. */
  readonly facts?: Readonly<Record<string, string | readonly string[]>>;
  readonly nodes?: readonly Readonly<Record<string, string>>[];
  readonly checks?: readonly Check['items'][number][];
  readonly companionsKnown?: readonly string[];
  readonly decisions?: readonly (Partial<Decision> & Pick<Decision, 'kind'>)[];
  readonly goal?: Partial<Goal>;
  readonly rightsHeld?: readonly RightHeld[];
  readonly linked?: LinkedExample | readonly LinkedExample[];
  readonly expect: Readonly<Record<string, string>>;
  readonly openings?: Readonly<Record<string, readonly string[]>>;
  readonly questions?: Readonly<Record<string, readonly string[]>>;
  readonly matter?: Readonly<Record<string, readonly string[]>>;
  readonly savings?: Readonly<Record<string, readonly string[]>>;
  readonly needsFirst?: Readonly<Record<string, readonly string[]>>;
  readonly sums?: Readonly<Record<string, string>>;
  readonly because?: Readonly<Record<string, readonly string[]>>;
  readonly risks?: Readonly<Record<string, readonly string[]>>;
  readonly totals?: readonly string[];
  readonly deadline?: string;
  readonly way?: boolean;
  readonly track?: string;
  readonly reads?: Readonly<Record<string, string>>;
}

function factsOf(said: Readonly<Record<string, string | readonly string[]>>): Record<string, Fact> {
  return Object.fromEntries(
    Object.entries(said).map(([id, value]): [string, Fact] => [
      id,
      value === '?'
        ? { unknown: 'not asked' }
        : typeof value === 'string'
          ? { value }
          : { statements: value.map((v, i) => ({ value: v, source: `source ${i}` })) }
    ])
  );
}

function standing(id: string, product: string, at: string): System {
  const [release = '', patch = '', edition = 'only'] = at.split('/');
  return {
    id,
    name: id,
    product: { is: product },
    release: { is: release },
    patch: { is: patch },
    edition: { is: edition },
    architecture: { is: 'only' }
  };
}

test('every condition written in docs/conditions.md is one, and asks what can be asked', () => {
  const texts = [
    ...readFileSync('docs/conditions.md', 'utf8').matchAll(/```condition\n([\s\S]*?)```/g)
  ].flatMap((m) => (m[1] ?? '').trim().split('\n'));
  expect(texts.length).toBeGreaterThan(10);
  for (const text of texts) {
    const parsed = parseCondition(text);
    const misfits =
      'condition' in parsed
        ? checkCondition(parsed.condition, new FactKinds(), new Set(['good-processors']))
        : parsed.fault;
    expect(misfits, text).toEqual([]);
  }
});
