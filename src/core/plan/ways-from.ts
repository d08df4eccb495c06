import { type Place, targetKey } from '../compile';
import {
  type Chosen,
  type Ends,
  findChosen,
  findReach,
  findRoutes,
  findStraightCells,
  type Label,
  mayLeadTo,
  metMoreThanCells,
  type SearchResult,
  type Terms
} from '../route';

/** Ways to one target, in the order of preference. */
export interface TargetLabels {
  readonly sure: readonly Label[];
  /** Of the best run, by published hops. */
  readonly best: readonly Label[];
  /** Of the best run, over empty cells too, where no published hop leads straight: the straight one, else over the fewest first. */
  readonly overCells: () => readonly Label[];
  /** More of them may not have been found. */
  readonly cut: () => boolean;
}

/**
 * The ways from one start to every target, in both runs. What only empty cells lead to is looked for where it is asked for: the straight
 * cell of each target at once, ways over several for the rest together.
 */
export class WaysFrom {
  readonly #terms: Terms;
  readonly #start: Place;
  readonly sure: SearchResult;
  readonly best: SearchResult;
  #straight: ReadonlyMap<string, Label> | undefined;
  #reach: SearchResult | undefined;

  constructor(terms: Terms, start: Place) {
    this.#terms = terms;
    this.#start = start;
    this.sure = findRoutes(terms, start, 'sure');
    this.best = metMoreThanCells(this.sure.met) ? findRoutes(terms, start, 'best') : this.sure;
  }

  /** Whether anything looked for so far was cut short. */
  get cut(): boolean {
    return this.sure.cut || this.best.cut || this.#reach?.cut === true;
  }

  to(target: Place): TargetLabels {
    const key = targetKey(target);
    return {
      sure: this.sure.routes.get(key) ?? [],
      best: this.best.routes.get(key) ?? [],
      overCells: () => this.#overCells(key),
      cut: () => this.cut && mayLeadTo(this.#terms, { start: this.#start, target })
    };
  }

  #overCells(key: string): readonly Label[] {
    // The best run comes by cells behind steps that are unknown.
    if (!this.sure.met.has('cell') && !this.best.met.has('cell')) return [];
    const straight = (this.#straight ??= findStraightCells(this.#terms, this.#start)).get(key);
    if (straight && isPlain(straight)) return [straight];
    return (this.#reach ??= findReach(this.#terms, this.#start)).routes.get(key) ?? [];
  }
}

/** A straight way over a cell without a risk: none over as few cells comes before it. */
const isPlain = (straight: Label): boolean => straight.criteria.risks.length === 0;

/** The first ways to one target, asked for alone: what a search of all that was cut has not found may be found so. */
export function waysToOne(terms: Terms, ends: Ends): TargetLabels {
  const sure = findChosen(terms, ends, 'sure');
  const [best, overCells] = [false, true].map((cells) => findChosen(terms, ends, 'best', { cells }));
  const labelsOf = (chosen: Chosen | undefined): readonly Label[] => (chosen?.label ? [chosen.label] : []);
  const isCut = [sure, best, overCells].some((c) => c?.cut === true);
  return {
    sure: labelsOf(sure),
    best: labelsOf(best),
    overCells: () => labelsOf(overCells),
    cut: () => isCut && mayLeadTo(terms, ends)
  };
}

/** The ways that may lead to a target no sure way leads to: by hops that are published, else over the fewest empty cells. */
export function findPerhaps(terms: Terms, { start, target }: Ends): readonly Label[] {
  const key = targetKey(target);
  const published = findRoutes(terms, start, 'best', { target }).routes.get(key) ?? [];
  if (published.length > 0) return published;
  const straight = findStraightCells(terms, start, target).get(key);
  if (straight && isPlain(straight)) return [straight];
  return findReach(terms, start, target).routes.get(key) ?? [];
}
