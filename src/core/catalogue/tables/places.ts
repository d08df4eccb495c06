import { BASE_PATCH, foldText, matchesRange, parseRange, sequenceOf } from '../../version';
import type { Product } from '../schema';
import { cleanCell, labelOf } from './cells';

/** Places of a product by what people call them: a release, or a patch level of one. */
export interface Places {
  /** The place a text names, as ranges write it (`9`, `23/a`). Undefined where it names none, or one of several. */
  find(text: string): string | undefined;
  /** The release of a place. */
  releaseOf(place: string): string;
}

/** The places of a product by all its names; what several are called alike is none. */
export function placesOfProduct(product: Product): Places {
  const names = [product.name, ...(product.aliases ?? [])];
  const byName = new Map<string, string | undefined>();
  const add = (name: string, place: string): void => {
    const key = foldText(name);
    if (key !== '') byName.set(key, byName.has(key) && byName.get(key) !== place ? undefined : place);
  };
  for (const release of product.releases) {
    const own = [release.id, release.name ?? release.id, ...(release.aliases ?? [])];
    for (const name of own) add(name, release.id);
    for (const patch of release.patches ?? []) {
      const place = `${release.id}/${patch.id}`;
      for (const build of patch.builds ?? []) add(build, place);
      for (const level of [patch.id, patch.name ?? patch.id, ...(patch.aliases ?? [])])
        for (const name of own) for (const gap of [' ', '/']) add(`${name}${gap}${level}`, place);
    }
  }
  const ids = new Set(product.releases.map((r) => r.id));
  return {
    find(text) {
      const clean = foldText(cleanCell(text));
      const known = byName.get(clean);
      if (known !== undefined) return known;
      // Words behind a figure may be a code name, but not those that make a range of it.
      if (SPANNING.test(clean)) return undefined;
      const label = labelOf(text, names);
      return label === undefined ? undefined : byName.get(foldText(label.label));
    },
    releaseOf: (place) => (ids.has(place) ? place : (place.split('/')[0] ?? place))
  };
}

/** Releases of a product that a range holds, each at its base. */
export function releasesInRange(product: Product, range: string): string[] {
  const parsed = parseRange(range);
  if (!('range' in parsed)) return [];
  const sequence = sequenceOf(product);
  return product.releases
    .filter((r) => matchesRange(sequence, parsed.range, { release: r.id, patch: BASE_PATCH }))
    .map((r) => r.id);
}

const SPANNING =
  /\b(and|or|to|through|thru|until|before|after|from|since|up|later|earlier|newer|older|above|below|higher|lower|onwards?)\b|[,;&<>≥≤+–—…]/;
const LATER = /\s*(?:\b(?:and|or)\s+(?:later|newer|above|higher|up|upwards?|onwards?|after|more)\b|\+)\s*$/i;
const EARLIER = /\s*\b(?:and|or)\s+(?:earlier|older|below|lower|before|less)\b\s*$/i;
const ALL = /^(?:all|any|every|each)(?:\s+(?:releases?|versions?|lines?))?$/i;
const FORMS: readonly (readonly [RegExp, string])[] = [
  [/^(?:before|older than|earlier than|lower than|<)\s*/i, 'before'],
  [/^(?:up to|until|at most|to|<=|≤)\s*/i, 'up to'],
  [/^(?:after|later than|newer than|>)(?!=)\s*/i, 'after'],
  [/^(?:from|since|starting (?:with|at|from)|as of|at least|>=|≥)\s*/i, 'from']
];
const BETWEEN =
  /^(?:from\s+|between\s+)?(.+?)\s*(?:\bto\b|\bthrough\b|\bthru\b|–|—|…|\.{2,3}|\s-\s|\band\b)\s*(.+)$/i;

/**
 * Which releases people's words are of, as a range: `9 and later`, `21 to 23`, `before 2.11`, `8, 9`, `all`. Undefined where a part of
 * it names no release of the product.
 */
export function rangeOfWords(places: Places, text: string): string | undefined {
  const clean = cleanCell(text).replace(/^(?:releases?|versions?|lines?)\s+(?=\S*\d)/i, '');
  if (clean === '') return undefined;
  if (ALL.test(clean)) return 'any';
  const whole = partOf(places, clean);
  if (whole !== undefined) return whole;
  const pieces = clean.split(
    /\s*(?:[,;&]|\b(?:and|or)\b(?!\s+(?:later|newer|above|higher|up|onward|after|more|earlier|older|below|lower|before|less)))\s*/i
  );
  const parts = pieces.filter((p) => p.trim() !== '').map((p) => partOf(places, p.trim()));
  return parts.length > 1 && parts.every((p) => p !== undefined) ? parts.join(', ') : undefined;
}

function partOf(places: Places, text: string): string | undefined {
  const place = places.find(text);
  if (place !== undefined) return place;
  for (const [ending, word] of [
    [LATER, 'from'],
    [EARLIER, 'up to']
  ] as const) {
    const found = ending.test(text)
      ? places.find(text.replace(ending, '').replace(/^from\s+/i, ''))
      : undefined;
    if (found !== undefined) return `${word} ${found}`;
  }
  const [, a, b] = BETWEEN.exec(text) ?? [];
  const isList = /\band\b/i.test(text) && !/^between\b/i.test(text);
  if (a !== undefined && b !== undefined && !isList) {
    const excludes = /^before\s+/i.test(b);
    const [lower, upper] = [places.find(a), places.find(b.replace(/^before\s+/i, ''))];
    if (lower !== undefined && upper !== undefined) return `${lower} to ${excludes ? 'before ' : ''}${upper}`;
  }
  for (const [form, word] of FORMS) {
    if (!form.test(text)) continue;
    const found = places.find(text.replace(form, '').replace(/\s+on$/i, ''));
    if (found !== undefined) return `${word} ${found}`;
  }
  return undefined;
}
