import { type MessyDate, parseDateText, parseMessyDate } from '../../date';
import { foldText } from '../../version';
import { compareLabels } from './cluster-texts';
import type { ProductSketch } from './sketch';

/** One line of a pasted table of dates, as it was understood. */
export interface DateRow {
  readonly line: number;
  readonly text: string;
  readonly product?: number;
  readonly release?: string;
  /** No machine runs it: the table alone knows it. */
  readonly isNew?: boolean;
  readonly published?: string;
  readonly ends?: string;
  /** Why the line is left out. */
  readonly problem?: 'no date' | 'no such release' | 'several releases' | 'day or month first' | 'heading';
}

export interface DateTable {
  readonly rows: readonly DateRow[];
  /** Some date could be read with day or month first, and no line of the table says which. */
  readonly needsOrder: boolean;
}

type Order = 'day first' | 'month first';

/**
 * Reads a table of dates as copied from a page or a sheet: a line a release, columns parted by tabs, semicolons, bars,
 * commas or wide gaps. A line names its product and release, or only the release where just one product has such a one;
 * a release that no machine runs is a new one of the product the line names. One date is the end of service; of two the earlier is the day it came out. Dates that could be read two ways follow
 * `order`, or what the other lines of the table leave open.
 */
export function parseDateTable(text: string, sketches: readonly ProductSketch[], order?: Order): DateTable {
  const lines = text.split(/\r?\n/).map((l, i) => ({ line: i + 1, text: l.trim() }));
  const cut = lines.filter((l) => l.text !== '').map((l) => ({ ...l, ...cutLine(l.text) }));
  const dates = cut.flatMap((c) => c.dates);
  const reading = order ?? settleOrder(cut.flatMap((c) => c.raw));
  const needsOrder = reading === undefined && dates.some((d) => d.also !== undefined);
  const index = indexOf(sketches);
  return { needsOrder, rows: cut.map((c, i) => rowOf(c, index, reading, i === 0)) };
}

interface CutLine {
  readonly line: number;
  readonly text: string;
  readonly label: string;
  readonly dates: readonly MessyDate[];
  readonly raw: readonly string[];
}

function cutLine(text: string): Pick<CutLine, 'label' | 'dates' | 'raw'> {
  const cells = splitCells(text);
  const read = cells.map((c) => ({ cell: c, date: parseMessyDate(c) }));
  const dated = read.filter((r, i) => i > 0 && r.date !== undefined);
  return {
    label: read
      .filter((r) => !dated.includes(r))
      .map((r) => r.cell)
      .join(' '),
    dates: dated.map((r) => r.date as MessyDate),
    raw: dated.map((r) => r.cell)
  };
}

/** By the first separator that gives more than one cell; a line without any is parted where its dates begin. */
function splitCells(text: string): string[] {
  for (const separator of [/\t/, /;/, /\|/, /\s{2,}/, /,\s*/]) {
    const cells = text
      .split(separator)
      .map((c) => c.trim())
      .filter(Boolean);
    if (cells.length > 1 && cells.slice(1).some((c) => parseMessyDate(c))) return cells;
  }
  return peelDates(text.split(/\s+/));
}

/** Dates at the end of a line, one after the other, and what stands before them. */
function peelDates(words: readonly string[]): string[] {
  for (let i = 1; i < words.length; i++) {
    const rest = words.slice(i).join(' ');
    if (parseMessyDate(rest)) return [...peelDates(words.slice(0, i)), rest];
  }
  return [words.join(' ')];
}

/** What the dates that can be read in one way only say of the others. */
function settleOrder(cells: readonly string[]): Order | undefined {
  let found: Order | undefined;
  for (const cell of cells) {
    const [, a, b] = /^(\d{1,2})[-/.](\d{1,2})[-/.]\d{2,4}$/.exec(cell) ?? [];
    const order = Number(a) > 12 ? 'day first' : Number(b) > 12 ? 'month first' : undefined;
    if (order && found && order !== found) return undefined;
    found = order ?? found;
  }
  return found;
}

function rowOf(cut: CutLine, index: Index, order: Order | undefined, isFirst: boolean): DateRow {
  const base = { line: cut.line, text: cut.text };
  if (cut.dates.length === 0) return { ...base, problem: isFirst ? 'heading' : 'no date' };
  const found = findReleases(cut.label, index);
  const [first] = found;
  if (!first) return { ...base, problem: 'no such release' };
  if (found.length > 1) return { ...base, problem: 'several releases' };
  if (order === undefined && cut.dates.some((d) => d.also !== undefined))
    return { ...base, ...first, problem: 'day or month first' };
  const texts = cut.dates.map((d) => (order === 'month first' && d.also !== undefined ? d.also : d.text));
  return { ...base, ...first, ...rolesOf(texts) };
}

function rolesOf(texts: readonly string[]): { published?: string; ends?: string } {
  const [a, b] = texts;
  if (a === undefined) return {};
  if (b === undefined) return { ends: a };
  return isLater(a, b) ? { published: b, ends: a } : { published: a, ends: b };
}

function isLater(a: string, b: string): boolean {
  const [x, y] = [parseDateText(a), parseDateText(b)];
  return x !== undefined && y !== undefined && 'first' in x && 'first' in y && x.first > y.first;
}

type Found = Pick<DateRow, 'isNew'> & { readonly product: number; readonly release: string };

/** Releases by what a line may call them. */
interface Index {
  readonly named: ReadonlyMap<string, readonly Found[]>;
  readonly bare: ReadonlyMap<string, readonly Found[]>;
  readonly products: readonly { readonly product: number; readonly name: string }[];
}

function indexOf(sketches: readonly ProductSketch[]): Index {
  const named = new Map<string, Found[]>();
  const bare = new Map<string, Found[]>();
  const add = (map: Map<string, Found[]>, key: string, found: Found): void => {
    const list = map.get(key);
    if (!list) map.set(key, [found]);
    else if (!list.includes(found)) list.push(found);
  };
  sketches.forEach((sketch, product) => {
    const names = new Set([sketch.name, ...sketch.spellings].map(foldText));
    for (const { label } of sketch.releases) {
      const found = { product, release: label };
      for (const name of names) add(named, `${name} ${foldText(label)}`, found);
      add(bare, foldText(label), found);
    }
  });
  const products = sketches.flatMap((s, product) =>
    [s.name, ...s.spellings].map((name) => ({ product, name }))
  );
  return { named, bare, products };
}

/** Releases a label names: with their product's name, alone where one label fits only one, or new ones of a product named. */
function findReleases(label: string, index: Index): readonly Found[] {
  const wanted = foldText(label);
  const known = index.named.get(wanted) ?? index.bare.get(wanted);
  if (known) return known;
  const clean = label.trim();
  const fitting = index.products.filter(({ name }) => wanted.startsWith(`${foldText(name)} `));
  const byProduct = new Map(fitting.map((f): [number, string] => [f.product, f.name]));
  return [...byProduct].map(([product, name]) => ({
    product,
    release: clean.slice(name.length).trim(),
    isNew: true
  }));
}

/** The sketches with the dates of the rows that were understood, and with the releases only the table knows. */
export function applyDateTable(sketches: readonly ProductSketch[], table: DateTable): ProductSketch[] {
  return sketches.map((sketch, i) => {
    const rows = table.rows.filter((r) => r.problem === undefined && r.product === i);
    return rows.reduce((s, row) => withDates(s, row), sketch);
  });
}

function withDates(sketch: ProductSketch, row: DateRow): ProductSketch {
  const dates = {
    ...(row.published ? { published: row.published } : {}),
    ...(row.ends ? { ends: row.ends } : {})
  };
  const label = row.release ?? '';
  if (sketch.releases.some((r) => foldText(r.label) === foldText(label)))
    return {
      ...sketch,
      releases: sketch.releases.map((r) => (foldText(r.label) === foldText(label) ? { ...r, ...dates } : r))
    };
  const next = sketch.releases.findIndex((r) => compareLabels(r.label, label) > 0);
  const at = next < 0 ? sketch.releases.length : next;
  const made = { label, texts: [], rests: [], systems: [], ...dates };
  return { ...sketch, releases: [...sketch.releases.slice(0, at), made, ...sketch.releases.slice(at)] };
}
