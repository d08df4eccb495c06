/** The same plan made by as many threads as there are cores, as workers of the browser make it. */
import { availableParallelism } from 'node:os';
import { isMainThread, parentPort, Worker } from 'node:worker_threads';
import { PlanCache } from '../src/core/plan/plan-cache';
import { Planning } from '../src/core/plan/planning';
import type { CasePlan, Plan } from '../src/core/plan/plan-types';
import { type Helper, Helping, type Share } from '../src/lib/workers/helpers';
import { planTogether } from '../src/lib/workers/sharing';
import type { GeneratedWorld } from './generate';

/** What a thread of this script does that is not the first: it helps, until it is ended. */
function help(): void {
  const helping = new Helping();
  parentPort?.on('message', (share: Share) => parentPort?.postMessage(helping.planShare(share)));
}

/** Threads of the same script, one for each core but this one's. */
function startThreads(): Helper[] {
  return Array.from({ length: availableParallelism() - 1 }, () => {
    const thread = new Worker(__filename);
    return {
      planShare: (share) =>
        new Promise<readonly CasePlan[]>((done, fail) => {
          thread.once('message', done).once('error', fail);
          thread.postMessage(share);
        }),
      end: () => void thread.terminate()
    };
  });
}

/** Plans with all cores. */
export async function planWithAll(world: GeneratedWorld): Promise<Plan> {
  const plan = await planTogether(new Planning(world), {
    catalogue: world.catalogue,
    cache: new PlanCache(),
    startHelpers: startThreads,
    tell: () => undefined,
    isOver: () => false
  });
  if (!plan) throw new Error('ended by itself');
  return plan;
}

export const isHelper = !isMainThread;
if (isHelper) help();
