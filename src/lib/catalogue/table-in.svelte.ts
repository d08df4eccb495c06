import {
  type Catalogue,
  freeId,
  partByProduct,
  placeTexts,
  type Product,
  productNamedIn,
  type Source,
  TABLE_READERS,
  type TableChange,
  type TableGround
} from '$core/catalogue';
import { formatDay } from '$core/date';
import type { PublishedTable } from '$core/exchange';
import type { Issue } from '$core/kit';
import { desk } from '$lib/state/desk.svelte';
import { draft } from '$lib/state/draft.svelte';
import { OneTable } from './one-table.svelte';

/** A new product, in the choice of products. */
export const NEW_PRODUCT = '';

/** Publishers' tables on their way into the catalogue: what is in them, what they are of, and what taking each would do. */
export class TableIn {
  tables = $state.raw<readonly PublishedTable[]>([]);
  issues = $state.raw<readonly Issue[]>([]);
  isReading = $state(false);
  at = $state(0);
  one = $state.raw<OneTable | undefined>();
  /** Those that are in the draft, by index. */
  done = $state.raw<ReadonlySet<number>>(new Set());
  productId = $state<string>(NEW_PRODUCT);
  name = $state('');
  source = $state('');
  isOfficial = $state(true);

  readonly table = $derived(this.tables[this.at]);
  readonly known = $derived(draft.current?.products.find((p) => p.id === this.productId));
  readonly sourceId = $derived(freeId(this.source.trim() || 'table', new Set()));
  readonly ground = $derived<TableGround>(groundIn(draft.current, this.known ?? this.#fresh()));
  readonly changes = $derived<readonly TableChange[]>(this.one?.taken.changes ?? []);
  /** Only a table of releases makes a product of its own. */
  readonly needsProduct = $derived(this.known === undefined && this.one?.kind !== 'life cycle');
  readonly asksOrder = $derived(
    this.one !== undefined && this.one.about.order === undefined && this.one.taken.needsOrder === true
  );
  readonly mayTake = $derived(
    this.changes.some((c) => c.kind === 'new' || c.kind === 'changed') &&
      !this.asksOrder &&
      !this.needsProduct &&
      (this.known !== undefined || this.name.trim() !== '')
  );

  /** Reads what was pasted, dropped or chosen. `called`: what it is called where its tables have no titles. */
  async take(bytes: Uint8Array, called: string): Promise<void> {
    this.isReading = true;
    try {
      await draft.open();
      const read = await desk.files.call((w) => w.publishedTables(bytes));
      const known = (draft.current?.products ?? []).flatMap((p) => [p.name, ...(p.aliases ?? [])]);
      this.tables = read.ok ? read.value.flatMap((t) => partByProduct(shortened(t), known)) : [];
      this.issues = read.ok ? [] : read.issues;
      this.done = new Set();
      this.source = called;
      this.pick(0);
    } finally {
      this.isReading = false;
    }
  }

  pick(at: number): void {
    this.at = at;
    const table = this.tables[at];
    if (!table) {
      this.one = undefined;
      return;
    }
    if (table.title !== '') this.source = table.title.slice(0, 200);
    const reads = this.#memory();
    const found =
      draft.current?.products.find((p) => p.id === reads?.product) ??
      productNamedIn(draft.current, `${table.title} ${table.head.join(' ')}`);
    this.productId = found?.id ?? NEW_PRODUCT;
    this.name = found ? '' : table.title.slice(0, 200);
    this.one = new OneTable(
      table,
      () => ({ ground: this.ground, title: this.source.trim(), source: this.sourceId }),
      () => this.#memory()
    );
  }

  /** Puts it into the draft, and goes on to the next. Why it could not be done; nothing where it was. */
  async put(): Promise<readonly Issue[]> {
    const { one, known, sourceId } = this;
    if (!one) return [];
    const title = this.source.trim() || 'A table';
    const standing = this.isOfficial ? ('official' as const) : ('observed' as const);
    const fresh = this.#fresh();
    const { reading, kind } = one;
    const texts = kind === 'life cycle' ? installedTexts() : [];
    const issues = await draft.revise(`the table “${title}”`, (catalogue): Catalogue => {
      const own = catalogue.products.find((p) => p.id === known?.id);
      const id = own?.id ?? freeId(fresh.name, new Set(catalogue.products.map((p) => p.id)));
      const taken = TABLE_READERS[kind].take(reading, groundIn(catalogue, own ?? { ...fresh, id }));
      const product = placeTexts(taken.product, texts);
      const sources = catalogue.sources ?? [];
      const source = {
        ...(sources.find((s) => s.id === sourceId) ?? { id: sourceId, title, standing }),
        standing,
        read: formatDay(desk.today),
        reads: one.reads(id)
      };
      return {
        ...catalogue,
        sources: [...sources.filter((s) => s.id !== sourceId), source],
        ...(taken.lists.length > 0 ? { lists: [...taken.lists] } : {}),
        products: own
          ? catalogue.products.map((p) => (p.id === own.id ? product : p))
          : [...catalogue.products, product]
      };
    });
    if (issues.length > 0) return issues;
    this.done = new Set([...this.done, this.at]);
    const next = this.tables.findIndex((_, i) => !this.done.has(i));
    if (next >= 0) this.pick(next);
    return [];
  }

  /** Nothing of what was read is left to be put in. */
  get isDone(): boolean {
    return this.tables.length > 0 && this.done.size === this.tables.length;
  }

  #memory(): Source['reads'] {
    return draft.current?.sources?.find((s) => s.id === this.sourceId)?.reads;
  }

  #fresh(): Product {
    const name = this.name.trim() || 'A product';
    return { id: freeId(name, new Set()), name, publisher: 'not known', releases: [], hopTable: 'partial' };
  }
}

/** No page of a publisher is longer; a list of machines that was pasted by mistake is. */
const MOST_ROWS = 5000;
export const shortened = (table: PublishedTable): PublishedTable =>
  table.rows.length <= MOST_ROWS
    ? table
    : {
        ...table,
        title: `${table.title} (its first ${MOST_ROWS} rows)`.trim(),
        rows: table.rows.slice(0, MOST_ROWS)
      };

const groundIn = (catalogue: Catalogue | undefined, product: Product): TableGround => ({
  product,
  lists: catalogue?.lists ?? [],
  facts: catalogue?.facts ?? []
});

/** What machines say they run where no release of theirs is known. */
const installedTexts = (): string[] => [
  ...new Set(
    desk.estate.systems.flatMap((s) => {
      const text = s.installedText?.trim() ?? '';
      return text === '' || 'is' in s.release ? [] : [text];
    })
  )
];

/** How many systems stand on a release. */
export const standingOn = (product: string, release: string): number =>
  desk.estate.systems.filter(
    (s) => 'is' in s.product && s.product.is === product && 'is' in s.release && s.release.is === release
  ).length;
