import type { Catalogue, Hop, Product, Release } from '../src/core/catalogue/schema';
import { formatDay, parseDay } from '../src/core/date/day';
import { DEFAULT_GOAL, type Estate, type Fact, type System } from '../src/core/estate/schema';
import { Random } from '../tests/support/random';

const TODAY = parseDay('2031-03-10') ?? 0;

export interface GeneratedWorld {
  readonly catalogue: Catalogue;
  readonly estate: Estate;
  readonly today: number;
}

/** A made-up estate of `systems` systems in about `cases` cases, over `products` products of 25 releases each. */
export function generateWorld(seed: number, systems: number, cases: number, products = 60): GeneratedWorld {
  const r = new Random(seed);
  const catalogue: Catalogue = {
    format: 'orange-stair-catalogue',
    version: 3,
    name: 'generated',
    currency: 'EUR',
    facts: Array.from({ length: 14 }, (_, i) => ({
      id: `fact-${i}`,
      name: `fact ${i}`,
      measure: 'count' as const,
      keptBy: 'hardware' as const,
      shelfLifeDays: 400
    })),
    products: Array.from({ length: products }, (_, i) => makeProduct(r, i))
  };
  const kinds = Array.from({ length: cases }, (_, i) =>
    makeKind(r, catalogue.products[i % products] as Product, i)
  );
  return {
    catalogue,
    estate: {
      site: { name: 'Generated', asOf: formatDay(TODAY), countsExpected: true },
      systems: Array.from({ length: systems }, (_, i) => makeSystem(r, kinds, i)),
      goals: [DEFAULT_GOAL],
      decisions: [],
      rightsHeld: []
    },
    today: TODAY
  };
}

function makeProduct(r: Random, index: number): Product {
  const releases = Array.from({ length: 25 }, (_, j): Release => {
    const day = TODAY - 3000 + j * 130 + r.int(-20, 20);
    return {
      id: `q${j + 1}`,
      published: formatDay(day),
      service: [
        { phase: 'full', until: formatDay(day + 700) },
        { phase: 'security', until: formatDay(day + 1300) }
      ],
      patches: [{ id: 's1', published: formatDay(day + 100), typicalMinutes: 15, carefulMinutes: 30 }]
    };
  });
  const hops = releases.flatMap((from, j): Hop[] =>
    releases.slice(j + 1, j + 1 + r.int(1, 3)).map((to, k) => ({
      id: `go-${j + 1}-${j + 2 + k}`,
      kind: 'in place',
      from: from.id,
      to: to.id,
      ...(r.chance(0.3) ? { levels: `from ${from.id}/s1` } : {}),
      kept: k > 1 ? 'settings and data' : 'everything',
      typicalMinutes: 40,
      carefulMinutes: r.pick([60, 90, 120])
    }))
  );
  hops.push({
    id: 'new',
    kind: 'fresh install',
    from: 'any',
    to: 'q24',
    kept: 'data',
    typicalMinutes: 120,
    carefulMinutes: 240
  });
  return {
    id: `thing-${index + 1}`,
    name: `Thing ${index + 1}`,
    publisher: 'Nobody',
    editions: [
      { id: 'low', features: ['a'] },
      { id: 'high', features: ['a', 'b'] }
    ],
    releases,
    hopTable: 'complete',
    requirements: [
      {
        id: 'room',
        at: 'from q12',
        grade: 'blocks',
        needs: 'fact-1 at least 4',
        cures: [
          {
            id: 'more-room',
            kind: 'purchase',
            how: 'Fit more.',
            fact: 'fact-1',
            raise: '8',
            costCents: 900,
            minutes: 20,
            leadDays: 3
          }
        ]
      },
      { id: 'speed', at: 'from q16', grade: 'degrades', needs: 'fact-2 at least 16' },
      { id: 'both', at: 'from q20', grade: 'warning', needs: 'fact-3 at least 1 or fact-4 at least 1' }
    ],
    cautions: [
      {
        id: 'noise',
        name: 'Noise',
        to: 'q18',
        consequence: 'cosmetic',
        workAround: { how: 'Wait.', typicalMinutes: 5, carefulMinutes: 10 }
      }
    ],
    hops,
    editionChanges: [
      { id: 'rise', at: 'from q10', from: 'low', to: 'high', typicalMinutes: 5, carefulMinutes: 10 }
    ],
    rights: [
      { id: 'free', kind: 'free', ways: ['in place'] },
      { id: 'buy', kind: 'purchase', priceCents: 5000 }
    ]
  };
}

type Kind = Pick<System, 'product' | 'release' | 'patch' | 'edition' | 'architecture' | 'team'> & {
  readonly known: Readonly<Record<string, number>>;
};

const makeKind = (r: Random, product: Product, index: number): Kind => ({
  product: { is: product.id },
  release: { is: r.pick(product.releases.slice(8, 23)).id },
  patch: { is: r.pick(['base', 's1']) },
  edition: { is: r.pick(['low', 'high']) },
  architecture: { is: 'only' },
  team: `Team ${index + 1}`,
  known: { 'fact-1': r.int(1, 16), 'fact-2': r.int(1, 64), 'fact-3': r.int(0, 2), 'fact-4': r.int(0, 2) }
});

function makeSystem(r: Random, kinds: readonly Kind[], index: number): System {
  const facts: Record<string, Fact> = {};
  const { known, ...kind } = kinds[index % kinds.length] as Kind;
  for (let f = 0; f < 14; f++)
    facts[`fact-${f}`] = { value: known[`fact-${f}`] ?? r.int(0, 64), day: '2031-02-20' };
  return { id: `m${index}`, name: `machine-${index}`, ...kind, facts };
}
