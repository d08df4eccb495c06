import type { Case } from '$core/bind';
import type { Catalogue } from '$core/catalogue';
import {
  type Around,
  aroundOf,
  partsElsewhere,
  type Plan,
  planAhead,
  type PlanCache,
  type Planning,
  type PlanProgress,
  planWith,
  takePlan,
  unnamed
} from '$core/plan';
import type { Helper } from './helpers';

const PAUSE_EVERY_MS = 40;
/** What a part that is planned elsewhere should take. */
const PART_MS = 100;
const LARGEST_PART = 200;

/** In milliseconds. */
interface Patience {
  /** How long is planned alone before it is known whether help is worth its time, and how much has to be left then. */
  readonly alone: number;
  readonly worth: number;
  /** Whoever helps and has not answered for so long is not waited for any more. */
  readonly silent: number;
}

const PATIENCE: Patience = { alone: 300, worth: 1000, silent: 3000 };

/** How a plan is made, and with whom. */
export interface Together {
  /** As it was written. */
  readonly catalogue: Catalogue;
  readonly cache: PlanCache;
  /** Starts whoever helps; none where nobody can. */
  readonly startHelpers: () => readonly Helper[];
  readonly tell: (progress: PlanProgress) => void;
  /** Something newer has been asked for. */
  readonly isOver: () => boolean;
  readonly patience?: Patience;
}

/**
 * Plans, in pauses. Where much is left after a moment, cases that hang on nothing else are planned along by others, as long as that takes; what they
 * leave - they failed, they are silent - is planned here, so that the plan is the same with any of them. Undefined where it is over.
 */
export async function planTogether(planning: Planning, together: Together): Promise<Plan | undefined> {
  const { cache, isOver, patience = PATIENCE } = together;
  // Cases are not done in the order they are told in.
  let most = 0;
  const tell = ({ done, of }: PlanProgress): void =>
    together.tell({ done: (most = Math.max(most, done)), of });
  const steps = planWith(planning, 'goal', cache);
  let first: { readonly at: number; readonly done: number } | undefined;
  let hasAsked = false;
  let paused = performance.now();
  for (let next = steps.next(); ; next = steps.next()) {
    if (next.done) return next.value;
    const now = performance.now();
    first ??= { at: now, done: next.value.done };
    if (now - paused <= PAUSE_EVERY_MS) continue;
    tell(next.value);
    await breathe();
    if (isOver()) return undefined;
    if (!hasAsked && now - first.at >= patience.alone) {
      hasAsked = true;
      const msEach = (now - first.at) / Math.max(1, next.value.done - first.done);
      if (msEach * (next.value.of - next.value.done) >= patience.worth)
        await planAlong(planning, { ...together, tell }, { ...next.value, msEach });
      if (isOver()) return undefined;
    }
    paused = performance.now();
  }
}

/** Has what can be planned elsewhere planned by all together, into the planning and its cache; `msEach`: what a case takes. */
export function planAlong(
  planning: Planning,
  together: Together,
  progress: PlanProgress & { readonly msEach: number }
): Promise<void> {
  return new Sharing(planning, together, progress).plan();
}

const breathe = (): Promise<void> => new Promise((go) => setTimeout(go));

/** Cases dealt out between whoever helps and whoever asks. Each takes the parts next to its own; who has none left takes of the longest row. */
class Sharing {
  readonly #planning: Planning;
  readonly #together: Together;
  readonly #of: number;
  readonly #rows: Case[][][] = [];
  readonly #size: number;
  #done: number;
  #heard = performance.now();
  #hasEnded = false;

  constructor(
    planning: Planning,
    together: Together,
    { done, of, msEach }: PlanProgress & { readonly msEach: number }
  ) {
    this.#planning = planning;
    this.#together = together;
    [this.#done, this.#of] = [done, of];
    this.#size = Math.min(LARGEST_PART, Math.max(1, Math.round(PART_MS / msEach)));
  }

  async plan(): Promise<void> {
    const helpers = this.#together.startHelpers();
    if (helpers.length === 0) return;
    try {
      const parts = partsElsewhere(this.#planning, this.#size);
      const length = Math.ceil(parts.length / (helpers.length + 1));
      for (let at = 0; at < parts.length; at += length) this.#rows.push(parts.slice(at, at + length));
      let isDone = false;
      const theirs = Promise.allSettled(helpers.map((helper, i) => this.#have(helper, i + 1)));
      void theirs.then(() => (isDone = true));
      await this.#planHere();
      const { silent } = this.#together.patience ?? PATIENCE;
      while (!isDone && performance.now() - this.#heard < silent && !this.#together.isOver())
        await Promise.race([theirs, new Promise((go) => setTimeout(go, PAUSE_EVERY_MS))]);
    } finally {
      this.#hasEnded = true;
      for (const helper of helpers) helper.end();
    }
  }

  /** The next part of a row, else the last of the longest. */
  #take(row: number): Case[] | undefined {
    const own = this.#rows[row]?.shift();
    if (own) return own;
    return this.#rows.reduce<Case[][]>((a, b) => (b.length > a.length ? b : a), []).pop();
  }

  async #have(helper: Helper, row: number): Promise<void> {
    let around: Around | undefined = aroundOf(this.#planning, this.#together.catalogue);
    for (let part = this.#take(row); part && !this.#together.isOver(); part = this.#take(row)) {
      const plans = await helper.planShare({ ...(around ? { around } : {}), cases: part.map(unnamed) });
      if (this.#hasEnded) return;
      around = undefined;
      for (const [i, one] of part.entries()) {
        const plan = plans[i];
        if (plan) takePlan(this.#planning, one, plan, this.#together.cache);
      }
      this.#tell(part.length);
    }
  }

  async #planHere(): Promise<void> {
    let paused = performance.now();
    for (let part = this.#take(0); part; part = this.#take(0))
      for (const one of part) {
        planAhead(this.#planning, one, this.#together.cache);
        this.#done++;
        if (performance.now() - paused <= PAUSE_EVERY_MS) continue;
        this.#tell(0);
        await breathe();
        if (this.#together.isOver()) return;
        paused = performance.now();
      }
  }

  #tell(more: number): void {
    this.#heard = performance.now();
    this.#done += more;
    this.#together.tell({ done: this.#done, of: this.#of });
  }
}
