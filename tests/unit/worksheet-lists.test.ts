import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { Names } from '$core/catalogue';
import { parseDay } from '$core/date';
import { LinkIndex, type Worksheet } from '$core/estate';
import { parseCatalogue, parseWorkspace } from '$core/exchange';
import { type CasePlan, plan } from '$core/plan';
import { isCounted } from '$core/route';
import { partsOf, sayOrigin, sayTask, type WorkNames } from '$core/wording';
import { makeItems } from '$core/worksheet';

const read = parseWorkspace(readFileSync('demo/saltmarsh.json', 'utf8'));
if (!read.ok) throw new Error('the demo cannot be read');
const { catalogue: file, ...estate } = read.value;
const parsed = parseCatalogue(file?.text ?? '');
if (!parsed.ok) throw new Error('its catalogue cannot be read');
const catalogue = parsed.value;
const planned = plan({ catalogue, estate, today: parseDay('2031-03-10') as number, every: 'goal' });
const products = new Map(catalogue.products.map((p) => [p.id, p]));
const systems = new Map(estate.systems.map((s) => [s.id, s]));
const links = new LinkIndex(estate.systems);
const names: WorkNames = {
  product: (id) => new Names(products.get(id)),
  system: (id) => systems.get(id)?.name ?? id
};

function sheetOf(one: CasePlan, id = one.systems[0] ?? ''): Worksheet | undefined {
  const { route, target } = one.goalPlan ?? {};
  const product = products.get(one.product ?? '');
  const system = systems.get(id);
  if (!route || !target || !product || !system || !one.start || route.steps.length === 0) return undefined;
  const items = makeItems({
    route,
    product,
    system,
    isCritical: one.importance === 'critical',
    fallbacks: one.fallbacks,
    linkedBy: (word) => (links.find(system, word)?.systems ?? []).map((s) => s.id)
  });
  const { start } = one;
  return {
    id,
    system: id,
    product: product.id,
    made: '2031-03-10',
    start,
    target: { ...target, patch: '' },
    items,
    entries: []
  };
}

const sheets = planned.cases.flatMap((one) => {
  const sheet = sheetOf(one);
  return sheet ? [{ one, sheet }] : [];
});

/** A list as a person would write it, from `tests/fixtures/worksheets.txt`. */
const written = new Map(
  readFileSync('tests/fixtures/worksheets.txt', 'utf8')
    .split(/^== /m)
    .slice(1)
    .map((part): [string, string] => {
      const [id = '', ...lines] = part.trimEnd().split('\n');
      return [id, lines.join('\n')];
    })
);

/** Part by part, an item a line, with where it comes from. */
const listOf = (sheet: Worksheet): string =>
  partsOf(sheet, names)
    .map(({ heading, items }) =>
      [heading, ...items.map((i) => `  ${sayTask(i, sheet, names)} <- ${sayOrigin(i, names)}`)].join('\n')
    )
    .join('\n');

test.each([...written.keys()])(
  'the worksheet of %s has every item a person would write down, and no other',
  (id) => {
    const one = planned.cases.find((c) => c.systems.includes(id));
    const sheet = one && sheetOf(one, id);
    expect(sheet && listOf(sheet)).toBe(written.get(id));
  }
);

test('of every plan: each hop once a node, in turn; gates before it; no item without a source; ids tell items apart', () => {
  expect(sheets.length).toBeGreaterThan(20);
  for (const { one, sheet } of sheets) {
    const counted = one.goalPlan?.route?.steps.filter(isCounted) ?? [];
    const nodes = systems.get(sheet.system)?.nodes ?? 1;
    const hops = sheet.items.filter((i) => i.kind === 'hop');
    expect(
      hops.map((h) => [h.step, h.node, h.about.split('/')[2], h.to?.release]),
      sheet.id
    ).toEqual(
      counted.flatMap((s, k) =>
        Array.from({ length: nodes }, (_, n) => [k, nodes > 1 ? n + 1 : undefined, s.id, s.to.release])
      )
    );
    expect(new Set(sheet.items.map((i) => i.id)).size, sheet.id).toBe(sheet.items.length);
    const at = (kind: string): number => sheet.items.findIndex((i) => i.kind === kind);
    const first = at('hop');
    for (const kind of ['back up', 'prove', 'snapshot', 'access', 'fetch', 'check'])
      expect(at(kind), `${sheet.id} ${kind}`).toBeLessThan(first);
    for (const item of sheet.items) {
      expect(item.about, sheet.id).not.toBe('');
      expect(sayTask(item, sheet, names), item.id).not.toMatch(/undefined|^$|: $/);
      expect(sayOrigin(item, names), item.id).not.toBe('');
    }
    // Whatever the way does stands on the list, as often as it is done.
    const arounds = one.goalPlan?.route?.steps.filter((s) => s.kind === 'work-around') ?? [];
    expect(sheet.items.filter((i) => i.kind === 'work-around' && i.needless === undefined).length).toBe(
      arounds.reduce((n, s) => n + s.times, 0)
    );
    // As long as its stair says, on all nodes together.
    const WORK = ['hop', 'patch', 'cure', 'work-around', 'work'];
    for (const pick of ['typicalMinutes', 'carefulMinutes'] as const)
      expect(
        sheet.items
          .filter(
            (i) =>
              i.needless === undefined &&
              (WORK.includes(i.kind) || (i.kind === 'post-work' && /^route$|\/companions\//.test(i.about)))
          )
          .reduce((n, i) => n + (i[pick] ?? 0), 0),
        `${sheet.id} ${pick}`
      ).toBe(
        (one.goalPlan?.route?.steps ?? [])
          .filter((s) => s.kind !== 'work' || s.task !== 'back up')
          .reduce((n, s) => n + s[pick] * (s.kind === 'work-around' ? s.times : nodes), 0)
      );
    const patches = one.goalPlan?.route?.steps.filter((s) => s.kind === 'patch').length ?? 0;
    expect(sheet.items.filter((i) => i.kind === 'patch').length).toBe(patches);
  }
});
