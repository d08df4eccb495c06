import { expect, test } from 'vitest';
import { parseCatalogue } from '../../src/core/exchange/catalogue-file';
import { DEFAULT_GOAL, emptyEstate, type System } from '../../src/core/estate/schema';
import { exploreSystem } from '../../src/core/explore';
import { Planning } from '../../src/core/planning';
import { TODAY } from '../support/worlds';

const idOf = (i: number): string => `r${i}`;

/** One product made from what machines say: a hop from each release to every later one, and no right at all. */
function planningOf(releases: number): Planning {
  const hops = Array.from({ length: releases }, (_, i) =>
    Array.from({ length: releases - i - 1 }, (_x, k) => ({
      id: `h${i}-${i + k + 1}`,
      kind: 'in place',
      from: idOf(i),
      to: idOf(i + k + 1),
      kept: 'everything',
      typicalMinutes: 10,
      carefulMinutes: 20
    }))
  ).flat();
  const catalogue = parseCatalogue(
    JSON.stringify({
      format: 'orange-stair-catalogue',
      version: 3,
      name: 'made from machines',
      products: [
        {
          id: 'x',
          name: 'X',
          publisher: 'X',
          hopTable: 'partial',
          releases: Array.from({ length: releases }, (_, i) => ({ id: idOf(i), published: '2028-01-01' })),
          hops
        }
      ]
    })
  );
  if (!catalogue.ok) throw new Error(JSON.stringify(catalogue.issues));
  const system: System = {
    id: 's',
    name: 's',
    product: { is: 'x' },
    release: { is: idOf(0) },
    patch: { is: 'base' },
    edition: { is: 'only' },
    architecture: { is: 'only' }
  };
  const estate = { ...emptyEstate(), systems: [system], goals: [DEFAULT_GOAL] };
  return new Planning({ catalogue: catalogue.value, estate, today: TODAY });
}

// Before sums of the same ignorance were compared this took over a minute, and four times as long a release more.
test('many releases and no rights: every target in no time, and not a multiple of it a release more', () => {
  const took = [12, 14, 18].map((releases) => {
    const start = performance.now();
    const explored = exploreSystem(planningOf(releases), 's');
    const last = explored?.plan.targets.find((t) => t.target.release === idOf(releases - 1));
    expect(last).toMatchObject({ verdict: 'straight', route: { hops: 1 } });
    expect(
      explored?.plan.targets.every((t) => t.verdict === (t.target.release === 'r0' ? 'here' : 'straight'))
    ).toBe(true);
    expect(explored?.plan.cut).toBe(false);
    return performance.now() - start;
  }) as [number, number, number];
  // Fourfold a release would be 4096 times from 12 to 18.
  expect(took[2]).toBeLessThan(40 * Math.max(took[0], 20));
});
