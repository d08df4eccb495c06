import { compareText } from '../../kit';
import { readSwitch, type Run, type Seen, type Truth, truthOf } from '../../condition';
import { startAlong } from '../along';
import { type Place, targetKey } from '../../compile';
import { type Chosen, findChosen } from '../search/choose';
import type { Label } from '../search/label';
import { findReach, findStraightCells } from '../search/reach';
import { findRoutes } from '../search/search';
import { termsWith, type Terms } from '../terms';
import type { Verdict } from '../types';
import { atomsBehind, nameOfAtom, type Atom } from './unknowns';
import { isBetter } from '../search/verdict';

const MAX_TOGETHER = 3;
const MAX_TRIALS = 2500;
/** Work of all the searches; see `workOf`. */
const MOST_WORK = 1_500_000;

export interface Questions {
  /** Least sets of unknowns that settle the verdict, fewest first. */
  readonly sets: readonly (readonly Atom[])[];
  /** Where none settles it: every unknown that can change what is said. */
  readonly matter: readonly Atom[];
  /** Not everything was tried. */
  readonly cut: boolean;
}

type Answer = Seen | Truth;
type Answers = ReadonlyMap<Atom, Answer>;

/**
 * What to find out first: least sets, of up to three unknowns, with which the verdict of a target is settled
 * whatever they turn out to be - sure and best are then the same. Every answer out of every piece is tried.
 * Cost: two searches for a chosen route a trial, at most 2,500 trials; one for all routes an answer, until `MOST_WORK` is spent.
 */
export function findQuestions(terms: Terms, start: Place, target: Place): Questions {
  const asking = new Asking(terms, start, target);
  const sets: Atom[][] = [];
  if (asking.isSettled(new Map())) return { sets, matter: [], cut: false };
  const first = asking.atoms();
  // What ways rest on once something is answered settles nothing that these do not: with more needed than go together, no set does.
  if (asking.neededIn(first, MAX_TOGETHER + 1).length > MAX_TOGETHER)
    return { sets, matter: first.filter((a) => asking.matters(a)), cut: asking.isTired };
  const atoms = asking.furtherAtoms(first);
  const needed = asking.neededIn(atoms);
  for (let size = 1; size <= Math.min(MAX_TOGETHER, atoms.length) && !asking.isTired; size++)
    for (const set of choose(atoms, size)) {
      if (!needed.every((a) => set.includes(a))) continue;
      if (sets.some((s) => s.every((a) => set.includes(a)))) continue;
      if (asking.settles(set) && !asking.isTired) sets.push(set);
      if (asking.isTired) break;
    }
  // Where not everything could be tried, all that may matter is named.
  const matter = sets.length > 0 ? [] : asking.isTired ? atoms : atoms.filter((a) => asking.matters(a));
  return { sets, matter, cut: asking.isTired };
}

/** Every way to choose so many out of a list, in its order. */
function choose<T>(list: readonly T[], size: number): T[][] {
  if (size === 0) return [[]];
  return list.flatMap((item, i) => choose(list.slice(i + 1), size - 1).map((rest) => [item, ...rest]));
}

class Asking {
  readonly #terms: Terms;
  readonly #start: Place;
  readonly #target: Place;
  readonly #known = new Map<string, readonly [Verdict, Verdict]>();
  #work = 0;

  constructor(terms: Terms, start: Place, target: Place) {
    this.#terms = terms;
    this.#start = start;
    this.#target = target;
  }

  get isTired(): boolean {
    return this.#known.size >= MAX_TRIALS || this.#work >= MOST_WORK;
  }

  /** What the routes of the best run rest on as things are. */
  atoms(): Atom[] {
    return this.#atomsWith(new Map());
  }

  /** With what they rest on where any one of these is answered. */
  furtherAtoms(first: readonly Atom[]): Atom[] {
    const further = first.flatMap((atom) =>
      answersTo(atom).flatMap((answer) => (this.isTired ? [] : this.#atomsWith(new Map([[atom, answer]]))))
    );
    const byName = new Map([...further, ...first].map((atom) => [nameOfAtom(atom), atom]));
    return [...byName].sort((a, b) => compareText(a[0], b[0])).map(([, atom]) => atom);
  }

  #atomsWith(answers: Answers): Atom[] {
    const terms = learn(this.#terms, answers);
    const { routes, work } = findRoutes(terms, this.#start, 'best', { target: this.#target });
    this.#work += work;
    const labels = [...(routes.get(targetKey(this.#target)) ?? []), ...this.#overCells(terms)];
    return atomsBehind(terms, [...new Set(labels.flatMap((l) => l.criteria.restsOn))]);
  }

  /** Of ways over empty cells the straight one, else one of the fewest: what a person can ask about. */
  #overCells(terms: Terms): readonly Label[] {
    const straight = findStraightCells(terms, this.#start, this.#target).get(targetKey(this.#target));
    if (straight || terms.model.tableComplete) return straight ? [straight] : [];
    const { routes, work } = findReach(terms, this.#start, this.#target);
    this.#work += work;
    return (routes.get(targetKey(this.#target)) ?? []).slice(0, 1);
  }

  /**
   * Those that every set which settles the verdict has to have: with all the others answered, each as one would hope, it is not settled
   * yet, and knowing less does not settle it either. Not more than so many of them.
   */
  neededIn(atoms: readonly Atom[], most = Infinity): Atom[] {
    const hopeful = atoms.map((atom) => [atom, this.#mostHopeful(atom)] as const);
    const needed: Atom[] = [];
    for (const atom of atoms) {
      if (this.isTired || needed.length >= most) break;
      if (!this.isSettled(new Map(hopeful.filter(([other]) => other !== atom)))) needed.push(atom);
    }
    return needed;
  }

  /** The answer that alone leaves the best verdict open; of several the last. */
  #mostHopeful(atom: Atom): Answer {
    // Knowing more never opens more: what leaves as much open as there is now is the most there may be.
    const most = this.#verdicts(new Map())[1];
    let hopeful: Answer = 'yes';
    let best: Verdict = 'closed';
    for (const answer of answersTo(atom).toReversed()) {
      const hope = this.isTired ? 'closed' : this.#verdicts(new Map([[atom, answer]]))[1];
      if (hope === most) return answer;
      if (isBetter(hope, best)) [best, hopeful] = [hope, answer];
    }
    return hopeful;
  }

  isSettled(answers: Answers): boolean {
    const [sure, best] = this.#verdicts(answers);
    return sure === best;
  }

  /** Settled whatever the answers are. */
  settles(set: readonly Atom[], answers: Answers = new Map()): boolean {
    const [atom, ...rest] = set;
    if (!atom) return this.isSettled(answers);
    return answersTo(atom).every(
      (a) => !this.isTired && this.settles(rest, new Map([...answers, [atom, a]]))
    );
  }

  /** Some answer to it alone changes what is said. */
  matters(atom: Atom): boolean {
    const before = this.#verdicts(new Map()).join();
    return answersTo(atom).some(
      (a) => !this.isTired && this.#verdicts(new Map([[atom, a]])).join() !== before
    );
  }

  #verdicts(answers: Answers): readonly [Verdict, Verdict] {
    const key = [...answers]
      .map(([atom, a]) => `${nameOfAtom(atom)}=${JSON.stringify(a)}`)
      .sort()
      .join(';');
    const known = this.#known.get(key);
    if (known) return known;
    const terms = learn(this.#terms, answers);
    const at = (run: Run): Chosen => {
      const chosen = findChosen(terms, { start: this.#start, target: this.#target }, run);
      this.#work += chosen.work;
      return chosen;
    };
    const { verdict: sure, met } = at('sure');
    // Nothing is better than straight, and where nothing unknown was met the other run goes the same.
    const best = sure === 'straight' || met.size === 0 ? sure : at('best').verdict;
    const verdicts = [sure, isBetter(best, sure) ? best : sure] as const;
    this.#known.set(key, verdicts);
    return verdicts;
  }
}

const answersTo = (atom: Atom): readonly Answer[] => (atom.kind === 'fact' ? atom.cells : ['yes', 'no']);

/** The terms with answers taken for known. */
function learn(terms: Terms, answers: ReadonlyMap<Atom, Answer>): Terms {
  const facts = new Map(terms.along.facts);
  const learned = new Map(terms.learned);
  let { activated } = terms;
  for (const [atom, answer] of answers) {
    if (atom.kind === 'clause') learned.set(atom.key, answer as Truth);
    else {
      facts.set(atom.fact, answer as Seen);
      if (atom.fact === 'activated') activated = readTruth(answer as Seen);
    }
  }
  return termsWith(terms, { along: startAlong(facts, terms.along.nodes), learned, activated });
}

function readTruth(seen: Seen): Truth {
  const word = seen.kind === 'known' ? readSwitch(seen.value) : undefined;
  return word === undefined ? 'unknown' : truthOf(word === 'on');
}
