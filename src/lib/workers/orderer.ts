import type { Change } from '$core/estate';
import type { Result } from '$core/kit';
import { type Order, orderOf } from '$core/order';
import { planWith, type Waiting, waitOut } from '$core/plan';
import { planningWith } from '$core/what-if';
import { type LookProgress, paced } from './paced';
import { Planner, type PlanOrder } from './planner';

/** What is looked at: an order with a number that is another whenever the plan on the desk is. */
export interface LookOrder extends PlanOrder {
  readonly stamp: number;
}

type Tell = (progress: LookProgress) => void;
type Last = NonNullable<Planner['last']>;

/**
 * Finds orders across systems, and what waiting costs: searches that may take long without a pause, so on a worker of their own, with a
 * copy of what is stored and a plan of it. A newer order ends an older one at its next pause; the older answers `superseded`.
 */
export class Orderer {
  readonly #planner = new Planner();
  #stamp = -1;
  #planned: Promise<Result<Last>> | undefined;
  #run = 0;

  /** What waiting costs: the chosen ways laid anew from each day of a year, of the cases named or of all. */
  async wait(order: LookOrder, only: readonly string[] | undefined, tell: Tell): Promise<Result<Waiting>> {
    const isOver = this.#begin();
    const last = await this.#upToDate(order, tell);
    if (!last.ok) return last;
    const { planning, plan } = last.value;
    return paced(waitOut(planning, plan, only ? { only: new Set(only) } : {}), { tell, isOver });
  }

  /** In which sequence everything that hangs on each other is changed. */
  async order(order: LookOrder, tell: Tell): Promise<Result<Order>> {
    const isOver = this.#begin();
    const last = await this.#upToDate(order, tell);
    return last.ok ? paced(orderOf(last.value.planning, last.value.plan.cases), { tell, isOver }) : last;
  }

  /** The same with changes made on a copy. */
  async orderWith(order: LookOrder, changes: readonly Change[], tell: Tell): Promise<Result<Order>> {
    const isOver = this.#begin();
    const last = await this.#upToDate(order, tell);
    if (!last.ok) return last;
    const { catalogue, estate, today } = last.value.planning;
    const changed = planningWith({ catalogue, estate, today }, changes);
    const planned = await paced(planWith(changed, 'goal', this.#planner.cache), { tell, isOver });
    return planned.ok ? paced(orderOf(changed, planned.value.cases), { tell, isOver }) : planned;
  }

  #begin(): () => boolean {
    const run = ++this.#run;
    return () => run !== this.#run;
  }

  /** Two who ask for the same plan wait for the same one. */
  #upToDate({ stamp, ...order }: LookOrder, tell: Tell): Promise<Result<Last>> {
    if (stamp === this.#stamp && this.#planned) return this.#planned;
    this.#stamp = stamp;
    this.#planned = this.#planner.plan(order, tell).then((planned): Result<Last> => {
      const { last } = this.#planner;
      if (planned.ok && last) return { ok: true, value: last };
      if (stamp === this.#stamp) this.#planned = undefined;
      return planned.ok ? { ok: false, issues: [{ code: 'superseded' }] } : planned;
    });
    return this.#planned;
  }
}
