import {
  type Bond,
  type Constraint,
  keyOfConstraint,
  type Mix,
  type PartStep,
  type Problem,
  type WaveSteps
} from './problem';
import { twinsOf } from './twins';

/** A mix, with the standing breaches that have been mended so far: those must hold from then on. */
export interface Stand {
  readonly mix: Mix;
  /** Indexes of bonds, sorted. */
  readonly mended: readonly number[];
}

/** Steps that are made all or none: one free step, or a bound set. */
export interface Bundle {
  readonly steps: readonly PartStep[];
}

/**
 * Which mixes of a component are allowed, and what may change between two (docs/reckoning.md 14). `without`: constraints that are left
 * out, when looking for what stands in the way.
 */
export class Mixes {
  readonly start: Stand;
  /** Bonds that are broken, or cannot be told, as everything stands today. */
  readonly standing: readonly number[];
  readonly #problem: Problem;
  readonly #bonds: readonly { readonly index: number; readonly bond: Bond }[];
  readonly #bondsOf: readonly (readonly { readonly index: number; readonly bond: Bond }[])[];
  /** Parts that some pairing binds each part to. */
  readonly #near: readonly ReadonlySet<number>[];
  readonly #isStanding: ReadonlySet<number>;
  /** For each part those it never goes together with. */
  readonly #apart: readonly ReadonlySet<number>[];
  readonly #without: ReadonlySet<string>;
  /** For each part those alike in everything, itself included; in turn. */
  readonly #twins: readonly (readonly number[])[];

  /** @param mark parts with different ones are not alike */
  constructor(problem: Problem, without: readonly Constraint[] = [], mark?: (part: number) => string) {
    this.#problem = problem;
    this.#without = new Set(without.map(keyOfConstraint));
    this.#bonds = problem.bonds
      .map((bond, index) => ({ index, bond }))
      .filter(({ index }) => !this.#without.has(keyOfConstraint({ kind: 'pairing', bond: index })));
    this.#bondsOf = problem.parts.map((_, part) =>
      this.#bonds.filter(({ bond }) => bond.own === part || bond.other === part)
    );
    this.#near = this.#bondsOf.map((bonds) => new Set(bonds.flatMap(({ bond }) => [bond.own, bond.other])));
    this.start = { mix: problem.parts.map(() => 0), mended: [] };
    this.standing = this.#bonds.filter(({ bond }) => bond.holds(0, 0) !== 'yes').map(({ index }) => index);
    this.#isStanding = new Set(this.standing);
    const apart = (problem.apart ?? []).filter(
      (_, i) => !this.#without.has(keyOfConstraint({ kind: 'lock', apart: i }))
    );
    this.#apart = problem.parts.map(
      (_, p) => new Set(apart.flatMap(([a, b]) => (a === p ? [b] : b === p ? [a] : [])))
    );
    const bonds = this.#bonds.map(({ bond }) => bond);
    this.#twins = twinsOf(problem, bonds, mark);
  }

  /** Equal for stands that are the same but for which of several parts alike stands where. */
  keyOf({ mix, mended }: Stand): string {
    if (mended.length > 0) return `${mix.join()}|${mended.join()}`;
    const sorted = [...mix];
    for (const [first, ...others] of new Set(this.#twins)) {
      if (first === undefined || others.length === 0) continue;
      const members = [first, ...others];
      const nodes = members.map((p) => mix[p] ?? 0).sort((a, b) => a - b);
      members.forEach((p, i) => (sorted[p] = nodes[i] ?? 0));
    }
    return sorted.join();
  }

  /** Whether a part alike, which comes first, stands on the same node: what either does next is the same. */
  #hasFirstTwin({ mix, mended }: Stand, { part, from }: PartStep): boolean {
    return mended.length === 0 && (this.#twins[part] ?? []).some((t) => t < part && mix[t] === from);
  }

  /** Counted steps that no decision and no place that must not be rested on rule out. */
  stepsFrom(mix: Mix): PartStep[] {
    const held = new Set((this.#problem.pilots ?? []).flatMap((p, i) => (this.#waits(mix, i) ? p.then : [])));
    return mix.flatMap((from, part) => {
      const { nodes, stays } = this.#problem.parts[part] as Problem['parts'][number];
      if (held.has(part)) return [];
      if (stays && !this.#without.has(keyOfConstraint({ kind: 'stay', part }))) return [];
      return (nodes[from]?.next ?? [])
        .filter((to) => this.#mayStand(part, to))
        .map((to) => ({ part, from, to }));
    });
  }

  /** Whether pilots that others wait for are not all there yet. */
  #waits(mix: Mix, pilots: number): boolean {
    if (this.#without.has(keyOfConstraint({ kind: 'pilots', pilots }))) return false;
    return (this.#problem.pilots?.[pilots]?.first ?? []).some(
      (p) => !this.#problem.parts[p]?.nodes[mix[p] ?? 0]?.isGoal
    );
  }

  #mayStand(part: number, node: number): boolean {
    const at = this.#problem.parts[part]?.nodes[node];
    return (
      at !== undefined &&
      (at.mayRest || this.#without.has(keyOfConstraint({ kind: 'rest', part, release: at.release })))
    );
  }

  /** The bonds that a change of some parts would leave broken, seen from the mix before. */
  brokenBy(before: Stand, steps: readonly PartStep[]): { readonly index: number; readonly bond: Bond }[] {
    const to = new Map(steps.map((s) => [s.part, s.to]));
    const touched = new Map(
      steps.flatMap((s) => (this.#bondsOf[s.part] ?? []).map((b) => [b.index, b] as const))
    );
    return [...touched.values()].filter(({ index, bond }) => !this.#isAllowed(before, { index, bond }, to));
  }

  #isAllowed(
    { mix, mended }: Stand,
    { index, bond }: { readonly index: number; readonly bond: Bond },
    to: ReadonlyMap<number, number>
  ): boolean {
    const at = (part: number): number => to.get(part) ?? mix[part] ?? 0;
    const [own, other] = [at(bond.own), at(bond.other)];
    if (bond.holds(own, other) === 'yes') return true;
    if (!this.#isStanding.has(index) || mended.includes(index)) return false;
    const isAtHome = (part: number): boolean => {
      const { nodes } = this.#problem.parts[part] as Problem['parts'][number];
      return nodes[at(part)]?.release === nodes[0]?.release;
    };
    if (isAtHome(bond.own) && (!bond.isPeer || isAtHome(bond.other))) return true;
    const before = bond.distance?.(mix[bond.own] ?? 0, mix[bond.other] ?? 0);
    const after = bond.distance?.(own, other);
    return before !== undefined && after !== undefined && after < before;
  }

  /**
   * Whether bundles may be made in one wave: each may be made while any of the others is, or is not, yet. Peers that may not change
   * together never share one, nor do those that are laid down to go apart, nor does a part.
   */
  shareWave(before: Stand, a: Bundle, b: Bundle): boolean {
    let areBound = false;
    for (const x of a.steps)
      for (const y of b.steps) {
        if (x.part === y.part || this.#apart[x.part]?.has(y.part)) return false;
        if (!this.#near[x.part]?.has(y.part)) continue;
        areBound = true;
        if (!this.#mayShare(before, x, y)) return false;
      }
    return !areBound || this.brokenBy(before, [...a.steps, ...b.steps]).length === 0;
  }

  /** Each may be made first, and what one of the two mends the other does not break. */
  #mayShare(before: Stand, x: PartStep, y: PartStep): boolean {
    return this.#between(x.part, y.part).every(({ index, bond }) => {
      if (bond.isPeer && !bond.together) return false;
      const mends = (steps: readonly PartStep[]): boolean => this.#holdsAfter(before, bond, steps) === 'yes';
      return !this.#isStanding.has(index) || mends([x, y]) || (!mends([x]) && !mends([y]));
    });
  }

  #between(a: number, b: number): readonly { readonly index: number; readonly bond: Bond }[] {
    return (this.#bondsOf[a] ?? []).filter(
      ({ bond }) => (bond.own === a && bond.other === b) || (bond.own === b && bond.other === a)
    );
  }

  #holdsAfter({ mix }: Stand, bond: Bond, steps: readonly PartStep[]) {
    const at = (part: number): number => steps.find((s) => s.part === part)?.to ?? mix[part] ?? 0;
    return bond.holds(at(bond.own), at(bond.other));
  }

  /** Where everything stands behind a wave. */
  after(before: Stand, steps: readonly PartStep[]): Stand {
    const mix = [...before.mix];
    for (const { part, to } of steps) mix[part] = to;
    const { bonds } = this.#problem;
    const mended = this.standing.filter((index) => {
      const bond = bonds[index] as Bond;
      return (
        before.mended.includes(index) ||
        (bond.holds(0, 0) === 'no' && bond.holds(mix[bond.own] ?? 0, mix[bond.other] ?? 0) === 'yes')
      );
    });
    return { mix, mended };
  }

  /** The free steps that may be made from here, and - where asked for - the smallest sets that only go all at once. */
  bundlesFrom(before: Stand, bound: boolean): Bundle[] {
    const steps = this.stepsFrom(before.mix);
    const free = steps.filter((s) => this.brokenBy(before, [s]).length === 0);
    const bundles: Bundle[] = free.map((s) => ({ steps: [s] }));
    if (!bound) return bundles;
    const found = new Map<string, readonly PartStep[]>();
    for (const step of steps) if (!free.includes(step)) this.#bind(before, steps, [step], found);
    const sets = [...found.values()];
    const isSmallest = (set: readonly PartStep[]): boolean =>
      !sets.some((o) => o !== set && o.length < set.length && o.every((s) => set.includes(s)));
    return [...bundles, ...sets.filter(isSmallest).map((set) => ({ steps: set }))];
  }

  /** Grows a set by the other ends of what it would break, as long as all of that may change together. */
  #bind(
    before: Stand,
    steps: readonly PartStep[],
    set: readonly PartStep[],
    found: Map<string, readonly PartStep[]>
  ): void {
    const parts = new Set(set.map((s) => s.part));
    const [broken] = this.brokenBy(before, set);
    if (!broken) {
      const sorted = steps.filter((s) => set.includes(s));
      if (this.#isBound(before, sorted)) found.set(sorted.map((s) => `${s.part}>${s.to}`).join(), sorted);
      return;
    }
    const { bond } = broken;
    const missing = [bond.own, bond.other].find((p) => !parts.has(p));
    if (missing === undefined || !bond.together) return;
    for (const step of steps) if (step.part === missing) this.#bind(before, steps, [...set, step], found);
  }

  /** Whatever breaks while only some of a set is made may change together, and no part of the set would do alone. */
  #isBound(before: Stand, set: readonly PartStep[]): boolean {
    const parts = new Set(set.map((s) => s.part));
    const isApart = ({ bond }: { readonly bond: Bond }): boolean =>
      bond.isPeer && !bond.together && parts.has(bond.own) && parts.has(bond.other);
    if (this.#bonds.some(isApart) || set.some((s) => set.some((o) => this.#apart[s.part]?.has(o.part))))
      return false;
    for (let some = 1; some < 2 ** set.length - 1; some++) {
      const made = set.filter((_, i) => (some >> i) & 1);
      const broken = this.brokenBy(before, made);
      if (broken.length === 0) return false;
      if (broken.some(({ bond }) => parts.has(bond.own) && parts.has(bond.other) && !bond.together))
        return false;
    }
    return true;
  }

  /** Bundles of which none is the same as another but for which of several parts alike makes it: enough where waves are of one. */
  distinctFrom(before: Stand, bound: boolean): Bundle[] {
    return this.bundlesFrom(before, bound).filter(
      ({ steps: [first, ...more] }) => !first || more.length > 0 || !this.#hasFirstTwin(before, first)
    );
  }

  /** Of parts alike the first that stands on a node goes first. */
  #isInTurn(before: Stand, bundles: readonly Bundle[], chosen: readonly number[]): boolean {
    if (before.mended.length > 0) return true;
    const goes = new Map(chosen.flatMap((i) => (bundles[i]?.steps ?? []).map((s) => [s.part, s] as const)));
    return [...goes.values()].every((step) =>
      (this.#twins[step.part] ?? []).every(
        (t) => t >= step.part || before.mix[t] !== step.from || goes.has(t)
      )
    );
  }

  /** Bonds that making some steps all at once breaks: behind it, or midway where not both may change together. */
  breaks(before: Stand, steps: readonly PartStep[]): readonly number[] {
    const broken = new Set(this.brokenBy(before, steps).map((b) => b.index));
    const parts = new Set(steps.map((s) => s.part));
    const inside = ({ bond }: { readonly bond: Bond }): boolean =>
      !bond.together && parts.has(bond.own) && parts.has(bond.other);
    for (const b of this.#bonds) if (b.bond.isPeer && inside(b)) broken.add(b.index);
    for (let some = 1; some < 2 ** steps.length - 1; some++)
      for (const b of this.brokenBy(
        before,
        steps.filter((_, i) => (some >> i) & 1)
      ))
        if (inside(b)) broken.add(b.index);
    return [...broken];
  }

  /** Locks that making some steps all at once breaks, by their index in `apart`. */
  locksBrokenBy(steps: readonly PartStep[]): number[] {
    const moves = (part: number): boolean => steps.some((s) => s.part === part);
    return (this.#problem.apart ?? []).flatMap(([a, b], i) => (moves(a) && moves(b) ? [i] : []));
  }

  /** Pilots that steps do not wait for, by their index in `pilots`. */
  pilotsBrokenBy({ mix }: Stand, steps: readonly PartStep[]): number[] {
    return (this.#problem.pilots ?? []).flatMap(({ then }, i) =>
      steps.some((s) => then.includes(s.part)) && this.#waits(mix, i) ? [i] : []
    );
  }

  /** As many bundles as go into one wave when taken in turn. */
  fullWave(before: Stand, bundles: readonly Bundle[]): WaveSteps {
    const chosen: Bundle[] = [];
    for (const bundle of bundles)
      if (chosen.every((c) => this.shareWave(before, c, bundle))) chosen.push(bundle);
    return waveOf(chosen);
  }

  /** All sets of bundles, one at least, that may share a wave. */
  *wavesOf(before: Stand, bundles: readonly Bundle[]): Generator<WaveSteps> {
    const shares = new Map<string, boolean>();
    const share = (i: number, j: number): boolean => {
      const key = `${i} ${j}`;
      const known = shares.get(key) ?? this.shareWave(before, bundles[i] as Bundle, bundles[j] as Bundle);
      shares.set(key, known);
      return known;
    };
    const stack: { readonly chosen: readonly number[]; readonly next: number }[] = [{ chosen: [], next: 0 }];
    for (let at = stack.pop(); at; at = stack.pop()) {
      const { chosen, next } = at;
      if (next === bundles.length) {
        if (chosen.length === 0 || !this.#isInTurn(before, bundles, chosen)) continue;
        yield waveOf(chosen.map((i) => bundles[i] as Bundle));
        continue;
      }
      stack.push({ chosen, next: next + 1 });
      if (chosen.every((i) => share(i, next))) stack.push({ chosen: [...chosen, next], next: next + 1 });
    }
  }
}

function waveOf(bundles: readonly Bundle[]): WaveSteps {
  const steps = bundles.flatMap((b) => b.steps).sort((a, b) => a.part - b.part);
  const bound = bundles.filter((b) => b.steps.length > 1).map((b) => b.steps.map((s) => s.part));
  return { steps, bound };
}
