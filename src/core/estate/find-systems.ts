import { type FactKinds, figureIn, isOrdered, type Measure, parseFigure } from '../condition';
import { foldText } from '../version';

/**
 * A search in words. Its text:
 *
 *     query  = group { "or" group }
 *     group  = { [ "not" ] term }
 *     term   = field sign value | word | '"' words '"'
 *     sign   = "=" | "<" | ">"                      no spaces needed; `=` finds values that hold the word
 *     field  = name team site product release edition architecture verdict slack systems deadline source note stage,
 *              or the id of a fact
 *
 * All terms of a group must be found. A figure compares in its unit (`memory < 8 GB`), a day as a day (`deadline < 2031-07`),
 * anything else as text, case folded. A value nobody knows is found by `field = ?` only.
 */
export interface Query {
  readonly groups: readonly (readonly Term[])[];
}

interface Term {
  readonly negated: boolean;
  readonly field?: string;
  readonly sign?: '=' | '<' | '>';
  readonly value: string;
}

/** What a query looks into: all text of a row, and single fields of it; undefined: not known. */
export interface Searchable {
  readonly text: string;
  field(name: string): string | number | undefined;
}

const TOKEN =
  /"([^"]*)"|([^\s"<>=]+)?\s*([<>=])\s*(?:"([^"]*)"|([^\s"<>=]+(?:\s+[A-Za-z]{1,3}B\b)?))|([^\s"]+)/g;
const MAX_TERMS = 40;

/** Reads a search; every text is one. */
export function parseQuery(text: string): Query {
  const groups: Term[][] = [[]];
  let negated = false;
  for (const match of text.slice(0, 1000).matchAll(TOKEN)) {
    const [, phrase, field, sign, quoted, value, word] = match;
    if (word !== undefined && foldText(word) === 'or') {
      groups.push([]);
      continue;
    }
    if (word !== undefined && foldText(word) === 'not') {
      negated = true;
      continue;
    }
    const term: Term =
      field !== undefined && sign !== undefined
        ? {
            negated,
            field: foldText(field),
            sign: sign as '=' | '<' | '>',
            value: foldText(quoted ?? value ?? '')
          }
        : { negated, value: foldText(phrase ?? word ?? match[0]) };
    if (term.value !== '' && (groups[groups.length - 1]?.length ?? 0) < MAX_TERMS)
      groups[groups.length - 1]?.push(term);
    negated = false;
  }
  const meant = groups.filter((g) => g.length > 0);
  return { groups: meant };
}

/** Whether a row is found; the empty search finds everything. */
export function matchesQuery(query: Query, row: Searchable, kinds: FactKinds): boolean {
  return (
    query.groups.length === 0 ||
    query.groups.some((group) => group.every((term) => matchesTerm(term, row, kinds) !== term.negated))
  );
}

function matchesTerm({ field, sign, value }: Term, row: Searchable, kinds: FactKinds): boolean {
  if (field === undefined || sign === undefined) return row.text.includes(value);
  const seen = row.field(field);
  if (value === '?') return seen === undefined || seen === '';
  if (seen === undefined || seen === '') return false;
  if (sign === '=' && typeof seen === 'string' && !isFigure(kinds, field))
    return foldText(seen).includes(value);
  const order = compareValues(seen, value, field, kinds);
  if (order === undefined) return false;
  return sign === '=' ? order === 0 : sign === '<' ? order < 0 : order > 0;
}

const isFigure = (kinds: FactKinds, field: string): boolean => {
  const measure = kinds.find(field)?.measure;
  return measure !== undefined && isOrdered(measure) && measure !== 'day';
};

/** Figures of texts read before: a search reads the same few again and again. */
const figures = new Map<string, number | undefined>();
const MOST_FIGURES = 5000;

function figureOf(measure: Measure, text: string): number | undefined {
  const key = `${measure} ${text}`;
  if (figures.has(key)) return figures.get(key);
  if (figures.size >= MOST_FIGURES) figures.clear();
  const parsed = parseFigure(text);
  const figure = parsed && figureIn(measure, parsed);
  figures.set(key, figure);
  return figure;
}

function compareValues(
  seen: string | number,
  value: string,
  field: string,
  kinds: FactKinds
): number | undefined {
  if (typeof seen === 'number') {
    const wanted = Number(value);
    return Number.isNaN(wanted) ? undefined : seen - wanted;
  }
  const measure = kinds.find(field)?.measure;
  if (measure && isOrdered(measure) && measure !== 'day') {
    const [a, b] = [figureOf(measure, seen), figureOf(measure, value)];
    return a === undefined || b === undefined ? undefined : a - b;
  }
  const folded = foldText(seen);
  return folded < value ? -1 : folded > value ? 1 : 0;
}
