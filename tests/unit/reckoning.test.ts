import { readFileSync } from 'node:fs';
import { parse } from 'yaml';
import { expect, test } from 'vitest';
import { checkCondition } from '../../src/core/condition/check-condition';
import { FactKinds } from '../../src/core/condition/fact-kind';
import { parseCondition } from '../../src/core/condition/parse-condition';
import { parseCatalogue } from '../../src/core/exchange/catalogue-file';
import { emptyEstate, type System } from '../../src/core/estate/schema';
import { exploreSystem } from '../../src/core/explore';
import { Planning } from '../../src/core/planning';
import type { TargetPlan } from '../../src/core/plan-types';
import { formatDay } from '../../src/core/date/day';
import { TODAY } from '../support/worlds';

const page = readFileSync('docs/reckoning.md', 'utf8');
const examples = [...page.matchAll(/```yaml example\n# (.*)\n([\s\S]*?)```/g)].map(
  (m) => [m[1] ?? '', m[2] ?? ''] as const
);

/** `verdict, step day, step day` or `verdict, why`. */
function say({ verdict, route, reasons, sure }: TargetPlan): string {
  const steps = route?.steps.map(
    (s) => `${s.kind === 'patch' ? `patch ${s.to.patch}` : s.id} ${formatDay(s.days.first)}`
  );
  return [verdict, ...(steps ?? (verdict === 'cannot tell' ? [sure] : reasons.map((r) => r.code)))].join(
    ', '
  );
}

test('the page has examples', () => expect(examples.length).toBeGreaterThanOrEqual(12));

test.each(examples)('docs/reckoning.md: %s', (_, text) => {
  const said = parse(text) as Example;
  const product = text.replace(/^start:[\s\S]*/m, '').replace(/^/gm, '    ');
  const rights = [{ id: 'free', kind: 'free' }];
  const other = said.linked ? [{ id: 'y', name: 'Y', publisher: 'Y', rights, ...said.linked.product }] : [];
  const read = parse(`products:\n  - id: x\n    name: X\n    publisher: X\n${product}`) as {
    products: object[];
  };
  const catalogue = parseCatalogue(
    JSON.stringify({
      format: 'orange-stair-catalogue',
      version: 3,
      name: 'example',
      products: [{ ...read.products[0], rights }, ...other]
    })
  );
  if (!catalogue.ok) throw new Error(JSON.stringify(catalogue.issues));
  const system: System = {
    ...standing('s', 'x', said.start),
    facts: Object.fromEntries(Object.entries(said.facts ?? {}).map(([id, value]) => [id, { value }])),
    companions: (said.companionsKnown ?? []).map((name) => ({ name })),
    companionsWhole: true,
    ...(said.linked ? { links: [{ kind: said.linked.kind, to: 'o' }] } : {})
  };
  const systems = [system, ...(said.linked ? [standing('o', 'y', said.linked.start)] : [])];
  const planning = new Planning({
    catalogue: catalogue.value,
    estate: { ...emptyEstate(), systems },
    today: TODAY
  });
  const explored = (release: string) =>
    exploreSystem(planning, 's', { release, edition: 'only', architecture: 'only' });
  for (const [release, verdict] of Object.entries(said.expect))
    expect(say(explored(release)?.plan.targets.find((t) => t.target.release === release) as TargetPlan)).toBe(
      verdict
    );
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
});

interface Example {
  readonly start: string;
  readonly facts?: Readonly<Record<string, string>>;
  readonly companionsKnown?: readonly string[];
  readonly linked?: { readonly kind: 'managed by'; readonly start: string; readonly product: object };
  readonly expect: Readonly<Record<string, string>>;
  readonly openings?: Readonly<Record<string, readonly string[]>>;
  readonly questions?: Readonly<Record<string, readonly string[]>>;
}

function standing(id: string, product: string, at: string): System {
  const [release = '', patch = ''] = at.split('/');
  return {
    id,
    name: id,
    product: { is: product },
    release: { is: release },
    patch: { is: patch },
    edition: { is: 'only' },
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
