import type { Day } from '../date';

/** Whether anything unknown was met but empty cells: where not, and none of these count, the best run goes the same as the sure one. */
export const metMoreThanCells = (met: ReadonlySet<string>): boolean => met.size > (met.has('cell') ? 1 : 0);

/**
 * What a search comes by on its way: the unknowns it met, in this run or as it would in the other, and whether it left
 * anything untried. A search that met nothing unknown goes the same in both runs, step for step, so that a better verdict
 * than the sure one is only to be looked for where something was met. Each search has notes of its own; what is remembered
 * carries what it met along.
 */
export class Notes {
  readonly #met = new Set<string>();
  cut = false;
  /** Clauses that steps were asked, what is remembered counted again: what a search's work is counted in. */
  work = 0;
  /** Stays out of service that were found too long, so that a step had to be put off or refused. */
  overstays = 0;
  /** The last day anything was laid on, or would be. */
  lastLaid = -Infinity;
  readonly #turns = new Set<Day>();

  meet(name: string): void {
    this.#met.add(name);
  }

  /** Takes in what something remembered, or a search below, came by. */
  add(found: { readonly met: Iterable<string>; readonly cut: boolean; readonly work?: number }): void {
    for (const name of found.met) this.#met.add(name);
    this.cut ||= found.cut;
    this.work += found.work ?? 0;
  }

  /** Notes a day that what is laid was compared with, and that stands in no list of dates. */
  turnOn(day: Day): void {
    this.#turns.add(day);
  }

  get turns(): ReadonlySet<Day> {
    return this.#turns;
  }

  get met(): ReadonlySet<string> {
    return this.#met;
  }
}
