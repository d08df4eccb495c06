import { emptyCatalogue, type Catalogue } from '$core/catalogue/schema';
import { kindsOf } from '$core/estate/facts';
import type { RememberedList, Workspace } from '$core/estate/schema';
import { parseCatalogue } from '$core/exchange/catalogue-file';
import { parseCsv, type TableText } from '$core/exchange/csv-in';
import { looksLikeCycloneDx, parseCycloneDx } from '$core/exchange/cyclonedx';
import { decodeText } from '$core/exchange/decode-text';
import { MAX_FILE_BYTES } from '$core/exchange/guard';
import { parseJsonTable } from '$core/exchange/json-table';
import type { MachineRecord } from '$core/exchange/machine-record';
import { suggestMapping, type Mapping } from '$core/exchange/mapping';
import { looksLikeOsRelease, parseOsRelease } from '$core/exchange/os-release';
import { looksLikeRecord, parseRecords } from '$core/exchange/record-text';
import { looksLikeSheet, readSheet } from '$core/exchange/sheet-in';
import { parseWorkspace } from '$core/exchange/workspace-file';
import { fail, succeed, type Result } from '$core/kit/issue';

/** What a dropped file turned out to be. */
export type UnderstoodFile =
  | {
      readonly kind: 'list';
      readonly rows: readonly (readonly string[])[];
      readonly how: string;
      readonly mapping?: Mapping;
    }
  | { readonly kind: 'records'; readonly records: readonly MachineRecord[]; readonly how: string }
  | { readonly kind: 'workspace'; readonly workspace: Workspace }
  | { readonly kind: 'catalogue'; readonly catalogue: Catalogue; readonly text: string };

/** What is known already that helps to understand a file. */
export interface FileHints {
  readonly catalogue: Catalogue;
  readonly lists: readonly RememberedList[];
}

/** Reads a file by what is in it, whatever its name says. Changes nothing. */
export async function understandFile(
  bytes: Uint8Array,
  name: string,
  hints: FileHints = { catalogue: emptyCatalogue(), lists: [] }
): Promise<Result<UnderstoodFile>> {
  if (bytes.byteLength > MAX_FILE_BYTES)
    return fail({ code: 'too-big', detail: `${MAX_FILE_BYTES / 1024 / 1024} MB` });
  if (looksLikeSheet(bytes)) return understandSheet(bytes, hints);
  const { text, encoding, hadMark } = decodeText(bytes);
  const start = text.trimStart().slice(0, 1);
  if (start === '{' && text.includes('orange-stair-workspace')) {
    const workspace = parseWorkspace(text);
    return workspace.ok ? succeed({ kind: 'workspace', workspace: workspace.value }) : workspace;
  }
  const stem = name.replace(/\.[^.]*$/, '').slice(0, 200) || 'machine';
  if (start === '{' && looksLikeCycloneDx(text))
    return recordsOf(parseCycloneDx(text, hints.catalogue, stem), 'CycloneDX');
  if (isCatalogue(text, name)) {
    const catalogue = parseCatalogue(text);
    return catalogue.ok ? succeed({ kind: 'catalogue', catalogue: catalogue.value, text }) : catalogue;
  }
  if (start === '{' || start === '[') return understandTable(parseJsonTable(text), () => 'JSON', hints);
  if (looksLikeRecord(text)) return recordsOf(parseRecords(text, kindsOf(hints.catalogue)), 'records');
  if (looksLikeOsRelease(text)) return recordsOf(parseOsRelease(text, stem), 'os-release');
  const separators: Record<string, string> = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' };
  return understandTable(
    parseCsv(text),
    (table) =>
      `${encoding}${hadMark ? ' with a byte-order mark' : ''}, separated by ${separators[table.separator ?? ','] ?? 'commas'}`,
    hints
  );
}

const recordsOf = (records: Result<MachineRecord[]>, how: string): Result<UnderstoodFile> =>
  records.ok ? succeed({ kind: 'records', records: records.value, how }) : records;

const isCatalogue = (text: string, name: string): boolean =>
  /^\s*[{"']*format["']?\s*:\s*["']?orange-stair-catalogue/m.test(text.slice(0, 20_000)) ||
  /\.ya?ml$/i.test(name);

function understandTable(
  table: Result<TableText>,
  how: (table: TableText) => string,
  { catalogue, lists }: FileHints
): Result<UnderstoodFile> {
  if (!table.ok) return table;
  const { rows } = table.value;
  const mapping = suggestMapping(rows, { kinds: kindsOf(catalogue), lists });
  return succeed({ kind: 'list', rows, how: how(table.value), ...(mapping ? { mapping } : {}) });
}

async function understandSheet(bytes: Uint8Array, hints: FileHints): Promise<Result<UnderstoodFile>> {
  const sheet = await readSheet(bytes);
  return sheet.ok ? understandTable(sheet, () => `spreadsheet, sheet "${sheet.value.sheet}"`, hints) : sheet;
}
