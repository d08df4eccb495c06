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
  type Planning
} from '$core/plan';
import type { Result } from '$core/kit';
import { gatherReady, type Ready, ReadyCache } from '$core/ready';
import { planningWith, type Tried, tryChanges } from '$core/what-if';
import { type LookProgress, paced } from './paced';
import type { Planner } from './planner';

/** What is needed and held as it would be after changes. */
export type RightsTried = Pick<Plan, 'rights' | 'pools'> & Pick<Tried, 'changes'>;

type Last = NonNullable<Planner['last']>;

/**
 * Looks into the plan that was made last, by what it was made by: nothing is read or planned again for it. What takes long goes on in
 * pauses, and waits while anything is planned; a newer order ends an older one there, which answers `superseded`. Where there is no plan the
 * answer is `no-plan`.
 */
export class Looker {
  readonly #planner: Planner;
  readonly #cache = new ReadyCache();
  #run = 0;

  constructor(planner: Planner) {
    this.#planner = planner;
  }

  async ready(onProgress: (progress: LookProgress) => void): Promise<Result<Ready>> {
    const run = ++this.#run;
    const last = this.#last();
    if (!last.ok) return last;
    const { planning, plan } = last.value;
    const steps = gatherReady(planning, plan, this.#cache);
    return paced(steps, {
      tell: (done) => onProgress({ done, of: plan.cases.length }),
      isOver: () => run !== this.#run,
      mustWait: () => this.#planner.isPlanning
    });
  }

  /** What a team's goal - that of all without one of their own - chooses on later days, and why not the next release. */
  async outlook(team: string | undefined): Promise<Result<GoalOutlook[]>> {
    return this.#with((planning) => {
      const own = new Set(planning.estate.goals.flatMap((g) => g.team ?? []));
      return goalOutlook(planning, (t) => (team === undefined ? t === undefined || !own.has(t) : t === team));
    });
  }

  /** What systems that take units would draw for what comes after their targets. */
  async forecast(): Promise<Result<Forecast[]>> {
    const last = this.#last();
    return last.ok ? { ok: true, value: forecastUnits(last.value.planning, last.value.plan) } : last;
  }

  /** The count of rights with changes made, and what becomes of the verdicts. */
  async tryRights(changes: readonly Change[]): Promise<Result<RightsTried>> {
    const last = this.#last();
    if (!last.ok) return last;
    const { planning, plan } = last.value;
    const { catalogue, estate, today } = planning;
    const tried = tryChanges({ catalogue, estate, today, before: plan, cache: this.#planner.cache }, changes);
    const { rights, pools } = tried.after;
    return { ok: true, value: { rights, pools, changes: tried.changes } };
  }

  /** What changes would do to the plan; the two plans themselves stay here. */
  async tryOut(changes: readonly Change[]): Promise<Result<Pick<Tried, 'changes' | 'reaching'>>> {
    const last = this.#last();
    if (!last.ok) return last;
    const { planning, plan } = last.value;
    const { catalogue, estate, today } = planning;
    const tried = tryChanges({ catalogue, estate, today, before: plan, cache: this.#planner.cache }, changes);
    return { ok: true, value: { changes: tried.changes, reaching: tried.reaching } };
  }

  /** What another goal of a team - of all that have none of their own, where none is named - would do to the plan. */
  async tryGoal(team: string | undefined, goal: Goal): Promise<Result<Pick<Tried, 'changes' | 'reaching'>>> {
    return this.#with((planning) =>
      this.#tried(planning, {
        ...planning.estate,
        goals: [...planning.estate.goals.filter((g) => g.team !== team), goal]
      })
    );
  }

  /** What becomes of the plan where systems go into another team. */
  async tryTeams(move: TeamMove): Promise<Result<Pick<Tried, 'changes' | 'reaching'>>> {
    return this.#with((planning) => this.#tried(planning, moveToTeam(planning.estate, move)));
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
    changes: readonly Change[],
    system: string,
    target?: Target
  ): Promise<Result<Explored | undefined>> {
    return this.#with(({ catalogue, estate, today }) =>
      exploreSystem(planningWith({ catalogue, estate, today }, changes), system, target)
    );
  }

  async compare(system: string, options: readonly Option[]): Promise<Result<Side[]>> {
    return this.#with((planning) => compareOptions(planning, system, options));
  }

  #with<T>(use: (planning: Planning) => T): Result<T> {
    const last = this.#last();
    return last.ok ? { ok: true, value: use(last.value.planning) } : last;
  }

  #last(): Result<Last> {
    const { last } = this.#planner;
    return last ? { ok: true, value: last } : { ok: false, issues: [{ code: 'no-plan' }] };
  }
}
