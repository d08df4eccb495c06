import type { TableChange, TableKind } from '$core/catalogue';

/** What is said of tables on their way in. */
export const KIND_WORDS: Readonly<Record<TableKind, string>> = {
  'life cycle': 'when releases come and end',
  hops: 'which release leads to which',
  editions: 'which edition becomes which',
  requirements: 'what is needed',
  list: 'processors, models or parts that are known',
  companions: 'how devices and applications fare',
  problems: 'known problems',
  features: 'what releases bring and drop'
};

const ROLES: Readonly<Record<string, string>> = {
  release: 'the release',
  name: 'another name',
  published: 'the day it came out',
  full: 'end of full service',
  security: 'end of security service',
  extension: 'end of an extension',
  product: 'the product'
};
export const roleWord = (kind: TableKind, role: string): string =>
  kind === 'life cycle'
    ? (ROLES[role] ?? role)
    : kind === 'companions' && role === 'name'
      ? 'its name'
      : role;

const MEANINGS: Readonly<Record<string, string>> = {
  'in place': 'a hop in place',
  'fresh install': 'a fresh install',
  no: 'not at once',
  'left out': 'nothing'
};
/** What a word of a cell means; `fact`: the name of a fact. */
export const meaningWord = (kind: TableKind, meaning: string, fact: (id: string) => string): string =>
  kind === 'requirements' && meaning !== 'left out' ? fact(meaning) : (MEANINGS[meaning] ?? meaning);

export const CHANGE_WORDS: Readonly<Record<TableChange['kind'], string>> = {
  new: 'new',
  changed: 'changed',
  same: 'as it is',
  gone: 'not in this table any more; it stays',
  against: 'against what the catalogue has; that stays',
  'no release': 'of a release the product does not have'
};

/** How many of each, as one line. */
export const countWords = (changes: readonly TableChange[]): string =>
  (Object.keys(CHANGE_WORDS) as TableChange['kind'][])
    .flatMap((kind) => {
      const n = changes.filter((c) => c.kind === kind).length;
      return n > 0 ? [`${n} ${CHANGE_WORDS[kind]}`] : [];
    })
    .join(', ');
