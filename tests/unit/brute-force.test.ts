import { expect, test } from 'vitest';
import { verifyRoute } from '../../src/core/route/verify-route';
import { BruteForce, type BruteRoute } from '../support/brute-force';
import { lineOf, solveBySearch, verifierOf } from '../support/solve';
import { worldOf } from '../support/worlds';

const WORLDS = Number(process.env['WORLDS'] ?? 300);
const LEAST_SHARE = 0.05;

function bruteLine({ steps, judged }: BruteRoute): string {
  return steps
    .flatMap((s, i) => {
      const d = judged.days[i];
      const hop = `${s.id} ${s.to.release}/${s.to.patch} ${s.to.edition} ${s.to.architecture} ${judged.rights[i]?.id ?? ''} ${d?.first}-${d?.last}${d?.exact ? '' : '?'}`;
      return d?.patch ? [`patch ${s.level} ${d.patch.first}`, hop] : [hop];
    })
    .join('; ');
}

test(`brute force agrees on every verdict and chosen route of ${WORLDS} random worlds, and the verifier with every route`, () => {
  const shares = new Map<string, number>();
  const count = (name: string): void => void shares.set(name, (shares.get(name) ?? 0) + 1);
  let targets = 0;
  let routes = 0;
  for (let seed = 1, done = 0; done < WORLDS; seed++) {
    const world = worldOf(seed);
    const twin = new BruteForce(world).solve();
    if (!twin) continue;
    done++;
    const solved = solveBySearch(world);
    expect(solved.cut).toBe(false);
    for (const [key, brute] of twin) {
      if (brute.sure === 'here' || compareOlder(key, world.start.release, world)) continue;
      const found = solved.targets.get(key);
      targets++;
      count(brute.sure);
      if (brute.best !== brute.sure) count('best is better');
      const at = `world ${seed}, ${key}`;
      expect({ at, sure: found?.sure, best: found?.best, plain: found?.bestWithoutCells }).toEqual({
        at,
        sure: brute.sure,
        best: brute.best,
        plain: brute.bestWithoutCells
      });
      expect(`${at}: ${found?.chosen ? lineOf(found.chosen) : 'none'}`).toBe(
        `${at}: ${brute.chosen ? bruteLine(brute.chosen) : 'none'}`
      );
      for (const route of found?.all ?? []) {
        const [release = '', edition = '', architecture = ''] = key.split(' ');
        expect({
          at,
          faults: verifyRoute(verifierOf(world), world.start, { release, edition, architecture }, route)
        }).toEqual({ at, faults: [] });
        routes++;
        for (const kind of new Set(route.steps.map((s) => s.kind))) count(`step ${kind}`);
      }
    }
  }
  const of = (name: string): number => (shares.get(name) ?? 0) / (name.startsWith('step') ? routes : targets);
  const names = [
    'straight',
    'by hops',
    'fresh only',
    'not yet',
    'closed',
    'best is better',
    'step in place',
    'step fresh install',
    'step edition change',
    'step patch'
  ];
  console.log(
    `${WORLDS} worlds, ${targets} targets, ${routes} routes: ${names.map((n) => `${n} ${(of(n) * 100).toFixed(1)} %`).join(', ')}`
  );
  for (const name of names) expect(of(name), name).toBeGreaterThanOrEqual(LEAST_SHARE);
}, 600_000);

/** Older targets are closed by rule, not by search. */
function compareOlder(key: string, start: string, world: ReturnType<typeof worldOf>): boolean {
  const strand = (id: string): string | undefined => world.product.releases.find((r) => r.id === id)?.branch;
  const place = (id: string): number => world.product.releases.findIndex((r) => r.id === id);
  const release = key.split(' ')[0] ?? '';
  return strand(release) === strand(start) && place(release) < place(start);
}
