import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { parse } from 'yaml';
import { dayOfMinute, findRecurrenceFault, formatDay, parseDay, timeOfMinute } from '$core/date';
import { calendarOf } from '$core/bind';
import { latestStartOf, SURELY_THERE } from '$core/deadline/latest-start';
import { DEFAULT_GOAL, type Estate } from '$core/estate';
import { parseCatalogue, parseWorkspace } from '$core/exchange';
import { plan, planInDepth } from '$core/plan';
import { isCounted, judgeMoves } from '$core/route';
import { findChosen } from '$core/route/search/choose';
import { placeOf, solveBySearch, termsOfWorld } from '../support/solve';
import { seedsOf } from '../support/laws';
import { calendarWorldOf } from '../support/worlds';

interface Said {
  readonly case: string;
  readonly today?: string;
  readonly to?: string;
  readonly zone?: string;
  readonly windows?: readonly (readonly [string, string, number])[];
  readonly freezes?: readonly (readonly [string, string])[];
  readonly foreign?: boolean;
  readonly back?: number | 'never';
  readonly wayBack?: number;
  readonly lead?: number;
  readonly watch?: number;
  /** So many, which may go one by one. */
  readonly nodes?: number;
  /** When service of what is on the way ends. */
  readonly middle?: string;
  readonly ends?: string;
  /** A second hop from a to b that keeps less, with its minutes back. */
  readonly beside?: number;
  /** The first day on which that hop is to be had. */
  readonly opens?: string;
  /** Careful minutes of the hop from b to c. */
  readonly onward?: number;
  readonly pass?: number;
  /** When service of c ends. */
  readonly rests?: string;
  readonly at?: readonly string[];
  readonly first?: string;
  readonly finish?: string;
  readonly latest?: string;
  readonly verdict?: string;
}

const CASES = parse(readFileSync('tests/fixtures/calendars.yaml', 'utf8'), {
  schema: 'failsafe'
}) as unknown[];
const NUMBERS = new Set(['wayBack', 'lead', 'watch', 'nodes', 'beside', 'onward', 'pass']);

/** Everything in the file is text, so that no day is read as anything else. */
const saidOf = (raw: unknown): Said =>
  Object.fromEntries(
    Object.entries(raw as Record<string, unknown>).map(([key, value]) => [
      key,
      NUMBERS.has(key) ? Number(value) : key === 'back' && value !== 'never' ? Number(value) : value
    ])
  ) as unknown as Said;

function inputOf(said: Said) {
  const back =
    said.back === undefined
      ? {}
      : {
          doing: {
            wayBack: said.back === 'never' ? { until: 'never' } : { until: { days: 3 }, minutes: said.back }
          }
        };
  const oneByOne = said.nodes === undefined ? {} : { nodeByNode: true };
  const hop = {
    kind: 'in place',
    kept: 'everything',
    typicalMinutes: 20,
    carefulMinutes: 40,
    ...back,
    ...oneByOne
  };
  const read = parseCatalogue(
    JSON.stringify({
      format: 'orange-stair-catalogue',
      version: 3,
      name: 'worked by hand',
      products: [
        {
          id: 'gate',
          name: 'Gate',
          publisher: 'Made up',
          hopTable: 'complete',
          releases: [
            {
              id: 'a',
              published: '2028-01-01',
              ...(said.ends ? { service: [{ phase: 'security', until: said.ends }] } : {})
            },
            {
              id: 'b',
              published: '2029-01-01',
              ...(said.middle ? { service: [{ phase: 'security', until: said.middle }] } : {})
            },
            {
              id: 'c',
              published: '2030-01-01',
              ...(said.rests ? { service: [{ phase: 'security', until: said.rests }] } : {})
            }
          ],
          hops: [
            { id: 'ab', from: 'a', to: 'b', ...hop },
            { id: 'bc', from: 'b', to: 'c', ...hop, carefulMinutes: said.onward ?? hop.carefulMinutes },
            ...(said.beside === undefined ? [] : [besideOf(hop, said.beside, said.opens)])
          ],
          rights: [{ id: 'p', kind: 'purchase', priceCents: 100, leadDays: said.lead ?? 0 }]
        }
      ]
    })
  );
  if (!read.ok) throw new Error(JSON.stringify(read.issues));
  const windows = (said.windows ?? []).map(([days, time, minutes], i) => {
    const isMonthly = /^-?\d/.test(days);
    const rule = `FREQ=${isMonthly ? 'MONTHLY' : 'WEEKLY'};BYDAY=${days.replaceAll(' ', ',')}`;
    const zone = said.zone ?? 'UTC';
    let day = parseDay('2030-12-01') as number;
    while (findRecurrenceFault({ zone, start: `${formatDay(day)}T${time}`, rule })) day++;
    return { id: `w${i}`, start: `${formatDay(day)}T${time}`, rule, minutes: Number(minutes) };
  });
  const foreign = [
    { id: 'f', start: '2031-01-01T10:00', rule: 'FREQ=DAILY', minutes: 900, products: ['other'] }
  ];
  const estate = {
    site: {
      name: '',
      countsExpected: true,
      ...(said.wayBack === undefined ? {} : { wayBackMinutes: said.wayBack })
    },
    systems: [
      {
        id: 's',
        name: 's',
        product: { is: 'gate' },
        release: { is: 'a' },
        patch: { is: 'base' },
        edition: { is: 'only' },
        architecture: { is: 'only' },
        ...(said.nodes === undefined ? {} : { nodes: said.nodes })
      }
    ],
    goals: [
      {
        ...DEFAULT_GOAL,
        settlingDays: 0,
        ...(said.pass === undefined ? {} : { passDays: said.pass }),
        ...(said.watch === undefined ? {} : { watchDays: said.watch }),
        targets: [{ product: 'gate', release: said.to ?? 'b', edition: 'only' }]
      }
    ],
    decisions: [],
    rightsHeld: [],
    calendars: [
      {
        id: 'c',
        zone: said.zone ?? 'UTC',
        windows: said.foreign ? foreign : windows,
        freezes: (said.freezes ?? []).map(([first, last]) => ({ first, last }))
      }
    ]
  } as unknown as Estate;
  return { catalogue: read.value, estate, today: parseDay(said.today ?? '2031-03-10') as number };
}

const besideOf = (hop: object, minutes: number, opens?: string) => ({
  id: 'ab2',
  from: 'a',
  to: 'b',
  ...hop,
  kept: 'settings and data',
  ...(opens === undefined ? {} : { opens }),
  doing: { wayBack: { until: { days: 3 }, minutes } }
});

test.each(CASES.map((raw) => saidOf(raw)).map((c) => [c.case, c] as const))('%s', (_, said) => {
  const [one] = plan(inputOf(said)).cases;
  const route = one?.goalPlan?.route;
  const blocks = (route?.steps ?? []).filter(isCounted).flatMap((s) => s.nodesAt ?? s.at ?? []);
  const words = blocks.map(({ zone, begins, ends, turnBy }) => {
    const time = (minute: number): string => timeOfMinute(minute, zone);
    return `${formatDay(dayOfMinute(begins, zone))} ${time(begins)}-${time(ends)} turn ${time(turnBy)}`;
  });
  if (said.at) expect(words).toEqual(said.at);
  if (said.first) expect(formatDay(route?.steps.find(isCounted)?.days.first ?? 0)).toBe(said.first);
  if (said.finish) expect(formatDay(route?.finish.last ?? 0)).toBe(said.finish);
  if (said.verdict) expect(one?.verdict).toBe(said.verdict);
  if (said.latest)
    expect(typeof one?.latestStart === 'number' ? formatDay(one.latestStart) : one?.latestStart).toBe(
      said.latest
    );
});

test('the latest start with a calendar equals trying every day, on random worlds', () => {
  let tried = 0;
  for (const seed of seedsOf(500, 'latest start with a calendar')) {
    const world = calendarWorldOf(seed);
    const terms = termsOfWorld(world);
    const start = placeOf(terms, world.start);
    for (const [key, found] of solveBySearch(world).targets) {
      if (!found.chosen || found.chosen.steps.length === 0) continue;
      const [release = '', edition = '', architecture = ''] = key.split(' ');
      const target = placeOf(terms, { release, patch: 'base', edition, architecture });
      const { label } = findChosen(terms, { start, target }, 'sure');
      if (!label) continue;
      const by = world.today + 40 + (seed % 90);
      const holds = (from: number): boolean => {
        const { findings, schedule } = judgeMoves(
          { ...terms, from, leadsFrom: from },
          label.moves,
          SURELY_THERE
        );
        const finish = schedule.days.at(-1)?.hop;
        return findings.length === 0 && finish !== undefined && finish.last <= by && finish.exact;
      };
      const days = Array.from({ length: by - (world.today - 60) + 1 }, (_, i) => by - i);
      const last = days.find(holds);
      const latest = latestStartOf(terms, label.moves, by);
      if (last !== undefined) expect({ seed, key, latest }).toEqual({ seed, key, latest: last });
      else expect(typeof latest === 'number' && latest >= world.today - 60).toBe(false);
      if (last !== undefined) tried++;
      break;
    }
  }
  expect(tried).toBeGreaterThan(seedsOf(500).length / 5);
});

test('what recurs too often to be expanded, or in no zone, is refused before anything is planned by it', () => {
  const of = (rule: string, zone = 'UTC') => findRecurrenceFault({ zone, start: '2031-03-10T00:00', rule });
  expect(of('FREQ=DAILY')).toBeUndefined();
  expect(of('FREQ=MINUTELY')).toBe('rule');
  expect(of('FREQ=DAILY;BYHOUR=0,1,2,3,4,5,6,7,8,9,10,11')).toBe('rule');
  expect(of('FREQ=WEEKLY;BYDAY=TU')).toBe('not an instance');
  expect(of('FREQ=DAILY', 'Nowhere/Atall')).toBe('zone');
  const demo = JSON.parse(readFileSync('demo/saltmarsh.json', 'utf8')) as {
    calendars: { windows: { rule: string }[] }[];
  };
  demo.calendars[1]!.windows[0]!.rule = 'FREQ=SECONDLY';
  expect(parseWorkspace(JSON.stringify(demo))).toMatchObject({
    ok: false,
    issues: [{ code: 'window-rule' }]
  });
});

test('freezes of the estate bind a calendar of a team: its nights are left out', () => {
  const own = {
    id: 'a',
    team: 't',
    zone: 'UTC',
    windows: [{ id: 'w', start: '2031-03-10T22:00', rule: 'FREQ=DAILY', minutes: 60 }]
  };
  const all = { id: 'b', zone: 'UTC', windows: [], freezes: [{ first: '2031-03-11', last: '2031-03-12' }] };
  const days = (c: ReturnType<typeof calendarOf>) => [...c.from(today, today + 3)].map((o) => o.day - today);
  expect(days(calendarOf(own))).toEqual([0, 1, 2, 3]);
  expect(days(calendarOf(own, [all]))).toEqual([0, 3]);
});

const today = parseDay('2031-03-10') as number;

/** A cheap right that takes long and can be ordered until a day, beside a dear one that is there at once. */
function turningCase(calendar: boolean) {
  const said = {
    case: 'turning',
    ...(calendar ? { windows: [['MO TU WE TH FR', '22:00', 240]] as const } : {})
  };
  const made = inputOf({ ...said, ends: '2031-05-10' });
  const [product] = made.catalogue.products;
  const rights = [
    { id: 'slow', kind: 'purchase', priceCents: 100, leadDays: 60, counts: 'order day', until: '2031-04-20' },
    { id: 'quick', kind: 'purchase', priceCents: 900 }
  ];
  const catalogue = { ...made.catalogue, products: [{ ...product, rights }] } as typeof made.catalogue;
  const estate = calendar ? made.estate : { ...made.estate, calendars: [] };
  return { catalogue, estate, today: made.today };
}

test.each([
  ['on any days', false, '2031-05-10'],
  ['in windows', true, '2031-05-09']
])(
  'an earlier start fails where a later holds: a cheap right is waited for too long; %s',
  (_, calendar, latest) => {
    const { plan: made, lookInto } = planInDepth(turningCase(calendar));
    const [one] = made.cases;
    // Ordered by the 11th of March the cheap right is there on the 10th of May; from then to its last day it comes too late.
    expect(formatDay(one?.latestStart as number)).toBe(latest);
    const fails = one && lookInto(one)?.eaten?.fails.map((days) => days.map(formatDay));
    expect(fails?.[0]?.[1]).toBe('2031-04-20');
    expect(fails?.length).toBe(1);
  }
);
