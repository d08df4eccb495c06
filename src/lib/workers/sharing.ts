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
import type { Result } from '$core/kit';
import type { Helper } from './helpers';
import { paced } from './paced';

/** What a part that is planned elsewhere should take. */
const PART_MS = 100;
const LARGEST_PART = 200;
/** How often it is looked whether those who help are done. */
const LOOK_EVERY_MS = 40;

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
 * Plans, in pauses. Where much is left after a moment, cases that hang on nothing else are planned along by others, as long as
 * that takes; what they leave - they failed, they are silent - is planned here, so that the plan is the same with any of them.
 * `superseded` where something newer has been asked for.
 */
export async function planTogether(planning: Planning, together: Together): Promise<Result<Plan>> {
  const { cache, isOver, patience = PATIENCE } = together;
  // Cases are not done in the order they are told in.
  let most = 0;
  const tell = ({ done, of }: PlanProgress): void =>
    together.tell({ done: (most = Math.max(most, done)), of });
  const steps = planWith(planning, 'goal', cache);
  // What comes before the first case says nothing of how long the others take.
  const first = steps.next();
  if (first.done) return { ok: true, value: first.value };
  const [began, before] = [performance.now(), first.value.done];
  let hasAsked = false;
  const askForHelp = async ({ done, of }: PlanProgress): Promise<void> => {
    const took = performance.now() - began;
    if (hasAsked || took < patience.alone) return;
    hasAsked = true;
    const msEach = took / Math.max(1, done - before);
    if (msEach * (of - done) >= patience.worth)
      await planAlong(planning, { ...together, tell }, { done, of, msEach });
  };
  return paced(steps, { tell, isOver, meanwhile: askForHelp });
}

/** Has what can be planned elsewhere planned by all, into the planning and its cache; `msEach`: what a case takes. */
export function planAlong(
  planning: Planning,
  together: Together,
  progress: PlanProgress & { readonly msEach: number }
): Promise<void> {
  return new Sharing(planning, together, progress).plan();
}

/**
 * Cases dealt out between whoever helps and whoever asks. Each takes the parts next to its own; who has none left takes of the
 * longest row.
 */
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
      const { isOver, patience = PATIENCE } = this.#together;
      await paced(this.#planHere(), { tell: () => this.#tell(), isOver });
      while (!isDone && performance.now() - this.#heard < patience.silent && !isOver())
        await Promise.race([theirs, new Promise((go) => setTimeout(go, LOOK_EVERY_MS))]);
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
      this.#done += part.length;
      this.#tell();
    }
  }

  *#planHere(): Generator<PlanProgress, void> {
    for (let part = this.#take(0); part; part = this.#take(0))
      for (const one of part) {
        planAhead(this.#planning, one, this.#together.cache);
        this.#done++;
        yield { done: this.#done, of: this.#of };
      }
  }

  #tell(): void {
    this.#heard = performance.now();
    this.#together.tell({ done: this.#done, of: this.#of });
  }
}
