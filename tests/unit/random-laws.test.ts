import { expect, test } from 'vitest';
import { KEPT, type Catalogue, type Product } from '../../src/core/catalogue/schema';
import { formatDay } from '../../src/core/date/day';
import { emptyEstate, type System, type Target } from '../../src/core/estate/schema';
import { plan } from '../../src/core/plan/plan';
import type { CasePlan } from '../../src/core/plan/plan-types';
import { rankVerdict } from '../../src/core/route/search/verdict';
import { BruteForce } from '../support/brute-force';
import { oftenerThan, seedsOf } from '../support/laws';
import { Random } from '../support/random';
import { solveBySearch } from '../support/solve';
import { fullWorldOf, TODAY, worldOf, type World } from '../support/worlds';

/** The world as the whole plan sees it: one system, one goal. */
function planWorld(world: World): CasePlan {
  const { start, activated } = world;
  const system: System = {
    id: 's',
    name: 's',
    product: { is: 'world' },
    release: { is: start.release },
    patch: { is: start.patch },
    edition: { is: start.edition },
    architecture: { is: start.architecture },
    nodes: world.nodes,
    facts: activated === 'unknown' ? {} : { activated: { value: activated === 'yes' } }
  };
  const catalogue: Catalogue = {
    format: 'orange-stair-catalogue',
    version: 3,
    name: 'w',
    products: [world.product]
  };
  const site = { name: '', countsExpected: world.countsExpected };
  const rightsHeld = [{ right: 'agreed', held: world.held.size }];
  const estate = { ...emptyEstate(), site, systems: [system], goals: [world.goal], rightsHeld };
  return plan({ catalogue, estate, today: world.today }).cases[0] as CasePlan;
}

const VALUES: Readonly<Record<string, readonly string[]>> = {
  memory: ['2 GB', '8 GB', '20 GB'],
  'disk.free.system': ['3 GB', '18 GB', '90 GB'],
  'security-part': ['on', 'off'],
  'setting.x': ['on', 'off'],
  model: ['M1', 'M2', 'M3']
};

/** Finds out one thing nobody knew: a fact, a date, what a table leaves open, or whether the source is activated. */
function learn(world: World, r: Random): World | undefined {
  const learnable: (() => World)[] = [];
  // What a tool said stands against what is learned as one more statement; where they differ nobody knows.
  const unchecked = world.needs?.checked.requirements.size ? {} : (world.needs?.facts ?? {});
  for (const [fact, stated] of Object.entries(unchecked)) {
    if ('value' in stated) continue;
    const value = 'statements' in stated ? r.pick(stated.statements).value : r.pick(VALUES[fact] ?? ['on']);
    learnable.push(() => ({ ...world, facts: new Map([[fact, { kind: 'known', value }]]) }));
  }
  if (world.activated === 'unknown') learnable.push(() => ({ ...world, activated: r.pick(['yes', 'no']) }));
  if (world.product.hopTable !== 'complete')
    learnable.push(() => ({ ...world, product: { ...world.product, hopTable: 'complete' } }));
  // A publication or first open day nobody knows is later than today; a last day may be any. Ends of service are left
  // out: an unknown one counts as in service, which what is learned may belie.
  const text = JSON.stringify(world.product);
  const unknowns = [
    ...text.matchAll(/(?<!"phase":"\w+",)"(published|general|preview|opens|closes|until)":"unknown"/g)
  ];
  for (const match of unknowns) {
    if (match[1] === 'until' && /"also":\[[^\]]*$/.test(text.slice(0, match.index))) continue;
    learnable.push(() => {
      const starts = !['closes', 'until'].includes(match[1] ?? '');
      const day = formatDay(TODAY + (starts ? r.int(1, 120) : r.int(-30, 120)));
      const known = `${text.slice(0, match.index)}"${match[1]}":"${day}"${text.slice(match.index + match[0].length)}`;
      return { ...world, product: JSON.parse(known) as Product };
    });
  }
  return learnable.length > 0 ? r.pick(learnable)() : undefined;
}

test('what is learned only narrows what may be: sure never gets worse, best never better', () => {
  let learned = 0;
  for (const seed of seedsOf(2000)) {
    const world = fullWorldOf(seed);
    const wiser = learn(world, new Random(seed));
    if (!wiser) continue;
    learned++;
    const [before, after] = [solveBySearch(world).targets, solveBySearch(wiser).targets];
    for (const [key, old] of before) {
      const now = after.get(key);
      if (!now) throw new Error(key);
      const at = `world ${seed}, ${key}: ${old.sure}..${old.best} became ${now.sure}..${now.best}`;
      expect(rankVerdict(now.sure), at).toBeLessThanOrEqual(rankVerdict(old.sure));
      expect(rankVerdict(now.best), at).toBeGreaterThanOrEqual(rankVerdict(old.best));
    }
  }
  expect(learned).toBeGreaterThan(oftenerThan(40));
});

test('offering one more cure never worsens a verdict', () => {
  let offered = 0;
  let better = 0;
  for (const seed of seedsOf(3000)) {
    const world = fullWorldOf(seed);
    const cured = (world.product.requirements ?? []).filter((q) => (q.cures ?? []).length > 0);
    const [one] = new Random(seed).shuffle(cured);
    if (!one) continue;
    offered++;
    const requirements = world.product.requirements?.map((q) =>
      q === one ? { ...q, cures: q.cures?.slice(1) } : q
    );
    const without = solveBySearch({ ...world, product: { ...world.product, requirements } }).targets;
    for (const [key, now] of solveBySearch(world).targets) {
      const before = without.get(key);
      if (!before) throw new Error(key);
      const at = `world ${seed}, ${key}: ${before.sure}..${before.best} became ${now.sure}..${now.best}`;
      expect(rankVerdict(now.sure), at).toBeLessThanOrEqual(rankVerdict(before.sure));
      expect(rankVerdict(now.best), at).toBeLessThanOrEqual(rankVerdict(before.best));
      if (rankVerdict(now.sure) < rankVerdict(before.sure)) better++;
    }
  }
  expect(
    [offered > oftenerThan(60), better > oftenerThan(5)],
    `${offered} offered, ${better} better`
  ).toEqual([true, true]);
});

const LOOK_AHEAD = 300;

test('what closes the goal is found: brute force reaches it until then and not after', () => {
  let closing = 0;
  let open = 0;
  for (const seed of seedsOf(5000)) {
    const world = worldOf(seed);
    if (JSON.stringify(world.product).includes('unknown') || world.activated === 'unknown') continue;
    if (!new BruteForce(world).solve(1200)) continue;
    const one = planWorld(world);
    const route = one.goalPlan?.route;
    if (!route || !one.goal || world.countsExpected === false) continue;
    const kept = KEPT.indexOf(route.kept);
    const reaches = (today: number): boolean =>
      new BruteForce({ ...world, today }).holding(one.goal as Target).some((r) => r.keptRank <= kept);
    const found = one.deadline.contributors.find((c) => c.sets && c.kind !== 'service of installed');
    if (found) {
      closing++;
      expect(reaches(found.day + 1), `world ${seed}: after ${formatDay(found.day)}, ${found.kind}`).toBe(
        false
      );
      expect(reaches(world.today), `world ${seed}`).toBe(true);
    } else {
      open++;
      expect(reaches(world.today + LOOK_AHEAD), `world ${seed}: nothing closes it`).toBe(true);
    }
  }
  expect([closing > oftenerThan(5), open > oftenerThan(5)], `${closing} closing, ${open} open`).toEqual([
    true,
    true
  ]);
});
