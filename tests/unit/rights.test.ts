import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { parse } from 'yaml';
import { formatDay, parseDay } from '$core/date';
import { DEFAULT_GOAL, type Estate, type RightHeld } from '$core/estate';
import { parseCatalogue } from '$core/exchange';
import { type Forecast, forecastUnits, graceClocks, type Plan, plan, Planning } from '$core/plan';
import type { PlanInput } from '$core/plan/plan';
import { findRightQuestions } from '$core/ready';
import { isCounted } from '$core/route';

interface Said {
  readonly case: string;
  readonly today?: string;
  readonly to?: string;
  readonly long?: boolean;
  readonly rights: readonly object[];
  readonly demand?: { fact: string; least: string; cure: { costCents: number; leadDays: number } };
  readonly held?: readonly Partial<RightHeld>[];
  readonly systems: readonly {
    id: string;
    n?: number;
    team?: string;
    site?: string;
    edition?: string;
    nodes?: number;
    facts?: Record<string, string>;
  }[];
  readonly uses?: Record<string, string>;
  readonly verdict?: Record<string, string>;
  readonly needs?: readonly string[];
  readonly pools?: readonly string[];
  /** What one system may cost at most. */
  readonly limit?: number;
  readonly days?: Record<string, string>;
  readonly finish?: Record<string, string>;
  readonly forecast?: readonly string[];
  readonly asks?: readonly string[];
  readonly clocks?: Record<string, readonly string[]>;
}

const CASES = parse(readFileSync('tests/fixtures/rights.yaml', 'utf8')) as Said[];

function inputOf(said: Said): PlanInput {
  const { demand } = said;
  const hop = {
    kind: 'in place',
    kept: 'everything',
    typicalMinutes: 20,
    carefulMinutes: said.long ? 2000 : 40
  };
  const read = parseCatalogue(
    JSON.stringify({
      format: 'orange-stair-catalogue',
      version: 3,
      name: 'worked by hand',
      facts: [{ id: 'trays', name: 'trays', measure: 'count', keptBy: 'hardware', shelfLifeDays: 3650 }],
      products: [
        {
          id: 'gate',
          name: 'Gate',
          publisher: 'Made up',
          editions: [{ id: 'small' }, { id: 'large' }],
          hopTable: 'complete',
          releases: [
            { id: 'a', published: '2028-01-01' },
            { id: 'b', published: '2029-01-01' },
            { id: 'c', published: '2030-01-01' }
          ],
          hops: [
            { id: 'ab', from: 'a', to: 'b', ...hop },
            { id: 'bc', from: 'b', to: 'c', ...hop }
          ],
          rights: said.rights,
          ...(demand
            ? {
                requirements: [
                  {
                    id: 'enough',
                    at: 'b',
                    grade: 'blocks',
                    needs: `${demand.fact} at least ${demand.least}`,
                    cures: [
                      {
                        id: 'more',
                        kind: 'purchase',
                        how: 'Fit more.',
                        fact: demand.fact,
                        raise: demand.least,
                        minutes: 10,
                        ...demand.cure
                      }
                    ]
                  }
                ]
              }
            : {})
        }
      ]
    })
  );
  if (!read.ok) throw new Error(JSON.stringify(read.issues));
  const source = { source: 'me', day: '2031-03-01' };
  const systems = said.systems.flatMap(({ id, n = 1, edition = 'small', facts = {}, ...rest }) =>
    Array.from({ length: n }, (_, i) => ({
      id: n === 1 ? id : `${id}${i + 1}`,
      name: id,
      product: { is: 'gate' },
      release: { is: 'a' },
      patch: { is: 'base' },
      edition: { is: edition },
      architecture: { is: 'only' },
      ...rest,
      facts: Object.fromEntries(Object.entries(facts).map(([fact, value]) => [fact, { value, ...source }]))
    }))
  );
  const goals = (['small', 'large'] as const).map((edition, i) => ({
    ...DEFAULT_GOAL,
    id: `g${i}`,
    settlingDays: 0,
    ...(i === 0 ? {} : { team: 'large' }),
    ...(said.limit === undefined ? {} : { spendingCents: said.limit }),
    targets: [{ product: 'gate', release: said.to ?? 'b', edition }]
  }));
  const estate = {
    site: { name: '', countsExpected: true },
    systems: systems.map((s) => (s.edition.is === 'large' ? { ...s, team: 'large' } : s)),
    goals,
    decisions: [],
    rightsHeld: (said.held ?? []).map((h) => ({ ...source, ...h }))
  } as unknown as Estate;
  return { catalogue: read.value, estate, today: parseDay(said.today ?? '2031-03-10') as number };
}

const sayNeeds = ({ rights }: Plan): string[] =>
  rights.map((r) =>
    [
      `${r.right}${r.pool ? ` ${r.pool}` : ''}${r.edition === 'small' || r.edition === '' ? '' : ` ${r.edition}`}: ${r.needed === 'unknown' ? 'at least ' : ''}${r.least.needed} needed`,
      `${r.drawn} drawn`,
      `${r.atMost ? 'at most ' : ''}${r.least.toBuy} to buy${r.purchases.some((p) => p.units > p.packs) ? ` in ${r.purchases.reduce((n, p) => n + p.packs, 0)} pack${r.purchases.reduce((n, p) => n + p.packs, 0) === 1 ? '' : 's'}` : ''}`,
      ...(r.short > 0 ? [`${r.short} short`] : []),
      String(r.purchases.some((p) => p.priceCents === 'unknown') ? 'unknown' : r.least.costCents)
    ].join(', ')
  );

const sayPools = ({ pools }: Plan): string[] =>
  pools.map(
    (p) =>
      `${p.name}${p.edition === 'small' || !p.edition ? '' : ` ${p.edition}`}${p.team ? ` for ${p.team}` : ''}${p.until === undefined ? '' : ` until ${formatDay(p.until)}`}: ${p.held} held, ${p.drawn} drawn, ${p.remainder} left${p.lapsed ? ', lapsed' : ''}`
  );

function sayUses(planned: Plan, system: string): string {
  const route = planned.cases.find((c) => c.systems.includes(system))?.goalPlan?.route;
  return (route?.steps ?? [])
    .filter(isCounted)
    .map(({ right: r }) =>
      [r.kind, r.right, r.kind === 'purchase' ? r.priceCents : '']
        .filter((x) => x !== undefined && x !== '')
        .join(' ')
    )
    .join(', ');
}

const sayForecast = ({ right, pool, release, units, more }: Forecast): string =>
  [
    `${right} ${pool}${release === undefined ? '' : ` for ${release}`}: ${units}`,
    ...more.map((m) => `with ${m.option} ${m.units}`)
  ].join('; ');

test('there are at least forty', () => expect(CASES.length).toBeGreaterThanOrEqual(40));

test.each(CASES.map((c) => [c.case, c] as const))('%s', (_, said) => {
  const input = inputOf(said);
  const planned = plan(input);
  const [product] = input.catalogue.products;
  const routeOf = (system: string) => planned.cases.find((c) => c.systems.includes(system))?.goalPlan?.route;
  for (const [system, words] of Object.entries(said.uses ?? {})) expect(sayUses(planned, system)).toBe(words);
  for (const [system, verdict] of Object.entries(said.verdict ?? {}))
    expect(planned.cases.find((c) => c.systems.includes(system))?.verdict).toBe(verdict);
  for (const [system, day] of Object.entries(said.days ?? {}))
    expect(formatDay(routeOf(system)?.steps.find(isCounted)?.days.first ?? 0)).toBe(day);
  for (const [system, day] of Object.entries(said.finish ?? {}))
    expect(formatDay(routeOf(system)?.finish.last ?? 0)).toBe(day);
  if (said.forecast)
    expect(forecastUnits(new Planning(input), planned).map(sayForecast)).toEqual(said.forecast);
  for (const [system, clocks] of Object.entries(said.clocks ?? {}))
    expect(
      graceClocks(routeOf(system)!, product?.rights ?? []).map(
        (c) => `${c.since} until ${formatDay(c.until ?? 0)}${c.then ? `, then ${c.then}` : ''}`
      )
    ).toEqual(clocks);
  if (said.asks)
    expect(
      findRightQuestions(planned.cases, {
        products: new Map([['gate', product!]]),
        systems: new Map(input.estate.systems.map((s) => [s.id, s]))
      }).map((q) => `${q.kind} ${q.key.replace('gate/right ', '')}: ${q.systems.length}`)
    ).toEqual(said.asks);
  if (said.needs) expect(sayNeeds(planned)).toEqual(said.needs);
  if (said.pools) expect(sayPools(planned)).toEqual(said.pools);
});
