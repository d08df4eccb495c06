import { countedPhaseOf, type PhaseModel, type Place } from '../compile';
import { PHASES, readDay } from '../date';
import type { Terms } from '../route';
import type { Contributor } from './deadline';

/** The end of the phase that counts sets the deadline; those after it are listed, so that nobody takes it for the end of all. */
export function installedEnds(terms: Terms, start: Place): Contributor[] {
  const release = terms.model.releases[start.release];
  const counted = release && countedPhaseOf(release, terms.goal.phase);
  if (!release || !counted) return [];
  return release.service
    .filter((p) => PHASES.indexOf(p.phase) >= PHASES.indexOf(counted.phase))
    .flatMap((phase) => endOfPhase(terms, release.release.id, phase, phase === counted));
}

function endOfPhase(terms: Terms, subject: string, phase: PhaseModel, sets: boolean): Contributor[] {
  const day = readDay(phase.until, terms.countsExpected);
  if (day === 'unknown' || phase.until.certainty === 'unknown') return [];
  return [
    {
      kind: 'service of installed',
      subject,
      day,
      ...(phase.until.first === day ? {} : { early: phase.until.first }),
      certainty: phase.until.certainty,
      phase: phase.phase,
      ...(phase.isDisputed ? { disputed: true } : {}),
      ...(phase.source === undefined ? {} : { source: phase.source }),
      sets,
      cost: { code: 'no service' }
    }
  ];
}
