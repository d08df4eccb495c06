import type { Hop, Product, Release } from '../../src/core/catalogue/schema';
import type { Fact, SystemCompanion } from '../../src/core/estate/schema';
import { formatDay, type Day } from '../../src/core/date/day';
import type { Truth } from '../../src/core/condition/truth';
import type { Checked } from '../../src/core/estate/checked';
import { foldText } from '../../src/core/version/words';
import { Random } from './random';

/** What a random world asks of its system, what the system has, and what is decided; drawn apart from the world itself. */
export interface WorldNeeds {
  readonly product: Pick<Product, 'requirements' | 'cautions' | 'companions' | 'offers' | 'models'>;
  readonly facts: Readonly<Record<string, Fact>>;
  /** What nodes state of themselves, one a node; none where none is told by name. */
  readonly nodes: readonly Readonly<Record<string, Fact>>[];
  /** What tools say; companions by folded name. */
  readonly checked: Checked;
  /** Facts observed too long ago. */
  readonly stale: ReadonlySet<string>;
  readonly companions: readonly SystemCompanion[];
  readonly whole: boolean;
  /** Ids accepted, waived and ignored, with their last day. */
  readonly accepted: ReadonlyMap<string, Day>;
  readonly waived: ReadonlyMap<string, Day>;
  readonly ignored: ReadonlyMap<string, Day>;
  /** What hops use, set and are withheld from, by id. */
  readonly hops: ReadonlyMap<string, Pick<Hop, 'uses' | 'takes' | 'sets' | 'withheld' | 'doing'>>;
}

export const NO_NEEDS: WorldNeeds = {
  product: {},
  facts: {},
  nodes: [],
  stale: new Set(),
  checked: { requirements: new Map(), companions: new Map(), unplaced: [] },
  companions: [],
  whole: true,
  accepted: new Map(),
  waived: new Map(),
  ignored: new Map(),
  hops: new Map()
};

type Requirement = NonNullable<Product['requirements']>[number];
type Cure = NonNullable<Requirement['cures']>[number];

/** Draws the needs of a world; a third of the worlds have none. */
export function needsOf(seed: number, base: Product, today: Day): WorldNeeds {
  const r = new Random(seed * 6151 + 29);
  if (r.chance(0.52)) return NO_NEEDS;
  const { releases } = base;
  const requirements = Array.from({ length: r.int(1, 3) }, (_, i) => requirementOf(r, `q${i}`, base));
  const ids = requirements.map((q) => q.id);
  const some = (list: readonly string[], share: number): ReadonlyMap<string, Day> =>
    new Map(r.some(list, share).map((id) => [id, r.chance(0.6) ? Infinity : today + r.int(0, 40)]));
  const companions = r.chance(0.45)
    ? Array.from({ length: r.int(1, 2) }, (_, i) => companionOf(r, `k${i}`, releases))
    : [];
  const cautions = r.chance(0.45)
    ? Array.from({ length: r.int(1, 2) }, (_, i) => cautionOf(r, i, releases))
    : [];
  return {
    product: {
      requirements,
      ...(companions.length > 0 ? { companions } : {}),
      ...(cautions.length > 0 ? { cautions } : {}),
      ...(r.chance(0.25) && (base.hops?.length ?? 0) > 0 ? { offers: [offerOf(r, base, today)] } : {}),
      ...(r.chance(0.3) ? { models: [{ id: 'M2', limits: { memory: r.pick(['8 GB', '64 GB']) } }] } : {})
    },
    facts: factsOf(r),
    ...furtherOf(seed),
    checked: checkedOf(seed, ids, companions),
    companions: companions.flatMap((c) =>
      r.chance(0.4) ? [{ name: c.name, ...(r.chance(0.2) ? { essential: r.chance(0.5) } : {}) }] : []
    ),
    whole: r.chance(0.75),
    accepted: some(ids, 0.12),
    waived: some(ids, 0.08),
    ignored: some([...companions.map((c) => c.id), ...cautions.map((c) => c.id), 'odd'], 0.12),
    hops: new Map((base.hops ?? []).map((h) => [h.id, extrasOf(r, today)]))
  };
}

function factsOf(r: Random): Record<string, Fact> {
  const facts: Record<string, Fact> = {};
  const draw = (id: string, values: readonly (string | boolean)[], unknown: number): void => {
    if (r.chance(unknown)) facts[id] = { unknown: 'not asked' };
    else if (r.chance(0.06))
      facts[id] = {
        statements: [
          { value: values[0] as string, source: 'a' },
          { value: values.at(-1) as string, source: 'b' }
        ]
      };
    else facts[id] = { value: r.pick(values) };
  };
  draw('memory', ['2 GB', '4 GB', '8 GB', '16 GB'], 0.15);
  draw('disk.free.system', ['5 GB', '15 GB', '30 GB', '60 GB'], 0.12);
  draw('security-part', ['on', 'off', 'off', 'absent'], 0.12);
  draw('setting.x', ['on', 'on', 'off'], 0.15);
  draw('model', ['M1', 'M2', 'M3'], 0.15);
  return facts;
}

function checkedOf(
  seed: number,
  requirements: readonly string[],
  companions: readonly { readonly name: string }[]
): Checked {
  const r = new Random(seed * 2833 + 41);
  if (!r.chance(0.35)) return NO_NEEDS.checked;
  const said = (names: readonly string[]): Map<string, Truth> =>
    new Map(r.some(names, 0.5).map((n) => [n, r.pick(['yes', 'yes', 'no'] as const)]));
  return {
    requirements: said(requirements),
    companions: said(companions.map((c) => foldText(c.name))),
    unplaced: r.chance(0.12) ? ['odd'] : []
  };
}

/** Drawn apart, so that the worlds stay what they were. */
function furtherOf(seed: number): Pick<WorldNeeds, 'nodes' | 'stale'> {
  const r = new Random(seed * 4133 + 11);
  const fact = (values: readonly string[]): Fact =>
    r.chance(0.15) ? { unknown: 'not asked' } : { value: r.pick(values) };
  const node = (): Record<string, Fact> => ({
    ...(r.chance(0.7) ? { memory: fact(['2 GB', '4 GB', '8 GB', '16 GB']) } : {}),
    ...(r.chance(0.4) ? { 'security-part': fact(['on', 'off', 'absent']) } : {}),
    ...(r.chance(0.4) ? { 'disk.free.system': fact(['5 GB', '15 GB', '60 GB']) } : {})
  });
  return {
    nodes: r.chance(0.22) ? Array.from({ length: 2 }, node) : [],
    stale: new Set(
      r.some(['memory', 'disk.free.system', 'security-part', 'setting.x'], r.chance(0.3) ? 0.4 : 0)
    )
  };
}

const NEEDS = [
  'memory at least 4 GB',
  'memory at least 8 GB',
  'disk.free.system at least 10 GB',
  'disk.free.system at least 20 GB',
  'security-part is on',
  'setting.x is on',
  'memory at least 8 GB and setting.x is on',
  'memory at least 16 GB or security-part is on'
];

const hopsIn = (base: Product): string[] => (base.hops ?? []).map((h) => h.id);

function requirementOf(r: Random, id: string, base: Product): Requirement {
  const needs = r.chance(0.06) ? 'unknown' : r.pick(NEEDS);
  const editions = (base.editions ?? []).map((e) => e.id);
  return {
    id,
    at: r.chance(0.15) ? 'any' : `from ${r.pick(base.releases).id}`,
    ...(r.chance(0.2) ? { methods: [r.pick(['in place', 'fresh install'] as const)] } : {}),
    ...(editions.length > 1 && r.chance(0.2) ? { editions: [r.pick(editions)] } : {}),
    ...(r.aside().chance(0.12) ? { hops: r.aside().some(hopsIn(base), 0.6).concat('nowhere') } : {}),
    ...(r.chance(0.25)
      ? {
          when: r.pick([
            'model is not M1',
            'model is M2',
            'setting.x is off',
            'edition is low',
            'memory at most 12 GB'
          ])
        }
      : {}),
    needs,
    grade: r.pick(['blocks', 'blocks', 'warning', 'degrades', 'loses', 'advises'] as const),
    ...(r.chance(0.15)
      ? {
          site: {
            needs: 'memory at least 8 GB',
            ...(r.chance(0.5) ? { grade: r.pick(['warning', 'degrades'] as const) } : {})
          }
        }
      : {}),
    cures: curesOf(r, id, needs)
  };
}

function curesOf(r: Random, id: string, needs: string): Cure[] {
  const cures: Cure[] = [];
  const purchase = (fact: string, raise: string, n: number): Cure => ({
    id: `${id}-c${n}`,
    kind: 'purchase',
    how: 'buy',
    fact,
    raise,
    ...(r.chance(0.85) ? { costCents: r.int(1, 5) * 1000 } : {}),
    minutes: r.pick([10, 30, 700]),
    ...(r.chance(0.4) ? { leadDays: r.int(1, 40) } : {}),
    ...(r.chance(0.4) ? { limits: { M1: r.pick(['4 GB', '8 GB', '32 GB']), M2: '32 GB' } } : {})
  });
  if (needs.includes('memory') && r.chance(0.8)) cures.push(purchase('memory', '8 GB', 1));
  if (needs.includes('memory') && r.chance(0.5)) cures.push(purchase('memory', '16 GB', 2));
  if (needs.includes('disk') && r.chance(0.8))
    cures.push({
      id: `${id}-c3`,
      kind: 'clean-up',
      how: 'clean',
      fact: 'disk.free.system',
      raise: r.pick(['15 GB', '40 GB']),
      minutes: 15,
      closesWayBack: r.chance(0.5)
    });
  if (needs.includes('security') && r.chance(0.8))
    cures.push({ id: `${id}-c4`, kind: 'setting', how: 'set', fact: 'security-part', set: 'on', minutes: 5 });
  if (needs.includes('setting') && r.chance(0.7))
    cures.push({ id: `${id}-c5`, kind: 'setting', how: 'set', fact: 'setting.x', set: 'on', minutes: 5 });
  const own = r.aside();
  if (needs.includes('security') && own.chance(0.4))
    cures.push({
      id: `${id}-c7`,
      kind: 'purchase',
      how: 'put in',
      fact: 'security-part',
      set: 'on',
      costCents: 3000,
      minutes: 40
    });
  for (const [i, cure] of cures.entries())
    if (own.chance(0.22))
      cures[i] = {
        ...cure,
        when: own.pick([
          'model is not M1',
          'model is M2',
          'setting.x is off',
          'security-part is present',
          'memory at least 4 GB'
        ])
      };
  if (r.chance(0.1))
    cures.push({
      id: `${id}-c6`,
      kind: 'replacement',
      how: 'replace',
      fact: 'memory',
      raise: '64 GB',
      minutes: 10
    });
  return cures;
}

function companionOf(
  r: Random,
  id: string,
  releases: readonly Release[]
): NonNullable<Product['companions']>[number] {
  const verdict = () =>
    r.pick([
      'works',
      r.aside().chance(0.4) ? 'reinstall' : 'works',
      'after update',
      'with less',
      'does not work',
      r.aside().chance(0.4) ? 'remove first' : 'does not work'
    ] as const);
  const at = () => (r.chance(0.5) ? `from ${r.pick(releases).id}` : r.pick(releases).id);
  return {
    id,
    name: `Thing ${id}`,
    kind: r.aside().chance(0.5) ? 'application' : 'device',
    essential: r.chance(0.4),
    fares: [
      {
        at: at(),
        verdict: verdict(),
        ...(r.aside().chance(0.6) ? { minutes: 45, needsKey: true } : {}),
        ...(r.chance(0.35) ? { when: r.pick(['model is M1', 'setting.x is on']) } : {})
      },
      ...(r.chance(0.8) ? [{ at: 'any', verdict: verdict() }] : [])
    ]
  };
}

const cautionOf = (
  r: Random,
  n: number,
  releases: readonly Release[]
): NonNullable<Product['cautions']>[number] => ({
  id: `w${n}`,
  name: `Caution ${n}`,
  ...(r.chance(0.4) ? { from: `up to ${r.pick(releases).id}` } : {}),
  to: `from ${r.pick(releases).id}`,
  ...(r.chance(0.5) ? { when: r.pick(['setting.x is on', 'model is M2']) } : {}),
  consequence: 'stall',
  ...(n === 0 && r.chance(0.5) ? { after: ['w1'] } : {}),
  ...(r.chance(0.75)
    ? {
        workAround: {
          how: 'do',
          typicalMinutes: 10,
          carefulMinutes: r.pick([20, 1400]),
          // Every other one that is done once for the system follows the step.
          ...(r.aside().chance(0.4)
            ? { per: 'system', ...(n % 2 === 1 ? { behind: true as const } : {}) }
            : {})
        }
      }
    : {})
});

const offerOf = (r: Random, base: Product, today: Day): NonNullable<Product['offers']>[number] => ({
  id: 'staged',
  hops: r
    .some(base.hops ?? [], 0.5)
    .map((h) => h.id)
    .concat((base.hops ?? [])[0]?.id ?? ''),
  begins: formatDay(today + r.int(-40, 30)),
  ...(r.chance(0.7) ? { complete: formatDay(today + r.int(-10, 90)) } : {}),
  ...(r.chance(0.5) ? { firstTo: r.pick(['model is M2', 'memory at least 8 GB']) } : {})
});

const extrasOf = (r: Random, today: Day): Pick<Hop, 'uses' | 'takes' | 'sets' | 'withheld' | 'doing'> => {
  const minutes = r.aside().chance(0.3) ? { backUpMinutes: 60, copyBackMinutes: 400 } : {};
  const extras = drawExtras(r, today);
  return Object.keys(minutes).length > 0 ? { ...extras, doing: { ...extras.doing, ...minutes } } : extras;
};

const drawExtras = (r: Random, today: Day): Pick<Hop, 'uses' | 'takes' | 'sets' | 'withheld' | 'doing'> => ({
  ...(r.chance(0.2) ? { uses: { 'disk.free.system': r.pick(['4 GB', '12 GB', '25 GB']) } } : {}),
  ...(r.aside().chance(0.12)
    ? { takes: { 'disk.free.system': r.aside().pick(['6 GB', ['4 GB', '9 GB'], ['20 GB', '5 GB']]) } }
    : {}),
  ...(r.chance(0.15) ? { sets: { 'setting.x': r.pick(['on', 'off']) } } : {}),
  ...(r.chance(0.12)
    ? {
        withheld: {
          from: r.pick(['model is M1', 'setting.x is off']),
          ...(r.chance(0.6) ? { until: formatDay(today + r.int(5, 60)) } : {})
        }
      }
    : {}),
  ...(r.chance(0.3)
    ? {
        doing: {
          obtain: [{ way: 'offer' as const }, ...(r.chance(0.5) ? [{ way: 'by hand' as const }] : [])]
        }
      }
    : {})
});
