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

/** Which column holds what; a column not named is left out. Index of the row that heads them. */
export interface Mapping {
  readonly headerRow: number;
  readonly columns: Readonly<Partial<Record<ImportKey, number>>>;
  /** The name the list goes by, where one with the same column names was read before. */
  readonly list?: string;
}

/** What helps to understand a list: kinds of facts its columns may hold, and lists read before. */
export interface MappingHints {
  readonly kinds?: FactKinds;
  readonly lists?: readonly RememberedList[];
}

const LOOK_DOWN = 20;

/**
 * Finds the heading row - the one of the first rows in which most cells are usual headings - and what its columns hold.
 * A row with the very column names of a list read before is read as that list was. Undefined when none has a hit.
 */
export function suggestMapping(
  rows: readonly (readonly string[])[],
  { kinds = new FactKinds(), lists = [] }: MappingHints = {}
): Mapping | undefined {
  const remembered = findRemembered(rows, lists);
  if (remembered) return remembered;
  const heads = new Headings(kinds);
  let best: { row: number; hits: number } | undefined;
  rows.slice(0, LOOK_DOWN).forEach((cells, row) => {
    const hits = cells.filter((c) => heads.find(c) !== undefined).length;
    if (hits > 0 && (!best || hits > best.hits)) best = { row, hits };
  });
  return best && { headerRow: best.row, columns: mapColumns(rows[best.row] ?? [], heads) };
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

function mapColumns(headings: readonly string[], heads: Headings): Mapping['columns'] {
  const columns: Partial<Record<ImportKey, number>> = {};
  headings.forEach((heading, i) => {
    const key = heads.find(heading);
    if (key !== undefined && columns[key] === undefined) columns[key] = i;
  });
  if (columns.name === undefined && headings[0] !== undefined && heads.find(headings[0]) === undefined)
    columns.name = 0;
  return columns;
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

  find(heading: string): ImportKey | undefined {
    const own = heading.trim();
    if (/^(setting|companion|access)\.[a-z0-9.-]+$/.test(own) && this.#kinds.find(own)) return `fact.${own}`;
    return this.#byName.get(clean(heading)) ?? this.#byName.get(clean(splitUnit(heading).name));
  }
}

const clean = (heading: string): string =>
  foldText(heading)
    .replace(/[_.:-]+/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
