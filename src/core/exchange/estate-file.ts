import type { Catalogue } from '../catalogue';
import { emptyEstate, type Estate } from '../estate';
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

export interface EstateFile {
  readonly estate: Estate;
  /** The catalogue a workspace file carries, where it carries one. */
  readonly catalogue?: Catalogue;
  readonly notTaken: readonly ImportedRow[];
}

/** An estate from a workspace file (JSON) or a list of machines (CSV, xlsx), for use without a screen. */
export async function parseEstate(
  bytes: Uint8Array,
  fileName: string,
  catalogue: Catalogue | undefined,
  /** ISO day the file is read on. */
  today: string
): Promise<Result<EstateFile>> {
  const isSheet = looksLikeSheet(bytes);
  const text = isSheet ? '' : decodeText(bytes).text;
  if (text.trimStart().startsWith('{')) {
    const workspace = parseWorkspace(text);
    if (!workspace.ok) return workspace;
    const { catalogue: carried, format: _format, version: _version, ...estate } = workspace.value;
    void [_format, _version];
    const own = carried.text.trim() === '' ? undefined : parseCatalogue(carried.text);
    return succeed({ estate, notTaken: [], ...(own?.ok ? { catalogue: own.value } : {}) });
  }
  if (!catalogue) return fail({ code: 'missing-part', detail: 'catalogue' });
  const table = isSheet ? await readSheet(bytes) : parseCsv(text);
  if (!table.ok) return table;
  const mapping = suggestMapping(table.value.rows);
  if (!mapping) return fail({ code: 'no-header' });
  const records = readRows(table.value.rows, mapping, new FactKinds(catalogue.facts));
  const preview = previewImport(records, { catalogue, existing: [], source: fileName, today }, NO_WORDS);
  return succeed({
    estate: { ...emptyEstate(), systems: [...preview.taken] },
    notTaken: preview.rows.filter((r) => r.fate === 'not taken')
  });
}

/** Nothing is there before, so that nothing changes and no history is kept. */
const NO_WORDS: ImportWords = { installed: () => '', difference: () => '' };
