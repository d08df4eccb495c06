import type { Run } from '../condition/truth';
import { readDay, type DateInterval } from '../date/interval';
import { compareByPreference, extendLabel, isBeaten, startLabel, type Label } from './label';
import { findRestFaults } from './judge';
import { listOpenings, turnsBack, type Move, type Opening, type Place } from './move';
import type { Terms } from './terms';

export interface SearchOptions {
  /** Expanded labels after which the search stops with what it has. */
  readonly budget: number;
}

const DEFAULT_BUDGET = 50_000;

export interface SearchResult {
  /** Per target (`targetKey`): the unbeaten routes, in the site's order of preference. */
  readonly routes: ReadonlyMap<string, readonly Label[]>;
  readonly expanded: number;
  /** True when the budget ended the search, so that better routes may exist. */
  readonly cut: boolean;
}

export const targetKey = (place: Omit<Place, 'patch'>): string =>
  `${place.release} ${place.edition} ${place.architecture}`;

/**
 * Finds the routes from one start to every target, in one run (RECKONING B, C, E).
 *
 * Labels are worked off first in, first out, so shorter routes come first. From each label, for each counted step
 * the catalogue knows:
 * 1. A step that turns back is left out.
 * 2. As a stepping stone the step takes the lowest patch level at which all clauses hold. It goes on from there.
 * 3. As a target the same is judged anew, with settling, resting and months left. From a target only steps inside
 *    its release go on.
 * 4. A label is dropped where another at the same standing is no worse in everything that can still matter.
 * Must not: invent steps, look at the clock, depend on the order of the catalogue's hops.
 * Cost: expanded labels x openings x levels x moves.
 */
export function findRoutes(
  terms: Terms,
  start: Place,
  run: Run,
  options: SearchOptions = { budget: DEFAULT_BUDGET }
): SearchResult {
  const search = new Search(terms, start, run);
  return search.work(options.budget);
}

class Search {
  readonly #stones = new Pool();
  readonly #targets = new Pool();
  readonly #queue: { label: Label; asTarget: boolean }[] = [];
  readonly #terms: Terms;
  readonly #start: Place;
  readonly #run: Run;
  readonly #lastWait: number;

  constructor(terms: Terms, start: Place, run: Run) {
    this.#terms = terms;
    this.#start = start;
    this.#run = run;
    this.#lastWait = latestWait(terms);
  }

  work(budget: number): SearchResult {
    const start = startLabel(this.#terms, this.#start);
    this.#queue.push({ label: start, asTarget: false });
    let expanded = 0;
    for (let next = 0; next < this.#queue.length && expanded < budget; next++) {
      const item = this.#queue[next];
      if (!item || (item.asTarget ? this.#targets : this.#stones).hasDropped(item.label)) continue;
      expanded++;
      this.#expand(item.label, item.asTarget);
    }
    return { routes: this.#targets.byTarget(), expanded, cut: expanded >= budget };
  }

  #expand(label: Label, asTarget: boolean): void {
    for (const opening of listOpenings(this.#terms.model, label.at, this.#run === 'best')) {
      if (turnsBack(this.#terms.model, label.visited, opening.to)) continue;
      const inside = opening.to.release === label.at.release;
      if (asTarget) {
        if (inside) this.#add(label, opening, true);
        continue;
      }
      const stones = this.#add(label, opening, false);
      // Steps inside a release entered on the way go on from its target label instead.
      if (inside && label.moves.length > 0) continue;
      if (this.#isSettled(opening.to.release)) this.#alsoTarget(stones[0]);
      else this.#add(label, opening, true);
    }
  }

  #add(label: Label, opening: Opening, asTarget: boolean): readonly Label[] {
    const every = !asTarget && this.#isProne(opening.to.release, label.criteria.finish);
    const admitted = this.#admitLevels(label, opening, asTarget, every);
    for (const next of admitted) this.#keep(next, asTarget);
    return admitted;
  }

  #keep(label: Label, asTarget: boolean): void {
    const pool = asTarget ? this.#targets : this.#stones;
    if (pool.insert(this.#keyOf(label, asTarget), label)) this.#queue.push({ label, asTarget });
  }

  /** Settling days that are over change no day, so the stepping stone's label is the target's too, if it may rest. */
  #alsoTarget(stone: Label | undefined): void {
    if (!stone) return;
    const faults = findRestFaults(this.#terms, stone.moves, stone.judgement.schedule);
    if (faults.some((f) => f.truth === 'no' || this.#run === 'sure')) return;
    const label = {
      ...stone,
      judgement: { ...stone.judgement, findings: [...stone.judgement.findings, ...faults] }
    };
    this.#keep(label, true);
  }

  #isSettled(release: number): boolean {
    const published = this.#terms.publication[release];
    return (
      typeof published === 'number' &&
      published + this.#terms.goal.settlingDays <= Math.min(this.#terms.from, this.#terms.today)
    );
  }

  /** The lowest patch level that lets the step hold; all that do where the stay may yet be put off. */
  #admitLevels(label: Label, opening: Opening, asTarget: boolean, every: boolean): Label[] {
    const last = this.#terms.model.releases[opening.from.release]?.patches.length ?? 1;
    const admitted: Label[] = [];
    for (let level = opening.from.patch; level < last; level++) {
      const move: Move = { ...opening, level, to: arrivalOf(opening, level) };
      const next = extendLabel(this.#terms, label, move, asTarget, this.#run);
      if (!next) continue;
      admitted.push(next);
      if (!every) break;
    }
    return admitted;
  }

  /** Some later step could wait so long that the stay on this release would outlast the pass days. */
  #isProne(release: number, finish: number): boolean {
    const end = this.#terms.serviceEnd[release];
    return typeof end === 'number' && this.#lastWait > Math.max(end, finish) + this.#terms.goal.passDays;
  }

  /**
   * Labels are compared only where what lies ahead is the same for both: standing, what was stood on inside this
   * release (all of it where branches stand apart), and the steps that may still be put off.
   */
  #keyOf(label: Label, asTarget: boolean): string {
    const { at, moves, visited } = label;
    const all = this.#terms.model.hasStrands;
    const stood = visited
      .filter((v) => all || v.release === at.release)
      .map((v) => `${all ? v.release : ''}.${v.edition}.${v.architecture}`);
    const prone: string[] = [];
    for (let i = moves.length - 1; !asTarget && i >= 0; i--) {
      const move = moves[i];
      const arrived = label.judgement.schedule.days[i]?.hop.last ?? 0;
      if (!move || !this.#isProne(move.to.release, arrived)) break;
      prone.push(`${move.id}@${move.level}>${move.to.edition}.${move.to.architecture}`);
    }
    return `${targetKey(at)} ${at.patch}|${stood.sort().join(' ')}|${prone.join(' ')}`;
  }
}

/** An edition change keeps the patch level it was made at. */
const arrivalOf = (opening: Opening, level: number): Place =>
  opening.kind === 'edition change' ? { ...opening.to, patch: level } : opening.to;

/**
 * Unbeaten labels by key. Of two that differ only in patch levels the lower stays, whatever it costs (RECKONING B2):
 * one that was beaten since still rules out its higher twins.
 */
class Pool {
  readonly #labels = new Map<string, Label[]>();
  readonly #twins = new Map<string, Label[]>();
  readonly #dropped = new Set<Label>();

  insert(key: string, label: Label): boolean {
    const twins = twinsOf(this.#twins, `${key}|${skeletonOf(label)}`);
    if (twins.some((t) => isLowerTwin(t, label))) return false;
    const higher = new Set(twins.filter((t) => isLowerTwin(label, t)));
    twins.push(label);
    const others = (this.#labels.get(key) ?? []).filter((o) => !this.#dropIf(o, higher.has(o)));
    const beaten = others.some((o) => isBeaten(label.criteria, o.criteria));
    const kept = beaten
      ? others
      : [...others.filter((o) => !this.#dropIf(o, isBeaten(o.criteria, label.criteria))), label];
    this.#labels.set(key, kept);
    return !beaten;
  }

  #dropIf(label: Label, drop: boolean): boolean {
    if (drop) this.#dropped.add(label);
    return drop;
  }

  hasDropped(label: Label): boolean {
    return this.#dropped.has(label);
  }

  byTarget(): Map<string, Label[]> {
    const targets = new Map<string, Label[]>();
    for (const labels of this.#labels.values())
      for (const label of labels) {
        const key = targetKey(label.at);
        const list = targets.get(key);
        if (list) list.push(label);
        else targets.set(key, [label]);
      }
    for (const list of targets.values()) list.sort((a, b) => compareByPreference(a.criteria, b.criteria));
    return targets;
  }
}

function twinsOf(twins: Map<string, Label[]>, key: string): Label[] {
  const list = twins.get(key) ?? [];
  if (list.length === 0) twins.set(key, list);
  return list;
}

/** The counted steps without their patch levels. */
const skeletonOf = (label: Label): string =>
  label.moves.map((m) => `${m.id}>${m.to.edition}.${m.to.architecture}`).join(' ');

/** Of two with the same counted steps: no patch level higher and one lower. */
const isLowerTwin = (a: Label, b: Label): boolean =>
  a.moves.every((m, i) => m.level <= (b.moves[i]?.level ?? 0)) &&
  a.moves.some((m, i) => m.level < (b.moves[i]?.level ?? 0));

/** The latest day any step of this product could be kept waiting for; Infinity where one is unknown. */
function latestWait(terms: Terms): number {
  const { model, countsExpected, goal } = terms;
  const days: (number | 'unknown' | undefined)[] = [];
  const read = (date: DateInterval | undefined): void =>
    void (date && days.push(readDay(date, countsExpected)));
  for (const day of terms.publication)
    if (day !== undefined) days.push(day === 'unknown' ? day : day + goal.settlingDays);
  for (const release of model.releases) for (const patch of release.patches) read(patch.published);
  for (const hops of model.hopsFrom) for (const hop of hops) read(hop.opens);
  for (const changes of model.changesAt) for (const change of changes) read(change.opens);
  return days.reduce<number>(
    (latest, day) => Math.max(latest, day === undefined ? latest : day === 'unknown' ? Infinity : day),
    terms.today
  );
}
