import { formatDay, parseDay } from '../date';
import { foldText } from '../version';

/** What kind of quantity a fact is; decides which units its figures may have and how values compare. */
export const MEASURES = [
  'memory',
  'disk',
  'frequency',
  'bits',
  'count',
  'pixels',
  'year',
  'day',
  'text',
  'switch'
] as const;
export type Measure = (typeof MEASURES)[number];

/** A figure as written: a decimal number or a day, with the unit it was written in. */
export interface Figure {
  readonly amount: string;
  readonly unit?: string;
}

const DECIMAL = { B: 1, kB: 1e3, MB: 1e6, GB: 1e9, TB: 1e12 } as const;
const BINARY = { KiB: 2 ** 10, MiB: 2 ** 20, GiB: 2 ** 30, TiB: 2 ** 40 } as const;

/**
 * Units by measure, each with what one of it is in the base unit (byte, hertz, minute, ...). Memory is counted in powers of
 * two whatever the unit is called (JEDEC JESD100B.01); disks as IEC 80000-13 has it.
 */
const UNITS: Readonly<Partial<Record<Measure, Readonly<Record<string, number>>>>> = {
  memory: { B: 1, kB: 2 ** 10, MB: 2 ** 20, GB: 2 ** 30, TB: 2 ** 40, ...BINARY },
  disk: { ...DECIMAL, ...BINARY },
  frequency: { Hz: 1, kHz: 1e3, MHz: 1e6, GHz: 1e9 },
  bits: { bit: 1 },
  pixels: { px: 1 }
};

/** Measures whose figures may stand without a unit. */
const BARE: ReadonlySet<Measure> = new Set(['bits', 'count', 'pixels', 'year', 'day']);

/** True for measures that have an order, so that `at least` makes sense. */
export const isOrdered = (measure: Measure): boolean => measure !== 'text' && measure !== 'switch';

/** The units figures of a measure are written in; none for counts, texts and switches. */
export const unitsOf = (measure: Measure): readonly string[] => Object.keys(UNITS[measure] ?? {});

const FIGURE = /^([0-9]{1,15}(?:\.[0-9]{1,9})?)\s*([A-Za-z]*)$/;

/** Reads a figure as people write it: `8 GB`, `2.4GHz`, `64 bit`, `2031-06-30`. Undefined when it is none. */
export function parseFigure(text: string): Figure | undefined {
  const clean = text.trim();
  if (parseDay(clean) !== undefined) return { amount: clean };
  const match = FIGURE.exec(clean);
  if (!match?.[1]) return undefined;
  return match[2] ? { amount: match[1], unit: match[2] } : { amount: match[1] };
}

/** A figure as it is written: `8 GB`, `3`. */
export const formatFigure = ({ amount, unit }: Figure): string => (unit ? `${amount} ${unit}` : amount);

/** The figure in the measure's base unit (bytes, hertz, bits, days since 1970, ...); undefined where unit and measure do not fit. */
export function figureIn(measure: Measure, { amount, unit }: Figure): number | undefined {
  if (measure === 'day') return unit === undefined ? parseDay(amount) : undefined;
  if (!isOrdered(measure) || !/^[0-9.]+$/.test(amount)) return undefined;
  if (unit === undefined) return BARE.has(measure) ? scale(amount, 1) : undefined;
  const factor = findFactor(UNITS[measure] ?? {}, unit);
  return factor === undefined ? undefined : scale(amount, factor);
}

/** Units are told apart by their letters, not by case, as far as that leaves one. */
function findFactor(units: Readonly<Record<string, number>>, unit: string): number | undefined {
  if (Object.hasOwn(units, unit)) return units[unit];
  const folded = foldText(unit).replace(/s$/, '');
  return Object.entries(units).find(([name]) => foldText(name) === folded)?.[1];
}

/** Exact for every product that is a whole number below 2^53: digits are multiplied, not binary fractions. */
function scale(amount: string, factor: number): number | undefined {
  const [whole = '0', part = ''] = amount.split('.');
  if (part === '') {
    const value = Number(whole) * factor;
    return Number.isSafeInteger(value) ? value : undefined;
  }
  const digits = BigInt(whole + part) * BigInt(factor);
  const shift = 10n ** BigInt(part.length);
  const value = digits % shift === 0n ? Number(digits / shift) : Number(digits) / Number(shift);
  return Number.isFinite(value) && value <= Number.MAX_SAFE_INTEGER ? value : undefined;
}

/** A figure in base units as people read it: the largest unit in which it is at least one, with at most two decimals. */
export function sayFigure(measure: Measure, base: number): string {
  const units = Object.entries(UNITS[measure] ?? {}).filter(
    ([name]) => measure !== 'memory' || !name.endsWith('iB')
  );
  const fitting = units.filter(([, factor]) => base >= factor).sort((a, b) => b[1] - a[1]);
  const exact =
    fitting.find(([, factor]) => Number.isInteger((base / factor) * 100)) ?? fitting[0] ?? units[0];
  if (!exact) return String(base);
  return `${Math.round((base / exact[1]) * 100) / 100} ${exact[0]}`;
}

/** A whole number of base units as text that `parseFigure` reads back to the same. */
export function sayBase(measure: Measure, base: number): string {
  if (measure === 'memory' || measure === 'disk') return `${Math.round(base)} B`;
  if (measure === 'day') return formatDay(Math.round(base));
  return measure === 'frequency' ? `${Math.round(base)} Hz` : String(base);
}
