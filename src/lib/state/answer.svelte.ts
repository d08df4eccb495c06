import { untrack } from 'svelte';

/**
 * What a worker answers to a question that changes by itself. Made while a component, or a state class of one, is set up; it
 * asks again whenever the question is another, and an answer that comes too late is dropped.
 */
export class Answer<A> {
  #given = $state.raw<{ readonly to: readonly unknown[]; readonly answer: A } | undefined>();
  /** The question that got no answer: stopped, or dropped for another. */
  #unanswered = $state.raw<readonly unknown[] | undefined>();
  #asks = $state(0);
  readonly #question: () => readonly unknown[] | undefined;
  /** The answer to the question as it stands now; undefined until it is there. */
  readonly current = $derived.by(() => {
    const now = this.#question();
    return now && this.#given && isSame(now, this.#given.to) ? this.#given.answer : undefined;
  });

  /** Nobody is working on it any more; see `again`. */
  readonly isDropped = $derived.by(() => {
    const now = this.#question();
    return now !== undefined && this.#unanswered !== undefined && isSame(now, this.#unanswered);
  });

  /**
   * @param question what the answer depends on; undefined: nothing is asked
   * @param ask asks the worker; undefined: superseded
   */
  constructor(question: () => readonly unknown[] | undefined, ask: () => Promise<A | undefined>) {
    this.#question = question;
    let asked: readonly unknown[] | undefined;
    $effect(() => {
      const now = question();
      void this.#asks;
      if (!now || (asked && isSame(now, asked) && !untrack(() => this.isDropped))) return;
      asked = now;
      this.#unanswered = undefined;
      void untrack(ask).then((answer) => {
        if (asked !== now) return;
        if (answer === undefined) this.#unanswered = now;
        else this.#given = { to: now, answer };
      });
    });
  }

  /** Asks once more what was dropped. */
  again(): void {
    this.#asks++;
  }
}

const isSame = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((v, i) => v === b[i]);
