import { settings } from './settings.svelte';

/** Asks, once in a browser, for the name that decisions are kept with. */
class Signer {
  /** Set while somebody is asked. */
  asking = $state.raw<((who: string) => void) | undefined>();
  #signing: Promise<string> | undefined;

  /** The name to keep a decision with; none where somebody wants none. */
  async sign(): Promise<{ who?: string }> {
    if (settings.who === undefined) {
      // Two decisions that wait for the name wait for the same answer.
      this.#signing ??= new Promise<string>((resolve) => (this.asking = resolve));
      const who = await this.#signing;
      this.asking = this.#signing = undefined;
      settings.set({ who: who.trim() });
    }
    return settings.who ? { who: settings.who } : {};
  }
}

export const signer = new Signer();
