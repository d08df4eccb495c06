import { isForbidden, NOTHING, type Place, type ProductModel, targetKey } from '../../compile';
import type { Run } from '../../condition';
import { CHOICE_BUDGET, isSpent, type Spent, workOf } from './budget';
import { Expander, type Item, searchWarily } from './expand';
import { Heap } from '../../kit';
import { compareAmounts, compareByPreference, startLabel, type Criteria, type Label } from './label';
import { Pool } from './pool';
import { noted, type Terms } from '../terms';
import type { Verdict } from '../types';
import { verdictOfLabel } from './verdict';

export interface Chosen {
  readonly verdict: Verdict;
  /** The first by preference of the routes that give the verdict; absent where it is closed. */
  readonly label?: Label;
  /** Names of the unknowns met on the way: where there are none, the other run goes the same. */
  readonly met: ReadonlySet<string>;
  readonly cut: boolean;
  /** Of all the searches it took; see `workOf`. */
  readonly work: number;
}

/** From where to where. */
export interface Ends {
  readonly start: Place;
  readonly target: Place;
}

export interface ChooseOptions {
  /** Place in KEPT: routes that keep less do not count. */
  readonly keptAtMost?: number;
  /** Any open route will do: the first by preference of them all, whatever verdict others give. */
  readonly anyOpen?: boolean;
  /** Whether empty cells count in the best run. */
  readonly cells?: boolean;
}

/**
 * The verdict of one target in one run, and its chosen route, without looking at all the others (RECKONING D, E3).
 *
 * A route's place in the order of preference never gets better by going on, so labels are worked off in that order, with
 * the least number of hops still ahead added (A*: P. Hart, N. Nilsson, B. Raphael, 1968): the first target met is the one.
 * Kinds of verdict are asked for from the best on; each leaves out what cannot give it.
 * Gives exactly what `findRoutes` with `verdictOf` and `chosenOf` gives. Cost: far fewer labels.
 */
export function findChosen(given: Terms, ends: Ends, run: Run, options: ChooseOptions = {}): Chosen {
  const terms = noted(given);
  let cut = false;
  let work = 0;
  for (const wanted of options.anyOpen ? (['not yet'] as const) : KINDS) {
    const found = searchWarily(terms, (wary) =>
      new Choice(terms, ends, { run, wanted, wary, ...options }).find()
    );
    cut ||= found.cut || terms.notes.cut;
    work += found.work;
    const { met } = terms.notes;
    if (found.label)
      return { verdict: verdictOfLabel(terms, found.label), label: found.label, met, cut, work };
    // What left nothing out that another kind would have taken finds nothing as that kind either.
    if (found.isWhole) break;
  }
  return { verdict: 'closed', met: terms.notes.met, cut, work };
}

const KINDS = ['straight', 'by hops', 'fresh only', 'not yet'] as const;

interface Wanted extends ChooseOptions {
  readonly run: Run;
  readonly wanted: (typeof KINDS)[number];
  readonly wary: boolean;
}

interface Found {
  readonly label?: Label;
  readonly cut: boolean;
  readonly work: number;
  /** Nothing was left out for the sake of the verdict that was wanted. */
  readonly isWhole: boolean;
}

class Choice {
  readonly #terms: Terms;
  readonly #start: Place;
  readonly #target: Place;
  readonly #wanted: Wanted;
  readonly #expander: Expander;
  readonly #ahead: readonly number[];
  /** The target must be reached in service, where the goal wants that; each hop takes a day, but in windows. */
  readonly #finishBy: number;
  readonly #stones: Pool;
  readonly #targets: Pool;
  /** Nothing was left out for the sake of the verdict that is wanted. */
  #isWhole: boolean;

  constructor(terms: Terms, ends: Ends, wanted: Wanted) {
    this.#terms = terms;
    this.#start = ends.start;
    this.#target = ends.target;
    this.#wanted = wanted;
    const cells = wanted.cells ?? true;
    this.#expander = new Expander(terms, wanted.run, { target: ends.target, cells, wary: wanted.wary });
    const usesCells = (wanted.run === 'best' && cells) || terms.learned.size > 0;
    const inPlace = wanted.wanted === 'straight' || wanted.wanted === 'by hops';
    const { hopsFrom, hopsFromNothing } = terms.model;
    this.#isWhole = !inPlace || ![hopsFromNothing, ...hopsFrom].some((hops) => hops.some(isFresh));
    this.#ahead = hopsAhead(terms.model, ends.target.release, { inPlace, cells: usesCells });
    const end = terms.serviceEnd[ends.target.release];
    const mustRest = !terms.goal.allow.restingOutOfService && terms.lifted.size === 0;
    this.#finishBy = mustRest && typeof end === 'number' ? end : Infinity;
    const twinned = this.#expander.mayPutOff;
    [this.#stones, this.#targets] = [new Pool(wanted.run, twinned), new Pool(wanted.run, twinned)];
  }

  find(): Found {
    const heap = new Heap<Item>((a, b) => this.#compare(a.label, b.label));
    heap.push({ label: startLabel(this.#terms, this.#start), asTarget: false });
    const key = targetKey(this.#target);
    let best: Label | undefined;
    let expanded = 0;
    const before = this.#terms.notes.work;
    const spent = (): Spent => ({
      labels: expanded,
      comparisons: this.#stones.work + this.#targets.work,
      clauses: this.#terms.notes.work - before
    });
    for (let item = heap.pop(); item && !isSpent(CHOICE_BUDGET, spent()); item = heap.pop()) {
      const { label, asTarget } = item;
      // Everything from here on is behind the one found; only its equals may still come before it by their ids.
      if (best && isBehind(label.criteria, best.criteria)) break;
      if ((asTarget ? this.#targets : this.#stones).hasDropped(label)) continue;
      if (asTarget && targetKey(label.at) === key && this.#expander.takesLowest(label)) {
        if (!best || compareByPreference(label.criteria, best.criteria) < 0) best = label;
        continue;
      }
      expanded++;
      for (const longer of this.#expander.next(item)) {
        if (!this.#mayGive(longer.label)) continue;
        const pool = longer.asTarget ? this.#targets : this.#stones;
        if (pool.insert(this.#expander.keyOf(longer), longer.label)) heap.push(longer);
      }
    }
    return {
      ...(best ? { label: best } : {}),
      cut: isSpent(CHOICE_BUDGET, spent()),
      work: workOf(spent()),
      isWhole: this.#isWhole
    };
  }

  /** Whether going on from here can give what is wanted; none of it is ever undone. */
  #mayGive({ criteria, at, moves }: Label): boolean {
    const { wanted, keptAtMost } = this.#wanted;
    if (this.#ahead[at.release] === undefined) return false;
    if (keptAtMost !== undefined && criteria.keptRank > keptAtMost) return false;
    const daysAhead = this.#terms.calendar?.hasWindows ? 0 : (this.#ahead[at.release] ?? 0);
    if (criteria.finish + daysAhead > this.#finishBy) return false;
    const gives =
      (wanted === 'not yet' || criteria.waits <= this.#terms.today) &&
      (wanted === 'straight'
        ? moves.length === 1 && moves[0]?.kind === 'in place' && targetKey(at) === targetKey(this.#target)
        : wanted !== 'by hops' || !criteria.hasFresh);
    this.#isWhole &&= gives;
    return gives;
  }

  #compare(a: Label, b: Label): number {
    const [x, y] = [this.#ahead[a.at.release] ?? 0, this.#ahead[b.at.release] ?? 0];
    return comparePartly(a.criteria, x, b.criteria, y) || a.moves.length - b.moves.length;
  }
}

const isFresh = ({ hop }: ProductModel['hopsFrom'][number][number]): boolean => hop.kind === 'fresh install';

/** The order of preference as far as numbers go, with the hops that are still to come. */
function comparePartly(a: Criteria, aheadOfA: number, b: Criteria, aheadOfB: number): number {
  return (
    a.keptRank - b.keptRank ||
    a.risks.length - b.risks.length ||
    a.hops + aheadOfA - b.hops - aheadOfB ||
    compareAmounts(a, b) ||
    Number(b.finishExact) - Number(a.finishExact) ||
    a.finish - b.finish ||
    a.steps - b.steps
  );
}

const isBehind = (label: Criteria, best: Criteria): boolean => comparePartly(best, 0, label, 0) < 0;

const AHEAD = new WeakMap<ProductModel, Map<string, readonly number[]>>();

/** Whether by hops in place alone; whether by empty cells too. */
interface By {
  readonly inPlace: boolean;
  readonly cells: boolean;
}

/** The least number of release hops from each release to one, whatever their clauses; none where no hop leads there. */
export function hopsAhead(model: ProductModel, target: number, by: By): readonly number[] {
  const made = AHEAD.get(model) ?? new Map<string, readonly number[]>();
  AHEAD.set(model, made);
  const key = `${target} ${by.inPlace} ${by.cells}`;
  const known = made.get(key);
  if (known) return known;
  const ahead: number[] = [];
  ahead[target] = 0;
  for (let layer = [target], n = 1; layer.length > 0; n++) {
    layer = model.releases.flatMap(({ index }) => {
      if (ahead[index] !== undefined || !layer.some((to) => leads(model, index, to, by))) return [];
      return [index];
    });
    for (const index of layer) ahead[index] = n;
  }
  const fromNothing = model.hopsFromNothing.flatMap((h) => ahead[h.to] ?? []);
  if (fromNothing.length > 0) ahead[NOTHING] = Math.min(...fromNothing) + 1;
  made.set(key, ahead);
  return ahead;
}

function leads(model: ProductModel, from: number, to: number, { inPlace, cells }: By): boolean {
  const isHop = model.hopsFrom[from]?.some((h) => h.to === to && (!inPlace || h.hop.kind === 'in place'));
  const isCell =
    cells &&
    !model.tableComplete &&
    from < to &&
    model.releases[from]?.strand === model.releases[to]?.strand &&
    !isForbidden(model, from, to);
  return (isHop ?? false) || isCell;
}
