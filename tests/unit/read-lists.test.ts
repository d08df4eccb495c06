import { expect, test } from 'vitest';
import type { Catalogue } from '../../src/core/catalogue';
import { FactKinds } from '../../src/core/condition';
import { figureIn, parseFigure } from '../../src/core/condition/measure';
import type { System } from '../../src/core/estate';
import { parseCatalogue, parseCsv, readRows, suggestMapping } from '../../src/core/exchange';
import { unreadColumns } from '../../src/core/exchange/mapping';
import { previewImport } from '../../src/core/exchange/preview-import';
import { seedsOf, tell } from '../support/laws';
import { Random } from '../support/random';

/** Two made-up products: one with levels, editions and architectures, one whose releases are whole numbers with a code name each. */
const catalogue: Catalogue = (() => {
  const level = (id: string, build: string): object => ({
    id,
    builds: [build],
    published: '2029-01-01',
    typicalMinutes: 10,
    carefulMinutes: 20
  });
  const read = parseCatalogue(
    JSON.stringify({
      format: 'orange-stair-catalogue',
      version: 3,
      name: 'lists',
      products: [
        {
          id: 'fulmar',
          name: 'Fulmar Desk',
          publisher: 'Fulmar Yard',
          editions: ['Chartroom', 'Longboat'].map((name) => ({ id: name.toLowerCase(), name })),
          architectures: [
            { id: 'x86-32', name: '32-bit', aliases: ['x86'] },
            { id: 'x86-64', name: '64-bit', aliases: ['x64'] }
          ],
          releases: [
            { id: '5', published: '2027-01-01', patches: [level('SP1', '5.1.410'), level('SP2', '5.2.777')] },
            { id: '6', published: '2030-01-01', patches: [level('U1', '6.0.905')] }
          ]
        },
        {
          id: 'petrel',
          name: 'Petrel Open System',
          publisher: 'Petrel friends',
          releases: [
            { id: '21', aliases: ['anchor'], published: '2028-01-01' },
            { id: '22', aliases: ['buoy'], published: '2030-01-01' }
          ]
        }
      ]
    })
  );
  if (!read.ok) throw new Error(JSON.stringify(read.issues));
  return read.value;
})();
const kinds = new FactKinds();

interface Machine {
  readonly name: string;
  readonly product: 'fulmar' | 'petrel';
  readonly release: string;
  readonly level?: string;
  readonly edition?: string;
  readonly bits?: 32 | 64;
  readonly memory: number;
  readonly free: number;
  readonly whole: number;
  readonly cores: number;
  readonly team: string;
  readonly site: string;
  readonly day: string;
  readonly isActive: boolean;
}

function machinesOf(r: Random): Machine[] {
  return Array.from({ length: r.int(4, 14) }, (_, i) => {
    const isFulmar = r.chance(0.65);
    const release = isFulmar ? r.pick(['5', '6']) : r.pick(['21', '22']);
    const level =
      release === '5'
        ? r.pick(['SP1', 'SP2', undefined])
        : release === '6'
          ? r.pick(['U1', undefined])
          : undefined;
    return {
      name: `${r.pick(['gull', 'tern', 'skua'])}-${String(i + 1).padStart(2, '0')}`,
      product: isFulmar ? 'fulmar' : 'petrel',
      release,
      ...(level === undefined ? {} : { level }),
      ...(isFulmar ? { edition: r.pick(['chartroom', 'longboat']), bits: r.pick([32, 64] as const) } : {}),
      memory: r.pick([2, 4, 8, 16, 32]),
      free: r.pick([3.5, 12, 64.25, 210]),
      whole: r.pick([120, 250, 500]),
      cores: r.pick([2, 4, 8]),
      team: r.pick(['Charts', 'Stores', 'Harbour office']),
      site: r.pick(['North mole', 'Slip 4']),
      day: r.pick(['2031-02-17', '2031-01-28']),
      isActive: r.chance(0.5)
    } as const;
  });
}

type Tongue = 'en' | 'de' | 'fr';
const pickIn = (r: Random, words: Readonly<Record<Tongue, readonly string[]>>, tongue: Tongue): string =>
  r.pick(words[tongue]);

/** A column as somebody might head and fill it. */
interface Column {
  readonly heading: string;
  readonly cell: (m: Machine) => string;
}

const decimal = (n: number, tongue: Tongue): string =>
  tongue === 'en' ? String(n) : String(n).replace('.', ',');

function columnsOf(r: Random, tongue: Tongue): Column[] {
  const edition = (m: Machine): string =>
    m.edition === undefined ? '' : m.edition === 'chartroom' ? 'Chartroom' : 'Longboat';
  const product = (m: Machine): string =>
    m.product === 'fulmar'
      ? r.pick(['Fulmar Desk', 'Fulmar', 'FULMAR DESK', 'Fulmar Yard Fulmar Desk'])
      : r.pick(['Petrel', 'Petrel Open System', 'petrel']);
  const release = (m: Machine): string =>
    m.product === 'petrel'
      ? r.pick([m.release, `${m.release}.${r.int(0, 9)}`, m.release === '21' ? 'anchor' : 'buoy'])
      : m.release;
  const level = (m: Machine): string =>
    m.level === undefined
      ? ''
      : m.level === 'U1'
        ? r.pick(['U1', 'update 1'])
        : r.pick([m.level, `service pack ${m.level.at(-1)}`, `SP ${m.level.at(-1)}`]);
  const unit = tongue === 'fr' ? 'Go' : 'GB';
  const size = (heading: string, of: (m: Machine) => number): Column =>
    r.chance(0.5)
      ? { heading: `${heading} (${unit})`, cell: (m) => decimal(of(m), tongue) }
      : { heading, cell: (m) => `${decimal(of(m), tongue)}${r.pick([' ', ''])}${unit}` };
  const [yes, no] = { en: ['yes', 'no'], de: ['ja', 'nein'], fr: ['oui', 'non'] }[tongue] as [string, string];
  const day = (m: Machine): string => {
    const [y, mo, d] = m.day.split('-') as [string, string, string];
    return tongue === 'en' ? m.day : tongue === 'de' ? `${d}.${mo}.${y}` : `${d}/${mo}/${y}`;
  };
  const isWhole = r.chance(0.5);
  const installed: Column[] = isWhole
    ? [
        {
          heading: pickIn(
            r,
            {
              en: ['OS', 'Operating system', 'Runs'],
              de: ['Betriebssystem'],
              fr: ['Système', "Système d'exploitation"]
            },
            tongue
          ),
          cell: (m) => [product(m), release(m), edition(m), level(m)].filter(Boolean).join(' ')
        }
      ]
    : [
        {
          heading: pickIn(r, { en: ['OS'], de: ['Betriebssystem'], fr: ['Système'] }, tongue),
          cell: (m) => `${product(m)} ${release(m)}`
        },
        {
          heading: pickIn(
            r,
            { en: ['Service pack', 'Patch level'], de: ['SP', 'Patch'], fr: ['Service pack'] },
            tongue
          ),
          cell: (m) => level(m)
        },
        {
          heading: pickIn(r, { en: ['Edition'], de: ['Ausgabe', 'Edition'], fr: ['Édition'] }, tongue),
          cell: edition
        }
      ];
  const others: Column[] = [
    {
      heading: pickIn(
        r,
        { en: ['Bits', 'Arch'], de: ['Bitbreite', 'Architektur'], fr: ['Architecture'] },
        tongue
      ),
      cell: (m) =>
        m.bits === undefined ? '' : r.pick(m.bits === 64 ? ['64', '64-bit', 'x64'] : ['32', '32 bit', 'x86'])
    },
    size(
      pickIn(
        r,
        { en: ['RAM', 'Memory', 'Mem'], de: ['Arbeitsspeicher', 'RAM'], fr: ['Mémoire', 'Mémoire vive'] },
        tongue
      ),
      (m) => m.memory
    ),
    size(
      pickIn(
        r,
        { en: ['Free disk', 'Disk free', 'Free'], de: ['Festplatte frei'], fr: ['Disque libre'] },
        tongue
      ),
      (m) => m.free
    ),
    size(
      pickIn(r, { en: ['HDD', 'Disk', 'Storage'], de: ['Festplatte'], fr: ['Disque'] }, tongue),
      (m) => m.whole
    ),
    {
      heading: pickIn(r, { en: ['Cores', 'CPU cores'], de: ['Kerne'], fr: ['Cœurs'] }, tongue),
      cell: (m) => String(m.cores)
    },
    {
      heading: pickIn(
        r,
        { en: ['Department', 'Team', 'Owner'], de: ['Abteilung'], fr: ['Service', 'Équipe'] },
        tongue
      ),
      cell: (m) => m.team
    },
    {
      heading: pickIn(
        r,
        { en: ['Location', 'Site', 'Room'], de: ['Standort', 'Raum'], fr: ['Lieu', 'Salle'] },
        tongue
      ),
      cell: (m) => m.site
    },
    {
      heading: pickIn(r, { en: ['Last seen', 'Checked'], de: ['Zuletzt gesehen'], fr: ['Vu le'] }, tongue),
      cell: day
    },
    {
      heading: pickIn(r, { en: ['Activated', 'Licensed'], de: ['Aktiviert'], fr: ['Activé'] }, tongue),
      cell: (m) => (m.isActive ? yes : no)
    },
    {
      heading: pickIn(
        r,
        { en: ['Serial no', 'IP', 'Warranty'], de: ['Seriennr.'], fr: ["N° d'inventaire"] },
        tongue
      ),
      cell: (m) => `Z${m.memory}${m.cores}-${m.name.length}`
    }
  ];
  const name: Column = {
    heading: pickIn(
      r,
      {
        en: ['Host', 'PC', 'Computer', 'Machine name', 'FQDN'],
        de: ['Rechner', 'Rechnername', 'PC'],
        fr: ['Poste', 'Nom', 'Ordinateur']
      },
      tongue
    ),
    cell: (m) => m.name
  };
  return [name, ...installed, ...r.shuffle(others)];
}

/** A list as a person hands it over, in one of the usual shapes, perhaps with a title above and a sum below. */
function textOf(r: Random, rows: readonly (readonly string[])[]): string {
  const shape = r.pick(['semicolons', 'tabs', 'bars', 'columns'] as const);
  const title = r.chance(0.3) ? ['Machines of the harbour'] : [];
  if (shape === 'bars')
    return [
      ...title,
      '',
      `| ${rows[0]?.join(' | ')} |`,
      `|${rows[0]?.map(() => '---').join('|')}|`,
      ...rows.slice(1).map((c) => `| ${c.join(' | ')} |`)
    ].join('\n');
  if (shape === 'columns') {
    const widths = (rows[0] ?? []).map((_, i) => Math.max(...rows.map((c) => c[i]?.length ?? 0)) + 3);
    return rows
      .map((c) =>
        c
          .map((text, i) => text.padEnd(widths[i] ?? 0))
          .join('')
          .trimEnd()
      )
      .join('\n');
  }
  const by = shape === 'tabs' ? '\t' : ';';
  const sum = r.chance(0.3) ? [`Total${by}${rows.length - 1} machines`] : [];
  return [...title, ...rows.map((c) => c.join(by)), ...sum].join('\n');
}

/** What is said of a machine, a statement a line. */
function truthOf(m: Machine): Record<string, string> {
  return {
    release: `${m.product} ${m.release}`,
    ...(m.level === undefined ? {} : { level: m.level }),
    ...(m.edition === undefined ? {} : { edition: m.edition }),
    ...(m.bits === undefined ? {} : { architecture: `x86-${m.bits}` }),
    memory: String(m.memory * 2 ** 30),
    'disk.free.system': String(m.free * 1e9),
    'disk.total': String(m.whole * 1e9),
    'processor.cores': String(m.cores),
    activated: String(m.isActive),
    team: m.team,
    site: m.site,
    day: m.day
  };
}

function readOf(s: System): Record<string, string> {
  const is = (of: System['release']): string | undefined => ('is' in of ? of.is : undefined);
  const figure = (id: string): string | undefined => {
    const fact = s.facts?.[id];
    if (!fact || !('value' in fact)) return undefined;
    if (typeof fact.value === 'boolean') return String(fact.value);
    const base = figureIn(
      kinds.find(id)?.measure ?? 'text',
      parseFigure(String(fact.value)) ?? { amount: '' }
    );
    return base === undefined ? undefined : String(base);
  };
  const patch = is(s.patch);
  const said: Record<string, string | undefined> = {
    release: is(s.product) && is(s.release) ? `${is(s.product)} ${is(s.release)}` : undefined,
    level: patch === 'base' ? undefined : patch,
    edition: is(s.edition) === 'only' ? undefined : is(s.edition),
    architecture: is(s.architecture) === 'only' ? undefined : is(s.architecture),
    ...Object.fromEntries(
      ['memory', 'disk.free.system', 'disk.total', 'processor.cores', 'activated'].map((id) => [
        id,
        figure(id)
      ])
    ),
    team: s.team,
    site: s.site,
    day: s.observed
  };
  return Object.fromEntries(Object.entries(said).filter((e): e is [string, string] => e[1] !== undefined));
}

test('lists as people keep them, in three languages and four shapes: what they say is read, nothing else, and no column goes without a word', () => {
  const seen = { lists: 0, right: 0, missed: 0, wrong: 0 };
  const amiss: string[] = [];
  for (const seed of seedsOf(200)) {
    const r = new Random(seed * 7919);
    const tongue = r.pick(['en', 'de', 'fr'] as const);
    const machines = machinesOf(r);
    const columns = columnsOf(r, tongue);
    const rows = [columns.map((c) => c.heading), ...machines.map((m) => columns.map((c) => c.cell(m)))];
    const table = parseCsv(textOf(r, rows));
    const given = table.ok ? table.value.rows : [];
    const products = new Set(['fulmar', 'desk', 'petrel', 'open', 'system']);
    const mapping = suggestMapping(given, { kinds, products }) ?? { headerRow: 0, columns: {} };
    const preview = previewImport(
      readRows(given, mapping, kinds, catalogue),
      { catalogue, existing: [], source: 'list', today: '2031-03-10' },
      { installed: () => '', difference: () => '' }
    );
    const byName = new Map(preview.taken.map((s) => [s.name, readOf(s)]));
    for (const m of machines) {
      const [truth, read] = [truthOf(m), byName.get(m.name) ?? {}];
      for (const [what, value] of Object.entries(truth)) {
        if (read[what] === value) seen.right++;
        else {
          seen.missed++;
          amiss.push(`${seed} ${m.name} ${what}: ${read[what]} for ${value}`);
        }
      }
      for (const [what, value] of Object.entries(read))
        if (truth[what] !== undefined ? truth[what] !== value : true) seen.wrong++;
    }
    const known = new Set(machines.map((m) => m.name));
    seen.wrong += preview.taken.filter((s) => !known.has(s.name)).length;
    // A column is taken, or it is named.
    const left = unreadColumns(given, mapping).map((c) => c.heading);
    const taken = Object.values(mapping.columns).map((at) => given[mapping.headerRow]?.[at ?? -1] ?? '');
    expect([...left, ...taken].filter(Boolean).sort(), String(seed)).toEqual(
      columns.map((c) => c.heading).sort()
    );
    seen.lists++;
  }
  tell('lists are read', seen);
  expect(amiss.slice(0, 20)).toEqual([]);
  expect(seen.wrong).toBe(0);
  expect(seen.right).toBeGreaterThan(seen.lists * 40);
});

/** A list in tabs, as it would be taken in: by name what is read, and why rows are left. */
function taking(text: string): {
  readonly systems: ReadonlyMap<string, System>;
  readonly left: readonly (readonly [row: number, code: string | undefined])[];
  readonly remarks: readonly string[];
} {
  const table = parseCsv(text);
  const rows = table.ok ? table.value.rows : [];
  const mapping = suggestMapping(rows, { kinds, products: new Set(['fulmar', 'desk', 'petrel']) });
  const preview = previewImport(
    readRows(rows, mapping ?? { headerRow: 0, columns: {} }, kinds, catalogue),
    { catalogue, existing: [], source: 'list', today: '2031-03-10' },
    { installed: () => '', difference: () => '' }
  );
  return {
    systems: new Map(preview.taken.map((s) => [s.name, s])),
    left: preview.rows.flatMap((r) => (r.fate === 'not taken' ? [[r.row, r.reason?.code] as const] : [])),
    remarks: preview.rows.flatMap((r) => r.remarks)
  };
}

test('a product of somebody else’s that shares a word is none that is known; an amount that says more than one figure is none', () => {
  const { systems, remarks } = taking(
    'Host\tOS\tRAM\tGraphics memory (GB)\tSite\na1\tGannet Desk 6 Longboat\t8 GB + 4 GB\t2\tNA\na2\tFulmar Desk 6 Longboat\t8 GB?\t4\tNC\na3\tdesk 5\t8 GB DDR4\t1\t-'
  );
  expect(systems.get('a1')?.release).not.toHaveProperty('is');
  expect(systems.get('a2')?.release).toEqual({ is: '6' });
  expect(systems.get('a3')?.release).toEqual({ is: '5' });
  const facts = [...systems.values()].map((s) => s.facts ?? {});
  expect(facts.map((f) => f['memory'] && 'value' in f['memory'])).toEqual([false, false, true]);
  expect(facts.map((f) => f['graphics.memory'])).toMatchObject(
    ['2 GB', '4 GB', '1 GB'].map((value) => ({ value }))
  );
  expect(remarks.filter((r) => r.includes('no value for memory')).length).toBe(2);
  expect([...systems.values()].map((s) => s.site)).toEqual(['NA', 'NC', undefined]);
});

test('rows of one machine are joined without losing what only one of them says; what cannot be joined is told', () => {
  const { systems, left } = taking(
    [
      'PC\tProgram\tVersion\tTeam',
      'p1\tFulmar Desk 6 Longboat\t6.0.905\t',
      'p1\tKnotbook\t2.1\tCharts',
      'p1\tKnotbook\t2.1\t',
      'p1\tPetrel 22\t\t',
      'p2\tFulmar Desk 5 Chartroom\t5.1.410\t',
      'p2\tTidebook\t1\tStores'
    ].join('\n')
  );
  expect(systems.get('p1')).toMatchObject({
    team: 'Charts',
    patch: { is: 'U1' },
    companions: [{ name: 'Knotbook', version: '2.1' }]
  });
  expect(systems.get('p2')).toMatchObject({ team: 'Stores', patch: { is: 'SP1' } });
  expect(left).toEqual([
    [4, 'repeats'],
    [5, 'same-name']
  ]);
  const hosts = taking(
    'Host\tOS\nh1.a.example\tPetrel 21\nh1.b.example\tPetrel 22\nh1\tPetrel 21\nh2.a.example\tPetrel 22\nh2\tPetrel 22'
  );
  expect([...hosts.systems.keys()]).toEqual(['h1.a.example', 'h1.b.example', 'h1', 'h2']);
});

test('no row goes without a word: a first row with gaps, a name too long for its column, a second table, a point that names nothing', () => {
  const gaps = taking('Note\tHost\tOS\tRAM\tTeam\n\talpha\t\t\tCharts\nold\tbeta\tPetrel 21\t8\tStores');
  expect([...gaps.systems.keys()]).toEqual(['alpha', 'beta']);
  const wide = taking(
    'NAME    SYSTEM       REL\nab      Petrel       21\na-very-long-name Petrel 22\ncd      Petrel       22'
  );
  expect([...wide.systems.keys()]).toEqual(['ab', 'cd']);
  expect(wide.left).toEqual([[3, 'missing-name']]);
  const bars = taking(
    '| Host | OS |\n|---|---|\n| a | Petrel 21 |\n\nThe annex:\n\n| Host | OS |\n|---|---|\n| b__x__y | Petrel 22 |'
  );
  expect([...bars.systems.keys()]).toEqual(['a', 'b__x__y']);
  const letter = taking(
    'Hello,\n\n- n1: Petrel 21, 8 GB\n- n2: Petrel 22, maybe 16 GB\n- the kettle has a screen now\n'
  );
  expect([...letter.systems.keys()]).toEqual(['n1', 'n2']);
  expect(letter.left).toEqual([[5, 'missing-name']]);
});
