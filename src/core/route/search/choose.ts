import { NOTHING, type Place, targetKey } from '../../compile';
import type { Run } from '../../condition';
import type { Day } from '../../date';
import { CHOICE_BUDGET, isSpent, type Spent, workOf } from './budget';
import { type Ahead, aheadOf, type LeastKeeping } from './ahead';
import { carefulMinutesOf } from '../days/lay-days';
import { Expander, type Item, searchWarily, type Step } from './expand';
import { Heap } from '../../kit';
import {
  compareByPreference,
  compareSums,
  isBeatenWhateverItRestsOn,
  startLabel,
  keptRankOf,
  type Criteria,
  type Label
} from './label';
import { listOpenings, type Opening } from '../move';
import { shutFor, type StandingRisk, standingRisks } from '../step/on-arrival';
import { goesAlike, type LaidDays, laidDaysOf, shifted } from './other-days';
import { Pool } from './pool';
import { type Ends, noted, type Terms } from '../terms';
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

export interface ChooseOptions {
  /** Any open route will do: the first by preference of them all, whatever verdict others give. */
  readonly anyOpen?: boolean;
  /** Whether empty cells count in the best run. */
  readonly cells?: boolean;
}

/**
 * The verdict of one target in one run, and its chosen route, without looking at all the others.
 *
 * A route's place in the order of preference never gets better by going on, so labels are worked off in that order, with
 * the least that is still ahead added (A*: P. Hart, N. Nilsson, B. Raphael, 1968): the first target met is the one. A step
 * is looked at when its turn has come, not when what it leaves from has (partial expansion: T. Yoshizumi, T. Miura, T. Ishida, 2000).
 * Kinds of verdict are asked for from the best on; each leaves out what cannot give it.
 * Gives exactly what `findRoutes` with `verdictOf` and `chosenOf` gives. Cost: far fewer labels.
 */
export function findChosen(terms: Terms, ends: Ends, run: Run, options: ChooseOptions = {}): Chosen {
  const key = keyOf(terms, ends, run, options);
  if (key === undefined) return choose(terms, ends, run, options).chosen;
  const made = CHOSEN.get(terms.memo) ?? new Map<string, Made[]>();
  CHOSEN.set(terms.memo, made);
  const known = made.get(key) ?? [];
  made.set(key, known);
  const same = known.find(({ laid }) => laid.from === terms.from);
  if (same) return same.chosen;
  const alike = known.find(({ laid }) => goesAlike(terms, ends, laid));
  const found = alike ? onDayOf(terms, alike) : choose(terms, ends, run, options);
  known.push(found);
  return found.chosen;
}

/** In one order, and never one for another. */
const namesOf = (barred: Terms['barred']): string =>
  barred.size === 0 ? '' : JSON.stringify([...barred.keys()].sort());

/** A choice, and the days it was made on. */
interface Made {
  readonly chosen: Chosen;
  readonly laid: LaidDays;
}

/** The same choice from another day. */
function onDayOf({ from }: Terms, { chosen, laid }: Made): Made {
  const days = from - laid.from;
  const { label } = chosen;
  return {
    chosen: label ? { ...chosen, label: shifted(label, days) } : chosen,
    laid: { ...laid, from, last: laid.last + days }
  };
}

/** By what belongs to everything a choice hangs on but its ends, days, bars and facts at the start: cases that share it choose alike. By all of these but the first day. */
const CHOSEN = new WeakMap<Terms['memo'], Map<string, Made[]>>();

/** Undefined where a choice hangs on more than what is remembered belongs to. */
function keyOf(terms: Terms, { start, target }: Ends, run: Run, options: ChooseOptions): string | undefined {
  if (terms.way || terms.round || terms.lifted.size + terms.learned.size > 0) return undefined;
  if (terms.model.needs.pairings.length > 0) return undefined;
  const { anyOpen, cells } = options;
  const { today, leadsFrom, along, barred } = terms;
  return `${targetKey(start)} ${start.patch} ${targetKey(target)} ${run} ${anyOpen} ${cells} ${today} ${leadsFrom} ${namesOf(barred)} ${along.key}`;
}

function choose(given: Terms, ends: Ends, run: Run, options: ChooseOptions): Made {
  const terms = noted(given);
  const chosen = chooseOn(terms, ends, run, options);
  return { chosen, laid: laidDaysOf(terms, terms.notes) };
}

function chooseOn(terms: Terms, ends: Ends, run: Run, options: ChooseOptions): Chosen {
  let cut = false;
  let work = 0;
  if (ends.start.release !== ends.target.release && shutFor(terms)[ends.target.release])
    return { verdict: 'closed', met: terms.notes.met, cut, work };
  if (run === 'sure' && mayLeadOverCells(terms, ends)) terms.notes.meet('cell');
  for (const wanted of options.anyOpen ? (['not yet'] as const) : KINDS) {
    if (wanted === 'straight' && !mayBeStraight(terms, ends, run, options)) continue;
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

/**
 * Whether a way over empty cells may lead there: an unknown that a sure run meets at once, since what leads nowhere without them is never
 * gone on from.
 */
const mayLeadOverCells = (terms: Terms, ends: Ends): boolean =>
  hasEmptyCells(terms.model) && ends.start.release !== NOTHING && mayLeadTo(terms, ends);

/** Whether any hop, published or not, lies between a start and a target, whatever it asks: where none does it is closed for certain. */
export function mayLeadTo({ model }: Terms, { start, target }: Ends): boolean {
  const by = { inPlace: false, cells: true, levels: false };
  return (
    start.release === target.release ||
    aheadOf(model, target.release, by).hopsFrom(start.release) !== undefined
  );
}

/** Whether any cell of the hop table, or of a hop's own table of editions, is neither yes nor no. */
const hasEmptyCells = ({ tableComplete, hopsFrom }: Terms['model']): boolean =>
  !tableComplete || hopsFrom.some((hops) => hops.some((h) => h.hop.editionsPartial === true));

/** Whether any one step leads there, whatever it asks. */
function mayBeStraight(
  { model, learned, barred }: Terms,
  { start, target }: Ends,
  run: Run,
  { cells = true }: ChooseOptions
): boolean {
  const key = targetKey(target);
  return listOpenings(model, start, (cells && run === 'best') || learned.size > 0).some(
    (o) => o.kind === 'in place' && targetKey(o.to) === key && !barred.has(o.id)
  );
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

/** A label to go on from, or a step from one that has not been looked at: with the least any way through it comes to. */
interface Entry {
  readonly label: Label;
  readonly asTarget: boolean;
  readonly step: Step | undefined;
  readonly kept: number;
  readonly risks: number;
  readonly hops: number;
  readonly mostMinutes: number;
  readonly leastMinutes: number;
  readonly finish: number;
  readonly steps: number;
  readonly moves: number;
}

interface LeastAhead {
  readonly kept: number;
  readonly risks: number;
  readonly hops: number;
  readonly minutes: number;
}

class Choice {
  readonly #terms: Terms;
  readonly #start: Place;
  readonly #target: Place;
  readonly #wanted: Wanted;
  readonly #expander: Expander;
  readonly #ahead: Ahead;
  /** What is ahead at least on ways around each of the standing risks. */
  readonly #around: readonly { readonly risk: StandingRisk; readonly ahead: Ahead }[];
  /** The target must be reached in service, where the goal wants that; each hop takes a day, but in windows. */
  readonly #finishBy: number;
  readonly #daysAHop: number;
  readonly #stones: Pool;
  readonly #targets: Pool;
  readonly #heap = new Heap<Entry>(compareEntries);
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
    const by = { inPlace, cells: usesCells, levels: terms.lifted.size === 0 };
    this.#ahead = aheadOf(terms.model, ends.target.release, by);
    const every = inPlace && aheadOf(terms.model, ends.target.release, { ...by, inPlace: false });
    this.#isWhole = !every || !every.leadsAfresh;
    this.#around = standingRisks(terms, wanted.run).map((risk) => ({
      risk,
      ahead: aheadOf(terms.model, ends.target.release, { ...by, around: risk })
    }));
    const end = terms.serviceEnd[ends.target.release];
    const mustRest = !terms.goal.allow.restingOutOfService && terms.lifted.size === 0;
    this.#finishBy = mustRest && typeof end === 'number' ? end : Infinity;
    this.#daysAHop = terms.calendar?.hasWindows ? 0 : 1;
    const twinned = this.#expander.mayPutOff;
    // In the best run it is asked whether, and by the first way by preference: not over which unknowns there are ways.
    const beats = wanted.run === 'best' ? isBeatenWhateverItRestsOn : undefined;
    [this.#stones, this.#targets] = [0, 1].map(() => new Pool(wanted.run, twinned, beats)) as [Pool, Pool];
  }

  find(): Found {
    const key = targetKey(this.#target);
    this.#push({ label: startLabel(this.#terms, this.#start), asTarget: false });
    let best: Label | undefined;
    let expanded = 0;
    const before = this.#terms.notes.work;
    const spent = (): Spent => ({
      labels: expanded,
      comparisons: this.#stones.work + this.#targets.work,
      clauses: this.#terms.notes.work - before
    });
    for (let entry = this.#heap.pop(); entry && !isSpent(CHOICE_BUDGET, spent()); entry = this.#heap.pop()) {
      const { label, asTarget, step } = entry;
      // Everything from here on is behind the one found; only its equals may still come before it by their ids.
      if (best && isBehind(entry, best.criteria)) break;
      if ((asTarget ? this.#targets : this.#stones).hasDropped(label)) continue;
      if (step) this.#take(label, step);
      else if (asTarget && targetKey(label.at) === key && this.#expander.takesLowest(label)) {
        if (!best || compareByPreference(label.criteria, best.criteria) < 0) best = label;
      } else {
        expanded++;
        for (const next of this.#expander.stepsFrom(entry)) this.#push(entry, next);
      }
    }
    return {
      ...(best ? { label: best } : {}),
      cut: isSpent(CHOICE_BUDGET, spent()),
      work: workOf(spent()),
      isWhole: this.#isWhole
    };
  }

  /** Looks at a step when nothing better can come of any other. */
  #take(from: Label, { opening, asTarget }: Step): void {
    for (const label of this.#expander.take(from, opening, asTarget)) {
      if (!this.#mayGive(label)) continue;
      const item = { label, asTarget };
      const pool = asTarget ? this.#targets : this.#stones;
      if (pool.insert(this.#expander.keyOf(item), label)) this.#push(item);
    }
  }

  /** Puts by a label, or a step from it, with what is ahead of where that stands; not what can give nothing that is wanted. */
  #push({ label, asTarget }: Item, step?: Step): void {
    const { criteria: sum, moves } = label;
    const opening = step?.opening;
    if (opening && this.#isElse(moves.length, opening)) {
      if (this.#wanted.wanted === 'straight') this.#isWhole = false;
      return;
    }
    const kept = opening ? Math.max(sum.keptRank, keptRankOf(opening)) : sum.keptRank;
    const taken = opening ? 1 : 0;
    const ahead = this.#leastAhead(label, opening, kept);
    if (!ahead) return;
    const minutes = (ahead.minutes + (opening ? carefulMinutesOf(opening) : 0)) * this.#terms.nodes;
    this.#heap.push({
      label,
      asTarget,
      step,
      kept: ahead.kept,
      risks: ahead.risks,
      hops: sum.hops + taken + ahead.hops,
      mostMinutes: sum.most.carefulMinutes + minutes,
      leastMinutes: sum.least.carefulMinutes + minutes,
      finish: sum.finish + (taken + ahead.hops) * this.#daysAHop,
      steps: sum.steps + taken + ahead.hops,
      moves: moves.length + taken
    });
  }

  /**
   * The least that is ahead behind a label, or behind a step from it: a standing risk that has not been met is met where no way around it keeps
   * as much; else what is ahead around it counts, since all other ways have one risk more.
   */
  #leastAhead({ at, criteria }: Label, opening: Opening | undefined, kept: number): LeastAhead | undefined {
    const to = opening?.to ?? at;
    const arrives = criteria.finish + (opening ? this.#daysAHop : 0);
    const least = this.#inTime(this.#ahead, { to, kept, arrives });
    if (!least) return undefined;
    let risks = criteria.risks.length;
    let { hops, minutes } = least;
    for (const { risk, ahead } of this.#around) {
      if (criteria.risks.includes(risk.key)) continue;
      const isMet = opening !== undefined && opening.kind !== 'edition change' && risk.at[to.release];
      const around = isMet ? undefined : this.#inTime(ahead, { to, kept, arrives });
      if (!around || around.kept > least.kept) risks++;
      else if (around.hops > hops || (around.hops === hops && around.minutes > minutes))
        ({ hops, minutes } = around);
    }
    return { kept: least.kept, risks, hops, minutes };
  }

  /** With as much kept as ways that end in time can keep. */
  #inTime(
    ahead: Ahead,
    { to, kept, arrives }: { readonly to: Place; readonly kept: number; readonly arrives: Day }
  ): LeastKeeping | undefined {
    let least = ahead.from(to, kept);
    while (least && !this.#isInTime(arrives + least.hops * this.#daysAHop))
      least = ahead.from(to, least.kept + 1);
    return least;
  }

  /** Whether a day is early enough to finish on. */
  #isInTime(day: Day): boolean {
    const { notes } = this.#terms;
    notes.lastLaid = Math.max(notes.lastLaid, day);
    return day <= this.#finishBy;
  }

  /** Whether a step gives another kind of verdict than is wanted, whatever comes of it. */
  #isElse(taken: number, { kind, to }: Opening): boolean {
    const { wanted } = this.#wanted;
    if (wanted === 'straight')
      return taken > 0 || kind !== 'in place' || targetKey(to) !== targetKey(this.#target);
    return wanted === 'by hops' && kind === 'fresh install';
  }

  /** Whether going on from here can give what is wanted; none of it is ever undone. */
  #mayGive({ criteria, at, moves }: Label): boolean {
    const { wanted } = this.#wanted;
    const hopsAhead = this.#ahead.hopsFrom(at.release);
    if (hopsAhead === undefined) return false;
    if (!this.#isInTime(criteria.finish + hopsAhead * this.#daysAHop)) return false;
    const gives =
      (wanted === 'not yet' || criteria.waits <= this.#terms.today) &&
      (wanted === 'straight'
        ? moves.length === 1 && moves[0]?.kind === 'in place' && targetKey(at) === targetKey(this.#target)
        : wanted !== 'by hops' || !criteria.hasFresh);
    this.#isWhole &&= gives;
    return gives;
  }
}

/** The order of preference as far as numbers go, with what is still to come. */
const compareEntries = (a: Entry, b: Entry): number =>
  a.kept - b.kept ||
  a.risks - b.risks ||
  a.hops - b.hops ||
  compareSums(a.label.criteria, b.label.criteria) ||
  a.mostMinutes - b.mostMinutes ||
  a.leastMinutes - b.leastMinutes ||
  Number(b.label.criteria.finishExact) - Number(a.label.criteria.finishExact) ||
  a.finish - b.finish ||
  a.steps - b.steps ||
  a.moves - b.moves;

/** Whether whatever comes of an entry is behind one that is there. */
const isBehind = (entry: Entry, best: Criteria): boolean =>
  (best.keptRank - entry.kept ||
    best.risks.length - entry.risks ||
    best.hops - entry.hops ||
    compareSums(best, entry.label.criteria) ||
    best.most.carefulMinutes - entry.mostMinutes ||
    best.least.carefulMinutes - entry.leastMinutes ||
    Number(entry.label.criteria.finishExact) - Number(best.finishExact) ||
    best.finish - entry.finish ||
    best.steps - entry.steps) < 0;
