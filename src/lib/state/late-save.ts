import { saveAside } from '$lib/storage/change-log';
import { words } from './words.svelte';

const SAVE_AFTER_MS = 250;

/** Keeps what changes often under one name, a little behind; a fault is told at the desk. */
export class LateSave<T> {
  readonly #key: Parameters<typeof saveAside>[0];
  readonly #what: string;
  #timer: ReturnType<typeof setTimeout> | undefined;
  /** Counts what is to be kept, so that only the last one ends the waiting. */
  #asked = 0;
  #kept = 0;

  /** @param what begins the sentence that tells of a fault, as in `The draft` */
  constructor(key: Parameters<typeof saveAside>[0], what: string) {
    this.#key = key;
    this.#what = what;
  }

  /** Something is not kept yet. */
  get isWaiting(): boolean {
    return this.#kept < this.#asked;
  }

  /** @param read the value, read when it is kept */
  save(read: () => T): void {
    void this.#after(SAVE_AFTER_MS, read);
  }

  forget(): Promise<void> {
    return this.#after(0, () => undefined);
  }

  async #after(delay: number, read: () => T | undefined): Promise<void> {
    clearTimeout(this.#timer);
    const asked = ++this.#asked;
    if (delay > 0) await new Promise((done) => (this.#timer = setTimeout(done, delay)));
    try {
      await saveAside(this.#key, read());
      this.#kept = Math.max(this.#kept, asked);
    } catch (error) {
      words.fault = `${this.#what} is not saved: ${String(error)}`;
    }
  }
}
