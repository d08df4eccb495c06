import type { Catalogue } from '../../src/core/catalogue/schema';
import { emptyEstate, type Estate, type System } from '../../src/core/estate/schema';
import type { PlanInput } from '../../src/core/plan/plan';
import type { Random } from './random';
import { TODAY, type World } from './worlds';

/** An estate of one to six systems of a random world's product, with rights held of some of its rights; with the table of hops whole, or as it is. */
export function estateOf(world: World, r: Random, table: 'whole' | 'as it is' = 'whole'): PlanInput {
  const releases = world.product.releases.map((x) => x.id);
  const systems = Array.from({ length: r.int(1, 6) }, (_, i): System => ({
    id: `s${i}`,
    name: `s${i}`,
    product: { is: 'world' },
    release: { is: r.chance(0.7) ? world.start.release : r.pick(releases.slice(0, 2)) },
    patch: { is: 'base' },
    edition: { is: world.start.edition },
    architecture: { is: world.start.architecture },
    ...(r.chance(0.3) ? { nodes: 2 } : {}),
    facts: {
      memory: { value: r.pick(['2 GB', '4 GB', '8 GB', '16 GB']) },
      'disk.free.system': { value: r.pick(['5 GB', '30 GB', '60 GB']) },
      'security-part': { value: r.pick(['on', 'off', 'absent']) },
      'setting.x': { value: r.pick(['on', 'off']) },
      model: { value: r.pick(['M1', 'M2', 'M3']) },
      ...(r.chance(0.15) ? { memory: { unknown: 'not asked' as const } } : {})
    },
    companions: [...(world.needs?.companions ?? [])],
    companionsWhole: true
  }));
  const { pairings: _pairings, ...product } = world.product;
  void _pairings;
  const catalogue: Catalogue = {
    format: 'orange-stair-catalogue',
    version: 3,
    name: 'w',
    products: [table === 'whole' ? { ...product, hopTable: 'complete' } : product]
  };
  const rightsHeld = (product.rights ?? [])
    .filter(() => r.chance(0.5))
    .map((x) => ({
      right: x.id,
      held: r.int(0, 4),
      ...(x.units && r.chance(0.7) ? { pool: x.units.pool, edition: world.start.edition } : {}),
      ...(r.chance(0.2) ? { until: '2031-03-20' } : {})
    }));
  const estate: Estate = {
    ...emptyEstate(),
    site: { name: '', countsExpected: world.countsExpected },
    systems,
    goals: [world.goal],
    rightsHeld
  };
  return { catalogue, estate, today: TODAY };
}
