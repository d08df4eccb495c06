import type { Remedy } from './ready-types';

/** Something with a price; buying it serves every group that needs it. */
export interface Priced {
  readonly key: string;
  /** Cents for all that need it; unknown: it cannot be bought within a budget. */
  readonly costCents: number | 'unknown';
}

/**
 * What a budget can buy: what costs nothing but is a decision - to go without a companion, say - is not for the taking, and
 * what is needed only perhaps is asked about before it is bought.
 */
export const payableOf = (remedies: readonly Remedy[]): Priced[] =>
  remedies.map(({ key, kind, costCents }) => ({
    key,
    costCents: kind === 'decision' || kind === 'other' || kind === 'perhaps' ? 'unknown' : costCents
  }));

/** Systems that are opened once everything they need is had. */
export interface Group {
  readonly systems: number;
  readonly needs: readonly string[];
}

export interface Choice {
  /** Keys, in the order of what was given. */
  readonly chosen: readonly string[];
  readonly opened: number;
  readonly spentCents: number;
  /** No choice within the budget opens more. */
  readonly exact: boolean;
  /** No choice within the budget opens more than this; equal to `opened` where it is exact. */
  readonly upperBound: number;
}

/** Blockers up to which every choice is tried. */
const MOST_EXACT = 20;

/**
 * What to buy within a budget so that most systems are opened; of choices that open as many the one that costs least, then the
 * first by keys. What costs nothing is taken where it helps. Exact for up to 20 priced remedies by depth-first search with the
 * bound below; past that the best of two greedy orders. Method: budgeted set-union knapsack; the bound shares the price of a
 * remedy out among the groups that need it and fills the budget by systems a cent, the last group in part (Goldschmidt, Nehme
 * and Yu 1994; Dantzig 1957). Cost: 2^priced at worst, remedies times groups beyond.
 */
export function chooseRemedies(
  remedies: readonly Priced[],
  groups: readonly Group[],
  budgetCents: number
): Choice {
  const price = new Map(remedies.map((r) => [r.key, r.costCents]));
  const payable = groups.filter((g) => g.needs.every((n) => typeof price.get(n) === 'number'));
  const items = remedies.filter(
    (r): r is Priced & { costCents: number } =>
      typeof r.costCents === 'number' && r.costCents > 0 && payable.some((g) => g.needs.includes(r.key))
  );
  const problem = problemOf(items, payable, budgetCents);
  const exact = items.length <= MOST_EXACT;
  const found = exact ? searchAll(problem) : greedy(problem);
  const taken = new Set([...found.taken].map((i) => items[i]?.key ?? ''));
  const helped = payable.filter((g) => g.needs.every((n) => taken.has(n) || price.get(n) === 0));
  const used = new Set(helped.flatMap((g) => g.needs));
  const chosen = remedies.filter((r) => used.has(r.key)).map((r) => r.key);
  const opened = helped.reduce((n, g) => n + g.systems, 0);
  return {
    chosen,
    opened,
    spentCents: chosen.reduce((n, key) => n + ((price.get(key) as number | undefined) ?? 0), 0),
    exact: exact || boundOf(problem, new Set(), 0) <= opened,
    upperBound: exact ? opened : Math.max(opened, boundOf(problem, new Set(), 0))
  };
}

interface Problem {
  readonly costs: readonly number[];
  readonly groups: readonly { readonly systems: number; readonly needs: readonly number[] }[];
  readonly budget: number;
}

/** Groups that need the same as one; each need once. */
export function mergeAlike(groups: readonly Group[]): Group[] {
  const merged = new Map<string, Group>();
  for (const g of groups) {
    const needs = [...new Set(g.needs)].sort();
    const known = merged.get(needs.join('|'));
    merged.set(needs.join('|'), { systems: g.systems + (known?.systems ?? 0), needs });
  }
  return [...merged.values()];
}

function problemOf(
  items: readonly (Priced & { readonly costCents: number })[],
  groups: readonly Group[],
  budget: number
): Problem {
  const index = new Map(items.map((r, i) => [r.key, i]));
  const merged = mergeAlike(groups.map((g) => ({ ...g, needs: g.needs.filter((n) => index.has(n)) }))).map(
    (g) => ({ systems: g.systems, needs: g.needs.map((n) => index.get(n) ?? 0) })
  );
  return { costs: items.map((r) => r.costCents), groups: merged, budget };
}

interface Found {
  readonly taken: ReadonlySet<number>;
  readonly opened: number;
  readonly spent: number;
}

const openedBy = ({ groups }: Problem, taken: ReadonlySet<number>): number =>
  groups.reduce((n, g) => n + (g.needs.every((i) => taken.has(i)) ? g.systems : 0), 0);

/** Takes or leaves one after the other; a branch that cannot open more, nor as many for less, is left. */
function searchAll(problem: Problem): Found {
  const order = problem.costs.map((_, i) => i);
  let best: Found = { taken: new Set(), opened: openedBy(problem, new Set()), spent: 0 };
  const go = (at: number, taken: ReadonlySet<number>, left: ReadonlySet<number>, spent: number): void => {
    const opened = openedBy(problem, taken);
    if (opened > best.opened || (opened === best.opened && spent < best.spent))
      best = { taken, opened, spent };
    const next = order[at];
    if (next === undefined || boundOf(problem, left, spent, taken) < best.opened) return;
    const cost = problem.costs[next] ?? 0;
    if (spent + cost <= problem.budget) go(at + 1, new Set([...taken, next]), left, spent + cost);
    go(at + 1, taken, new Set([...left, next]), spent);
  };
  go(0, new Set(), new Set(), 0);
  return best;
}

/** By systems a cent of what is still to be paid, and by systems; the better of the two. */
function greedy(problem: Problem): Found {
  const byShare = fill(problem, (systems, cost) => systems / Math.max(1, cost));
  const byCount = fill(problem, (systems) => systems);
  return byCount.opened > byShare.opened ? byCount : byShare;
}

function fill(problem: Problem, worth: (systems: number, cost: number) => number): Found {
  const taken = new Set<number>();
  let spent = 0;
  const costOf = (needs: readonly number[]): number =>
    needs.reduce((n, i) => n + (taken.has(i) ? 0 : (problem.costs[i] ?? 0)), 0);
  for (;;) {
    const open = problem.groups
      .map((g) => ({ ...g, cost: costOf(g.needs) }))
      .filter((g) => g.cost > 0 && spent + g.cost <= problem.budget)
      .sort((a, b) => worth(b.systems, b.cost) - worth(a.systems, a.cost) || a.cost - b.cost);
    const [first] = open;
    if (!first) return { taken, opened: openedBy(problem, taken), spent };
    for (const i of first.needs) taken.add(i);
    spent += first.cost;
  }
}

/** No choice that leaves `left` and has `taken` opens more. */
function boundOf(
  { costs, groups, budget }: Problem,
  left: ReadonlySet<number>,
  spent: number,
  taken: ReadonlySet<number> = new Set()
): number {
  const possible = groups.filter((g) => !g.needs.some((i) => left.has(i)));
  const sharers = costs.map((_, i) => possible.filter((g) => g.needs.includes(i)).length);
  const shares = possible
    .map((g) => ({
      systems: g.systems,
      cost: g.needs.reduce(
        (n, i) => n + (taken.has(i) ? 0 : (costs[i] ?? 0) / Math.max(1, sharers[i] ?? 1)),
        0
      )
    }))
    .sort((a, b) => a.cost / a.systems - b.cost / b.systems);
  let room = budget - spent;
  let bound = 0;
  for (const { systems, cost } of shares) {
    if (cost <= room + 1e-6) [bound, room] = [bound + systems, room - cost];
    else return Math.floor(bound + (systems * room) / cost + 1e-6);
  }
  return bound;
}
