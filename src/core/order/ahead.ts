import type { PartNode } from './problem';

/** The least of what the steps from each node of a part's ways to its goal come to; 0 where none leads there. */
export function leastAhead(nodes: readonly PartNode[], of: (node: PartNode) => number): number[] {
  const ahead: number[] = [];
  for (let i = nodes.length - 1; i >= 0; i--) {
    const { isGoal, next } = nodes[i] as PartNode;
    ahead[i] = isGoal
      ? 0
      : Math.min(...next.map((n) => (ahead[n] ?? 0) + of(nodes[n] as PartNode)), Infinity);
  }
  return ahead.map((n) => (n === Infinity ? 0 : n));
}
