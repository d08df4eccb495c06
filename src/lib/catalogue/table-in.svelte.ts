import {
  type Catalogue,
  type CellMeaning,
  type ColumnRole,
  type DateOrder,
  freeId,
  type HopChange,
  type HopGrid,
  type LifeCycle,
  type Product,
  readHopGrid,
  readLifeCycle,
  type ReleaseChange,
  suggestColumns,
  suggestMeaning,
  takeHopGrid,
  takeLifeCycle
} from '$core/catalogue';
import { formatDay } from '$core/date';
import type { PublishedTable } from '$core/exchange';
import type { Issue } from '$core/kit';
import { foldText } from '$core/version';
import { desk } from '$lib/state/desk.svelte';
import { draft } from '$lib/state/draft.svelte';

/** A new product, in the choice of products. */
export const NEW_PRODUCT = '';

/** What a table is about. */
export type TableKind = 'life cycle' | 'hops';

/** A publisher's table on its way into the catalogue: what is in it, what its columns are, and what taking it would do. */
export class TableIn {
  tables = $state.raw<readonly PublishedTable[]>([]);
  issues = $state.raw<readonly Issue[]>([]);
  isReading = $state(false);
  at = $state(0);
  /** Columns a person has said something else of, by index. */
  #said = $state.raw<ReadonlyMap<number, ColumnRole>>(new Map());
  order = $state<DateOrder | undefined>();
  kind = $state<TableKind>('life cycle');
  /** A grid whose rows are what is arrived at. */
  isTurned = $state(false);
  /** What words of cells mean, as far as a person has said so; once for all tables of the sitting. */
  #meanings = $state.raw<ReadonlyMap<string, CellMeaning>>(new Map());
  productId = $state<string>(NEW_PRODUCT);
  name = $state('');
  source = $state('');
  isOfficial = $state(true);

  readonly table = $derived(this.tables[this.at]);
  readonly roles = $derived<readonly ColumnRole[]>(
    (this.table ? suggestColumns(this.table) : []).map((r, i) => this.#said.get(i) ?? r)
  );
  readonly known = $derived(draft.current?.products.find((p) => p.id === this.productId));
  readonly read = $derived<LifeCycle>(
    this.table
      ? readLifeCycle(this.table, this.roles, {
          names: [this.known?.name ?? this.name, ...(this.known?.aliases ?? [])].filter(
            (n) => n.trim() !== ''
          ),
          ...(this.order ? { order: this.order } : {})
        })
      : { rows: [], left: [], needsOrder: false }
  );
  readonly sourceId = $derived(freeId(this.source.trim() || 'table', new Set()));
  readonly grid = $derived<HopGrid | undefined>(
    this.table && readHopGrid(this.table, { names: this.#names(), isTurned: this.isTurned })
  );
  readonly meanings = $derived<ReadonlyMap<string, CellMeaning>>(
    new Map((this.grid?.words ?? []).map((w) => [w, this.#meanings.get(w) ?? suggestMeaning(w)]))
  );
  readonly hops = $derived<readonly HopChange[]>(
    this.known && this.grid
      ? takeHopGrid(this.known, this.grid, { meanings: this.meanings, source: this.sourceId }).changes
      : []
  );
  readonly taken = $derived(takeLifeCycle(this.known ?? this.#fresh(), this.read.rows, this.sourceId));
  readonly changes = $derived<readonly ReleaseChange[]>(this.taken.changes);
  readonly mayTake = $derived(
    this.kind === 'hops' ? this.hops.some((h) => h.kind === 'new') : this.#mayTakeLife()
  );

  #mayTakeLife(): boolean {
    return (
      this.read.rows.length > 0 &&
      (!this.read.needsOrder || this.order !== undefined) &&
      (this.known !== undefined || this.name.trim() !== '') &&
      this.changes.some((c) => c.kind === 'new' || c.kind === 'changed')
    );
  }

  /** Reads what was pasted, dropped or chosen. `called`: what it is called where its tables have no titles. */
  async take(bytes: Uint8Array, called: string): Promise<void> {
    this.isReading = true;
    try {
      await draft.open();
      const read = await desk.files.call((w) => w.publishedTables(bytes));
      this.tables = read.ok ? read.value : [];
      this.issues = read.ok ? [] : read.issues;
      this.pick(0);
      if (this.source.trim() === '') this.source = called;
    } finally {
      this.isReading = false;
    }
  }

  pick(at: number): void {
    this.at = at;
    this.#said = new Map();
    this.order = undefined;
    const title = this.tables[at]?.title ?? '';
    const found = productNamedIn(draft.current, `${title} ${this.tables[at]?.head.join(' ') ?? ''}`);
    this.productId = found?.id ?? NEW_PRODUCT;
    this.name = found ? '' : title.slice(0, 200);
    if (title !== '') this.source = title.slice(0, 200);
    this.isTurned = false;
    this.kind = this.grid ? 'hops' : 'life cycle';
  }

  /** Says what a column is; what another was said to be of the same is left out. */
  say(column: number, role: ColumnRole): void {
    const said = new Map(this.#said);
    if (role !== 'left out')
      for (const [i, r] of this.roles.entries()) if (r === role && i !== column) said.set(i, 'left out');
    said.set(column, role);
    this.#said = said;
  }

  /** Says what a word of a grid's cells means. */
  mean(word: string, meaning: CellMeaning): void {
    this.#meanings = new Map(this.#meanings).set(word, meaning);
  }

  /** Puts it into the draft. Why it could not be done; nothing where it was. */
  put(): Promise<readonly Issue[]> {
    const { known, sourceId } = this;
    const { rows } = this.read;
    const title = this.source.trim() || 'A table';
    const standing = this.isOfficial ? ('official' as const) : ('observed' as const);
    const fresh = this.#fresh();
    const { kind, grid, meanings } = this;
    const taken = (of: Product): Product =>
      kind === 'hops' && grid
        ? takeHopGrid(of, grid, { meanings, source: sourceId }).product
        : takeLifeCycle(of, rows, sourceId).product;
    return draft.revise(`the table “${title}”`, (catalogue): Catalogue => {
      const own = catalogue.products.find((p) => p.id === known?.id);
      const id = own?.id ?? freeId(fresh.name, new Set(catalogue.products.map((p) => p.id)));
      const product = taken(own ?? { ...fresh, id });
      const sources = (catalogue.sources ?? []).filter((s) => s.id !== sourceId);
      return {
        ...catalogue,
        sources: [...sources, { id: sourceId, title, standing, read: formatDay(desk.today) }],
        products: own
          ? catalogue.products.map((p) => (p.id === own.id ? product : p))
          : [...catalogue.products, product]
      };
    });
  }

  #names(): readonly string[] {
    return [this.known?.name ?? this.name, ...(this.known?.aliases ?? [])].filter((n) => n.trim() !== '');
  }

  #fresh(): Product {
    const name = this.name.trim() || 'A product';
    return { id: freeId(name, new Set()), name, publisher: 'not known', releases: [], hopTable: 'partial' };
  }
}

/** The product whose name stands in a text; the longest of several. */
function productNamedIn(catalogue: Catalogue | undefined, text: string): Product | undefined {
  const folded = ` ${foldText(text)} `;
  const found = (catalogue?.products ?? []).flatMap((p) =>
    [p.name, ...(p.aliases ?? [])]
      .filter((n) => folded.includes(` ${foldText(n)} `))
      .map((n) => ({ p, length: n.length }))
  );
  return found.sort((a, b) => b.length - a.length)[0]?.p;
}
