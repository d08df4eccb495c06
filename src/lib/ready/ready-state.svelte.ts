import { formatDay } from '$core/date';
import { chooseRemedies, climbOf, LOSSES, payableOf, type ReadyItem, type Remedy } from '$core/ready';
import { desk } from '$lib/state/desk.svelte';
import { looker } from '$lib/state/looker.svelte';

/** What Ready shows: what stands in the way, what opens most, and what a budget would do. */
export class ReadyState {
  budgetText = $state('');
  /** Also what holds or is dealt with. */
  all = $state(false);

  readonly ready = $derived(looker.ready?.found);
  readonly currency = $derived(desk.catalogue?.currency ?? '');
  readonly #list = $derived(this.ready?.remedies ?? []);
  readonly remedies = $derived(new Map(this.#list.map((r) => [r.key, r])));
  readonly budget = $derived(readBudget(this.budgetText));
  readonly choice = $derived(
    this.ready && this.budget !== undefined
      ? chooseRemedies(payableOf(this.#list), this.ready.wants, this.budget)
      : undefined
  );
  readonly treads = $derived(
    this.ready
      ? climbOf(
          payableOf(this.#list),
          this.ready.wants,
          new Set(this.choice?.chosen ?? this.#list.map((r) => r.key))
        )
      : []
  );
  /** Systems opened by what is spent in all, cents: every tread of the climb. */
  readonly curve = $derived(
    this.ready
      ? climbOf(payableOf(this.#list), this.ready.wants, new Set(this.#list.map((r) => r.key))).map(
          (t): [number, number] => [t.spentCents, t.opened]
        )
      : []
  );
  readonly bought = $derived(
    (this.choice?.chosen ?? [])
      .flatMap((key) => this.remedies.get(key) ?? [])
      .filter((r) => r.costCents !== 0)
  );
  readonly wanting = $derived((this.ready?.wants ?? []).reduce((n, w) => n + w.systems, 0));
  /** Systems of which nothing is known to be in the way, since not even a way is known. */
  readonly untold = $derived(
    (this.ready?.cases ?? [])
      .filter((c) => c.verdict === 'cannot tell' && !this.ready?.wants.some((w) => w.case === c.id))
      .reduce((n, c) => n + c.systems.length, 0)
  );
  /** Of those on their way: a price on it is not known. */
  readonly unpriced = $derived(
    (desk.plan?.cases ?? [])
      .filter((c) => (c.goalPlan?.route?.unknownSums.length ?? 0) > 0)
      .reduce((n, c) => n + c.systems.length, 0)
  );
  readonly hasErrands = $derived(
    (this.ready?.fetch.length ?? 0) > 0 || (this.ready?.rights.some((r) => r.toBuy !== 0) ?? false)
  );
  readonly asIs = $derived(this.treads[0]?.opened ?? 0);
  readonly forNothing = $derived(this.treads.findLast((t) => t.spentCents === 0)?.opened ?? 0);
  readonly opening = $derived(
    this.#list.filter((r) => r.costCents !== 0 && r.opensAlone > 0 && r.kind !== 'perhaps')
  );
  /** Never bought before it is asked about. */
  readonly perhaps = $derived(this.#list.filter((r) => r.kind === 'perhaps'));
  readonly free = $derived(
    this.#list.filter(
      (r) => r.costCents === 0 && r.opensAlone > 0 && !['first', 'decision', 'perhaps'].includes(r.kind)
    )
  );
  readonly decisions = $derived(this.#list.filter((r) => r.kind === 'decision'));
  /** Cases whose chosen way installs afresh. */
  readonly afresh = $derived(
    (desk.plan?.cases ?? []).filter((c) => c.goalPlan?.route?.steps.some((s) => s.kind === 'fresh install'))
  );
  readonly inForce = $derived(
    desk.estate.decisions.filter((d) => d.until === undefined || d.until >= formatDay(desk.today)).length
  );
  readonly asked = $derived(this.ready?.questions[0]);
  /** By what is lost, each with the place of its first line among all of them. */
  readonly groups = $derived.by(() => {
    const shown = (this.ready?.items ?? []).filter((i) => this.all || i.open > 0);
    let first = 0;
    return LOSSES.flatMap((loss) => {
      const items = shown.filter((i) => i.loss === loss);
      const group = { loss, items, first };
      first += items.length;
      return items.length > 0 ? [group] : [];
    });
  });
}

/** Whole or decimal amounts of the catalogue's currency; undefined where it is none. */
function readBudget(text: string): number | undefined {
  const clean = text.replace(/[\s,']/g, '');
  return /^\d{1,10}(\.\d{1,2})?$/.test(clean) ? Math.round(Number(clean) * 100) : undefined;
}

/** Systems for which it fails, or is unknown, with nothing that deals with it. */
export const countOpen = (item: ReadyItem, mark: 'fails' | 'unknown'): number =>
  item.cells
    .filter((c) => c.mark === mark && c.dealt === undefined)
    .reduce((n, c) => n + c.systems.length, 0);

/** The product a remedy belongs to, where its words do not say so. */
export const productOf = ({ kind, product }: Remedy): string =>
  kind === 'cure' || kind === 'right' ? `, ${desk.namesOfProduct(product).product}` : '';
