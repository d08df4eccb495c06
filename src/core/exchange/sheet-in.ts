import { unzipSync } from 'fflate';
import readXlsxFile from 'read-excel-file/universal';
import { formatDay } from '../date';
import { fail, type Result, succeed } from '../kit';
import { checkTable, type TableText } from './csv-in';
import { MAX_FILE_BYTES } from './guard';

/** The first sheet of a spreadsheet as a table of texts. */
export interface SheetText extends TableText {
  readonly sheet: string;
}

/** Whether bytes begin as a packed spreadsheet does. */
export const looksLikeSheet = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b;

/** Reads the first sheet of a spreadsheet; days as ISO text. Refused: what unpacks to more than a file may be, what is none. */
export async function readSheet(bytes: Uint8Array): Promise<Result<SheetText>> {
  const sheets = await readSheets(bytes);
  if (!sheets.ok) return sheets;
  const [first] = sheets.value;
  return first ? succeed(first) : fail({ code: 'unreadable-sheet', detail: '' });
}

/** Reads every sheet of a spreadsheet, as `readSheet` does the first; one that has nothing in it is left out unless it is the first. */
export async function readSheets(bytes: Uint8Array): Promise<Result<readonly SheetText[]>> {
  try {
    let unpacked = 0;
    unzipSync(bytes, { filter: (file) => ((unpacked += file.originalSize), false) });
    if (unpacked > MAX_FILE_BYTES)
      return fail({ code: 'too-big', detail: `${MAX_FILE_BYTES / 1024 / 1024} MB unpacked` });
    const sheets = await readXlsxFile(new Blob([bytes as Uint8Array<ArrayBuffer>]));
    const found: SheetText[] = [];
    for (const [i, { sheet, data }] of sheets.entries()) {
      if (i > 0 && data.length === 0) continue;
      const table = checkTable({ rows: data.map((row) => row.map(cellText)) });
      if (table.ok) found.push({ ...table.value, sheet });
      else if (i === 0) return table;
    }
    return succeed(found);
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
