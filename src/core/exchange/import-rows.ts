import type { FactKinds } from '../condition/fact-kind';
import { formatDay } from '../date/day';
import { parseMessyDay } from '../date/messy';
import { parseFactText, splitUnit } from '../estate/fact-text';
import type { Fact } from '../estate/schema';
import { restoreCell } from './csv-out';
import { clip, type MachineRecord, type NamedLink } from './machine-record';
import { isFactKey, type ImportField, type Mapping } from './mapping';

const LINKS: readonly [ImportField, NamedLink['kind']][] = [
  ['hostedOn', 'hosted on'],
  ['managedBy', 'managed by'],
  ['contentOf', 'content of'],
  ['peerOf', 'peer of']
];
const TEXTS = ['installed', 'product', 'version', 'patch', 'build', 'edition', 'architecture'] as const;
const MAX_LISTED = 500;

/** The machines of a list, row by row; rows above the column names and empty rows are left out. */
export function readRows(
  rows: readonly (readonly string[])[],
  mapping: Mapping,
  kinds: FactKinds
): MachineRecord[] {
  const factColumns = factColumnsOf(rows, mapping, kinds);
  return rows.flatMap((cells, i) =>
    i <= mapping.headerRow || cells.every((c) => c === '')
      ? []
      : [
          readRow(
            i + 1,
            (field) => restoreCell(cells[mapping.columns[field] ?? -1] ?? ''),
            cells,
            factColumns
          )
        ]
  );
}

interface FactColumn {
  readonly id: string;
  readonly at: number;
  readonly unit?: string;
  readonly kind: ReturnType<FactKinds['find']>;
}

function factColumnsOf(
  rows: readonly (readonly string[])[],
  { headerRow, columns }: Mapping,
  kinds: FactKinds
): FactColumn[] {
  return Object.entries(columns).flatMap(([key, at]) => {
    if (!isFactKey(key) || at === undefined) return [];
    const id = key.slice('fact.'.length);
    const { unit } = splitUnit(rows[headerRow]?.[at] ?? '');
    return [{ id, at, kind: kinds.find(id), ...(unit === undefined ? {} : { unit }) }];
  });
}

function readRow(
  row: number,
  cell: (field: ImportField) => string,
  cells: readonly string[],
  factColumns: readonly FactColumn[]
): MachineRecord {
  const remarks: string[] = [];
  const observed = readDay(cell('observed'), remarks);
  const facts = readFacts(cell, cells, factColumns, remarks);
  const nodes = Number(cell('nodes'));
  const links = LINKS.flatMap(([field, kind]) =>
    listOf(cell(field)).map((name): NamedLink => ({ kind, name }))
  );
  const companions = listOf(cell('companions')).map((name) => ({ name }));
  const given = {
    team: clip(cell('team')),
    site: clip(cell('site')),
    nodes: Number.isInteger(nodes) && nodes > 1 && nodes <= 1000 ? nodes : undefined,
    observed,
    note: clip(cell('note'), 5000),
    purl: clip(cell('purl')),
    cpe: clip(cell('cpe')),
    facts: Object.keys(facts).length > 0 ? facts : undefined,
    links: links.length > 0 ? links : undefined,
    companions: companions.length > 0 ? companions : undefined
  };
  return {
    row,
    name: cell('name').slice(0, 300).trim(),
    texts: Object.fromEntries(TEXTS.map((f) => [f, cell(f)]).filter(([, text]) => text !== '')),
    ...Object.fromEntries(Object.entries(given).filter(([, v]) => v !== undefined)),
    remarks
  };
}

function readDay(text: string, remarks: string[]): string | undefined {
  if (text === '') return undefined;
  const read = parseMessyDay(text);
  if (!read) remarks.push(`"${text.slice(0, 80)}" is not a day`);
  if (read?.also !== undefined) remarks.push(`day ${formatDay(read.day)}; could be ${formatDay(read.also)}`);
  return read && formatDay(read.day);
}

function readFacts(
  cell: (field: ImportField) => string,
  cells: readonly string[],
  columns: readonly FactColumn[],
  remarks: string[]
): Record<string, Fact> {
  const facts: Record<string, Fact> = {};
  const add = (id: string, text: string, fact: Fact | undefined, words: string): void => {
    if (!fact) remarks.push(`"${text.slice(0, 80)}" is ${words}`);
    facts[id] = fact ?? { unknown: 'not understood' };
  };
  const activated = cell('activated');
  if (activated !== '')
    add('activated', activated, parseFactText(ACTIVATED, activated), 'neither yes nor no');
  for (const { id, at, unit, kind } of columns) {
    const text = restoreCell(cells[at] ?? '');
    if (text !== '') add(id, text, parseFactText(kind, text, unit), `no value for ${kind?.name ?? id}`);
  }
  return facts;
}

const ACTIVATED = {
  id: 'activated',
  name: 'activated',
  measure: 'switch',
  keptBy: 'software',
  shelfLifeDays: 180
} as const;

/** Several names in one cell, between semicolons or bars. */
const listOf = (text: string): string[] =>
  text
    .split(/[;|\n]+/)
    .map((t) => t.trim().slice(0, 300))
    .filter(Boolean)
    .slice(0, MAX_LISTED);
