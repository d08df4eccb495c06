import workerAddress from './core.worker.ts?worker&url';

/** Has the file the workers run kept for when the network is gone: the list of the application's files does not have it. */
export async function keepWorker(): Promise<void> {
  const registration = await navigator.serviceWorker?.ready;
  registration?.active?.postMessage({ keep: [workerAddress] });
}
