import {
  applyHopGrid,
  applyLifeCycle,
  type CellMeaning,
  type ColumnRole,
  type DateOrder,
  emptyCatalogue,
  fallInto,
  NO_NAME,
  partByProduct,
  productNamedIn,
  productOfSketch,
  type ProductSketch,
  readHopGrid,
  readLifeCycle,
  type TableGround
} from '$core/catalogue';
import type { PublishedTable } from '$core/exchange';
import type { Issue } from '$core/kit';
import { desk } from '$lib/state/desk.svelte';
import { sketches } from '$lib/state/sketch.svelte';
import { OneTable } from './one-table.svelte';
import { shortened } from './table-in.svelte';

/** A publisher's table beside products in the making. */
export class SketchTable {
  /** Name of the product it is of; empty where nobody knows. */
  to = $state('');
  readonly one: OneTable;
  readonly sketch = $derived(sketches.list.find((s) => s.name === this.to));

  constructor(readonly table: PublishedTable) {
    this.to = productOf(table);
    this.one = new OneTable(table, () => ({
      ground: groundOf(this.sketch),
      title: table.title,
      source: 'table'
    }));
  }

  /** What is not of releases is taken into the catalogue once there is one. */
  readonly isForLater = $derived.by(() => this.one.kind !== 'life cycle' && this.one.kind !== 'hops');
  readonly isReady = $derived.by(
    () =>
      this.sketch !== undefined && !this.isForLater && this.putInto(this.sketch).taken > 0 && !this.asksOrder
  );
  readonly asksOrder = $derived.by(
    () =>
      this.one.kind === 'life cycle' &&
      this.one.about.order === undefined &&
      this.one.taken.needsOrder === true
  );

  /** The sketch with the table, and how many of its rows or pairs were taken. */
  putInto(sketch: ProductSketch): { readonly sketch: ProductSketch; readonly taken: number } {
    const names = namesOf(sketch);
    const { one, table } = this;
    const order: DateOrder | undefined = one.about.order;
    if (one.kind === 'life cycle') {
      const { rows } = readLifeCycle(table, one.roles as readonly ColumnRole[], {
        names,
        ...(order ? { order } : {})
      });
      const called = table.title || `Releases of ${sketch.name}`;
      return { sketch: applyLifeCycle(sketch, rows, called), taken: rows.length };
    }
    const grid = readHopGrid(table, { names, isTurned: one.about.isTurned === true });
    return grid
      ? applyHopGrid(sketch, grid, one.meanings as ReadonlyMap<string, CellMeaning>)
      : { sketch, taken: 0 };
  }
}

/** Publishers' tables on their way into products in the making. */
export class SketchTables {
  list = $state.raw<readonly SketchTable[]>([]);
  issues = $state.raw<readonly Issue[]>([]);
  isReading = $state(false);

  readonly ready = $derived(this.list.filter((t) => t.isReady));

  /** Reads what was pasted or given; true where it has tables with headings. */
  async read(bytes: Uint8Array): Promise<boolean> {
    this.isReading = true;
    try {
      const read = await desk.files.call((w) => w.publishedTables(bytes));
      const known = sketches.list.flatMap((s) => namesOf(s));
      const tables = (read.ok ? read.value : [])
        .filter((t) => t.head.some((h) => h !== ''))
        .flatMap((t) => partByProduct(shortened(t), known));
      this.issues = read.ok ? [] : read.issues;
      this.list = [...this.list, ...tables.map((t) => new SketchTable(t))];
      return tables.length > 0;
    } finally {
      this.isReading = false;
    }
  }

  /** Puts all that are ready into their products, releases before hops, as one step that can be undone. */
  takeAll(): void {
    const { ready } = this;
    const inTurn = [...ready].sort((a, b) => Number(a.one.kind === 'hops') - Number(b.one.kind === 'hops'));
    const changes = new Map<string, (sketch: ProductSketch) => ProductSketch>();
    for (const table of inTurn) {
      const before = changes.get(table.to);
      changes.set(table.to, (s) => table.putInto(before ? before(s) : s).sketch);
    }
    sketches.apply(changes);
    this.list = this.list.filter((t) => !ready.includes(t));
  }

  drop(table: SketchTable): void {
    this.list = this.list.filter((t) => t !== table);
  }
}

const namesOf = (sketch: ProductSketch): string[] =>
  [sketch.name, ...sketch.spellings].filter((n) => n !== NO_NAME && n.trim() !== '');

/** The product a table is of: the one it names, else the one most of whose releases it has, where it is one alone. */
function productOf(table: PublishedTable): string {
  const catalogue = {
    ...emptyCatalogue(),
    products: sketches.list.map((s) => ({ ...productOfSketch(s, new Set(), 'x'), name: s.name }))
  };
  const named = productNamedIn(catalogue, `${table.title} ${table.head.join(' ')}`);
  if (named) return named.name;
  const { rows } = readLifeCycle(table, new OneTable(table, () => NOWHERE).roles as readonly ColumnRole[]);
  const scores = sketches.list
    .filter((s) => s.name !== NO_NAME)
    .map((s) => ({
      name: s.name,
      found:
        s.releases.filter((r) => fallInto(r.label, rows, namesOf(s)) !== undefined).length / s.releases.length
    }))
    .sort((a, b) => b.found - a.found);
  const [first, second] = scores;
  return first && first.found > 0.5 && (second === undefined || second.found < first.found) ? first.name : '';
}

const NOBODY: TableGround = {
  product: { id: 'x', name: '', publisher: '', releases: [], hopTable: 'partial' },
  lists: [],
  facts: []
};
const NOWHERE = { ground: NOBODY, title: '', source: 'x' };

const groundOf = (sketch: ProductSketch | undefined): TableGround =>
  sketch ? { ...NOBODY, product: productOfSketch(sketch, new Set(), 'x') } : NOBODY;
