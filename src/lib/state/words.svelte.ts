/** What is said at the foot of the screen: what was done, and what went wrong. */
class Words {
  notice = $state('');
  #fault = $state('');
  /** What the fault has kept from being stored, as a file; none where nothing would be lost. Set after the fault. */
  rescue = $state.raw<(() => Promise<void>) | undefined>();

  get fault(): string {
    return this.#fault;
  }

  set fault(text: string) {
    this.#fault = text;
    this.rescue = undefined;
  }
}

export const words = new Words();
