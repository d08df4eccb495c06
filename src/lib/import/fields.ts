import { compareText } from '$core/kit';
import { type Catalogue, Names, type Product } from '$core/catalogue';
import { kindsOf, readingKey } from '$core/estate';
import type { ImportedRow, ImportField, ImportKey } from '$core/exchange';

/** What a column can hold, in words. */
export const FIELD_WORDS: Record<ImportField, string> = {
  name: 'machine name',
  installed: 'what it runs',
  product: 'product',
  version: 'version',
  patch: 'patch level',
  build: 'build',
  edition: 'edition',
  architecture: 'architecture',
  team: 'team',
  site: 'site',
  nodes: 'nodes',
  nodeName: 'one node of it',
  activated: 'activated',
  observed: 'day it was read',
  hostedOn: 'hosted on',
  managedBy: 'managed by',
  contentOf: 'content of',
  peerOf: 'peer of',
  companions: 'companions',
  purl: 'package URL',
  cpe: 'CPE name',
  note: 'note'
};

/** The facts a column can hold. */
export const factChoices = (catalogue: Catalogue | undefined): { key: ImportKey; name: string }[] =>
  kindsOf(catalogue)
    .all()
    .filter((k) => !['activated', 'edition', 'architecture'].includes(k.id))
    .map((k) => ({ key: `fact.${k.id}` as const, name: k.name }))
    .sort((a, b) => compareText(a.name, b.name));

/** True where what is installed is not wholly understood. */
export function isOpen({ fate, system: s }: ImportedRow): boolean {
  return (
    fate !== 'not taken' &&
    s !== undefined &&
    [s.product, s.release, s.patch, s.edition, s.architecture].some((r) => !('is' in r))
  );
}

/** What was understood of a machine, in words. */
export function sayUnderstood({ system: s }: ImportedRow, products: ReadonlyMap<string, Product>): string {
  if (!s) return '';
  if (!('is' in s.product))
    return 'oneOf' in s.product ? `could be ${s.product.oneOf.join(' or ')}` : 'not in the catalogue';
  const names = new Names(products.get(s.product.is));
  const release =
    'is' in s.release
      ? names.release(s.release.is)
      : 'oneOf' in s.release
        ? `could be ${s.release.oneOf.map((r) => names.release(r)).join(' or ')}`
        : 'release unknown';
  const patch =
    'is' in s.patch ? ('is' in s.release ? names.patch(s.release.is, s.patch.is) : '') : 'patch unknown';
  const edition =
    'is' in s.edition
      ? names.edition(s.edition.is)
      : 'oneOf' in s.edition
        ? `could be ${s.edition.oneOf.map((e) => names.edition(e)).join(' or ')}`
        : 'edition unknown';
  const architecture = readingKey(s.architecture).startsWith('?') ? 'architecture unknown' : '';
  return [names.product, release, patch, edition, architecture].filter(Boolean).join(', ');
}
