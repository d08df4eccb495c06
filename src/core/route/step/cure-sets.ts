import { compareText } from '../../kit';
import { type CureModel, type NeedModel, type ProductModel, readersOf } from '../../compile';
import { factsIn } from '../../condition';
import type { Asked, AskFinding } from '../asked';
import { clauseKey } from '../reason';

/** Most sets of cures asked about at one step: work counted, never time. Past it what was found counts, and it is told. */
const MOST_ASKED = 6000;

/** Asks a step with a set of cures, each set once however often it is come by. */
export class CureSets {
  readonly #model: ProductModel;
  readonly #byFact: ReadonlyMap<string, readonly CureModel[]>;
  readonly #ask: (cures: readonly CureModel[]) => Asked;
  readonly #asked = new Map<string, Asked>();
  cut = false;

  /** `cures`: those that may be taken at all; at most one a fact is. */
  constructor(model: ProductModel, cures: readonly CureModel[], ask: (cures: readonly CureModel[]) => Asked) {
    this.#model = model;
    this.#ask = ask;
    const byFact = new Map<string, CureModel[]>();
    for (const cure of cures) {
      const list = byFact.get(cure.cure.fact);
      if (list) list.push(cure);
      else byFact.set(cure.cure.fact, [cure]);
    }
    this.#byFact = byFact;
  }

  ask(cures: readonly CureModel[]): Asked {
    const sorted = [...cures].sort(byId);
    const key = idsOf(sorted);
    const known = this.#asked.get(key);
    if (known) return known;
    const asked = this.#ask(sorted);
    this.#asked.set(key, asked);
    return asked;
  }

  /** Sets asked about. */
  get asked(): number {
    return this.#asked.size;
  }

  get #isTired(): boolean {
    return this.#asked.size >= MOST_ASKED;
  }

  /**
   * Every inclusion-minimal set with which all that closes holds, smaller first, then by ids. What must be cured is taken
   * first: a set in which something does not hold yet grows by each cure of a fact that thing turns on, since any set in
   * which it holds has one of these. Exponential in alternatives only: as many as there are least sets, and no more than
   * `MOST_ASKED` are asked about.
   */
  findLeast(isMet: (finding: AskFinding) => boolean): Asked[] {
    const found: Asked[] = [];
    const seen = new Set<string>(['']);
    let layer: CureModel[][] = [[]];
    while (layer.length > 0) {
      const next: CureModel[][] = [];
      for (const set of layer) {
        if (found.some((f) => isWithin(f.cures, set))) continue;
        if (this.#isTired) {
          this.cut = true;
          return sorted(found);
        }
        const asked = this.ask(set);
        const open = asked.findings.filter((f) => !isMet(f));
        if (open.length === 0) found.push(asked);
        else
          for (const cure of this.#fewest(open, set)) {
            const longer = [...set, cure].sort(byId);
            const key = idsOf(longer);
            if (seen.has(key)) continue;
            seen.add(key);
            next.push(longer);
          }
      }
      layer = next;
    }
    return sorted(found.filter((a) => !found.some((b) => b !== a && isWithin(b.cures, a.cures))));
  }

  /**
   * Every set that may be of use where up to `most` clauses are to be lifted: what is open is left or cured, one after the
   * other; what was `left` before on the way is left again, where curing it would serve nothing else. Sets in which no less
   * holds than in one of fewer cures are left out.
   */
  findUseful(most: number, before: readonly string[] = []): Asked[] {
    const found: Asked[] = [];
    const seen = new Set<string>();
    const leftBefore = new Set(before);
    const isLeft = (f: AskFinding): boolean => leftBefore.has(clauseKey(f)) && this.#isAlone(f);
    const go = (set: readonly CureModel[], left: ReadonlySet<string>): void => {
      const key = `${idsOf(set)}|${[...left].sort().join(',')}`;
      if (seen.has(key)) return;
      seen.add(key);
      if (this.#isTired || seen.size > MOST_ASKED) return void (this.cut = true);
      const asked = this.ask(set);
      const first = asked.findings.find((f) => !left.has(clauseKey(f)) && !isLeft(f));
      if (!first) return void found.push(asked);
      for (const cure of this.#curesOf(first, set)) go([...set, cure].sort(byId), left);
      const now = new Set([...left, clauseKey(first)]);
      if ([...now].filter((k) => !leftBefore.has(k)).length + leftBefore.size <= most) go(set, now);
    };
    go([], new Set());
    const bySize = sorted([...new Set(found)]);
    return bySize.filter(
      (a, i) => !bySize.slice(0, i).some((b) => isWithin(b.cures, a.cures) && isWithinFindings(b, a))
    );
  }

  /** Whether nothing else turns on the facts that cures of this would change. */
  #isAlone(finding: AskFinding): boolean {
    return this.#curesOf(finding, []).every(({ cure }) => readersOf(this.#model, cure.fact) <= 1);
  }

  /** The cures of what has fewest: what can be cured in one way only is settled first. */
  #fewest(open: readonly AskFinding[], set: readonly CureModel[]): readonly CureModel[] {
    let fewest: readonly CureModel[] | undefined;
    for (const finding of open) {
      const cures = this.#curesOf(finding, set);
      if (!fewest || cures.length < fewest.length) fewest = cures;
      if (fewest.length === 0) break;
    }
    return fewest ?? [];
  }

  #curesOf(finding: AskFinding, set: readonly CureModel[]): readonly CureModel[] {
    return factsBehind(this.#model.needs, finding)
      .filter((fact) => !set.some((c) => c.cure.fact === fact))
      .flatMap((fact) => this.#byFact.get(fact) ?? []);
  }
}

const byId = (a: CureModel, b: CureModel): number =>
  a.cure.id < b.cure.id ? -1 : a.cure.id > b.cure.id ? 1 : 0;
const idsOf = (cures: readonly CureModel[]): string => cures.map((c) => c.cure.id).join(' ');
/** Whether every cure of the first is one of the second. */
export const isWithin = (a: readonly CureModel[], b: readonly CureModel[]): boolean =>
  a.every((c) => b.includes(c));
const isWithinFindings = (a: Asked, b: Asked): boolean =>
  a.findings.every((f) => b.findings.some((g) => g.code === f.code && g.subject === f.subject));

function sorted(found: readonly Asked[]): Asked[] {
  const keyed = found.map((asked) => ({ asked, ids: idsOf(asked.cures) }));
  return keyed
    .sort((a, b) => a.asked.cures.length - b.asked.cures.length || compareText(a.ids, b.ids))
    .map((k) => k.asked);
}

/** The facts whether a clause holds turns on, each once: only their cures can mend it. */
function factsBehind(needs: NeedModel, { code, subject }: AskFinding): readonly string[] {
  switch (code) {
    case 'requirement':
    case 'site demand': {
      const demand = needs.demands.find(
        (d) => d.requirement.id === subject && d.isSite === (code === 'site demand')
      );
      return factsIn([demand?.when, demand?.needs]);
    }
    case 'companion':
      return factsIn(
        needs.companions.find((c) => c.companion.id === subject)?.fares.map((f) => f.when) ?? []
      );
    case 'caution':
      return factsIn([needs.cautions.find((c) => c.caution.id === subject)?.when]);
    case 'space':
      return [subject];
    case 'cure limit':
      return ['model'];
    default:
      return [];
  }
}
