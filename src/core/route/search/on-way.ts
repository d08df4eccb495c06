import type { CureModel } from '../../compile';
import type { WayStep } from '../../estate';
import type { RightUse } from '../../right';
import type { Opening } from '../move';
import type { Terms } from '../terms';
import { isCounted, type Route } from '../types';

/*
 * A way somebody has chosen: the counted steps in order, each with the edition and architecture it leads to, the
 * cures that may be taken before it and the right it is made under. What a step of it leaves out may be anything.
 */

/** Whether a step is another than the one the chosen way takes there. Never where no way is chosen. */
export function isOffWay({ way, model }: Terms, taken: number, { id, to }: Opening): boolean {
  if (!way) return false;
  const step = way[taken];
  return (
    step?.step !== id ||
    (step.edition !== undefined && model.editions[to.edition] !== step.edition) ||
    (step.architecture !== undefined && model.architectures[to.architecture] !== step.architecture)
  );
}

/** Whether the chosen way takes these cures before its step; fewer are welcome. */
export const takesCures = ({ way }: Terms, taken: number, cures: readonly CureModel[]): boolean => {
  const named = way?.[taken]?.cures;
  return named === undefined || cures.every((c) => named.includes(c.cure.id));
};

/** Whether every step is made under the right the chosen way names, or under one that costs nothing. */
export const isUnderItsRights = ({ way }: Terms, rights: readonly { readonly use: RightUse }[]): boolean =>
  way === undefined ||
  rights.every(({ use }, i) => {
    const named = way[i]?.right;
    return (
      named === undefined ||
      (use.costCents === 0 && use.units === undefined) ||
      (use.kind === named.kind && use.right === named.right)
    );
  });

/** Whether two ways are the same in all that they say. */
export const isSameWay = (a: readonly WayStep[], b: readonly WayStep[]): boolean =>
  a.length === b.length && a.every((step, i) => keyOfStep(step) === keyOfStep(b[i]));

const keyOfStep = (step: WayStep | undefined): string =>
  JSON.stringify([
    step?.step,
    step?.edition,
    step?.architecture,
    step?.cures,
    step?.right?.kind,
    step?.right?.right
  ]);

/** A route as the way it takes: what a decision to take it keeps. */
export function wayOf({ steps }: Route): WayStep[] {
  const way: WayStep[] = [];
  let cures: string[] = [];
  for (const step of steps) {
    if (step.kind === 'cure') cures.push(step.id);
    if (!isCounted(step)) continue;
    const { kind, right } = step.right;
    const { edition, architecture } = step.to;
    way.push({
      step: step.id,
      edition,
      architecture,
      cures,
      right: { kind, ...(right === undefined ? {} : { right }) }
    });
    cures = [];
  }
  return way;
}
