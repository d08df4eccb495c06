import type { Demand, Supply } from './draw-problem';

/** Most classes that are searched as such. */
const MOST_CLASSES = 8;
const MOST_UNITS = 5000;
const MOST_DEMANDS = 60;

/** Demands of one day that are bought alike, or that cannot be bought, as one. */
export interface DrawClasses {
  /** Each class as one demand of all its units. */
  readonly demands: readonly Demand[];
  /** Places of the demands of each class. */
  readonly members: readonly (readonly number[])[];
  /** The most that can be drawn for the classes of a set, by set. */
  readonly room: readonly number[];
  /** Units by demand and supply where each class is given so many, the supplies that come first drawn on most. */
  draw(given: readonly number[]): number[][];
}

/**
 * Where all that can be bought on a day is of one price and pack, what a drawing comes to depends on how much each day is given, not on
 * whom. What classes can be given together is a polymatroid (sums of flows, Edmonds 1970): its rank of a set is the most that can be
 * drawn for it. Undefined where a day has several prices or packs, or there are too many.
 *
 * @param demands in the order of their days
 */
export function classesOf(demands: readonly Demand[], supplies: readonly Supply[]): DrawClasses | undefined {
  const units = demands.reduce((n, d) => n + d.units, 0);
  if (demands.length > MOST_DEMANDS || units > MOST_UNITS) return undefined;
  const classes = new Map<string, { readonly first: Demand; readonly members: number[] }>();
  for (const [i, d] of demands.entries()) {
    const key = `${d.day} ${String(d.priceCents !== undefined)}`;
    const known = classes.get(key) ?? { first: d, members: [] };
    if (
      d.priceCents !== undefined &&
      (known.first.priceCents !== d.priceCents || known.first.pack !== d.pack)
    )
      return undefined;
    known.members.push(i);
    classes.set(key, known);
  }
  if (classes.size > MOST_CLASSES || classes.size === demands.length) return undefined;
  const sorted = [...classes.values()].sort((a, b) => a.first.day - b.first.day);
  const members = sorted.map((c) => c.members);
  const unitsOf = (of: readonly number[]): number => of.reduce((n, i) => n + (demands[i]?.units ?? 0), 0);
  const draw = (given: readonly number[]): number[][] => drawFor(demands, supplies, members, given);
  return {
    members,
    demands: sorted.map((c) => ({ ...c.first, units: unitsOf(c.members), from: [] })),
    room: Array.from({ length: 1 << sorted.length }, (_, set) =>
      draw(members.map((of, i) => (set & (1 << i) ? unitsOf(of) : 0)))
        .flat()
        .reduce((a, b) => a + b, 0)
    ),
    draw
  };
}

const TO_CLASS = -1;
const FROM_CLASS = -2;

/** A step of a path, from the node before it: a draw of a demand on a supply, or into its class and out of it again. */
interface Step {
  readonly by: string;
  readonly demand: number;
  readonly supply: number;
}

/**
 * As many units as can be, each class given at most so many: supply after supply along shortest augmenting paths, so that those that come
 * first give most (Ford and Fulkerson 1956, Edmonds and Karp 1972).
 */
function drawFor(
  demands: readonly Demand[],
  supplies: readonly Supply[],
  members: readonly (readonly number[])[],
  caps: readonly number[]
): number[][] {
  const draws = demands.map(() => supplies.map(() => 0));
  const left = [...caps];
  const classOf = demands.map((_, i) => members.findIndex((of) => of.includes(i)));
  const totalOf = (demand: number): number => (draws[demand] ?? []).reduce((a, b) => a + b, 0);
  for (const [s, { units: held }] of supplies.entries()) {
    let free = held;
    while (free > 0) {
      const came = new Map<string, Step | undefined>([[`s${s}`, undefined]]);
      const queue = [`s${s}`];
      const reach = (node: string, step: Step): void => {
        if (came.has(node)) return;
        came.set(node, step);
        queue.push(node);
      };
      let end: string | undefined;
      for (let q = 0; q < queue.length && end === undefined; q++) {
        const by = queue[q] as string;
        const n = Number(by.slice(1));
        if (by.startsWith('s'))
          demands.forEach((d, i) => d.from.includes(n) && reach(`d${i}`, { by, demand: i, supply: n }));
        else if (by.startsWith('d')) {
          if (totalOf(n) < (demands[n]?.units ?? 0))
            reach(`c${classOf[n] ?? 0}`, { by, demand: n, supply: TO_CLASS });
          (draws[n] ?? []).forEach((u, i) => u > 0 && reach(`s${i}`, { by, demand: n, supply: i }));
        } else if ((left[n] ?? 0) > 0) end = by;
        // A full class gives up what another of its demands was given.
        else
          for (const i of members[n] ?? [])
            if (totalOf(i) > 0) reach(`d${i}`, { by, demand: i, supply: FROM_CLASS });
      }
      if (end === undefined) break;
      const path: Step[] = [];
      for (let step = came.get(end); step; step = came.get(step.by)) path.push(step);
      const room = path.map(({ by, demand, supply }) => {
        if (supply >= 0) return by.startsWith('s') ? Infinity : (draws[demand]?.[supply] ?? 0);
        return supply === TO_CLASS ? (demands[demand]?.units ?? 0) - totalOf(demand) : totalOf(demand);
      });
      const units = Math.min(free, left[Number(end.slice(1))] ?? 0, ...room);
      free -= units;
      left[Number(end.slice(1))]! -= units;
      for (const { by, demand, supply } of path)
        if (supply >= 0) draws[demand]![supply]! += by.startsWith('s') ? units : -units;
    }
  }
  return draws;
}
