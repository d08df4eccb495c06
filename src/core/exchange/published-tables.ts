import { parseDocument } from 'yaml';
import { fail, type Result, succeed } from '../kit';
import { parseMessyDate } from '../date';
import { parseCsv } from './csv-in';
import { findTextFault } from './guard';
import { readHtmlTables } from './html-tables';
import { parseJsonTable } from './json-table';

/** A table as somebody published it. */
export interface PublishedTable {
  /** What stands above it; empty where nothing does. */
  readonly title: string;
  readonly head: readonly string[];
  /** Each as wide as the head. */
  readonly rows: readonly (readonly string[])[];
}

const MOST_TABLES = 200;

/**
 * The tables of what somebody has copied or saved: a page or a part of one, Markdown, separated values (several blocks under titles, parted
 * by empty lines), a list of objects as JSON or YAML. Tables without a second row are left out.
 */
export function readPublishedTables(text: string): Result<readonly PublishedTable[]> {
  const fault = findTextFault(text, 'flat');
  if (fault) return fail(fault);
  const found = tablesIn(text)
    .flatMap(({ title, rows }) => shaped(title, rows))
    .slice(0, MOST_TABLES);
  return found.length > 0 ? succeed(found) : fail({ code: 'no-table' });
}

/** The tables of a sheet: blocks under titles, parted by empty rows. */
export const tablesOfRows = (rows: readonly (readonly string[])[]): readonly PublishedTable[] =>
  blocksOf(rows).flatMap(({ title, rows: own }) => shaped(title, own));

interface Block {
  readonly title: string;
  readonly rows: readonly (readonly string[])[];
}

function tablesIn(text: string): readonly Block[] {
  if (/<(table|tr|td)[\s>]/i.test(text)) return readHtmlTables(text);
  const markdown = markdownTables(text);
  if (markdown.length > 0) return markdown;
  if (/^\s*[[{]/.test(text)) {
    const table = parseJsonTable(text);
    if (table.ok) return [{ title: '', rows: table.value.rows }];
  }
  if (/^\s*-\s+[\w"' ]+:/m.test(text)) {
    const list = yamlList(text);
    if (list) return [{ title: '', rows: list }];
  }
  const csv = parseCsv(text);
  return csv.ok ? blocksOf(csv.value.rows).filter(isTabular) : [];
}

/** Not prose with commas in it: most rows about as wide as the first, few cells as long as a sentence. */
function isTabular({ rows: [head = [], ...rows] }: Block): boolean {
  const cells = rows.flat();
  const even = rows.filter((r) => r.length <= head.length && r.length >= head.length / 2).length;
  const long = cells.filter((c) => c.length > SENTENCE).length;
  return even >= rows.length * 0.7 && long <= cells.length * 0.3 && head.every((h) => h.length <= SENTENCE);
}

const SENTENCE = 60;

function yamlList(text: string): readonly (readonly string[])[] | undefined {
  if (findTextFault(text, 'yaml')) return undefined;
  const document = parseDocument(text, { schema: 'failsafe', maxAliasCount: 0 } as never);
  if (document.errors.length > 0) return undefined;
  const table = parseJsonTable(JSON.stringify(document.toJS({ maxAliasCount: 0 })));
  return table.ok ? table.value.rows : undefined;
}

/** Blocks parted by empty rows; one with a single cell above a block is its title. */
function blocksOf(rows: readonly (readonly string[])[]): Block[] {
  const blocks: { title: string; rows: (readonly string[])[] }[] = [];
  let open: (typeof blocks)[number] | undefined;
  let title = '';
  for (const row of rows) {
    const filled = row.filter((c) => c.trim() !== '');
    if (filled.length === 0) open = undefined;
    else if (
      filled.length === 1 &&
      (!open || open.rows.length === 0) &&
      row.length > 1 &&
      row[0] === filled[0]
    ) {
      title = filled[0] ?? '';
      open = undefined;
    } else if (open) open.rows.push(row);
    else {
      open = { title, rows: [row] };
      title = '';
      blocks.push(open);
    }
  }
  return blocks;
}

const RULE = /^\s*\|?\s*:?-{2,}:?\s*(\|\s*:?-{2,}:?\s*)+\|?\s*$/;

function markdownTables(text: string): Block[] {
  const lines = text.split(/\r?\n/);
  const found: Block[] = [];
  let title = '';
  for (let i = 0; i < lines.length; i++) {
    const line = lines[i] ?? '';
    const heading = /^#{1,6}\s+(.*)$/.exec(line);
    if (heading) title = plainMarkdown(heading[1] ?? '');
    if (!RULE.test(lines[i + 1] ?? '') || !line.includes('|')) continue;
    const rows = [cellsOf(line)];
    let at = i + 2;
    for (; (lines[at] ?? '').includes('|'); at++) rows.push(cellsOf(lines[at] ?? ''));
    found.push({ title, rows });
    i = at - 1;
  }
  return found;
}

/** Parted by bars that are not written out with a backslash. */
function cellsOf(line: string): string[] {
  const cells = line
    .trim()
    .replace(/^\|/, '')
    .replace(/\|$/, '')
    .split(/(?<!\\)\|/);
  return cells.map((c) => plainMarkdown(c.replaceAll('\\|', '|')));
}

/** Words without what makes them links, bold or code. */
const plainMarkdown = (text: string): string =>
  text
    .replace(/!?\[([^\]]*)\]\([^)]*\)/g, '$1')
    .replace(/\[\^([^\]]+)\]/g, ' [$1]')
    .replace(/[*_`~]{1,3}([^*_`~]+)[*_`~]{1,3}/g, '$1')
    .replace(/<br\s*\/?>/gi, ' ')
    .trim();

/** With its head on top: several heading rows are one, and what has no head gets one. */
function shaped(title: string, rows: readonly (readonly string[])[]): PublishedTable[] {
  const width = Math.max(0, ...rows.map((r) => r.length));
  const even = rows
    .map((r) => Array.from({ length: width }, (_, i) => (r[i] ?? '').trim()))
    .filter((r) => r.some((c) => c !== ''));
  if (even.length < 2 || width < 2) return [];
  const isHead = (row: readonly string[]): boolean =>
    !row.some((c) => parseMessyDate(c) !== undefined && /\d/.test(c) && !/^\d{4}$/.test(c));
  let heads = 0;
  while (heads < Math.min(3, even.length - 1) && isHead(even[heads] ?? [])) heads++;
  // One heading row, but where the next repeats some of its cells: then both together say what a column is.
  const first = even[0] ?? [];
  const second = even[1] ?? [];
  const isDouble = heads > 1 && first.some((c, i) => c !== '' && (c === first[i + 1] || c === second[i]));
  const used = heads === 0 ? 0 : isDouble ? 2 : 1;
  const head = Array.from({ length: width }, (_, i) =>
    [...new Set(even.slice(0, used).map((r) => r[i] ?? ''))].filter(Boolean).join(' ')
  );
  return [{ title, head, rows: even.slice(used) }];
}
