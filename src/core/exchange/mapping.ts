import { FactKinds } from '../condition';
import { type RememberedList, splitUnit } from '../estate';
import { foldText } from '../version';

/** What a column of a list of machines can hold. */
export const IMPORT_FIELDS = [
  'name',
  'installed',
  'product',
  'version',
  'patch',
  'build',
  'edition',
  'architecture',
  'team',
  'site',
  'nodes',
  'nodeName',
  'activated',
  'observed',
  'hostedOn',
  'managedBy',
  'contentOf',
  'peerOf',
  'companions',
  'purl',
  'cpe',
  'note'
] as const;
export type ImportField = (typeof IMPORT_FIELDS)[number];

/** What a column holds: a field, or a fact by its id. */
export type ImportKey = ImportField | `fact.${string}`;
/** Whether a column is taken as a fact. */
export const isFactKey = (key: string): key is `fact.${string}` => key.startsWith('fact.');

/** Words people head such columns with; folded. */
const HEADINGS: Readonly<Record<ImportField, readonly string[]>> = {
  name: [
    'name',
    'host',
    'hostname',
    'host name',
    'machine',
    'computer',
    'system',
    'device',
    'asset',
    'server',
    'node name',
    'machine name',
    'asset tag',
    'id'
  ],
  installed: [
    'installed',
    'os',
    'operating system',
    'runs',
    'what it runs',
    'software',
    'system software',
    'os and edition',
    'os / version',
    'installed version',
    'version and edition',
    'platform'
  ],
  product: ['product', 'os name', 'product name'],
  version: ['version', 'release', 'os version', 'product version', 'ver'],
  patch: ['patch', 'patch level', 'level', 'maintenance', 'service level', 'patchlevel'],
  build: ['build', 'build number', 'build no', 'os build'],
  edition: ['edition', 'variant', 'sku', 'flavour'],
  architecture: ['architecture', 'arch', 'word size', 'bits'],
  team: ['team', 'group', 'department', 'dept', 'owner', 'used by', 'unit', 'office'],
  site: ['site', 'location', 'place', 'building', 'depot', 'room'],
  nodeName: ['controller', 'node', 'member', 'canister', 'blade', 'knoten', 'noeud'],
  nodes: ['nodes', 'node count', 'members', 'controllers'],
  activated: ['activated', 'activation', 'registered', 'licensed', 'active licence'],
  observed: [
    'observed',
    'seen',
    'last seen',
    'checked',
    'last check',
    'date',
    'inventory date',
    'last contact',
    'read on'
  ],
  hostedOn: ['hosted on', 'runs on', 'on host', 'hypervisor', 'virtual host'],
  managedBy: ['managed by', 'manager', 'managed from'],
  contentOf: ['content of'],
  peerOf: ['peer of', 'peer', 'partner', 'pair with', 'cluster with'],
  companions: [
    'companions',
    'applications',
    'devices',
    'attached',
    'software installed',
    'applications installed'
  ],
  purl: ['purl', 'package url'],
  cpe: ['cpe', 'cpe name', 'cpe 2.3'],
  note: ['note', 'notes', 'remark', 'remarks', 'comment', 'comments']
};

/**
 * Headings in other words and languages than those above, the first that fits: English, German, French; accents and signs folded away.
 * `undefined`: what looks like one of the others and is none.
 */
const RULES: readonly (readonly [RegExp, ImportKey | undefined])[] = [
  [
    /\b(secure|verified|checked|trusted|sicher\w*|securise)\b.*\b(boot|start|demarrage)|demarrage (securise|verifie)|\bsecureboot\b/,
    'fact.firmware.checked-start'
  ],
  [
    /serial|serien|\basset (no|number|tag)|inventa?i?re?\b.*\b(n|no|nr|num)|^n (d )?inventaire|kosten|cost|warrant|garantie|contract|vertrag|licen[cs]e (key|no)|\bip\b|\bmac\b|visit|\bboot\b|maker|vendor|hersteller|fabricant|\bpower\b|kernel|purchase|phone|price|installed on|bought|licence/,
    undefined
  ],
  [
    /^(guest )?(os|operating system|betriebssystem|systeme( d exploitation)?|distribution|now on|what it runs|system software|guest os|firmware|fw|logiciel systeme)( name)?$/,
    'installed'
  ],
  [/security (chip|part|module|processor)|sicherheits(chip|modul)|puce|^chip$/, 'fact.security-part'],
  [/service ?pack|^sp\b|^patch|^update|^level$|security (level|update)|wartungsstand|correctif/, 'patch'],
  [/^(os )?(version|release|rel|ver|fassung)( no)?$|^(os|product|system) (version|release)$/, 'version'],
  [/^build/, 'build'],
  [/^(edition|ausgabe|sku|variante?)$/, 'edition'],
  [/^(arch\w*|bits?|bit ?breite|bitness|word size|wortbreite)$/, 'architecture'],
  [/\b(graphics?|gpu|video|grafik)[ -]?(memory|ram|speicher)\b/, 'fact.graphics.memory'],
  [/\b(ram|mem|memory|vram|arbeitsspeicher|memoire)\b/, 'fact.memory'],
  [/\b(free|libre|frei)\b/, 'fact.disk.free.system'],
  [
    /\b(hdd|ssd|dis[ck]|disque|festplatte|platte|storage|stockage|speicherplatz|flash|drive)\b/,
    'fact.disk.total'
  ],
  [/\b(v?cores?|coeurs?|kerne|v?cpus)\b|^vcpu$/, 'fact.processor.cores'],
  [/\b(cpu|processor|prozessor|processeur)\b/, 'fact.processor.model'],
  [/\b(ghz|clock speed|takt)\b/, 'fact.processor.speed'],
  [/\b(uefi|bios)\b/, 'fact.firmware.kind'],
  [/\b(gpu|graphics?|grafik\w*|carte graphique)\b/, 'fact.graphics.model'],
  [/\b(screen|display|bildschirm|ecran|resolution)\b/, 'fact.display.size'],
  [/activat|aktiviert|^active$|licensed|lizenziert|active licence/, 'activated'],
  [/^(model|modell|modele|unit type|type de materiel|hardware)$/, 'fact.model'],
  [/^(year|jahr|baujahr|annee|model year|built)$/, 'fact.model.year'],
  [
    /^(team|department|dept|abteilung|service|owner|who|group|admin team|look after|run by|besitzer|verantwortlich|responsable|used by|office|kept by|equipe)$/,
    'team'
  ],
  [/^(location|site|standort|lieu|ort|place|house|building|room|region|gebaude|salle|raum|depot)$/, 'site'],
  [/^(notes?|remarks?|bemerkung(en)?|anmerkung(en)?|role|comments?|remarques?|commentaires?)$/, 'note'],
  [
    /last (seen|contact|check)|zuletzt gesehen|^seen$|inventoried|check in|lastcontact|^vu le|read on|counted|scanned|derniere/,
    'observed'
  ],
  [/runs on|^on host|hosted on|hypervisor|^host of$/, 'hostedOn'],
  [/^manage[dr]\b|verwaltet|gere par/, 'managedBy'],
  [/^(apps?|applications?|programs?|programme|anwendungen|logiciels|software installed)$/, 'companions'],
  [
    /^(pc|poste|rechner(name)?|gerat|vm|door|array|switch|box|station|nom|fqdn|node|ordinateur|label)$/,
    'name'
  ]
];
/** Headings that may be the machine or what it runs: their values decide. */
const EITHER = /^(system|software|program|platform|device|unit|product)$/;
/** What they are where no product is named below. */
const OTHERWISE: Readonly<Record<string, ImportKey | undefined>> = {
  system: 'name',
  device: 'name',
  unit: 'name',
  software: 'companions',
  product: 'product'
};

/** Which column holds what; a column not named is left out. Index of the row that heads them. */
export interface Mapping {
  readonly headerRow: number;
  /** What heads each column, where that stands in more rows than one. */
  readonly headings?: readonly string[];
  readonly columns: Readonly<Partial<Record<ImportKey, number>>>;
  /** The name the list goes by, where one with the same column names was read before. */
  readonly list?: string;
}

/** What helps to understand a list: kinds of facts its columns may hold, and lists read before. */
export interface MappingHints {
  /** Words of the names of products: where they stand in a column, it says what is installed. */
  readonly products?: ReadonlySet<string>;
  readonly kinds?: FactKinds;
  readonly lists?: readonly RememberedList[];
}

const LOOK_DOWN = 20;
/** So many rows show what a column holds. */
const LOOK_AT = 200;

/**
 * Finds the heading row - the one of the first rows in which most cells are usual headings - and what its columns hold.
 * A row with the very column names of a list read before is read as that list was. Undefined when none has a hit.
 */
export function suggestMapping(
  rows: readonly (readonly string[])[],
  { kinds = new FactKinds(), lists = [], products = new Set() }: MappingHints = {}
): Mapping | undefined {
  const remembered = findRemembered(rows, lists);
  if (remembered) return remembered;
  const heads = new Headings(kinds);
  let best: { row: number; hits: number } | undefined;
  rows.slice(0, LOOK_DOWN).forEach((cells, row) => {
    // What holds a figure is hardly a heading: `500 GB SSD`.
    const hits = cells.filter((c) => !/\d/.test(c) && heads.find(c) !== undefined).length;
    if (hits > 0 && (!best || hits > best.hits)) best = { row, hits };
  });
  if (!best) return undefined;
  const [first, sub] = [rows[best.row] ?? [], rows[best.row + 1] ?? []];
  const isDouble = heads.isBelow(first, sub);
  const headings = isDouble ? joinHeadings(first, sub) : first;
  const headerRow = best.row + (isDouble ? 1 : 0);
  const below = rows.slice(headerRow + 1, headerRow + LOOK_AT);
  return {
    headerRow,
    ...(isDouble ? { headings } : {}),
    columns: mapColumns(headings, heads, { below, products })
  };
}

/** Of two rows of headings one: what stands over several columns is said of each. */
function joinHeadings(above: readonly string[], sub: readonly string[]): string[] {
  let over = '';
  return above.map((heading, i) => {
    if (heading !== '') over = heading;
    const own = sub[i] ?? '';
    return own === '' ? heading : `${over} ${own}`.trim();
  });
}

/** Column names as one text, for telling a list again. */
export const headingKey = (headings: readonly string[]): string => headings.map(foldText).join('\u0001');

function findRemembered(
  rows: readonly (readonly string[])[],
  lists: readonly RememberedList[]
): Mapping | undefined {
  const byKey = new Map(lists.map((l) => [headingKey(l.headings), l]));
  for (const [row, cells] of rows.slice(0, LOOK_DOWN).entries()) {
    const found = byKey.get(headingKey(cells));
    if (found) return { headerRow: row, columns: found.columns, list: found.list };
  }
  return undefined;
}

/** What stands below the headings, and the words by which products are known. */
interface Below {
  readonly below: readonly (readonly string[])[];
  readonly products: ReadonlySet<string>;
}

function mapColumns(headings: readonly string[], heads: Headings, around: Below): Mapping['columns'] {
  const columns: Partial<Record<ImportKey, number>> = {};
  const valuesOf = (at: number): string[] => around.below.map((r) => r[at] ?? '').filter((v) => v !== '');
  const saysProduct = (at: number): boolean => {
    const values = valuesOf(at);
    const named = values.filter((v) =>
      foldText(v)
        .split(/[\s,;()/]+/)
        .some((w) => around.products.has(w))
    );
    return named.length * 3 > values.length;
  };
  const mayBeName: number[] = [];
  headings.forEach((heading, i) => {
    const found = heads.find(heading);
    const isEither = EITHER.test(clean(heading)) && around.products.size > 0;
    const key = isEither
      ? saysProduct(i)
        ? 'installed'
        : isVersions(valuesOf(i))
          ? 'version'
          : OTHERWISE[clean(heading)]
      : found;
    if (key === 'name') mayBeName.push(i);
    else if (
      key === 'fact.processor.model' &&
      isFigures(valuesOf(i)) &&
      columns['fact.processor.cores'] === undefined
    )
      columns['fact.processor.cores'] = i;
    else if (key !== undefined && columns[key] === undefined) columns[key] = i;
    // A column of products beside one of what is installed: read together.
    else if (key === 'installed' && columns.product === undefined) columns.product = i;
  });
  const isUnique = (at: number): boolean => {
    const values = valuesOf(at);
    return new Set(values.map(foldText)).size * 10 >= values.length * 9;
  };
  const name = mayBeName.find(isUnique) ?? mayBeName[0];
  // A node is the machine where nothing else is.
  if (name === undefined && columns.nodeName !== undefined) {
    columns.name = columns.nodeName;
    delete columns.nodeName;
  } else if (name !== undefined) columns.name = name;
  else {
    const taken = new Set(Object.values(columns));
    const free = headings.flatMap((h, i) => (taken.has(i) || heads.find(h) !== undefined ? [] : [i]));
    const first = free.find((i) => i === 0) ?? free.find((i) => isUnique(i) && !isFigures(valuesOf(i)));
    if (first !== undefined) columns.name = first;
  }
  return columns;
}

/** Mostly figures with dots: a version, whatever stands above it. */
const isVersions = (values: readonly string[]): boolean =>
  values.filter((v) => /^v?\d+(\.\d+)+/i.test(v)).length * 2 > values.length;

const isFigures = (values: readonly string[]): boolean =>
  values.length > 0 && values.every((v) => /^[\d\s.,x×-]*$/.test(v));

/** Columns that hold something and are not taken: where, by their headings, with three of their values. */
export function unreadColumns(
  rows: readonly (readonly string[])[],
  { headerRow, columns, headings }: Mapping
): { readonly at: number; readonly heading: string; readonly values: readonly string[] }[] {
  const taken = new Set(Object.values(columns));
  const width = Math.max(0, ...rows.map((r) => r.length));
  return Array.from({ length: width }, (_, at) => at).flatMap((at) => {
    const values = rows
      .slice(headerRow + 1)
      .map((r) => r[at] ?? '')
      .filter((v) => v !== '');
    if (taken.has(at) || values.length === 0) return [];
    return [
      {
        at,
        heading: headings?.[at] || rows[headerRow]?.[at] || String(at + 1),
        values: [...new Set(values)].slice(0, 3)
      }
    ];
  });
}

/** Headings looked up by what they usually say, by the file's own words for them, and by the names of facts. */
class Headings {
  readonly #byName = new Map<string, ImportKey>();
  readonly #kinds: FactKinds;

  constructor(kinds: FactKinds) {
    this.#kinds = kinds;
    for (const kind of kinds.all()) {
      this.#byName.set(clean(kind.id), `fact.${kind.id}`);
      this.#byName.set(clean(kind.name), `fact.${kind.id}`);
    }
    for (const field of IMPORT_FIELDS)
      for (const name of [field, ...HEADINGS[field]]) this.#byName.set(clean(name), field);
  }

  /** Whether a row goes on with the headings above it: headings or units in some columns, nothing under the first. */
  isBelow(above: readonly string[], row: readonly string[]): boolean {
    const said = row.filter((c) => c !== '');
    const isOne = (cell: string): boolean =>
      !/\d/.test(cell) && (this.find(cell) !== undefined || splitUnit(`in ${cell}`).unit !== undefined);
    return (
      row[0] === '' &&
      said.length > 0 &&
      said.length * 2 <= Math.max(row.length, above.length) &&
      said.every(isOne)
    );
  }

  find(heading: string): ImportKey | undefined {
    const own = heading.trim();
    if (/^(setting|companion|access)\.[a-z0-9.-]+$/.test(own) && this.#kinds.find(own)) return `fact.${own}`;
    const [whole, named] = [clean(heading), clean(splitUnit(heading).name)];
    const known = this.#byName.get(whole) ?? this.#byName.get(named);
    if (known !== undefined) return known;
    // Of a path its end decides, with what it is the name of.
    if (/^[\w-]+(\.[\w-]+)+$/.test(own)) {
      const steps = own.split('.');
      const end = this.find(steps.slice(foldText(steps.at(-1) ?? '') === 'name' ? -2 : -1).join(' '));
      if (end !== undefined) return end;
    }
    const rule = RULES.find(([words]) => words.test(named) || words.test(whole));
    return rule?.[1];
  }
}

const clean = (heading: string): string =>
  foldText(heading.replace(/([a-z])([A-Z])/g, '$1 $2'))
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/œ/g, 'oe')
    .replace(/[_.:'’°*#-]+/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
