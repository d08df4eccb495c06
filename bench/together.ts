/** The same plan made by as many threads as there are cores, as workers of the browser make it. */
import { once } from 'node:events';
import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import { PlanCache } from '../src/core/plan/plan-cache';
import { Planning } from '../src/core/plan/planning';
import type { CasePlan, Plan } from '../src/core/plan/plan-types';
import type { Helper } from '../src/lib/workers/helpers';
import { planTogether } from '../src/lib/workers/sharing';
import type { GeneratedWorld } from './generate';

/** Bundled beside the benchmark. */
const THREAD = process.argv[1]?.replace(/[^/]*$/, 'thread.cjs') ?? '';

/** One for each core but this one's. */
function startThreads(): Helper[] {
  return Array.from({ length: availableParallelism() - 1 }, () => {
    const thread = new Worker(THREAD);
    return {
      planShare: async (share) => {
        thread.postMessage(share);
        const [plans] = (await once(thread, 'message')) as [readonly CasePlan[]];
        return plans;
      },
      end: () => void thread.terminate()
    };
  });
}

/** Plans with all cores. */
export async function planWithAll(world: GeneratedWorld): Promise<Plan> {
  const planned = await planTogether(new Planning(world), {
    catalogue: world.catalogue,
    cache: new PlanCache(),
    startHelpers: startThreads,
    tell: () => undefined,
    isOver: () => false
  });
  if (!planned.ok) throw new Error('ended by itself');
  return planned.value;
}
