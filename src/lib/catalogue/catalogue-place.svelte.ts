import { copyRelease, findUnlisted, findUnmatched, listRelease } from '$core/catalogue';
import { modelOf } from '$core/compile';
import { desk } from '$lib/state/desk.svelte';
import { draft, sayIssues } from '$lib/state/draft.svelte';
import { DEMANDS, type EntryPath, SHARED, TERMS, withNewProduct } from './entries';
import { countInstalled } from './installed';

export const VIEWS = [
  ['table', 'Table'],
  ['calendar', 'Calendar'],
  ['demands', 'Demands'],
  ['terms', 'Rights and terms'],
  ['sources', 'Sources'],
  ['text', 'Text'],
  ['amiss', 'Amiss']
] as const;
export type View = (typeof VIEWS)[number][0];

/** Views of the whole catalogue, not of a product. */
const WHOLE: readonly View[] = ['text', 'amiss', 'sources'];
/** Views that are lists of entries, each with the lists it shows. */
const LISTS = [
  ['demands', DEMANDS],
  ['terms', TERMS],
  ['sources', SHARED]
] as const;

/** Where the address says one is. */
export interface At {
  readonly product: string | null;
  readonly view: string | null;
}

/** The Catalogue place: which product in which view, and what of it is picked to be changed. */
export class CataloguePlace {
  /** The picked cell of the table, as `FROM>TO`. */
  cell = $state('');
  /** The picked release of the calendar. */
  release = $state('');
  entry = $state.raw<{ readonly path: EntryPath; readonly one: string } | undefined>();
  /** The line of the text to go to. */
  line = $state(0);
  fault = $state('');
  readonly #at: () => At;
  readonly #go: (view: View, product: string | undefined) => void;

  /**
   * @param at where the address says one is
   * @param go makes the address say another place
   */
  constructor(at: () => At, go: (view: View, product: string | undefined) => void) {
    this.#at = at;
    this.#go = go;
  }

  readonly catalogue = $derived(draft.current);
  readonly product = $derived.by(() => {
    const chosen = this.#at().product;
    return this.catalogue?.products.find((p) => p.id === chosen) ?? this.catalogue?.products[0];
  });
  readonly view = $derived.by((): View => VIEWS.find(([v]) => v === this.#at().view)?.[0] ?? 'table');
  /** The product's place in the catalogue. */
  readonly at = $derived(this.product ? (this.catalogue?.products.indexOf(this.product) ?? 0) : 0);
  readonly isWhole = $derived(WHOLE.includes(this.view));
  readonly model = $derived(this.product && modelOf(this.product));
  readonly installed = $derived(countInstalled(desk.estate.systems, this.product?.id));
  readonly unlisted = $derived(this.product ? findUnlisted(desk.estate.systems, this.product) : []);
  readonly unmatched = $derived(findUnmatched(desk.estate.systems).length);
  readonly shownRelease = $derived(this.product?.releases.find((r) => r.id === this.release));
  readonly releaseAt = $derived(this.product?.releases.findIndex((r) => r.id === this.release) ?? -1);
  readonly lineAt = $derived(this.product?.lines?.findIndex((l) => l.id === this.shownRelease?.line) ?? -1);
  readonly ends = $derived.by(() => {
    const [from = '', to = ''] = this.cell.split('>');
    return { from, to };
  });
  readonly hasCell = $derived.by(() => {
    const known = this.model?.sequence.indexById;
    return known !== undefined && known.has(this.ends.from) && known.has(this.ends.to);
  });
  readonly showsCell = $derived(this.view === 'table' && this.hasCell);
  readonly showsRelease = $derived(this.view === 'calendar' && this.releaseAt >= 0);
  readonly showsEntry = $derived(
    this.entry !== undefined && (this.entry.path.length <= 2 || LISTS.some(([view]) => view === this.view))
  );
  readonly hasAside = $derived(draft.isOpen || this.showsCell || this.showsRelease || this.showsEntry);

  show(next: View, id = this.product?.id): void {
    this.entry = undefined;
    this.#go(next, id);
  }

  pick(path: EntryPath, one: string): void {
    this.entry = { path, one };
  }

  /** A release after the likeness of one. */
  async copy(id: string): Promise<void> {
    let made = '';
    const issues = await draft.revise(`new release after ${id}`, (c) => {
      const copied = this.product && copyRelease(this.product, id);
      if (!copied) return c;
      made = copied.release;
      return { ...c, products: c.products.map((p) => (p.id === this.product?.id ? copied.product : p)) };
    });
    this.fault = sayIssues(issues);
    if (made && issues.length === 0) this.release = made;
  }

  async makeProduct(): Promise<void> {
    let id = '';
    const issues = await draft.revise('new product', (c) => {
      const made = withNewProduct(c);
      id = made.id;
      return made.catalogue;
    });
    this.fault = sayIssues(issues);
    if (issues.length > 0) return;
    this.show('table', id);
    this.pick(['products', (draft.current?.products.length ?? 1) - 1], 'product');
  }

  /** A release for a text that machines of this product carry and the product does not list. */
  async list(text: string): Promise<void> {
    const issues = await draft.revise(`listed ${text}`, (c) => ({
      ...c,
      products: c.products.map((p) => (p.id === this.product?.id ? listRelease(p, text) : p))
    }));
    this.fault = sayIssues(issues);
  }

  /** Opens the place of a finding: its entry where a view shows it, else its line in the text. */
  goTo(path: readonly (string | number)[]): void {
    const isOfProduct = path[0] === 'products';
    const owner = isOfProduct ? this.catalogue?.products[Number(path[1])] : undefined;
    const list = isOfProduct ? path[2] : path[0];
    const entryPath = path.slice(0, isOfProduct ? 4 : 2);
    const shown = LISTS.find(([, lists]) => lists.some((l) => l.list === list));
    if (list === 'releases') {
      this.show('calendar', owner?.id);
      this.release = owner?.releases[Number(path[3])]?.id ?? '';
    } else if (list === 'hops' && path.length > 3 && owner) {
      const hop = owner.hops?.[Number(path[3])];
      const { releases, hopsFrom } = modelOf(owner);
      const first = releases.find((r) => hopsFrom[r.index]?.some((h) => h.hop.id === hop?.id));
      this.show('table', owner.id);
      this.cell = `${first?.release.id ?? ''}>${hop?.to ?? ''}`;
    } else if (shown && typeof entryPath.at(-1) === 'number') {
      this.show(shown[0], owner?.id);
      this.pick(entryPath, shown[1].find((l) => l.list === list)?.one ?? '');
    } else {
      this.show('text', owner?.id);
      void draft.lineOf(path).then((found) => (this.line = found ?? 0));
    }
  }
}
