import { entryKey, joinEntryPath } from './entry-path';
import { parseDateText, readDay } from '../date';
import { KEPT, type Catalogue } from './schema';

/** Something a catalogue states in two or more ways. */
export interface Dispute {
  /** Entry path, as in `entry-path.ts`. */
  readonly entry: string;
  /** The fields that differ, sorted. */
  readonly fields: readonly string[];
  /** What is said, the entry's own statement first. */
  readonly statements: readonly Statement[];
  /** The key of the statement that a ruling lets hold. */
  readonly ruled?: string;
}

export interface Statement {
  readonly key: string;
  readonly source?: string;
  readonly values: Readonly<Record<string, unknown>>;
}

/** A ruling as settling needs it: which statement of which entry holds. */
export interface Ruling {
  readonly entry: string;
  readonly holds: string;
}

export interface Settled {
  readonly catalogue: Catalogue;
  readonly disputes: readonly Dispute[];
}

type Fields = Readonly<Record<string, unknown>>;

/** Dates on which something ends: of several the earliest counts. */
const ENDS: ReadonlySet<string> = new Set(['until', 'closes', 'ends']);
/** Dates on which something begins: of several the latest counts. */
const BEGINNINGS: ReadonlySet<string> = new Set([
  'published',
  'opens',
  'begins',
  'complete',
  'general',
  'preview',
  'early'
]);
const DEMANDS: ReadonlySet<string> = new Set(['levels', 'needs']);

/**
 * The catalogue as planning reads it: of entries stated in several ways the statement a ruling lets hold; without a
 * ruling an end counts at its earliest statement and a beginning at its latest, demands that differ are
 * unknown, minutes the most, what is kept the least, a price one to ask for. An expected date is passed over for an end, and is
 * unknown for a beginning, where the site does not count expected dates. Other fields stay as the entry itself has them. Products without disputes are the same objects.
 */
export function settleCatalogue(
  catalogue: Catalogue,
  rulings: readonly Ruling[],
  countsExpected = true
): Settled {
  const disputes: Dispute[] = [];
  const holds = new Map(rulings.map((r) => [r.entry, r.holds]));
  const settled = settleValue(catalogue.products, [], {
    holds,
    disputes,
    countsExpected
  }) as Catalogue['products'];
  return { catalogue: disputes.length === 0 ? catalogue : { ...catalogue, products: settled }, disputes };
}

interface Settling {
  readonly holds: ReadonlyMap<string, string>;
  readonly disputes: Dispute[];
  readonly countsExpected: boolean;
}

function settleValue(value: unknown, path: readonly string[], settling: Settling): unknown {
  if (Array.isArray(value)) {
    const next = value.map((v: unknown, i) => settleValue(v, [...path, entryKey(v) ?? String(i)], settling));
    return next.some((v, i) => v !== value[i]) ? next : (value as unknown);
  }
  if (typeof value !== 'object' || value === null) return value;
  const fields = value as Fields;
  let next: Record<string, unknown> | undefined;
  for (const [key, child] of Object.entries(fields)) {
    if (key === 'also' || typeof child !== 'object') continue;
    const settled = settleValue(child, [...path, key], settling);
    if (settled !== child) next = { ...(next ?? fields), [key]: settled };
  }
  const own = next ?? fields;
  return Array.isArray(fields['also']) ? settleEntry(own, path, settling) : own;
}

function settleEntry(entry: Fields, path: readonly string[], settling: Settling): Fields {
  const statements = statementsOf(entry);
  const fields = differingFields(statements);
  if (fields.length === 0) return entry;
  const name = joinEntryPath(path);
  const ruled = statements.find((s) => s.key === settling.holds.get(name));
  settling.disputes.push({ entry: name, fields, statements, ...(ruled ? { ruled: ruled.key } : {}) });
  const settled: Record<string, unknown> = { ...entry };
  for (const field of fields) {
    const value = ruled
      ? ruled.values[field]
      : unsettled(
          field,
          statements.map((s) => s.values[field]),
          entry[field],
          settling.countsExpected
        );
    if (value === undefined) delete settled[field];
    else settled[field] = value;
    if (field === 'priceCents' && !ruled) settled['kind'] = 'ask';
  }
  // What was not taken stays beside what was: the entry's own statement as well as the others'.
  if (ruled) delete settled['also'];
  else settled['also'] = statements.map((said) => said.values);
  if (ruled?.source !== undefined) settled['source'] = ruled.source;
  return settled;
}

/** The entry's own statement and the others, each whole: what a statement does not say is as the entry has it. */
export function statementsOf(entry: Fields): Statement[] {
  const { also, ...own } = entry;
  const others = Array.isArray(also) ? (also as Fields[]) : [];
  const taken = new Set<string>();
  return [own, ...others.map((o) => ({ ...own, source: undefined, ...o }))].map((values) => {
    const source = typeof values['source'] === 'string' ? values['source'] : undefined;
    let key = source ?? 'without a source';
    for (let n = 2; taken.has(key); n++) key = `${source ?? 'without a source'} ${n}`;
    taken.add(key);
    return { key, values, ...(source === undefined ? {} : { source }) };
  });
}

function differingFields(statements: readonly Statement[]): string[] {
  const names = new Set(statements.flatMap((s) => Object.keys(s.values)));
  names.delete('source');
  names.delete('was');
  return [...names]
    .filter((n) => new Set(statements.map((s) => JSON.stringify(s.values[n]))).size > 1)
    .sort();
}

/** The careful reading of a field nobody has ruled on. */
function unsettled(
  field: string,
  values: readonly unknown[],
  own: unknown,
  countsExpected: boolean
): unknown {
  if (ENDS.has(field) || BEGINNINGS.has(field)) return carefulDate(field, values, own, countsExpected);
  if (DEMANDS.has(field)) return 'unknown';
  if (/[mM]inutes$/.test(field)) return Math.max(...values.map((v) => (typeof v === 'number' ? v : 0)));
  if (field === 'kept') return KEPT[Math.max(...values.map((v) => KEPT.findIndex((k) => k === v)))];
  return field === 'priceCents' ? undefined : own;
}

/** The earliest of ends, the latest of beginnings; where a beginning is stated by maturity, each of them by itself. */
function carefulDate(
  field: string,
  values: readonly unknown[],
  own: unknown,
  countsExpected: boolean
): unknown {
  const objects = values.filter((v): v is Fields => typeof v === 'object' && v !== null);
  if (objects.length > 0) {
    if (objects.length < values.length) return own;
    const names = [...new Set(objects.flatMap((o) => Object.keys(o)))];
    return Object.fromEntries(
      names.map((n) => {
        const stated = objects.flatMap((o) => (o[n] === undefined ? [] : [o[n]]));
        return [n, carefulDate(n, stated, stated[0], countsExpected)];
      })
    );
  }
  const isEnd = ENDS.has(field);
  const dated = values
    .filter((v): v is string => typeof v === 'string')
    .map((text) => {
      const date = parseDateText(text);
      const day = date ? readDay(date, countsExpected) : 'unknown';
      return { text, day: day === 'unknown' ? Infinity : day };
    });
  // What nobody states beside a statement says nothing against it.
  const [first] = [...dated].sort((a, b) =>
    a.day === b.day ? 0 : (isEnd ? a.day < b.day : a.day > b.day) ? -1 : 1
  );
  return first?.text;
}
