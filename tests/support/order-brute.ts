import type { Bond, Moment, PartStep, Problem, StepOn } from '../../src/core/order/problem';

/** Written from docs/reckoning.md 14 alone: tries every wave, every way of binding its steps, every order in which they could be made. */
export interface BruteOrder {
  readonly systems: readonly number[];
  readonly all: boolean;
  /** bound, simultaneous, missed, late, then as `inTurn` has them */
  readonly cost: readonly number[];
  readonly goals: ReadonlySet<number>;
}

interface State {
  readonly mix: readonly number[];
  readonly mended: ReadonlySet<number>;
  readonly finish: number;
  /** When the last wave is over. */
  readonly ended: Moment;
  readonly lastBehind: readonly string[];
  /** The last day of each part's last step so far. */
  readonly done: readonly number[];
  readonly cost: readonly number[];
}

const compare = (a: readonly number[], b: readonly number[]): number => {
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return (a[i] ?? 0) - (b[i] ?? 0);
  return 0;
};

/** All ways to part a list into blocks. */
function* partitions<T>(items: readonly T[]): Generator<T[][]> {
  const [first, ...rest] = items;
  if (first === undefined) return void (yield []);
  for (const blocks of partitions(rest)) {
    yield [[first], ...blocks];
    for (let i = 0; i < blocks.length; i++) yield blocks.map((b, k) => (k === i ? [first, ...b] : b));
  }
}

function* permutations<T>(items: readonly T[]): Generator<T[]> {
  if (items.length === 0) return void (yield []);
  for (let i = 0; i < items.length; i++)
    for (const rest of permutations([...items.slice(0, i), ...items.slice(i + 1)]))
      yield [items[i] as T, ...rest];
}

function* subsets<T>(items: readonly T[]): Generator<T[]> {
  for (let bits = 1; bits < 2 ** items.length; bits++) yield items.filter((_, i) => (bits >> i) & 1);
}

class Brute {
  readonly #p: Problem;
  readonly #off: ReadonlySet<number>;
  readonly #freeStays: ReadonlySet<number>;
  readonly #freeRests: ReadonlySet<string>;
  readonly #freeLocks: ReadonlySet<number>;
  readonly #freePilots: ReadonlySet<number>;

  constructor(
    p: Problem,
    free: {
      bonds?: Iterable<number>;
      stays?: Iterable<number>;
      rests?: Iterable<string>;
      locks?: Iterable<number>;
      pilots?: Iterable<number>;
    }
  ) {
    this.#p = p;
    this.#off = new Set(free.bonds);
    this.#freeStays = new Set(free.stays);
    this.#freeRests = new Set(free.rests);
    this.#freeLocks = new Set(free.locks);
    this.#freePilots = new Set(free.pilots);
  }

  bonds(): [number, Bond][] {
    return this.#p.bonds.flatMap((b, i): [number, Bond][] => (this.#off.has(i) ? [] : [[i, b]]));
  }

  /** Bonds broken in a mix, seen from the mix before its wave. */
  broken(mix: readonly number[], before: readonly number[], mended: ReadonlySet<number>): number[] {
    return this.bonds().flatMap(([i, b]) => {
      const [x, y] = [mix[b.own] as number, mix[b.other] as number];
      if (b.holds(x, y) === 'yes') return [];
      // One that nothing has touched is as it was.
      if (x === before[b.own] && y === before[b.other]) return [];
      if (b.holds(0, 0) === 'yes' || mended.has(i)) return [i];
      const home = (part: number): boolean =>
        this.#p.parts[part]?.nodes[mix[part] as number]?.release === this.#p.parts[part]?.nodes[0]?.release;
      if (home(b.own) && (b.isPeer ? home(b.other) : true)) return [];
      const less =
        b.distance && b.distance(x, y) < b.distance(before[b.own] as number, before[b.other] as number);
      return less ? [] : [i];
    });
  }

  mend(mix: readonly number[], mended: ReadonlySet<number>): ReadonlySet<number> {
    const now = this.bonds().flatMap(([i, b]) =>
      b.holds(0, 0) === 'no' && b.holds(mix[b.own] as number, mix[b.other] as number) === 'yes' ? [i] : []
    );
    return new Set([...mended, ...now]);
  }

  apply(mix: readonly number[], steps: readonly PartStep[]): number[] {
    const to = [...mix];
    for (const s of steps) to[s.part] = s.to;
    return to;
  }

  /** Made block after block in every order, nothing is broken on the way. */
  holds(state: Pick<State, 'mix' | 'mended'>, blocks: readonly PartStep[][]): boolean {
    for (const sequence of permutations(blocks)) {
      let { mix, mended } = state;
      for (const block of sequence) {
        mix = this.apply(mix, block);
        if (this.broken(mix, state.mix, mended).length > 0) return false;
        mended = this.mend(mix, mended);
      }
    }
    return true;
  }

  isBlock(state: Pick<State, 'mix' | 'mended'>, block: readonly PartStep[]): boolean {
    if (block.length === 1) return true;
    const inside = new Set(block.map((s) => s.part));
    for (const some of subsets(block)) {
      if (some.length === block.length) continue;
      const broken = this.broken(this.apply(state.mix, some), state.mix, state.mended);
      if (broken.length === 0) return false;
      for (const i of broken) {
        const b = this.#p.bonds[i] as Bond;
        if (inside.has(b.own) && inside.has(b.other) && !b.together) return false;
      }
    }
    return true;
  }

  peersApart(steps: readonly PartStep[]): boolean {
    const moving = new Set(steps.map((s) => s.part));
    const together = (this.#p.apart ?? []).some(
      ([a, b], i) => !this.#freeLocks.has(i) && moving.has(a) && moving.has(b)
    );
    if (together) return false;
    return this.bonds().every(
      ([, b]) => !b.isPeer || b.together || !moving.has(b.own) || !moving.has(b.other)
    );
  }

  *waves(state: Pick<State, 'mix' | 'mended'>, bound: boolean): Generator<PartStep[][]> {
    const steps = state.mix.flatMap((from, part): PartStep[] => {
      const { nodes, stays } = this.#p.parts[part] as Problem['parts'][number];
      if (stays && !this.#freeStays.has(part)) return [];
      const isHeld = (this.#p.pilots ?? []).some(
        ({ first, then }, i) =>
          !this.#freePilots.has(i) &&
          then.includes(part) &&
          !first.every((f) => this.#p.parts[f]?.nodes[state.mix[f] as number]?.isGoal)
      );
      if (isHeld) return [];
      const may = (to: number): boolean =>
        nodes[to]?.mayRest === true || this.#freeRests.has(`${part} ${nodes[to]?.release}`);
      return (nodes[from]?.next ?? []).filter(may).map((to) => ({ part, from, to }));
    });
    for (const wave of subsets(steps)) {
      if (new Set(wave.map((s) => s.part)).size < wave.length) continue;
      if (!this.peersApart(wave)) continue;
      for (const blocks of partitions(wave)) {
        if (!bound && blocks.some((b) => b.length > 1)) continue;
        if (blocks.every((b) => this.isBlock(state, b)) && this.holds(state, blocks)) yield blocks;
      }
    }
  }
}

export type Free = ConstructorParameters<typeof Brute>[1];

/** What can be reached at all, whatever the days. */
export function bruteReach(
  p: Problem,
  bound: boolean,
  free: Free = {}
): { mixes: number[][]; goals: Set<number> } {
  const brute = new Brute(p, free);
  const first = { mix: p.parts.map(() => 0), mended: new Set<number>() as ReadonlySet<number> };
  const queue = [first];
  const seen = new Set([JSON.stringify([first.mix, []])]);
  const goals = new Set<number>();
  for (const state of queue) {
    state.mix.forEach((n, i) => p.parts[i]?.nodes[n]?.isGoal && goals.add(i));
    for (const blocks of brute.waves(state, bound)) {
      const mix = brute.apply(state.mix, blocks.flat());
      const mended = brute.mend(mix, state.mended);
      const key = JSON.stringify([mix, [...mended].sort()]);
      if (seen.has(key)) continue;
      seen.add(key);
      queue.push({ mix, mended });
    }
  }
  return { mixes: queue.map((s) => [...s.mix]), goals };
}

const reachedOf = (p: Problem, mix: readonly number[]): [number, number, number, number] => {
  const sums: [number, number, number, number] = [1, 0, 0, 0];
  p.parts.forEach((part, i) => {
    const rank = { critical: 1, normal: 2, spare: 3 }[part.importance];
    if (part.nodes[mix[i] as number]?.isGoal) sums[rank] = (sums[rank] ?? 0) + part.systems.length;
    else if (!part.stays && part.nodes.some((n) => n.isGoal)) sums[0] = 0;
  });
  return sums;
};

/** What a sum of costs is compared by: bound, simultaneous, missed, late; waves, outage, off, steps, finish as the problem says. */
function inTurn({ by }: Problem, cost: readonly number[], finish: number): number[] {
  const [bound = 0, simultaneous = 0, missed = 0, late = 0, waves = 0, off = 0, steps = 0, outage = 0] = cost;
  const first = by === 'least outage' ? [outage] : by === 'earliest done' ? [finish] : [];
  return [bound, simultaneous, missed, late, ...first, waves, off, steps, finish];
}

/** Most goals, then least cost, over every order there is. */
export function bruteOrder(p: Problem): BruteOrder {
  const best = (mixes: readonly number[][]): readonly number[] =>
    mixes.map((m) => reachedOf(p, m)).reduce((a, b) => (compare(a, b) >= 0 ? a : b));
  const bound = compare(best(bruteReach(p, false).mixes), best(bruteReach(p, true).mixes)) < 0;
  const brute = new Brute(p, {});
  let layer = new Map<string, State>();
  const keyOf = (s: State): string =>
    JSON.stringify([s.mix, [...s.mended].sort(), s.finish, s.ended, s.lastBehind, s.done]);
  const start: State = {
    mix: p.parts.map(() => 0),
    mended: new Set(),
    finish: p.eve,
    ended: { day: p.eve },
    lastBehind: p.parts.map(() => ''),
    done: p.parts.map(() => -1),
    cost: [0, 0, 0, 0, 0, 0, 0, 0]
  };
  layer.set(keyOf(start), start);
  let found = { reached: reachedOf(p, start.mix), cost: inTurn(p, start.cost, start.finish) };
  while (layer.size > 0) {
    const next = new Map<string, State>();
    for (const state of layer.values()) {
      const reached = reachedOf(p, state.mix);
      const cost = inTurn(p, state.cost, state.finish);
      const more = compare(reached, found.reached);
      if (more > 0 || (more === 0 && compare(cost, found.cost) < 0)) found = { reached, cost };
      for (const blocks of brute.waves(state, bound)) {
        const longer = lengthen(p, brute, state, blocks);
        if (!longer) continue;
        const key = keyOf(longer);
        const known = next.get(key);
        const costOf = (s: State): number[] => inTurn(p, s.cost, s.finish);
        if (!known || compare(costOf(longer), costOf(known)) < 0) next.set(key, longer);
      }
    }
    layer = next;
  }
  const [all, ...systems] = found.reached;
  return { all: all === 1, systems, cost: found.cost, goals: bruteReach(p, true).goals };
}

function lengthen(p: Problem, brute: Brute, state: State, blocks: readonly PartStep[][]): State | undefined {
  let [bound = 0, simultaneous = 0, missed = 0, late = 0, waves = 0, off = 0, steps = 0, outage = 0] =
    state.cost;
  const lastBehind = [...state.lastBehind];
  const done = [...state.done];
  const laid: [number, StepOn][] = [];
  let finish = 0;
  for (const { part, from, to } of blocks.flat()) {
    const watched = (p.pilots ?? [])
      .filter((o) => o.then.includes(part))
      .flatMap((o) => o.first.map((f) => (state.done[f] ?? -1) + o.watchDays));
    const until = Math.max(...watched, -1);
    const { isOpen, ...closed } = state.ended;
    const apart = (p.apart ?? []).flatMap(([a, b]) => (a === part ? [b] : b === part ? [a] : []));
    const others = apart.map((o) => state.done[o] ?? -1).filter((day) => day >= 0);
    const since = isOpen && others.length > 0 ? { since: Math.max(...others) } : {};
    const begun =
      until < state.ended.day
        ? { ...closed, ...(isOpen ? { isOpen } : {}), ...since }
        : { ...closed, day: until };
    const on = p.lay(part, to, [begun]);
    if (!on) return undefined;
    laid.push([part, on]);
    lastBehind[part] = JSON.stringify(begun);
    done[part] = on.last;
    finish = Math.max(finish, on.last);
    const { nodes, deadline } = p.parts[part] as Problem['parts'][number];
    steps += nodes[to]?.steps ?? 0;
    outage += nodes[to]?.outage ?? 0;
    if (nodes[from]?.isChosen && !nodes[to]?.isChosen) off++;
    if (nodes[to]?.isGoal && deadline !== undefined && on.last > deadline) {
      missed++;
      late += on.last - deadline;
    }
  }
  const tied = blocks.filter((b) => b.length > 1);
  bound += tied.flat().reduce((sum, s) => sum + (p.parts[s.part]?.systems.length ?? 0), 0);
  if (tied.length > 0) simultaneous++;
  const mix = brute.apply(state.mix, blocks.flat());
  waves++;
  return {
    mix,
    mended: brute.mend(mix, state.mended),
    finish,
    ended: endedBy(p, laid),
    lastBehind,
    done,
    cost: [bound, simultaneous, missed, late, waves, off, steps, outage]
  };
}

/** Over at a minute where all of it lies in nights; what follows may begin there unless something that arrived is watched. */
function endedBy(p: Problem, laid: readonly (readonly [number, StepOn])[]): Moment {
  const day = Math.max(...laid.map(([, on]) => on.last));
  const ends = laid.flatMap(([, on]) => (on.ends === undefined ? [] : [on.ends]));
  if (ends.length === 0) return { day };
  const isOpen = ends.length === laid.length && laid.every(([part]) => !p.parts[part]?.watches);
  return { day, minute: Math.max(...ends), ...(isOpen ? { isOpen: true } : {}) };
}
