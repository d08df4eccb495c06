import { BASE_PATCH, foldText } from '../version';
import type { InstalledParse } from './parse-installed';
import type { Catalogue, Product, Release } from './schema';

/** What a list says of one machine's software: one text, and what has columns of its own. */
export interface InstalledWords {
  readonly text: string;
  /** A column of service packs, updates, patches: a bare figure there is the level that ends in it; `none` the base. */
  readonly level?: string;
  readonly architecture?: string;
}

/** Words that say nothing of what is installed. */
const NOISE = new Set(
  'the edition version ver release os system systems operating still on only is a an and of for now with running fw firmware build level'.split(
    ' '
  )
);
/** What a level is called, by the letters its name may begin with. */
const LEVEL_WORDS: readonly (readonly [RegExp, string])[] = [
  [/\bservice[ -]?packs? ?(\d)/g, 'sp$1'],
  [/\bsp (\d)/g, 'sp$1'],
  [/\bupdate ?(\d+)\b/g, 'u$1'],
  [/\bu (\d+)\b/g, 'u$1'],
  [/\bpatch(?: level)? ?(\d+)\b/g, 'p$1'],
  [/\bp (\d+)\b/g, 'p$1']
];
const WORD_SIZES: readonly (readonly [RegExp, RegExp])[] = [
  [/^(arm|aarch)-?(64)?$/, /arm|aarch/],
  [/^(x64|amd64|x86[-_]?64|64|64-?bits?)$/, /(x86|amd|x).*64|^64/],
  [/^(x86|i[3-6]86|32|32-?bits?)$/, /(x86.?32|i[3-6]86|^x86$|^32)/]
];
const NO_LEVEL = new Set(['none', 'kein', 'keine', 'no', 'aucun', 'aucune', 'sans', 'ohne']);

/**
 * What a text means in a catalogue where its words are not the catalogue's own: names shortened, mistyped or without the publisher's part,
 * levels written out, word sizes in any usual form, figures behind a release's number. A product is taken where more of its words are there
 * than of any other; a release where a number or name of it stands there. Undefined where no product, or no release, can be told for certain enough
 * that one may say which they could be. Cost: words times names.
 *
 * @param product narrows it to one product, whose name may be missing
 */
export function matchInstalled(
  catalogue: Catalogue,
  words: InstalledWords,
  product?: string
): InstalledParse | undefined {
  const tokens = tokensOf(words.text);
  if (tokens.length === 0) return undefined;
  const among = catalogue.products.filter((p) => product === undefined || p.id === product);
  const scored = among
    .map((p) => ({ product: p, ...scoreOf(p, tokens, catalogue) }))
    .filter((s) => s.score > 0 || product !== undefined)
    .sort((a, b) => b.score - a.score);
  // Of products that as much speaks for, the only one that has such a release.
  const fitting = scored
    .filter((s) => s.score === scored[0]?.score)
    .flatMap((s) => within(s.product, s, words) ?? []);
  for (const isBetter of [
    ({ isExact, parse }: Fit) => isExact && parse.decides,
    ({ parse }: Fit) => parse.decides
  ]) {
    const [one, another] = fitting.filter(isBetter);
    if (one) return another ? undefined : one.parse;
  }
  return fitting.length > 1 ? undefined : fitting[0]?.parse;
}

/** Words of a text in the form names are compared in: levels in one word, signs that only separate gone. */
function tokensOf(text: string): string[] {
  let plain = foldText(text)
    .normalize('NFD')
    .replace(/\p{M}|["'“”„«»*~]/gu, '')
    .replace(/(\d)[\s-]*bits?\b/g, '$1bit')
    .replace(/[®™]/g, '');
  for (const [written, as] of LEVEL_WORDS) plain = plain.replace(written, as);
  return plain
    .split(/[\s,;:()[\]/|?!<>]+/)
    .map((t) => t.replace(/^v(?=\d)/, '').replace(/^[.–—-]+|[.–—-]+$/g, ''))
    .filter((t) => t !== '' && !NOISE.has(t))
    .slice(0, 30);
}

/** A word without the letters between: `srv` and `std` stand for server and standard so. */
const isShortFor = (short: string, long: string): boolean => {
  if (short.length < 3 || short.length >= long.length || short[0] !== long[0]) return false;
  let at = 0;
  for (const c of long) if (c === short[at]) at++;
  return at === short.length;
};

/** The same word, as far as a slip of the hand goes. */
function isSlipOf(a: string, b: string): boolean {
  if (a === b) return true;
  const most = b.length >= 7 ? 2 : b.length >= 5 ? 1 : 0;
  if (most === 0 || /\d/.test(a + b) || Math.abs(a.length - b.length) > most) return false;
  let row = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++)
      next[j] = Math.min(
        (row[j] ?? 0) + 1,
        (next[j - 1] ?? 0) + 1,
        (row[j - 1] ?? 0) + (a[i - 1] === b[j - 1] ? 0 : 1)
      );
    // Two letters changed about are one slip.
    row = next;
  }
  const slips = row[b.length] ?? most + 1;
  const isSwapped =
    slips === 2 &&
    a.length === b.length &&
    [...a].sort().join('') === [...b].sort().join('') &&
    b.length >= 5;
  return slips <= most || isSwapped;
}

const isWord = (token: string, name: string): boolean =>
  token === name || isShortFor(token, name) || isSlipOf(token, name);

const namesOf = ({
  id,
  name,
  aliases
}: {
  id: string;
  name?: string | undefined;
  aliases?: readonly string[] | undefined;
}): string[] => [...new Set([name ?? id, id, ...(aliases ?? [])].map(foldText))];

/** What a product is known by, made once. */
interface Known {
  /** Words of its name and of its other names. */
  readonly words: readonly string[];
  /** The first word of each: without one of them a text speaks of it only where it says nothing else. */
  readonly brands: readonly string[];
  readonly publisher: readonly string[];
  /** Code names of its releases, and builds. */
  readonly signs: ReadonlySet<string>;
}

const KNOWN = new WeakMap<Product, Known>();

function knownOf(product: Product): Known {
  const known = KNOWN.get(product);
  if (known) return known;
  const names = namesOf(product).map(tokensOf);
  const builds = product.releases.flatMap((r) => [
    ...(r.builds ?? []),
    ...(r.patches ?? []).flatMap((p) => p.builds ?? [])
  ]);
  const made: Known = {
    words: [...new Set(names.flat())],
    brands: [...new Set(names.flatMap((n) => n[0] ?? []))],
    publisher: tokensOf(product.publisher),
    signs: new Set([
      ...product.releases.flatMap((r) => namesOf(r).filter((n) => /^[a-z]{4,}$/.test(n))),
      ...builds.map(foldText)
    ])
  };
  KNOWN.set(product, made);
  return made;
}

/** How much of a text is of a product's own name; a release's code name or build, known of no other product, speaks for it as well. */
function scoreOf(product: Product, given: readonly string[], { products }: Catalogue) {
  const { words, brands, publisher, signs } = knownOf(product);
  const isAlone = (has: (other: Known) => boolean): boolean =>
    products.every((p) => p === product || !has(knownOf(p)));
  const rest: string[] = [];
  let score = 0;
  let isBranded = false;
  for (const token of withoutPublisher(given, publisher)) {
    const found = /^\d/.test(token) ? undefined : words.find((word) => isWord(token, word));
    if (found !== undefined) {
      score += isAlone((other) => other.words.includes(found)) ? 3 : 1;
      isBranded ||= brands.includes(found);
      continue;
    }
    rest.push(token);
    if (!signs.has(token) || !isAlone((other) => other.signs.has(token))) continue;
    score += 3;
    isBranded = true;
  }
  return { score, rest, isBranded };
}

/** The words behind who publishes it, where that stands first and something of it comes behind. */
const withoutPublisher = (tokens: readonly string[], publisher: readonly string[]): readonly string[] =>
  publisher.length > 1 && publisher.length < tokens.length && publisher.every((w, i) => tokens[i] === w)
    ? tokens.slice(publisher.length)
    : tokens;

interface Found {
  readonly release: Release;
  readonly level?: string;
  readonly by: 'name' | 'build';
  readonly isExact?: boolean;
}

/** What a text means of one product; `isExact`: by the very name of a release, with nothing behind it. */
interface Fit {
  readonly parse: InstalledParse;
  readonly isExact: boolean;
}

function within(
  product: Product,
  { rest, isBranded }: Pick<ReturnType<typeof scoreOf>, 'rest' | 'isBranded'>,
  words: InstalledWords
): Fit | undefined {
  const left = [...rest];
  const take = (at: number, count = 1): void => void left.splice(at, count);
  const editions: string[] = [];
  const architectures: string[] = [];
  // From the longest name on, so that `R2` belongs to the release that has it.
  const found: Found[] = [];
  const names = product.releases
    .flatMap((release) => namesOf(release).map((n) => ({ release, words: n.split(' ') })))
    .sort((a, b) => b.words.length - a.words.length);
  const isGlued = (token: string, name: readonly string[]): boolean =>
    name.length > 1 && token === name.join('');
  for (const { release, words: name } of names)
    for (let i = 0; i < left.length; i++) {
      if (isGlued(left[i] ?? '', name)) take(i);
      else if (name.every((w, k) => left[i + k] === w)) take(i, name.length);
      else continue;
      found.push({ release, by: 'name', isExact: true });
      i--;
    }
  for (let i = 0; i < left.length; i++) {
    const by = ofFigures(product, left[i] ?? '');
    if (!by) continue;
    found.push(...by);
    take(i--);
  }
  for (const edition of product.editions ?? [])
    for (let i = 0; i < left.length; i++)
      if (namesOf(edition).some((n) => isWord(left[i] ?? '', n))) {
        editions.push(edition.id);
        take(i--);
      }
  const sizes = [...left, ...(words.architecture === undefined ? [] : tokensOf(words.architecture))];
  for (const token of sizes) {
    const named = (product.architectures ?? []).filter((a) => namesOf(a).includes(token));
    const pattern = WORD_SIZES.find(([written]) => written.test(token))?.[1];
    const fitting =
      named.length > 0
        ? named
        : (product.architectures ?? []).filter((a) => pattern && namesOf(a).some((n) => pattern.test(n)));
    if (fitting.length === 1 && fitting[0]) {
      architectures.push(fitting[0].id);
      const at = left.indexOf(token);
      if (at >= 0) take(at);
    }
  }
  const unique = [...new Set(editions)];
  const releases = [...new Set(found.map((f) => f.release))];
  const patches = levelsOf(releases, found, left, words);
  const base = {
    product: product.id,
    products: [product.id],
    editions: unique,
    architectures: [...new Set(architectures)],
    leftOver: left
  };
  const open = (ids: readonly string[]): Fit => ({
    parse: { ...base, releases: ids, patches: [], decides: false },
    isExact: false
  });
  const hasFigures = left.some((t) => /\d/.test(t));
  const [only] = releases;
  if (releases.length === 0) return hasFigures ? undefined : open([]);
  if (releases.length > 1 || !only) return open(releases.map((r) => r.id));
  const told = [...new Set(patches)];
  const agree = told.length === 1 ? told.map((patch) => ({ release: only.id, patch })) : [];
  // A server of somebody else's is not the only server that is known here.
  const isWhole = isBranded || !left.some((t) => /[a-z]{3}/.test(t));
  const parse = { ...base, releases: [only.id], patches: agree, decides: unique.length <= 1 && isWhole };
  return { parse, isExact: found.some((f) => f.isExact === true || f.by === 'build') };
}

/** What a word of figures says of a product: a build, a number with something behind it, noughts at the end. */
function ofFigures(product: Product, token: string): Found[] | undefined {
  // `5.x` may be any of them.
  if (!/^\d/.test(token) || /\.x$/.test(token)) return undefined;
  const [figures = token] = /^[\d.]*\d/.exec(token) ?? [];
  const built = product.releases.flatMap((release): Found[] => [
    ...((release.builds ?? []).some((b) => foldText(b) === figures)
      ? [{ release, level: BASE_PATCH, by: 'build' as const }]
      : []),
    ...(release.patches ?? []).flatMap((p): Found[] =>
      (p.builds ?? []).some((b) => foldText(b) === figures) ? [{ release, level: p.id, by: 'build' }] : []
    )
  ]);
  if (built.length > 0) return built;
  const named = (text: string): Release | undefined =>
    product.releases.find((r) => namesOf(r).includes(text));
  const suffix = token.slice(figures.length).replace(/^[-+_]/, '');
  const levelOf = (release: Release): string | undefined =>
    release.patches?.find((p) => namesOf(p).includes(suffix))?.id;
  const parts = figures.split('.');
  // Noughts at the end add nothing; figures behind a number that no other release goes on with are of that release.
  for (let n = parts.length; n > 0; n--) {
    const release = named(parts.slice(0, n).join('.'));
    const behind = parts.slice(n);
    if (!release) {
      if (n < parts.length && behind.some((p) => Number(p) !== 0) && isDotted(product, parts.slice(0, n)))
        return undefined;
      continue;
    }
    const level = levelOf(release);
    return [{ release, by: 'name', ...(level === undefined ? {} : { level }) }];
  }
  return undefined;
}

/** Whether a product has releases that go on behind these figures. */
const isDotted = (product: Product, parts: readonly string[]): boolean =>
  product.releases.some((r) => namesOf(r).some((n) => n.startsWith(`${parts.join('.')}.`)));

/** Levels that a text, a column of levels and builds name, for the one release it is. */
function levelsOf(
  releases: readonly Release[],
  found: readonly Found[],
  left: string[],
  { level }: InstalledWords
): string[] {
  const [release] = releases;
  if (!release || releases.length > 1) return [];
  const known = release.patches ?? [];
  const told = found.flatMap((f) => f.level ?? []);
  const named = (token: string): string | undefined => known.find((p) => namesOf(p).includes(token))?.id;
  for (let i = 0; i < left.length; i++) {
    const patch = named(left[i] ?? '');
    if (patch === undefined) continue;
    told.push(patch);
    left.splice(i--, 1);
  }
  const column = foldText(level ?? '').trim();
  if (NO_LEVEL.has(column)) return [BASE_PATCH];
  for (const token of tokensOf(column)) {
    const bare = /^\d+$/.test(token)
      ? known.filter((p) => new RegExp(`^[a-z]+${token}$`).test(foldText(p.id)))
      : [];
    const patch = named(token) ?? (bare.length === 1 ? bare[0]?.id : undefined);
    if (patch !== undefined) told.push(patch);
  }
  return told;
}
