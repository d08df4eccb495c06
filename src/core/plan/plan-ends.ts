import { countedPhaseOf } from '../compile';
import { type DateInterval, type Day, parseDateText, parseDay, readDay } from '../date';
import type { Contributor } from '../deadline';
import { seenOf } from '../estate';
import type { Case } from '../bind';
import type { Planning } from './planning';
import { foldText } from '../version';

/**
 * What ends beside the service of what is installed: service of what it hangs on, of its hardware model,
 * its certificate, the grace of its activation. Of hosts and managers the earliest counts.
 */
export function findOtherEnds(planning: Planning, one: Case): Contributor[] {
  return [...endsOfHosts(planning, one), ...endsOfModel(planning, one), ...endsOfFacts(planning, one)];
}

function endsOfHosts(planning: Planning, { system, goal }: Case): Contributor[] {
  const ends = planning.hostsOf(system).flatMap(({ system: host, model }): Contributor[] => {
    const at = 'is' in host.release ? model.sequence.indexById.get(host.release.is) : undefined;
    const release = at === undefined ? undefined : model.releases[at];
    const phase = release && countedPhaseOf(release, goal.phase);
    const dated = phase && datedOf(phase.until, planning.estate.site.countsExpected);
    if (!dated || !release) return [];
    return [
      {
        kind: 'service of host',
        subject: model.product.name,
        ...dated,
        phase: phase.phase,
        ...(phase.isDisputed ? { disputed: true } : {}),
        ...(phase.source === undefined ? {} : { source: phase.source }),
        sets: true,
        cost: { code: 'no service' }
      }
    ];
  });
  const [first] = ends.sort((a, b) => a.day - b.day);
  return first ? [first] : [];
}

function endsOfModel(planning: Planning, { system }: Case): Contributor[] {
  const product = planning.modelFor(system)?.product;
  const seen = seenOf(system, 'model', planning.decided);
  if (!product || seen.kind !== 'known') return [];
  const name = foldText(String(seen.value));
  const found = product.models?.find((m) =>
    [m.id, m.name ?? m.id, ...(m.aliases ?? [])].some((n) => foldText(n) === name)
  );
  const date = found?.ends === undefined ? undefined : parseDateText(found.ends);
  const dated = date && datedOf(date, planning.estate.site.countsExpected);
  if (!found || !dated) return [];
  return [
    {
      kind: 'hardware model',
      subject: found.name ?? found.id,
      ...dated,
      ...(found.source === undefined ? {} : { source: found.source }),
      sets: true,
      cost: { code: 'no service' }
    }
  ];
}

function endsOfFacts(planning: Planning, { system }: Case): Contributor[] {
  const kinds = [
    ['certificate.ends', 'certificate'],
    ['grace.ends', 'activation']
  ] as const;
  return kinds.flatMap(([fact, kind]): Contributor[] => {
    const seen = seenOf(system, fact, planning.decided);
    const day = seen.kind === 'known' ? parseDay(String(seen.value)) : undefined;
    if (day === undefined) return [];
    return [{ kind, subject: system.name, day, sets: true, cost: { code: 'stops' } }];
  });
}

/** The day a date counts as, with the early reading where that differs; undefined where nobody knows. */
function datedOf(
  date: DateInterval,
  countsExpected: boolean
): { day: Day; early?: Day; certainty?: Contributor['certainty'] } | undefined {
  const day = readDay(date, countsExpected);
  if (day === 'unknown' || date.certainty === 'unknown') return undefined;
  return { day, ...(date.first === day ? {} : { early: date.first }), certainty: date.certainty };
}
