import { describe, expect, test } from 'vitest';
import type { Catalogue, Product } from '../../src/core/catalogue/schema';
import { parseDay } from '../../src/core/date/day';
import { DEFAULT_GOAL, emptyEstate, type System, type Target } from '../../src/core/estate/schema';
import { HeldEstate, recordsOfEstate, writesBetween } from '../../src/core/estate/records';
import { readInstalled } from '../../src/core/estate/read-installed';
import { readingKey } from '../../src/core/estate/situation';
import { plan, planStepwise, planWith, type PlanInput } from '../../src/core/plan/plan';
import { PlanCache } from '../../src/core/plan/plan-cache';
import { Planning } from '../../src/core/plan/planning';
import { isCounted, type Route } from '../../src/core/route/types';
import type { CasePlan, Plan } from '../../src/core/plan/plan-types';
import { rankVerdict } from '../../src/core/route/search/verdict';
import { readPlan, tellPlan } from '../../src/lib/workers/told-plan';
import { demoInput, lawInput } from '../support/demo';
import { BruteForce } from '../support/brute-force';
import { oftenerThan, seedsOf } from '../support/laws';
import { Random } from '../support/random';
import { generateWorld } from '../../bench/generate';
import { estateOf } from '../support/world-estates';
import { fullWorldOf, worldOf } from '../support/worlds';

function shuffled({ catalogue, estate, today }: PlanInput, r: Random): PlanInput {
  const products = r.shuffle(catalogue.products).map((p) => ({
    ...p,
    hops: r.shuffle(p.hops ?? []),
    rights: r.shuffle(p.rights ?? []),
    editionChanges: r.shuffle(p.editionChanges ?? []),
    requirements: r.shuffle(p.requirements ?? []).map((q) => ({ ...q, cures: r.shuffle(q.cures ?? []) })),
    cautions: r.shuffle(p.cautions ?? []),
    companions: r.shuffle(p.companions ?? []),
    pairings: r.shuffle(p.pairings ?? [])
  }));
  return {
    catalogue: { ...catalogue, products },
    estate: {
      ...estate,
      systems: r.shuffle(estate.systems),
      goals: r.shuffle(estate.goals),
      decisions: r.shuffle(estate.decisions)
    },
    today
  };
}

test('the order of the input changes nothing', () => {
  const input = lawInput();
  for (const seed of seedsOf(20)) expect(plan(shuffled(input, new Random(seed)))).toEqual(plan(input));
});

test('an unrelated product changes nothing', () => {
  const input = lawInput();
  const more: Product = {
    id: 'aside',
    name: 'Aside',
    publisher: 'Nobody',
    releases: [{ id: '1', published: '2030' }]
  };
  expect(
    plan({ ...input, catalogue: { ...input.catalogue, products: [more, ...input.catalogue.products] } })
  ).toEqual(plan(input));
});

/** Gives every release and patch level another id, and says which. */
function renamed(catalogue: Catalogue, r: Random): { catalogue: Catalogue; back: Map<string, string> } {
  const back = new Map<string, string>();
  const fresh = (old: string): string => {
    const id = `z${r.int(0, 1e9).toString(36)}.${r.int(0, 99)}`;
    back.set(id, old);
    return id;
  };
  const idsOf = new Map(
    catalogue.products.map((p) => {
      const ids = new Map<string, string>();
      for (const release of p.releases) {
        ids.set(release.id, fresh(release.id));
        for (const patch of release.patches ?? []) ids.set(`${release.id}/${patch.id}`, fresh(patch.id));
      }
      return [p.id, ids] as const;
    })
  );
  const wordsIn = (product: string, range: string): string => {
    const ids = idsOf.get(product) ?? new Map<string, string>();
    return range
      .split(' ')
      .map((w) =>
        ids.has(w.replace(',', '')) ? placeIn(ids, w.replace(',', '')) + (w.endsWith(',') ? ',' : '') : w
      )
      .join(' ');
  };
  const placeIn = (ids: ReadonlyMap<string, string>, text: string): string => {
    const [release = '', patch] = text.split('/');
    return patch === undefined
      ? (ids.get(release) ?? release)
      : `${ids.get(release)}/${patch === 'base' ? patch : ids.get(text)}`;
  };
  const products = catalogue.products.map((p) => {
    const ids = idsOf.get(p.id) ?? new Map<string, string>();
    const place = (text: string): string => placeIn(ids, text);
    const words = (range: string): string => wordsIn(p.id, range);
    const inside = (condition: string): string =>
      condition.replace(/ in \(([^)]*)\)/g, (_, range: string) => ` in (${words(range)})`);
    const optional = (range: string | undefined) => (range === undefined ? undefined : words(range));
    return {
      ...p,
      releases: p.releases.map((x) => ({
        ...x,
        id: place(x.id),
        name: undefined,
        aliases: undefined,
        patches: x.patches?.map((y) => ({
          ...y,
          id: ids.get(`${x.id}/${y.id}`) ?? '',
          name: undefined,
          aliases: undefined
        }))
      })),
      hops: p.hops?.map((h) => ({
        ...h,
        from: words(h.from),
        to: place(h.to),
        levels: optional(h.levels),
        arrives: h.arrives === undefined ? undefined : ids.get(`${h.to}/${h.arrives}`),
        containedBy:
          typeof h.containedBy === 'object'
            ? Object.fromEntries(Object.entries(h.containedBy).map(([k, v]) => [place(k), place(v)]))
            : h.containedBy
      })),
      editionChanges: p.editionChanges?.map((c) => ({ ...c, at: words(c.at) })),
      rights: p.rights?.map((x) => ({ ...x, from: optional(x.from), to: optional(x.to) })),
      requirements: p.requirements?.map((x) => ({ ...x, at: words(x.at), needs: inside(x.needs) })),
      tracks: p.tracks?.map((x) => ({ ...x, releases: words(x.releases) })),
      cautions: p.cautions?.map((x) => ({ ...x, from: optional(x.from), to: words(x.to) })),
      companions: p.companions?.map((x) => ({
        ...x,
        fares: x.fares.map((f) => ({ ...f, at: words(f.at) }))
      })),
      pairings: p.pairings?.map((x) => ({
        ...x,
        fits: x.fits?.map((f) => ({ ...f, own: words(f.own), other: wordsIn(x.other, f.other) }))
      }))
    };
  });
  return { catalogue: { ...catalogue, products }, back };
}

/** A hop no list names, told by the names of its ends; what does not fit, told by the name of what it runs. */
const isByName = (value: unknown): boolean =>
  typeof value === 'object' &&
  value !== null &&
  'kind' in value &&
  (value.kind === 'no fit' || (value.kind === 'cell' && 'from' in value));

test('no label is ever read as a number: with every label another text, all plans stay equal', () => {
  const { estate, today, catalogue } = lawInput();
  for (const seed of seedsOf(10)) {
    const { catalogue: other, back } = renamed(catalogue, new Random(seed));
    const forth = new Map(
      catalogue.products.flatMap((p, i) =>
        p.releases.flatMap((x, j) => {
          const y = other.products[i]?.releases[j];
          return [
            [`${p.id} ${x.id}`, y?.id ?? ''],
            ...(x.patches ?? []).map((z, k) => [`${p.id} ${x.id}/${z.id}`, y?.patches?.[k]?.id ?? ''])
          ] as [string, string][];
        })
      )
    );
    const move = (s: System): System => {
      const product = 'is' in s.product ? s.product.is : '';
      const release = 'is' in s.release ? s.release.is : '';
      const to = (id: string): string => forth.get(`${product} ${id}`) ?? id;
      return {
        ...s,
        release:
          'is' in s.release
            ? { is: to(release) }
            : 'oneOf' in s.release
              ? { oneOf: s.release.oneOf.map(to) }
              : s.release,
        patch: 'is' in s.patch && s.patch.is !== 'base' ? { is: to(`${release}/${s.patch.is}`) } : s.patch
      };
    };
    const decisions = estate.decisions.map((d) => ({
      ...d,
      target: d.target && { ...d.target, release: forth.get(`brindle-server ${d.target.release}`) ?? '' }
    }));
    const goals = estate.goals.map((g) => ({
      ...g,
      ...(g.targets
        ? { targets: g.targets.map((t) => ({ ...t, release: forth.get(`${t.product} ${t.release}`) ?? '' })) }
        : {})
    }));
    const strip = (p: Plan): unknown => {
      const text = JSON.stringify(
        p.cases
          .map(({ id: _id, situation: _situation, ...c }) => (void [_id, _situation], c))
          .sort((a, b) => ((a.systems[0] ?? '') < (b.systems[0] ?? '') ? -1 : 1)),
        // What people call things: the other catalogue has no names.
        (key, value: unknown) => (key === 'names' || key === 'range' || isByName(value) ? undefined : value)
      );
      return JSON.parse(text.replace(/z[0-9a-z]+\.\d+/g, (id) => back.get(id) ?? id));
    };
    expect(
      strip(
        plan({
          catalogue: other,
          estate: { ...estate, systems: estate.systems.map(move), decisions, goals },
          today
        })
      )
    ).toEqual(strip(plan({ catalogue, estate, today })));
  }
});

describe('unknown starts', () => {
  const input = demoInput();
  const product = input.catalogue.products[0] as Product;
  const planOf = (system: System): CasePlan =>
    plan({ ...input, estate: { ...emptyEstate(), goals: [DEFAULT_GOAL], systems: [system] } })
      .cases[0] as CasePlan;
  const system = (readings: Partial<System>): System => ({
    id: 's',
    name: 's',
    product: { is: product.id },
    release: { is: '4' },
    patch: { is: 'base' },
    edition: { is: 'plain' },
    architecture: { is: 'only' },
    ...readings
  });

  test('sure is the worst of the starts, best the best, and knowing more never widens', () => {
    for (const release of ['3', '4', '5'])
      for (const edition of ['plain', 'studio']) {
        const open = planOf(
          system({
            release: { oneOf: ['3', '4', '5'] },
            patch: { unknown: 'not asked' },
            edition: { oneOf: ['plain', 'studio'] }
          })
        );
        const known = planOf(
          system({ release: { is: release }, patch: { unknown: 'not asked' }, edition: { is: edition } })
        );
        for (const target of known.targets) {
          const wide = open.targets.find((t) => JSON.stringify(t.target) === JSON.stringify(target.target));
          if (!wide || (release === '3' && edition === 'studio')) continue;
          expect(rankVerdict(wide.sure)).toBeGreaterThanOrEqual(rankVerdict(target.sure));
          expect(rankVerdict(wide.best)).toBeLessThanOrEqual(rankVerdict(target.best));
        }
      }
  });

  test('a product not in the catalogue cannot be told', () => {
    expect(planOf(system({ product: { unknown: 'not understood' } }))).toMatchObject({
      verdict: 'cannot tell',
      starts: 0
    });
    expect(planOf(system({ product: { is: 'elsewhere' } }))).toMatchObject({ verdict: 'cannot tell' });
  });

  test('a text of several parts is read whole or gives candidates', () => {
    const read = readInstalled(input.catalogue, { installed: 'Garnock Desk 4 or 5 Plain' }).readings;
    expect(read.release).toEqual({ oneOf: ['4', '5'] });
    expect(
      readInstalled(input.catalogue, { product: 'garnock desk', version: '4', build: '4.2.118' }).readings
    ).toMatchObject({ release: { is: '4' }, patch: { is: 'r2' } });
    expect(readInstalled(input.catalogue, { installed: 'Pantry Till 3' }).readings.product).toEqual({
      unknown: 'not understood'
    });
  });
});

const stepsOf = (route: Route): string =>
  route.steps
    .filter(isCounted)
    .map((s) => `${s.id}@${s.from.patch}>${s.to.edition}`)
    .join(' ');

test('the latest start holds, and the day after it does not', () => {
  let bound = 0;
  for (const seed of seedsOf(1000)) {
    const world = worldOf(seed);
    const system: System = {
      id: 's',
      name: 's',
      product: { is: 'world' },
      release: { is: world.start.release },
      patch: { is: world.start.patch },
      edition: { is: world.start.edition },
      architecture: { is: world.start.architecture },
      nodes: world.nodes,
      facts: world.activated === 'unknown' ? {} : { activated: { value: world.activated === 'yes' } }
    };
    const catalogue: Catalogue = {
      format: 'orange-stair-catalogue',
      version: 3,
      name: 'w',
      products: [world.product]
    };
    const estate = {
      ...emptyEstate(),
      site: { name: '', countsExpected: world.countsExpected },
      systems: [system],
      goals: [world.goal],
      rightsHeld: [{ right: 'agreed', held: world.held.size }]
    };
    const [one] = plan({ catalogue, estate, today: world.today }).cases;
    const route = one?.goalPlan?.route;
    if (
      !one ||
      !route ||
      typeof one.latestStart !== 'number' ||
      one.latestStart < world.today ||
      !one.goal ||
      !route.finish.exact
    )
      continue;
    // A patch nobody can date is later than the day of asking: asked a day later it still is, seen from today it may be out.
    const ids = new Set(route.steps.filter(isCounted).map((s) => s.id));
    const asksForAll = world.product.hops?.some((h) => ids.has(h.id) && h.everyPatch);
    if (
      asksForAll &&
      world.product.releases.some((r) => r.patches?.some((p) => /unknown|expected/.test(p.published)))
    )
      continue;
    bound++;
    const latest = one.latestStart;
    const end =
      one.deadline.contributors.find((c) => c.sets && c.kind === 'service of installed')?.day ?? Infinity;
    const holdsFrom = (today: number): boolean =>
      new BruteForce({ ...world, today })
        .holding(one.goal as Target)
        .some((r) => r.steps === stepsOf(route) && r.finish <= end);
    expect(holdsFrom(latest), `world ${seed}`).toBe(true);
    expect(holdsFrom(latest + 1), `world ${seed}, a day later`).toBe(false);
  }
  expect(bound).toBeGreaterThan(oftenerThan(10));
});

test('progress counts the cases', () => {
  const seen = [...planStepwise(lawInput())];
  expect(seen.map((p) => p.done)).toEqual(seen.map((_, i) => i + 1));
  expect(new Set(seen.map((p) => p.of)).size).toBe(1);
});

test('decisions: the narrower scope wins, staying has no target, an expired one counts no more', () => {
  const input = lawInput();
  const decide = (extra: object): CasePlan => {
    const decision = {
      id: 'zz',
      kind: 'stay' as const,
      scope: { system: 'trial-01' },
      day: '2031-03-01',
      ...extra
    };
    return plan({
      ...input,
      estate: { ...input.estate, decisions: [...input.estate.decisions, decision] }
    }).cases.find((c) => c.systems.includes('trial-01')) as CasePlan;
  };
  expect(decide({})).toMatchObject({ goalFrom: 'stay', verdict: 'here' });
  expect(decide({ until: '2031-03-09' })).toMatchObject({ goalFrom: 'decision', verdict: 'not yet' });
  expect(decide({ scope: { estate: true } }).goalFrom).toBe('decision');
  expect(parseDay('2031-03-10')).toBe(input.today);
});

test('what is kept from one planning to the next changes nothing, and only what an edit can change is planned anew', () => {
  const cache = new PlanCache();
  const run = (planning: Planning, with_: PlanCache): Plan => {
    const steps = planWith(planning, 'goal', with_);
    for (let next = steps.next(); ; next = steps.next()) if (next.done) return next.value;
  };
  let input = lawInput();
  let planning = new Planning(input);
  let last = run(planning, cache);
  const held = new HeldEstate(recordsOfEstate(input.estate, { fileName: '', text: '' }));
  expect(held.estate.systems).toEqual(input.estate.systems);
  let alone = 0;
  let told = 0;
  for (const seed of seedsOf(120)) {
    const r = new Random(seed * 77);
    const { estate } = input;
    const at = r.int(0, estate.systems.length - 1);
    const system = estate.systems[at] as System;
    const other = r.pick(estate.systems);
    const fact = r.pick([
      'memory',
      'disk.total',
      'disk.free.system',
      'setting.long-key',
      'security-part',
      'model'
    ]);
    const value = r.pick(['1 GB', '6 GB', '64 GB', 'on', 'off', 'P2', 'Fellside 3']);
    const edited: System = {
      ...system,
      facts: { ...system.facts, [fact]: { value, source: 'edit' } },
      ...(r.chance(0.15) ? { team: r.pick(['Moved', 'Elsewhere']) } : {}),
      ...(r.chance(0.1) ? { stage: 'retired' as const } : {}),
      ...(r.chance(0.1) ? { links: [{ kind: 'hosted on' as const, to: other.id }] } : {})
    };
    const systems = r.chance(0.1)
      ? [...estate.systems.with(at, edited), { ...other, id: `more-${seed}`, name: `more-${seed}` }]
      : r.chance(0.1)
        ? estate.systems.filter((s) => s !== system)
        : estate.systems.with(at, edited);
    const decisions = r.chance(0.2)
      ? [
          ...estate.decisions,
          { id: `e${seed}`, kind: 'stay' as const, scope: { system: system.id }, day: '2031-03-01' }
        ]
      : estate.decisions;
    const goals = r.chance(0.1)
      ? estate.goals.map((g) => ({ ...g, settlingDays: r.int(0, 60) }))
      : estate.goals;
    const next = { ...estate, systems, decisions, goals };
    held.write(writesBetween(estate, next));
    input = { ...input, estate: next };
    const title = `edit ${seed}: ${system.id} ${fact} ${value}`;
    expect([held.estate.systems, held.estate.decisions, held.estate.goals], title).toEqual([
      systems,
      decisions,
      goals
    ]);
    const before = cache.planned;
    planning = new Planning(input, planning);
    const { cases } = planning.gather();
    if (cases.some((one) => planning.planOf(one))) alone++;
    const kept = run(planning, cache);
    expect(kept, title).toEqual(run(new Planning(input), new PlanCache()));
    const across = tellPlan(kept, 'now', last);
    told += across.cases.filter((one) => typeof one === 'number').length / across.cases.length;
    expect(readPlan(structuredClone(across), last), title).toEqual(kept);
    last = kept;
    if (systems.length === estate.systems.length && decisions === estate.decisions && goals === estate.goals)
      expect(cache.planned - before, title).toBeLessThan(16);
  }
  expect(alone).toBeGreaterThan(oftenerThan(seedsOf(120).length / 8));
  expect(told).toBeGreaterThan(oftenerThan(seedsOf(120).length / 4));
});

test('alike systems on hosts that end on other days have deadlines of their own', () => {
  const input = demoInput();
  const { systems } = input.estate;
  const base = systems.find((s) => s.id === 'web-01') as System;
  const on = (id: string, host: string): System => ({
    ...base,
    id,
    name: id,
    links: [{ kind: 'hosted on', to: host }]
  });
  const both = [on('on-draw', 'draw-01'), on('on-west', 'west-04')];
  const planned = plan({
    ...input,
    estate: { ...input.estate, systems: [...systems, ...both] },
    every: 'goal'
  });
  const ends = both.map(({ id }) =>
    planned.cases
      .find((c) => c.systems.includes(id))
      ?.deadline.contributors.flatMap((c) => (c.kind === 'service of host' ? [c.day] : []))
  );
  expect(ends.map((e) => e?.length)).toEqual([1, 1]);
  expect(ends[0]).not.toEqual(ends[1]);
});

test('an edit of what others stand on is seen by them, though nothing else has changed', () => {
  const demo = demoInput();
  const base = demo.estate.systems.find((s) => s.id === 'web-01') as System;
  const host = demo.estate.systems.find((s) => s.id === 'draw-01') as System;
  const guest: System = { ...base, id: 'guest', name: 'guest', links: [{ kind: 'hosted on', to: host.id }] };
  const inputOf = (...systems: System[]) => ({ ...demo, estate: { ...demo.estate, systems } });
  const toldOf = (planning: Planning): unknown => {
    const steps = planWith(planning, 'goal');
    for (let next = steps.next(); ; next = steps.next()) if (next.done) return next.value.cases;
  };
  const first = new Planning(inputOf(guest, host));
  const before = toldOf(first);
  const other = demo.estate.systems.find(
    (s) =>
      readingKey(s.product) === readingKey(host.product) && readingKey(s.release) !== readingKey(host.release)
  );
  const moved = { ...host, release: (other as System).release, patch: { is: 'base' } };
  const after = inputOf(guest, moved);
  const kept = new Planning(after, first);
  expect(toldOf(kept)).toEqual(toldOf(new Planning(after)));
  expect(toldOf(kept)).not.toEqual(before);
  const unlinked = inputOf({ ...guest, links: [] }, moved);
  expect(toldOf(new Planning(unlinked, kept))).toEqual(toldOf(new Planning(unlinked)));
});

test('what cases share while all are planned changes none of them', () => {
  const inputs = [
    // Many that are alike but for facts nothing on the way can change.
    ...[1, 2, 3].map((seed) => generateWorld(seed, 90, 90, 2)),
    ...seedsOf(600).map((seed) => estateOf(fullWorldOf(seed), new Random(seed * 17)))
  ];
  for (const input of inputs) {
    const alone = new Map(
      new Planning(input).gather().cases.map((one) => {
        // By a planning that remembers nothing of any other case.
        const planned = new PlanCache().plan(new Planning(input), one, 'goal');
        return [one.id, planned] as const;
      })
    );
    for (const one of plan({ ...input, every: 'goal' }).cases)
      expect({ ...one, restsOn: undefined, rounds: undefined }).toEqual({
        ...alone.get(one.id),
        restsOn: undefined
      });
  }
});
