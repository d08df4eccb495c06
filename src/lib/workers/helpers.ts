import * as Comlink from 'comlink';
import type { Case } from '$core/bind';
import { type Around, type CasePlan, PlanCache, type Planning, planningAround, unnamed } from '$core/plan';

/** More than so many keep each other waiting for whoever takes what they have planned. */
const MOST_HELPERS = 7;

/** Cases to be planned for another worker; `around` comes with the first of them. */
export interface Share {
  readonly around?: Around;
  readonly cases: readonly Case[];
}

/** Who plans along. */
export interface Helper {
  planShare(share: Share): Promise<readonly CasePlan[]>;
  /** Ends what it does, at once. */
  end(): void;
}

/** What whoever helps does: plans cases another worker has gathered, by what is around them. */
export class Helping {
  readonly #cache = new PlanCache();
  #planning: Planning | undefined;

  planShare({ around, cases }: Share): CasePlan[] {
    if (around) this.#planning = planningAround(around);
    const planning = this.#planning;
    if (!planning) throw new Error('nothing was said of what is around');
    return cases.map((one) => unnamed(this.#cache.plan(planning, one, 'goal')));
  }
}

/** Workers of the script this one runs, one for each core but its own. */
export function startWorkers(): Helper[] {
  if (typeof Worker === 'undefined') return [];
  const count = Math.min(MOST_HELPERS, (navigator.hardwareConcurrency || 1) - 1);
  return Array.from({ length: count }, () => {
    const worker = new Worker(self.location.href, { type: 'module' });
    const remote = Comlink.wrap<Pick<Helper, 'planShare'>>(worker);
    const fails = new Promise<never>((_, reject) => {
      worker.onerror = () => reject(new Error('a worker that helps failed'));
    });
    fails.catch(() => undefined);
    return {
      planShare: (share) => Promise.race([remote.planShare(share), fails]),
      end: () => worker.terminate()
    };
  });
}
