import { readFileSync } from 'node:fs';
import { parse } from 'yaml';
import { expect, test } from 'vitest';
import { checkCondition } from '../../src/core/condition/check-condition';
import { FactKinds } from '../../src/core/condition/fact-kind';
import { parseCondition } from '../../src/core/condition/parse-condition';
import { parseCatalogue } from '../../src/core/exchange/catalogue-file';
import { emptyEstate, type System } from '../../src/core/estate/schema';
import { plan } from '../../src/core/plan';
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

test('the page has examples', () => expect(examples.length).toBeGreaterThanOrEqual(5));

test.each(examples)('docs/reckoning.md: %s', (_, text) => {
  const { start, expect: expected } = parse(text) as { start: string; expect: Record<string, string> };
  const product = text.replace(/^start:[\s\S]*/m, '').replace(/^/gm, '    ');
  const catalogue = parseCatalogue(
    `format: orange-stair-catalogue\nversion: 1\nname: example\nproducts:\n  - id: x\n    name: X\n    publisher: X\n    rights: [{id: free, kind: free}]\n${product}`
  );
  if (!catalogue.ok) throw new Error(JSON.stringify(catalogue.issues));
  const [release = '', patch = ''] = start.split('/');
  const system: System = {
    id: 's',
    name: 's',
    product: { is: 'x' },
    release: { is: release },
    patch: { is: patch },
    edition: { is: 'only' },
    architecture: { is: 'only' }
  };
  const [one] = plan({
    catalogue: catalogue.value,
    estate: { ...emptyEstate(), systems: [system] },
    today: TODAY
  }).cases;
  const found = Object.fromEntries(
    Object.keys(expected).map((id) => [
      id,
      say(one?.targets.find((t) => t.target.release === id) as TargetPlan)
    ])
  );
  expect(found).toEqual(expected);
});

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
