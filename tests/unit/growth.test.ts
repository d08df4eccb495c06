import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { KEPT, type Hop } from '../../src/core/catalogue/schema';
import { exploreSystem } from '../../src/core/plan/explore';
import { plan } from '../../src/core/plan/plan';
import { Planning } from '../../src/core/plan/planning';
import { FREE, productOf, SWEEPS, systemOf, worldOf, type World } from '../support/growth-worlds';
import { countOf, isQuick } from '../support/laws';
import { loadMutated } from '../support/mutate';
import { Random } from '../support/random';

const lookedIn = (world: World) =>
  exploreSystem(new Planning(world), world.estate.systems[0]?.id ?? '')?.looked;

/** Sizes up to which nothing is cut, a little short of them where that saves a minute. */
for (const { name, sizes, uncutUpTo, world } of SWEEPS)
  test(`${name}: nothing is cut up to ${uncutUpTo}`, () => {
    const uncut = sizes.filter((s) => s <= uncutUpTo).sort((a, b) => b - a);
    const size = uncut[isQuick ? 1 : 0] ?? uncutUpTo;
    const made = world(size);
    const [one] = plan({ ...made, every: 'target' }).cases;
    const looked = lookedIn(made);
    expect(one?.cut).toBe(false);
    expect(looked).toMatchObject({ routesCut: false, questionsCut: false, openings: { cut: false } });
  });

test('what is cut is told, and never reads closed', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'cut-'));
  let cut = 0;
  for (const times of [5_000, 20_000]) {
    const less = { in: 'isSpent', find: 'spent.labels >=', replace: `spent.labels * ${times} >=` };
    const outfile = join(folder, `${times}.mjs`);
    const hasty = await loadMutated<{ plan: typeof plan }>(
      { name: 'less', ...less },
      'src/core/plan/plan.ts',
      outfile
    );
    for (const { name, sizes, world } of SWEEPS) {
      const made = { ...world(Math.min(...sizes)), every: 'goal' as const };
      const [whole] = plan(made).cases;
      const [one] = hasty.plan(made).cases;
      if (one?.verdict !== whole?.verdict)
        expect(one, name).toMatchObject({ cut: true, verdict: 'cannot tell' });
      if (one?.cut) cut++;
    }
  }
  rmSync(folder, { recursive: true });
  expect(cut).toBeGreaterThan(5);
});

/** Fewest hops, then careful minutes, among hops that keep so much; Infinity where none leads there. */
function walk(hops: readonly Hop[], releases: number, kept: number): readonly [number, number] {
  const best = Array.from({ length: releases }, (): readonly [number, number] => [Infinity, Infinity]);
  best[0] = [0, 0];
  for (let from = 0; from < releases; from++)
    for (const hop of hops.filter((h) => h.from === `v${from}` && KEPT.indexOf(h.kept) <= kept)) {
      const to = Number(hop.to.slice(1));
      const next = [(best[from]?.[0] ?? 0) + 1, (best[from]?.[1] ?? 0) + (hop.carefulMinutes ?? 0)] as const;
      const now = best[to] ?? [Infinity, Infinity];
      if (next[0] < now[0] || (next[0] === now[0] && next[1] < now[1])) best[to] = next;
    }
  return best[releases - 1] ?? [Infinity, Infinity];
}

test('25 releases, a third of all hops: the chosen way is that of a walk over the table', () => {
  let many = 0;
  for (let seed = 1; seed <= countOf(300); seed++) {
    const r = new Random(seed);
    const whole = productOf('thing', { releases: 25, ahead: 25, rights: FREE }, seed);
    const hops = (whole.hops ?? []).filter((h) => !(h.from === 'v0' && h.to === 'v24') && r.chance(0.3));
    const product = { ...whole, hops };
    const route = lookedIn(worldOf([product], [systemOf('one', product)]))?.routes[0];
    const ways = KEPT.map((_, kept) => walk(hops, 25, kept));
    const expected = ways.find(([n]) => n < Infinity);
    const found = route && [route.steps.filter((s) => s.kind === 'in place').length, route.carefulMinutes];
    expect(found ?? [Infinity, Infinity], `seed ${seed}`).toEqual(expected ?? [Infinity, Infinity]);
    if ((expected?.[0] ?? 0) > 2 && expected?.[0] !== Infinity) many++;
  }
  expect(many).toBeGreaterThan(0);
});

test('twelve cures a step, two ways each: the dearest is not taken, as trying every set finds', () => {
  for (let size = 2; size <= 12; size += 2) {
    const world = SWEEPS.find((s) => s.name === 'cures two ways')?.world(size);
    const demands = world?.catalogue.products[0]?.requirements ?? [];
    const sets = demands.reduce<readonly { readonly cents: number; readonly minutes: number }[]>(
      (all, { cures = [] }) =>
        all.flatMap((s) =>
          cures.map((c) => ({ cents: s.cents + (c.costCents ?? 0), minutes: s.minutes + c.minutes }))
        ),
      [{ cents: 0, minutes: 0 }]
    );
    const [best] = [...sets].sort((a, b) => a.cents - b.cents || a.minutes - b.minutes);
    const route = world && lookedIn(world)?.routes[0];
    const cures = route?.steps.filter((s) => s.kind === 'cure') ?? [];
    expect(cures).toHaveLength(demands.length);
    expect(route?.costCents).toBe(best?.cents);
    expect(cures.reduce((sum, c) => sum + c.carefulMinutes, 0)).toBe(best?.minutes);
  }
});
