import * as Comlink from 'comlink';
import type { Case } from '$core/bind';
import { type Around, type CasePlan, PlanCache, type Planning, planningAround, unnamed } from '$core/plan';

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

/** So many workers of the script this one runs; none where a worker cannot start any. */
export function startWorkers(count: number): Helper[] {
  if (typeof Worker === 'undefined') return [];
  return Array.from({ length: count }, () => {
    const worker = new Worker(self.location.href, { type: 'module' });
    const remote = Comlink.wrap<Pick<Helper, 'planShare'>>(worker);
    const fails = new Promise<never>((_, reject) => {
      worker.onerror = () => reject(new Error('a worker that helps failed'));
    });
    // Whoever asks hears of it; nobody may be asking.
    fails.catch(() => undefined);
    return {
      planShare: (share) => Promise.race([remote.planShare(share), fails]),
      end: () => worker.terminate()
    };
  });
}
