import type { Check, Fact, Link, Reading, System } from '../src/core/estate/schema';

/** Alike systems of the demo: how many, their name without number, team, product, where they stand, and what else is known. */
export type DemoRow = [
  count: number,
  stem: string,
  team: string,
  product: string,
  release: string,
  patch: string,
  edition: string,
  extra?: Partial<System>
];

const WALK = { day: '2031-02-20', source: 'walk-round, February' } as const;
const unknown = (why: 'not asked' | 'no access' | 'place empty' | 'not understood'): Reading => ({
  unknown: why
});
const known = (
  values: Readonly<Record<string, string | boolean>>,
  said: object = WALK
): Record<string, Fact> =>
  Object.fromEntries(Object.entries(values).map(([id, value]) => [id, { value, ...said }]));
const activated = (value: boolean): Partial<System> => ({
  facts: { activated: { value, day: '2031-02-20' } }
});
const link = (kind: Link['kind'], to: string, as?: string): Link => ({ kind, to, ...(as ? { as } : {}) });
const wide = { architecture: { is: 'wide' } } as const;
const narrow = { architecture: { is: 'narrow' } } as const;

/** What the walk-round read of every machine of a product, where its row says nothing else. */
const USUAL: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  'garnock-desk': {
    memory: '8 GB',
    'disk.total': '240 GB',
    'disk.free.system': '70 GB',
    'disk.free.download': '40 GB',
    'firmware.checked-start': 'on',
    'graphics.level': '3'
  },
  'brindle-server': { memory: '8 GB', 'processor.bits': '64', 'network.kind': 'plain' },
  'ossian-shelf': { 'setting.hand-over': 'on', trays: '2' },
  'hollin-door': { 'setting.leads': 'off' }
};
/** Products whose companions were listed whole wherever any list was made, and where none is there otherwise. */
const LISTED = new Set(['garnock-desk', 'brindle-server', 'marram-draft', 'pellow-terminal']);
/** Rows that leave open what the others know. */
const OPEN: Partial<System> = { companionsWhole: false };

/** A row's system with what is usual for its product; nothing where the walk-round never came. */
export function usualOf(product: string, extra: Partial<System>): Partial<System> {
  if (!(product in USUAL) && !LISTED.has(product)) return extra;
  if ('release' in extra) return extra;
  const facts = { ...known(USUAL[product] ?? {}), ...extra.facts };
  return {
    ...(LISTED.has(product) ? { companionsWhole: true } : {}),
    ...extra,
    ...(Object.keys(facts).length > 0 ? { facts } : {})
  };
}

/** A desk as it stands since its facts were read. */
const desk = (facts: Readonly<Record<string, string | boolean>>): Partial<System> => ({
  facts: { activated: { value: true, day: '2031-02-20' }, ...known(facts) }
});

const DESKS: DemoRow[] = [
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
  [
    24,
    'shed',
    'East depot',
    'garnock-desk',
    '5',
    'r1',
    'plain',
    desk({
      model: 'Fellside 2',
      'model.year': '2026',
      memory: '4 GB',
      'disk.free.system': '9 GB',
      'disk.free.download': '11 GB',
      'disk.total': '240 GB',
      'firmware.checked-start': 'off'
    })
  ],
  [
    16,
    'fare',
    'East depot',
    'garnock-desk',
    '5',
    'r1',
    'plain',
    {
      ...desk({ model: 'Fellside 3', 'model.year': '2029', memory: '8 GB' }),
      ...OPEN,
      companions: [{ name: 'Fare table viewer', version: '4.2', keyInHand: true, ...WALK }]
    }
  ],
  [
    14,
    'yard',
    'West depot',
    'garnock-desk',
    '4',
    'r2',
    'plain',
    {
      ...desk({ model: 'Fellside 2', 'model.year': '2026', memory: '4 GB', 'disk.total': '240 GB' }),
      companions: [{ name: 'Quay archive source', ...WALK }]
    }
  ]
];

const SERVERS: DemoRow[] = [
  [3, 'rack', 'Machine room', 'brindle-server', '7', 'u4', 'only'],
  [2, 'clock', 'Machine room', 'brindle-server', '6', 'base', 'only'],
  [4, 'web', 'Machine room', 'brindle-server', '8', 'base', 'only'],
  [3, 'sign', 'Control room', 'brindle-server', '9', 'base', 'only'],
  [1, 'trial', 'Machine room', 'brindle-server', '9', 'base', 'only'],
  [
    18,
    'node',
    'Machine room',
    'brindle-server',
    '8',
    'u2',
    'only',
    {
      facts: known({ memory: '16 GB', 'processor.bits': '64', 'network.kind': 'ring' }),
      companions: [{ name: 'Ring network card driver', version: '8', ...WALK }]
    }
  ],
  [8, 'kiosk', 'Control room', 'brindle-server', '9', 'base', 'only', { facts: known({ memory: '2 GB' }) }],
  [1, 'shelf-north', 'Machine room', 'ossian-shelf', '31.4', 'p7', 'only', { nodes: 2 }],
  [1, 'shelf-south', 'Machine room', 'ossian-shelf', '31.4', 'p9', 'only', { nodes: 2 }],
  [
    1,
    'shelf-depot',
    'East depot',
    'ossian-shelf',
    '31.2',
    'base',
    'only',
    {
      nodes: 2,
      members: [
        { name: 'shelf-depot node 1', facts: known({ 'setting.hand-over': 'on' }) },
        { name: 'shelf-depot node 2', facts: known({ 'setting.hand-over': 'off' }) }
      ],
      facts: known({ trays: '3' })
    }
  ],
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
  ],
  [
    6,
    'radio',
    'Control room',
    '?',
    '?',
    '?',
    '?',
    {
      installedText: 'Tram radio base 3.4',
      product: unknown('not understood'),
      facts: known({ 'support.ends': '2031-12-31' })
    }
  ]
];

const bench = (facts: Readonly<Record<string, string | boolean>>): Record<string, Fact> =>
  known(facts, { day: '2031-02-24', source: 'drawing office list' });

const WORKSTATIONS: DemoRow[] = [
  [
    4,
    'cad',
    'Drawing office',
    'marram-draft',
    '21',
    'base',
    'sheet',
    {
      ...narrow,
      facts: bench({
        'processor.bits': '64',
        'processor.model': 'Quill 44',
        memory: '8 GB',
        'security-part': 'off',
        'security-part.generation': '2',
        'disk.total': '120 GB',
        'drive.kind': 'solid'
      })
    }
  ],
  [
    10,
    'cad',
    'Drawing office',
    'marram-draft',
    '22',
    'base',
    'sheet',
    {
      ...wide,
      facts: bench({
        'processor.bits': '64',
        'processor.model': 'Quill 44',
        memory: '16 GB',
        'security-part': 'off',
        'security-part.generation': '2',
        'disk.free.system': '12 GB',
        'disk.free.working': '20 GB',
        'disk.total': '480 GB',
        'drive.kind': 'solid',
        model: 'Brae 5'
      }),
      companions: [
        { name: 'Route stamp', version: '6', essential: true, keyInHand: false, ...WALK },
        { name: 'Contour kit', version: '2.8', ...WALK },
        { name: 'Sheet viewer 2', ...WALK },
        { name: 'Tide table', version: '1', ...WALK }
      ]
    }
  ],
  [
    9,
    'survey',
    'Survey',
    'marram-draft',
    '22',
    'a',
    'site',
    {
      ...wide,
      facts: {
        ...bench({
          'processor.bits': '64',
          'processor.model': 'Stanza M2',
          memory: '24 GB',
          'graphics.memory': '4 GB',
          'graphics.level': '4',
          'security-part.generation': '2',
          'disk.free.system': '60 GB',
          'disk.free.working': '30 GB'
        }),
        'security-part': {
          statements: [
            { value: 'off', day: '2031-02-24', source: 'readiness probe' },
            { value: 'on', day: '2031-02-26', source: 'own test' }
          ]
        }
      }
    }
  ],
  [
    2,
    'survey',
    'Survey',
    'marram-draft',
    '22',
    'a',
    'site',
    { ...wide, facts: bench({ 'processor.model': 'Stanza M1', memory: '16 GB' }) }
  ],
  [
    2,
    'pool',
    'Survey',
    'marram-draft',
    '23',
    'base',
    'pool',
    { ...wide, facts: known({ 'security-part': 'absent' }) }
  ],
  [
    1,
    'early',
    'Drawing office',
    'marram-draft',
    '24',
    'base',
    'sheet',
    { ...wide, note: 'Joined the early plan on somebody’s main machine.' }
  ]
];

const terminal = (model: string, memory: string, drive: string, day = '2031-02-27'): Record<string, Fact> =>
  known(
    { model, memory, 'disk.total': drive, 'display.width': model === 'P1' ? '640' : '800' },
    { day, source: 'terminal list' }
  );
const shown = (version: string): Fact => ({ value: version, day: '2031-02-27', source: 'terminal list' });

const TERMINALS: DemoRow[] = [
  [6, 'stop', 'Stops', 'pellow-terminal', '11', 'k3', 'only', { facts: terminal('P1', '1 GB', '8 GB') }],
  [4, 'stop', 'Stops', 'pellow-terminal', '11', 'k3', 'only', { facts: terminal('P2', '1 GB', '16 GB') }],
  [5, 'stop', 'Stops', 'pellow-terminal', '12', 'base', 'only', { facts: terminal('P2', '2 GB', '16 GB') }],
  [8, 'stop', 'Stops', 'pellow-terminal', '12', 'base', 'only', { facts: terminal('P3', '2 GB', '32 GB') }],
  [
    9,
    'stop',
    'Stops',
    'pellow-terminal',
    '13',
    'k1',
    'only',
    {
      facts: {
        ...terminal('P4', '4 GB', '64 GB'),
        'network.kind': { value: 'mesh-1', ...WALK },
        'shown-version': shown('12')
      },
      companions: [{ name: 'Mesh network part', ...WALK }]
    }
  ],
  [
    5,
    'stop',
    'Stops',
    'pellow-terminal',
    '13',
    'k1',
    'only',
    { facts: terminal('P5', '4 GB', '64 GB', '2027-11-02') }
  ],
  [2, 'stop', 'Stops', 'pellow-terminal', '14', 'base', 'only', { facts: terminal('P5', '4 GB', '64 GB') }],
  [
    1,
    'stop-dark',
    'Stops',
    'pellow-terminal',
    '?',
    '?',
    'only',
    {
      release: unknown('no access'),
      patch: unknown('no access'),
      facts: { model: { value: 'P3', ...WALK }, memory: { unknown: 'no access', ...WALK } },
      checks: [
        {
          id: 'c1',
          tool: 'terminal sweep',
          toolVersion: '2.0',
          day: '2031-02-27',
          attached: ['terminal'],
          announced: 6,
          items: [
            { what: 'memory', result: 'unknown', reason: 'no answer', fact: 'memory' },
            { what: 'Ticket eye', result: 'unknown', reason: 'off', companion: 'Ticket eye' },
            { what: 'Mesh network part', result: 'failure', companion: 'Mesh network part' }
          ]
        }
      ],
      note: 'Switched off during the sweep.'
    }
  ]
];

const SUITE: DemoRow[] = [
  [
    3,
    'host-a',
    'Machine room',
    'corbel-host',
    'h4',
    'c5',
    'only',
    {
      facts: known({ 'firmware.level': '4' }),
      links: [link('managed by', 'keeper'), link('peer of', 'host-a-04', 'cluster')]
    }
  ],
  [
    1,
    'host-a',
    'Machine room',
    'corbel-host',
    'h4',
    'c2',
    'only',
    { facts: known({ 'firmware.level': '3' }), links: [link('managed by', 'keeper')] }
  ],
  [
    5,
    'host-b',
    'Machine room',
    'corbel-host',
    'h5',
    'd1',
    'only',
    {
      facts: known({ 'firmware.level': '5' }),
      links: [link('managed by', 'keeper'), link('peer of', 'host-b-05', 'cluster')]
    }
  ],
  [
    1,
    'keeper',
    'Machine room',
    'corbel-keeper',
    'k6',
    'base',
    'only',
    { facts: known({ 'certificate.ends': '2031-06-20' }) }
  ],
  [
    1,
    'mirror-east',
    'Machine room',
    'twinbank-mirror',
    '2.9',
    'base',
    'only',
    {
      facts: known({ 'open-items': '3', 'setting.wide-frames': 'on', 'setting.same-clock': 'on' }),
      links: [link('peer of', 'mirror-west'), link('hosted on', 'host-a-01')]
    }
  ],
  [
    1,
    'mirror-west',
    'Machine room',
    'twinbank-mirror',
    '2.9',
    'base',
    'only',
    {
      facts: known({ 'open-items': '0', 'setting.same-clock': 'off' }),
      links: [link('hosted on', 'host-b-01')]
    }
  ],
  [
    1,
    'hub',
    'Machine room',
    'windlass-hub',
    'hub-8.5',
    'base',
    'only',
    {
      facts: { ...known({ 'backup.finished': '2031-02-27' }), 'backup.restored': { unknown: 'not asked' } },
      checks: [
        {
          id: 'c1',
          tool: 'hub pre-check',
          toolVersion: '8.5',
          day: '2031-03-06',
          announced: 12,
          items: [
            { what: 'free space', result: 'pass' },
            { what: 'services', result: 'pass' },
            { what: 'name service', result: 'warning', reason: 'answers slowly' },
            { what: 'pre-check failures', result: 'unknown', reason: 'on the second page' }
          ]
        } satisfies Check
      ]
    }
  ],
  [
    1,
    'content',
    'Machine room',
    'windlass-content',
    'c-31',
    'base',
    'only',
    { links: [link('content of', 'hub')] }
  ],
  [
    1,
    'watch',
    'Control room',
    'windlass-watch',
    '8.5',
    'base',
    'only',
    { links: [link('managed by', 'content'), link('peer of', 'ledger', 'suite')] }
  ],
  [
    1,
    'ledger',
    'Control room',
    'windlass-ledger',
    '3.7',
    'base',
    'only',
    { links: [link('managed by', 'content')] }
  ],
  // The same again at the depot, with nothing in its way but a bundle too old for the watch: hub, bundle, then both products at once.
  [
    1,
    'depot-hub',
    'Machine room',
    'windlass-hub',
    'hub-8.50',
    'base',
    'only',
    { facts: known({ 'backup.finished': '2031-03-05', 'precheck.failures': '0' }) }
  ],
  [
    1,
    'depot-content',
    'Machine room',
    'windlass-content',
    'c-31',
    'base',
    'only',
    { links: [link('content of', 'depot-hub')] }
  ],
  [
    1,
    'depot-watch',
    'Control room',
    'windlass-watch',
    '8.6',
    'base',
    'only',
    { links: [link('managed by', 'depot-content'), link('peer of', 'depot-ledger', 'suite')] }
  ],
  [
    1,
    'depot-ledger',
    'Control room',
    'windlass-ledger',
    '3.7',
    'base',
    'only',
    { links: [link('managed by', 'depot-content')] }
  ]
];

const site = (
  name: string,
  ports: string,
  key: 'on' | 'off',
  extra: Partial<System> = {}
): Partial<System> => ({
  site: name,
  facts: known({ ports, 'setting.long-key': key, 'setting.lift-control': 'off' }),
  ...extra
});

const DOORS: DemoRow[] = [
  [
    1,
    'door-market',
    'Doors',
    'hollin-door',
    'v6',
    'base',
    'terrace',
    site('Market', '12', 'on', {
      links: [link('peer of', 'door-harbour', 'site'), link('peer of', 'door-east', 'site')]
    })
  ],
  [1, 'door-harbour', 'Doors', 'hollin-door', 'v6', 'base', 'terrace', site('Harbour', '8', 'off')],
  [1, 'door-east', 'Doors', 'hollin-door', 'v6', 'base', 'terrace', site('East depot', '20', 'on')],
  [
    1,
    'door-west',
    'Doors',
    'hollin-door',
    'v6',
    'base',
    'cottage',
    site('West depot', '4', 'on', { links: [link('peer of', 'door-market', 'site')] })
  ],
  [
    1,
    'door-old',
    'Doors',
    'hollin-door',
    'v5',
    'base',
    'cottage',
    site('Old shed', '2', 'off', {
      facts: known({ ports: '2', 'setting.long-key': 'off', 'setting.leads': 'on' }),
      links: [{ kind: 'peer of', absent: true, as: 'site' }]
    })
  ],
  [
    1,
    'door-office',
    'Doors',
    'hollin-door',
    'v7',
    'base',
    'crescent',
    site('Office', '16', 'on', {
      links: [link('peer of', 'door-market', 'site')],
      facts: known({ ports: '16', 'setting.long-key': 'on', 'setting.leads': 'on' })
    })
  ]
];

const COMING: DemoRow[] = [
  [
    3,
    'spare',
    'Ticket office',
    '?',
    '?',
    '?',
    '?',
    { stage: 'bare', meantFor: 'garnock-desk', facts: known({ memory: '16 GB', model: 'Fellside 3' }) }
  ],
  [
    1,
    'stop-new',
    'Stops',
    '?',
    '?',
    '?',
    '?',
    { stage: 'candidate', meantFor: 'pellow-terminal', facts: known({ model: 'P5', memory: '4 GB' }) }
  ]
];

/** Rows of one stem are numbered on; the order decides the numbers. */
export const DEMO_ROWS: readonly DemoRow[] = [
  ...DESKS,
  ...SERVERS,
  ...WORKSTATIONS,
  ...TERMINALS,
  ...SUITE,
  ...DOORS,
  ...COMING
];
