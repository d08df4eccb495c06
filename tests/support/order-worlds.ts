import type { Bond, Importance, Moment, Part, PartNode, Problem, StepOn } from '../../src/core/order/problem';
import { ORDER_BY, type OrderBy } from '../../src/core/estate';
import { Random } from './random';

/** A random component of up to six parts of up to four releases each, with all that orders turn on. */
export interface OrderWorld {
  readonly seed: number;
  readonly problem: Problem;
  /** The same with nothing laid down. */
  readonly free: Problem;
  /** The same without pilots. */
  readonly unpiloted: Problem;
}

interface Tree {
  readonly nodes: PartNode[];
  /** Where each node's release stands, and what its step takes. */
  readonly days: readonly number[];
  readonly opens: readonly number[];
  readonly closes: readonly number[];
}

/** Ways along releases, upward: one chosen, perhaps one or two more by other releases. */
function treeOf(r: Random, releases: number): Tree {
  const target = releases - 1;
  const ways: number[][] = [];
  const walk = (at: number, way: number[]): void => {
    if (at === target) return void ways.push(way);
    for (let to = at + 1; to <= target; to++) if (to - at <= 2) walk(to, [...way, to]);
  };
  walk(0, []);
  const chosen = r.pick(ways);
  const kept = [chosen, ...ways.filter((w) => w !== chosen && r.chance(0.5))];
  const nodes: (PartNode & { next: number[] })[] = [
    { before: undefined, next: [], release: 0, isGoal: target === 0, isChosen: true, mayRest: true, steps: 0 }
  ];
  const rests = Array.from({ length: releases }, (_, i) => i === target || r.chance(0.92));
  for (const way of kept) {
    let at = 0;
    for (const release of way) {
      const known = nodes[at]?.next.find((n) => nodes[n]?.release === release);
      if (known !== undefined) {
        at = known;
        continue;
      }
      const index = nodes.length;
      nodes.push({
        before: at,
        next: [],
        release,
        isGoal: release === target,
        isChosen: way === chosen,
        mayRest: rests[release] ?? true,
        steps: r.int(1, 3),
        outage: r.int(0, 4) * 30
      });
      nodes[at]?.next.push(index);
      at = index;
    }
  }
  return {
    nodes,
    days: nodes.map(() => r.pick([1, 1, 2, 4])),
    opens: nodes.map(() => (r.chance(0.15) ? r.int(3, 8) : 0)),
    closes: nodes.map(() => (r.chance(0.08) ? r.int(2, 5) : Infinity))
  };
}

/** A table of what fits with what, leaning to releases of about the same height; a few cells nobody knows. */
function bondOf(r: Random, parts: readonly Part[], own: number, other: number): Bond {
  const [a, b] = [parts[own], parts[other]];
  const isPeer = r.chance(0.35);
  const together = r.chance(0.6);
  const heights = (p: Part | undefined): number => Math.max(0, ...(p?.nodes ?? []).map((n) => n.release));
  const apart = isPeer && r.chance(0.5) ? r.int(0, 1) : undefined;
  const cells = Array.from({ length: heights(a) + 1 }, (_, i) =>
    Array.from({ length: heights(b) + 1 }, (_x, k) => {
      const near = Math.abs(i / (heights(a) || 1) - k / (heights(b) || 1)) < 0.6;
      const roll = r.next();
      return roll < 0.03 ? 'unknown' : roll < (near ? 0.97 : 0.6) ? 'yes' : 'no';
    })
  );
  (cells[heights(a)] as string[])[heights(b)] = r.chance(0.82) ? 'yes' : 'no';
  if (r.chance(0.15)) (cells[0] as string[])[0] = 'yes';
  // Broken as it stands, now and then.
  if (r.chance(0.12)) (cells[0] as string[])[0] = 'no';
  const at = (p: Part | undefined, node: number): number => p?.nodes[node]?.release ?? 0;
  const distance = (x: number, y: number): number => Math.abs(at(a, x) - at(b, y));
  return {
    pairing: `p${own}${other}`,
    own,
    other,
    isPeer,
    together,
    holds: (x, y) =>
      apart !== undefined
        ? distance(x, y) <= apart
          ? 'yes'
          : 'no'
        : ((cells[at(a, x)]?.[at(b, y)] ?? 'no') as 'yes' | 'no' | 'unknown'),
    ...(apart === undefined ? {} : { distance })
  };
}

interface Nights {
  readonly from: number;
  readonly minutes: number;
  readonly length: readonly number[];
}

/** Day by day, and in a night from the minute on that may be begun at. */
function layOn(
  nights: Nights | undefined,
  {
    node,
    from,
    days,
    behind
  }: { readonly node: number; readonly from: number; readonly days: number; readonly behind: Moment }
): StepOn {
  if (!nights) {
    const first = Math.max(behind.day + 1, from);
    return { first, last: first + days - 1 };
  }
  const length = nights.length[node] ?? 60;
  const earliest = behind.isOpen ? Math.max(behind.day - 2, (behind.since ?? -9) + 1) : behind.day + 1;
  for (let day = Math.max(from, earliest); ; day++) {
    const start = day * 1440 + nights.from;
    const begin = Math.max(start, behind.minute ?? start);
    if (begin + length > start + nights.minutes) continue;
    return { first: day, last: Math.floor((begin + length - 1) / 1440), ends: begin + length };
  }
}

export function orderWorldOf(seed: number): OrderWorld {
  const r = new Random(seed * 6151 + 29);
  const count = r.int(2, r.chance(0.3) ? 6 : 4);
  const trees = Array.from({ length: count }, () => treeOf(r, r.int(2, count > 4 ? 3 : 4)));
  // Some are worked on at night, from an hour on for so many minutes; so have these numbers of their own.
  const n = new Random(seed * 5087 + 3);
  const nights = trees.map(({ nodes }) =>
    n.chance(0.5)
      ? { from: n.int(17, 23) * 60, minutes: 360, length: nodes.map(() => n.pick([60, 120, 200, 300])) }
      : undefined
  );
  const watched = trees.map(() => n.chance(0.2));
  const parts = trees.map(({ nodes }, i): Part => {
    const systems = Array.from({ length: r.int(1, 3) }, (_, k) => `${i}.${k}`);
    const importance: Importance = r.pick(['critical', 'normal', 'normal', 'spare']);
    return {
      id: `part ${i}`,
      systems,
      importance,
      nodes,
      stays: r.chance(0.06),
      ...(watched[i] ? { watches: true } : {}),
      ...(r.chance(0.95) ? { deadline: r.int(1, 3) } : {})
    };
  });
  const bonds: Bond[] = [];
  for (let i = 1; i < count; i++) bonds.push(bondOf(r, parts, i, r.int(0, i - 1)));
  for (let i = 0; i < count - 1; i++) if (r.chance(0.3)) bonds.push(bondOf(r, parts, i, i + 1));
  // Days laid down, pairs that never go together, and what orders are chosen by have numbers of their own.
  const l = new Random(seed * 9473 + 5);
  const on = new Map<number, { readonly day: number; readonly must: 'on' | 'not before' | 'not after' }>();
  for (let i = 0; i < count; i++)
    if (l.chance(0.18)) on.set(i, { day: l.int(2, 6), must: l.pick(['on', 'not before', 'not after']) });
  const apart = Array.from({ length: count }, (_, i) =>
    Array.from({ length: i }, (_x, k) => [k, i] as const).filter(() => l.chance(0.1))
  ).flat();
  // So have pilots: one or two parts that go first, others that wait.
  const q = new Random(seed * 7331 + 17);
  const roles = Array.from({ length: count }, () => q.int(0, 2));
  const named = (role: number): number[] =>
    roles.flatMap((o, i) => (o === role && !parts[i]?.stays ? [i] : []));
  const isPiloted = q.chance(0.2) && named(0).length > 0 && named(1).length > 0;
  const pilots = isPiloted ? [{ first: named(0), then: named(1), watchDays: q.int(0, 3) }] : [];
  const by = l.pick<OrderBy | undefined>([undefined, 'least outage', ...ORDER_BY]);
  const layBy =
    (locks: typeof on) =>
    (part: number, node: number, behind: readonly Moment[]): StepOn | undefined => {
      const { nodes, days, opens, closes } = trees[part] as Tree;
      // A lock is on the step onto the goal.
      const lock = nodes[node]?.isGoal ? locks.get(part) : undefined;
      const from = Math.max(opens[node] ?? 0, lock && lock.must !== 'not after' ? lock.day : 0);
      const on = layOn(nights[part], {
        node,
        from,
        days: days[node] ?? 1,
        behind: behind.at(-1) ?? { day: 0 }
      });
      if (lock?.must === 'on' && on.first !== lock.day) return undefined;
      if (lock?.must === 'not after' && on.last > lock.day) return undefined;
      return on.last <= (closes[node] ?? Infinity) ? on : undefined;
    };
  const problem: Problem = {
    parts,
    bonds,
    apart,
    pilots,
    eve: 0,
    mayShareDays: nights.some((x) => x !== undefined),
    lay: layBy(on),
    ...(by === undefined ? {} : { by })
  };
  return {
    seed,
    problem,
    free: { ...problem, apart: [], lay: layBy(new Map()) },
    unpiloted: { ...problem, pilots: [] }
  };
}
