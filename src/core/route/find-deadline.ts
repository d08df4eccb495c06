import { countedPhaseOf } from '../catalogue/model';
import { KEPT } from '../catalogue/schema';
import type { Day } from '../date/day';
import { deadlineOf, type Contributor, type Deadline, type MissingCost } from '../date/deadline';
import { readDay } from '../date/interval';
import { findUse } from '../right/find-use';
import { judgeMoves, positionOf } from './judge';
import { reasonOf } from './explain';
import type { Label } from './label';
import type { Move, Place } from './move';
import { findRoutes, targetKey } from './search';
import type { Terms } from './terms';
import type { Reason } from './types';

const TWENTY_YEARS = 7305;
const MAX_LOOKS_AHEAD = 40;

export interface Timing {
  readonly deadline: Deadline;
  /** Last safe day to start the chosen route; `none` where no start ends in time; absent where nothing binds it. */
  readonly latestStart?: Day | 'none';
}

/**
 * The deadline of a case and the latest start of its chosen route (RECKONING G), without windows.
 *
 * 1. The end of the phase that counts for what is installed.
 * 2. The closing that leaves no sure route to the target keeping as much as the chosen one: looked for by moving
 *    today past the latest start of every surviving route until none survives.
 * 3. Rights of the chosen route that lapse: listed with what the step costs then.
 * Cost: one search per surviving generation of routes, usually none or one.
 */
export function findTiming(
  terms: Terms,
  start: Place,
  target: Place | undefined,
  routes: readonly Label[],
  chosen: Label | undefined
): Timing {
  const contributors = [...installedEnd(terms, start)];
  if (target && chosen)
    contributors.push(...closingOf(terms, start, target, routes, chosen), ...lapsingRights(terms, chosen));
  const deadline = deadlineOf(contributors, terms.today);
  if (!chosen) return { deadline };
  const finishBy = Math.min(
    ...contributors.filter((c) => c.kind === 'service of installed').map((c) => c.day)
  );
  const latest = latestStartOf(terms, chosen.moves, finishBy);
  return latest === undefined ? { deadline } : { deadline, latestStart: latest };
}

function installedEnd(terms: Terms, start: Place): Contributor[] {
  const release = terms.model.releases[start.release];
  const phase = release && countedPhaseOf(release, terms.goal.phase);
  const day = phase ? readDay(phase.until, terms.countsExpected) : 'unknown';
  if (!release || !phase || day === 'unknown' || phase.until.certainty === 'unknown') return [];
  return [
    {
      kind: 'service of installed',
      subject: release.release.id,
      day,
      ...(phase.until.first === day ? {} : { early: phase.until.first }),
      certainty: phase.until.certainty,
      ...(phase.source === undefined ? {} : { source: phase.source }),
      sets: true,
      cost: { code: 'no service' }
    }
  ];
}

/**
 * The last day from which the moves hold and end by `finishBy`; undefined when no day is the last, `none` when no
 * start does it. Starting earlier never breaks a route (waiting is always possible), so halving finds it.
 */
function latestStartOf(terms: Terms, moves: readonly Move[], finishBy: number): Day | 'none' | undefined {
  const holds = (from: Day): boolean => {
    const { findings, schedule } = judgeMoves({ ...terms, from }, moves, true, 'sure');
    const finish = schedule.days[moves.length - 1]?.hop;
    return (
      findings.length === 0 &&
      finish !== undefined &&
      finish.last <= finishBy &&
      (finish.exact || finishBy === Infinity)
    );
  };
  let low = Math.min(terms.today, finishBy) - TWENTY_YEARS;
  let high = Math.max(terms.today, finishBy === Infinity ? 0 : finishBy) + TWENTY_YEARS;
  if (holds(high)) return undefined;
  if (!holds(low)) return 'none';
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (holds(middle)) low = middle;
    else high = middle;
  }
  return low;
}

function closingOf(
  terms: Terms,
  start: Place,
  target: Place,
  routes: readonly Label[],
  chosen: Label
): Contributor[] {
  const accepted = terms.goal.accepts ? KEPT.indexOf(terms.goal.accepts) : 0;
  const keptRank = Math.max(chosen.criteria.keptRank, accepted);
  let surviving = routes.filter((r) => r.criteria.keptRank <= keptRank);
  for (let look = 0; look < MAX_LOOKS_AHEAD; look++) {
    const last = findLastSurvivor(terms, surviving);
    if (!last) return [];
    const next = { ...terms, today: last.day + 1, from: last.day + 1 };
    const all = findRoutes(next, start, 'sure').routes.get(targetKey(target)) ?? [];
    surviving = all.filter((r) => r.criteria.keptRank <= keptRank);
    if (surviving.length === 0) return contributorsOf(next, last.label.moves, lossOf(all));
  }
  return [];
}

/** Of the routes, the one that stays open longest, with its last day; undefined when some never closes. */
function findLastSurvivor(terms: Terms, routes: readonly Label[]): { label: Label; day: Day } | undefined {
  let last: { label: Label; day: Day } | undefined;
  for (const label of routes) {
    const day = latestStartOf(terms, label.moves, Infinity);
    if (day === undefined || day === 'none') return undefined;
    if (!last || day > last.day) last = { label, day };
  }
  return last;
}

function lossOf(remaining: readonly Label[]): MissingCost {
  const kept = remaining[0] && KEPT[remaining[0].criteria.keptRank];
  return kept ? { code: 'keeps less', kept } : { code: 'out of reach' };
}

/** What has closed for these moves on the first day they no longer hold. */
function contributorsOf(terms: Terms, moves: readonly Move[], cost: MissingCost): Contributor[] {
  const judgement = judgeMoves(terms, moves, true, 'sure');
  const found = judgement.findings.map((finding) => {
    const reason = reasonOf(terms, moves, judgement, finding);
    const move = moves[finding.move] as Move;
    const day =
      reason.day ??
      lapseDay(terms, move, reason, judgement.schedule.days[finding.move]?.hop.first) ??
      terms.today - 1;
    return {
      kind: kindOf(reason),
      subject: subjectOf(terms, move, reason),
      day,
      sets: true,
      cost,
      ...(reason.source === undefined ? {} : { source: reason.source })
    };
  });
  return found.slice(0, 1);
}

function kindOf({ code }: Reason): Contributor['kind'] {
  switch (code) {
    case 'patch withdrawn':
      return 'patch';
    case 'right':
    case 'spending':
      return 'right';
    case 'resting':
    case 'pass days':
    case 'months left':
      return 'service on the way';
    case 'every patch':
    case 'newer than target':
      return 'newer patch';
    default:
      return 'closing';
  }
}

function subjectOf(terms: Terms, move: Move, { code, subject }: Reason): string {
  if (code !== 'patch withdrawn') return subject;
  const { release, patch } = positionOf(terms, { ...move.from, patch: move.level });
  return `${release}/${patch}`;
}

/** The last day of a right that the step had the day before it would now fall on. */
function lapseDay(terms: Terms, move: Move, { code }: Reason, on: Day | undefined): Day | undefined {
  if ((code !== 'spending' && code !== 'right') || on === undefined) return undefined;
  return findUse(terms, move, { first: on - 1, last: on - 1, exact: true }, 'sure').use.until;
}

/** Dated rights of the chosen route: what the step costs once they lapse. They set no deadline. */
function lapsingRights(terms: Terms, chosen: Label): Contributor[] {
  return chosen.moves.flatMap((move, i): Contributor[] => {
    const use = chosen.judgement.rights[i]?.use;
    if (use?.until === undefined || !use.right || use.costCents === 'unknown') return [];
    const after = findUse(
      terms,
      move,
      { first: use.until + 1, last: use.until + 1, exact: true },
      'sure'
    ).use;
    const cents = after.costCents === 'unknown' ? 'unknown' : after.costCents - use.costCents;
    if (cents === 0) return [];
    return [
      { kind: 'right', subject: use.right, day: use.until, sets: false, cost: { code: 'money', cents } }
    ];
  });
}
