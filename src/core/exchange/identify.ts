import { compareText } from '../kit';
import type { Catalogue, Product } from '../catalogue';
import { BASE_PATCH, wordsOf } from '../version';

/** A stretch of the text that named something of the catalogue. */
export interface DecidingWords {
  readonly text: string;
  readonly says: 'product' | 'release' | 'patch level' | 'build' | 'edition' | 'architecture';
  readonly id: string;
}

/** What a text may be about. */
export interface Candidate {
  readonly product: string;
  readonly release?: string;
  readonly patch?: string;
  readonly edition?: string;
  readonly architecture?: string;
  readonly words: readonly DecidingWords[];
  /** True where the text names the product, and nothing in it speaks for another release of it. */
  readonly sure: boolean;
}

interface Name {
  readonly words: readonly string[];
  readonly says: DecidingWords['says'];
  readonly id: string;
  readonly release?: string;
}

const MAX_WORDS = 4000;
/** A bare number counts as a release only this close behind the product's name, or right behind such a word. */
const NEAR = 4;
const BEFORE_NUMBERS = new Set(['release', 'version', 'line', 'ver', 'v', 'level', 'patch', 'build']);
const MAX_CANDIDATES = 12;

/**
 * What a text copied from a screen or a mail speaks of, best supported first, each with the words that decided. Names,
 * aliases and builds of the catalogue are looked for as whole words, case folded; nothing is read as a number. A build
 * settles its release. Several releases named: one candidate each. Cost: words times names.
 */
export function identifyText(catalogue: Catalogue, text: string): Candidate[] {
  const words = wordsOf(text.replace(/["'“”‘’=<>]/g, ' '))
    .slice(0, MAX_WORDS)
    .map((w) => w.replace(/^[.:!?-]+|[.:!?]+$/g, ''))
    .filter(Boolean);
  const places = new Map<string, number[]>();
  words.forEach((w, i) => places.set(w, [...(places.get(w) ?? []), i]));
  return catalogue.products
    .flatMap((product) => candidatesOf(product, words, places))
    .sort((a, b) => weight(b) - weight(a) || compareText(a.product, b.product))
    .slice(0, MAX_CANDIDATES);
}

const WEIGHTS: Readonly<Record<DecidingWords['says'], number>> = {
  build: 8,
  product: 6,
  release: 3,
  'patch level': 2,
  edition: 1,
  architecture: 1
};
const weight = (c: Candidate): number =>
  c.words.reduce((sum, w) => sum + WEIGHTS[w.says], 0) + (c.sure ? 4 : 0);

function candidatesOf(
  product: Product,
  words: readonly string[],
  places: ReadonlyMap<string, readonly number[]>
): Candidate[] {
  const names = namesOf(product);
  const found = (name: Name): number[] =>
    (places.get(name.words[0] ?? '') ?? []).filter((at) => name.words.every((w, i) => words[at + i] === w));
  const hits = names.flatMap((name) => found(name).map((at) => ({ name, at })));
  const titles = hits.filter((h) => h.name.says === 'product');
  const builds = hits.filter((h) => h.name.says === 'build');
  if (titles.length === 0 && builds.length === 0) return [];
  const isNear = (at: number): boolean =>
    titles.some((t) => at > t.at && at - (t.at + t.name.words.length) < NEAR) ||
    BEFORE_NUMBERS.has(words[at - 1] ?? '');
  const usable = hits.filter(
    (h) =>
      h.name.says === 'product' ||
      h.name.says === 'build' ||
      h.name.words.length > 1 ||
      isNear(h.at) ||
      /[a-z]{4}/.test(h.name.words[0] ?? '')
  );
  const released = [
    ...new Set(
      builds.length > 0
        ? builds.map((b) => b.name.release ?? '')
        : usable.filter((h) => h.name.says === 'release').map((h) => h.name.id)
    )
  ];
  const candidate = (release?: string): Candidate =>
    describe(product, usable, release, released.length <= 1 && titles.length > 0);
  return released.length === 0 ? [candidate()] : released.map(candidate);
}

function describe(
  product: Product,
  hits: readonly { name: Name; at: number }[],
  release: string | undefined,
  sure: boolean
): Candidate {
  const own = hits.filter(
    ({ name }) =>
      name.says === 'product' ||
      (name.says === 'release' ? name.id === release : name.release === undefined || name.release === release)
  );
  const first = (says: DecidingWords['says']): Name | undefined =>
    own.find((h) => h.name.says === says)?.name;
  const level = first('build') ?? first('patch level');
  const edition = first('edition');
  const architecture = first('architecture');
  const seen = new Set<string>();
  const words = own.flatMap(({ name }): DecidingWords[] => {
    const text = name.words.join(' ');
    if (seen.has(`${name.says} ${text}`)) return [];
    seen.add(`${name.says} ${text}`);
    return [{ text, says: name.says, id: name.id }];
  });
  return {
    product: product.id,
    ...(release === undefined ? {} : { release }),
    ...(release === undefined || !level ? {} : { patch: level.id }),
    ...(edition ? { edition: edition.id } : {}),
    ...(architecture ? { architecture: architecture.id } : {}),
    words,
    sure
  };
}

function namesOf(product: Product): Name[] {
  const name = (
    says: Name['says'],
    id: string,
    texts: readonly (string | undefined)[],
    release?: string
  ): Name[] =>
    [...new Set(texts.flatMap((t) => (t === undefined ? [] : [wordsOf(t).join('\u0001')])))]
      .filter(Boolean)
      .map((key) => ({
        says,
        id,
        words: key.split('\u0001'),
        ...(release === undefined ? {} : { release })
      }));
  return [
    ...name('product', product.id, [product.name, ...(product.aliases ?? [])]),
    ...product.releases.flatMap((r) => [
      ...name('release', r.id, [r.name ?? r.id, ...(r.aliases ?? [])]),
      ...name('build', BASE_PATCH, r.builds ?? [], r.id),
      ...(r.patches ?? []).flatMap((p) => [
        ...name('patch level', p.id, [p.name ?? p.id, ...(p.aliases ?? [])], r.id),
        ...name('build', p.id, p.builds ?? [], r.id)
      ])
    ]),
    ...(product.editions ?? []).flatMap((e) => name('edition', e.id, [e.name ?? e.id, ...(e.aliases ?? [])])),
    ...(product.architectures ?? []).flatMap((a) =>
      name('architecture', a.id, [a.name ?? a.id, ...(a.aliases ?? [])])
    )
  ];
}
