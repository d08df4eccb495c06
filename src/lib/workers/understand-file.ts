import { unzipSync } from 'fflate';
import readXlsxFile from 'read-excel-file/universal';
import type { Catalogue } from '$core/catalogue/schema';
import type { Workspace } from '$core/estate/schema';
import { parseCatalogue } from '$core/exchange/catalogue-file';
import { checkTable, parseCsv } from '$core/exchange/csv-in';
import { decodeText } from '$core/exchange/decode-text';
import { MAX_FILE_BYTES } from '$core/exchange/guard';
import { suggestMapping, type Mapping } from '$core/exchange/mapping';
import { parseWorkspace } from '$core/exchange/workspace-file';
import { fail, succeed, type Result } from '$core/issue';
import { formatDay } from '$core/date/day';

/** What a dropped file turned out to be. */
export type UnderstoodFile =
  | {
      readonly kind: 'list';
      readonly rows: readonly (readonly string[])[];
      readonly how: string;
      readonly mapping?: Mapping;
    }
  | { readonly kind: 'workspace'; readonly workspace: Workspace }
  | { readonly kind: 'catalogue'; readonly catalogue: Catalogue; readonly text: string };

/** Reads a file by what is in it, whatever its name says. Changes nothing. */
export async function understandFile(bytes: Uint8Array, name: string): Promise<Result<UnderstoodFile>> {
  if (bytes.byteLength > MAX_FILE_BYTES)
    return fail({ code: 'too-big', detail: `${MAX_FILE_BYTES / 1024 / 1024} MB` });
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) return understandSheet(bytes);
  const { text, encoding, hadMark } = decodeText(bytes);
  if (text.trimStart().startsWith('{') && text.includes('orange-stair-workspace')) {
    const workspace = parseWorkspace(text);
    return workspace.ok ? succeed({ kind: 'workspace', workspace: workspace.value }) : workspace;
  }
  if (isCatalogue(text, name)) {
    const catalogue = parseCatalogue(text);
    return catalogue.ok ? succeed({ kind: 'catalogue', catalogue: catalogue.value, text }) : catalogue;
  }
  const table = parseCsv(text);
  if (!table.ok) return table;
  const separators: Record<string, string> = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' };
  const how = `${encoding}${hadMark ? ' with a byte-order mark' : ''}, separated by ${separators[table.value.separator ?? ','] ?? 'commas'}`;
  return listOf(table.value.rows, how);
}

const isCatalogue = (text: string, name: string): boolean =>
  /^\s*[{"']*format["']?\s*:\s*["']?orange-stair-catalogue/m.test(text.slice(0, 20_000)) ||
  /\.(ya?ml|json)$/i.test(name);

function listOf(rows: readonly (readonly string[])[], how: string): Result<UnderstoodFile> {
  const mapping = suggestMapping(rows);
  return succeed({ kind: 'list', rows, how, ...(mapping ? { mapping } : {}) });
}

async function understandSheet(bytes: Uint8Array): Promise<Result<UnderstoodFile>> {
  try {
    let unpacked = 0;
    unzipSync(bytes, { filter: (file) => ((unpacked += file.originalSize), false) });
    if (unpacked > MAX_FILE_BYTES)
      return fail({ code: 'too-big', detail: `${MAX_FILE_BYTES / 1024 / 1024} MB unpacked` });
    const sheets = await readXlsxFile(new Blob([bytes as Uint8Array<ArrayBuffer>]));
    const first = sheets[0];
    const rows = (first?.data ?? []).map((row) => row.map(cellText));
    const table = checkTable({ rows });
    return table.ok ? listOf(table.value.rows, `spreadsheet, sheet "${first?.sheet ?? ''}"`) : table;
  } catch (error) {
    return fail({ code: 'unreadable-sheet', detail: error instanceof Error ? error.message : String(error) });
  }
}

function cellText(cell: unknown): string {
  if (cell === null || cell === undefined) return '';
  if (cell instanceof Date)
    return Number.isNaN(cell.getTime()) ? '' : formatDay(Math.floor(cell.getTime() / 86_400_000));
  return String(cell).trim();
}
