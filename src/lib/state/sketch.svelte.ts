import {
  applyDateTable,
  type Catalogue,
  clusterTexts,
  type DateTable,
  fillHops,
  freeId,
  type HopSentence,
  type HopSketch,
  intoReleases,
  joinSketches,
  NO_NAME,
  parseDateTable,
  type Product,
  productOfSketch,
  type ProductSketch,
  type ReleaseSketch,
  sketchOf,
  splitText
} from '$core/catalogue';
import { formatDay, parseMessyDate } from '$core/date';
import { foldText } from '$core/version';
import type { Issue } from '$core/kit';
import { readAside } from '$lib/storage/change-log';
import { desk } from './desk.svelte';
import { draft } from './draft.svelte';
import { LateSave } from './late-save';

const SOURCE = 'own-machines';
type Order = 'day first' | 'month first';

/** Products in the making. The one writer of the sketches; what is typed here outlives a reload. */
class Sketches {
  list = $state.raw<readonly ProductSketch[]>([]);
  /** Names of those that are left out. */
  left = $state.raw<ReadonlySet<string>>(new Set([NO_NAME]));
  dates = $state('');
  order = $state<Order | undefined>();
  loaded = $state(false);
  past = $state.raw<readonly (readonly ProductSketch[])[]>([]);
  future = $state.raw<readonly (readonly ProductSketch[])[]>([]);

  readonly chosen = $derived(this.list.filter((s) => !this.left.has(s.name)));
  readonly table = $derived<DateTable>(parseDateTable(this.dates, this.list, this.order));
  readonly machines = $derived(this.chosen.reduce((n, s) => n + machinesOf(s), 0));

  readonly #late = new LateSave<{ list: readonly ProductSketch[]; dates: string }>('sketch', 'The sketch');

  /** What was typed is not kept yet. */
  get isStoring(): boolean {
    return this.#late.isWaiting;
  }

  /** Gathers what the machines run; what was sketched before of the same names is kept. */
  async open(): Promise<void> {
    const kept = ((await readAside('sketch')) ?? {}) as { list?: ProductSketch[]; dates?: string };
    const known = new Map(
      (kept.list ?? []).flatMap((s) =>
        [s.name, ...s.spellings].map((n): [string, ProductSketch] => [foldText(n), s])
      )
    );
    const found = clusterTexts(desk.estate.systems).map(sketchOf);
    const merged = new Map<string, ProductSketch>();
    for (const fresh of found) {
      const before = known.get(foldText(fresh.name));
      const name = before?.name ?? fresh.name;
      const joined = merged.get(name);
      merged.set(name, joined ? joinSketches(joined, fresh) : before ? refresh(before, fresh) : fresh);
    }
    this.list = [...merged.values()];
    this.dates = kept.dates ?? '';
    this.loaded = true;
  }

  setDates(text: string): void {
    this.dates = text;
    this.#save();
  }

  setOrder(order: Order): void {
    this.order = order;
  }

  /** Takes the dates of the lines that were understood. */
  takeDates(): void {
    this.#set(applyDateTable(this.list, this.table));
  }

  leave(name: string, out: boolean): void {
    const left = new Set(this.left);
    if (out) left.add(name);
    else left.delete(name);
    this.left = left;
  }

  /** A new name; one that another has already joins the two. */
  rename(name: string, next: string): void {
    const clean = next.trim().replace(/\s+/g, ' ');
    if (clean === '' || clean === name) return;
    const self = this.list.find((s) => s.name === name);
    const other = this.list.find((s) => s.name !== name && foldText(s.name) === foldText(clean));
    if (!self) return;
    const renamed = { ...self, name: clean, spellings: [...new Set([...self.spellings, name])] };
    this.#set(
      other
        ? this.list.flatMap((s) => (s === self ? [] : s === other ? [joinSketches(other, renamed)] : [s]))
        : this.list.map((s) => (s === self ? renamed : s))
    );
  }

  change(name: string, change: Partial<ProductSketch>): void {
    this.#set(this.list.map((s) => (s.name === name ? { ...s, ...change } : s)));
  }

  move(name: string, label: string, by: -1 | 1): void {
    const sketch = this.list.find((s) => s.name === name);
    const i = sketch?.releases.findIndex((r) => r.label === label) ?? -1;
    const j = i + by;
    if (!sketch || i < 0 || j < 0 || j >= sketch.releases.length) return;
    const releases = [...sketch.releases];
    [releases[i], releases[j]] = [releases[j] as ReleaseSketch, releases[i] as ReleaseSketch];
    this.change(name, { releases, hops: sketch.hops.filter((h) => isForward(releases, h)) });
  }

  /** Adds a release no machine runs yet, behind the last. False where the label is there already. */
  add(name: string, label: string): boolean {
    const sketch = this.list.find((s) => s.name === name);
    const clean = label.trim();
    if (!sketch || clean === '' || sketch.releases.some((r) => foldText(r.label) === foldText(clean)))
      return false;
    this.change(name, {
      releases: [...sketch.releases, { label: clean, texts: [], rests: [], systems: [] }]
    });
    return true;
  }

  /** Sets a day from text in any form; false where it is no date. Empty takes it away. */
  setDay(name: string, label: string, field: 'published' | 'ends', text: string): boolean {
    const sketch = this.list.find((s) => s.name === name);
    const read = text.trim() === '' ? undefined : parseMessyDate(text);
    if (!sketch || (text.trim() !== '' && !read)) return false;
    const day = read && (this.order === 'month first' ? (read.also ?? read.text) : read.text);
    const releases = sketch.releases.map((r): ReleaseSketch => {
      if (r.label !== label) return r;
      const { [field]: _old, ...rest } = r;
      void _old;
      return day === undefined ? rest : { ...rest, [field]: day };
    });
    this.change(name, { releases });
    return true;
  }

  /** The hops of products as a sentence says them; none without one. */
  fill(names: readonly string[], sentence?: HopSentence): void {
    this.#set(
      this.list.map((s) =>
        names.includes(s.name) ? { ...s, hops: sentence ? fillHops(s.releases, sentence) : [] } : s
      )
    );
  }

  /** Puts tables into products, in one step. */
  apply(changes: ReadonlyMap<string, (sketch: ProductSketch) => ProductSketch>): void {
    this.#set(this.list.map((s) => changes.get(s.name)?.(s) ?? s));
  }

  /** Nothing, in place, fresh install, and round again. */
  turn(name: string, from: string, to: string): void {
    const sketch = this.list.find((s) => s.name === name);
    if (!sketch) return;
    const now = sketch.hops.find((h) => h.from === from && h.to === to);
    const others = sketch.hops.filter((h) => h !== now);
    const kind = now === undefined ? 'in place' : now.kind === 'in place' ? 'fresh install' : undefined;
    this.change(name, { hops: kind === undefined ? others : [...others, { from, to, kind }] });
  }

  undo(): void {
    const before = this.past[this.past.length - 1];
    if (!before) return;
    this.past = this.past.slice(0, -1);
    this.future = [...this.future, this.list];
    this.list = before;
    this.#save();
  }

  redo(): void {
    const next = this.future[this.future.length - 1];
    if (!next) return;
    this.future = this.future.slice(0, -1);
    this.past = [...this.past, this.list];
    this.list = next;
    this.#save();
  }

  /** Makes the chosen sketches products of the catalogue and places the machines, as one change. Issues where it cannot be done. */
  async make(): Promise<readonly Issue[]> {
    const { chosen } = this;
    const issues = await draft.revise(`Made ${chosen.map((s) => s.name).join(', ')}`, (c) =>
      withProducts(c, chosen, desk.today)
    );
    if (issues.length > 0) return issues;
    if (!(await draft.keep(nameBare(chosen, draft.current)))) return draft.issues;
    await this.#late.forget();
    this.list = [];
    this.past = [];
    this.dates = '';
    return [];
  }

  #set(list: readonly ProductSketch[]): void {
    this.past = [...this.past.slice(-200), this.list];
    this.future = [];
    this.list = list;
    this.#save();
  }

  #save(): void {
    this.#late.save(() => ({ list: structuredClone(this.list), dates: this.dates }));
  }
}

/** Machines that run a release, at any patch level. */
export const machinesOn = (release: ReleaseSketch): number =>
  release.systems.length + (release.patches ?? []).reduce((n, p) => n + p.systems.length, 0);

const machinesOf = (sketch: ProductSketch): number => sketch.releases.reduce((n, r) => n + machinesOn(r), 0);

const isForward = (releases: readonly ReleaseSketch[], hop: HopSketch): boolean =>
  releases.findIndex((r) => r.label === hop.from) < releases.findIndex((r) => r.label === hop.to);

/** What was sketched, with the machines there are now: where a table says what releases there are, in those. */
function refresh(before: ProductSketch, fresh: ProductSketch): ProductSketch {
  const empty = before.releases.map((r) => ({ ...r, systems: [], texts: [], patches: [] }));
  const names = [before.name, ...before.spellings];
  const isListed = before.releases.some((r) => r.table !== undefined);
  const { releases, kept } = isListed
    ? intoReleases(empty, fresh.releases, names)
    : { releases: empty, kept: fresh.releases };
  const joined = joinSketches({ ...before, releases }, { ...fresh, releases: [...kept] });
  return { ...joined, hops: before.hops, withEditions: before.withEditions };
}

/** The products of machines that give a version and no product, as somebody has said. */
function nameBare(
  sketches: readonly ProductSketch[],
  catalogue: Catalogue | undefined
): ReadonlyMap<string, string> {
  const texts = new Map(desk.estate.systems.map((s) => [s.id, s.installedText ?? '']));
  return new Map(
    sketches.flatMap((sketch) => {
      const id = catalogue?.products.find((p) => p.name === sketch.name)?.id;
      const systems = sketch.releases.flatMap((r) => [
        ...r.systems,
        ...(r.patches ?? []).flatMap((p) => p.systems)
      ]);
      return id === undefined
        ? []
        : systems
            .filter((s) => splitText(texts.get(s) ?? '').name === '')
            .map((s): [string, string] => [s, id]);
    })
  );
}

function withProducts(catalogue: Catalogue, sketches: readonly ProductSketch[], today: number): Catalogue {
  const taken = new Set(catalogue.products.map((p) => p.id));
  const made: Product[] = [];
  const sources = catalogue.sources ?? [];
  const hasSource = sources.some((s) => s.id === SOURCE);
  const titles = [...new Set(sketches.flatMap((s) => s.releases.flatMap((r) => r.table ?? [])))];
  const ids = new Set([...sources.map((s) => s.id), SOURCE]);
  const tables = new Map<string, string>();
  for (const title of titles) {
    const known = sources.find((s) => s.title === title)?.id;
    const id = known ?? freeId(title, ids);
    ids.add(id);
    tables.set(title, id);
  }
  for (const sketch of sketches) {
    const product = productOfSketch(sketch, taken, SOURCE, tables);
    taken.add(product.id);
    made.push(product);
  }
  const day = formatDay(today);
  const source = {
    id: SOURCE,
    title: 'Entered from what the machines say',
    standing: 'observed' as const,
    written: day,
    entered: day
  };
  return {
    ...catalogue,
    sources: [
      ...(hasSource ? sources : [...sources, source]),
      ...[...tables]
        .filter(([, id]) => !sources.some((s) => s.id === id))
        .map(([title, id]) => ({ id, title, standing: 'official' as const, read: day }))
    ],
    products: [...catalogue.products, ...made]
  };
}

export const sketches = new Sketches();
