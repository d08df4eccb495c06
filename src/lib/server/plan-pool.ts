import { existsSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { pool as makePool, type Pool, TerminateError } from 'workerpool';
import { answerPlan, type Answer, type PlanRequest, refuse } from './answer-plan';

/** What a plan may take, of time and of memory; `PLAN_SECONDS`, `PLAN_MEGABYTES` and `PLAN_THREADS` set others. */
const limits = {
  seconds: numberOf('PLAN_SECONDS', 300),
  megabytes: numberOf('PLAN_MEGABYTES', 2048),
  threads: numberOf('PLAN_THREADS', Math.max(1, availableParallelism() - 1))
};
/** More waiting than this are refused. */
const MOST_WAITING = 100;
const IDLE_MS = 1000;
/** How long a process whose caller has left has to end by itself. */
const LEAVE_MS = 50;

function numberOf(name: string, otherwise: number): number {
  const given = Number(process.env[name] ?? '');
  return given > 0 ? given : otherwise;
}

/** The bundle of the threads lies at the top of the build; none where the sources run as they are. */
function findBundle(): string | undefined {
  let folder = dirname(fileURLToPath(import.meta.url));
  for (let up = 0; up < 4; up++, folder = dirname(folder)) {
    const file = join(folder, 'plan-worker.mjs');
    if (existsSync(file)) return file;
  }
  return undefined;
}

/** Signals that end the server, and with it what it plans. */
const ENDS = ['SIGINT', 'SIGTERM'] as const;

let pool: Pool | undefined;
let ending: ReturnType<typeof setTimeout> | undefined;

function poolOf(bundle: string): Pool {
  if (!pool) for (const signal of ENDS) process.off(signal, endAll).once(signal, endAll);
  pool ??= makePool(bundle, {
    workerType: 'process',
    maxWorkers: limits.threads,
    workerTerminateTimeout: LEAVE_MS,
    forkOpts: { serialization: 'advanced', execArgv: [`--max-old-space-size=${limits.megabytes}`] }
  });
  return pool;
}

/**
 * Plans in a process of its own, so that the server answers others meanwhile and what a plan took of memory goes back whole. Ends
 * with its caller (`leaves`). 503 where too many wait or it took too long, 413 where it took too much memory.
 */
export async function planApart(request: PlanRequest, leaves: AbortSignal): Promise<Answer> {
  const bundle = findBundle();
  if (bundle === undefined) return answerPlan(request);
  const planners = poolOf(bundle);
  if (planners.stats().pendingTasks >= MOST_WAITING) return refuse(503, [{ code: 'too-many-wait' }]);
  clearTimeout(ending);
  const tooLong = AbortSignal.timeout(limits.seconds * 1000);
  const work = planners.exec('answerPlan', [request]);
  const leave = (): void => void work.cancel();
  const ends = AbortSignal.any([leaves, tooLong]);
  ends.addEventListener('abort', leave);
  if (ends.aborted) leave();
  try {
    return (await work) as Answer;
  } catch (error) {
    if (tooLong.aborted) return refuse(503, [{ code: 'took-too-long', detail: String(limits.seconds) }]);
    // A process that ends by itself has run out of memory.
    if (error instanceof TerminateError && !leaves.aborted)
      return refuse(413, [{ code: 'took-too-much', detail: `${limits.megabytes} MB` }]);
    return refuse(500, [
      { code: 'cannot-plan', detail: error instanceof Error ? error.message : String(error) }
    ]);
  } finally {
    ends.removeEventListener('abort', leave);
    clearTimeout(ending);
    ending = setTimeout(rest, IDLE_MS).unref();
  }
}

const endAll = (): void => void pool?.terminate(true);

/** Once nobody plans, the processes end; what requests took of the server itself is collected, where it was started so. */
function rest(): void {
  const { pendingTasks, activeTasks } = pool?.stats() ?? { pendingTasks: 0, activeTasks: 0 };
  if (pendingTasks + activeTasks > 0) return;
  void pool?.terminate();
  pool = undefined;
  globalThis.gc?.();
}
