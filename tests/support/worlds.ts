import type { EditionChange, Hop, Product, Release, Right } from '../../src/core/catalogue/schema';
import { formatDay, parseDay, type Day } from '../../src/core/date/day';
import { DEFAULT_GOAL, type Goal } from '../../src/core/estate/schema';
import type { Standing } from '../../src/core/version/standing';
import type { Seen } from '../../src/core/condition/evidence';
import type { Truth } from '../../src/core/condition/truth';
import { needsOf, type WorldNeeds } from './needs';
import { Random } from './random';

/** One small made-up product with a goal and a start, for comparing the search with brute force. */
export interface World {
  readonly seed: number;
  readonly product: Product;
  readonly goal: Goal;
  readonly countsExpected: boolean;
  readonly today: Day;
  readonly nodes: number;
  readonly activated: Truth;
  readonly held: ReadonlySet<string>;
  readonly start: Standing;
  readonly needs?: WorldNeeds;
  /** What it is linked with, through others too; itself goes by `s`. */
  readonly net?: WorldNet;
  /** Which of the net this world is; `s` where it does not say. */
  readonly id?: string;
  /** The first day on which work may be done, where that is not today. */
  readonly from?: Day;
  /** Of the net: those whose ways are taken as holding, whatever they are. */
  readonly trusted?: ReadonlySet<string>;
  readonly barred?: ReadonlySet<string>;
  /** Clauses taken to hold; what unknown clauses and facts are taken for. */
  readonly lifted?: ReadonlySet<string>;
  readonly learned?: ReadonlyMap<string, Truth>;
  readonly facts?: ReadonlyMap<string, Seen>;
  /** When work may be done: windows on weekdays in UTC - none: any day -, and days on which nothing is touched. */
  readonly calendar?: WorldCalendar;
  readonly wayBackMinutes?: number;
}

export interface WorldCalendar {
  readonly windows?: readonly {
    id: string;
    hour: number;
    weekdays: readonly number[];
    minutes: number;
    crew?: number;
  }[];
  readonly freezes: readonly { first: Day; last: Day }[];
}

/** Systems of several products, each with at most one pairing, and what each is linked with by it. */
export interface WorldNet {
  readonly members: ReadonlyMap<string, WorldMember>;
  readonly links: ReadonlyMap<string, readonly string[] | 'unknown'>;
}

export interface WorldMember {
  readonly world: World;
  readonly start: Standing | undefined;
  readonly target: Omit<Standing, 'patch'> | undefined;
  readonly stays: boolean;
}

export const TODAY = parseDay('2031-03-10') as Day;
const EDITIONS = [
  { id: 'low', features: ['a'] },
  { id: 'mid', features: ['a', 'b'] },
  { id: 'top', features: ['a', 'b', 'c'] }
];

/** The world of a seed. Worlds are small (at most 5 releases) so that brute force can list every route. */
export function worldOf(seed: number): World {
  const r = new Random(seed * 7919 + 17);
  const releases = makeReleases(r);
  const editions = EDITIONS.slice(0, r.pick([1, 1, 1, 2, 2, 3]));
  const architectures = r.chance(0.25) ? [{ id: 'narrow' }, { id: 'wide' }] : [{ id: 'wide' }];
  const apart = r.chance(0.12);
  const product: Product = {
    id: 'world',
    name: 'World',
    publisher: 'Nobody',
    editions,
    architectures,
    ...(apart ? { branches: [{ id: 'side', apart: true }] } : {}),
    releases: releases.map((rel, i) => (apart && i % 2 === 1 ? { ...rel, branch: 'side' } : rel)),
    ...(r.chance(0.55) ? { hopTable: 'complete' as const } : {}),
    ...(r.chance(0.4)
      ? { noHops: [{ id: 'n', from: `up to ${r.pick(releases).id}`, to: r.pick(releases).id }] }
      : {}),
    hops: makeHops(
      r,
      releases,
      editions.map((e) => e.id),
      architectures.map((a) => a.id)
    ),
    editionChanges: makeChanges(
      r,
      releases,
      editions.map((e) => e.id)
    ),
    rights: makeRights(
      r,
      releases,
      editions.map((e) => e.id)
    )
  };
  const at = releases[r.pick([0, 0, 1])] as Release;
  const start = {
    release: at.id,
    patch: r.pick(['base', ...(at.patches ?? []).map((p) => p.id)]),
    edition: r.pick(editions).id,
    architecture: r.pick(architectures).id
  };
  const activated = r.pick(['yes', 'no', 'unknown'] as const);
  return {
    seed,
    product,
    goal: { ...makeGoal(r), ...mustKeepOf(seed), ...firstPatchOf(seed) },
    countsExpected: r.chance(0.6),
    today: TODAY,
    nodes: r.pick([1, 1, 1, 2]),
    activated,
    held: new Set(r.chance(0.3) ? ['agreed'] : []),
    start
  };
}

function near(r: Random, low: number, high: number): string {
  const day = formatDay(TODAY + r.int(low, high));
  if (r.chance(0.06)) return 'unknown';
  if (r.chance(0.08)) return `expected ${day}`;
  return r.chance(0.08) ? day.slice(0, 7) : day;
}

function makeReleases(r: Random): Release[] {
  const length = r.int(3, 5);
  return Array.from({ length }, (_, i) => {
    const future = i >= length - 2 && r.chance(0.35);
    let last = TODAY + r.int(-80, -20);
    const count = r.pick([0, 0, 1, 2]);
    const patches = Array.from({ length: count }, (_, j) => ({
      id: `p${j + 1}`,
      published: j === count - 1 && r.chance(0.1) ? 'unknown' : formatDay((last += r.int(0, 45))),
      ...(r.chance(0.2) ? { until: near(r, -5, 60) } : {}),
      typicalMinutes: 10,
      carefulMinutes: r.pick([20, 30, 900])
    }));
    const published = future ? near(r, 5, 80) : near(r, -900 + i * 150, -60);
    return {
      id: `v${i + 1}`,
      published: r.chance(0.12)
        ? { preview: published, ...(r.chance(0.5) ? { general: near(r, 20, 120) } : {}) }
        : published,
      ...(r.chance(0.75)
        ? {
            service: [
              { phase: 'full' as const, until: near(r, -60, 900) },
              {
                phase: 'security' as const,
                until: r.chance(0.35) ? near(r, -90, 20) : near(r, -40 + i * 40, 100 + i * 300)
              }
            ]
          }
        : {}),
      ...(patches.length > 0 ? { patches } : {})
    };
  });
}

function makeHops(
  r: Random,
  releases: readonly Release[],
  editions: readonly string[],
  architectures: readonly string[]
): Hop[] {
  const hops: Hop[] = [];
  releases.forEach((to, j) => {
    for (let n = r.int(j === 0 ? 0 : 1, 3); n > 0; n--) {
      const fresh = r.chance(0.33);
      const from =
        j === 0
          ? to
          : (releases[r.int(fresh ? 0 : Math.max(0, j - 2), fresh && r.chance(0.15) ? j : j - 1)] as Release);
      if (!fresh && from === to) continue;
      if (j > 0 && r.chance(0.08))
        hops.push(makeHop(r, { id: `b${hops.length}`, from: to, to: from, fresh }, editions, architectures));
      hops.push(makeHop(r, { id: `h${hops.length}`, from, to, fresh }, editions, architectures));
    }
  });
  return r.shuffle(hops);
}

function makeHop(
  r: Random,
  at: { id: string; from: Release; to: Release; fresh: boolean },
  editions: readonly string[],
  architectures: readonly string[]
): Hop {
  const { from, to, fresh } = at;
  const picky = fresh ? 0.3 : 1;
  const table = Object.fromEntries(
    editions.filter(() => r.chance(0.9)).map((e) => [e, r.chance(0.7) ? e : r.some(editions, 0.75)])
  );
  const patches = (from.patches ?? []).map((p) => p.id);
  const lastPatch = (to.patches ?? []).at(-1)?.id;
  const closes = r.chance(0.2 * picky) ? { closes: near(r, 0, 60) } : {};
  return {
    id: at.id,
    kind: fresh ? 'fresh install' : 'in place',
    from: r.chance(0.25) ? `${from.id} to before ${to.id}` : from.id,
    to: to.id,
    ...(lastPatch && r.chance(0.2) ? { arrives: lastPatch } : {}),
    ...(r.chance(0.35 * picky)
      ? { editions: table, ...(r.chance(0.25) ? { editionsPartial: true } : {}) }
      : {}),
    ...(fresh && architectures.length > 1 && r.chance(0.4)
      ? { architectures: { narrow: r.some(architectures, 0.7), wide: ['wide'] } }
      : {}),
    ...(patches.length > 0 && r.chance(0.4 * picky)
      ? { levels: r.chance(0.15) ? 'unknown' : `from ${from.id}/${r.pick(patches)}` }
      : {}),
    ...(r.chance(0.2 * picky) ? { everyPatch: true } : {}),
    ...(patches.length > 0 && r.chance(0.2 * picky)
      ? { containedBy: r.chance(0.5) ? ('day' as const) : { [`${from.id}/${r.pick(patches)}`]: to.id } }
      : {}),
    ...(r.chance(0.2 * picky) ? { opens: near(r, -10, 70) } : {}),
    ...closes,
    ...(r.chance(0.1) ? { unsupported: true } : {}),
    kept: fresh
      ? r.pick(['data', 'nothing', 'settings and data'] as const)
      : r.pick(['everything', 'everything', 'settings and data', 'data'] as const),
    typicalMinutes: 30,
    carefulMinutes: r.pick([60, 60, 90, 700, 1500, 3000])
  };
}

function makeChanges(r: Random, releases: readonly Release[], editions: readonly string[]): EditionChange[] {
  const changes: EditionChange[] = [];
  for (let i = 0; i < editions.length; i++)
    for (let j = 0; j < editions.length; j++)
      if (i !== j && r.chance(j > i ? 0.75 : 0.15))
        changes.push({
          id: `c${i}${j}`,
          at: r.chance(0.5) ? 'any' : `from ${r.pick(releases).id}`,
          from: editions[i] as string,
          to: editions[j] as string,
          typicalMinutes: 5,
          carefulMinutes: 10,
          ...(r.chance(0.15) ? { closes: near(r, 0, 60) } : {})
        });
  return changes;
}

function makeRights(r: Random, releases: readonly Release[], editions: readonly string[]): Right[] {
  const rights: Right[] = [];
  const some = (): Partial<Right> => ({
    ...(r.chance(0.3) ? { to: `from ${r.pick(releases).id}` } : {}),
    ...(r.chance(0.2) ? { fromEditions: r.some(editions, 0.7) } : {}),
    ...(r.chance(0.2) ? { ways: [r.pick(['in place', 'fresh install', 'edition change'] as const)] } : {}),
    ...(r.aside().chance(0.1) ? { hops: ['h0', 'h2', 'h4'] } : {})
  });
  const dated = (): Partial<Right> =>
    r.chance(0.5)
      ? { until: near(r, -20, 60), ...(r.chance(0.3) ? { counts: 'release day' as const } : {}) }
      : {};
  if (r.chance(0.5)) rights.push({ id: 'free', kind: 'free', ...some(), ...dated() });
  if (r.chance(0.6)) rights.push({ id: 'buy', kind: 'purchase', priceCents: 10_000, ...some() });
  for (const release of r.some(releases, 0.4))
    rights.push({
      id: `buy-${release.id}`,
      kind: 'purchase',
      priceCents: r.int(1, 9) * 3_000,
      to: release.id,
      ...(r.chance(0.4) ? { ways: ['in place'] as const } : {})
    } as Right);
  if (r.chance(0.3)) rights.push({ id: 'offer', kind: 'purchase', priceCents: 4_000, ...some(), ...dated() });
  if (r.chance(0.3)) rights.push({ id: 'carry', kind: 'carried', ...some(), ...dated() });
  if (r.chance(0.15))
    rights.push({ id: 'agreed', kind: r.pick(['agreement', 'not for sale'] as const), ...some() });
  if (r.chance(0.1)) rights.push({ id: 'asked', kind: 'ask', ...some() });
  return r.shuffle(rights);
}

const makeGoal = (r: Random): Goal => ({
  ...DEFAULT_GOAL,
  maturities: r.chance(0.25) ? ['general', 'preview'] : ['general'],
  settlingDays: r.pick([0, 14, 28]),
  passDays: r.pick([0, 5, 20, 30]),
  phase: r.pick(['full', 'security'] as const),
  ...(r.chance(0.15) ? { monthsLeft: r.pick([3, 12]) } : {}),
  allow: {
    fresh: r.chance(0.9),
    unsupported: r.chance(0.6),
    spending: r.chance(0.8),
    restingOutOfService: r.chance(0.35)
  }
});

/** Drawn apart, so that the worlds stay what they were. */
function mustKeepOf(seed: number): Pick<Goal, 'mustKeep'> {
  const r = new Random(seed * 31 + 5);
  return r.chance(0.07) ? { mustKeep: r.pick(['everything', 'settings and data', 'data'] as const) } : {};
}

/** One goal in eight waits for the first patch level, drawn apart. */
function firstPatchOf(seed: number): Pick<Goal, 'afterFirstPatch'> {
  return new Random(seed * 43 + 11).chance(0.12) ? { afterFirstPatch: true } : {};
}

/** The world of a seed with all that is asked on the way: requirements, cures, companions, cautions, offers, a pairing. */
export function fullWorldOf(seed: number): World {
  const base = worldOf(seed);
  const needs = needsOf(seed, base.product, TODAY);
  const product: Product = {
    ...base.product,
    ...needs.product,
    releases: base.product.releases.map((x) => disputedRelease(seed, x)),
    hops: (base.product.hops ?? []).map((h) => disputedHop(seed, { ...h, ...needs.hops.get(h.id) })),
    rights: [
      ...(base.product.rights ?? []).map((x) => ({ ...x, ...rightExtrasOf(seed, x, base.product) })),
      ...moreRightsOf(seed)
    ]
  };
  const held = new Set([...base.held, ...(seed % 3 > 0 ? ['pact'] : [])]);
  const goal = { ...easierOf(seed, base.goal), ...limitOf(seed) };
  return withLink({ ...base, product, needs, held, goal }, seed);
}

/** A hop in eight is stated in two ways, drawn apart. */
function disputedHop(seed: number, hop: Hop): Hop {
  const r = new Random(
    seed * 1531 + hop.id.length * 7 + (hop.carefulMinutes % 97) + Number(hop.id.slice(1)) * 13
  );
  if (!r.chance(0.12)) return hop;
  return {
    ...hop,
    also: [
      {
        ...(r.chance(0.5) ? { closes: near(r, 0, 60) } : {}),
        ...(r.chance(0.4) ? { opens: near(r, -10, 40) } : {}),
        ...(r.chance(0.3) ? { kept: r.pick(['data', 'everything'] as const) } : {}),
        ...(r.chance(0.3) ? { carefulMinutes: r.pick([40, 1600]) } : {}),
        source: 'x'
      }
    ]
  };
}

/** Ends of service and publications stated in two ways. */
function disputedRelease(seed: number, release: Release): Release {
  const r = new Random(seed * 773 + release.id.charCodeAt(1) * 31);
  const service = release.service?.map((p) =>
    r.chance(0.12) ? { ...p, also: [{ until: near(r, -60, 400), source: 'x' }] } : p
  );
  return {
    ...release,
    ...(service ? { service } : {}),
    ...(typeof release.published === 'string' && r.chance(0.06)
      ? { also: [{ published: near(r, -300, 60), source: 'x' }] }
      : {})
  };
}

/** With all that is asked, most would be closed: three goals of four allow more. */
const easierOf = (seed: number, goal: Goal): Goal =>
  seed % 4 === 0
    ? goal
    : {
        ...goal,
        passDays: Math.max(goal.passDays, 20),
        allow: {
          fresh: true,
          unsupported: true,
          spending: goal.allow.spending || seed % 2 === 0,
          restingOutOfService: true
        }
      };

/** One goal in sixteen lets a system cost so much at most. */
const limitOf = (seed: number): Partial<Goal> =>
  seed % 16 === 6 ? { spendingCents: new Random(seed * 71).pick([2_000, 6_000, 15_000]) } : {};

/** Agreements and carried rights are rare in worlds otherwise. */
function moreRightsOf(seed: number): Right[] {
  const r = new Random(seed * 389 + 3);
  return [
    ...(r.chance(0.18)
      ? [
          {
            id: 'pact',
            kind: 'agreement' as const,
            ...(r.chance(0.4) ? { ways: ['in place' as const] } : {})
          }
        ]
      : []),
    ...(r.chance(0.2) ? [{ id: 'bring', kind: 'carried' as const, ways: ['in place' as const] }] : [])
  ];
}

/** Offer prices, units and maps of editions, drawn apart. */
function rightExtrasOf(seed: number, right: Right, product: Product): Partial<Right> {
  const r = new Random(seed * 271 + right.id.length * 17 + (right.priceCents ?? 0));
  const editions = (product.editions ?? []).map((e) => e.id);
  const ordered =
    seed % 3 === 2 && right.until && !right.counts && r.aside().chance(0.5)
      ? { counts: 'order day' as const }
      : {};
  if (right.kind === 'carried' && r.chance(0.4))
    return { ...ordered, mapsEditions: Object.fromEntries(editions.map((e) => [e, r.pick(editions)])) };
  if (right.kind !== 'purchase') return ordered;
  return {
    ...ordered,
    ...(r.chance(0.25) ? { offer: { priceCents: 1500, until: near(r, -10, 60) } } : {}),
    ...(r.aside().chance(0.2) ? { counts: 'order day' as const } : {}),
    ...leadOfRight(seed, right),
    ...(r.chance(0.2) ? { units: { each: 'system' as const, number: r.int(1, 3), pool: 'seats' } } : {})
  };
}

/** Half the purchases of one world in four take days to come, drawn apart. */
function leadOfRight(seed: number, { id }: Right): Partial<Right> {
  const r = new Random(seed * 613 + id.length * 29 + id.charCodeAt(id.length - 1));
  return seed % 4 === 1 && r.chance(0.5) ? { leadDays: r.pick([3, 15, 45]) } : {};
}

const pairingOver = (
  r: Random,
  own: Product,
  other: Product,
  kind: 'managed by' | 'content of'
): Pairing => ({
  id: 'pair',
  kind,
  other: other.id,
  ...(r.chance(0.5) ? { table: 'complete' as const } : {}),
  fits: own.releases.flatMap((release) =>
    r.chance(0.9)
      ? [
          {
            own: release.id,
            other: r.pick([
              'any',
              `from ${r.pick(other.releases.slice(1)).id}`,
              `from ${r.pick(other.releases).id}`
            ])
          }
        ]
      : []
  )
});
type Pairing = NonNullable<Product['pairings']>[number];

/**
 * Four worlds of ten hang on something: a manager, perhaps with a manager of its own, or one that hangs on them in turn;
 * a peer of their own product; or one that nobody has told of.
 */
function withLink(world: World, seed: number): World {
  const r = new Random(seed * 911 + 7);
  if (!r.chance(0.4)) return world;
  const isPeer = r.chance(0.3);
  const above: World = isPeer
    ? world
    : { ...worldOf(100_000 + seed), countsExpected: world.countsExpected, today: world.today };
  const otherProduct: Product = isPeer ? world.product : { ...above.product, id: 'manager' };
  const pairing: Pairing = isPeer
    ? { id: 'pair', kind: 'peer of', other: 'world', apart: r.int(0, 2) }
    : pairingOver(r, world.product, otherProduct, 'managed by');
  const product: Product = { ...world.product, pairings: [pairing] };
  const main: World = { ...world, product };
  if (r.chance(0.08)) return { ...main, net: { members: new Map(), links: new Map([['s', 'unknown']]) } };
  const shape = isPeer ? 'peer' : r.pick(['one', 'chain', 'chain', 'round'] as const);
  const members = new Map<string, WorldMember>();
  const links = new Map<string, readonly string[] | 'unknown'>([['s', ['o']]]);
  const memberOf = (one: World, id: string): WorldMember => {
    const at = r.pick([0, 0, 1]);
    const start: Standing = { ...one.start, release: one.product.releases[at]?.id ?? '', patch: 'base' };
    const { edition, architecture } = start;
    const target = { release: r.pick(one.product.releases).id, edition, architecture };
    return {
      world: { ...one, id, start },
      start: r.chance(0.06) ? undefined : start,
      target: r.chance(0.15) ? undefined : target,
      stays: r.chance(0.12)
    };
  };
  if (shape === 'peer') {
    members.set('o', memberOf(main, 'o'));
    links.set('o', ['s']);
  } else if (shape === 'round') {
    const back = pairingOver(r, otherProduct, product, 'content of');
    members.set('o', memberOf({ ...above, product: { ...otherProduct, pairings: [back] } }, 'o'));
    links.set('o', ['s']);
  } else if (shape === 'chain') {
    const top = { ...worldOf(200_000 + seed), countsExpected: world.countsExpected, today: world.today };
    const topProduct = { ...top.product, id: 'top' };
    const further = pairingOver(r, otherProduct, topProduct, 'managed by');
    members.set('o', memberOf({ ...above, product: { ...otherProduct, pairings: [further] } }, 'o'));
    members.set('t', memberOf({ ...top, product: topProduct }, 't'));
    links.set('o', ['t']);
  } else members.set('o', memberOf({ ...above, product: otherProduct }, 'o'));
  const { edition, architecture } = main.start;
  const target = { release: r.pick(product.releases).id, edition, architecture };
  members.set('s', {
    world: main,
    start: main.start,
    target: r.chance(0.2) ? undefined : target,
    stays: false
  });
  return { ...main, net: { members, links } };
}

/** The day windows of a world begin to recur on: a Monday, half a year before. */
export const WINDOWS_FROM = TODAY - 182;

/** The world of a seed with a calendar: nights of the week, one night a week, freezes, or freezes alone; and ways back. */
export function calendarWorldOf(seed: number): World {
  const world = fullWorldOf(seed);
  const r = new Random(seed * 1979 + 11);
  const kind = seed % 5;
  const night = (id: string, weekdays: readonly number[], hour: number) => ({
    id,
    hour,
    weekdays,
    minutes: r.pick([240, 420, 540, 900, 1800, 4200])
  });
  const windows =
    kind === 0
      ? undefined
      : kind === 1
        ? [night('w', [r.int(0, 6)], 22)]
        : kind === 2
          ? [night('w', [0, 1, 2, 3], 21)].map((w) => ({ ...w, minutes: Math.min(w.minutes, 900) }))
          : [
              { ...night('w', [1], 20), minutes: r.pick([420, 700]) },
              { ...night('x', [5], 8), minutes: r.pick([600, 900, 1500]) }
            ];
  const freezes =
    kind === 0 || kind === 2 || kind === 4
      ? Array.from({ length: r.int(1, 2) }, () => {
          const first = TODAY + r.int(-3, 90);
          return { first, last: first + r.int(0, 30) };
        })
      : [];
  const hops = (world.product.hops ?? []).map((h) =>
    r.chance(0.4)
      ? {
          ...h,
          doing: {
            ...h.doing,
            wayBack: r.chance(0.3)
              ? { until: 'never' as const }
              : { until: { days: 9 }, minutes: r.pick([10, 90]) }
          }
        }
      : h
  );
  const watched = new Random(seed * 2287 + 5);
  const watchDays = watched.chance(0.35) ? { watchDays: watched.pick([1, 2, 9]) } : {};
  const nodes = watched.chance(0.45) ? watched.int(2, 3) : world.nodes;
  // Short nights, in which a node has room and the whole has not.
  const isShort = nodes > 1 && watched.chance(0.8);
  const nights = windows?.map((w) => (isShort ? { ...w, minutes: watched.pick([150, 240, 360]) } : w));
  const made: World = {
    ...world,
    goal: { ...world.goal, ...watchDays },
    nodes,
    product: {
      ...world.product,
      hops: hops.map((h) => (watched.chance(0.6) ? { ...h, nodeByNode: true } : h))
    },
    calendar: { ...(nights ? { windows: nights } : {}), freezes },
    ...(r.chance(0.4) ? { wayBackMinutes: r.pick([0, 30, 120]) } : {})
  };
  const { net } = made;
  const own = net?.members.get('s');
  if (!net || !own) return made;
  // Where others hang on it in turn, it is the same there.
  const { net: _net, ...alone } = made;
  void _net;
  return { ...made, net: { ...net, members: new Map([...net.members, ['s', { ...own, world: alone }]]) } };
}
