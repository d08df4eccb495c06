import Papa from 'papaparse';
import type { CellEdit, SheetColumn } from '$core/estate';
import { guardCell, restoreCell } from '$core/exchange';

export interface Cell {
  readonly row: number;
  readonly column: number;
}

/** A block of cells, ends included. */
export interface Box {
  readonly top: number;
  readonly bottom: number;
  readonly left: number;
  readonly right: number;
}

export const boxOf = (a: Cell, b: Cell): Box => ({
  top: Math.min(a.row, b.row),
  bottom: Math.max(a.row, b.row),
  left: Math.min(a.column, b.column),
  right: Math.max(a.column, b.column)
});

/** The columns in sight beside the first, which always is; and the width of those passed over to the left. */
export function visibleColumns(
  columns: readonly SheetColumn[],
  scrolled: number,
  width: number
): { readonly list: readonly number[]; readonly skipped: number } {
  const list: number[] = [];
  let left = columns[0]?.width ?? 0;
  let skipped = 0;
  for (let c = 1; c < columns.length; c++) {
    const own = columns[c]?.width ?? 0;
    if (left + own < scrolled) skipped += own;
    else if (left < scrolled + width) list.push(c);
    left += own;
  }
  return { list, skipped };
}

/** Cells as a spreadsheet takes them: tabs between columns, lines between rows, quotes where needed, none a formula. */
export function textOfBox(box: Box, textOf: (row: number, column: number) => string): string {
  const rows: string[][] = [];
  for (let r = box.top; r <= box.bottom; r++) {
    const row: string[] = [];
    for (let c = box.left; c <= box.right; c++) row.push(guardCell(textOf(r, c)));
    rows.push(row);
  }
  return Papa.unparse(rows, { delimiter: '\t', newline: '\n' });
}

export interface PasteInto {
  readonly columns: readonly SheetColumn[];
  /** Rows there are; those behind are new. */
  readonly count: number;
  readonly allowNew: boolean;
  keyOf(row: number): string;
}

const MAX_ROWS = 100_000;

/**
 * What pasting a block at a selection changes. A single value fills the whole selection; a block starts at its top left
 * and runs on, over the last row into new ones where those are allowed; what hangs over the last column is left out.
 */
export function editsOfPaste(
  text: string,
  into: Box,
  { columns, count, allowNew, keyOf }: PasteInto
): CellEdit[] {
  const { data } = Papa.parse<string[]>(text.replace(/\r?\n$/, ''), { delimiter: '\t' });
  const block = data.slice(0, MAX_ROWS);
  const single = block.length === 1 && block[0]?.length === 1 ? block[0][0] : undefined;
  const height = single === undefined ? block.length : into.bottom - into.top + 1;
  const width = single === undefined ? Math.max(...block.map((r) => r.length)) : into.right - into.left + 1;
  const edits: CellEdit[] = [];
  for (let r = 0; r < height; r++)
    for (let c = 0; c < width; c++) {
      const column = columns[into.left + c];
      const value = single ?? block[r]?.[c];
      const row = into.top + r;
      if (!column || column.readOnly || value === undefined || (row >= count && !allowNew)) continue;
      edits.push({ row: keyOf(row), column: column.id, text: restoreCell(value) });
    }
  return edits;
}

/** The top row of the selection in every row below it. */
export function fillDown(
  box: Box,
  columns: readonly SheetColumn[],
  keyOf: (row: number) => string,
  textOf: (row: number, column: number) => string
): CellEdit[] {
  const edits: CellEdit[] = [];
  for (let r = box.top + 1; r <= box.bottom; r++)
    for (let c = box.left; c <= box.right; c++) {
      const column = columns[c];
      const text = textOf(box.top, c);
      if (column && !column.readOnly && textOf(r, c) !== text)
        edits.push({ row: keyOf(r), column: column.id, text });
    }
  return edits;
}
