import { foldText } from '../version/words';

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
  'note'
] as const;
export type ImportField = (typeof IMPORT_FIELDS)[number];

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
  note: ['note', 'notes', 'remark', 'remarks', 'comment', 'comments']
};

/** Which column holds what; a column not named is left out. Index of the row that heads them. */
export interface Mapping {
  readonly headerRow: number;
  readonly columns: Readonly<Partial<Record<ImportField, number>>>;
}

const LOOK_DOWN = 20;

/** Finds the heading row: the one of the first rows in which most cells are usual headings. Undefined when none has a hit. */
export function suggestMapping(rows: readonly (readonly string[])[]): Mapping | undefined {
  let best: { row: number; hits: number } | undefined;
  rows.slice(0, LOOK_DOWN).forEach((cells, row) => {
    const hits = cells.filter((c) => fieldOf(c) !== undefined).length;
    if (hits > 0 && (!best || hits > best.hits)) best = { row, hits };
  });
  return best && { headerRow: best.row, columns: mapColumns(rows[best.row] ?? []) };
}

function mapColumns(headings: readonly string[]): Mapping['columns'] {
  const columns: Partial<Record<ImportField, number>> = {};
  headings.forEach((heading, i) => {
    const field = fieldOf(heading);
    if (field !== undefined && columns[field] === undefined) columns[field] = i;
  });
  if (columns.name === undefined && headings[0] !== undefined && fieldOf(headings[0]) === undefined)
    columns.name = 0;
  return columns;
}

function fieldOf(heading: string): ImportField | undefined {
  const folded = foldText(heading)
    .replace(/[_.:-]+/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
  return IMPORT_FIELDS.find((field) => HEADINGS[field].includes(folded));
}
