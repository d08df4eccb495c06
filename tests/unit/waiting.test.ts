import { expect, test } from 'vitest';
import { parse } from 'yaml';
import type { Catalogue } from '$core/catalogue';
import { formatDay, parseDay } from '$core/date';
import type { Decision, Estate } from '$core/estate';
import { parseCatalogue } from '$core/exchange';
import { plan, Planning, planWith, type Waiting, waitOut } from '$core/plan';
import { wayOf } from '$core/route';
import { lawInput } from '../support/demo';
import { isQuick } from '../support/laws';

const TODAY = parseDay('2031-03-10') as number;

const CATALOGUE = `
format: orange-stair-catalogue
version: 3
name: small
currency: EUR
products:
  - id: gate
    name: Gate
    publisher: Made up
    editions: [{id: small}, {id: large}]
    hopTable: complete
    releases:
      - {id: a, published: 2028-01-01}
      - {id: b, published: 2029-01-01}
      - {id: c, published: 2031-02-01}
    hops:
      - {id: ab, kind: in place, from: a, to: b, kept: everything, typicalMinutes: 20, carefulMinutes: 40, closes: 2031-12-15}
      - {id: bc, kind: in place, from: b, to: c, kept: everything, typicalMinutes: 20, carefulMinutes: 700}
    rights:
      - {id: free, kind: free, hops: [ab], until: 2031-05}
      - {id: seats, kind: purchase, hops: [ab], priceCents: 9000, offer: {priceCents: 7000, until: 2031-08-20}, units: {each: system, number: 2, pool: seats, edition: small, pack: 5, options: [lift]}}
      - {id: once, kind: purchase, hops: [bc], priceCents: 4000, counts: order day, offer: {priceCents: 2500, until: 2031-09-30}}
`;

function small(): { catalogue: Catalogue; estate: Estate; today: number } {
  const read = parseCatalogue(CATALOGUE);
  if (!read.ok) throw new Error(JSON.stringify(read.issues));
  const system = (id: string, team: string, release: string, lift: string) => ({
    id,
    name: id,
    team,
    product: { is: 'gate' },
    release: { is: release },
    patch: { is: 'base' },
    edition: { is: 'small' },
    architecture: { is: 'only' },
    facts: { 'setting.lift': { value: lift, source: 'me', day: '2031-03-01' } }
  });
  const estate = parse(`
site: {name: '', countsExpected: true}
goals:
  - {id: all, rule: newest, edition: small, maturities: [general], settlingDays: 0, passDays: 30, phase: security, allow: {fresh: true, unsupported: false, spending: true, restingOutOfService: true}}
decisions: []
rightsHeld:
  - {right: seats, held: 5, pool: seats, edition: small, until: 2031-10-31, source: me, day: 2031-03-01}
  - {right: seats, held: 3, pool: seats, edition: small, team: East, source: me, day: 2031-03-01}
  - {right: once, held: 1, until: 2031-09-14, source: me, day: 2031-03-01}
`) as Estate;
  return {
    catalogue: read.value,
    estate: {
      ...estate,
      systems: [
        system('e1', 'East', 'a', 'on'),
        system('e2', 'East', 'a', 'off'),
        system('w1', 'West', 'a', 'off'),
        system('w2', 'West', 'b', 'off')
      ] as unknown as Estate['systems']
    },
    today: TODAY
  };
}

function wait(input: Parameters<typeof plan>[0], days: number): Waiting {
  const planning = new Planning(input);
  const planned = planWith(planning, 'goal');
  let next = planned.next();
  while (!next.done) next = planned.next();
  const steps = waitOut(planning, next.value, { days });
  for (let told = steps.next(); ; told = steps.next()) if (told.done) return told.value;
}

/** The same estate with every chosen way decided, whatever right it is made under. */
function decided(input: Parameters<typeof plan>[0]): Estate {
  const decisions = plan(input).cases.flatMap((c): Decision[] => {
    const route = c.goalPlan?.route;
    if (!route || route.restsOn.length > 0) return [];
    const way = wayOf(route).map(({ right: _right, ...step }) => (void _right, step));
    return c.systems.map((id) => ({
      id: `keep-${id}`,
      kind: 'choose a route',
      scope: { system: id },
      ...(c.goal ? { target: c.goal } : {}),
      route: way,
      reason: 'as it is today',
      who: 'me',
      day: '2031-03-10'
    })) as Decision[];
  });
  return { ...input.estate, decisions: [...input.estate.decisions, ...decisions] };
}

test('waiting equals planning anew on every day of a year, for one small estate', () => {
  const input = small();
  const { stretches, cases } = wait(input, 365);
  expect(cases.length).toBe(4);
  const estate = decided(input);
  let at = 0;
  for (let day = TODAY; day <= TODAY + 365; day++) {
    while ((stretches[at]?.to ?? 0) < day) at++;
    const stretch = stretches[at];
    const anew = plan({ ...input, estate, today: day, every: 'goal' });
    const standing = anew.cases.filter(
      (c) => c.decidedWay?.stands && c.goalPlan?.route?.restsOn.length === 0
    );
    const gone = anew.cases.filter((c) => !standing.includes(c));
    const rights =
      gone.length > 0 ? countOnly(anew, new Set(standing.flatMap((c) => c.systems))) : anew.rights;
    const sum = (of: (r: (typeof rights)[number]) => number): number => rights.reduce((n, r) => n + of(r), 0);
    expect({
      day: formatDay(day),
      cents: stretch?.cents,
      toBuy: stretch?.toBuy,
      drawn: stretch?.drawn,
      without: stretch?.without.length
    }).toEqual({
      day: formatDay(day),
      cents: gone.length > 0 ? stretch?.cents : sum((r) => r.least.costCents),
      toBuy: sum((r) => r.least.toBuy),
      drawn: sum((r) => r.drawn),
      without: gone.length
    });
  }
  const told = stretches.map(
    (s) => `${formatDay(s.from)} ${s.cents} ${s.toBuy} ${s.causes.map((c) => c.kind).join(' ')}`
  );
  expect(told).toMatchInlineSnapshot(`
    [
      "2031-03-10 7500 3 ",
      "2031-06-01 7500 3 right right right",
      "2031-08-21 7500 3 right right right",
      "2031-09-15 10000 4 pool",
      "2031-10-01 16000 4 right right right right",
      "2031-11-01 25000 9 pool",
      "2031-12-16 4000 1 closes closes closes",
    ]
  `);
});

/** Rights of the systems that still go. */
function countOnly(planned: ReturnType<typeof plan>, systems: ReadonlySet<string>) {
  return planned.rights.map((r) => {
    const shares = r.shares.filter((s) => systems.has(s.system));
    const units = (of: 'held' | 'toBuy'): number => shares.reduce((n, s) => n + Number(s[of]), 0);
    return { ...r, drawn: units('held'), least: { ...r.least, toBuy: units('toBuy') } };
  });
}

test('waiting in the demo equals planning anew every tenth day', () => {
  const input = lawInput();
  const planned = plan({ ...input, every: 'goal' });
  const { stretches, cases } = wait(input, 60);
  expect(stretches.length).toBeGreaterThan(2);
  const going = new Set(planned.cases.filter((c) => cases.includes(c.id)).flatMap((c) => c.systems));
  const estate = decided(input);
  for (let day = input.today; day <= input.today + 60; day += isQuick ? 30 : 10) {
    const stretch = stretches.find((s) => s.from <= day && s.to >= day);
    const anew = plan({ ...input, estate, today: day, every: 'goal' });
    const ours = anew.cases.filter((c) => c.systems.some((id) => going.has(id)));
    const standing = ours.filter((c) => c.decidedWay?.stands);
    const rights = countOnly(anew, new Set(standing.flatMap((c) => c.systems)));
    expect({ day: formatDay(day), toBuy: stretch?.toBuy, drawn: stretch?.drawn }).toEqual({
      day: formatDay(day),
      toBuy: rights.reduce((n, r) => n + r.least.toBuy, 0),
      drawn: rights.reduce((n, r) => n + r.drawn, 0)
    });
  }
});
