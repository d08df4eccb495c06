const MOST_MS = 3000;

/** Keys pressed for a box that is asked for and not there yet: kept for it, so that nobody has to wait. */
class TypedAhead {
  #text = '';
  #isEntered = false;
  #timer: ReturnType<typeof setTimeout> | undefined;

  start(): void {
    this.end();
    addEventListener('keydown', this.#take, true);
    this.#timer = setTimeout(() => this.end(), MOST_MS);
  }

  /** The box is there: what was typed for it, and whether Enter came behind. */
  end(): { readonly text: string; readonly isEntered: boolean } {
    clearTimeout(this.#timer);
    removeEventListener('keydown', this.#take, true);
    const typed = { text: this.#text, isEntered: this.#isEntered };
    [this.#text, this.#isEntered] = ['', false];
    return typed;
  }

  readonly #take = (event: KeyboardEvent): void => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === 'Enter') this.#isEntered = true;
    else if (event.key === 'Backspace') this.#text = this.#text.slice(0, -1);
    else if (event.key.length === 1 && !this.#isEntered) this.#text += event.key;
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
}

export const typedAhead = new TypedAhead();
