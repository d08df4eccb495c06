import {
  companionKindOf,
  LEFT_OUT,
  listFactOf,
  placesOfProduct,
  type Product,
  rangeOfWords,
  type Source,
  suggestKind,
  TABLE_READERS,
  type TableAbout,
  type TableGround,
  type TableKind,
  type TableReading,
  type TableTaken
} from '$core/catalogue';
import type { PublishedTable } from '$core/exchange';

type Reads = NonNullable<Source['reads']>;

/** What a table is put into, and what it is known by; both may change while it is looked at. */
export interface TablePlace {
  readonly ground: TableGround;
  readonly title: string;
  readonly source: string;
}

/** One table on its way in: what it is about, what its columns are and its words mean - suggested, or as somebody has said. */
export class OneTable {
  kind = $state<TableKind>('life cycle');
  about = $state.raw<TableAbout>({});
  #saidRoles = $state.raw<ReadonlyMap<number, string>>(new Map());
  #saidWords = $state.raw<ReadonlyMap<string, string>>(new Map());

  readonly reader = $derived(TABLE_READERS[this.kind]);
  readonly roles = $derived.by<readonly string[]>(() =>
    this.reader
      .suggestRoles(this.table, this.place().ground)
      .map((r, i) => this.#saidRoles.get(i) ?? this.#remembered('columns', this.table.head[i] ?? '') ?? r)
  );
  readonly #plain = $derived.by<TableReading>(() => ({
    table: this.table,
    roles: this.roles,
    meanings: new Map(),
    about: this.about,
    title: this.place().title,
    source: this.place().source
  }));
  readonly words = $derived.by<readonly string[]>(() => this.reader.words(this.#plain, this.place().ground));
  readonly meanings = $derived.by<ReadonlyMap<string, string>>(
    () =>
      new Map(
        this.words.map((w) => [
          w,
          this.#saidWords.get(w) ??
            this.#remembered('words', w) ??
            this.reader.suggestMeaning(w, this.place().ground)
        ])
      )
  );
  readonly reading = $derived<TableReading>({ ...this.#plain, meanings: this.meanings });
  readonly taken = $derived.by<TableTaken>(() => this.reader.take(this.reading, this.place().ground));

  /** `memory`: how a table of this source was read before. */
  constructor(
    readonly table: PublishedTable,
    private readonly place: () => TablePlace,
    private readonly memory: () => Reads | undefined = () => undefined
  ) {
    const product = place().ground.product;
    const kind = memory()?.kind;
    this.kind =
      kind !== undefined && kind in TABLE_READERS
        ? (kind as TableKind)
        : suggestKind({ title: table.title, table, product });
    const words = `${table.title} ${table.head.join(' ')}`;
    const at = releasesNamed(table.title, product);
    this.about = {
      fact: listFactOf(words),
      companion: companionKindOf(words),
      ...(at === undefined ? {} : { at })
    };
  }

  /** Says what a column is; what another was said to be of the same is left out. */
  say(column: number, role: string): void {
    const said = new Map(this.#saidRoles);
    const isOften =
      role === LEFT_OUT || ['fares on this release', 'an edition arrived at', 'as it is'].includes(role);
    if (!isOften)
      for (const [i, r] of this.roles.entries()) if (r === role && i !== column) said.set(i, LEFT_OUT);
    said.set(column, role);
    this.#saidRoles = said;
  }

  /** Says what a word of its cells means. */
  mean(word: string, meaning: string): void {
    this.#saidWords = new Map(this.#saidWords).set(word, meaning);
  }

  /** Says something of the table as a whole; what is undefined is said no more. */
  tell(about: { readonly [K in keyof TableAbout]: TableAbout[K] | undefined }): void {
    this.about = Object.fromEntries(
      Object.entries({ ...this.about, ...about }).filter(([, v]) => v !== undefined)
    ) as TableAbout;
  }

  /** Says what it is about; columns said before were of another. */
  turn(kind: TableKind): void {
    this.kind = kind;
    this.#saidRoles = new Map();
    this.#saidWords = new Map();
  }

  /** How it is read, to be remembered with its source. */
  reads(product: string): Reads {
    const clip = (text: string): string => text.slice(0, 300);
    return {
      kind: this.kind,
      product,
      columns: this.roles
        .map((is, i) => ({ heading: clip(this.table.head[i] ?? ''), is }))
        .filter((c, i, all) => all.findIndex((d) => d.heading === c.heading) === i)
        .slice(0, 200),
      ...(this.meanings.size > 0
        ? {
            words: [...this.meanings]
              .map(([word, means]) => ({ word: clip(word), means }))
              .filter((w) => w.means !== '')
              .slice(0, 2000)
          }
        : {})
    };
  }

  #remembered(of: 'columns' | 'words', text: string): string | undefined {
    const reads = this.memory();
    if (!reads || reads.kind !== this.kind) return undefined;
    if (of === 'words') return reads.words?.find((w) => w.word === text)?.means;
    const is = reads.columns?.find((c) => c.heading === text)?.is;
    return is !== undefined && this.reader.roles.includes(is) ? is : undefined;
  }
}

/** The releases a title is of: `What Marram Draft needs from 23 on`. */
function releasesNamed(title: string, product: Product): string | undefined {
  const places = placesOfProduct(product);
  const rest = [product.name, ...(product.aliases ?? [])]
    .filter(Boolean)
    .sort((a, b) => b.length - a.length)
    .reduce((text, name) => text.replaceAll(name, ' '), title);
  const words = rest.split(/[\s,:]+/).filter(Boolean);
  for (let length = Math.min(5, words.length); length > 0; length--)
    for (let at = 0; at + length <= words.length; at++) {
      const text = words.slice(at, at + length).join(' ');
      const range = /\d/.test(text) ? rangeOfWords(places, text) : undefined;
      if (range !== undefined) return range;
    }
  return undefined;
}
