import type { Catalogue, Product, Release } from './schema';
import { BASE_PATCH, foldText, wordsOf } from '../version';

/** What a text could be, part by part. Each list holds ids; an empty list: the text says nothing of this part. */
export interface InstalledParse {
  readonly product?: string;
  /** Products it could be, where that is not settled. */
  readonly products: readonly string[];
  readonly releases: readonly string[];
  /** Patch levels, given with their release. */
  readonly patches: readonly { readonly release: string; readonly patch: string }[];
  readonly editions: readonly string[];
  readonly architectures: readonly string[];
  /** Words nothing in the catalogue accounts for. */
  readonly leftOver: readonly string[];
  /** Name, patch level and build that do not agree, as they are written: nothing of them wins. */
  readonly contradiction?: readonly string[];
  /** True when declared names account for every word in exactly one way: only then does the text decide. */
  readonly decides: boolean;
}

type Part = 'product' | 'release' | 'patch' | 'edition' | 'architecture' | 'build';

interface Name {
  readonly part: Part;
  readonly words: readonly string[];
  readonly id: string;
  readonly release?: string;
}

interface Reading {
  readonly names: readonly Name[];
  readonly leftOver: readonly string[];
  /** Its release, patch level and build belong to different releases or levels. */
  readonly isTorn: boolean;
}

const MAX_WORDS = 24;
const MAX_READINGS = 400;

/**
 * Reads what people write in one cell: product, release, patch level, edition and architecture in any order.
 *
 * The text is cut into words. Every way of covering the words with declared names and aliases is listed; covers with
 * fewest words left over are kept. If one cover remains and nothing is left over, the text decides. Otherwise what
 * the covers name are candidates - never a guess. Names are compared whole, never as numbers. A cover whose
 * name, patch level and build do not agree counts only where it accounts for more than any that do; then all it names are
 * candidates. Where the longest names of products in the text are of several, the version belongs to nobody can say which.
 * `product` narrows the reading to one product, whose own name may then be missing from the text.
 */
export function parseInstalled(catalogue: Catalogue, text: string, product?: string): InstalledParse {
  const words = wordsOf(text).slice(0, MAX_WORDS);
  const among =
    product === undefined ? catalogue.products : catalogue.products.filter((p) => p.id === product);
  const byProduct = among.map((p) => ({ product: p, readings: readingsOf(p, words) }));
  const named = byProduct.filter(
    (b) => product !== undefined || b.readings.some((r) => r.names.some((n) => n.part === 'product'))
  );
  const [only] = named;
  if (words.length === 0 || !only) return nothing(words, product);
  if (named.length > 1) {
    const apart = productsNamed(
      named.map((n) => n.product),
      words
    );
    if (apart.length > 1) return { ...nothing(words), products: apart };
    return severalProducts(named, words);
  }
  return ofProduct(only.product, only.readings, product !== undefined);
}

const nothing = (leftOver: readonly string[], product?: string): InstalledParse => ({
  ...(product === undefined ? {} : { product }),
  products: product === undefined ? [] : [product],
  releases: [],
  patches: [],
  editions: [],
  architectures: [],
  leftOver,
  decides: false
});

/** The products named at different places of a text, the longest name at each place; those of one place count as one. */
function productsNamed(products: readonly Product[], words: readonly string[]): string[] {
  const found: string[][] = [];
  for (let at = 0; at < words.length;) {
    let longest = 0;
    let here: string[] = [];
    for (const product of products)
      for (const name of [product.name, ...(product.aliases ?? [])].map(wordsOf)) {
        if (name.length < longest || !name.every((w, i) => words[at + i] === w)) continue;
        here = name.length > longest ? [product.id] : [...here, product.id];
        longest = name.length;
      }
    if (here.length > 0) found.push(here);
    at += Math.max(1, longest);
  }
  const [first, ...others] = found;
  const isOne = others.every((ids) => ids.some((id) => first?.includes(id)));
  return isOne ? [] : unique(found.flat());
}

/** Where names of several products stand in the text, the one whose reading leaves fewest words over. */
function severalProducts(
  named: readonly { product: Product; readings: readonly Reading[] }[],
  words: readonly string[]
): InstalledParse {
  const least = (readings: readonly Reading[]): number => Math.min(...readings.map((r) => r.leftOver.length));
  const fewest = Math.min(...named.map((n) => least(n.readings)));
  const best = named.filter((n) => least(n.readings) === fewest);
  const [only] = best;
  if (best.length === 1 && only) return ofProduct(only.product, only.readings, false);
  return { ...nothing(words), products: best.map((b) => b.product.id) };
}

function ofProduct(product: Product, readings: readonly Reading[], productGiven: boolean): InstalledParse {
  const usable = readings.filter((r) => productGiven || r.names.some((n) => n.part === 'product'));
  const fewest = Math.min(...usable.map((r) => r.leftOver.length));
  const best = usable.filter((r) => r.leftOver.length === fewest);
  const of = (part: Part): Name[] => best.flatMap((r) => r.names.filter((n) => n.part === part));
  const builds = of('build');
  const isTorn = best.some((r) => r.isTorn);
  const bound = isTorn ? [...builds, ...of('patch')] : builds;
  const settledBy = isTorn || builds.length === 0 ? [...of('patch'), ...builds] : builds;
  const named = of('release').map((n) => n.id);
  const releases = unique([...named, ...bound.map((n) => n.release ?? '')]);
  const fitting =
    builds.length > 0 && !isTorn
      ? unique(builds.map((n) => n.release ?? ''))
      : releases.length > 0
        ? releases
        : beginningWith(product, best[0]?.leftOver ?? []);
  return {
    product: product.id,
    products: [product.id],
    releases: fitting,
    patches: uniquePatches(
      settledBy
        .map((n) => ({ release: n.release ?? '', patch: n.id }))
        .filter((p) => fitting.length === 0 || fitting.includes(p.release))
    ),
    editions: unique(of('edition').map((n) => n.id)),
    architectures: unique(of('architecture').map((n) => n.id)),
    leftOver: best[0]?.leftOver ?? [],
    ...(isTorn
      ? {
          contradiction: best.flatMap((r) =>
            r.names
              .filter((n) => ['release', 'patch', 'build'].includes(n.part))
              .map((n) => n.words.join(' '))
          )
        }
      : {}),
    decides: fewest === 0 && best.length === 1 && !isTorn
  };
}

/** Releases one of whose names begins with a word that holds a figure: what somebody cut short may be any of them. */
function beginningWith(product: Product, leftOver: readonly string[]): string[] {
  const words = leftOver.filter((w) => /\d/.test(w));
  return product.releases
    .filter((r) =>
      [r.name ?? r.id, ...(r.aliases ?? [])].some((n) => words.some((w) => foldText(n).startsWith(w)))
    )
    .map((r) => r.id);
}

const unique = (ids: readonly string[]): string[] => [...new Set(ids)].filter(Boolean);
const uniquePatches = (
  list: readonly { release: string; patch: string }[]
): { release: string; patch: string }[] =>
  list.filter((p, i) => list.findIndex((q) => q.release === p.release && q.patch === p.patch) === i);

/** Every cover of the words by names of the product, at most one name of each part, fewest left-over words first. */
function readingsOf(product: Product, words: readonly string[]): Reading[] {
  const names = namesOf(product);
  const byFirst = new Map<string, Name[]>();
  for (const name of names) push(byFirst, name.words[0] ?? '', name);
  const readings: Reading[] = [];
  const cover = (at: number, taken: readonly Name[], leftOver: readonly string[]): void => {
    if (readings.length >= MAX_READINGS) return;
    const word = words[at];
    if (word === undefined) return void readings.push({ names: taken, leftOver, isTorn: !agree(taken) });
    for (const name of byFirst.get(word) ?? []) {
      const fits = name.words.every((w, i) => words[at + i] === w) && isCompatible(taken, name);
      if (fits) cover(at + name.words.length, [...taken, name], leftOver);
    }
    cover(at + 1, taken, [...leftOver, word]);
  };
  cover(0, [], []);
  const fewest = Math.min(...readings.map((r) => r.leftOver.length));
  const best = readings.filter((r) => r.leftOver.length === fewest && isWhole(r));
  const agreeing = best.filter((r) => !r.isTorn);
  return sameMeaningOnce(agreeing.length > 0 ? agreeing : best);
}

/** One name of a part. */
const isCompatible = (taken: readonly Name[], name: Name): boolean =>
  !taken.some((t) => t.part === name.part);

/** Whether what is named of release, patch level and build is of one release, and of one level where both say so. */
function agree(names: readonly Name[]): boolean {
  const of = (part: Part): Name | undefined => names.find((n) => n.part === part);
  const [patch, build] = [of('patch'), of('build')];
  const releases = [of('release')?.id, patch?.release, build?.release].filter((r) => r !== undefined);
  return new Set(releases).size <= 1 && (!patch || !build || patch.id === build.id);
}

/** A patch level without its release says nothing: `r2` exists in many. A build settles both. */
const isWhole = (reading: Reading): boolean =>
  !reading.names.some((n) => n.part === 'patch') || reading.names.some((n) => n.part === 'release');

function sameMeaningOnce(readings: readonly Reading[]): Reading[] {
  const seen = new Map<string, Reading>();
  for (const reading of readings) {
    const key =
      reading.names
        .map((n) => `${n.part} ${n.release ?? ''} ${n.id}`)
        .sort()
        .join(';') +
      '|' +
      reading.leftOver.join(' ');
    if (!seen.has(key)) seen.set(key, reading);
  }
  return [...seen.values()];
}

function namesOf(product: Product): Name[] {
  const names: Name[] = [];
  const add = (part: Part, id: string, texts: readonly (string | undefined)[], release?: string): void => {
    for (const text of new Set(texts.flatMap((t) => (t === undefined ? [] : [foldText(t)]))))
      names.push({ part, id, words: wordsOf(text), ...(release === undefined ? {} : { release }) });
  };
  add('product', product.id, [product.name, ...(product.aliases ?? [])]);
  for (const release of product.releases) addRelease(add, release);
  for (const edition of product.editions ?? [])
    add('edition', edition.id, [edition.name ?? edition.id, ...(edition.aliases ?? [])]);
  for (const architecture of product.architectures ?? [])
    add('architecture', architecture.id, [
      architecture.name ?? architecture.id,
      ...(architecture.aliases ?? [])
    ]);
  return names.filter((n) => n.words.length > 0);
}

function addRelease(
  add: (part: Part, id: string, texts: readonly (string | undefined)[], release?: string) => void,
  release: Release
): void {
  add('release', release.id, [release.name ?? release.id, ...(release.aliases ?? [])]);
  for (const build of release.builds ?? []) add('build', BASE_PATCH, [build], release.id);
  for (const patch of release.patches ?? []) {
    add('patch', patch.id, [patch.name ?? patch.id, ...(patch.aliases ?? [])], release.id);
    for (const build of patch.builds ?? []) add('build', patch.id, [build], release.id);
  }
}

function push<V>(map: Map<string, V[]>, key: string, value: V): void {
  const list = map.get(key);
  if (list) list.push(value);
  else map.set(key, [value]);
}
