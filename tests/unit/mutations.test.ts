import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { afterAll, expect, test } from 'vitest';
import { verifyRoute } from '../../src/core/verify/verify-route';
import { loadMutated } from '../support/mutate';
import { MUTATIONS } from '../support/mutations';
import {
  type chooseBySearch,
  type chooseOnOtherDays,
  type followBySearch,
  lineOf,
  verifierOf,
  type Solved
} from '../support/solve';
import { isQuick } from '../support/laws';
import { twinOf, twinsFrom, type Twin } from '../support/twins';
import { calendarWorldOf, fullWorldOf, type World } from '../support/worlds';

/** Worlds that are tried where the witness does not show a fault; `npm test` tries the witness alone. */
const WORLDS = isQuick ? 0 : 420;
const MOST = 1500;
/** The world that showed each fault last: tried first. Written anew, like the laws, with `WITNESSES=write` or in full. */
const WITNESSES = 'tests/support/witnesses.json';
const witnesses = JSON.parse(readFileSync(WITNESSES, 'utf8')) as Record<string, number>;
const found: Record<string, number> = {};
mkdirSync('node_modules/.cache', { recursive: true });
const folder = mkdtempSync(resolve('node_modules/.cache/mutations-'));
afterAll(() => {
  rmSync(folder, { recursive: true });
  if (process.env['LAWS'] === 'all' || process.env['WITNESSES'] === 'write')
    writeFileSync(WITNESSES, `${JSON.stringify(found, null, 2)}\n`);
});

type Solve = (world: World) => Solved;
interface Search {
  readonly solveBySearch: Solve;
  readonly followBySearch: typeof followBySearch;
  readonly chooseBySearch: typeof chooseBySearch;
  readonly chooseOnOtherDays: typeof chooseOnOtherDays;
}

/** Where the search and brute force, or the search and the verifier, part in a world. */
function findDisagreement(search: Search, world: World, twin: Twin, days = false): string | undefined {
  const solved = search.solveBySearch(world);
  for (const [key, brute] of twin) {
    const [release = '', edition = '', architecture = ''] = key.split(' ');
    const found = solved.targets.get(key);
    const places = world.product.releases.map((r) => r.id);
    if (
      brute.sure === 'here' ||
      (brute.best === 'closed' && places.indexOf(release) < places.indexOf(world.start.release))
    )
      continue;
    if (
      found?.sure !== brute.sure ||
      found.best !== brute.best ||
      (found.chosen ? lineOf(found.chosen) : 'none') !== brute.chosen ||
      found.list.map(lineOf).sort().join() !== brute.list.join()
    )
      return `world ${world.seed}, ${key}: verdict`;
    const { verdict, best, line = 'none' } = search.chooseBySearch(world, solved.terms, key);
    if (verdict !== brute.sure || best !== brute.best || line !== brute.chosen)
      return `world ${world.seed}, ${key}: chosen alone`;
    if (days && search.chooseOnOtherDays(world, key).differs !== undefined)
      return `world ${world.seed}, ${key}: another day`;
    const ways = brute.decided?.ways ?? [];
    if (ways.some(({ way, line }) => search.followBySearch(world, solved.terms, key, way) !== line))
      return `world ${world.seed}, ${key}: chosen way`;
    for (const route of found.all) {
      const target = { release, edition, architecture };
      const [fault] = verifyRoute(verifierOf(world), world.start, target, route);
      if (fault) return `world ${world.seed}, ${key}: ${fault.code}`;
    }
  }
  return undefined;
}

function* worldsFor(name: string): Generator<{ world: World; twin: Twin }> {
  const isDated = MUTATIONS.some((m) => m.name === name && m.worlds === 'calendar');
  const make = isDated ? calendarWorldOf : fullWorldOf;
  const seed = witnesses[name];
  const first = seed === undefined ? undefined : make(seed);
  const twin = first && twinOf(first, MOST, Infinity);
  if (first && twin) yield { world: first, twin };
  let tried = 0;
  if (WORLDS === 0) return;
  for (const one of twinsFrom(make, MOST)) {
    if (tried++ >= WORLDS) return;
    yield one;
  }
}

test('without a fault the worlds that show them show nothing', async () => {
  const search = await import('../support/solve');
  const tried = new Set<string>();
  for (const [name, seed] of Object.entries(witnesses)) {
    const [first] = worldsFor(name);
    const world = `${first?.world.calendar ? 'calendar ' : ''}${seed}`;
    if (first && !tried.has(world)) expect(findDisagreement(search, first.world, first.twin)).toBeUndefined();
    tried.add(world);
  }
});

test.each(MUTATIONS.map((m, i) => [m.name, m, i] as const))('caught: %s', async (name, mutation, index) => {
  const search = await loadMutated<Search>(mutation, 'tests/support/solve.ts', join(folder, `${index}.mjs`));
  let seen: string | undefined;
  for (const { world, twin } of worldsFor(name)) {
    seen = findDisagreement(search, world, twin, mutation.days);
    if (!seen) continue;
    found[name] = world.seed;
    break;
  }
  expect(seen, 'nothing noticed it').toBeDefined();
});
