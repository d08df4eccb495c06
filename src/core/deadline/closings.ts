import { KEPT } from '../catalogue';
import type { Day } from '../date';
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
import type { Contributor, MissingCost } from './deadline';
import { latestStartOf, SURELY_THERE } from './latest-start';

const MAX_LOOKS_AHEAD = 60;

/** What a search made on a later day gives in place of the chosen route. */
interface Ahead {
  readonly terms: Terms;
  readonly label?: Label;
}

const lookAhead = (terms: Terms, ends: Ends, day: Day): Ahead => {
  const later = { ...terms, today: day, from: day, leadsFrom: day };
  const { label } = findChosen(later, ends, 'sure', { anyOpen: true });
  return { terms: later, ...(label ? { label } : {}) };
};

/**
 * Day after day on which the way of that day closes, until none is left: what closed last sets the deadline, what closed
 * first - the chosen route - is listed with what the next one costs more.
 */
export function closingsOf(terms: Terms, ends: Ends, chosen: Label): Contributor[] {
  const accepted = terms.goal.accepts ? KEPT.indexOf(terms.goal.accepts) : 0;
  const keptAtMost = Math.max(chosen.criteria.keptRank, accepted);
  const found: Contributor[] = [];
  let label = chosen;
  for (let look = 0; look < MAX_LOOKS_AHEAD; look++) {
    const last = latestStartOf(
      terms,
      label.moves,
      Infinity,
      label === chosen ? { laid: label.judgement } : {}
    );
    if (typeof last !== 'number') return found;
    // What keeps most comes first: where that keeps too little, whatever else there is does.
    const next = lookAhead(terms, ends, last + 1);
    if (!next.label || next.label.criteria.keptRank > keptAtMost)
      return [...found, ...contributorsOf(next.terms, label.moves, lossOf(next.label))];
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
