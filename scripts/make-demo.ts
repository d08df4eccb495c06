/** Writes demo/saltmarsh.json from demo-rows.ts: `npx tsx scripts/make-demo.ts`. A test says whether it is current. */
import { readFileSync, writeFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { DEFAULT_GOAL, type Estate, type Reading, type System } from '../src/core/estate/schema';
import { DEMO_ROWS, usualOf } from './demo-rows';
import { formatWorkspace, parseWorkspace } from '../src/core/exchange/workspace-file';

const CATALOGUE = 'demo/catalogue.yaml';
/** One of a kind, or named for its place: no number behind it. */
const SINGLE = new Set(
  DEMO_ROWS.filter(([count, stem]) => count === 1 && DEMO_ROWS.filter((r) => r[1] === stem).length === 1).map(
    (r) => r[1]
  )
);
const unknown = (why: 'not asked'): Reading => ({ unknown: why });

const reading = (id: string): Reading => (id === '?' ? unknown('not asked') : { is: id });

/** The demo's estate, before anybody changes it. */
export function makeDemoEstate(): Estate {
  const numbers = new Map<string, number>();
  const systems = DEMO_ROWS.flatMap(([count, stem, team, product, release, patch, edition, extra]) =>
    Array.from({ length: count }, (): System => {
      const number = (numbers.get(stem) ?? 0) + 1;
      numbers.set(stem, number);
      const id = SINGLE.has(stem) && stem !== 'trial' ? stem : `${stem}-${String(number).padStart(2, '0')}`;
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
        ...usualOf(product, extra ?? {})
      };
    })
  );
  return {
    site: {
      name: 'Saltmarsh Valley Tramways',
      asOf: '2031-03-10',
      countsExpected: true,
      newMachineCents: 84_000,
      replaceShare: 45
    },
    systems,
    goals: [
      DEFAULT_GOAL,
      {
        ...DEFAULT_GOAL,
        id: 'drawing-office',
        team: 'Drawing office',
        targets: [{ product: 'garnock-desk', release: '6', edition: 'bureau' }]
      },
      { ...DEFAULT_GOAL, id: 'stops', team: 'Stops', accepts: 'nothing', settlingDays: 60 },
      {
        ...DEFAULT_GOAL,
        id: 'control-room',
        team: 'Control room',
        mustKeep: 'settings and data',
        importance: 'critical'
      },
      {
        ...DEFAULT_GOAL,
        id: 'east-depot',
        team: 'East depot',
        pilots: { systems: 2, watchDays: 14 }
      },
      {
        ...DEFAULT_GOAL,
        id: 'board-room',
        team: 'Board room',
        rule: 'nearest in full service',
        keepBack: { systems: 1, until: '2031-06-30' }
      }
    ],
    calendars: [
      {
        id: 'estate',
        zone: 'Europe/Lisbon',
        windows: [],
        freezes: [{ first: '2031-12-13', last: '2032-01-02', reason: 'new timetable' }]
      },
      {
        id: 'control-room',
        team: 'Control room',
        zone: 'Europe/Lisbon',
        windows: [
          {
            id: 'week-nights',
            name: 'Between the last tram and the first',
            start: '2031-01-06T23:30',
            rule: 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH',
            minutes: 300,
            crew: { name: 'the night crew', systems: 2 }
          }
        ],
        freezes: [{ first: '2031-04-14', last: '2031-04-20', reason: 'the fair' }]
      }
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
      },
      {
        id: 'survey-own-test',
        kind: 'rule',
        scope: { system: 'survey-02', fact: 'security-part' },
        holds: 'own test',
        reason: 'Looked at in the firmware itself.',
        who: 'workshop',
        day: '2031-02-26'
      },
      {
        id: 'cad-processor',
        kind: 'assume',
        scope: { system: 'cad-06', fact: 'processor.speed' },
        value: '3 GHz',
        reason: 'Bought together with cad-07.',
        who: 'drawing office',
        day: '2031-02-24',
        until: '2031-06-30'
      },
      {
        id: 'viewer-gone',
        kind: 'ignore',
        scope: { system: 'cad-06', companion: 'Sheet viewer 2' },
        reason: 'Nobody uses it any more.',
        who: 'drawing office',
        day: '2031-02-24'
      },
      {
        id: 'viewer-in-place',
        kind: 'choose a route',
        scope: { system: 'cad-06' },
        route: [{ step: 'draft-22-23' }],
        reason: 'In place, so that the stamps stay where they are.',
        who: 'drawing office',
        day: '2031-02-10'
      },
      {
        id: 'cable-shelves',
        kind: 'accept',
        scope: { system: 'shelf-north' },
        about: 'ossian-shelf/requirements/shelf-cable',
        reason: 'The cables are the short ones; looked at.',
        who: 'machine room',
        day: '2031-03-01',
        until: '2031-05-31'
      },
      {
        id: 'cable-south',
        kind: 'accept',
        scope: { system: 'shelf-south' },
        about: 'ossian-shelf/requirements/shelf-cable',
        reason: 'The cables are the short ones; looked at.',
        who: 'machine room',
        day: '2031-03-01'
      },
      {
        id: 'terminal-memory',
        kind: 'rule',
        scope: { entry: 'pellow-terminal/requirements/term-memory' },
        holds: 'pellow-bench',
        reason: 'With two it stood still at the third stop.',
        who: 'workshop',
        day: '2031-02-12'
      },
      {
        id: 'radio-stays',
        kind: 'stay',
        scope: { system: 'radio-01' },
        reason: 'Goes with the tram it sits in.',
        who: 'control room',
        day: '2030-09-01',
        until: '2031-02-28'
      }
    ],
    rightsHeld: [
      { right: 'shelf-care', held: 1 },
      { right: 'desk-offer-5', held: 6 },
      { right: 'draft-pool', held: 2, product: 'marram-draft' },
      {
        right: 'door-cottage-units',
        held: 12,
        product: 'hollin-door',
        pool: 'cottage units',
        edition: 'cottage',
        note: 'Left over; no use for Terrace.'
      },
      { right: 'door-units', held: 24, product: 'hollin-door', pool: 'terrace units', edition: 'terrace' },
      {
        right: 'door-units',
        held: 8,
        product: 'hollin-door',
        pool: 'terrace units',
        edition: 'terrace',
        site: 'Harbour',
        until: '2031-06-30',
        note: 'Came with the Harbour controller.'
      },
      {
        right: 'draft-up',
        held: 4,
        product: 'marram-draft',
        edition: 'site',
        team: 'Survey',
        until: '2031-12-31'
      },
      { right: 'door-crescent', held: 1, product: 'hollin-door' },
      ...[
        'keeper-care',
        'host-care',
        'mirror-care',
        'hub-care',
        'content-care',
        'watch-care',
        'ledger-care'
      ].map((right) => ({ right, held: 1, until: '2031-12-31' }))
    ],
    questions: [
      {
        id: 'q1',
        text: 'Which version do the signal recorders run, and who has the account?',
        system: 'recorder-01',
        owner: 'control room',
        due: '2031-03-21',
        asked: '2031-02-20'
      },
      {
        id: 'q2',
        text: 'Is the hub’s back-up any good? Restore one.',
        about: 'windlass-hub/backup.restored',
        system: 'hub',
        owner: 'machine room',
        due: '2031-03-07',
        asked: '2031-02-27'
      },
      {
        id: 'q3',
        text: 'Does the Door 5 in the old shed have a right to go on?',
        system: 'door-old',
        owner: 'Hollin dealer',
        asked: '2031-02-21'
      },
      {
        id: 'q4',
        text: 'How many trays has the depot shelf?',
        system: 'shelf-depot',
        owner: 'machine room',
        asked: '2031-02-10',
        answer: 'Three.',
        answered: '2031-02-20'
      }
    ]
  };
}

/** The demo's workspace file; read once, so that its keys stand in the schema's order. */
export function makeDemoText(): string {
  const catalogue = { fileName: 'catalogue.yaml', text: readFileSync(CATALOGUE, 'utf8') };
  const read = parseWorkspace(formatWorkspace(makeDemoEstate(), catalogue));
  if (!read.ok) throw new Error(JSON.stringify(read.issues));
  const { format: _format, version: _version, catalogue: _catalogue, ...estate } = read.value;
  void [_format, _version, _catalogue];
  return formatWorkspace(estate, catalogue);
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href)
  writeFileSync('demo/saltmarsh.json', makeDemoText());
