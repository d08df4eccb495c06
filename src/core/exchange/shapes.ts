/**
 * Shapes of lists that are no separated values: a table between bars, as Markdown has it, and columns held apart by blanks. Each line of the
 * text is one row, so that rows keep the numbers people see; what is no row of the table is empty, but for what stands above it.
 */
export function rowsOfShape(text: string): string[][] | undefined {
  const lines = text.split(/\r?\n/);
  return barredRows(lines) ?? fixedRows(lines) ?? letterRows(lines);
}

const RULE = /^\s*\|?\s*:?-{2,}:?\s*(\|\s*:?-{2,}:?\s*)*\|?\s*$/;

function barredRows(lines: readonly string[]): string[][] | undefined {
  const rule = lines.findIndex(
    (l, i) => i > 0 && l.includes('|') && RULE.test(l) && (lines[i - 1] ?? '').includes('|')
  );
  if (rule < 0) return undefined;
  const cut = (line: string): string[] =>
    line
      .trim()
      .replace(/^\||\|$/g, '')
      .split(/(?<!\\)\|/)
      .map((cell) => plain(cell));
  const head = cut(lines[rule - 1] ?? '');
  return lines.map((line, i) => {
    if (i < rule - 1) return [plain(line)];
    if (!line.includes('|') || RULE.test(line)) return [];
    const cells = cut(line);
    // A table that goes on below says its headings again.
    return i >= rule && cells.join('|') === head.join('|') ? [] : cells;
  });
}

/** A cell without the signs that make it bold; what is struck out names nothing any more. */
const plain = (cell: string): string =>
  cell
    .trim()
    .replace(/^~~.*~~$/, '')
    .replace(/^(\*\*|__|`)(.*)\1$/, '$2')
    .replaceAll('\\|', '|')
    .trim();

const ITEM = /^\s*[-*•]\s+([\w][\w.-]*)(?:\s+\(([^)]*)\)|\s+((?:in|at|im|am|dans)\s[^:]*))?\s*:\s+(.+)$/;
const SIZE = /(\d+(?:[.,]\d+)?\s*[GMT]i?[Bo])\b/i;
/** Who writes so is not sure; nothing of it is taken. */
const UNSURE =
  /\b(i think|maybe|perhaps|probably|could not|sticker|not sure|glaube|vielleicht|peut-etre|je crois)\b|\?/i;
const SAME = /^(same|ditto|idem|dito|genauso|pareil)\b/i;

/** A letter that goes through machines one by one: what stands behind each name, cut at commas. */
function letterRows(lines: readonly string[]): string[][] | undefined {
  const items = lines.map((l) => ITEM.exec(l));
  const first = items.findIndex((m) => m !== null);
  const names = items.flatMap((m) => (m ? [m[1]] : []));
  if (first < 1 || names.length < 2 || new Set(names).size < names.length) return undefined;
  let before = '';
  return items.map((item, i): string[] => {
    if (i === first - 1) return ['Name', 'Note', 'Runs', 'Memory', 'Free', 'Not sure'];
    if (i < first) return [lines[i] ?? ''];
    // A point that names nothing is told as a row without a name.
    if (!item) return /^\s*[-*•]\s/.test(lines[i] ?? '') ? ['', (lines[i] ?? '').trim()] : [];
    const [, name = '', inBrackets, behind, text = ''] = item;
    const cells = { runs: [] as string[], memory: '', free: '', unsure: [] as string[] };
    for (const part of text.split(/[,;]\s+/)) {
      const [, size] = SIZE.exec(part) ?? [];
      if (UNSURE.test(part)) cells.unsure.push(part);
      else if (SAME.test(part)) cells.runs.push(before);
      else if (size === undefined) cells.runs.push(part);
      else if (/free|frei|libre/i.test(part)) cells.free = size;
      else cells.memory = size;
    }
    before = cells.runs.join(' ');
    return [name, inBrackets ?? behind ?? '', before, cells.memory, cells.free, cells.unsure.join('; ')];
  });
}

const LEAST_COLUMNS = 3;
const LOOK_DOWN = 20;

/** Columns begin where the headings do, with two blanks before each. */
function fixedRows(lines: readonly string[]): string[][] | undefined {
  const head = lines
    .slice(0, LOOK_DOWN)
    .findIndex((l) => !/[\t;|]/.test(l) && startsOf(l).length >= LEAST_COLUMNS && !/\d{4}/.test(l));
  if (head < 0) return undefined;
  const starts = startsOf(lines[head] ?? '');
  const cut = (line: string): string[] => {
    // A line that goes on where a column begins cannot be cut: it is told as a row without a name.
    if (starts.some((at) => at > 0 && line.length > at && line[at - 1] !== ' ')) return ['', line.trim()];
    return starts.map((at, i) => line.slice(at, starts[i + 1]).trim()).map((c) => (c === '-' ? '' : c));
  };
  const rows = lines.map((line, i) => {
    if (i < head) return [line.trim()];
    return /^[\s=–—-]+$/.test(line) ? [] : cut(line);
  });
  const full = rows.slice(head + 1).filter((r) => r.filter((c) => c !== '').length >= 2).length;
  return full >= 2 && full * 2 >= lines.slice(head + 1).filter((l) => l.trim() !== '').length
    ? rows
    : undefined;
}

function startsOf(line: string): number[] {
  const starts: number[] = [];
  for (const match of line.matchAll(/(^|\s{2,})(\S)/g)) starts.push(match.index + (match[1]?.length ?? 0));
  return starts;
}
