import { type Catalogue, Names, type Product } from '$core/catalogue';
import { parseDay } from '$core/date';
import { type Naming, sayConditionText, sayDay, sayEntry, sayMoney } from '$core/wording';
import { type Entry, sayBrief } from './entries';

/** Entries of a catalogue, and what stands in their fields, as people say it: names and sentences in the place of identifiers. */
export class EntryNames {
  readonly #names: Names;

  constructor(
    private readonly catalogue: Catalogue | undefined,
    private readonly product: Product | undefined,
    private readonly naming: Naming
  ) {
    this.#names = new Names(product);
  }

  /** An entry of one of the lists: its name, or what it asks, joins or leads to. */
  entry(list: string, entry: Entry): string {
    const text = (key: string): string => String(entry[key] ?? '');
    const own = text('name') || text('title');
    if (own !== '') return own;
    switch (list) {
      case 'requirements':
        return text('needs') === 'unknown'
          ? `the demand of ${this.#names.range(text('at'))}`
          : this.#condition(text('needs'));
      case 'pairings':
        return `${text('kind')} ${this.#productName(text('other'))}`;
      case 'places':
        return this.naming.fact(text('fact'));
      case 'editionChanges':
        return `${this.#names.edition(text('from'))} to ${this.#names.edition(text('to'))}`;
      case 'offers':
        return this.#listed(entry['hops']);
      default:
        return this.product && ['hops', 'rights', 'releases'].includes(list)
          ? sayEntry(`${this.product.id}/${list}/${entry.id}`, this.naming)
          : entry.id;
    }
  }

  /** What has an identifier, by its name: an entry of the product, else of the catalogue; a text that is none stays. */
  any(id: string): string {
    for (const [list, entries] of [
      ...Object.entries(this.product ?? {}),
      ...Object.entries(this.catalogue ?? {})
    ]) {
      // A line may be called like a release; nobody asks for one by identifier.
      if (list === 'lines') continue;
      const found = Array.isArray(entries)
        ? (entries as unknown[]).find(
            (e): e is Entry => typeof e === 'object' && e !== null && 'id' in e && e.id === id
          )
        : undefined;
      if (found) return this.entry(list, found);
    }
    const cure = this.#names.cure(id);
    return cure === id ? this.naming.fact(id) : cure;
  }

  /** A detail of a finding: releases, levels and conditions by what they are, all else by name. */
  detail(key: string, text: string): string {
    if (text.includes('/') && text.split('/').length > 2) return sayEntry(text, this.naming);
    if (['from', 'to', 'release', 'releases', 'patch', 'before', 'cells'].includes(key))
      return this.#names.range(text);
    return key === 'text' ? this.#condition(text) : this.any(text);
  }

  /** A field of an entry as one short line. */
  field(key: string, value: unknown): string {
    if (value === undefined) return '';
    if (key === 'priceCents' && typeof value === 'number')
      return sayMoney(value, this.catalogue?.currency ?? '');
    if (key === 'needs' || key === 'when') return this.#condition(String(value));
    if (['at', 'from', 'to'].includes(key) && typeof value === 'string') return this.#names.range(value);
    if (key === 'other') return this.#productName(String(value));
    if (key === 'fact') return this.naming.fact(String(value));
    if (key === 'source') return this.#sourceOf(String(value));
    if (key === 'hops' || key === 'features') return this.#listed(value);
    if (Array.isArray(value)) return value.map((v) => this.#element(v)).join('; ');
    if (typeof value === 'object' && value !== null) return this.brief(value as Record<string, unknown>);
    if (typeof value === 'boolean') return value ? 'yes' : 'no';
    const day = typeof value === 'string' ? parseDay(value) : undefined;
    return day === undefined ? String(value as string | number) : sayDay(day);
  }

  /** A map or an element of a list in one line: what tells it from others by name, its plain values. */
  brief(map: Readonly<Record<string, unknown>>, most = 4): string {
    const isNamed = ['how', 'name', 'title', 'feature', 'fact'].some((key) => key in map);
    const said = Object.entries(map)
      .filter(([key]) => key !== 'source' && !(key === 'id' && isNamed))
      .map(([key, v]): [string, unknown] => [key === 'own' ? '' : key, this.#said(key, v, map)]);
    return sayBrief(Object.fromEntries(said), most);
  }

  #said(key: string, value: unknown, map: Readonly<Record<string, unknown>>): unknown {
    if (typeof value !== 'string') return value;
    if (key === 'own') return this.#names.range(value);
    if (key === 'other') return `with ${this.#rangeElsewhere(map)}`;
    if (key === 'feature') return this.any(value);
    return key === 'id' ? value : this.field(key, value);
  }

  /** Releases of the product a pairing is with by their names, in a line of it. */
  #rangeElsewhere({ own, other }: Readonly<Record<string, unknown>>): string {
    const pairing = this.product?.pairings?.find((p) =>
      p.fits?.some((f) => f.own === own && f.other === other)
    );
    const product = this.catalogue?.products.find((p) => p.id === pairing?.other);
    return new Names(product).range(String(other));
  }

  #element(value: unknown): string {
    if (typeof value !== 'object' || value === null) return String(value);
    const map = value as Record<string, unknown>;
    return typeof map['how'] === 'string' ? map['how'].replace(/\.$/, '') : this.brief(map, 3);
  }

  #condition = (text: string): string => sayConditionText(text, this.naming, this.#names);
  #listed = (ids: unknown): string =>
    Array.isArray(ids) ? ids.map((id) => this.any(String(id))).join(', ') : '';
  #productName = (id: string): string => this.catalogue?.products.find((p) => p.id === id)?.name ?? id;
  #sourceOf = (id: string): string => this.catalogue?.sources?.find((s) => s.id === id)?.title ?? id;
}

/** A condition that stands in a form, in words beside its text; empty where that says nothing more. */
export function sayBeside(key: string, value: unknown, names: EntryNames): string {
  if (!['needs', 'when'].includes(key) || typeof value !== 'string' || value === 'unknown') return '';
  const words = names.field(key, value);
  return words === value ? '' : words;
}
