import { untrack } from 'svelte';
import type { Option, Side } from '$core/compare';
import type { Change, Goal, Target, TeamMove } from '$core/estate';
import type { Explored, Forecast, GoalOutlook, Plan, Waiting } from '$core/plan';
import type { Result } from '$core/kit';
import type { Order } from '$core/order';
import type { Ready } from '$core/ready';
import type { Tried } from '$core/what-if';
import { callBack, WorkerClient } from '$lib/workers/client';
import type { CoreWorker } from '$lib/workers/core.worker';
import type { RightsTried } from '$lib/workers/looker';
import type { LookProgress } from '$lib/workers/paced';
import { currentWorkspace } from '$lib/storage/database';
import { keepFound, lastFound } from '$lib/storage/last-found';
import { desk } from './desk.svelte';
import { words } from './words.svelte';

/** What is there sooner than this is not announced. */
const SHOW_AFTER_MS = 350;

/** A newer question has taken its place; or there is nothing on the desk to plan. */
const QUIET: ReadonlySet<string> = new Set(['superseded', 'no-plan']);
const SUPERSEDED = Promise.resolve({ ok: false, issues: [{ code: 'superseded' }] } as const);

/** What is asked of the whole plan on the desk: readiness, comparisons, things tried. The one writer of these. */
class LookState {
  ready = $state.raw<{ readonly of: Plan; readonly found: Ready } | undefined>();
  progress = $state.raw<LookProgress | undefined>();
  /** Something is being worked out that takes a while. */
  waiting = $state(false);
  /** Somebody has stopped it, on this plan. */
  #stopped = $state.raw<Plan | undefined>();
  /** Orders, and what waiting costs: long searches, which nothing else waits for. */
  readonly #orders = new WorkerClient();
  #asked: Plan | undefined;

  /** Whether what is on show belongs to the plan on the desk. */
  readonly isCurrent = $derived(this.ready !== undefined && this.ready.of === desk.plan);

  /** Looks into the plan on the desk, unless that is done or under way. */
  async look(): Promise<void> {
    const of = desk.plan;
    if (!of || this.ready?.of === of || this.#asked === of || this.isStopped) return;
    this.#asked = of;
    this.progress = { done: 0, of: of.cases.length };
    const tell = callBack((p: LookProgress) => void (this.#asked === of && (this.progress = p)));
    // Where it has been planned anew meanwhile, that plan is looked into already.
    const found = await this.#call((w) => (this.#asked === of ? w.readyStored(tell) : SUPERSEDED));
    if (this.#asked !== of) return;
    this.progress = undefined;
    if (!found) {
      this.#asked = undefined;
      return;
    }
    this.ready = { of, found };
    const mark = desk.planner.markOf(of);
    if (mark !== undefined) void keepFound(currentWorkspace(), 'ready', mark, found);
  }

  /** Puts on show what was found when this page was last here, while the plan that was found then is; it is looked for again behind that. */
  async #recall(): Promise<void> {
    const { plan: of, mark } = desk;
    if (!of || mark === undefined || this.ready) return;
    const found = await lastFound<Ready>(currentWorkspace(), 'ready', mark);
    if (found && !this.ready && desk.plan === of && desk.planner.progress) this.ready = { of, found };
  }

  /** Looks while a page is shown, and again whenever there is another plan. Called while the page is set up. */
  follow(): void {
    $effect(() => {
      if (desk.plan && !desk.planner.progress) void this.look();
      else if (desk.plan && !untrack(() => this.ready)) void this.#recall();
    });
  }

  /** How far looking ahead is. */
  ahead = $state.raw<LookProgress | undefined>();

  /** What waiting costs, of the cases named or of all. */
  async wait(only: readonly string[] | undefined): Promise<Waiting | undefined> {
    const tell = callBack((p: LookProgress) => void (this.ahead = p));
    const found = await this.#call((w) => w.waitStored(desk.planner.lookOrder(), only, tell), this.#orders);
    this.ahead = undefined;
    return found;
  }

  /** The order of everything that hangs on each other. */
  async order(): Promise<Order | undefined> {
    const tell = callBack((p: LookProgress) => void (this.ahead = p));
    const found = await this.#call((w) => w.orderStored(desk.planner.lookOrder(), tell), this.#orders);
    this.ahead = undefined;
    return found;
  }

  /** The same with changes made on a copy. */
  async orderWith(changes: readonly Change[]): Promise<Order | undefined> {
    const tell = callBack((p: LookProgress) => void (this.ahead = p));
    const found = await this.#call((w) => w.orderWith(desk.planner.lookOrder(), changes, tell), this.#orders);
    this.ahead = undefined;
    return found;
  }

  outlook(team: string | undefined): Promise<readonly GoalOutlook[] | undefined> {
    return this.#call((w) => w.outlookStored(team));
  }

  tryOut(changes: readonly Change[]): Promise<Pick<Tried, 'changes' | 'reaching'> | undefined> {
    return this.#call((w) => w.tryStored(changes));
  }

  forecast(): Promise<readonly Forecast[] | undefined> {
    return this.#call((w) => w.forecastStored());
  }

  tryRights(changes: readonly Change[]): Promise<RightsTried | undefined> {
    return this.#call((w) => w.tryRights(changes));
  }

  tryGoal(team: string | undefined, goal: Goal): Promise<Pick<Tried, 'changes' | 'reaching'> | undefined> {
    return this.#call((w) => w.tryGoal(team, goal));
  }

  tryTeams(move: TeamMove): Promise<Pick<Tried, 'changes' | 'reaching'> | undefined> {
    return this.#call((w) => w.tryTeams(move));
  }

  exploreWith(changes: readonly Change[], system: string, target?: Target): Promise<Explored | undefined> {
    return this.#call((w) => w.exploreWith(changes, system, target));
  }

  compare(system: string, options: readonly Option[]): Promise<readonly Side[] | undefined> {
    return this.#call((w) => w.compareStored(system, options));
  }

  /** Whether looking into the plan on the desk was stopped, or planning was, so that there is none to look into. */
  get isStopped(): boolean {
    const isOfThis = this.#stopped !== undefined && this.#stopped === desk.plan;
    return isOfThis || (desk.planner.stopped && !this.isCurrent);
  }

  /** Ends what is being worked out, at once. */
  stop(): void {
    // What is tried or compared is asked for again by whoever wants it.
    if (this.progress) this.#stopped = desk.plan;
    this.#asked = undefined;
    this.progress = undefined;
    this.#orders.cancel();
    if (desk.planner.isAsked) desk.planner.endWork();
  }

  /** Looks again after it was stopped. */
  again(): void {
    this.#stopped = undefined;
    if (desk.planner.stopped) void desk.planner.replan();
    else void this.look();
  }

  /** Calls under way. */
  #calls = 0;

  /** Undefined where a newer question has taken its place; what fails is said on the desk. */
  async #call<T>(use: (w: CoreWorker) => Promise<Result<T>>, worker?: WorkerClient): Promise<T | undefined> {
    this.#calls++;
    const timer = setTimeout(() => (this.waiting = this.#calls > 0), SHOW_AFTER_MS);
    try {
      const answer = await (worker ? worker.call(use) : desk.planner.ask(use));
      if (answer.ok) return answer.value;
      const code = String(answer.issues[0]?.code);
      if (!QUIET.has(code)) words.fault = code;
    } catch (error) {
      if (!(error instanceof Error && error.message === 'cancelled')) words.fault = String(error);
    } finally {
      clearTimeout(timer);
      if (--this.#calls === 0) this.waiting = false;
    }
    return undefined;
  }
}

export const looker = new LookState();
