import * as Comlink from 'comlink';
import type { CoreWorker } from './core.worker';

/** A core worker that can be dropped in the middle of its work. */
export class WorkerClient {
  #worker: Worker | undefined;
  #remote: CoreWorker | undefined;
  #dropped: ((reason: Error) => void) | undefined;
  #busy = 0;

  /** Calls the worker, starting it when needed. Rejects with `cancelled` when the worker is dropped meanwhile. */
  async call<T>(use: (remote: CoreWorker) => Promise<T>): Promise<T> {
    const cancelled = new Promise<never>((_, reject) => (this.#dropped = reject));
    this.#busy++;
    try {
      return await Promise.race([use(this.#start()), cancelled]);
    } finally {
      this.#busy--;
    }
  }

  /** Ends what the worker is doing, at once; an idle worker is kept. */
  cancel(): void {
    if (this.#busy === 0) return;
    this.#worker?.terminate();
    this.#worker = undefined;
    this.#remote = undefined;
    this.#dropped?.(new Error('cancelled'));
  }

  #start(): CoreWorker {
    if (this.#remote) return this.#remote;
    this.#worker = new Worker(new URL('./core.worker.ts', import.meta.url), { type: 'module' });
    // Every function of the worker's API is async already, so the wrapped one has the same type.
    this.#remote = Comlink.wrap<CoreWorker>(this.#worker) as unknown as CoreWorker;
    return this.#remote;
  }
}

export const callBack = <T extends (...args: never[]) => void>(call: T): T => Comlink.proxy(call);
