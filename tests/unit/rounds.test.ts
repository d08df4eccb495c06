import { expect, test } from 'vitest';
import type { Hop } from '$core/catalogue';
import { formatDay, parseDay, timeOfMinute } from '$core/date';
import { findOverlaps, freezeKey } from '$core/bind';
import { type Decision, DEFAULT_GOAL, type Estate } from '$core/estate';
import { parseCatalogue } from '$core/exchange';
import { loadByWeek, plan, planInDepth } from '$core/plan';
import type { RoundPlan } from '$core/plan/plan-types';
import { sayEaten } from '$core/wording';
import { verifyRounds } from '$core/verify/verify-rounds';
import { isInTime, latestStartOf, SURELY_THERE } from '$core/deadline';
import { idsOfPlace } from '$core/compile';
import { layRounds, type Move, type Party, type Round, type Terms } from '$core/route';
import { findChosen } from '$core/route/search/choose';
import { BruteForce } from '../support/brute-force';
import { leastShare, seedsOf, tell } from '../support/laws';
import { Random } from '../support/random';
import { placeOf, termsOfWorld } from '../support/solve';
import { calendarWorldOf, type World } from '../support/worlds';

/** A world whose windows have crews, whose hops may be had so many times at once, and a party that goes. */
function crewWorldOf(seed: number): { world: World; party: Party } {
  const made = calendarWorldOf(seed);
  const r = new Random(seed * 3163 + 29);
  const windows = made.calendar?.windows?.map((w) => (r.chance(0.8) ? { ...w, crew: r.int(1, 3) } : w));
  const hops = (made.product.hops ?? []).map((h): Hop =>
    r.chance(0.2) ? { ...h, doing: { ...h.doing, obtain: [{ way: 'network', atOnce: r.int(1, 2) }] } } : h
  );
  const systems = r.int(2, 7);
  const pilots = r.chance(0.5) ? r.int(1, 2) : 0;
  const { net: _net, ...alone } = made;
  void _net;
  return {
    world: {
      ...alone,
      product: { ...made.product, hops, pairings: [] },
      calendar: { ...(windows ? { windows } : {}), freezes: made.calendar?.freezes ?? [] }
    },
    party: { systems, pilots, watchDays: r.pick([0, 0, 5]), first: [] }
  };
}

/** As brute force names its steps. */
function keyOf({ model }: Terms, { id, from, level, to, asked }: Move): string {
  const { edition, architecture } = idsOfPlace({ model }, to);
  const patch = model.releases[from.release]?.patches[level]?.id ?? 'base';
  return `${id}@${patch}>${edition}.${architecture}+${asked.cures.map((c) => c.cure.id).join()}`;
}

const seenOf = (rounds: readonly Round[]) =>
  rounds.map(({ systems, judgement: { findings, schedule } }) => ({
    systems,
    ends: schedule.days.flatMap((d) =>
      [...(d.patchAt ? [d.patchAt] : []), ...(d.nodesAt ?? (d.at ? [d.at] : []))].map(
        (at) => at.occurrence.start + at.end
      )
    ),
    last: schedule.days.at(-1)?.hop.last,
    holds: findings.length === 0
  }));

test('rounds equal those laid minute by minute, and the latest start of all of them trying every day', () => {
  const shares = new Map<string, number>();
  const count = (name: string, is = true): void => {
    if (is) shares.set(name, (shares.get(name) ?? 0) + 1);
  };
  let parties = 0;
  let starts = 0;
  for (const seed of seedsOf(600)) {
    const { world, party } = crewWorldOf(seed);
    const brute = new BruteForce(world);
    const sequences = brute.sequences(1500);
    if (!sequences) continue;
    const terms = termsOfWorld(world);
    const start = placeOf(terms, world.start);
    let tried = false;
    for (const to of brute.targets()) {
      const target = placeOf(terms, { ...to, patch: 'base' });
      const key = Object.values(to).join(' ');
      const moves = findChosen(terms, { start, target }, 'sure').label?.moves ?? [];
      const steps = sequences.get(moves.map((m) => keyOf(terms, m)).join(' '));
      if (moves.length === 0) continue;
      if (!steps) throw new Error(`${seed} ${key}: a way nobody lists`);
      const rounds = layRounds({ terms, moves }, party, SURELY_THERE);
      const wanted = brute.roundsOf(steps, party);
      expect({ seed, key, rounds: seenOf(rounds) }).toEqual({ seed, key, rounds: wanted });
      parties++;
      const laid = rounds.reduce((sum, r) => sum + r.systems, 0);
      const nights = rounds.map((r) => r.judgement.schedule.days.at(-1)?.at?.occurrence.start);
      count('several rounds', rounds.length > 1);
      count('pilots first', party.pilots > 0);
      count(
        'rounds in one night',
        nights.some((n, i) => n !== undefined && n === nights[i + 1])
      );
      count('not all of them', laid < party.systems || rounds.some((r) => r.judgement.findings.length > 0));
      if (tried) continue;
      tried = true;
      // Every day tried, where the whole is near enough.
      const by = world.today + 30 + (seed % 120);
      const holds = (from: number): boolean => {
        const all = layRounds({ terms: { ...terms, from, leadsFrom: from }, moves }, party, SURELY_THERE);
        return (
          all.reduce((sum, r) => sum + r.systems, 0) === party.systems &&
          all.every((r) => isInTime(r.judgement, by))
        );
      };
      const days = Array.from({ length: by - world.today + 61 }, (_, i) => by - i);
      const last = days.find(holds);
      const found = latestStartOf(terms, moves, by, { party });
      if (last !== undefined) expect({ seed, key, found }).toEqual({ seed, key, found: last });
      else expect(typeof found === 'number' && found >= (days.at(-1) ?? 0)).toBe(false);
      if (last !== undefined) starts++;
    }
  }
  tell('rounds equal brute force', { parties, starts, ...Object.fromEntries(shares) });
  expect(starts).toBeGreaterThan(0);
  for (const name of ['several rounds', 'pilots first', 'rounds in one night', 'not all of them'])
    expect((shares.get(name) ?? 0) / parties, name).toBeGreaterThanOrEqual(leastShare);
});

/** One team of so many, a hop of an hour, nights of three hours with a crew. */
interface Team {
  readonly systems?: number;
  readonly crew?: number;
  readonly goal?: object;
  readonly freezes?: readonly { first: string; last: string }[];
  readonly decisions?: readonly Decision[];
  /** Where all but the last stand, and since when. */
  readonly others?: 'a' | 'b';
  readonly arrived?: string | undefined;
}

function catalogueOf() {
  const read = parseCatalogue(
    JSON.stringify({
      format: 'orange-stair-catalogue',
      version: 3,
      name: 'rounds',
      products: [
        {
          id: 'gate',
          name: 'Gate',
          publisher: 'Made up',
          hopTable: 'complete',
          releases: [
            { id: 'a', published: '2028-01-01', service: [{ phase: 'security', until: '2031-03-20' }] },
            { id: 'b', published: '2029-01-01' }
          ],
          hops: [
            {
              id: 'ab',
              from: 'a',
              to: 'b',
              kind: 'in place',
              kept: 'everything',
              typicalMinutes: 40,
              carefulMinutes: 60,
              doing: { wayBack: { until: { days: 3 }, minutes: 30 } }
            }
          ],
          rights: [{ id: 'p', kind: 'purchase', priceCents: 100 }]
        }
      ]
    })
  );
  if (!read.ok) throw new Error(JSON.stringify(read.issues));
  return read.value;
}

function estateOf({
  systems = 5,
  crew = 2,
  goal = {},
  freezes = [],
  decisions = [],
  others = 'a',
  arrived
}: Team): Estate {
  return {
    site: { name: '', countsExpected: true },
    systems: Array.from({ length: systems }, (_, i) => ({
      id: `s${i}`,
      name: `s${i}`,
      team: 't',
      product: { is: 'gate' },
      release: { is: i < systems - 1 ? others : 'a' },
      ...(arrived && i < systems - 1 ? { history: [{ day: arrived, kind: 'changed' }] } : {}),
      patch: { is: 'base' },
      edition: { is: 'only' },
      architecture: { is: 'only' }
    })),
    goals: [{ ...DEFAULT_GOAL, settlingDays: 0, ...goal }],
    decisions,
    rightsHeld: [],
    calendars: [
      {
        id: 'c',
        zone: 'UTC',
        windows: [
          {
            id: 'w',
            start: '2031-03-03T20:00',
            rule: 'FREQ=WEEKLY;BYDAY=MO,WE',
            minutes: 180,
            crew: { systems: crew }
          }
        ],
        freezes
      }
    ]
  } as unknown as Estate;
}

const inputFor = (team: Team) => ({
  catalogue: catalogueOf(),
  estate: estateOf(team),
  today: parseDay('2031-03-10') as number
});

const teamOf = (team: Team) => plan(inputFor(team));

const said = (rounds: readonly RoundPlan[] = []) =>
  rounds.map((r) => {
    const at = r.steps[0]?.at;
    const begins = at ? `${timeOfMinute(at.begins, 'UTC')}` : '';
    return `${r.systems}${r.isPilot ? ' first' : ''} on ${formatDay(r.finish.last)} ${begins}${r.inTime ? '' : ' late'}`;
  });

test('rounds by hand: two at once, two rounds a night where the way back of each still fits', () => {
  const [one] = teamOf({}).cases;
  // 20:00 to 21:00 and 21:00 to 22:00, each with half an hour back before 23:00; the third round goes on Wednesday.
  expect(said(one?.rounds)).toEqual([
    '2 on 2031-03-10 20:00',
    '2 on 2031-03-10 21:00',
    '1 on 2031-03-12 20:00'
  ]);
  expect(one?.inTime).toBe(5);
  // The last two nights before the end are the 17th and the 19th.
  expect(formatDay(one?.latestStart as number)).toBe('2031-03-17');
  const [frozen] = teamOf({ freezes: [{ first: '2031-03-12', last: '2031-03-16' }] }).cases;
  expect(said(frozen?.rounds).at(-1)).toBe('1 on 2031-03-17 20:00');
});

test('rounds by hand: pilots, and one night too few for all', () => {
  const [one] = teamOf({ goal: { pilots: { systems: 1, watchDays: 4 } } }).cases;
  expect(said(one?.rounds)).toEqual([
    '1 first on 2031-03-10 20:00',
    '2 on 2031-03-17 20:00',
    '2 on 2031-03-17 21:00'
  ]);
  const [many] = teamOf({ systems: 12, goal: { pilots: { systems: 1, watchDays: 4 } } }).cases;
  // Two nights are left behind the pilot, of two rounds each: eight more; three come when service has ended.
  expect(many?.inTime).toBe(9);
  // From the fifth on it would have been enough.
  expect(formatDay(many?.latestStart as number)).toBe('2031-03-05');
  expect(said(many?.rounds).slice(-2)).toEqual(['2 on 2031-03-24 20:00 late', '1 on 2031-03-24 21:00 late']);
  const [day] = teamOf({ goal: { pilots: { systems: 1, watchDays: 7 } } }).cases;
  expect(said(day?.rounds)[1]).toBe('2 on 2031-03-19 20:00');
});

test('the verifier takes rounds as they are laid, and none that is moved, crowded or unwatched', () => {
  const party = { systems: 5, pilots: 1, watchDays: 4 };
  const [one] = teamOf({ goal: { pilots: { systems: 1, watchDays: 4 } } }).cases;
  const windows = [
    {
      id: 'w',
      zone: 'UTC',
      start: '2031-03-03T20:00',
      rule: 'FREQ=WEEKLY;BYDAY=MO,WE',
      minutes: 180,
      crew: 2
    }
  ];
  const calendar = { windows, freezes: [] };
  const rounds = one?.rounds ?? [];
  expect(verifyRounds(calendar, party, rounds)).toEqual([]);
  const moved = (by: number): RoundPlan[] =>
    rounds.map((r, i) => ({
      ...r,
      steps: r.steps.map((s) =>
        i === 2 && s.at ? { ...s, at: { ...s.at, begins: s.at.begins + by, ends: s.at.ends + by } } : s
      )
    }));
  expect(verifyRounds(calendar, party, moved(-30))).toContain('too many at once');
  expect(verifyRounds(calendar, party, moved(45))).toContain('leaves no room to go back');
  const freeze = { first: rounds[1]!.finish.last, last: rounds[1]!.finish.last };
  expect(verifyRounds({ windows, freezes: [freeze] }, party, rounds)).toContain('falls into a freeze');
  expect(verifyRounds(calendar, { ...party, watchDays: 7 }, rounds)).toContain('pilots are not watched');
  expect(verifyRounds(calendar, { ...party, systems: 4 }, rounds)).toContain('more systems than there are');
  expect(verifyRounds(calendar, party, rounds.slice(1))).toContain('others go before the pilots have');
  expect(verifyRounds(calendar, party, [...rounds].reverse())).toContain('a pilot behind others');
});

test('what is planned by week stands beside what the crew can watch; overlapping windows are found', () => {
  const made = teamOf({ systems: 12 });
  const [load] = loadByWeek(made, estateOf({ systems: 12, crew: 2 }), 3);
  // Four a night, two nights a week: eight hours in the first week, the other four systems in the next.
  expect(load?.weeks.map((w) => [formatDay(w.monday), w.planned, w.room, w.systems.length])).toEqual([
    ['2031-03-10', 480, 720, 8],
    ['2031-03-17', 240, 720, 4],
    ['2031-03-24', 0, 720, 0]
  ]);
  const [calendar] = estateOf({}).calendars ?? [];
  const twice = (more: object) => ({
    ...calendar!,
    windows: [
      ...calendar!.windows,
      { id: 'x', start: '2031-03-05T22:30', rule: 'FREQ=WEEKLY', minutes: 60, ...more }
    ]
  });
  const today = parseDay('2031-03-10') as number;
  expect(findOverlaps(calendar!, today)).toEqual([]);
  expect(findOverlaps(twice({}), today)).toEqual([{ windows: ['w', 'x'], day: today + 2 }]);
  expect(findOverlaps(twice({ start: '2031-03-05T23:00' }), today)).toEqual([]);
  const apart = twice({ products: ['other'] });
  apart.windows[0] = { ...apart.windows[0]!, products: ['gate'] };
  expect(findOverlaps(apart, today)).toEqual([]);
});

test('a freeze is open for whom a decision lets through, and for nobody else', () => {
  const freezes = [{ first: '2031-03-10', last: '2031-03-11' }];
  const about = freezeKey(freezes[0]!);
  const decide = (scope: Decision['scope']): Decision[] => [
    { id: 'd', kind: 'open', scope, about, day: '2031-03-01' }
  ];
  const firstOf = (decisions: Decision[], id: string) => {
    const one = teamOf({ systems: 3, freezes, decisions }).cases.find((c) => c.systems.includes(id));
    return formatDay(one?.goalPlan?.route?.steps[0]?.days.first as number);
  };
  expect(firstOf([], 's0')).toBe('2031-03-12');
  expect(firstOf(decide({ system: 's0' }), 's0')).toBe('2031-03-10');
  expect(firstOf(decide({ system: 's0' }), 's1')).toBe('2031-03-12');
  expect(firstOf(decide({ estate: true }), 's1')).toBe('2031-03-10');
});

test('kept back until the others have run: while one is on its way, and so many days behind the last', () => {
  const goal = { keepBack: { systems: 1, ranDays: 14 } };
  const seen = (others: 'a' | 'b', arrived?: string) => {
    const { cases } = teamOf({ systems: 3, goal, others, arrived });
    const kept = cases.find((c) => c.systems.includes('s2'));
    return `${kept?.goalFrom} ${kept?.verdict}`;
  };
  expect(seen('a')).toBe('kept back here');
  expect(seen('b', '2031-02-24')).toBe('kept back here');
  // The fifteenth day behind: they have run for fourteen.
  expect(seen('b', '2031-02-23')).toBe('rule straight');
  expect(seen('b')).toBe('rule straight');
});

test('what eats the slack is all of it: work, windows, rounds', () => {
  const { lookInto, plan: made } = planInDepth(inputFor({ systems: 5 }));
  const [one] = made.cases;
  const eaten = lookInto(one!)?.eaten;
  // Service ends on the 20th, a Thursday; the last night is the 19th; two more rounds want the 17th.
  expect(eaten).toMatchObject({ by: parseDay('2031-03-20'), work: 1, waits: 0, windows: 1, fails: [] });
  expect(one?.latestStart).toBe(parseDay('2031-03-17'));
  expect(sayEaten(eaten!, one?.latestStart)).toContain(
    'Of the 4 days up to 20 Mar 2031 work takes 1, windows and freezes 1, that they go in rounds 2'
  );
});

test('twenty thousand systems with a crew of two are told soon that no start ends in time', () => {
  const [one] = teamOf({ systems: 20_000 }).cases;
  // Four a night, two nights a week: four nights are left.
  expect(one?.latestStart).toBe('none');
  expect(one?.inTime).toBe(16);
  // From the first night of all there were six: room for twenty-four, and for not one more.
  expect(teamOf({ systems: 24 }).cases[0]?.latestStart).toBe(parseDay('2031-03-03'));
  expect(teamOf({ systems: 25 }).cases[0]?.latestStart).toBe('none');
});
