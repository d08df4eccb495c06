/** One large catalogue: a budgeted route list against a graph library's shortest paths, one a criterion (DESIGN 6). */
import Graph from 'graphology';
import { dijkstra } from 'graphology-shortest-path';
import { modelOf, type ProductModel } from '../src/core/compile/model';
import { KEPT, type Hop, type Product, type Release } from '../src/core/catalogue/schema';
import { formatDay, parseDay } from '../src/core/date/day';
import { DEFAULT_GOAL } from '../src/core/estate/schema';
import { findChosen } from '../src/core/route/search/choose';
import { unbeatenOf } from '../src/core/route/search/label';
import { listOpenings } from '../src/core/route/move';
import { targetKey, type Place } from '../src/core/compile/place';
import { findRoutes } from '../src/core/route/search/search';
import { termsOf } from '../src/core/route/terms';
import { Random } from '../tests/support/random';

const TODAY = parseDay('2031-03-10') ?? 0;
const EDITIONS = ['e1', 'e2', 'e3', 'e4', 'e5'];
/** Expanded labels after which the list is what it is. */
const BUDGET = 3000;

/** So many releases, five editions, two architectures, hops up to five ahead, a fresh install to every fifth. */
function largeProduct(releases: number): Product {
  const r = new Random(11);
  const list = Array.from({ length: releases }, (_, i): Release => ({
    id: `v${i}`,
    published: formatDay(TODAY - 6000 + i * 29)
  }));
  const hops = list.flatMap((from, i): Hop[] =>
    list.slice(i + 1, i + 6).map((to, k) => ({
      id: `h${i}-${i + 1 + k}`,
      kind: 'in place',
      from: from.id,
      to: to.id,
      kept: r.pick(['everything', 'everything', 'settings and data'] as const),
      typicalMinutes: 30,
      carefulMinutes: 60 + 30 * k
    }))
  );
  const fresh = list.slice(1).flatMap((to, i): Hop[] =>
    i % 5 === 0
      ? [
          {
            id: `f${i}`,
            kind: 'fresh install',
            from: `before ${to.id}`,
            to: to.id,
            kept: 'data',
            typicalMinutes: 100,
            carefulMinutes: 300
          }
        ]
      : []
  );
  return {
    id: 'large',
    name: 'Large',
    publisher: 'Nobody',
    editions: EDITIONS.map((id, i) => ({ id, features: EDITIONS.slice(0, i + 1) })),
    architectures: [{ id: 'narrow' }, { id: 'wide' }],
    releases: list,
    hopTable: 'complete',
    hops: [...hops, ...fresh],
    editionChanges: EDITIONS.slice(1).map((to, i) => ({
      id: `c${i}`,
      at: 'any',
      from: EDITIONS[i] ?? '',
      to,
      typicalMinutes: 5,
      carefulMinutes: 10
    })),
    rights: [
      { id: 'free', kind: 'free', ways: ['in place'] },
      { id: 'buy', kind: 'purchase', priceCents: 5000 }
    ]
  };
}

/** The same as a graph of (release, edition, architecture), with a weight a criterion. */
function graphOf(model: ProductModel): Graph {
  const graph = new Graph({ type: 'directed', multi: true });
  const places = model.releases.flatMap((r) =>
    r.editions.flatMap((edition) =>
      r.architectures.map((architecture): Place => ({ release: r.index, patch: 0, edition, architecture }))
    )
  );
  for (const place of places) graph.addNode(targetKey(place));
  for (const place of places)
    for (const { to, hop, change } of listOpenings(model, place, false)) {
      const entry = hop?.hop ?? change?.change;
      graph.addEdge(targetKey(place), targetKey(to), {
        kept: hop ? KEPT.indexOf(hop.hop.kept) + 1e-6 : 1e-6,
        money: hop?.hop.kind === 'in place' ? 1e-6 : 5000,
        minutes: entry?.carefulMinutes ?? 1,
        hops: 1,
        risks: 1,
        finish: 1
      });
    }
  return graph;
}

const CRITERIA = ['kept', 'money', 'minutes', 'hops', 'risks', 'finish'] as const;

function time(work: () => unknown): number {
  let least = Infinity;
  for (let i = 0; i < 2; i++) {
    const start = performance.now();
    work();
    least = Math.min(least, performance.now() - start);
  }
  return least;
}

/** What the list and the library's paths take, and what came of the list. */
export function measureLarge(releases: number): {
  readonly ratio: number;
  readonly routes: number;
  readonly cut: boolean;
} {
  const model = modelOf(largeProduct(releases));
  const terms = termsOf(model, {
    goal: DEFAULT_GOAL,
    countsExpected: true,
    today: TODAY,
    nodes: 1,
    activated: 'no',
    held: new Set()
  });
  const start: Place = { release: 0, patch: 0, edition: 0, architecture: 1 };
  const target: Place = { release: releases - 1, patch: 0, edition: 2, architecture: 1 };
  const graph = graphOf(model);
  const paths = time(() =>
    CRITERIA.map((c) => dijkstra.bidirectional(graph, targetKey(start), targetKey(target), c))
  );
  let routes = 0;
  let cut = false;
  const list = time(() => {
    const found = findRoutes(terms, start, 'sure', { target, ...(releases > 25 ? { budget: BUDGET } : {}) });
    const { label } = findChosen(terms, { start, target }, 'sure');
    const labels = found.routes.get(targetKey(target)) ?? [];
    routes = unbeatenOf(label ? [...labels, label] : labels).length;
    cut = found.cut;
  });
  return { ratio: list / paths, routes, cut };
}
