import { Parser } from 'htmlparser2';

/** A table of a page: its cells as texts, row by row, cells that span others in each of them. */
export interface HtmlTable {
  /** Its caption, else the heading before it. */
  readonly title: string;
  readonly rows: readonly (readonly string[])[];
}

const MOST_CELLS = 1_000_000;
const MOST_SPAN = 1000;
const MOST_DEPTH = 20;
const SILENT = new Set([
  'script',
  'style',
  'template',
  'noscript',
  'svg',
  'iframe',
  'object',
  'textarea',
  'select'
]);
const HEADINGS = new Set(['h1', 'h2', 'h3', 'h4', 'h5', 'h6']);
const BREAKS = new Set(['br', 'p', 'div', 'li']);
/** Where a line of a cell ends; spaces and breaks of the source are none. */
const LINE = '\u2028';

/** Cells that reach down into rows to come, by column. */
type Reaching = Map<number, { left: number; readonly text: string }>;

class OpenTable {
  title: string;
  readonly rows: string[][] = [];
  readonly #reaching: Reaching = new Map();
  cell: { text: string; across: number; down: number } | undefined;

  constructor(title: string) {
    this.title = title;
  }

  openRow(): void {
    this.rows.push([]);
    this.#fill();
  }

  /** What reaches down from above stands where it does. */
  #fill(): void {
    const row = this.rows.at(-1);
    if (!row) return;
    for (let found = this.#reaching.get(row.length); found; found = this.#reaching.get(row.length)) {
      if (--found.left === 0) this.#reaching.delete(row.length);
      row.push(found.text);
    }
  }

  closeCell(): number {
    const cell = this.cell;
    this.cell = undefined;
    if (!cell) return 0;
    if (this.rows.length === 0) this.openRow();
    const row = this.rows.at(-1) as string[];
    const text = cell.text
      .replace(/[^\S\u2028]+/g, ' ')
      .replace(/ ?(?:\u2028 ?)+/g, '\n')
      .trim();
    for (let i = 0; i < cell.across; i++) {
      if (cell.down > 1) this.#reaching.set(row.length, { left: cell.down - 1, text });
      row.push(text);
    }
    this.#fill();
    return cell.across;
  }
}

/** A number of columns or rows that a cell spans. */
function spanOf(text: string | undefined): number {
  const span = Number.parseInt(text ?? '', 10);
  return Number.isInteger(span) && span > 1 ? Math.min(span, MOST_SPAN) : 1;
}

/**
 * The tables of a page, in turn. Only texts are read, by a parser that builds no page: nothing runs, nothing is fetched. A mark set
 * high or low is kept apart as `[1]`, so that it does not become part of a figure. Tables inside cells are tables of their own.
 */
export function readHtmlTables(html: string): HtmlTable[] {
  const done: HtmlTable[] = [];
  const open: OpenTable[] = [];
  let silent = 0;
  let heading: string | undefined;
  let lastHeading = '';
  let caption: string | undefined;
  let cells = 0;
  const say = (text: string): void => {
    const cell = open.at(-1)?.cell;
    if (caption !== undefined) caption += text;
    else if (cell) cell.text += text;
    else if (heading !== undefined) heading += text;
  };
  const parser = new Parser(
    {
      onopentag(name, attributes) {
        if (SILENT.has(name)) silent++;
        if (silent > 0 || cells > MOST_CELLS) return;
        const table = open.at(-1);
        if (name === 'table' && open.length < MOST_DEPTH) open.push(new OpenTable(lastHeading));
        else if (name === 'caption') caption = '';
        else if (name === 'tr') {
          table?.closeCell();
          table?.openRow();
        } else if (table && (name === 'td' || name === 'th')) {
          cells += table.closeCell();
          table.cell = {
            text: '',
            across: spanOf(attributes['colspan']),
            down: spanOf(attributes['rowspan'])
          };
        } else if (HEADINGS.has(name)) heading = '';
        else if (name === 'sup' || name === 'sub') say(' [');
        else if (BREAKS.has(name)) say(LINE);
      },
      ontext(text) {
        if (silent === 0) say(text);
      },
      onclosetag(name) {
        if (SILENT.has(name)) silent = Math.max(0, silent - 1);
        if (silent > 0) return;
        const table = open.at(-1);
        if (name === 'table' && table) {
          table.closeCell();
          open.pop();
          if (table.rows.some((r) => r.some((c) => c !== '')))
            done.push({ title: table.title, rows: table.rows });
        } else if (name === 'caption') {
          if (table && caption !== undefined)
            table.title = caption.replace(/\s+/g, ' ').trim() || table.title;
          caption = undefined;
        } else if (name === 'td' || name === 'th' || name === 'tr') cells += table?.closeCell() ?? 0;
        else if (HEADINGS.has(name) && heading !== undefined) {
          lastHeading = heading.replace(/\s+/g, ' ').trim();
          heading = undefined;
        } else if (name === 'sup' || name === 'sub') say('] ');
        else if (BREAKS.has(name)) say(LINE);
      }
    },
    { decodeEntities: true, lowerCaseTags: true, lowerCaseAttributeNames: true }
  );
  parser.write(html);
  parser.end();
  return done;
}
