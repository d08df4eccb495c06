import { compareOptions, type Option, type Side } from '$core/compare';
import { type Change, type Estate, type Goal, moveToTeam, type Target, type TeamMove } from '$core/estate';
import {
  type Explored,
  exploreSystem,
  type Forecast,
  forecastUnits,
  type GoalOutlook,
  goalOutlook,
  type Plan,
  type Planning,
  planWith,
  type Waiting,
  waitOut
} from '$core/plan';
import type { Result } from '$core/kit';
import { type Order, orderOf } from '$core/order';
import { gatherReady, type Ready, ReadyCache } from '$core/ready';
import { planningWith, type Tried, tryChanges } from '$core/what-if';
import { Planner, type PlanOrder } from './planner';

const PROGRESS_EVERY_MS = 40;

/** What is looked at: an order with a number that is another whenever the plan on the desk is. */
export interface LookOrder extends PlanOrder {
  readonly stamp: number;
}

export interface LookProgress {
  readonly done: number;
  readonly of: number;
}

/** What is needed and held as it would be after changes. */
export type RightsTried = Pick<Plan, 'rights' | 'pools'> & Pick<Tried, 'changes'>;

type Last = NonNullable<Planner['last']>;

/**
 * Looks into a whole plan, on a worker of its own so that planning is not kept waiting: it has its own copy of what is stored
 * and its own plan of it. A newer order ends an older one at its next pause; the older answers `superseded`.
 */
export class Looker {
  readonly #planner = new Planner();
  readonly #cache = new ReadyCache();
  #stamp = -1;
  #planned: Promise<Result<Last>> | undefined;
  #run = 0;

  async ready(order: LookOrder, onProgress: (progress: LookProgress) => void): Promise<Result<Ready>> {
    const run = ++this.#run;
    const last = await this.#upToDate(order, onProgress);
    if (!last.ok) return last;
    const { planning, plan } = last.value;
    const steps = gatherReady(planning, plan, this.#cache);
    return this.#paced(run, steps, (done) => onProgress({ done, of: plan.cases.length }));
  }

  /** What waiting costs: the chosen ways laid anew from each day of a year, of the cases named or of all. */
  async wait(
    order: LookOrder,
    only: readonly string[] | undefined,
    onProgress: (progress: LookProgress) => void
  ): Promise<Result<Waiting>> {
    const run = ++this.#run;
    const last = await this.#upToDate(order, onProgress);
    if (!last.ok) return last;
    const { planning, plan } = last.value;
    return this.#paced(run, waitOut(planning, plan, only ? { only: new Set(only) } : {}), onProgress);
  }

  /** Goes on step by step, telling how far it is; ends where a newer order has come. */
  async #paced<P, T>(run: number, steps: Generator<P, T>, tell: (progress: P) => void): Promise<Result<T>> {
    let paused = performance.now();
    for (let next = steps.next(); ; next = steps.next()) {
      if (next.done) return { ok: true, value: next.value };
      if (performance.now() - paused <= PROGRESS_EVERY_MS) continue;
      tell(next.value);
      await new Promise((done) => setTimeout(done));
      if (run !== this.#run) return { ok: false, issues: [{ code: 'superseded' }] };
      paused = performance.now();
    }
  }

  /** In which sequence everything that hangs on each other is changed. */
  async order(order: LookOrder, onProgress: (progress: LookProgress) => void): Promise<Result<Order>> {
    const run = ++this.#run;
    const last = await this.#upToDate(order, onProgress);
    if (!last.ok) return last;
    const { planning, plan } = last.value;
    return this.#paced(run, orderOf(planning, plan.cases), onProgress);
  }

  /** The same with changes made on a copy. */
  async orderWith(
    order: LookOrder,
    changes: readonly Change[],
    onProgress: (progress: LookProgress) => void
  ): Promise<Result<Order>> {
    const run = ++this.#run;
    const last = await this.#upToDate(order, onProgress);
    if (!last.ok) return last;
    const { catalogue, estate, today } = last.value.planning;
    const changed = planningWith({ catalogue, estate, today }, changes);
    const planned = await this.#paced(run, planWith(changed, 'goal', this.#planner.cache), onProgress);
    if (!planned.ok) return planned;
    return this.#paced(run, orderOf(changed, planned.value.cases), onProgress);
  }

  /** What a team's goal - that of all without one of their own - chooses on later days, and why not the next release. */
  async outlook(order: LookOrder, team: string | undefined): Promise<Result<GoalOutlook[]>> {
    return this.#with(order, (planning) => {
      const own = new Set(planning.estate.goals.flatMap((g) => g.team ?? []));
      return goalOutlook(planning, (t) => (team === undefined ? t === undefined || !own.has(t) : t === team));
    });
  }

  /** What systems that take units would draw for what comes after their targets. */
  async forecast(order: LookOrder): Promise<Result<Forecast[]>> {
    const last = await this.#upToDate(order, () => undefined);
    return last.ok ? { ok: true, value: forecastUnits(last.value.planning, last.value.plan) } : last;
  }

  /** The count of rights with changes made, and what becomes of the verdicts. */
  async tryRights(order: LookOrder, changes: readonly Change[]): Promise<Result<RightsTried>> {
    const last = await this.#upToDate(order, () => undefined);
    if (!last.ok) return last;
    const { planning, plan } = last.value;
    const { catalogue, estate, today } = planning;
    const tried = tryChanges({ catalogue, estate, today, before: plan, cache: this.#planner.cache }, changes);
    const { rights, pools } = tried.after;
    return { ok: true, value: { rights, pools, changes: tried.changes } };
  }

  /** What changes would do to the plan; the two plans themselves stay here. */
  async tryOut(
    order: LookOrder,
    changes: readonly Change[]
  ): Promise<Result<Pick<Tried, 'changes' | 'reaching'>>> {
    const last = await this.#upToDate(order, () => undefined);
    if (!last.ok) return last;
    const { planning, plan } = last.value;
    const { catalogue, estate, today } = planning;
    const tried = tryChanges({ catalogue, estate, today, before: plan, cache: this.#planner.cache }, changes);
    return { ok: true, value: { changes: tried.changes, reaching: tried.reaching } };
  }

  /** What another goal of a team - of all that have none of their own, where none is named - would do to the plan. */
  async tryGoal(
    order: LookOrder,
    team: string | undefined,
    goal: Goal
  ): Promise<Result<Pick<Tried, 'changes' | 'reaching'>>> {
    return this.#with(order, (planning) =>
      this.#tried(planning, {
        ...planning.estate,
        goals: [...planning.estate.goals.filter((g) => g.team !== team), goal]
      })
    );
  }

  /** What becomes of the plan where systems go into another team. */
  async tryTeams(order: LookOrder, move: TeamMove): Promise<Result<Pick<Tried, 'changes' | 'reaching'>>> {
    return this.#with(order, (planning) => this.#tried(planning, moveToTeam(planning.estate, move)));
  }

  /** What an estate made of the one on the desk comes to beside it. */
  #tried({ catalogue, today }: Planning, estate: Estate): Pick<Tried, 'changes' | 'reaching'> {
    const { plan: before } = this.#planner.last ?? {};
    const { cache } = this.#planner;
    const { changes, reaching } = tryChanges(
      { catalogue, estate, today, ...(before ? { before } : {}), cache },
      []
    );
    return { changes, reaching };
  }

  /** One system explored on a copy with changes made. */
  async exploreWith(
    order: LookOrder,
    changes: readonly Change[],
    system: string,
    target?: Target
  ): Promise<Result<Explored | undefined>> {
    return this.#with(order, ({ catalogue, estate, today }) =>
      exploreSystem(planningWith({ catalogue, estate, today }, changes), system, target)
    );
  }

  async compare(order: LookOrder, system: string, options: readonly Option[]): Promise<Result<Side[]>> {
    return this.#with(order, (planning) => compareOptions(planning, system, options));
  }

  async #with<T>(order: LookOrder, use: (planning: Planning) => T): Promise<Result<T>> {
    const last = await this.#upToDate(order, () => undefined);
    return last.ok ? { ok: true, value: use(last.value.planning) } : last;
  }

  /** Two who ask for the same plan wait for the same one. */
  #upToDate(
    { stamp, ...order }: LookOrder,
    onProgress: (progress: LookProgress) => void
  ): Promise<Result<Last>> {
    if (stamp === this.#stamp && this.#planned) return this.#planned;
    this.#stamp = stamp;
    this.#planned = this.#planner.plan(order, onProgress).then((planned): Result<Last> => {
      const { last } = this.#planner;
      if (planned.ok && last) return { ok: true, value: last };
      if (stamp === this.#stamp) this.#planned = undefined;
      return planned.ok ? { ok: false, issues: [{ code: 'superseded' }] } : planned;
    });
    return this.#planned;
  }
}
