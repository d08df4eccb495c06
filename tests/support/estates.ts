import type { Catalogue, Product } from '../../src/core/catalogue/schema';
import {
  DEFAULT_GOAL,
  UNKNOWN_WHY,
  type Estate,
  type Fact,
  type Link,
  type Reading,
  type System
} from '../../src/core/estate/schema';
import type { Random } from './random';

const FACTS: readonly [string, readonly string[]][] = [
  ['memory', ['4 GB', '8 GB', '8192 MB', '16 GB']],
  ['disk.total', ['240 GB', '500 GB', '1 TB']],
  ['security-part', ['on', 'off', 'absent']],
  ['backup.finished', ['2031-02-01', '2031-03-01']],
  ['processor.model', ['Quill 40', 'Stanza M2', '=Stanza; "odd", one']],
  ['model.year', ['2026', '2030']]
];
const SOURCES = ['walk', 'list', 'tool'];

/** A made-up estate over a catalogue's products; every kind of record the schema has turns up. */
export function makeEstate(r: Random, catalogue: Catalogue, count: number): Estate {
  const systems = Array.from({ length: count }, (_, i) =>
    makeSystem(r, r.pick(catalogue.products), i, count)
  );
  return {
    site: { name: r.pick(['North', 'South']), asOf: '2031-03-10', countsExpected: r.chance(0.5) },
    systems,
    goals: [DEFAULT_GOAL, { ...DEFAULT_GOAL, id: 'team-a', team: 'Team A', settlingDays: r.pick([0, 28]) }],
    decisions: [
      {
        id: 'd1',
        kind: 'stay',
        scope: r.pick([{ system: 's0' }, { system: 's3' }]),
        day: '2031-03-01',
        ...(r.chance(0.5) ? { reason: r.pick(['x', 'y']) } : {})
      },
      {
        id: 'd2',
        kind: 'rule',
        scope: { system: 's1', fact: 'memory' },
        holds: r.pick(SOURCES),
        day: '2031-03-02'
      }
    ],
    rightsHeld: [{ right: 'r', held: r.int(0, 5), ...(r.chance(0.5) ? { pool: 'p' } : {}) }],
    ...(r.chance(0.5)
      ? {
          questions: [
            {
              id: 'q1',
              text: r.pick(['Which?', 'How many?']),
              asked: '2031-03-01',
              ...(r.chance(0.5) ? { owner: r.pick(['a', 'b']) } : {})
            }
          ]
        }
      : {}),
    ...(r.chance(0.5)
      ? {
          whatIfs: [
            {
              id: 'w1',
              name: r.pick(['Buy memory', 'Wait']),
              day: '2031-03-01',
              changes: [
                r.pick([{ fact: 'memory', value: '16 GB', systems: ['s0'] }, { today: '2031-09-01' }])
              ]
            }
          ],
          rechecks: [{ id: 'k1', day: '2031-03-01', items: [{ item: 'p/q', fails: [r.pick(['s0', 's1'])] }] }]
        }
      : {}),
    ...(r.chance(0.3)
      ? {
          locks: [
            {
              id: r.pick(['l1', 'l2']),
              systems: [r.pick(['s0', 's1'])],
              must: r.pick([{ on: '2031-04-01' }, { notAfter: '2031-05-01' }, { apartFrom: ['s2'] }]),
              day: '2031-03-01'
            }
          ]
        }
      : {}),
    ...(r.chance(0.5)
      ? {
          lists: [
            {
              list: 'spring',
              headings: ['Name'],
              columns: { name: 0 },
              day: r.pick(['2031-03-01', '2031-03-02'])
            }
          ]
        }
      : {})
  };
}

function makeSystem(r: Random, product: Product, index: number, count: number): System {
  const known = r.chance(0.85);
  const release = r.pick(product.releases);
  const is = (id: string | undefined): Reading =>
    id === undefined || r.chance(0.1) ? { unknown: r.pick(UNKNOWN_WHY) } : { is: id };
  const none: Reading = { unknown: 'not understood' };
  const releases: Reading = r.chance(0.1)
    ? { oneOf: [...new Set([release.id, r.pick(product.releases).id])] }
    : is(release.id);
  const facts = Object.fromEntries(r.some(FACTS, 0.4).map(([id, values]) => [id, makeFact(r, values)]));
  const links = r.chance(0.3) ? [makeLink(r, index, count)] : undefined;
  return {
    id: `s${index}`,
    name: r.chance(0.1) ? `=machine ${index}, "odd"` : `machine-${index}`,
    product: known ? { is: product.id } : none,
    release: known ? releases : none,
    patch: known
      ? 'is' in releases
        ? is(r.pick(['base', ...(release.patches ?? []).map((p) => p.id)]))
        : { unknown: 'not asked' }
      : none,
    edition: known ? is((product.editions ?? [{ id: 'only' }])[0]?.id) : none,
    architecture: known ? is((product.architectures ?? [{ id: 'only' }])[0]?.id) : none,
    ...(known ? {} : { installedText: `Nobody's box ${r.int(1, 3)}` }),
    ...(r.chance(0.7) ? { team: r.pick(['Team A', 'Team; B']) } : {}),
    ...(r.chance(0.3) ? { site: 'East, upstairs' } : {}),
    ...(r.chance(0.5) ? { observed: r.pick(['2031-02-01', '2031-02-20']) } : {}),
    ...(r.chance(0.5) ? { source: r.pick(SOURCES) } : {}),
    ...(r.chance(0.2) ? { nodes: r.int(2, 4) } : {}),
    ...(Object.keys(facts).length > 0 ? { facts } : {}),
    ...(links ? { links } : {}),
    ...(r.chance(0.3)
      ? { companions: [{ name: r.pick(['plotter', 'scanner; big']), version: r.pick(['2', '3']) }] }
      : {}),
    ...(r.chance(0.2)
      ? {
          members: [
            { name: 'n1', facts: { memory: makeFact(r, ['4 GB', '8 GB']) } },
            { name: r.pick(['n2', 'n3']) }
          ]
        }
      : {}),
    ...(r.chance(0.2)
      ? {
          checks: [
            {
              id: 'c1',
              tool: r.pick(['probe', 'sweep']),
              day: '2031-03-01',
              items: [{ what: 'x', result: 'pass' as const }]
            }
          ]
        }
      : {}),
    ...(r.chance(0.3) ? { note: r.pick(['-5 degrees', '@home', "'quoted", 'two\nlines']) } : {}),
    ...(r.chance(0.2) ? { history: [{ day: '2031-02-01', kind: 'changed' as const, was: 'older' }] } : {})
  };
}

function makeFact(r: Random, values: readonly string[]): Fact {
  if (r.chance(0.15)) return { unknown: r.pick(UNKNOWN_WHY) };
  const said = (source: string) => ({
    value: r.pick(values),
    source,
    ...(r.chance(0.7) ? { day: r.pick(['2031-02-01', '2031-02-20']) } : {})
  });
  if (r.chance(0.2)) {
    const two = [said('walk'), said('tool')];
    if (two[0]?.value !== two[1]?.value) return { statements: two };
  }
  return said(r.pick(SOURCES));
}

function makeLink(r: Random, index: number, count: number): Link {
  const kind = r.pick(['hosted on', 'managed by', 'peer of'] as const);
  return r.chance(0.15) ? { kind, absent: true } : { kind, to: `s${(index + r.int(1, count - 1)) % count}` };
}
