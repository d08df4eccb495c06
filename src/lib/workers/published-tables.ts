import {
  decodeText,
  looksLikeSheet,
  type PublishedTable,
  readPublishedTables,
  readSheet,
  tablesOfRows
} from '$core/exchange';
import { fail, type Result, succeed } from '$core/kit';

/** The tables of a file, or of what was copied: a sheet, or any text. */
export async function publishedTables(bytes: Uint8Array): Promise<Result<readonly PublishedTable[]>> {
  if (!looksLikeSheet(bytes)) return readPublishedTables(decodeText(bytes).text);
  const sheet = await readSheet(bytes);
  if (!sheet.ok) return sheet;
  const tables = tablesOfRows(sheet.value.rows);
  return tables.length > 0 ? succeed(tables) : fail({ code: 'no-table' });
}
