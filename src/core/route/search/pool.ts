import { compareByPreference, isBeaten, standsNoLater, type Criteria, type Label, type Mode } from './label';
import { idsOf } from './expand';
import { targetKey } from '../../compile';

/** Whether a label is beaten by another where the same lies ahead of both. */
export type IsBeaten = (label: Criteria, by: Criteria) => boolean;

/**
 * Unbeaten labels by key. Of two that differ only in patch levels the lower stays, whatever it costs:
 * one that was beaten since still rules out its higher twins.
 */
export class Pool {
  readonly #labels = new Map<string, Label[]>();
  readonly #twins = new Map<string, Label[]>();
  readonly #dropped = new Set<Label>();
  readonly #isBeaten: IsBeaten;
  readonly #twinned: boolean;
  /** Comparisons made so far: what a search's work is counted in. */
  work = 0;

  /** `twinned`: labels may differ in patch levels alone; `beats`: what a label is dropped for, where that is not the usual. */
  constructor(mode: Mode, twinned: boolean, beats: IsBeaten = mode === 'open' ? liftsNoLess : isBeaten) {
    this.#twinned = twinned && mode !== 'open';
    this.#isBeaten = beats;
  }

  insert(key: string, label: Label): boolean {
    if (!this.#twinned && !this.#labels.has(key)) {
      this.#labels.set(key, [label]);
      this.work++;
      return true;
    }
    const twins = this.#twinned ? twinsOf(this.#twins, `${key}|${skeletonOf(label)}`) : [];
    if (twins.some((t) => isLowerTwin(t, label))) return false;
    const higher = new Set(twins.filter((t) => isLowerTwin(label, t)));
    twins.push(label);
    this.work += twins.length + (this.#labels.get(key)?.length ?? 0);
    const others = (this.#labels.get(key) ?? []).filter((o) => !this.#dropIf(o, higher.has(o)));
    const beaten = others.some((o) => this.#isBeaten(label.criteria, o.criteria));
    const kept = beaten
      ? others
      : [...others.filter((o) => !this.#dropIf(o, this.#isBeaten(o.criteria, label.criteria))), label];
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

  byTarget(isLowest: (label: Label) => boolean): Map<string, Label[]> {
    const targets = new Map<string, Label[]>();
    for (const labels of this.#labels.values())
      for (const label of labels) {
        if (!isLowest(label)) continue;
        const key = targetKey(label.at);
        const list = targets.get(key);
        if (list) list.push(label);
        else targets.set(key, [label]);
      }
    for (const list of targets.values()) list.sort((a, b) => compareByPreference(a.criteria, b.criteria));
    return targets;
  }
}

/** For openings only what is lifted and how soon it ends can matter. */
const liftsNoLess = (label: Criteria, by: Criteria): boolean =>
  by.restsOn.every((key) => label.restsOn.includes(key)) &&
  by.finish <= label.finish &&
  by.finishExact >= label.finishExact &&
  standsNoLater(by, label);

function twinsOf(twins: Map<string, Label[]>, key: string): Label[] {
  const list = twins.get(key) ?? [];
  if (list.length === 0) twins.set(key, list);
  return list;
}

/** The counted steps with their cures, without their patch levels. */
const skeletonOf = (label: Label): string =>
  label.moves.map((m) => `${m.id}>${m.to.edition}.${m.to.architecture}+${idsOf(m.asked.cures)}`).join(' ');

/** Of two with the same counted steps: no patch level higher and one lower. */
const isLowerTwin = (a: Label, b: Label): boolean =>
  a.moves.every((m, i) => m.level <= (b.moves[i]?.level ?? 0)) &&
  a.moves.some((m, i) => m.level < (b.moves[i]?.level ?? 0));
