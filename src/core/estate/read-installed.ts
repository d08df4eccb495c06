import { type Catalogue, type InstalledParse, matchInstalled, parseInstalled } from '../catalogue';
import { BASE_PATCH, foldText, ONLY } from '../version';
import type { Reading, System } from './schema';

export type InstalledReadings = Pick<System, 'product' | 'release' | 'patch' | 'edition' | 'architecture'>;

/** The texts of one machine, as far as a list gives them. */
export interface InstalledTexts {
  readonly installed?: string;
  readonly product?: string;
  readonly version?: string;
  readonly patch?: string;
  readonly build?: string;
  readonly edition?: string;
  readonly architecture?: string;
}

export interface InstalledUnderstanding {
  readonly readings: InstalledReadings;
  /** Parts the texts themselves name; what stands there beside them is so because the catalogue has no other. */
  readonly stated: readonly ('release' | 'patch' | 'edition' | 'architecture')[];
  /** Words nothing in the catalogue accounts for. */
  readonly leftOver: readonly string[];
  /** Name, patch level and build that do not agree, as they are written. */
  readonly contradiction?: readonly string[];
  readonly text: string;
}

/**
 * The readings of one machine from its texts. All texts are read together, the product's own column first; a part the
 * catalogue has only one of is that one. A release named without a level says nothing of the level, except where the
 * release has no other than its base.
 */
export function readInstalled(catalogue: Catalogue, texts: InstalledTexts): InstalledUnderstanding {
  const { installed, version, patch, build, edition, architecture } = texts;
  const rest = joinTexts([installed, version, patch, build, edition, architecture]);
  const text = joinTexts([texts.product, rest]);
  const product = findProduct(catalogue, texts.product);
  // A product column that names a product is settled by itself: its words are not read again with the rest.
  const parse =
    product === undefined ? parseInstalled(catalogue, text) : parseInstalled(catalogue, rest, product);
  if (parse.decides || parse.contradiction) return saidOf(catalogue, parse, text);
  const meant = matched(catalogue, texts, product);
  return saidOf(catalogue, meant && saysMore(meant, parse) ? meant : parse, text);
}

/** Whether what the words mean settles more than what they name: the release, which it could be, or more of the words. */
const saysMore = (meant: InstalledParse, named: InstalledParse): boolean =>
  // Where names of several products stand, nobody can say whose the version is.
  named.products.length <= 1 &&
  (meant.decides ||
    named.product === undefined ||
    meant.releases.length > Math.max(1, named.releases.length) ||
    (named.releases.length === 0 && meant.leftOver.length < named.leftOver.length));

/** What the words mean where they are not the catalogue's own. */
const matched = (
  catalogue: Catalogue,
  texts: InstalledTexts,
  product: string | undefined
): InstalledParse | undefined => {
  const { installed, version, patch, build, edition, architecture } = texts;
  return matchInstalled(
    catalogue,
    {
      text: joinTexts([texts.product, installed, version, edition, build]),
      ...(patch === undefined ? {} : { level: patch }),
      ...(architecture === undefined ? {} : { architecture })
    },
    product
  );
};

function saidOf(catalogue: Catalogue, parse: InstalledParse, text: string): InstalledUnderstanding {
  const { contradiction, leftOver } = parse;
  return {
    readings: readingsOf(catalogue, parse),
    stated: statedIn(parse),
    leftOver,
    ...(contradiction ? { contradiction } : {}),
    text
  };
}

const statedIn = (parse: InstalledParse): InstalledUnderstanding['stated'] => [
  ...(parse.releases.length > 0 ? (['release'] as const) : []),
  ...(parse.patches.length > 0 ? (['patch'] as const) : []),
  ...(parse.editions.length > 0 ? (['edition'] as const) : []),
  ...(parse.architectures.length > 0 ? (['architecture'] as const) : [])
];

const joinTexts = (texts: readonly (string | undefined)[]): string =>
  texts.filter((t) => t !== undefined && t.trim() !== '').join(' ');

function findProduct(catalogue: Catalogue, text: string | undefined): string | undefined {
  if (text === undefined || text.trim() === '') return undefined;
  const folded = foldText(text);
  return catalogue.products.find((p) =>
    [p.name, p.id, ...(p.aliases ?? [])].some((n) => foldText(n) === folded)
  )?.id;
}

function readingsOf(catalogue: Catalogue, parse: InstalledParse): InstalledReadings {
  const unknown: Reading = { unknown: parse.leftOver.length > 0 ? 'not understood' : 'not asked' };
  const product = catalogue.products.find((p) => p.id === parse.product);
  if (!product) {
    const which: Reading = parse.products.length > 0 ? { oneOf: [...parse.products] } : unknown;
    return { product: which, release: unknown, patch: unknown, edition: unknown, architecture: unknown };
  }
  const release = settle(
    parse.releases,
    parse.decides,
    product.releases.map((r) => r.id),
    unknown
  );
  const stated = product.releases.find((r) => 'is' in release && r.id === release.is);
  const offered = <T extends { id: string }>(
    all: readonly T[] | undefined,
    some: readonly string[] | undefined
  ): string[] => (all?.map((e) => e.id) ?? [ONLY]).filter((id) => some?.includes(id) ?? true);
  const levels = stated ? [BASE_PATCH, ...(stated.patches ?? []).map((p) => p.id)] : [];
  return {
    product: { is: product.id },
    release,
    patch: settle(unique(parse.patches.map((p) => p.patch)), parse.decides, levels, { unknown: 'not asked' }),
    edition: settle(parse.editions, parse.decides, offered(product.editions, stated?.editions), {
      unknown: 'not asked'
    }),
    architecture: settle(
      parse.architectures,
      parse.decides,
      offered(product.architectures, stated?.architectures),
      { unknown: 'not asked' }
    )
  };
}

const unique = (ids: readonly string[]): string[] => [...new Set(ids)];

/** One named and everything accounted for: it is that. Named but not sure: candidates. Not named: the only one there is, else unknown. */
function settle(
  named: readonly string[],
  decides: boolean,
  all: readonly string[],
  unknown: Reading
): Reading {
  const [first] = named;
  if (first !== undefined) return decides && named.length === 1 ? { is: first } : { oneOf: [...named] };
  const [only] = all;
  return all.length === 1 && only !== undefined ? { is: only } : unknown;
}
