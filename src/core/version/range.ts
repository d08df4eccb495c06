import { comparePositions, type Comparison, type Position, type Sequence } from './sequence';

/**
 * Ranges over a product's sequence, in words:
 *
 *     range = part { "," part }
 *     part  = span [ "on" branch ]
 *     span  = "any"
 *           | place                                    a release at any patch level, or exactly one level
 *           | [ "from" | "after" ] place "to" [ "before" ] place
 *           | ( "from" | "after" | "before" ) place
 *           | "up" "to" place
 *     place = release [ "/" patch ]
 *
 * `from` and `to` include their ends, `after` and `before` do not. Several parts are alternatives,
 * so a floor of its own on each branch reads `from 4/r2 on blue, from 5 on green`.
 */
export interface Range {
  readonly parts: readonly RangePart[];
}

export interface RangePart {
  readonly lower?: RangeEnd;
  readonly upper?: RangeEnd;
  readonly branch?: string;
}

export interface RangeEnd {
  readonly release: string;
  /** Absent: the whole release, its first level as a lower end and its last as an upper one. */
  readonly patch?: string;
  readonly inclusive: boolean;
}

/** Words that cannot be ids, since ranges are written with them. */
export const RANGE_WORDS: ReadonlySet<string> = new Set(['any', 'from', 'after', 'before', 'to', 'up', 'on']);

export type RangeParse =
  { readonly range: Range } | { readonly code: 'range-empty' | 'range-word'; readonly word: string };

/** Reads a range; the failing word when it is none. Whether the places exist is for the catalogue check. */
export function parseRange(text: string): RangeParse {
  const parts: RangePart[] = [];
  for (const piece of text.split(',')) {
    const words = piece.trim().split(/\s+/).filter(Boolean);
    if (words.length === 0) return { code: 'range-empty', word: piece };
    const part = parsePart(words);
    if (typeof part === 'string') return { code: 'range-word', word: part };
    parts.push(part);
  }
  return { range: { parts } };
}

function parsePart(words: string[]): RangePart | string {
  let branch: string | undefined;
  if (words.length > 2 && words[words.length - 2] === 'on') {
    branch = words[words.length - 1];
    words = words.slice(0, -2);
  }
  const span = parseSpan(words);
  return typeof span === 'string' || branch === undefined ? span : { ...span, branch };
}

function parseSpan(words: readonly string[]): RangePart | string {
  const [first = '', second = ''] = words;
  if (first === 'any') return words.length === 1 ? {} : second;
  if (first === 'up' && second === 'to') return oneEnd(words.slice(2), (end) => ({ upper: end }), true);
  if (first === 'before') return oneEnd(words.slice(1), (end) => ({ upper: end }), false);
  const opening = first === 'from' || first === 'after';
  return parseFromLower(opening ? words.slice(1) : words, first !== 'after', opening);
}

function parseFromLower(
  words: readonly string[],
  inclusive: boolean,
  openEnded: boolean
): RangePart | string {
  const lower = placeOf(words[0], inclusive);
  if (!lower) return words[0] ?? '';
  if (words.length === 1) return openEnded ? { lower } : { lower, upper: { ...lower, inclusive: true } };
  if (words[1] !== 'to') return words[1] ?? '';
  const excludes = words[2] === 'before';
  return oneEnd(words.slice(excludes ? 3 : 2), (upper) => ({ lower, upper }), !excludes);
}

function oneEnd(
  words: readonly string[],
  build: (end: RangeEnd) => RangePart,
  inclusive: boolean
): RangePart | string {
  const end = placeOf(words[0], inclusive);
  if (!end) return words[0] ?? '';
  return words.length === 1 ? build(end) : (words[1] ?? '');
}

function placeOf(word: string | undefined, inclusive: boolean): RangeEnd | undefined {
  if (!word || RANGE_WORDS.has(word)) return undefined;
  const [release = '', patch, ...rest] = word.split('/');
  if (!release || patch === '' || rest.length > 0) return undefined;
  return patch === undefined ? { release, inclusive } : { release, patch, inclusive };
}

/** The range as text; `parseRange` reads it back to an equal value. */
export function formatRange(range: Range): string {
  return range.parts.map(formatPart).join(', ');
}

function formatPart({ lower, upper, branch }: RangePart): string {
  const place = (end: RangeEnd): string =>
    end.patch === undefined ? end.release : `${end.release}/${end.patch}`;
  const on = branch === undefined ? '' : ` on ${branch}`;
  if (!lower && !upper) return `any${on}`;
  if (!lower && upper) return `${upper.inclusive ? 'up to' : 'before'} ${place(upper)}${on}`;
  if (lower && !upper) return `${lower.inclusive ? 'from' : 'after'} ${place(lower)}${on}`;
  if (!lower || !upper) return '';
  if (lower.inclusive && upper.inclusive && place(lower) === place(upper)) return place(lower) + on;
  return `${lower.inclusive ? '' : 'after '}${place(lower)} to ${upper.inclusive ? '' : 'before '}${place(upper)}${on}`;
}

/** The places a range names, for checking that they exist. */
export function placesOf(range: Range): readonly RangeEnd[] {
  return range.parts.flatMap((p) => [p.lower, p.upper].filter((end) => end !== undefined));
}

/** True when the place lies within one of the range's parts. Places unordered against an end lie outside. */
export function matchesRange(sequence: Sequence, range: Range, place: Position): boolean {
  return range.parts.some((part) => matchesPart(sequence, part, place));
}

/** True when any patch level of the release lies within the range. */
export function matchesRelease(sequence: Sequence, range: Range, release: string): boolean {
  const index = sequence.indexById.get(release);
  const patches = index === undefined ? [] : (sequence.releases[index]?.patches ?? []);
  return patches.some((patch) => matchesRange(sequence, range, { release, patch }));
}

/** Whether a range holds, by place of the release, then of the patch level. */
export type PlaceTable = readonly (readonly boolean[])[];

/** The range as a table by place in the sequence, then patch level: reading it costs no comparing. */
export function tabulateRange(sequence: Sequence, range: Range): PlaceTable {
  return sequence.releases.map((r) =>
    r.patches.map((patch) => matchesRange(sequence, range, { release: r.id, patch }))
  );
}

function matchesPart(sequence: Sequence, part: RangePart, place: Position): boolean {
  if (part.branch !== undefined) {
    const index = sequence.indexById.get(place.release);
    if (index === undefined || sequence.releases[index]?.branch !== part.branch) return false;
  }
  return (
    (!part.lower || isBeyond(compareToEnd(sequence, place, part.lower), 1, part.lower.inclusive)) &&
    (!part.upper || isBeyond(compareToEnd(sequence, place, part.upper), -1, part.upper.inclusive))
  );
}

const isBeyond = (comparison: Comparison, wanted: -1 | 1, inclusive: boolean): boolean =>
  comparison === wanted || (comparison === 0 && inclusive);

/** An end without a patch level stands for its whole release. */
function compareToEnd(sequence: Sequence, place: Position, end: RangeEnd): Comparison {
  const patch = end.patch ?? (place.release === end.release ? place.patch : 'base');
  return comparePositions(sequence, place, { release: end.release, patch });
}
