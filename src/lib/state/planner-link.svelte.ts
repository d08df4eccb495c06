import { type Catalogue, emptyCatalogue } from '$core/catalogue';
import type { Day } from '$core/date';
import type { Target, Write } from '$core/estate';
import { type Explored, type Plan, type PlanProgress, sameTarget } from '$core/plan';
import { describeIssue } from '$core/wording';
import { currentWorkspace } from '$lib/storage/database';
import { lastFound } from '$lib/storage/last-found';
import type { Result } from '$core/kit';
import { callBack, WorkerClient } from '$lib/workers/client';
import type { CoreWorker } from '$lib/workers/core.worker';
import type { LookOrder } from '$lib/workers/orderer';
import type { PlanOrder } from '$lib/workers/planner';
import { readPlan } from '$lib/workers/told-plan';
import { words } from './words.svelte';

/** Planning starts when what was changed is on the screen. */
const PLAN_AFTER_MS = 60;
/** What is there sooner than this is not announced. */
const SHOW_AFTER_MS = 350;
/** A worker that answers something else for longer than this, and has not heard that there is something to plan, is ended. */
const BUSY_FOR_MS = 2000;
/** A plan that has stood for so long is kept for the next time; larger ones later. */
const KEEP_AFTER_MS = 1000;
const KEEP_AFTER_MS_A_CASE = 1;
/** Of plans of more cases nothing is kept. */
const MOST_KEPT = 20_000;
/** More keep each other waiting for the one that takes what they have planned. */
const MOST_HELPERS = 7;
/** A core is left to the page and the engine's own threads: on two cores a second worker gained nothing. */
const countHelpers = (): number => Math.max(0, Math.min(MOST_HELPERS, navigator.hardwareConcurrency - 2));
const EMPTY_CATALOGUE = emptyCatalogue();

/** What is planned: read when planning starts. */
export interface Planned {
  readonly isEmpty: boolean;
  readonly catalogue: Catalogue | undefined;
  readonly today: Day;
  /** What is on the screen and not stored yet. */
  readonly unstored: readonly Write[];
  /** A word for all of it, that nothing else has; undefined where there is none. */
  readonly mark: string | undefined;
}

/** One system of a plan, and the target of it, that is looked into. */
interface Looking {
  readonly of: Plan;
  readonly system: string;
  readonly target: Target | undefined;
}

/** The worker that plans: what it has been told, how far it is, what it found. The one writer of the plan. */
export class PlannerLink {
  plan = $state.raw<Plan | undefined>();
  /** One system of that plan, looked into. */
  explored = $state.raw<{ of: Plan; system: string; found: Explored } | undefined>();
  /** Cases done while planning. */
  progress = $state.raw<PlanProgress | undefined>();
  stopped = $state(false);
  /** What is being looked into, where that takes a while. */
  looking = $state.raw<Looking | undefined>();
  #stoppedLooking = $state.raw<Looking | undefined>();
  readonly #worker = new WorkerClient();
  readonly #planned: () => Planned;
  /** What the worker has not been told yet; `readAll`: it knows nothing. */
  #unsent: Write[] = [];
  #readAll = true;
  #sentCatalogue: Catalogue | undefined;
  #timer: ReturnType<typeof setTimeout> | undefined;
  /** Counts planning runs, so that words from a dropped one are not heard. */
  #run = 0;
  /** The plan as the worker told it last, and its stamp. */
  #told: { readonly plan: Plan; readonly stamp: string } | undefined;
  /** Counts plans. */
  #stamp = 0;
  /** Counts what was to be planned, and how much of it the plan on show was made of. */
  #changes = 0;
  #planOf = 0;
  #keeping: ReturnType<typeof setTimeout> | undefined;
  /** Questions under way. */
  #asking = 0;

  constructor(planned: () => Planned) {
    this.#planned = planned;
  }

  /** Has the worker started while what it will plan is still being read. */
  warm(): void {
    this.#worker.warm();
  }

  /** Takes note of what was written - undefined: everything is to be read anew - and plans soon. */
  planWith(writes: readonly Write[] | undefined): void {
    this.#changes++;
    if (writes) this.#unsent.push(...writes);
    else this.#forget();
    clearTimeout(this.#timer);
    if (!this.#planned().isEmpty && !this.progress) this.progress = { done: 0, of: 0 };
    // What is opened is on the screen with its plan alone.
    this.#timer = setTimeout(() => void this.replan(), this.plan ? PLAN_AFTER_MS : 0);
  }

  /**
   * Puts on show what was planned when this page was last here, where that was of exactly what is on the desk. What is asked of a plan waits for
   * the new one, which takes its place.
   */
  async recall(): Promise<void> {
    const { isEmpty, mark } = this.#planned();
    if (this.plan || isEmpty || mark === undefined) return;
    const plan = await lastFound<Plan>(currentWorkspace(), 'plan', mark);
    if (plan && !this.plan && mark === this.#planned().mark) this.plan = plan;
  }

  /**
   * The word for what a plan was made of, to keep what is found under; none where that is not what is on the desk, for a plan that was made when
   * this page was last here, and for one that is too large.
   */
  markOf(plan: Plan): string | undefined {
    const isOfThis = plan === this.plan && plan === this.#told?.plan && this.#planOf === this.#changes;
    return isOfThis && plan.cases.length <= MOST_KEPT ? this.#planned().mark : undefined;
  }

  /** The plan of what is on the desk, once it is there; the last one, or none, where planning was stopped. */
  async settled(): Promise<Plan | undefined> {
    while (this.progress && !this.stopped) await new Promise((done) => setTimeout(done, PLAN_AFTER_MS));
    return this.plan;
  }

  /** Plans anew; a plan under way gives way. */
  async replan(): Promise<void> {
    const run = ++this.#run;
    const changes = this.#changes;
    this.stopped = false;
    const { isEmpty, catalogue = EMPTY_CATALOGUE, today } = this.#planned();
    if (isEmpty) {
      this.plan = undefined;
      this.progress = undefined;
      return;
    }
    const order: PlanOrder = {
      workspace: currentWorkspace(),
      readAll: this.#readAll,
      writes: this.#unsent,
      today,
      helpers: countHelpers(),
      has: this.#told?.stamp,
      ...(catalogue === this.#sentCatalogue ? {} : { catalogue })
    };
    [this.#readAll, this.#unsent, this.#sentCatalogue] = [false, [], catalogue];
    this.progress = { done: 0, of: 0 };
    const busy =
      this.#asking > 0 ? setTimeout(() => run === this.#run && this.endWork(), BUSY_FOR_MS) : undefined;
    const tell = callBack((p: PlanProgress) => {
      clearTimeout(busy);
      if (run === this.#run) this.progress = p;
    });
    try {
      const found = await this.#worker.call((w) => w.planStored(order, tell));
      if (run !== this.#run) return;
      this.#run++; // its words of progress may still be under way
      if (found.ok) {
        const plan = readPlan(found.value, this.#told?.plan);
        this.#told = { plan, stamp: found.value.stamp };
        this.plan = plan;
        this.#planOf = changes;
        this.#stamp++;
        this.#keepSoon(plan);
      } else words.fault = found.issues.map(describeIssue).join(' ');
      if (!found.ok) this.#forget();
      this.progress = undefined;
    } catch (error) {
      if (isCancelled(error)) return;
      this.#forget();
      words.fault = String(error);
      this.progress = undefined;
    } finally {
      clearTimeout(busy);
    }
  }

  /** Looks into one system of the plan; `explored` has it as soon as it is there. Not where somebody has stopped just that. */
  async explore(system: string, target?: Target): Promise<void> {
    const of = this.plan;
    if (!of || this.hasStopped(system, target)) return;
    const looking = { of, system, target };
    const timer = setTimeout(() => (this.looking = looking), SHOW_AFTER_MS);
    try {
      const found = await this.#worker.call((w) => w.exploreStored(system, target));
      if (found && this.plan === of) this.explored = { of, system, found };
      else if (!found && this.plan === of && !this.progress) await this.replan();
    } catch (error) {
      if (!isCancelled(error)) words.fault = String(error);
    } finally {
      clearTimeout(timer);
      if (this.looking === looking) this.looking = undefined;
    }
  }

  /** What was found in a system of the plan on the desk. */
  exploredOf(system: string): Explored | undefined {
    const { explored } = this;
    return explored?.of === this.plan && explored?.system === system ? explored.found : undefined;
  }

  /** Looks into a system while a page is shown. Called while the page is set up. */
  follow(system: () => string): void {
    $effect(() => {
      if (system() && this.plan && !this.exploredOf(system())) void this.explore(system());
    });
  }

  /** Whether looking into this was stopped by somebody, on this plan. */
  hasStopped(system: string, target?: Target): boolean {
    const stopped = this.#stoppedLooking;
    return (
      stopped !== undefined &&
      stopped.of === this.plan &&
      stopped.system === system &&
      (stopped.target === undefined || target === undefined
        ? stopped.target === target
        : sameTarget(stopped.target, target))
    );
  }

  /** Stops looking into a system, at once; what is on show stays. */
  stopLooking(): void {
    this.#stoppedLooking = this.looking;
    this.looking = undefined;
    this.endWork();
  }

  /** Looks again into what was stopped. */
  lookAgain(): void {
    this.#stoppedLooking = undefined;
  }

  /** Asks something of the plan on the desk, once that is there; where the worker was ended meanwhile it is planned anew first. */
  async ask<T>(use: (remote: CoreWorker) => Promise<Result<T>>): Promise<Result<T>> {
    await this.settled();
    // What somebody has stopped does not begin again because something is asked of it.
    if (this.stopped) return { ok: false, issues: [{ code: 'superseded' }] };
    // A worker that was ended holds nothing to be asked of.
    if (this.#readAll) await this.replan();
    this.#asking++;
    try {
      const answer = await this.#worker.call(use);
      if (answer.ok || answer.issues[0]?.code !== 'no-plan') return answer;
      await this.replan();
      return await this.#worker.call(use);
    } finally {
      this.#asking--;
    }
  }

  /** Something asked of the plan has not been answered. */
  get isAsked(): boolean {
    return this.#asking > 0;
  }

  /** What is on the desk as a worker of its own reads it anew; see `Orderer`. */
  lookOrder(): LookOrder {
    const { catalogue = EMPTY_CATALOGUE, today, unstored } = this.#planned();
    return {
      workspace: currentWorkspace(),
      readAll: true,
      writes: unstored,
      today,
      helpers: countHelpers(),
      catalogue,
      stamp: this.#stamp
    };
  }

  /** Ends whatever the worker is doing, at once; what was being planned is planned anew. */
  endWork(): void {
    const wasPlanning = this.progress !== undefined;
    this.#run++;
    this.#worker.cancel();
    this.#forget();
    if (wasPlanning) void this.replan();
  }

  /** Stops planning at once; the last plan stays on show. */
  stop(): void {
    this.#run++;
    this.#worker.cancel();
    this.#forget();
    this.progress = undefined;
    this.stopped = true;
  }

  /** By then what other tabs have changed is known of. */
  #keepSoon(plan: Plan): void {
    clearTimeout(this.#keeping);
    const keep = (): void => {
      const mark = this.markOf(plan);
      const stamp = this.#told?.stamp;
      if (mark === undefined || stamp === undefined) return;
      // That it was ended, or had no room, takes nothing from anybody.
      this.#worker.call((w) => w.keepPlan(stamp, mark)).catch(() => undefined);
    };
    this.#keeping = setTimeout(keep, KEEP_AFTER_MS + plan.cases.length * KEEP_AFTER_MS_A_CASE);
  }

  /** The worker's copy is gone or out of date: it reads everything anew, and what is not stored yet comes on top. */
  #forget(): void {
    this.#readAll = true;
    this.#sentCatalogue = undefined;
    this.#unsent = [...this.#planned().unstored];
  }
}

const isCancelled = (error: unknown): boolean => error instanceof Error && error.message === 'cancelled';
