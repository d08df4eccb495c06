import type { Product, Right } from '../catalogue';
import { formatDay, parseDateText, parseMessyDay } from '../date';
import { foldText } from '../version';

/** What a heading of a price list says. */
const HEADINGS = {
  right: ['right', 'name', 'article', 'item', 'licence', 'license', 'upgrade', 'description', 'what'],
  edition: ['edition', 'variant'],
  price: ['price', 'list price', 'cost', 'amount', 'sum'],
  pack: ['pack', 'packs', 'pack size', 'per pack', 'units', 'units per pack', 'packs of'],
  until: ['until', 'valid until', 'ends', 'last day', 'offer until', 'to'],
  offer: ['offer', 'offer price', 'reduced', 'reduced price']
} as const;
type Column = keyof typeof HEADINGS;

/** One line of a price list, as it was understood. */
export interface PriceLine {
  /** Row of the table, from 1. */
  readonly row: number;
  readonly text: string;
  /** The right it is about as it would be; `isNew`: none of that name and edition was there. */
  readonly right?: Right;
  readonly isNew: boolean;
  /** What would be other: `price 49.00 instead of 45.00`. */
  readonly changes: readonly {
    readonly field: 'price' | 'pack' | 'until' | 'offer';
    readonly before: string;
    readonly after: string;
  }[];
  /** Why it is not taken. */
  readonly refused?: 'no name' | 'no price' | 'several rights of that name';
}

export interface PriceTable {
  /** The columns understood, by what they say. */
  readonly columns: Readonly<Partial<Record<Column, number>>>;
  readonly lines: readonly PriceLine[];
}

/**
 * A publisher's list of rights and prices - right, edition, price, packs, until, in any order and any dialect - against what a
 * product has. A right is known again by its name or id, and its edition where the list names one; what is not known is a new
 * purchase. Undefined where no heading says what is a name and what a price. Day forms as people write them; a month stays a month.
 */
export function readPrices(rows: readonly (readonly string[])[], product: Product): PriceTable | undefined {
  const at = rows.findIndex(
    (row) => columnsOf(row).right !== undefined && columnsOf(row).price !== undefined
  );
  if (at < 0) return undefined;
  const columns = columnsOf(rows[at] ?? []);
  const taken = new Set((product.rights ?? []).map((r) => r.id));
  const lines = rows.slice(at + 1).flatMap((row, i): PriceLine[] => {
    if (row.every((cell) => cell.trim() === '')) return [];
    return [readLine({ row, columns, product, taken }, at + i + 2)];
  });
  return { columns, lines };
}

/** The rights of a product with the lines taken. */
export function withPrices(product: Product, lines: readonly PriceLine[]): Product {
  const taken = lines.flatMap((l) => (l.refused || !l.right ? [] : [l.right]));
  const byId = new Map(taken.map((r) => [r.id, r]));
  const kept = (product.rights ?? []).map((r) => byId.get(r.id) ?? r);
  const known = new Set(kept.map((r) => r.id));
  return { ...product, rights: [...kept, ...taken.filter((r) => !known.has(r.id))] };
}

interface Reading {
  readonly row: readonly string[];
  readonly columns: PriceTable['columns'];
  readonly product: Product;
  readonly taken: Set<string>;
}

function readLine({ row, columns, product, taken }: Reading, number: number): PriceLine {
  const cell = (column: Column): string => row[columns[column] ?? -1]?.trim() ?? '';
  const text = cell('right');
  const base = { row: number, text, isNew: false, changes: [] };
  const cents = readMoney(cell('price'));
  if (text === '') return { ...base, refused: 'no name' };
  if (cents === undefined) return { ...base, refused: 'no price' };
  const edition = editionOf(product, cell('edition'));
  const known = (product.rights ?? []).filter((r) => isNamed(r, text) && leadsTo(r, edition));
  if (known.length > 1) return { ...base, refused: 'several rights of that name' };
  const before = known[0] ?? newRight({ product, text, edition, taken });
  const right = changed(before, {
    cents,
    pack: readCount(cell('pack')),
    until: readUntil(cell('until')),
    offer: readMoney(cell('offer'))
  });
  return {
    row: number,
    text,
    right,
    isNew: known.length === 0,
    changes: changesOf(before, right, known.length === 0)
  };
}

function columnsOf(row: readonly string[]): PriceTable['columns'] {
  const found: Partial<Record<Column, number>> = {};
  row.forEach((cell, i) => {
    const words = foldText(cell.replace(/[(:].*$/, '')).trim();
    const column = (Object.keys(HEADINGS) as Column[]).find(
      (c) => found[c] === undefined && (HEADINGS[c] as readonly string[]).includes(words)
    );
    if (column) found[column] = i;
  });
  return found;
}

/** Cents of a sum as people write it: `EUR 1,490.00`, `1.490,00 EUR`, `49`; undefined where it is none. */
export function readMoney(text: string): number | undefined {
  const digits = text.replace(/[^\d.,]/g, '');
  const found = /^(\d{1,3}(?:[.,]\d{3})*|\d+)(?:[.,](\d{1,2}))?$/.exec(digits);
  if (!found) return undefined;
  const whole = Number((found[1] ?? '').replace(/[.,]/g, ''));
  const cents = whole * 100 + Number((found[2] ?? '').padEnd(2, '0') || 0);
  return Number.isSafeInteger(cents) && cents <= 1e14 ? cents : undefined;
}

function readCount(text: string): number | undefined {
  const count = Number(/\d+/.exec(text)?.[0]);
  return Number.isInteger(count) && count >= 1 && count <= 1_000_000 ? count : undefined;
}

/** A date as the catalogue writes it; a month stays a month. */
function readUntil(text: string): string | undefined {
  if (text === '') return undefined;
  if (parseDateText(text)) return text;
  const read = parseMessyDay(text);
  return read ? formatDay(read.day) : undefined;
}

const editionOf = (product: Product, text: string): string | undefined =>
  text === ''
    ? undefined
    : product.editions?.find((e) => [e.id, e.name ?? e.id].some((n) => foldText(n) === foldText(text)))?.id;

const isNamed = (right: Right, text: string): boolean =>
  [right.id, right.name ?? right.id].some((n) => foldText(n) === foldText(text));

const leadsTo = ({ units, toEditions }: Right, edition: string | undefined): boolean =>
  edition === undefined ||
  (units?.edition ?? toEditions?.[0] ?? edition) === edition ||
  (toEditions?.includes(edition) ?? false);

function newRight({
  product,
  text,
  edition,
  taken
}: {
  product: Product;
  text: string;
  edition: string | undefined;
  taken: Set<string>;
}): Right {
  const base = `${product.id}-${
    foldText(text)
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'right'
  }`.slice(0, 80);
  let id = base;
  for (let n = 2; taken.has(id); n++) id = `${base}-${n}`;
  taken.add(id);
  return { id, name: text, kind: 'purchase', ...(edition === undefined ? {} : { toEditions: [edition] }) };
}

/** The right as the list has it; an end beside a reduced price is the offer's. */
function changed(
  right: Right,
  {
    cents,
    pack,
    until,
    offer
  }: { cents: number; pack: number | undefined; until: string | undefined; offer: number | undefined }
): Right {
  const isOffer = offer !== undefined && until !== undefined;
  const edition = right.toEditions?.[0];
  return {
    ...right,
    kind: right.kind === 'ask' ? 'purchase' : right.kind,
    priceCents: cents,
    ...(isOffer
      ? { offer: { ...right.offer, priceCents: offer, until } }
      : until === undefined
        ? {}
        : { until }),
    ...(pack === undefined || (pack === 1 && !right.units)
      ? {}
      : {
          units: {
            ...(right.units ?? {
              each: 'system' as const,
              number: 1,
              pool: right.name ?? right.id,
              ...(edition === undefined ? {} : { edition })
            }),
            pack
          }
        })
  };
}

function changesOf(before: Right, after: Right, isNew: boolean): PriceLine['changes'] {
  const money = (cents: number | undefined): string => (cents === undefined ? '' : (cents / 100).toFixed(2));
  const said = (r: Right) => ({
    price: money(r.priceCents),
    pack: String(r.units?.pack ?? ''),
    until: r.until ?? '',
    offer: r.offer ? `${money(r.offer.priceCents)} until ${r.offer.until}` : ''
  });
  const [old, now] = [isNew ? { price: '', pack: '', until: '', offer: '' } : said(before), said(after)];
  return (['price', 'pack', 'until', 'offer'] as const)
    .filter((field) => old[field] !== now[field])
    .map((field) => ({ field, before: old[field], after: now[field] }));
}
