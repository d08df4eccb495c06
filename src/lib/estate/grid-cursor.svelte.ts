import { boxOf, type Cell } from './grid';

/** Where somebody stands in a grid of rows, and what is selected. */
export class GridCursor {
  readonly #rows: () => readonly string[];
  readonly #allowNew: () => boolean;
  #at = $state.raw<Cell>({ row: 0, column: 0 });
  #anchor = $state.raw<Cell>({ row: 0, column: 0 });

  /** @param allowNew whether a blank row at the end takes new ones */
  constructor(rows: () => readonly string[], allowNew: () => boolean) {
    this.#rows = rows;
    this.#allowNew = allowNew;
  }

  /** Rows that can be stood on, the blank one included. */
  readonly count = $derived.by(() => this.#rows().length + (this.#allowNew() ? 1 : 0));
  /** A search or an undo may leave fewer rows than there were. */
  readonly at = $derived.by(() => this.#within(this.#at));
  readonly range = $derived.by(() => boxOf(this.#within(this.#anchor), this.at));
  /** Keys of the rows in the selection. */
  readonly keys = $derived.by(() => this.#rows().slice(this.range.top, this.range.bottom + 1));

  /** Goes to a cell; `extend` keeps the selection's other end. */
  go(to: Cell, extend = false): void {
    this.#at = to;
    if (!extend) this.#anchor = to;
  }

  /** Selects all from the first cell to this one. */
  all(last: Cell): void {
    this.#anchor = { row: 0, column: 0 };
    this.#at = last;
  }

  #within = (cell: Cell): Cell => ({
    row: Math.max(0, Math.min(this.count - 1, cell.row)),
    column: cell.column
  });
}
