import type { CasePlan, RoundPlan } from './plan-types';

/** The round a system of a case goes in, counted from 1; undefined where its case goes at once, or no window has room for it. */
export function roundOf(
  { systems, rounds = [] }: Pick<CasePlan, 'systems' | 'rounds'>,
  system: string
): { readonly number: number; readonly round: RoundPlan } | undefined {
  let left = systems.indexOf(system);
  if (left < 0) return undefined;
  for (const [i, round] of rounds.entries()) {
    if (left < round.systems) return { number: i + 1, round };
    left -= round.systems;
  }
  return undefined;
}
