import { type DateInterval, type MaybeDay, readDay } from './interval';

export const PHASES = ['full', 'security', 'extension'] as const;
export type PhaseName = (typeof PHASES)[number];

/** One phase of a release's service, lasting until (and including) a day. */
export interface ServicePhase {
  readonly phase: PhaseName;
  readonly until: DateInterval;
}

/**
 * The end of service that counts for a site: the `until` of the last stated phase not beyond `counted`.
 * Undefined where no such phase is stated; `unknown` ends count as in service.
 */
export function findCountedPhase<Phase extends ServicePhase>(
  phases: readonly Phase[],
  counted: PhaseName
): Phase | undefined {
  const limit = PHASES.indexOf(counted);
  return phases
    .filter((p) => PHASES.indexOf(p.phase) <= limit)
    .sort((a, b) => PHASES.indexOf(b.phase) - PHASES.indexOf(a.phase))[0];
}

/** The last day in service by the site's policy; `unknown` when nothing usable is published. */
export function findServiceEnd(
  phases: readonly ServicePhase[],
  counted: PhaseName,
  countsExpected: boolean
): MaybeDay {
  const phase = findCountedPhase(phases, counted);
  return phase ? readDay(phase.until, countsExpected) : 'unknown';
}
