import { type CasePlan, type Forecast, type GraceClock, graceClocks } from '$core/plan';
import { findRightQuestions } from '$core/ready';
import type { RightNeed, RightPool } from '$core/right';
import { isCounted } from '$core/route';
import { sayRightGroup } from '$core/wording';
import { Answer } from '$lib/state/answer.svelte';
import { desk } from '$lib/state/desk.svelte';
import { looker } from '$lib/state/looker.svelte';
import type { RightTread } from './tread-layout';

/** A step that costs nothing until a day: afterwards it may. */
export interface FreeUntil {
  readonly plan: CasePlan;
  readonly right: string;
  readonly kind: 'free' | 'carried';
  readonly until: number;
}

/** A clock that starts with the step of a case. */
export interface Clock extends GraceClock {
  readonly plan: CasePlan;
}

/** The rights of the plan on the desk as they are looked at: treads of units, and which of them is open. */
export class RightsState {
  readonly #at: () => string | null;

  /** @param at the group that is open; null: the first */
  constructor(at: () => string | null) {
    this.#at = at;
  }

  readonly currency = $derived(desk.catalogue?.currency ?? '');
  readonly #cases = $derived(
    new Map((desk.plan?.cases ?? []).flatMap((c) => c.systems.map((id): [string, CasePlan] => [id, c])))
  );
  readonly caseOfSystem = (system: string): CasePlan | undefined => this.#cases.get(system);

  /** What has to be bought first comes first, then what is drawn on, then what nobody draws on. */
  readonly treads = $derived.by((): readonly RightTread[] => {
    const pools = (desk.plan?.pools ?? []).filter((p) => !isAgreement(p)).map(withProduct);
    const groups = new Map<string, RightTread & { needs: RightNeed[] }>();
    const of = (group: string): RightTread & { needs: RightNeed[] } => {
      const known = groups.get(group) ?? { group, needs: [], pools: [] };
      groups.set(group, known);
      return known;
    };
    for (const need of desk.plan?.rights ?? []) of(need.group).needs.push(need);
    for (const pool of pools)
      groups.set(pool.group, { ...of(pool.group), pools: [...of(pool.group).pools, pool] });
    return [...groups.values()].sort(
      (a, b) => rankOf(a) - rankOf(b) || byOf(a) - byOf(b) || (a.group < b.group ? -1 : 1)
    );
  });
  /** What is held by agreement: a paper, no units. */
  readonly agreements = $derived((desk.plan?.pools ?? []).filter(isAgreement).map(withProduct));
  readonly open = $derived(this.treads.find((t) => t.group === this.#at()) ?? this.treads[0]);
  readonly buying = $derived((desk.plan?.rights ?? []).filter((r) => r.toBuy !== 0 || r.short > 0));
  readonly cents = $derived(this.buying.reduce((n, r) => n + r.least.costCents, 0));
  readonly unpriced = $derived(this.buying.filter((r) => r.costCents === 'unknown').length);
  readonly late = $derived(this.buying.filter((r) => r.by < desk.today).length);

  readonly freeUntil = $derived.by((): readonly FreeUntil[] =>
    (desk.plan?.cases ?? [])
      .flatMap((plan) =>
        (plan.goalPlan?.route?.steps ?? [])
          .filter(isCounted)
          .flatMap(({ right }): FreeUntil[] =>
            (right.kind === 'free' || right.kind === 'carried') &&
            right.until !== undefined &&
            right.right !== undefined
              ? [{ plan, right: right.right, kind: right.kind, until: right.until }]
              : []
          )
      )
      .sort((a, b) => a.until - b.until)
  );
  readonly toAsk = $derived(
    findRightQuestions(desk.plan?.cases ?? [], { products: desk.products, systems: desk.systems })
  );
  readonly clocks = $derived.by((): readonly Clock[] =>
    (desk.plan?.cases ?? [])
      .flatMap((plan) => {
        const rights = desk.products.get(plan.product ?? '')?.rights ?? [];
        const route = plan.goalPlan?.route;
        return route ? graceClocks(route, rights).map((clock): Clock => ({ ...clock, plan })) : [];
      })
      .sort((a, b) => (a.until ?? Infinity) - (b.until ?? Infinity))
  );
  readonly #forecasts = new Answer(
    () => (desk.plan && !desk.planner.progress ? [desk.plan] : undefined),
    () => looker.forecast()
  );

  /** What the systems of a tread would draw for what comes next. */
  forecastsOf({ needs, pools }: RightTread): readonly Forecast[] {
    const names = new Set([...needs.map((n) => n.pool), ...pools.map((p) => p.name)]);
    const editions = new Set([...needs, ...pools].map((n) => n.edition ?? ''));
    return (this.#forecasts.current ?? []).filter((f) => names.has(f.pool) && editions.has(f.edition));
  }

  /** Systems whose chosen way is made under a right. */
  madeUnder(right: string): number {
    return (desk.plan?.cases ?? [])
      .filter((c) => c.goalPlan?.route?.steps.some((s) => isCounted(s) && s.right.right === right))
      .reduce((n, c) => n + c.systems.length, 0);
  }

  nameOf(tread: RightTread): string {
    return sayRightGroup(tread.needs, tread.pools, desk.naming);
  }

  /** Products whose ways call for it, else under which it is held. */
  productsOf({ needs, pools }: RightTread): string {
    const ids = [...needs, ...pools].map((n) => n.product ?? '');
    return [...new Set(ids)]
      .filter(Boolean)
      .map((id) => desk.namesOfProduct(id).product)
      .join(', ');
  }

  /** Units of the same pool's name that belong to another edition: they must not be used. */
  othersOf({
    pools,
    needs,
    group
  }: RightTread): readonly { readonly name: string; readonly held: number | 'unknown' }[] {
    const product = (needs[0] ?? pools[0])?.product;
    return (desk.plan?.pools ?? [])
      .map(withProduct)
      .filter((p) => p.group !== group && p.isCounted && p.product === product)
      .map((p) => ({ name: sayRightGroup([], [p], desk.naming), held: p.held }));
  }
}

const isAgreement = ({ isCounted, right }: RightPool): boolean =>
  !isCounted &&
  (desk.catalogue?.products ?? []).some((p) =>
    p.rights?.some((r) => r.id === right && (r.kind === 'agreement' || r.kind === 'not for sale'))
  );

/** What is held of a right without a product named is of the product that publishes it. */
function withProduct(pool: RightPool): RightPool {
  const product =
    pool.product ?? desk.catalogue?.products.find((p) => p.rights?.some((r) => r.id === pool.right))?.id;
  return product === undefined ? pool : { ...pool, product };
}

const rankOf = ({ needs }: RightTread): number =>
  needs.length === 0 ? 2 : needs.some((n) => n.toBuy !== 0 || n.short > 0) ? 0 : 1;

const byOf = ({ needs }: RightTread): number => Math.min(...needs.map((n) => n.by), Infinity);
