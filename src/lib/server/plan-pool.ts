import { existsSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';
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

let collecting: ReturnType<typeof setTimeout> | undefined;
let pool: Piscina<PlanRequest, Answer> | undefined;

function poolOf(filename: string): Piscina<PlanRequest, Answer> {
  pool ??= new Piscina<PlanRequest, Answer>({
    filename,
    minThreads: 0,
    maxThreads: limits.threads,
    // Idle threads end, and what they took of memory goes back.
    idleTimeout: IDLE_MS,
    resourceLimits: { maxOldGenerationSizeMb: limits.megabytes }
  });
  return pool;
}

/**
 * Plans on a thread of its own, so that the server answers others meanwhile. Ends with its caller (`leaves`). 503 where too many
 * wait or it took too long, 413 where it took too much memory.
 */
export async function planOnThread(request: PlanRequest, leaves: AbortSignal): Promise<Answer> {
  const filename = findBundle();
  if (filename === undefined) return answerPlan(request);
  const threads = poolOf(filename);
  if (threads.queueSize >= MOST_WAITING) return refuse(503, [{ code: 'too-many-wait' }]);
  clearTimeout(collecting);
  const tooLong = AbortSignal.timeout(limits.seconds * 1000);
  try {
    return await threads.run(request, {
      signal: AbortSignal.any([leaves, tooLong]),
      transferList: [request.bytes.buffer as ArrayBuffer]
    });
  } catch (error) {
    if (tooLong.aborted) return refuse(503, [{ code: 'took-too-long', detail: String(limits.seconds) }]);
    if (error instanceof Error && 'code' in error && error.code === 'ERR_WORKER_OUT_OF_MEMORY')
      return refuse(413, [{ code: 'took-too-much', detail: `${limits.megabytes} MB` }]);
    return refuse(500, [
      { code: 'cannot-plan', detail: error instanceof Error ? error.message : String(error) }
    ]);
  } finally {
    // Where the server was started so (`scripts/memory.json`), what requests took is collected once nobody is served.
    clearTimeout(collecting);
    collecting = setTimeout(() => globalThis.gc?.(), 2 * IDLE_MS).unref();
  }
}
