/** `npm run bench:growth`: what each search takes as what it is exponential in grows; writes its part of docs/benchmarks.md. */
import type { Catalogue, Hop, Product, Release, Requirement } from '../src/core/catalogue/schema';
import { formatDay, parseDay } from '../src/core/date/day';
import { DEFAULT_GOAL, type Estate, type System } from '../src/core/estate/schema';
import { exploreSystem } from '../src/core/plan/explore';
import { plan } from '../src/core/plan/plan';
import { Planning } from '../src/core/plan/planning';
import { Random } from '../tests/support/random';
import { writePart } from './sections';

const TODAY = parseDay('2031-03-10') ?? 0;

interface Given {
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

function productOf(id: string, given: Given): Product {
  const r = new Random(given.releases * 31 + given.ahead);
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

const FREE: Product['rights'] = [{ id: 'free', kind: 'free' }];
const COSTLY: Product['rights'] = [
  { id: 'free', kind: 'free', ways: ['in place'] },
  { id: 'buy', kind: 'purchase', priceCents: 5000 }
];

const systemOf = (id: string, product: Product, more: Partial<System> = {}): System => ({
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

interface World {
  readonly catalogue: Catalogue;
  readonly estate: Estate;
  readonly today: number;
}

function worldOf(
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

interface Sweep {
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

const SWEEPS: readonly Sweep[] = [
  { title: 'complete tables of releases, no rights', sizes: RELEASES, uncutUpTo: 25, world: table({}) },
  { title: 'complete tables, free', sizes: RELEASES, uncutUpTo: 25, world: table({ rights: FREE }) },
  {
    title: 'complete tables, three editions, to buy',
    sizes: RELEASES,
    uncutUpTo: 25,
    world: table({ rights: COSTLY, editions, editionChanges })
  },
  {
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
    title: 'complete tables, a fact of its own to cure at every release, closed at the target',
    sizes: RELEASES,
    uncutUpTo: 25,
    world: (n) => {
      const ids = Array.from({ length: n }, (_, i) => `f${i}`);
      const requirements = ids.slice(1).map((f, i): Requirement => ({
        id: `need${i}`,
        at: `v${i + 1}`,
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
    }
  },
  {
    title: 'complete tables, what is cured early needed again at the target, which is closed',
    sizes: RELEASES,
    uncutUpTo: 10,
    world: (n) => {
      const ids = Array.from({ length: n }, (_, i) => `f${i}`);
      const requirements = ids.slice(1).map(
        (f, i): Requirement => ({
          id: `need${i}`,
          at: `v${i + 1}, v${n - 1}`,
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
        })
      );
      const product = productOf('thing', { releases: n, ahead: n, rights: FREE, requirements });
      return worldOf([product], [systemOf('one', product, { facts: low(ids) })], ids);
    }
  },
  {
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

const ms = (work: () => void): number => {
  const start = performance.now();
  work();
  return performance.now() - start;
};

const lines: string[] = [];
for (const sweep of SWEEPS.slice(Number(process.env['FROM'] ?? 0), Number(process.env['TO'] ?? 99))) {
  console.error(sweep.title);
  let slow = false;
  for (const n of sweep.sizes) {
    if (slow) continue;
    const world = sweep.world(n);
    let cut = '';
    const planMs = ms(() => {
      const made = plan({ ...structuredClone(world), every: 'target' } as Parameters<typeof plan>[0]);
      const [one] = made.cases;
      cut = `${one?.verdict} ${one?.cut ? 'plan cut' : ''}`;
    });
    const exploreMs = ms(() => {
      const planning = new Planning(structuredClone(world));
      const looked = exploreSystem(planning, planning.estate.systems[0]?.id ?? '')?.looked;
      cut += looked
        ? ` routes ${looked.routes.length}${looked.routesCut ? ' cut' : ''} openings ${looked.openings.openings.length}${looked.openings.cut ? ' cut' : ''} questions ${looked.questions.length}/${looked.matter.length}${looked.questionsCut ? ' cut' : ''}`
        : ' -';
    });
    slow = planMs + exploreMs > 60_000;
    console.error(n, Math.round(planMs), Math.round(exploreMs), cut);
  }
}
void lines;
void writePart;
