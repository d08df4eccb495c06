import type { ComponentOrder, Order } from '$core/order';
import type { Plan } from '$core/plan';
import { desk } from './desk.svelte';
import { looker } from './looker.svelte';

/** Larger estates are put in order when somebody goes there. */
const MOST_SYSTEMS = 20_000;

/** Where a system stands in the order: its component, and the index of its part. */
export interface InOrder {
  readonly order: ComponentOrder;
  readonly part: number;
}

/** The order of what is on the desk, found once for every place that shows something of it. */
class OrderingState {
  #found = $state.raw<{ readonly of: Plan; readonly order: Order } | undefined>();
  #asked: { readonly of: Plan; readonly answer: Promise<Order | undefined> } | undefined;

  readonly current = $derived(this.#found?.of === desk.plan ? this.#found?.order : undefined);
  readonly #bySystem = $derived(
    new Map(
      (this.current?.components ?? []).flatMap((order) =>
        order.parts.flatMap((p, part) => p.systems.map((s): [string, InOrder] => [s, { order, part }]))
      )
    )
  );

  /** Where a system that hangs on others stands in the order; undefined before it is found. */
  of(system: string | undefined): InOrder | undefined {
    const found = system === undefined ? undefined : this.#bySystem.get(system);
    return found?.order.isSingle ? undefined : found;
  }

  /** The order, found now or before; undefined where something else took its place. */
  ask(): Promise<Order | undefined> {
    const of = desk.plan;
    if (!of) return Promise.resolve(undefined);
    if (this.#found?.of === of) return Promise.resolve(this.#found.order);
    if (this.#asked?.of === of) return this.#asked.answer;
    const answer = looker.order().then((order) => {
      if (order) this.#found = { of, order };
      if (this.#asked?.of === of) this.#asked = undefined;
      return order;
    });
    this.#asked = { of, answer };
    return answer;
  }

  /** Finds it while a page is shown that wants it, where anything hangs on anything. Called while the page is set up. */
  follow(isWanted: () => boolean = () => true): void {
    $effect(() => {
      const { plan, estate } = desk;
      if (!isWanted() || !plan || desk.planner.progress || estate.systems.length > MOST_SYSTEMS) return;
      if (estate.systems.some((s) => (s.links?.length ?? 0) > 0)) void this.ask();
    });
  }
}

export const ordering = new OrderingState();
