import type { Catalogue } from '../../catalogue';
import type { Estate, RightHeld, System } from '../schema';

/** A table of the estate that can be edited cell by cell; rows and columns by key, cells as text. */
export interface Sheet {
  readonly columns: readonly SheetColumn[];
  /** Keys of the rows, in the order given. */
  readonly rows: readonly string[];
  /** The text of a cell; empty where nothing is recorded. */
  read(row: string, column: string): string;
  /** What is amiss with a cell's value; absent where nothing is. */
  mark?(row: string, column: string): 'stale' | 'disputed' | undefined;
  /** What the edits come to, all together; nothing is changed here. */
  apply(edits: readonly CellEdit[]): SheetOutcome;
}

export interface SheetColumn {
  readonly id: string;
  readonly name: string;
  /** px */
  readonly width: number;
  /** Texts to choose from; others may be refused. */
  readonly choices?: readonly string[];
  readonly readOnly?: boolean;
}

/** A row's key, or `+1`, `+2`, ... for rows to be added, in that order. */
export interface CellEdit {
  readonly row: string;
  readonly column: string;
  readonly text: string;
}

export interface Refusal extends CellEdit {
  readonly why: string;
}

export interface SheetOutcome {
  /** Systems as they stand afterwards; changed and added ones only. */
  readonly systems: readonly System[];
  readonly rightsHeld?: readonly RightHeld[];
  readonly added: number;
  readonly cells: number;
  readonly refused: readonly Refusal[];
}

/** What every sheet is made from. */
export interface SheetSource {
  readonly catalogue: Catalogue;
  readonly estate: Estate;
  /** Systems to show, in the order wanted. */
  readonly systems: readonly System[];
  /** ISO day and name that new facts are kept with. */
  readonly today: string;
  readonly who: string;
  /** What is installed, in words: kept in a system's history when it changes. */
  describe(system: System): string;
}

/** Whether a key is that of a row to be added. */
export const isNewRow = (row: string): boolean => row.startsWith('+');

/** Edits by row, new rows last and in their order. */
export function editsByRow(edits: readonly CellEdit[]): Map<string, CellEdit[]> {
  const rows = new Map<string, CellEdit[]>();
  for (const edit of edits) {
    const list = rows.get(edit.row);
    if (list) list.push(edit);
    else rows.set(edit.row, [edit]);
  }
  const number = (row: string): number => (isNewRow(row) ? Number(row.slice(1)) : 0);
  return new Map([...rows].sort(([a], [b]) => number(a) - number(b)));
}
