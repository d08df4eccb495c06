import type { Catalogue } from '../catalogue';
import { emptyEstate, type Estate, type Workspace } from '../estate';
import { fail, type Result, succeed } from '../kit';
import { parseCatalogue } from './catalogue-file';
import { parseCsv } from './csv-in';
import { decodeText } from './decode-text';
import { FactKinds } from '../condition';
import { readRows } from './import-rows';
import { previewImport, type ImportedRow, type ImportWords } from './preview-import';
import { suggestMapping } from './mapping';
import { looksLikeSheet, readSheet } from './sheet-in';
import { parseWorkspace } from './workspace-file';
import { looksLikeWorkspaceLines, readWorkspaceLines } from './workspace-lines';

export interface EstateFile {
  readonly estate: Estate;
  /** The catalogue a workspace file carries, where it carries one. */
  readonly catalogue?: Catalogue;
  readonly notTaken: readonly ImportedRow[];
}

/** An estate from a workspace file (JSON, whole or a record a line) or a list of machines (CSV, xlsx), for use without a screen. */
export async function parseEstate(
  bytes: Uint8Array,
  fileName: string,
  catalogue: Catalogue | undefined,
  /** ISO day the file is read on. */
  today: string
): Promise<Result<EstateFile>> {
  if (looksLikeWorkspaceLines(bytes)) {
    const read = await readWorkspaceLines([bytes]);
    return read.ok ? succeed(carriedBy(read.value)) : read;
  }
  const isSheet = looksLikeSheet(bytes);
  const text = isSheet ? '' : decodeText(bytes).text;
  if (text.trimStart().startsWith('{')) {
    const workspace = parseWorkspace(text);
    return workspace.ok ? succeed(carriedBy(workspace.value)) : workspace;
  }
  if (!catalogue) return fail({ code: 'missing-part', detail: 'catalogue' });
  const table = isSheet ? await readSheet(bytes) : parseCsv(text);
  if (!table.ok) return table;
  const mapping = suggestMapping(table.value.rows);
  if (!mapping) return fail({ code: 'no-header' });
  const records = readRows(table.value.rows, mapping, new FactKinds(catalogue.facts), catalogue);
  const preview = previewImport(records, { catalogue, existing: [], source: fileName, today }, NO_WORDS);
  return succeed({
    estate: { ...emptyEstate(), systems: [...preview.taken] },
    notTaken: preview.rows.filter((r) => r.fate === 'not taken')
  });
}

function carriedBy({ catalogue, format: _format, version: _version, ...estate }: Workspace): EstateFile {
  void [_format, _version];
  const own = catalogue.text.trim() === '' ? undefined : parseCatalogue(catalogue.text);
  return { estate, notTaken: [], ...(own?.ok ? { catalogue: own.value } : {}) };
}

/** Nothing is there before, so that nothing changes and no history is kept. */
const NO_WORDS: ImportWords = { installed: () => '', difference: () => '' };
