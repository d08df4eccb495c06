/** Writes demo/saltmarsh.json from the list below: `npx tsx scripts/make-demo.ts`. A test says whether it is current. */
import { readFileSync, writeFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { DEFAULT_GOAL, type Estate, type Reading, type System } from '../src/core/estate/schema';
import { formatWorkspace, parseWorkspace } from '../src/core/exchange/workspace-file';

type Row = [
  count: number,
  stem: string,
  team: string,
  product: string,
  release: string,
  patch: string,
  edition: string,
  extra?: Partial<System>
];

const CATALOGUE = 'demo/catalogue.yaml';
const unknown = (why: 'not asked' | 'no access' | 'place empty' | 'not understood'): Reading => ({
  unknown: why
});
const activated = (value: boolean): Partial<System> => ({
  facts: { activated: { value, day: '2031-02-20' } }
});

const ROWS: Row[] = [
  [9, 'draw', 'Drawing office', 'garnock-desk', '4', 'r1', 'studio', activated(true)],
  [5, 'tick', 'Ticket office', 'garnock-desk', '4', 'r1', 'studio', activated(true)],
  [17, 'tick', 'Ticket office', 'garnock-desk', '4', 'r2', 'plain', activated(true)],
  [
    3,
    'tick',
    'Ticket office',
    'garnock-desk',
    '4',
    '?',
    'plain',
    { ...activated(true), patch: unknown('not asked') }
  ],
  [4, 'east', 'East depot', 'garnock-desk', '3', 'r5', 'office', activated(true)],
  [3, 'west', 'West depot', 'garnock-desk', '3', 'r2', 'plain', activated(false)],
  [1, 'west', 'West depot', 'garnock-desk', '3', 'r5', 'plain', activated(true)],
  [6, 'ctrl', 'Control room', 'garnock-desk', '5', 'base', 'studio', activated(true)],
  [
    2,
    'ctrl',
    'Control room',
    'garnock-desk',
    '5',
    'r1',
    'plain',
    { facts: { activated: { unknown: 'not asked' } } }
  ],
  [5, 'board', 'Board room', 'garnock-desk', '6', 'r1', 'bureau', activated(true)],
  [
    2,
    'hall',
    'Ticket office',
    'garnock-desk',
    '?',
    '?',
    '?',
    {
      release: { oneOf: ['4', '5'] },
      patch: unknown('not asked'),
      edition: unknown('not asked'),
      installedText: 'Garnock Desk four or five'
    }
  ],
  [3, 'rack', 'Machine room', 'brindle-server', '7', 'u4', 'only'],
  [2, 'clock', 'Machine room', 'brindle-server', '6', 'base', 'only'],
  [4, 'web', 'Machine room', 'brindle-server', '8', 'base', 'only'],
  [3, 'sign', 'Control room', 'brindle-server', '9', 'base', 'only'],
  [1, 'trial', 'Machine room', 'brindle-server', '9', 'base', 'only'],
  [1, 'shelf-north', 'Machine room', 'ossian-shelf', '31.4', 'p7', 'only', { nodes: 2 }],
  [1, 'shelf-south', 'Machine room', 'ossian-shelf', '31.4', 'p9', 'only', { nodes: 2 }],
  [1, 'shelf-depot', 'East depot', 'ossian-shelf', '31.2', 'base', 'only', { nodes: 2 }],
  [1, 'shelf-lab', 'Machine room', 'ossian-shelf', '31.5e', 'base', 'only', { nodes: 2 }],
  [
    4,
    'recorder',
    'Control room',
    '?',
    '?',
    '?',
    '?',
    {
      installedText: 'Signal recorder 2.1',
      product: unknown('not understood'),
      note: 'Nobody can log in to these.'
    }
  ]
];

const reading = (id: string): Reading => (id === '?' ? unknown('not asked') : { is: id });

/** The demo's estate, before anybody changes it. */
export function makeDemoEstate(): Estate {
  const numbers = new Map<string, number>();
  const systems = ROWS.flatMap(([count, stem, team, product, release, patch, edition, extra]) =>
    Array.from({ length: count }, (): System => {
      const number = (numbers.get(stem) ?? 0) + 1;
      numbers.set(stem, number);
      const id = stem.includes('-') ? stem : `${stem}-${String(number).padStart(2, '0')}`;
      const readings = {
        product: reading(product),
        release: reading(release),
        patch: reading(patch),
        edition: reading(edition),
        architecture: reading(product === '?' ? '?' : 'only')
      };
      return {
        id,
        name: id,
        team,
        observed: '2031-02-20',
        source: 'walk-round, February',
        ...readings,
        ...extra
      };
    })
  );
  return {
    site: { name: 'Saltmarsh Valley Tramways', asOf: '2031-03-10', countsExpected: true },
    systems,
    goals: [
      DEFAULT_GOAL,
      { ...DEFAULT_GOAL, id: 'drawing-office', team: 'Drawing office', edition: 'bureau' }
    ],
    decisions: [
      {
        id: 'trial-ten',
        kind: 'choose a target',
        scope: { system: 'trial-01' },
        target: { release: '10', edition: 'only', architecture: 'only' },
        reason: 'Tries the next release first.',
        who: 'machine room',
        day: '2031-02-28'
      }
    ],
    rightsHeld: [
      { right: 'shelf-care', held: 1 },
      { right: 'desk-offer-5', held: 6 }
    ]
  };
}

/** The demo's workspace file; read once, so that its keys stand in the schema's order. */
export function makeDemoText(): string {
  const catalogue = { fileName: 'catalogue.yaml', text: readFileSync(CATALOGUE, 'utf8') };
  const read = parseWorkspace(formatWorkspace(makeDemoEstate(), catalogue));
  if (!read.ok) throw new Error(JSON.stringify(read.issues));
  const { site, systems, goals, decisions, rightsHeld } = read.value;
  return formatWorkspace({ site, systems, goals, decisions, rightsHeld }, catalogue);
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href)
  writeFileSync('demo/saltmarsh.json', makeDemoText());
