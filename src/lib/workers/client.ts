import * as Comlink from 'comlink';
import type { CoreWorker } from './core.worker';

/** A core worker that can be dropped in the middle of its work. */
export class WorkerClient {
  #worker: Worker | undefined;
  #remote: CoreWorker | undefined;
  /** How calls under way are told that their worker is gone. */
  readonly #dropped = new Set<(reason: Error) => void>();

  /** Calls the worker, starting it when needed. Rejects with `cancelled` when the worker is dropped meanwhile. */
  async call<T>(use: (remote: CoreWorker) => Promise<T>): Promise<T> {
    let drop: (reason: Error) => void = () => undefined;
    const cancelled = new Promise<never>((_, reject) => (drop = reject));
    this.#dropped.add(drop);
    try {
      return await Promise.race([use(this.#start()), cancelled]);
    } finally {
      this.#dropped.delete(drop);
    }
  }

  /** Starts the worker, so that it is there when it is called. */
  warm(): void {
    this.#start();
  }

  /** Ends what the worker is doing, at once; an idle worker is kept. */
  cancel(): void {
    if (this.#dropped.size === 0) return;
    this.#worker?.terminate();
    this.#worker = undefined;
    this.#remote = undefined;
    for (const drop of this.#dropped) drop(new Error('cancelled'));
    this.#dropped.clear();
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
