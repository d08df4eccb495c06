import { foldText } from '$core/version';
import {
  type Catalogue,
  type Edit,
  editValue,
  entryAt,
  freeId,
  outlineAt,
  type Product
} from '$core/catalogue';

/** Where an entry stands in the file. */
export type EntryPath = readonly (string | number)[];
export type Entry = Readonly<Record<string, unknown>> & { readonly id: string };

/** One list of entries as a screen shows it: its name, what one of it is called, and the fields worth a column. */
export interface EntryList {
  readonly list: string;
  readonly title: string;
  readonly one: string;
  readonly about: string;
  readonly columns: readonly string[];
  /** What a new one begins with. */
  readonly blank: (product: Product | undefined) => Readonly<Record<string, unknown>>;
}

const newest = (product: Product | undefined): string => product?.releases.at(-1)?.id ?? 'any';

/** What must be true, and what must come along. */
export const DEMANDS: readonly EntryList[] = [
  {
    list: 'requirements',
    title: 'Requirements',
    one: 'requirement',
    about: 'What a release asks of the machine, by grade; the site’s own value beside the published one.',
    columns: ['at', 'needs', 'grade', 'methods', 'cures'],
    blank: (p) => ({ at: newest(p), needs: 'unknown', grade: 'blocks' })
  },
  {
    list: 'companions',
    title: 'Companions',
    one: 'companion',
    about: 'Devices, applications, extensions and sources that come along, and how each fares.',
    columns: ['name', 'kind', 'essential', 'fares'],
    blank: (p) => ({
      name: 'New companion',
      kind: 'application',
      fares: [{ at: newest(p), verdict: 'works' }]
    })
  },
  {
    list: 'pairings',
    title: 'Pairings',
    one: 'pairing',
    about: 'Which releases of two linked systems may be together.',
    columns: ['kind', 'other', 'fits', 'apart'],
    blank: (p) => ({ kind: 'managed by', other: p?.id ?? '', fits: [{ own: 'any', other: 'any' }] })
  },
  {
    list: 'cautions',
    title: 'Cautions',
    one: 'caution',
    about: 'Known problems: whom they hit, what happens if ignored, what to do.',
    columns: ['name', 'from', 'to', 'when', 'consequence', 'workAround'],
    blank: (p) => ({ name: 'New caution', to: newest(p), consequence: 'degraded' })
  },
  {
    list: 'places',
    title: 'Where to read and set',
    one: 'place',
    about: 'Where a fact is read or set on which version and model, and whom to ask.',
    columns: ['fact', 'at', 'models', 'where', 'fallback', 'ask'],
    blank: () => ({ fact: 'release', where: 'not known' })
  }
];

/** The right to upgrade, and how releases are had. */
export const TERMS: readonly EntryList[] = [
  {
    list: 'rights',
    title: 'Rights',
    one: 'right',
    about: 'What entitles to a hop: dated, counted, carried, bought, by agreement, or to be asked for.',
    columns: ['name', 'kind', 'ways', 'from', 'to', 'priceCents', 'until'],
    blank: () => ({ kind: 'ask' })
  },
  {
    list: 'editions',
    title: 'Editions',
    one: 'edition',
    about: 'From poorer to richer; a renamed one names its successor.',
    columns: ['name', 'features', 'successor'],
    blank: () => ({ name: 'New edition' })
  },
  {
    list: 'editionChanges',
    title: 'Changes of edition',
    one: 'change of edition',
    about: 'Inside one release, to an edition with strictly more features.',
    columns: ['at', 'from', 'to', 'carefulMinutes'],
    blank: (p) => ({
      at: newest(p),
      from: p?.editions?.[0]?.id ?? '',
      to: p?.editions?.[1]?.id ?? '',
      typicalMinutes: 10,
      carefulMinutes: 20
    })
  },
  {
    list: 'offers',
    title: 'Offers in stages',
    one: 'offer',
    about: 'Eligible is not yet offered: when an offer begins and who has it first.',
    columns: ['hops', 'begins', 'complete', 'firstTo'],
    blank: (p) => ({ hops: [p?.hops?.[0]?.id ?? ''], begins: 'unknown' })
  },
  {
    list: 'tracks',
    title: 'Preview tracks',
    one: 'track',
    about: 'With their way out, before anyone joins.',
    columns: ['name', 'maturity', 'releases', 'leaving', 'forfeits'],
    blank: (p) => ({ name: 'New track', maturity: 'preview', releases: newest(p), leaving: 'fresh install' })
  },
  {
    list: 'features',
    title: 'Features',
    one: 'feature',
    about: 'Gained and lost by release.',
    columns: ['name', 'about'],
    blank: () => ({ name: 'New feature' })
  },
  {
    list: 'models',
    title: 'Hardware models',
    one: 'model',
    about: 'What each can take at most, and when its maker leaves it.',
    columns: ['name', 'year', 'ends', 'limits'],
    blank: () => ({})
  },
  {
    list: 'lines',
    title: 'Lines',
    one: 'line',
    about: 'Releases that share a service calendar.',
    columns: ['name', 'service'],
    blank: () => ({})
  },
  {
    list: 'branches',
    title: 'Branches',
    one: 'branch',
    about: 'Releases that share a floor.',
    columns: ['name', 'apart'],
    blank: () => ({})
  }
];

/** What stands in the catalogue beside its products. */
export const SHARED: readonly EntryList[] = [
  {
    list: 'sources',
    title: 'Sources',
    one: 'source',
    about: 'Who says so, when it was written and read, and who entered it.',
    columns: ['title', 'by', 'standing', 'written', 'read', 'enteredBy'],
    blank: () => ({ title: 'New source', standing: 'official' })
  },
  {
    list: 'lists',
    title: 'Compatibility lists',
    one: 'list',
    about: 'What is not on a partial list is unknown, not absent.',
    columns: ['name', 'entries', 'partial'],
    blank: () => ({ name: 'New list', entries: ['one'] })
  },
  {
    list: 'facts',
    title: 'Kinds of facts',
    one: 'kind of fact',
    about: 'Beyond the built-in ones.',
    columns: ['name', 'measure', 'keptBy', 'shelfLifeDays'],
    blank: () => ({ name: 'New fact', measure: 'count', keptBy: 'software', shelfLifeDays: 90 })
  }
];

const edit = (catalogue: Catalogue, change: Edit): Catalogue => editValue(catalogue, change) as Catalogue;

/** The catalogue with the value at a path set; undefined removes it. */
export const withValue = (catalogue: Catalogue, path: EntryPath, value: unknown): Catalogue =>
  edit(catalogue, value === undefined ? { kind: 'remove', path } : { kind: 'set', path, value });

export const withoutEntry = (catalogue: Catalogue, path: EntryPath): Catalogue => {
  const list = entryAt(catalogue, path.slice(0, -1));
  return Array.isArray(list) && list.length === 1 && path[path.length - 2] !== 'products'
    ? edit(catalogue, { kind: 'remove', path: path.slice(0, -1) })
    : edit(catalogue, { kind: 'remove', path });
};

/** The catalogue with a new entry behind the last of a list, and where it stands. */
export function withEntry(
  catalogue: Catalogue,
  list: EntryPath,
  name: string,
  fields: Readonly<Record<string, unknown>>
): { catalogue: Catalogue; path: EntryPath } {
  const before = entryAt(catalogue, list);
  const entries = Array.isArray(before) ? (before as Entry[]) : [];
  const entry = { id: freeId(name, new Set(entries.map((e) => e.id))), ...fields };
  return {
    catalogue: edit(catalogue, { kind: 'set', path: list, value: [...entries, entry] }),
    path: [...list, entries.length]
  };
}

/** Lists of a product, by the fields that name one of their entries. */
const NAMED: Readonly<Record<string, keyof Product>> = {
  edition: 'editions',
  editions: 'editions',
  fromEditions: 'editions',
  toEditions: 'editions',
  successor: 'editions',
  feature: 'features',
  features: 'features',
  gains: 'features',
  hops: 'hops',
  line: 'lines',
  branch: 'branches'
};

/** What is said in a field, with names of entries in the place of nothing but their identifiers: nobody is asked for one. */
export function withIds(product: Product | undefined, path: EntryPath, value: unknown): unknown {
  const key = path.findLast((s) => typeof s === 'string') ?? '';
  const isEdition = path.includes('editionChanges') && (key === 'from' || key === 'to');
  const list = isEdition ? 'editions' : Object.hasOwn(NAMED, key) ? NAMED[key] : undefined;
  const entries = (list && product?.[list]) as readonly (Entry & { name?: string })[] | undefined;
  const idOf = (said: unknown): unknown => {
    if (typeof said !== 'string' || entries?.some((e) => e.id === said)) return said;
    const named = entries?.filter((e) => foldText(e.name ?? '') === foldText(said)) ?? [];
    return named.length === 1 ? named[0]?.id : said;
  };
  return Array.isArray(value) ? value.map(idOf) : idOf(value);
}

/** Fields of an entry in the order of the schema: those it has or needs, and those it might have. */
export function fieldsOf(path: EntryPath, entry: Readonly<Record<string, unknown>>, withId = false) {
  const all = outlineAt(path).filter((f) => (withId || f.key !== 'id') && !hasOwnView(path, f.key));
  const shown = all.filter((f) => f.required || entry[f.key] !== undefined);
  return { shown, further: all.filter((f) => !shown.includes(f)) };
}

/** Lists of a product, and of the catalogue, have views of their own. */
const hasOwnView = (path: EntryPath, key: string): boolean =>
  (path.length === 0 && !['name', 'currency'].includes(key)) ||
  (path.length === 2 &&
    path[0] === 'products' &&
    !['name', 'aliases', 'publisher', 'about', 'hopTable', 'source', 'also'].includes(key));

/** A product with a name to be changed and one release to begin with. */
export function withNewProduct(catalogue: Catalogue): { catalogue: Catalogue; id: string } {
  const made = withEntry(catalogue, ['products'], 'new product', {
    name: 'New product',
    publisher: 'not known',
    releases: [{ id: '1', published: 'unknown' }]
  });
  return { catalogue: made.catalogue, id: (entryAt(made.catalogue, made.path) as Entry).id };
}

type FieldMap = Readonly<Record<string, unknown>>;
const isMap = (value: unknown): value is FieldMap =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** A value whose fields the schema names, so that they can be shown one by one. */
export const isFieldMap = (path: EntryPath, key: string, value: unknown): value is FieldMap =>
  isMap(value) && outlineAt([...path, key]).length > 0;

export const isFieldMapList = (path: EntryPath, key: string, value: unknown): value is readonly FieldMap[] =>
  Array.isArray(value) && value.length > 0 && value.every(isMap) && outlineAt([...path, key, 0]).length > 0;

/** A field's name in words: `carefulMinutes` is careful minutes. */
export const sayField = (key: string): string => key.replace(/[A-Z]/g, (c) => ` ${c.toLowerCase()}`);

/** A map as one short line: the first `most` of its plain values. */
export function sayBrief(value: FieldMap, most = 4): string {
  const plain = Object.entries(value).filter(([key, v]) => key !== 'source' && typeof v !== 'object');
  const words = plain.slice(0, most).map(([key, v]) => {
    if (typeof v === 'number') return `${sayField(key)} ${v}`;
    return typeof v === 'boolean' ? (v ? sayField(key) : '') : String(v).replace(/\.$/, '');
  });
  return words.filter(Boolean).join(', ') || Object.keys(value).map(sayField).join(', ');
}
