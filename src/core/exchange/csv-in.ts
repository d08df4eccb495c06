import Papa from 'papaparse';
import { fail, type Result, succeed } from '../kit';
import { findTextFault } from './guard';
import { rowsOfShape } from './shapes';

const MAX_ROWS = 500_000;
const MAX_COLUMNS = 500;

/** A file as rows of text cells, with how it was understood. */
export interface TableText {
  readonly rows: readonly (readonly string[])[];
  readonly separator?: string;
}

const SEPARATORS = [',', ';', '\t', '|'];

/** Reads separated values (RFC 4180, and what people really have): the separator that gives the most even rows. */
export function parseCsv(text: string): Result<TableText> {
  const fault = findTextFault(text, 'flat');
  if (fault) return fail(fault);
  const shaped = rowsOfShape(text);
  if (shaped) return checkTable({ rows: shaped });
  const separator = findSeparator(text);
  const { data } = Papa.parse<string[]>(text, { delimiter: separator, skipEmptyLines: false });
  return checkTable({ rows: data.map((row) => row.map((cell) => cell.trim())), separator });
}

/** Rows within the limits, without empty rows at the end. */
export function checkTable(table: TableText): Result<TableText> {
  const rows = [...table.rows];
  while (rows.length > 0 && rows[rows.length - 1]?.every((c) => c === '')) rows.pop();
  if (rows.length === 0) return fail({ code: 'empty' });
  if (rows.length > MAX_ROWS) return fail({ code: 'too-many-rows', detail: String(MAX_ROWS) });
  if (rows.some((r) => r.length > MAX_COLUMNS))
    return fail({ code: 'too-many-columns', detail: String(MAX_COLUMNS) });
  return succeed({ ...table, rows });
}

/** Of the usual separators, the one that cuts the first lines into the most columns, all alike. */
function findSeparator(text: string): string {
  const sample = text.slice(0, 20_000);
  let best = { separator: ',', score: 0 };
  for (const separator of SEPARATORS) {
    const { data } = Papa.parse<string[]>(sample, { delimiter: separator, preview: 30 });
    const widths = data.filter((r) => r.some((c) => c.trim() !== '')).map((r) => r.length);
    const usual = mostFrequent(widths);
    const score = usual < 2 ? 0 : widths.filter((w) => w === usual).length * Math.min(usual, 40);
    if (score > best.score) best = { separator, score };
  }
  return best.separator;
}

function mostFrequent(values: readonly number[]): number {
  const counts = new Map<number, number>();
  for (const v of values) counts.set(v, (counts.get(v) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1] || b[0] - a[0])[0]?.[0] ?? 0;
}
