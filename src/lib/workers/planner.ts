import { type Catalogue, emptyCatalogue } from '$core/catalogue';
import { HeldEstate, type Target, type Write } from '$core/estate';
import { type Explored, exploreSystem, type Plan, PlanCache, Planning, type PlanProgress } from '$core/plan';
import type { Result } from '$core/kit';
import { newId } from '$lib/state/ids';
import { readStored } from '$lib/storage/change-log';
import { keepFound } from '$lib/storage/last-found';
import { startWorkers } from './helpers';
import { planTogether } from './sharing';
import { tellPlan, type ToldPlan } from './told-plan';

/** What is to be planned: a workspace as it was last told, with what changed since. */
export interface PlanOrder {
  readonly workspace: string;
  /** True where what is held is not to be trusted: everything is read from the browser's storage first. */
  readonly readAll: boolean;
  /** Changes since the last order, oldest first; those already read do no harm. */
  readonly writes: readonly Write[];
  /** Absent: the same as in the last order. */
  readonly catalogue?: Catalogue;
  readonly today: number;
  /** How many workers may plan along. */
  readonly helpers: number;
  /** The stamp of the plan whoever asks has, so that only what is another now is told. */
  readonly has?: string | undefined;
}

/**
 * Plans what is stored, holding a copy of it, so that neither the estate is sent across nor the storage kept busy at each
 * change. A newer order ends an older one at the next pause; the older answers `superseded`.
 */
export class Planner {
  #workspace = '';
  #held = new HeldEstate();
  #catalogue: Catalogue = emptyCatalogue();
  #latest = 0;
  readonly #cache = new PlanCache();
  /** The last plan, and what it was made by. */
  #last: { readonly planning: Planning; readonly plan: Plan; readonly stamp: string } | undefined;
  /** Orders that have not been answered. */
  #open = 0;
  /** Orders bring what is held up to date one after the other. */
  #holding: Promise<void> = Promise.resolve();

  async plan(order: PlanOrder, onProgress: (progress: PlanProgress) => void): Promise<Result<ToldPlan>> {
    const run = ++this.#latest;
    this.#open++;
    // That it has been heard, before anything takes long.
    onProgress({ done: 0, of: 0 });
    this.#holding = this.#holding.then(() => this.#hold(order));
    try {
      await this.#holding;
      return await this.#run(run, order, onProgress);
    } catch (error) {
      this.#holding = Promise.resolve();
      const detail = error instanceof Error ? error.message : String(error);
      return { ok: false, issues: [{ code: 'cannot-plan', detail }] };
    } finally {
      this.#open--;
    }
  }

  get isPlanning(): boolean {
    return this.#open > 0;
  }

  /** One system of the last plan with every target, one of them looked into. Undefined where there is no plan or no such system. */
  explore(system: string, target?: Target): Explored | undefined {
    return this.#last && exploreSystem(this.#last.planning, system, target);
  }

  get last(): { readonly planning: Planning; readonly plan: Plan } | undefined {
    return this.#last;
  }

  /** Keeps the last plan for the next time the page is loaded, where it is the one of this stamp. `of`: a word for all it was made of. */
  async keep(stamp: string, of: string): Promise<void> {
    if (this.#last?.stamp === stamp) await keepFound(this.#workspace, 'plan', of, this.#last.plan);
  }

  get cache(): PlanCache {
    return this.#cache;
  }

  async #hold({ workspace, readAll, writes, catalogue }: PlanOrder): Promise<void> {
    if (catalogue) this.#catalogue = catalogue;
    if (readAll || workspace !== this.#workspace)
      this.#held = new HeldEstate((await readStored(workspace)).records);
    this.#workspace = workspace;
    this.#held.write(writes);
  }

  async #run(
    run: number,
    { today, helpers, has }: PlanOrder,
    onProgress: (progress: PlanProgress) => void
  ): Promise<Result<ToldPlan>> {
    const { estate } = this.#held;
    const before = this.#last;
    const planning = new Planning({ catalogue: this.#catalogue, estate, today }, before?.planning);
    const planned = await planTogether(planning, {
      catalogue: this.#catalogue,
      cache: this.#cache,
      startHelpers: () => startWorkers(helpers),
      tell: onProgress,
      isOver: () => run !== this.#latest
    });
    if (!planned.ok) return planned;
    const plan = planned.value;
    this.#last = { planning, plan, stamp: newId('plan') };
    const known = has !== undefined && has === before?.stamp ? before.plan : undefined;
    return { ok: true, value: tellPlan(plan, this.#last.stamp, known) };
  }
}
