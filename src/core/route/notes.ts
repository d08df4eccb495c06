/**
 * What a search comes by on its way: the unknowns it met, in this run or as it would in the other, and whether it left
 * anything untried. A search that met nothing unknown goes the same in both runs, step for step, so that a better verdict
 * than the sure one is only to be looked for where something was met. Each search has notes of its own; what is remembered
 * carries what it met along.
 */
export class Notes {
  readonly #met = new Set<string>();
  cut = false;

  meet(name: string): void {
    this.#met.add(name);
  }

  /** Takes in what something remembered, or a search below, came by. */
  add(found: { readonly met: Iterable<string>; readonly cut: boolean }): void {
    for (const name of found.met) this.#met.add(name);
    this.cut ||= found.cut;
  }

  get met(): ReadonlySet<string> {
    return this.#met;
  }
}
