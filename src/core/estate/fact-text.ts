import {
  type FactKind,
  type Figure,
  type Measure,
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

const SAYS_UNKNOWN = new Set([
  ...['?', '??', 'unknown', 'n/a', 'na', '-', '–', '—', 'tbd', 'tbc', 'not known', 'n/k'],
  ...['unbekannt', 'k. a.', 'k.a.', 'inconnu', 's.o.', 's. o.', 'n.d.']
]);
/** Whether a text says that nothing is known. */
export const saysNothing = (text: string): boolean => {
  const folded = foldText(text);
  return folded === '' || SAYS_UNKNOWN.has(folded);
};

const YES = new Set([
  ...['yes', 'y', 'true', '1', 'on', 'enabled', 'active', 'activated', 'x', 'ok', 'present'],
  ...['ja', 'j', 'wahr', 'an', 'ein', 'aktiv', 'aktiviert', 'oui', 'o', 'vrai', 'actif', 'activee', 'active']
]);
const NO = new Set([
  ...['no', 'n', 'false', '0', 'off', 'disabled', 'inactive', 'not activated', 'present, off in firmware'],
  ...['nein', 'falsch', 'aus', 'inaktiv', 'deaktiviert', 'non', 'faux', 'inactif', 'desactivee', 'desactive']
]);
const ABSENT = new Set([
  'none fitted',
  'not fitted',
  'no chip',
  'fehlt',
  'keiner',
  'keine',
  'kein',
  'absente',
  'aucun',
  'aucune'
]);

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
  const figure = readFigure(text, measure, unit);
  return figure && figureIn(measure, figure) !== undefined ? { value: formatFigure(figure) } : undefined;
}

/** A figure as it is written in a cell: with a comma, with thousands apart, with a unit of another language, or words behind it. */
function readFigure(text: string, measure: Measure, unit: string | undefined): Figure | undefined {
  const clean = text
    .trim()
    .replace(/[\u00a0\u202f]/g, ' ')
    .replace(
      /^(\d{1,3}(?:\.\d{3})+),(\d+)/,
      (_, whole: string, part: string) => `${whole.replaceAll('.', '')}.${part}`
    )
    .replace(/^(\d+),(\d{1,2})(?!\d)/, '$1.$2')
    .replace(/(\d)[ ,'’](?=\d{3}(?!\d))/g, '$1')
    .replace(/^(\d+(?:\.\d+)?),(\d{1,2})(?!\d)/, '$1.$2');
  const product = measure === 'count' ? /^(\d+)\s*[x×]\s*(\d+)$/.exec(clean) : null;
  if (product) return { amount: String(Number(product[1]) * Number(product[2])) };
  const own = parseFigure(clean);
  const [, amount, word] =
    /^(\d+(?:\.\d+)?)\s*([A-Za-z]+)\b(?: *\(?(?:ddr\d|[a-z][a-z -]*)\)?)?$/i.exec(clean) ?? [];
  const written = own ?? (amount === undefined ? undefined : { amount, unit: word ?? '' });
  if (!written) return undefined;
  const given = written.unit ?? unit ?? usualUnit(measure, Number(written.amount));
  if (given === undefined) return written;
  if (measure === 'count' && /^(cores?|kerne|coeurs?|cpus?|x)$/i.test(given))
    return { amount: written.amount };
  return { amount: written.amount, unit: UNIT_WORDS[given.toLowerCase()] ?? given };
}

/** What a bare figure of memory is in: up to 512 gigabytes, from 1024 on megabytes. */
const usualUnit = (measure: Measure, amount: number): string | undefined =>
  measure !== 'memory' || amount < 1 ? undefined : amount <= 512 ? 'GB' : amount >= 1024 ? 'MB' : undefined;

/** Units in other words and languages. */
const UNIT_WORDS: Readonly<Record<string, string>> = {
  go: 'GB',
  mo: 'MB',
  to: 'TB',
  ko: 'kB',
  g: 'GB',
  m: 'MB',
  t: 'TB',
  gig: 'GB',
  gigs: 'GB',
  giga: 'GB',
  bits: 'bit'
};

function parseSwitch(id: string | undefined, written: string): Fact | undefined {
  const folded = written.normalize('NFD').replace(/\p{M}/gu, '');
  if (ABSENT.has(folded)) return { value: 'absent' };
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
  const match =
    /^(.*?)(?:\s*[([]\s*([A-Za-z]{1,3})\s*[)\]]|\s+in\s+([A-Za-z]{1,3})|(?:\s|(?<=[a-z]))([A-Z][A-Za-z]{1,2}))\s*$/.exec(
      heading
    );
  const written = match?.[2] ?? match?.[3] ?? match?.[4];
  const unit = written && (UNIT_WORDS[foldText(written)] ?? written);
  return match?.[1] && unit && KNOWN_UNITS.has(foldText(unit)) ? { name: match[1], unit } : { name: heading };
}

const KNOWN_UNITS = new Set(
  (['memory', 'disk', 'frequency', 'bits', 'pixels'] as const).flatMap((m) => unitsOf(m).map(foldText))
);
