import { parseDateText, PHASES, type PhaseName } from '../../date';
import { foldText } from '../../version';
import type { Product, Release } from '../schema';
import { compareLabels } from '../sketch/cluster-texts';
import { freeId } from '../sketch/sketch';
import { cleanCell, dateIn, type DateOrder, isDated, labelOf, type ReleaseTable } from './cells';
import { LEFT_OUT, type TableChange, type TableReader } from './reader';

/** What a column of a life-cycle table says of a release. */
export type ColumnRole = 'release' | 'name' | 'published' | PhaseName | 'product' | 'left out';
const COLUMN_ROLES: readonly ColumnRole[] = [
  'release',
  'name',
  'published',
  ...PHASES,
  'product',
  'left out'
];

/** One row, as it is understood. */
export interface LifeCycleRow {
  /** Index into the rows of the table. */
  readonly row: number;
  readonly label: string;
  /** What else the release is called. */
  readonly names: readonly string[];
  readonly published?: string;
  readonly ends: Partial<Readonly<Record<PhaseName, string>>>;
  /** Cells that are no dates and were left out. */
  readonly unread: readonly string[];
  /** Some date could be read with day or month first. */
  readonly isTwofold: boolean;
}

export interface LifeCycle {
  readonly rows: readonly LifeCycleRow[];
  /** Rows that name no release. */
  readonly left: readonly number[];
  /** Some dates can be read two ways, and no row says which. */
  readonly needsOrder: boolean;
}

const PUBLISHED =
  /\b(out|released?|published|launch(ed)?|available|availability|start(s|ed)?|introduced|ga|since|from)\b/i;
const SECURITY = /\b(security|maintenance|critical|patches|long)\b/i;
const EXTENSION = /\b(extended|extension|paid|expanded|extra|premium|beyond)\b/i;
const FULL = /\b(full|active|mainstream|standard|general|normal|bug)\b/i;
const NAME = /\b(code ?name|name|alias|called|also|title)\b/i;
const PRODUCT = /^(products?|system|software|operating system|appliance)( name)?$/i;
const ENDS = /\b(end|ends|until|eol|support|service|to)\b/i;
const isDateHeading = (h: string): boolean =>
  [PUBLISHED, SECURITY, EXTENSION, FULL, ENDS].some((p) => p.test(h)) && !NAME.test(h);
const LATEST = /\b(latest|newest|updated)\b|\blast (release|patch|update|version)\b/i;
/** Days that are no end of service: what cannot be bought or fetched any more is served on. */
const OTHER = /\b(media|downloads?|withdrawn|sales?|sold|orders?|marketing|announced)\b/i;
const RELEASE = /\b(release|version|branch|series|cycle|line|edition|major)\b/i;

/**
 * What each column is, from its heading and its cells: dates with a heading of coming out, else ends of service in the order of their days;
 * the release, and what else it is called. Nothing is taken for granted: the person sees and changes it.
 */
export function suggestColumns({ head, rows }: ReleaseTable): ColumnRole[] {
  const roles: ColumnRole[] = head.map(() => 'left out');
  const cellsOf = (i: number): string[] => rows.map((r) => r[i] ?? '').filter((c) => cleanCell(c) !== '');
  const share = (i: number, of: (cell: string) => boolean): number => {
    const cells = cellsOf(i);
    return cells.length === 0 ? 0 : cells.filter(of).length / cells.length;
  };
  const isYear = (cell: string): boolean => /^\d{4}$/.test(cleanCell(cell));
  const all = head.map((_, i) => i);
  const texts = all.filter((i) => share(i, (c) => isDated(c) && !isYear(c)) < 0.5 && cellsOf(i).length > 0);
  // A column of years is a release or its name where nothing else could be one.
  const release =
    texts.find((i) => RELEASE.test(head[i] ?? '') && !NAME.test(head[i] ?? '')) ??
    texts.find(
      (i) => share(i, (c) => /\d/.test(cleanCell(c))) > 0.5 && new Set(cellsOf(i)).size === cellsOf(i).length
    ) ??
    texts[0];
  if (release !== undefined) roles[release] = 'release';
  const product = texts.find((i) => i !== release && PRODUCT.test((head[i] ?? '').trim()));
  if (product !== undefined) roles[product] = 'product';
  const isTaken = (i: number): boolean => i === release || i === product;
  const name =
    texts.find((i) => !isTaken(i) && NAME.test(head[i] ?? '')) ??
    // A column of years beside the release is what it is called, where nothing says that it came out then.
    all.find(
      (i) => !isTaken(i) && share(i, isYear) > 0.9 && cellsOf(i).length > 0 && !isDateHeading(head[i] ?? '')
    );
  if (name !== undefined) roles[name] = 'name';
  const dates = all.filter((i) => !isTaken(i) && i !== name && share(i, (c) => isDated(c)) >= 0.5);
  const published =
    dates.find(
      (i) => PUBLISHED.test(head[i] ?? '') && !/\b(end|until|eol|support|service)\b/i.test(head[i] ?? '')
    ) ??
    // Of three and more without a word for it the earliest is the day it came out.
    (dates.length > 1 && !dates.some((i) => PUBLISHED.test(head[i] ?? ''))
      ? earliestOf(dates, rows)
      : undefined);
  if (published !== undefined) roles[published] = 'published';
  const ends = byDay(
    dates.filter(
      (i) =>
        i !== published &&
        ![LATEST, OTHER].some((p) => p.test(head[i] ?? '')) &&
        !(published !== undefined && isMostlyBefore(i, published, rows))
    ),
    rows
  );
  assignPhases(ends, head, roles);
  return roles;
}

/** By the words of their headings; those that say nothing get what is left, in the order of their days. */
function assignPhases(ends: readonly number[], head: readonly string[], roles: ColumnRole[]): void {
  const free = new Set<PhaseName>(PHASES);
  const take = (i: number, phase: PhaseName): void => {
    if (roles[i] === 'left out' && free.delete(phase)) roles[i] = phase;
  };
  for (const i of ends) if (EXTENSION.test(head[i] ?? '')) take(i, 'extension');
  for (const i of ends) if (SECURITY.test(head[i] ?? '')) take(i, 'security');
  for (const i of ends) if (FULL.test(head[i] ?? '')) take(i, 'full');
  const order = PHASES.filter((p) => free.has(p));
  for (const i of ends) {
    if (roles[i] !== 'left out') continue;
    const [next] = order.splice(0, 1);
    if (next) take(i, next);
  }
}

const dayOf = (text: string): number => {
  const read = parseDateText(text);
  return read !== undefined && 'first' in read ? read.first : Number.NaN;
};

function middleDay(column: number, rows: readonly (readonly string[])[]): number {
  const days = rows
    .map((r) => dayOf(dateIn(r[column] ?? '')?.text ?? ''))
    .filter((d) => !Number.isNaN(d))
    .sort((a, b) => a - b);
  return days[Math.floor(days.length / 2)] ?? Infinity;
}

/** A day before a release came out is no end of its service: when work on it began, say. */
function isMostlyBefore(column: number, published: number, rows: readonly (readonly string[])[]): boolean {
  const day = (row: readonly string[], at: number): number => dayOf(dateIn(row[at] ?? '')?.text ?? '');
  const both = rows.filter((r) => !Number.isNaN(day(r, column)) && !Number.isNaN(day(r, published)));
  return both.length > 0 && both.filter((r) => day(r, column) < day(r, published)).length > both.length / 2;
}

const byDay = (columns: readonly number[], rows: readonly (readonly string[])[]): number[] =>
  [...columns].sort((a, b) => middleDay(a, rows) - middleDay(b, rows) || a - b);

const earliestOf = (columns: readonly number[], rows: readonly (readonly string[])[]): number | undefined =>
  byDay(columns, rows)[0];

/** Reads the rows by what their columns are. `product`: names that may stand before a label. */
export function readLifeCycle(
  table: ReleaseTable,
  roles: readonly ColumnRole[],
  {
    names = [],
    known = [],
    order
  }: {
    readonly names?: readonly string[];
    /** What releases that are known are called: a label that is one whole is not taken apart. */
    readonly known?: readonly string[];
    readonly order?: DateOrder;
  } = {}
): LifeCycle {
  const whole = new Set(known.map(foldText));
  const column = (role: ColumnRole): number => roles.indexOf(role);
  const dated = roles.flatMap((r, i) => (r === 'published' || PHASES.includes(r as PhaseName) ? [i] : []));
  const reading = order ?? orderOf(table, dated);
  const rows: LifeCycleRow[] = [];
  const left: number[] = [];
  table.rows.forEach((cells, row) => {
    const cell = cleanCell(cells[column('release')] ?? '');
    const told = whole.has(foldText(cell)) ? { label: cell, names: [] } : labelOf(cell, names);
    if (!told) return void left.push(row);
    const unread: string[] = [];
    let isTwofold = false;
    const dateAt = (role: ColumnRole): string | undefined => {
      const cell = column(role) < 0 ? '' : (cells[column(role)] ?? '');
      // No extension is none; of other days a dash says that nobody knows.
      if (role === 'extension' && /^([-–—]|none|no)?$/i.test(cleanCell(cell))) return undefined;
      const date = dateIn(cell);
      if (date === undefined) {
        if (cleanCell(cell) !== '') unread.push(cell);
        return undefined;
      }
      isTwofold ||= date.also !== undefined && reading === undefined;
      return reading === 'month first' && date.also !== undefined ? date.also : date.text;
    };
    const published = dateAt('published');
    const ends = Object.fromEntries(
      PHASES.flatMap((phase) => {
        const until = dateAt(phase);
        return until === undefined ? [] : [[phase, until] as const];
      })
    );
    const other = cleanCell(column('name') < 0 ? '' : (cells[column('name')] ?? ''));
    rows.push({
      row,
      label: told.label,
      names: [
        ...new Set([
          ...told.names,
          ...(other === '' || foldText(other) === foldText(told.label) ? [] : [other])
        ])
      ],
      ...(published === undefined ? {} : { published }),
      ends,
      unread,
      isTwofold
    });
  });
  return { rows: once(rows), left, needsOrder: rows.some((r) => r.isTwofold) };
}

/** A release that stands in several rows - one an edition, say - is one: what comes later adds what is not there. */
function once(rows: readonly LifeCycleRow[]): LifeCycleRow[] {
  const found = new Map<string, LifeCycleRow>();
  for (const row of rows) {
    const key = foldText(row.label);
    const known = found.get(key);
    found.set(
      key,
      known
        ? {
            ...row,
            ...known,
            ends: { ...row.ends, ...known.ends },
            names: [...new Set([...known.names, ...row.names])]
          }
        : row
    );
  }
  return [...found.values()];
}

/** What cells that can be read in one way only say of the others. */
function orderOf({ rows }: ReleaseTable, columns: readonly number[]): DateOrder | undefined {
  let found: DateOrder | undefined;
  for (const row of rows)
    for (const i of columns) {
      const [, a, b] = /^(\d{1,2})[-/.](\d{1,2})[-/.]\d{2,4}$/.exec(cleanCell(row[i] ?? '')) ?? [];
      const order = Number(a) > 12 ? 'day first' : Number(b) > 12 ? 'month first' : undefined;
      if (order && found && order !== found) return undefined;
      found = order ?? found;
    }
  return found;
}

/** What taking a table in would do to one release. */
export interface ReleaseChange {
  readonly label: string;
  readonly kind: 'new' | 'changed' | 'same' | 'gone';
  /** Ends that are told otherwise than before, or for the first time. */
  readonly ends: readonly { readonly phase: PhaseName; readonly before?: string; readonly after: string }[];
  /** The day it came out, where that was not known. */
  readonly published?: string;
  readonly names: readonly string[];
}

/**
 * A product with what a life-cycle table says of its releases: new ones in sequence, ends moved with what was said before kept, other names
 * added; nothing is ever deleted. Releases of the same source that the table does not have any more are told as gone.
 */
export function takeLifeCycle(
  product: Product,
  rows: readonly LifeCycleRow[],
  source: string
): { readonly product: Product; readonly changes: readonly ReleaseChange[] } {
  const changes: ReleaseChange[] = [];
  const releases = [...product.releases];
  const nameKeys = (r: Release): string[] =>
    [r.id, r.name ?? '', ...(r.aliases ?? [])].map(foldText).filter(Boolean);
  const seen = new Set<string>();
  let lines = product.lines;
  for (const row of rows) {
    const wanted = [row.label, ...row.names].map(foldText);
    const line = lineOf({ ...product, releases, lines }, wanted);
    if (line) {
      if (seen.has(`line ${line.id}`)) continue;
      seen.add(`line ${line.id}`);
      for (const [i, r] of releases.entries()) {
        if (r.line !== line.id) continue;
        seen.add(r.id);
        const isCalledSo = wanted.includes(foldText(r.name ?? r.id));
        if (isCalledSo && r.published === 'unknown' && row.published !== undefined)
          releases[i] = { ...r, published: row.published };
      }
      const put = updated(line, row, source);
      lines = lines?.map((l) => (l === line ? put.release : l));
      changes.push(put.change);
      continue;
    }
    const at = releases.findIndex((r) => nameKeys(r).includes(wanted[0] ?? ''));
    const index = at >= 0 ? at : releases.findIndex((r) => wanted.some((w) => nameKeys(r).includes(w)));
    const known = releases[index];
    if (known) {
      // Two rows that are of one release: the first says what it is.
      if (seen.has(known.id)) continue;
      seen.add(known.id);
      const { release, change } = updated(known, row, source);
      releases[index] = release;
      changes.push(change);
      continue;
    }
    const made = releaseFrom(row, new Set(releases.map((r) => r.id)), source);
    seen.add(made.id);
    const next = releases.findIndex((r) => compareLabels(r.name ?? r.id, row.label) > 0);
    releases.splice(next < 0 ? releases.length : next, 0, made);
    changes.push({
      label: row.label,
      kind: 'new',
      ends: PHASES.flatMap((phase) =>
        row.ends[phase] === undefined ? [] : [{ phase, after: row.ends[phase] as string }]
      ),
      ...(row.published === undefined ? {} : { published: row.published }),
      names: row.names
    });
  }
  for (const r of product.releases)
    if (!seen.has(r.id) && r.source === source)
      changes.push({ label: r.name ?? r.id, kind: 'gone', ends: [], names: [] });
  return { product: { ...product, releases, ...(lines ? { lines } : {}) }, changes };
}

type Line = NonNullable<Product['lines']>[number];

/** The line a row is of: named so, with releases that have no service of their own. */
function lineOf(product: Product, wanted: readonly string[]): Line | undefined {
  const line = (product.lines ?? []).find((l) =>
    [l.id, l.name ?? l.id].some((n) => wanted.includes(foldText(n)))
  );
  const own = product.releases.filter((r) => r.line === line?.id);
  return line && own.length > 0 && own.every((r) => r.service === undefined) ? line : undefined;
}

function releaseFrom(row: LifeCycleRow, taken: ReadonlySet<string>, source: string): Release {
  const id = freeId(row.label, taken);
  const service = PHASES.flatMap((phase) =>
    row.ends[phase] === undefined ? [] : [{ phase, until: row.ends[phase] as string, source }]
  );
  return {
    id,
    ...(id === row.label ? {} : { name: row.label }),
    ...(row.names.length > 0 ? { aliases: [...row.names] } : {}),
    published: row.published ?? 'unknown',
    ...(service.length > 0 ? { service } : {}),
    source
  } as Release;
}

function updated<E extends Release | Line>(
  release: E,
  row: LifeCycleRow,
  source: string
): { readonly release: E; readonly change: ReleaseChange } {
  const ends: ReleaseChange['ends'][number][] = [];
  const service = [...(release.service ?? [])];
  for (const phase of PHASES) {
    const after = row.ends[phase];
    if (after === undefined) continue;
    const at = service.findIndex((p) => p.phase === phase);
    const known = service[at];
    if (!known) {
      service.push({ phase, until: after, source });
      ends.push({ phase, after });
    } else if (known.until !== after) {
      const before = { until: known.until, ...(known.source === undefined ? {} : { source: known.source }) };
      service[at] = { ...known, until: after, was: [...(known.was ?? []), before].slice(-50), source };
      ends.push({ phase, before: known.until, after });
    }
  }
  service.sort((a, b) => PHASES.indexOf(a.phase) - PHASES.indexOf(b.phase));
  const aliases = 'published' in release ? (release.aliases ?? []) : undefined;
  const has = new Set([release.id, release.name ?? '', ...(aliases ?? [])].map(foldText));
  // A line has no other names and no day of its own.
  const names = aliases ? row.names.filter((n) => !has.has(foldText(n))) : [];
  const isNewlyOut =
    'published' in release &&
    release.published === 'unknown' &&
    row.published !== undefined &&
    row.published !== 'unknown';
  const isChanged = ends.length > 0 || names.length > 0 || isNewlyOut;
  return {
    release: isChanged
      ? ({
          ...release,
          ...(names.length > 0 ? { aliases: [...(aliases ?? []), ...names] } : {}),
          ...(isNewlyOut ? { published: row.published } : {}),
          ...(service.length > 0 ? { service } : {})
        } as E)
      : release,
    change: {
      label: release.name ?? release.id,
      kind: isChanged ? 'changed' : 'same',
      ends,
      ...(isNewlyOut && row.published !== undefined ? { published: row.published } : {}),
      names
    }
  };
}

/** When releases come and end, as one of the kinds of tables. */
export const lifeCycleReader: TableReader = {
  roles: COLUMN_ROLES,
  meanings: () => [],
  suggestRoles: (table) => suggestColumns(table),
  words: () => [],
  suggestMeaning: () => LEFT_OUT,
  take({ table, roles, about, source }, ground) {
    const { product } = ground;
    const names = [product.name, ...(product.aliases ?? [])].filter((n) => n.trim() !== '');
    const read = readLifeCycle(table, roles as readonly ColumnRole[], {
      names,
      known: product.releases.flatMap((r) => [r.name ?? r.id, ...(r.aliases ?? [])]),
      ...(about.order ? { order: about.order } : {})
    });
    const taken = takeLifeCycle(product, read.rows, source);
    const idOf = new Map(taken.product.releases.map((r) => [r.name ?? r.id, r.id]));
    return {
      ...ground,
      product: taken.product,
      changes: taken.changes.map((c): TableChange => {
        const release = idOf.get(c.label);
        return {
          kind: c.kind,
          what: c.label,
          details: [
            ...(c.published === undefined ? [] : [{ role: 'published', after: c.published }]),
            ...c.ends.map(({ phase, before, after }) => ({
              role: phase,
              after,
              ...(before === undefined ? {} : { before })
            })),
            ...(c.names.length > 0 ? [{ role: 'name', after: c.names.join(', ') }] : [])
          ],
          ...(release === undefined ? {} : { release })
        };
      }),
      left: read.left,
      unread: read.rows.flatMap((r) => r.unread.map((cell) => ({ of: r.label, cell }))),
      needsOrder: read.needsOrder
    };
  }
};
