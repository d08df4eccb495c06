import { Ledger } from './lay';
import type { PerhapsOrder } from './order-types';
import { idsOfNode, type MovingPart } from './parts';
import { place } from './place';
import type { Bond, Problem } from './problem';
import { compareReached } from './reach';
import { findOrder, type FoundOrder } from './search';

/** The best order if whatever cannot be told fits; undefined where it reaches no more than the sure one. */
export function findHopeful(problem: Problem, sure: FoundOrder): FoundOrder | undefined {
  if (sure.reached.all || !problem.bonds.some((b) => mayBeUnknown(problem, b))) return undefined;
  const found = findOrder(hopefully(problem));
  return compareReached(found.reached, sure.reached) < 0 ? found : undefined;
}

/** The same on its days, as if crews did nothing else; undefined where there is no room for it. */
export function perhapsOf(
  problem: Problem,
  parts: readonly MovingPart[],
  { sure, hopeful }: { readonly sure: FoundOrder; readonly hopeful: FoundOrder }
): PerhapsOrder | undefined {
  const waves = place(hopefully(problem), parts, { found: hopeful, ledger: new Ledger() });
  if (!waves) return undefined;
  const isThere = ({ end }: FoundOrder, part: number): boolean =>
    parts[part]?.nodes[end[part] ?? 0]?.isGoal === true;
  return {
    goals: parts.flatMap((_, i) => (isThere(hopeful, i) && !isThere(sure, i) ? [i] : [])),
    waves,
    rests: restsOf(problem, parts, hopeful)
  };
}

const hopefully = (problem: Problem): Problem => ({ ...problem, bonds: problem.bonds.map(hoping) });

const hoping = (bond: Bond): Bond => ({
  ...bond,
  holds: (own, other) => {
    const truth = bond.holds(own, other);
    return truth === 'unknown' ? 'yes' : truth;
  }
});

/** Somewhere on the ways of both. */
const mayBeUnknown = ({ parts }: Problem, { own, other, holds }: Bond): boolean =>
  (parts[own]?.nodes ?? []).some((_, x) =>
    (parts[other]?.nodes ?? []).some((_other, y) => holds(x, y) === 'unknown')
  );

/** What cannot be told behind each wave, where a step of it is what brought the two there. */
function restsOf(
  { bonds }: Problem,
  parts: readonly MovingPart[],
  { waves }: FoundOrder
): PerhapsOrder['rests'] {
  const at = parts.map(() => 0);
  return waves.flatMap(({ steps }, wave) => {
    for (const { part, to } of steps) at[part] = to;
    return bonds.flatMap(({ pairing, own, other, holds }) => {
      const [x, y] = [at[own] ?? 0, at[other] ?? 0];
      const isNew = steps.some((s) => s.part === own || s.part === other);
      const [a, b] = [parts[own], parts[other]];
      return isNew && a && b && holds(x, y) === 'unknown'
        ? [
            {
              pairing,
              wave,
              parts: [own, other] as const,
              places: [idsOfNode(a, x), idsOfNode(b, y)] as const
            }
          ]
        : [];
    });
  });
}
