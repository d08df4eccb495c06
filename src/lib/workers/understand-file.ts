import { type Catalogue, emptyCatalogue } from '$core/catalogue';
import { kindsOf, type RememberedList, type Workspace } from '$core/estate';
import {
  decodeText,
  looksLikeCycloneDx,
  looksLikeOsRelease,
  looksLikeRecord,
  looksLikeSheet,
  type MachineRecord,
  type Mapping,
  MAX_FILE_BYTES,
  parseCatalogue,
  parseCsv,
  parseCycloneDx,
  parseJsonTable,
  parseOsRelease,
  parseRecords,
  parseWorkspace,
  readSheet,
  suggestMapping,
  type TableText
} from '$core/exchange';
import { fail, type Result, succeed } from '$core/kit';
import { foldText } from '$core/version';
import { isWorkspaceLines, readWorkspaceBlob } from './read-workspace';

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
  file: Blob,
  name: string,
  hints: FileHints = { catalogue: emptyCatalogue(), lists: [] }
): Promise<Result<UnderstoodFile>> {
  if (await isWorkspaceLines(file)) {
    const workspace = await readWorkspaceBlob(file);
    return workspace.ok ? succeed({ kind: 'workspace', workspace: workspace.value }) : workspace;
  }
  if (file.size > MAX_FILE_BYTES)
    return fail({ code: 'too-big', detail: `${MAX_FILE_BYTES / 1024 / 1024} MB` });
  const bytes = new Uint8Array(await file.arrayBuffer());
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
  const mapping = suggestMapping(rows, {
    kinds: kindsOf(catalogue),
    lists,
    products: productWords(catalogue)
  });
  return succeed({ kind: 'list', rows, how: how(table.value), ...(mapping ? { mapping } : {}) });
}

/** Words products go by. */
const productWords = ({ products }: Catalogue): ReadonlySet<string> =>
  new Set(
    products.flatMap((p) =>
      [p.name, ...(p.aliases ?? [])].flatMap((n) =>
        foldText(n)
          .split(' ')
          .filter((w) => /^[^\d]{3,}$/.test(w))
      )
    )
  );

async function understandSheet(bytes: Uint8Array, hints: FileHints): Promise<Result<UnderstoodFile>> {
  const sheet = await readSheet(bytes);
  return sheet.ok ? understandTable(sheet, () => `spreadsheet, sheet "${sheet.value.sheet}"`, hints) : sheet;
}
