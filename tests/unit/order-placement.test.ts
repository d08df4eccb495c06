import { expect, test } from 'vitest';
import type { Catalogue, Product } from '$core/catalogue';
import { DEFAULT_GOAL, type Estate, type System } from '$core/estate';
import { type Order, orderOf } from '$core/order';
import { Planning, planWith } from '$core/plan';
import { bareSystem } from '../support/bare-system';
import { leastShare, seedsOf, tell } from '../support/laws';
import { Random } from '../support/random';

const TODAY = 22_348;
const HORIZON = 160;

const end = <T>(steps: Generator<unknown, T>): T => {
  for (let next = steps.next(); ; next = steps.next()) if (next.done) return next.value;
};

/** A team's nights: at an hour, every so many days, for so many minutes, by people who watch so many at once. */
interface Night {
  readonly team: string;
  readonly hour: number;
  readonly every: number;
  readonly minutes: number;
  readonly crew: string;
  readonly size: number;
}

interface World {
  readonly minutes: ReadonlyMap<string, number>;
  readonly nights: readonly Night[];
  readonly freeze: readonly [number, number] | undefined;
  readonly catalogue: Catalogue;
  readonly estate: Estate;
}

const iso = (day: number): string => new Date(day * 86_400_000).toISOString().slice(0, 10);

/** Managers with what hangs on them, and systems that hang on nothing, of teams that share people. */
function worldOf(seed: number): World {
  const r = new Random(seed * 3571 + 7);
  const minutes = new Map<string, number>();
  const product = (
    id: string,
    releases: number,
    fits: readonly (readonly [string, string])[] = []
  ): Product => {
    const hops = Array.from({ length: releases - 1 }, (_, n) => {
      const careful = r.pick([20, 30, 45, 60, 75]);
      minutes.set(`${id}-${n}`, careful);
      return {
        id: `${id}-${n}`,
        kind: 'in place',
        from: `${id}${n}`,
        to: `${id}${n + 1}`,
        kept: 'everything',
        typicalMinutes: 10,
        carefulMinutes: careful
      };
    });
    const pairings =
      fits.length === 0
        ? []
        : [
            {
              id: `${id}-m`,
              kind: 'managed by',
              other: 'm',
              table: 'complete',
              fits: fits.map(([own, other]) => ({ own, other }))
            }
          ];
    return {
      id,
      name: id,
      publisher: 'made up',
      hopTable: 'complete',
      releases: Array.from({ length: releases }, (_, n) => ({ id: `${id}${n}`, published: '2028-01-01' })),
      hops,
      pairings,
      rights: [{ id: `${id}-r`, kind: 'free' }]
    } as unknown as Product;
  };
  const products = [
    product('m', 3),
    product('h', 3, [
      ['h0', 'm0 to m1'],
      ['h1', 'from m1'],
      ['h2', 'from m2']
    ]),
    product('s', r.int(2, 3))
  ];
  const teams = ['a', 'b', 'c'].slice(0, r.int(2, 3));
  const crews = [
    { crew: 'night crew', size: r.int(1, 3) },
    { crew: 'others', size: r.int(1, 4) }
  ];
  const nights = teams.map((team): Night => ({
    team,
    hour: r.int(0, 23),
    every: r.int(1, 4),
    minutes: r.pick([150, 180, 240, 300, 420]),
    ...r.pick(crews)
  }));
  const start = TODAY + r.int(2, 12);
  const freeze = r.chance(0.4) ? ([start, start + r.int(0, 6)] as const) : undefined;
  const system = (id: string, of: string, links: System['links'] = []): System =>
    bareSystem(id, of, r.pick(teams), links);
  const systems: System[] = [];
  for (let i = r.int(1, 3); i > 0; i--) {
    systems.push(system(`m${i}`, 'm'));
    for (let k = r.int(1, 5); k > 0; k--)
      systems.push(system(`m${i}-h${k}`, 'h', [{ kind: 'managed by', to: `m${i}` }]));
  }
  for (let i = r.int(0, 4); i > 0; i--) systems.push(system(`s${i}`, 's'));
  const window = ({ team, hour, every, minutes: length, crew, size }: Night) => ({
    id: `${team}-night`,
    start: `${iso(TODAY - 1)}T${String(hour).padStart(2, '0')}:00`,
    rule: `FREQ=DAILY;INTERVAL=${every}`,
    minutes: length,
    crew: { name: crew, systems: size }
  });
  const estate = {
    site: { name: '', countsExpected: true },
    systems,
    goals: [{ ...DEFAULT_GOAL, settlingDays: 0 }],
    decisions: [],
    rightsHeld: [],
    calendars: nights.map((n) => ({
      id: n.team,
      team: n.team,
      zone: 'UTC',
      windows: [window(n)],
      ...(freeze ? { freezes: [{ first: iso(freeze[0]), last: iso(freeze[1]) }] } : {})
    }))
  } as unknown as Estate;
  const catalogue = {
    format: 'orange-stair-catalogue',
    version: 3,
    name: 'made up',
    products
  } as unknown as Catalogue;
  return { minutes, nights, freeze, catalogue, estate };
}

/** What is under work at each minute, by those who do it; written from docs/reckoning.md 4b and 14 alone. */
class Simulation {
  readonly #world: World;
  readonly #under = new Map<string, Uint8Array>();

  constructor(world: World) {
    this.#world = world;
  }

  night(system: string): Night {
    const { team } = this.#world.estate.systems.find((s) => s.id === system) as System;
    return this.#world.nights.find((n) => n.team === team) as Night;
  }

  /** Epoch minutes at which nights of a team begin; none that touches the freeze. */
  *nights({ hour, every, minutes }: Night): Generator<number> {
    for (let day = TODAY - 1; day < TODAY + HORIZON; day += every) {
      const start = day * 1440 + hour * 60;
      const last = Math.floor((start + minutes - 1) / 1440);
      const [first, until] = this.#world.freeze ?? [Infinity, -Infinity];
      if (day <= until && last >= first) continue;
      yield start;
    }
  }

  /** Minute by minute: the first at which a block of some systems may begin. `own`: blocks they had before, each with its night. */
  begin(
    night: Night,
    {
      from,
      day,
      length,
      size,
      own
    }: {
      from: number;
      day: number;
      length: number;
      size: number;
      own: readonly { night: number; length: number }[];
    }
  ): { at: number; night: number } | undefined {
    const under = this.#of(night.crew);
    for (const start of this.nights(night)) {
      if (Math.floor(start / 1440) < day) continue;
      const back = own.filter((o) => o.night === start).reduce((sum, o) => sum + o.length, 0);
      for (let at = Math.max(start, from); at + length + back + length <= start + night.minutes; at++) {
        let fits = true;
        for (let m = at; m < at + length && fits; m++)
          fits = (under[m - TODAY * 1440 + 2880] ?? 0) + size <= night.size;
        if (fits) return { at, night: start };
      }
    }
    return undefined;
  }

  book(night: Night, at: number, length: number, size: number): void {
    const under = this.#of(night.crew);
    for (let m = at; m < at + length; m++) {
      const i = m - TODAY * 1440 + 2880;
      under[i] = (under[i] ?? 0) + size;
    }
  }

  #of(crew: string): Uint8Array {
    const known = this.#under.get(crew) ?? new Uint8Array((HORIZON + 10) * 1440);
    this.#under.set(crew, known);
    return known;
  }
}

type Told = readonly (readonly [string, string, number, number, number])[];

/** Where everything begins, by the order's waves: system, step, size of its round, minute it begins, minute it ends. */
const toldOf = (order: Order, sequence: readonly string[]): Told =>
  sequence.flatMap((id) => {
    const one = order.components.find((c) => c.id === id);
    return (one?.waves ?? []).flatMap((w) =>
      w.steps.flatMap((s) =>
        s.rounds.map((r): Told[number] => [
          one?.parts[s.part]?.id ?? '',
          s.step,
          r.systems,
          r.at?.begins ?? 0,
          r.at?.ends ?? 0
        ])
      )
    );
  });

function simulated(world: World, order: Order, sequence: readonly string[]): Told {
  const simulation = new Simulation(world);
  const minutesOf = (step: string): number => world.minutes.get(step) ?? 0;
  const sizesOf = (systems: number, most: number): number[] =>
    Array.from({ length: Math.ceil(systems / most) }, (_, i) => Math.min(most, systems - i * most));
  return sequence.flatMap((id): Told => {
    const one = order.components.find((c) => c.id === id);
    if (!one) return [];
    if (one.isSingle) {
      const [part] = one.parts;
      const night = simulation.night(part?.id ?? '');
      const steps = one.waves.map((w) => w.steps[0]?.step ?? '');
      const before = steps.map(() => 0);
      const rounds = sizesOf(part?.systems.length ?? 0, night.size).map((size) => {
        const own: { night: number; length: number }[] = [];
        let free = 0;
        const round = steps.map((step, i): Told[number] => {
          const length = minutesOf(step);
          const from = Math.max(free, before[i] ?? 0);
          const laid = simulation.begin(night, { from, day: TODAY, length, size, own });
          const at = laid?.at ?? 0;
          own.push({ night: laid?.night ?? 0, length });
          before[i] = at;
          free = at + length;
          return [part?.id ?? '', step, size, at, at + length];
        });
        for (const [, , , at, until] of round) simulation.book(night, at, until - at, size);
        return round;
      });
      return steps.flatMap((_, i) => rounds.map((round) => round[i] as Told[number]));
    }
    // The minute from which on the next wave may begin.
    let over = TODAY * 1440;
    // What each round of a part has had before: its ways back count in the same night.
    const had = new Map<string, { night: number; length: number }[]>();
    return one.waves.flatMap((wave) => {
      const laid = wave.steps.flatMap((step): Told => {
        const part = one.parts[step.part];
        const night = simulation.night(part?.id ?? '');
        const length = minutesOf(step.step);
        let from = over;
        return sizesOf(part?.systems.length ?? 0, night.size).map((size, r): Told[number] => {
          const own = had.get(`${step.part} ${r}`) ?? [];
          const { at, night: start } = simulation.begin(night, { from, day: TODAY, length, size, own }) ?? {
            at: 0,
            night: 0
          };
          simulation.book(night, at, length, size);
          had.set(`${step.part} ${r}`, [...own, { night: start, length }]);
          from = at;
          return [part?.id ?? '', step.step, size, at, at + length];
        });
      });
      over = Math.max(...laid.map((t) => t[4]));
      return laid;
    });
  });
}

test('placement equals a simulation, minute by minute', () => {
  const shares = new Map<string, number>();
  const count = (what: string, is: boolean): void =>
    void shares.set(what, (shares.get(what) ?? 0) + (is ? 1 : 0));
  const seeds = seedsOf(300);
  for (const seed of seeds) {
    const world = worldOf(seed);
    const planning = new Planning({ catalogue: world.catalogue, estate: world.estate, today: TODAY });
    const order = end(orderOf(planning, end(planWith(planning, 'goal')).cases));
    // Nothing has a deadline: by id.
    const sequence = order.components.map((c) => c.id).sort();
    const told = toldOf(order, sequence);
    expect({ seed, told }).toEqual({ seed, told: simulated(world, order, sequence) });
    expect(told.length, `${seed}`).toBeGreaterThan(0);
    const rounds = order.components.flatMap((c) =>
      c.waves.flatMap((w) => w.steps.map((s) => s.rounds.length))
    );
    count(
      'several rounds',
      rounds.some((n) => n > 1)
    );
    count(
      'two waves in one night',
      order.components.some((c) =>
        c.waves.some((w, i) => !c.isSingle && i > 0 && w.first <= (c.waves[i - 1]?.last ?? 0))
      )
    );
    count('beside another component', order.components.length > 1);
    count(
      'hangs on nothing',
      order.components.some((c) => c.isSingle)
    );
    const alone = order.components.map((c) => {
      const systems = world.estate.systems.filter((s) => c.parts.some((p) => p.systems.includes(s.id)));
      const own = new Planning({
        catalogue: world.catalogue,
        estate: { ...world.estate, systems },
        today: TODAY
      });
      return toldOf(end(orderOf(own, end(planWith(own, 'goal')).cases)), [c.id]);
    });
    count(
      'put off by another component',
      JSON.stringify(alone.flat()) !==
        JSON.stringify(
          toldOf(
            order,
            order.components.map((c) => c.id)
          )
        )
    );
  }
  tell('placement equals a simulation', { estates: seeds.length, ...Object.fromEntries(shares) });
  for (const [what, n] of shares) expect(n / seeds.length, what).toBeGreaterThanOrEqual(leastShare);
});
