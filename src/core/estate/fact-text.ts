import {
  type FactKind,
  figureIn,
  formatFigure,
  isOrdered,
  parseFigure,
  readSwitch,
  unitsOf
} from '../condition';
import { formatDay, parseMessyDay } from '../date';
import { foldText } from '../version';
import { statementsOf } from './facts';
import { UNKNOWN_WHY, type Fact } from './schema';

const SAYS_UNKNOWN = new Set(['?', 'unknown', 'n/a', 'na', '-', 'tbd', 'not known']);
const YES = new Set(['yes', 'y', 'true', '1', 'on', 'enabled', 'active', 'activated', 'x', 'ok', 'present']);
const NO = new Set(['no', 'n', 'false', '0', 'off', 'disabled', 'inactive', 'not activated']);

/**
 * A fact as people type it in a cell: a figure with its unit, a day in any usual spelling, yes or no, or words. `?` with
 * or without why (`? no access`) is unknown. `unit` is what a bare figure is taken in. Undefined where it does not fit the
 * kind's measure; empty text says nothing and is for the caller.
 */
export function parseFactText(kind: FactKind | undefined, text: string, unit?: string): Fact | undefined {
  const folded = foldText(text);
  const why = UNKNOWN_WHY.find((w) => folded === w || folded === `? ${w}` || folded === `unknown, ${w}`);
  if (why) return { unknown: why };
  if (SAYS_UNKNOWN.has(folded)) return { unknown: 'not asked' };
  const measure = kind?.measure ?? 'text';
  if (measure === 'switch') return parseSwitch(kind?.id, folded);
  if (measure === 'day') {
    const read = parseMessyDay(text);
    return read && read.also === undefined ? { value: formatDay(read.day) } : undefined;
  }
  if (!isOrdered(measure)) return { value: text.trim().slice(0, 500) };
  const bare = text
    .trim()
    .replace(/^(\d+),(\d{1,2})(?=\s*[A-Za-z]*$)/, '$1.$2')
    .replace(/(\d)[ ,'](?=\d{3}\b)/g, '$1');
  const written = parseFigure(bare);
  const figure = written && written.unit === undefined && unit ? { ...written, unit } : written;
  return figure && figureIn(measure, figure) !== undefined ? { value: formatFigure(figure) } : undefined;
}

function parseSwitch(id: string | undefined, folded: string): Fact | undefined {
  const word = YES.has(folded) ? 'on' : NO.has(folded) ? 'off' : readSwitch(folded);
  if (word === undefined) return undefined;
  // `activated` is as old as the format, and a truth value there.
  return { value: id === 'activated' ? word === 'on' : word };
}

/** The fact as `parseFactText` reads it; statements that differ are set side by side. Empty where nothing is recorded. */
export function formatFactText(fact: Fact | undefined): string {
  if (!fact) return '';
  if ('unknown' in fact) return fact.unknown === 'not asked' ? '?' : `? ${fact.unknown}`;
  const words = statementsOf(fact).map((s) =>
    s.value === true ? 'yes' : s.value === false ? 'no' : String(s.value)
  );
  return [...new Set(words)].join(' | ');
}

/** A heading such as `Memory (GB)` or `memory in MB`: what is before the unit, and the unit, where it has one. */
export function splitUnit(heading: string): { readonly name: string; readonly unit?: string } {
  const match = /^(.*?)(?:\s*[([]\s*([A-Za-z]{1,3})\s*[)\]]|\s+in\s+([A-Za-z]{1,3}))\s*$/.exec(heading);
  const unit = match?.[2] ?? match?.[3];
  return match?.[1] && unit && KNOWN_UNITS.has(foldText(unit)) ? { name: match[1], unit } : { name: heading };
}

const KNOWN_UNITS = new Set(
  (['memory', 'disk', 'frequency', 'bits', 'pixels'] as const).flatMap((m) => unitsOf(m).map(foldText))
);
