import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build } from 'esbuild';
import { afterAll, expect, test } from 'vitest';
import { verifyRoute } from '../../src/core/route/verify-route';
import { BruteForce, bruteLine, type BruteTarget } from '../support/brute-force';
import { MUTATIONS, type Mutation } from '../support/mutations';
import { lineOf, verifierOf, type Solved } from '../support/solve';
import { fullWorldOf, type World } from '../support/worlds';

const WORLDS = 420;
const folder = mkdtempSync(join(tmpdir(), 'mutations-'));
afterAll(() => rmSync(folder, { recursive: true }));

const worlds: { world: World; twin: Map<string, BruteTarget> }[] = [];
for (let seed = 1; worlds.length < WORLDS; seed++) {
  const world = fullWorldOf(seed);
  const twin = new BruteForce(world).solve(1500);
  if (twin) worlds.push({ world, twin });
}

type Solve = (world: World) => Solved;

/** The search with one fault put in, bundled and loaded on its own. */
async function loadMutated({ file, find, replace }: Mutation, index: number): Promise<Solve> {
  const outfile = join(folder, `${index}.mjs`);
  const path = resolve(file);
  const source = readFileSync(path, 'utf8');
  // White space is the formatter's.
  const pattern = new RegExp(
    find
      .trim()
      .split(/\s+/)
      .map((w) => w.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'))
      .join('\\s+'),
    'g'
  );
  expect(source.match(pattern)?.length, `"${find}" stands once in ${file}`).toBe(1);
  await build({
    entryPoints: [resolve('tests/support/solve.ts')],
    bundle: true,
    format: 'esm',
    outfile,
    logLevel: 'error',
    plugins: [
      {
        name: 'mutate',
        setup: (b) =>
          b.onLoad({ filter: /\.ts$/ }, (args) =>
            args.path === path
              ? { contents: source.replace(pattern, () => replace), loader: 'ts' }
              : undefined
          )
      }
    ]
  });
  return ((await import(pathToFileURL(outfile).href)) as { solveBySearch: Solve }).solveBySearch;
}

/** The first world in which the search and brute force, or the search and the verifier, part. */
function findDisagreement(solve: Solve): string | undefined {
  for (const { world, twin } of worlds) {
    const solved = solve(world);
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
        (found.chosen ? lineOf(found.chosen) : '') !== (brute.chosen ? bruteLine(brute.chosen) : '') ||
        found.list.map(lineOf).sort().join() !== brute.list.map(bruteLine).sort().join()
      )
        return `world ${world.seed}, ${key}: verdict`;
      for (const route of found.all) {
        const [fault] = verifyRoute(
          verifierOf(world),
          world.start,
          { release, edition, architecture },
          route
        );
        if (fault) return `world ${world.seed}, ${key}: ${fault.code}`;
      }
    }
  }
  return undefined;
}

test('the search itself agrees, so that what follows shows the faults and nothing else', async () => {
  const { solveBySearch } = await import('../support/solve');
  expect(findDisagreement(solveBySearch)).toBeUndefined();
});

test.each(MUTATIONS.map((m, i) => [m.name, m, i] as const))('caught: %s', async (_, mutation, index) => {
  expect(findDisagreement(await loadMutated(mutation, index))).toBeDefined();
});
