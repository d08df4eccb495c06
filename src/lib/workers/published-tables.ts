import {
  decodeText,
  looksLikeSheet,
  type PublishedTable,
  readPublishedTables,
  readSheets,
  tablesOfRows
} from '$core/exchange';
import { fail, type Result, succeed } from '$core/kit';

/** The tables of a file, or of what was copied: every sheet of a workbook, or any text. */
export async function publishedTables(bytes: Uint8Array): Promise<Result<readonly PublishedTable[]>> {
  if (!looksLikeSheet(bytes)) return readPublishedTables(decodeText(bytes).text);
  const sheets = await readSheets(bytes);
  if (!sheets.ok) return sheets;
  const tables = sheets.value.flatMap(({ sheet, rows }) =>
    tablesOfRows(rows).map((t) => (t.title === '' && sheets.value.length > 1 ? { ...t, title: sheet } : t))
  );
  return tables.length > 0 ? succeed(tables) : fail({ code: 'no-table' });
}
