/** Worlds of one product that grow in what searches are exponential in. */
import type { Catalogue, Hop, Product, Release, Requirement } from '../../src/core/catalogue/schema';
import { formatDay, parseDay } from '../../src/core/date/day';
import { DEFAULT_GOAL, type Estate, type System } from '../../src/core/estate/schema';
import { Random } from './random';

const TODAY = parseDay('2031-03-10') ?? 0;

export interface Given {
  readonly releases: number;
  /** Hops from each release so far ahead. */
  readonly ahead: number;
  readonly rights?: Product['rights'];
  readonly editions?: Product['editions'];
  readonly editionChanges?: Product['editionChanges'];
  readonly requirements?: Requirement[];
  readonly pairings?: Product['pairings'];
  readonly kept?: readonly Hop['kept'][];
}

export function productOf(id: string, given: Given, seed = given.releases * 31 + given.ahead): Product {
  const r = new Random(seed);
  const releases = Array.from({ length: given.releases }, (_, i): Release => ({
    id: `v${i}`,
    published: formatDay(TODAY - 6000 + i * 29)
  }));
  const hops = releases.flatMap((from, i): Hop[] =>
    releases.slice(i + 1, i + 1 + given.ahead).map((to, k) => ({
      id: `h${i}-${i + 1 + k}`,
      kind: 'in place',
      from: from.id,
      to: to.id,
      kept: r.pick(given.kept ?? ['everything', 'settings and data']),
      typicalMinutes: 30,
      carefulMinutes: r.int(20, 200)
    }))
  );
  const { requirements, editions, editionChanges, rights, pairings } = given;
  return {
    id,
    name: id,
    publisher: 'Nobody',
    releases,
    hopTable: 'complete',
    hops,
    ...(requirements ? { requirements } : {}),
    ...(editions ? { editions } : {}),
    ...(editionChanges ? { editionChanges } : {}),
    ...(pairings ? { pairings } : {}),
    ...(rights ? { rights } : {})
  };
}

export const FREE: Product['rights'] = [{ id: 'free', kind: 'free' }];
const COSTLY: Product['rights'] = [
  { id: 'free', kind: 'free', ways: ['in place'] },
  { id: 'buy', kind: 'purchase', priceCents: 5000 }
];

export const systemOf = (id: string, product: Product, more: Partial<System> = {}): System => ({
  id,
  name: id,
  product: { is: product.id },
  release: { is: 'v0' },
  patch: { is: 'base' },
  edition: { is: product.editions?.[0]?.id ?? 'only' },
  architecture: { is: 'only' },
  facts: {},
  ...more
});

export interface World {
  readonly catalogue: Catalogue;
  readonly estate: Estate;
  readonly today: number;
}

export function worldOf(
  products: readonly Product[],
  systems: readonly System[],
  facts: readonly string[] = []
): World {
  return {
    catalogue: {
      format: 'orange-stair-catalogue',
      version: 3,
      name: 'growth',
      currency: 'EUR',
      facts: facts.map((id) => ({ id, name: id, measure: 'count', keptBy: 'hardware', shelfLifeDays: 400 })),
      products: [...products]
    },
    estate: {
      site: { name: 'Growth', asOf: formatDay(TODAY), countsExpected: true },
      systems: [...systems],
      goals: [DEFAULT_GOAL],
      decisions: [],
      rightsHeld: []
    },
    today: TODAY
  };
}

/** So many requirements at every release, each with its own fact and cures; `alternatives` cures each. */
function demandsOf(count: number, alternatives: number): Requirement[] {
  return Array.from({ length: count }, (_, i) => ({
    id: `need${i}`,
    at: 'from v1',
    grade: 'blocks' as const,
    needs: Array.from({ length: alternatives }, (_, a) => `f${i}-${a} at least 4`).join(' or '),
    cures: Array.from({ length: alternatives }, (_, a) => ({
      id: `cure${i}-${a}`,
      kind: 'purchase' as const,
      how: 'Fit more.',
      fact: `f${i}-${a}`,
      raise: '8',
      costCents: 100 * ((i * 7 + a * 3) % 5) + 100,
      minutes: 10 * ((i * 3 + a * 5) % 7) + 5
    }))
  }));
}

const factsOf = (count: number, alternatives: number): string[] =>
  Array.from({ length: count }, (_, i) =>
    Array.from({ length: alternatives }, (_, a) => `f${i}-${a}`)
  ).flat();

const low = (ids: readonly string[]): System['facts'] =>
  Object.fromEntries(ids.map((id) => [id, { value: 1, day: '2031-03-01' }]));

/** A kind of world in its sizes; what is looked into is the first system. */
export interface Sweep {
  readonly name: string;
  readonly title: string;
  readonly sizes: readonly number[];
  readonly uncutUpTo: number;
  readonly world: (n: number) => World;
}

const RELEASES = [10, 14, 20, 25, 40, 60];
const SMALL = [2, 4, 6, 8, 10, 12];

const editions = ['e1', 'e2', 'e3'].map((id, i, all) => ({ id, features: all.slice(0, i + 1) }));
const editionChanges = ['e1', 'e2'].map((from, i) => ({
  id: `c${i}`,
  at: 'any',
  from,
  to: `e${i + 2}`,
  typicalMinutes: 5,
  carefulMinutes: 10
}));

const table = (more: Partial<Given>) => (n: number) => {
  const product = productOf('thing', { releases: n, ahead: n, ...more });
  return worldOf([product], [systemOf('one', product)]);
};

/** A fact of its own to cure at every release, asked for at places by the release and the target; that of the target cannot be cured far enough. */
const cured =
  (at: (release: string, target: string) => string) =>
  (n: number): World => {
    const ids = Array.from({ length: n }, (_, i) => `f${i}`);
    const requirements = ids.slice(1).map((f, i): Requirement => ({
      id: `need${i}`,
      at: at(`v${i + 1}`, `v${n - 1}`),
      grade: 'blocks',
      needs: `${f} at least ${i === n - 2 ? 99 : 4}`,
      cures: [
        {
          id: `cure${i}`,
          kind: 'purchase',
          how: 'Fit more.',
          fact: f,
          raise: '8',
          costCents: 100 + i,
          minutes: 5
        }
      ]
    }));
    const product = productOf('thing', { releases: n, ahead: n, rights: FREE, requirements });
    return worldOf([product], [systemOf('one', product, { facts: low(ids) })], ids);
  };

export const SWEEPS: readonly Sweep[] = [
  {
    name: 'table',
    title: 'complete tables of releases, no rights',
    sizes: RELEASES,
    uncutUpTo: 25,
    world: table({})
  },
  {
    name: 'free table',
    title: 'complete tables, free',
    sizes: RELEASES,
    uncutUpTo: 25,
    world: table({ rights: FREE })
  },
  {
    name: 'bought table',
    title: 'complete tables, three editions, to buy',
    sizes: RELEASES,
    uncutUpTo: 25,
    world: table({ rights: COSTLY, editions, editionChanges })
  },
  {
    name: 'own cures',
    title: 'cures a step, each of its own',
    sizes: SMALL,
    uncutUpTo: 12,
    world: (n) => {
      const product = productOf('thing', {
        releases: 4,
        ahead: 3,
        rights: FREE,
        requirements: demandsOf(n, 1)
      });
      const ids = factsOf(n, 1);
      return worldOf([product], [systemOf('one', product, { facts: low(ids) })], ids);
    }
  },
  {
    name: 'cures two ways',
    title: 'cures a step, two ways each, three editions',
    sizes: SMALL,
    uncutUpTo: 12,
    world: (n) => {
      const product = productOf('thing', {
        releases: 4,
        ahead: 3,
        rights: FREE,
        editions,
        editionChanges,
        requirements: demandsOf(n / 2, 2)
      });
      const ids = factsOf(n / 2, 2);
      return worldOf([product], [systemOf('one', product, { facts: low(ids) })], ids);
    }
  },
  {
    name: 'closed beside cures',
    title: 'cures a step, two ways each, closed for another reason',
    sizes: SMALL,
    uncutUpTo: 12,
    world: (n) => {
      const product = productOf('thing', {
        releases: 4,
        ahead: 3,
        rights: FREE,
        editions,
        editionChanges,
        requirements: [
          ...demandsOf(n / 2, 2),
          { id: 'never', at: 'v3', grade: 'blocks', needs: 'f0-0 at least 99' }
        ]
      });
      const ids = factsOf(n / 2, 2);
      return worldOf([product], [systemOf('one', product, { facts: low(ids) })], ids);
    }
  },
  {
    name: 'closed table',
    title: 'complete tables, free, closed at the target',
    sizes: RELEASES,
    uncutUpTo: 25,
    world: (n) => {
      const product = productOf('thing', {
        releases: n,
        ahead: n,
        rights: FREE,
        requirements: [{ id: 'never', at: `v${n - 1}`, grade: 'blocks', needs: 'f0 at least 99' }]
      });
      return worldOf([product], [systemOf('one', product, { facts: low(['f0']) })], ['f0']);
    }
  },
  {
    name: 'own cures table',
    title: 'complete tables, a fact of its own to cure at every release, closed at the target',
    sizes: RELEASES,
    uncutUpTo: 25,
    world: cured((release) => release)
  },
  {
    name: 'needed again',
    title: 'complete tables, what is cured early needed again at the target, which is closed',
    sizes: [4, 6, 8, ...RELEASES],
    uncutUpTo: 10,
    world: cured((release, target) => `${release}, ${target}`)
  },
  {
    name: 'all needed',
    title: 'facts nobody has read, all needed',
    sizes: SMALL,
    uncutUpTo: 8,
    world: (n) => {
      const ids = factsOf(n, 1);
      const requirements = ids.map((f, i): Requirement => ({
        id: `need${i}`,
        at: 'from v1',
        grade: 'blocks',
        needs: `${f} at least 4`
      }));
      const product = productOf('thing', { releases: 4, ahead: 3, rights: FREE, requirements });
      return worldOf([product], [systemOf('one', product)], ids);
    }
  },
  {
    name: 'on three ways',
    title: 'facts nobody has read, two to a demand, on three ways',
    sizes: SMALL,
    uncutUpTo: 8,
    world: (n) => {
      const ids = factsOf(n / 2, 2);
      const requirements = Array.from({ length: n / 2 }, (_, i): Requirement => ({
        id: `need${i}`,
        at: `v${1 + (i % 3)}`,
        grade: 'blocks',
        needs: `f${i}-0 at least 4 or f${i}-1 at least ${4 + i}`
      }));
      const product = productOf('thing', { releases: 4, ahead: 3, rights: FREE, requirements });
      return worldOf([product], [systemOf('one', product)], ids);
    }
  },
  {
    name: 'any will do',
    title: 'facts nobody has read, any of them will do',
    sizes: SMALL,
    uncutUpTo: 8,
    world: (n) => {
      const ids = factsOf(n, 1);
      const product = productOf('thing', {
        releases: 4,
        ahead: 3,
        rights: FREE,
        requirements: [
          { id: 'any', at: 'from v1', grade: 'blocks', needs: ids.map((f) => `${f} at least 4`).join(' or ') }
        ]
      });
      return worldOf([product], [systemOf('one', product)], ids);
    }
  },
  {
    name: 'links',
    title: 'systems that hang on each other, deep',
    sizes: [2, 3, 4, 5, 6],
    uncutUpTo: 4,
    world: (n) => {
      const products = Array.from({ length: n }, (_, i) =>
        productOf(`thing${i}`, {
          releases: 8,
          ahead: 3,
          rights: FREE,
          ...(i + 1 < n
            ? {
                pairings: [
                  {
                    id: `hang${i}`,
                    kind: 'managed by' as const,
                    other: `thing${i + 1}`,
                    table: 'complete' as const,
                    fits: Array.from({ length: 8 }, (_, k) => ({
                      own: `v${k}`,
                      other: `v${k} to v${Math.min(7, k + 1)}`
                    }))
                  }
                ]
              }
            : {})
        })
      );
      const systems = products.map((p, i) =>
        systemOf(`s${i}`, p, { links: i + 1 < n ? [{ kind: 'managed by', to: `s${i + 1}` }] : [] })
      );
      return worldOf(products, systems);
    }
  }
];
