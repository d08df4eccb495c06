import { countedPhaseOf, type PhaseModel, type Place } from '../compile';
import { type Day, PHASES, readDay } from '../date';
import { KEPT } from '../catalogue';
import { deadlineOf, type Contributor, type Deadline, type MissingCost } from './deadline';
import { offerEnd } from '../right';
import {
  type Ends,
  findChosen,
  type Judgement,
  judgeMoves,
  type Label,
  type Move,
  positionOf,
  type Reason,
  reasonOf,
  type Terms,
  useRight
} from '../route';

/** Ends that the whole route must be done by; others bind the step that they close. */
const ENDS: ReadonlySet<Contributor['kind']> = new Set([
  'service of installed',
  'service of host',
  'hardware model',
  'certificate',
  'activation'
]);
const TWENTY_YEARS = 7305;
/** As a route that ends on the target is judged in the sure run. */
const SURELY_THERE = { isTarget: true, run: 'sure' } as const;
const MAX_LOOKS_AHEAD = 60;

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
 *    today past the latest start of the way chosen that day, until there is none.
 * 3. What closes the chosen route while another stays open: listed with what that costs more.
 * 4. Rights and offers of the chosen route that lapse: listed with what the step costs then.
 * `others`: the ends of what it hangs on, of its model, certificate, activation.
 * Cost: one search for each way that closes, usually none or one.
 */
export function findTiming(
  terms: Terms,
  { start, target }: { readonly start: Place; readonly target: Place | undefined },
  chosen: Label | undefined,
  others: readonly Contributor[] = []
): Timing {
  const contributors = [...installedEnds(terms, start), ...others];
  if (target && chosen)
    contributors.push(...closingsOf(terms, { start, target }, chosen), ...lapsingRights(terms, chosen));
  const deadline = deadlineOf(contributors, terms.today);
  if (!chosen) return { deadline };
  const finishBy = Math.min(...contributors.filter((c) => c.sets && ENDS.has(c.kind)).map((c) => c.day));
  const latest = latestStartOf(terms, chosen.moves, finishBy);
  return latest === undefined ? { deadline } : { deadline, latestStart: latest };
}

/** The end of the phase that counts sets the deadline; those after it are listed, so that nobody takes it for the end of all. */
function installedEnds(terms: Terms, start: Place): Contributor[] {
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

/**
 * The last day from which the moves hold and end by `finishBy`; undefined when no day is the last, `none` when no
 * start does it. Starting earlier never breaks a route (waiting is always possible), so halving finds it.
 */
function latestStartOf(terms: Terms, moves: readonly Move[], finishBy: number): Day | 'none' | undefined {
  const holds = (from: Day): boolean => {
    const { findings, schedule } = judgeMoves({ ...terms, from, leadsFrom: from }, moves, SURELY_THERE);
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

/** What a search made on a later day gives in place of the chosen route. */
interface Ahead {
  readonly terms: Terms;
  readonly label?: Label;
}

const lookAhead = (terms: Terms, ends: Ends, day: Day, keptAtMost?: number): Ahead => {
  const later = { ...terms, today: day, from: day, leadsFrom: day };
  const options = { anyOpen: true, ...(keptAtMost === undefined ? {} : { keptAtMost }) };
  const { label } = findChosen(later, ends, 'sure', options);
  return { terms: later, ...(label ? { label } : {}) };
};

/**
 * Day after day on which the way of that day closes, until none is left: what closed last sets the deadline, what closed
 * first - the chosen route - is listed with what the next one costs more.
 */
function closingsOf(terms: Terms, ends: Ends, chosen: Label): Contributor[] {
  const accepted = terms.goal.accepts ? KEPT.indexOf(terms.goal.accepts) : 0;
  const keptAtMost = Math.max(chosen.criteria.keptRank, accepted);
  const found: Contributor[] = [];
  let label = chosen;
  for (let look = 0; look < MAX_LOOKS_AHEAD; look++) {
    const last = latestStartOf(terms, label.moves, Infinity);
    if (typeof last !== 'number') return found;
    const next = lookAhead(terms, ends, last + 1, keptAtMost);
    if (!next.label) {
      const remaining = lookAhead(terms, ends, last + 1).label;
      return [...found, ...contributorsOf(next.terms, label.moves, lossOf(remaining))];
    }
    if (look === 0)
      found.push(
        ...contributorsOf(next.terms, label.moves, costOf(chosen, next.label)).map((c) => ({
          ...c,
          sets: false
        }))
      );
    label = next.label;
  }
  return found;
}

function lossOf(remaining: Label | undefined): MissingCost {
  const kept = remaining && KEPT[remaining.criteria.keptRank];
  return kept ? { code: 'keeps less', kept } : { code: 'out of reach' };
}

/** What the next way costs more than the chosen one. */
function costOf(chosen: Label, next: Label): MissingCost {
  const [before, after] = [chosen.criteria.most, next.criteria.most];
  const more = after.costCents - before.costCents;
  if (after.unknownSums.some((s) => !before.unknownSums.includes(s)))
    return { code: 'money', cents: 'unknown' };
  return more > 0 ? { code: 'money', cents: more } : { code: 'another way' };
}

/** What has closed for these moves on the first day they no longer hold. */
function contributorsOf(terms: Terms, moves: readonly Move[], cost: MissingCost): Contributor[] {
  const judgement = judgeMoves(terms, moves, SURELY_THERE);
  const found = judgement.findings.map((finding) => {
    const reason = reasonOf(terms, moves, judgement, finding);
    const move = moves[finding.move] as Move;
    // Of service that has to be left the end is no day by which it can still be done.
    const closed = reason.code === 'months left' ? lastFinish(judgement) : reason.day;
    const day =
      closed ??
      lapseDay(terms, move, reason, judgement.schedule.days[finding.move]?.hop.first) ??
      terms.today - 1;
    return {
      kind: kindOf(reason),
      subject: subjectOf(terms, move, reason, judgement.schedule.days[finding.move]?.hop.first),
      day,
      sets: true,
      cost,
      ...(isDisputed(move, reason) ? { disputed: true } : {}),
      ...(reason.source === undefined ? {} : { source: reason.source })
    };
  });
  return found.slice(0, 1);
}

/** The day before the first on which it would be over too late. */
const lastFinish = ({ schedule }: Judgement): Day | undefined => {
  const finish = schedule.days.at(-1)?.hop.last;
  return finish === undefined ? undefined : finish - 1;
};

/** Whether the day a hop closes is stated in several ways, without a ruling. */
const isDisputed = ({ hop, change }: Move, { code }: Reason): boolean => {
  const entry = hop?.hop ?? change?.change;
  return (
    code === 'closed' && (entry?.also ?? []).some((a) => a.closes !== undefined && a.closes !== entry?.closes)
  );
};

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
    case 'pairing':
      return 'pairing';
    case 'requirement':
    case 'site demand':
    case 'companion':
      return 'decision';
    case 'every patch':
    case 'newer than target':
      return 'newer patch';
    default:
      return 'closing';
  }
}

function subjectOf(terms: Terms, move: Move, { code, subject }: Reason, on: Day | undefined): string {
  // What the step was made under the day before.
  if (code === 'spending' && on !== undefined)
    return useRight(terms, move, { first: on - 1, last: on - 1, exact: true }, 'sure').use.right ?? '';
  if (code !== 'patch withdrawn') return subject;
  const { release, patch } = positionOf(terms, { ...move.from, patch: move.level });
  return `${release}/${patch}`;
}

/** The last day of a right that the step had the day before it would now fall on. */
function lapseDay(terms: Terms, move: Move, { code }: Reason, on: Day | undefined): Day | undefined {
  if ((code !== 'spending' && code !== 'right') || on === undefined) return undefined;
  return useRight(terms, move, { first: on - 1, last: on - 1, exact: true }, 'sure').use.until;
}

/** Dated rights of the chosen route: what the step costs once they lapse. They set no deadline. */
function lapsingRights(terms: Terms, chosen: Label): Contributor[] {
  return chosen.moves.flatMap((move, i): Contributor[] => {
    const use = chosen.judgement.rights[i]?.use;
    if (!use?.right || use.costCents === 'unknown') return [];
    const { right, costCents } = use;
    const offer = terms.model.rights.find((r) => r.right.id === right)?.right.offer;
    const ends = [use.until, offerEnd(terms, offer)].filter((d) => d !== undefined && d >= terms.today);
    return [...new Set(ends)].flatMap((day): Contributor[] => {
      if (day === undefined) return [];
      const after = useRight(terms, move, { first: day + 1, last: day + 1, exact: true }, 'sure').use;
      const cents = after.costCents === 'unknown' ? 'unknown' : after.costCents - costCents;
      if (cents === 0 && after.units && after.right !== right) {
        const { pool, number } = after.units;
        return [{ kind: 'right', subject: right, day, sets: false, cost: { code: 'units', pool, number } }];
      }
      if (cents === 0) return [];
      return [{ kind: 'right', subject: right, day, sets: false, cost: { code: 'money', cents } }];
    });
  });
}
