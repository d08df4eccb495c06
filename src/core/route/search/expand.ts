import { type CureModel, NOTHING, type Place, targetKey } from '../../compile';
import { type DateInterval, parseDateText, readDay } from '../../date';
import { askEveryWay, askStep, isWithin } from '../step/ask';
import { extendLabel, restsOnOf, runOf, type Label, type Mode } from './label';
import { findRestFaults, judgeMoves } from '../days/judge';
import { arrivalOf, listOpenings, moveOf, openingAt, turnsBack, type Move, type Opening } from '../move';
import { isOffWay, isUnderItsRights, takesCures } from './on-way';
import { clauseKey, clauseOf } from '../reason';
import { stateKeyOf } from './state-key';
import { shutFor } from '../step/on-arrival';
import type { Terms } from '../terms';

/** A label, as a stepping stone or as a target. */
export interface Item {
  readonly label: Label;
  readonly asTarget: boolean;
}

/** A counted step before its patch level and cures are settled: as a stepping stone or as a target. */
export interface Step {
  readonly opening: Opening;
  readonly asTarget: boolean;
  /** As a target as well. */
  readonly alsoTarget?: boolean;
}

export interface ExpandOptions {
  /** The one target that is asked for. */
  readonly target?: Place | undefined;
  /** Whether empty cells count in the best run. */
  readonly cells?: boolean;
  /** Waits for windows, freezes and watch days may make a stay too long; see `searchWarily`. */
  readonly wary?: boolean;
}

/** How labels go on by one counted step, in one run, under one set of terms. */
export class Expander {
  readonly #terms: Terms;
  readonly #mode: Mode;
  readonly #target: Place | undefined;
  readonly #lastWait: number;
  /** Whether any stay could be so long that a step is put off; only then labels can differ in patch levels alone. */
  readonly mayPutOff: boolean;
  /** Empty cells count in the best run, and where somebody has said that one is a hop. */
  readonly #usesCells: boolean;
  /** Else those alone of which somebody has said so. */
  readonly #usesEveryCell: boolean;
  readonly #shut: readonly boolean[];

  constructor(terms: Terms, mode: Mode, { target, cells = true, wary = false }: ExpandOptions = {}) {
    this.#terms = terms;
    this.#mode = mode;
    this.#target = target;
    this.#lastWait =
      wary && waitsForWindows(terms)
        ? Infinity
        : latestWait(terms, target && !terms.model.hasStrands ? target.release : Infinity);
    this.#shut = mode === 'open' ? [] : shutFor(terms);
    terms.notes.turnOn(this.#lastWait - terms.goal.passDays);
    this.mayPutOff = this.#lastWait > terms.from - 1 + terms.goal.passDays;
    this.#usesEveryCell = cells && mode === 'best';
    this.#usesCells =
      this.#usesEveryCell || [...terms.learned.keys()].some((k) => clauseOf(k)?.code === 'cell');
  }

  /** In the finished route no step would do with a lower level or fewer cures, on the days it then falls on. */
  takesLowest({ criteria, moves }: Label): boolean {
    if (!criteria.higher) return true;
    const run = runOf(this.#mode);
    return moves.every((move, k) => {
      if (!move.higher) return true;
      const before = moves[k - 1]?.asked.after ?? this.#terms.along;
      for (let level = move.from.patch; level <= move.level; level++) {
        const to = arrivalOf(move, level);
        const less = askStep(this.#terms, { opening: { ...move, to }, level, along: before }, run).filter(
          (a) =>
            isWithin(a.cures, move.asked.cures) &&
            (level < move.level || a.cures.length < move.asked.cures.length)
        );
        if (less.some((asked) => this.#holdsWith(moves, k, { ...move, level, to, asked }))) return false;
      }
      return true;
    });
  }

  /** Whether a step would hold in another form, in a route that otherwise stays as it is. */
  #holdsWith(moves: readonly Move[], k: number, other: Move): boolean {
    const run = runOf(this.#mode);
    const changed = moves.map((m, i) =>
      i === k ? other : i === k + 1 && other.kind === 'edition change' ? { ...m, from: other.to } : m
    );
    const { findings } = judgeMoves(this.#terms, changed, { isTarget: true, run });
    return !findings.some((f) => f.move === k && (f.truth === 'no' || run === 'sure'));
  }

  /** Every label one counted step longer. */
  next(item: Item): Item[] {
    const items: Item[] = [];
    const { label } = item;
    for (const { opening, asTarget, alsoTarget } of this.stepsFrom(item)) {
      const labels = this.take(label, opening, asTarget);
      for (const next of labels) items.push({ label: next, asTarget });
      if (!alsoTarget) continue;
      if (this.#isSettled(opening.to.release)) for (const stone of labels) this.#alsoTarget(items, stone);
      else for (const next of this.take(label, opening, true)) items.push({ label: next, asTarget: true });
    }
    return items;
  }

  /** The counted steps a label may go on by, before anything is asked of them. */
  stepsFrom({ label, asTarget }: Item): Step[] {
    const steps: Step[] = [];
    this.#meetCells(label.at);
    for (const opening of listOpenings(this.#terms.model, label.at, this.#usesCells)) {
      if (this.#terms.barred.has(opening.id) || this.#leadsPast(opening.to.release)) continue;
      if (isOffWay(this.#terms, label.moves.length, opening)) continue;
      if (opening.cell !== undefined && !this.#mayUse(opening.cell)) continue;
      if (this.#mode !== 'open' && this.#isForbidden(opening)) continue;
      if (turnsBack(this.#terms.model, label.visited, opening.to)) continue;
      const inside = opening.to.release === label.at.release;
      // Steps inside a release entered on the way go on from its target label instead.
      const mayEnd = !(inside && label.moves.length > 0);
      if (asTarget) {
        if (inside) steps.push({ opening, asTarget: true });
      } else if (!this.#target) steps.push({ opening, asTarget: false, alsoTarget: mayEnd });
      else {
        // Where one target is asked for, only on its release are routes judged as targets.
        const arrives = opening.to.release === this.#target.release;
        if (!arrives || this.#terms.model.hasStrands) steps.push({ opening, asTarget: false });
        if (arrives && mayEnd) steps.push({ opening, asTarget: true });
      }
    }
    return steps;
  }

  /** Where empty cells would lead on in the best run, they are unknowns met. */
  #meetCells(at: Place): void {
    const { model, notes } = this.#terms;
    if (this.#mode === 'open' || this.#usesEveryCell) return;
    if (listOpenings(model, at, true).length > listOpenings(model, at, false).length) notes.meet('cell');
  }

  #mayUse(cell: string): boolean {
    return this.#usesEveryCell || this.#terms.learned.has(clauseKey({ code: 'cell', subject: cell }));
  }

  /** What no day, no patch and no cure can mend is left out before anything is worked out. */
  #isForbidden({ hop, kind, from, to }: Opening): boolean {
    const { goal, lifted, publication } = this.#terms;
    if (kind !== 'edition change' && this.#shut[to.release]) return true;
    if (lifted.size > 0 || from.release === NOTHING) return false;
    if (publication[to.release] === undefined) return true;
    return (
      (kind === 'fresh install' && !goal.allow.fresh) ||
      (hop?.hop.unsupported === true && !goal.allow.unsupported)
    );
  }

  /** Past the one target that is asked for, on its strand: nothing comes back. */
  #leadsPast(release: number): boolean {
    if (!this.#target) return false;
    const { releases } = this.#terms.model;
    return (
      release > this.#target.release && releases[release]?.strand === releases[this.#target.release]?.strand
    );
  }

  /** The labels one step longer: with each set of cures and each patch level that has to be told apart. */
  take(label: Label, opening: Opening, asTarget: boolean): Label[] {
    const every =
      this.#mode === 'open' || (!asTarget && this.#isProne(opening.to.release, label.criteria.finish));
    return this.#admitLevels(label, opening, asTarget, every);
  }

  /** Settling days that are over change no day, so the stepping stone's label is the target's too, if it may rest. */
  #alsoTarget(items: Item[], stone: Label): void {
    const faults = findRestFaults(this.#terms, stone.moves, stone.judgement.schedule);
    const judgement = { ...stone.judgement, findings: [...stone.judgement.findings, ...faults] };
    const restsOn = restsOnOf(judgement, this.#mode);
    if (restsOn)
      items.push({
        label: { ...stone, judgement, criteria: { ...stone.criteria, restsOn } },
        asTarget: true
      });
  }

  #isSettled(release: number): boolean {
    const settled = this.#terms.settled[release];
    return typeof settled === 'number' && settled <= Math.min(this.#terms.from, this.#terms.today);
  }

  /**
   * For each set of cures the lowest patch level that lets the step hold; all that do where the stay may yet be put off.
   * A level whose cures include another's, and that is not lower, is dropped.
   */
  #admitLevels(label: Label, opening: Opening, asTarget: boolean, every: boolean): Label[] {
    const terms = this.#terms;
    const last = terms.model.releases[opening.from.release]?.patches.length ?? opening.from.patch + 1;
    const admitted: Label[] = [];
    const lower: (readonly CureModel[])[] = [];
    const floor =
      this.#mode === 'open' || terms.lifted.size > 0
        ? undefined
        : (opening.hop?.levels ?? opening.change?.at);
    for (let level = opening.from.patch; level < last; level++) {
      if (floor && floor[opening.from.release]?.[level] !== true) continue;
      const at = openingAt(opening, level);
      const step = { opening: at, level, along: label.along };
      const ways =
        this.#mode === 'open'
          ? askEveryWay(terms, step, label.criteria.restsOn)
          : askStep(terms, step, this.#mode);
      let open = false;
      for (const asked of ways) {
        if (!takesCures(terms, label.moves.length, asked.cures)) continue;
        if (!every && lower.some((cures) => isWithin(cures, asked.cures))) continue;
        open = true;
        const isHigher =
          every && this.#mode !== 'open' && lower.some((cures) => isWithin(cures, asked.cures));
        const move = isHigher ? { ...moveOf(at, level, asked), higher: true } : moveOf(at, level, asked);
        const next = extendLabel(terms, label, move, { isTarget: asTarget, mode: this.#mode });
        if (!next || !isUnderItsRights(terms, next.judgement.rights)) continue;
        admitted.push(next);
        lower.push(asked.cures);
      }
      // Behind a level that needs no cure no other is let in.
      if (!open || (!every && lower.some((cures) => cures.length === 0))) break;
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
   * release (all of it where branches stand apart), the facts that are still asked for, and the steps that may still be put off.
   */
  keyOf({ label, asTarget }: Item): string {
    const { at, moves } = label;
    // Facts no longer matter on a target that no change of edition leads on from.
    const goesOn = !asTarget || (this.#terms.model.changesAt[at.release]?.length ?? 0) > 0;
    const prone = this.mayPutOff && !asTarget ? this.#proneOf(label) : '';
    const ahead = goesOn ? stateKeyOf(this.#terms, label.along, at.release) : '';
    const { finish, finishExact } = label.criteria;
    const day = goesOn && hasTurningRights(this.#terms) ? `${finish} ${String(finishExact)}` : '';
    const slot = goesOn && this.#terms.calendar?.mayOverlap ? slotKeyOf(label) : '';
    // What follows an arrival waits out the watch days, what follows a change of edition does not.
    const watched = this.#terms.goal.watchDays && moves.at(-1)?.kind !== 'edition change' ? 'w' : '';
    return `${targetKey(at)} ${at.patch}|${this.#stoodOf(label)}|${prone}|${ahead}|${day}|${slot}|${watched}`;
  }

  /** What was stood on inside this release; all of it where branches stand apart. */
  #stoodOf({ at, visited }: Label): string {
    const all = this.#terms.model.hasStrands;
    if (!all && visited.at(-2)?.release !== at.release) return '';
    const stood: string[] = [];
    for (const v of visited)
      if (all || v.release === at.release)
        stood.push(`${all ? v.release : ''}.${v.edition}.${v.architecture}`);
    return stood.sort().join(' ');
  }

  /** The steps that may still be put off. */
  #proneOf({ moves, judgement }: Label): string {
    const prone: string[] = [];
    for (let i = moves.length - 1; i >= 0; i--) {
      const move = moves[i];
      const arrived = judgement.schedule.days[i]?.hop.last ?? 0;
      if (!move || !this.#isProne(move.to.release, arrived)) break;
      prone.push(
        `${move.id}@${move.level}>${move.to.edition}.${move.to.architecture}+${idsOf(move.asked.cures)}`
      );
    }
    return prone.join(' ');
  }
}

/**
 * Whether a later day may mean another right - money instead of units, or a sum to ask for - so that who comes sooner need not
 * end no worse: an end or an offer of one right, beside counted units or an end that leaves nothing but to ask.
 */
function hasTurningRights({ model }: Terms): boolean {
  const known = TURNING.get(model);
  if (known !== undefined) return known;
  const rights = model.rights.map((r) => r.right);
  const ends = rights.some((r) => r.until !== undefined && r.counts !== 'release day');
  const turns = ends || (rights.some((r) => r.offer) && rights.some((r) => r.units));
  TURNING.set(model, turns);
  return turns;
}

const TURNING = new WeakMap<Terms['model'], boolean>();

/** Where in an occurrence work stands, and what its ways back take: where windows overlap, earlier need not be better. */
function slotKeyOf({ judgement }: Label): string {
  const at = judgement.schedule.days.at(-1)?.at;
  return at ? `${at.occurrence.start} ${at.end} ${at.back}` : '';
}

/** Ids of cures as one text, in their order. */
export const idsOf = (cures: readonly CureModel[]): string => cures.map((c) => c.cure.id).join(',');

/** How long a step waits for a window, or for watch days to be over, hangs on the steps before it. */
const waitsForWindows = ({ calendar, goal }: Terms): boolean =>
  calendar !== undefined || (goal.watchDays ?? 0) > 0;

/**
 * Searches as if no such wait made a stay too long, and where one did - on whatever was tried - once more with all kept apart that such a
 * stay may yet put off. Where none did, nothing was dropped that could have ended better.
 */
export function searchWarily<T>(terms: Terms, search: (wary: boolean) => T): T {
  const before = terms.notes.overstays;
  const found = search(false);
  return waitsForWindows(terms) && terms.notes.overstays > before ? search(true) : found;
}

/** The latest day any step onto a release up to one could be kept waiting for; Infinity where one is unknown. */
function latestWait(terms: Terms, upTo: number): number {
  const made = WAITS.get(terms.publication) ?? new Map<string, number>();
  WAITS.set(terms.publication, made);
  const key = `${terms.today} ${terms.from} ${terms.leadsFrom} ${upTo}`;
  const known = made.get(key) ?? findLatestWait(terms, upTo);
  made.set(key, known);
  return known;
}

/** By the publication days of a product under a goal, of which there is one list. */
const WAITS = new WeakMap<Terms['publication'], Map<string, number>>();

function findLatestWait(terms: Terms, upTo: number): number {
  const { model, countsExpected } = terms;
  const days: (number | 'unknown' | undefined)[] = [];
  const read = (date: DateInterval | undefined): void =>
    void (date && days.push(readDay(date, countsExpected)));
  days.push(...terms.settled.slice(0, upTo + 1));
  for (const release of model.releases.slice(0, upTo + 1))
    for (const patch of release.patches) read(patch.published);
  for (const hops of model.hopsFrom) for (const hop of hops) if (hop.to <= upTo) read(hop.opens);
  if (model.needs.pairings.length > 0) days.push('unknown');
  for (const { begins, complete } of model.needs.offers.values()) {
    read(begins);
    if (complete) read(complete);
    else days.push('unknown');
  }
  for (const id of model.needs.withheld.keys()) {
    const hop = model.product.hops?.find((h) => h.id === id);
    read(parseDateText(hop?.withheld?.until ?? 'unknown'));
  }
  for (const cures of model.needs.cures.values())
    for (const { cure } of cures) days.push(terms.leadsFrom + (cure.leadDays ?? 0));
  for (const { right } of model.rights) days.push(terms.leadsFrom + (right.leadDays ?? 0));
  for (const changes of model.changesAt) for (const change of changes) read(change.opens);
  return days.reduce<number>(
    (latest, day) => Math.max(latest, day === undefined ? latest : day === 'unknown' ? Infinity : day),
    terms.today
  );
}
