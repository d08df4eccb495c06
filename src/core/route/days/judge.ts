import { and, type Run, type Truth, truthOf } from '../../condition';
import { type DateInterval, type MaybeDay, monthsBetween, readDay, type StepDays } from '../../date';
import { BASE_PATCH, type Position } from '../../version';
import { useRight, type UsedRight } from '../step/use-right';
import { gatesOf, type Judging, layDays, layNext, type Schedule } from './lay-days';
import type { MoveDays } from './move-days';
import { KEPT, type Kept } from '../../catalogue';
import type { Goal } from '../../estate';
import { type Move } from '../move';
import { NOTHING, type Place } from '../../compile';
import { offerTruths } from '../step/offer-wait';
import type { Terms } from '../terms';
import { clauseKey, type ClauseCode } from '../reason';

/** One clause of one move, judged. Only what is not plainly true is kept. */
export interface Finding {
  readonly code: ClauseCode;
  /** What it is about: a hop, release, right, requirement, ...; empty for what the goal does not allow. */
  readonly subject: string;
  /** Place of the move in the route. */
  readonly move: number;
  readonly truth: 'no' | 'unknown';
}

export interface Judgement {
  readonly schedule: Schedule;
  readonly rights: readonly UsedRight[];
  readonly findings: readonly Finding[];
}

/**
 * Judges a sequence of moves clause by clause, on the days it would fall on.
 * Where the last move's standing is the target, settling, resting and months left bind too.
 * The caller decides what an unknown finding means: the sure run refuses it, the best run rests on it.
 */
export function judgeMoves(terms: Terms, moves: readonly Move[], how: Judging): Judgement {
  const schedule = layDays(terms, moves, how);
  const findings: Finding[] = [];
  const rights: UsedRight[] = [];
  moves.forEach((move, at) =>
    rights.push(judgeMove(terms, { move, at, days: schedule.days[at] as MoveDays, run: how.run }, findings))
  );
  moves.forEach((_, at) => judgeBudget(terms, { moves, rights, at }, findings));
  for (const at of schedule.overstays)
    pushFinding(terms, findings, {
      code: 'pass days',
      subject: releaseId(terms, moves[at]?.to),
      move: at,
      truth: 'no'
    });
  if (how.isTarget) judgeRest(terms, moves, schedule, findings);
  return { schedule, rights, findings };
}

/**
 * Judges one more move after a judged route, without going back over the route. Undefined where that would not do:
 * where the step it leaves from would have to be put off, so that earlier days change.
 */
export function judgeNext(
  terms: Terms,
  before: Judgement,
  moves: readonly Move[],
  how: Judging
): Judgement | undefined {
  const schedule = layNext(terms, before.schedule, moves, how);
  if (!schedule) return undefined;
  const at = moves.length - 1;
  const findings = [...before.findings];
  const right = judgeMove(
    terms,
    { move: moves[at] as Move, at, days: schedule.days[at] as MoveDays, run: how.run },
    findings
  );
  const rights = [...before.rights, right];
  judgeBudget(terms, { moves, rights, at }, findings);
  if (how.isTarget) judgeRest(terms, moves, schedule, findings);
  return { schedule, rights, findings };
}

/** A move at its place in a route, on its days, in a run. */
interface Placed {
  readonly move: Move;
  readonly at: number;
  readonly days: MoveDays;
  readonly run: Run;
}

function judgeMove(terms: Terms, placed: Placed, findings: Finding[]): UsedRight {
  const { move, at, days, run } = placed;
  const add = (code: ClauseCode, truth: Truth, subject = move.id): void => {
    if (truth !== 'yes') pushFinding(terms, findings, { code, subject, move: at, truth });
  };
  for (const f of move.asked.findings) {
    if (f.passesUntil !== undefined) terms.notes.turnOn(f.passesUntil);
    if (!isPassed(f.passesUntil, days.hop))
      findings.push({ code: f.code, subject: f.subject, move: at, truth: f.truth });
  }
  if (run === 'best') {
    const truths = offerTruths(terms, move);
    add('offer', truths.offer);
    add('withheld', truths.withheld);
  }
  for (const gate of gatesOf(terms, move, run)) add('pairing', gate.truth, gate.pairing);
  judgePermissions(terms, move, add);
  judgeLevels(terms, move, days, add);
  judgeOpenDays(terms, move, days, add);
  if (days.roomless) add('window', 'no');
  if (move.cell !== undefined) add('cell', 'unknown', move.cell);
  // Searches pass over what is barred: this is for whoever tells why nothing leads there.
  if (terms.barred.has(move.id)) add('barred', 'no', move.id);
  return judgeRight(terms, placed, add);
}

/** A decision with a last day counts only where the step is certain to be over by then. */
const isPassed = (until: number | undefined, on: StepDays): boolean =>
  until !== undefined && (until === Infinity || (on.exact && on.last <= until));

type Add = (code: ClauseCode, truth: Truth, subject?: string) => void;

/** Notes a finding as it stands with what is lifted and learned. */
function pushFinding(terms: Terms, findings: Finding[], finding: Finding): void {
  if (finding.truth === 'unknown') terms.notes.meet(clauseKey(finding));
  if (terms.lifted.size + terms.learned.size > 0) {
    const key = clauseKey(finding);
    if (terms.lifted.has(key)) return;
    const learned = finding.truth === 'unknown' ? terms.learned.get(key) : undefined;
    if (learned === 'yes') return;
    if (learned === 'no') return void findings.push({ ...finding, truth: 'no' });
  }
  findings.push(finding);
}

const releaseId = ({ model }: Terms, place: Place | undefined): string =>
  model.releases[place?.release ?? NOTHING]?.release.id ?? '';

function judgePermissions(terms: Terms, move: Move, add: Add): void {
  const { allow } = terms.goal;
  if (move.kind === 'fresh install' && !allow.fresh && move.from.release !== NOTHING)
    add('fresh not allowed', 'no', '');
  if (move.hop?.hop.unsupported && !allow.unsupported) add('unsupported not allowed', 'no', '');
  if (move.from.release !== NOTHING && keepsTooLittle(terms.goal, move.hop?.hop.kept))
    add('keeps too little', 'no', '');
  if (terms.publication[move.to.release] === undefined) add('maturity', 'no', releaseId(terms, move.to));
}

/** A route keeps the least of what its hops keep, so one hop below the goal's demand closes it. */
const keepsTooLittle = ({ mustKeep }: Goal, kept: Kept | undefined): boolean =>
  mustKeep !== undefined && kept !== undefined && KEPT.indexOf(kept) > KEPT.indexOf(mustKeep);

function judgeLevels(terms: Terms, move: Move, { hop }: MoveDays, add: Add): void {
  if (move.from.release === NOTHING) return;
  const source = move.hop?.hop;
  const floor = move.hop?.levels ?? move.change?.at;
  const place: Place = { ...move.from, patch: move.level };
  if (source?.levels === 'unknown') add('level', 'unknown');
  if (floor) add('level', truthOf(floor[place.release]?.[place.patch] === true));
  if (source?.everyPatch) add('every patch', isNewestLevel(terms, place, hop));
  if (source?.containedBy) add('newer than target', isContained(terms, move, source.containedBy));
}

/** No later level of the release is published on the step's first day. */
function isNewestLevel(terms: Terms, place: Place, on: StepDays): Truth {
  const patches = terms.model.releases[place.release]?.patches ?? [];
  return patches.slice(place.patch + 1).reduce<Truth>((truth, patch) => {
    const day = patch.published ? readDay(patch.published, terms.countsExpected) : 'unknown';
    return and(truth, isBefore(terms, on, day));
  }, 'yes');
}

/** The step's first day is earlier than `day`; an unknown day is later than today, nobody knows how much. */
function isBefore(terms: Terms, on: StepDays, day: MaybeDay): Truth {
  if (day === 'unknown') {
    terms.notes.turnOn(terms.today);
    return on.exact && on.first <= terms.today ? 'yes' : 'unknown';
  }
  if (on.first >= day) return 'no';
  return on.exact ? 'yes' : 'unknown';
}

/** The target is no older than the level left (FIELD-NOTES N12). A level the list does not name goes by release day. */
function isContained(terms: Terms, move: Move, rule: 'day' | Readonly<Record<string, string>>): Truth {
  const release = terms.model.releases[move.from.release];
  const patch = release?.patches[move.level];
  const target = terms.publication[move.to.release];
  if (!release || !patch || move.level === 0) return 'yes';
  const named =
    rule === 'day'
      ? undefined
      : Object.entries(rule).find(([k]) => k === `${release.release.id}/${patch.id}`)?.[1];
  if (named !== undefined) {
    const first = terms.model.sequence.indexById.get(named) ?? 0;
    return truthOf(
      terms.model.releases[first]?.strand === terms.model.releases[move.to.release]?.strand &&
        first <= move.to.release
    );
  }
  const day = patch.published ? readDay(patch.published, terms.countsExpected) : 'unknown';
  return day === 'unknown' || target === 'unknown' || target === undefined
    ? 'unknown'
    : truthOf(day <= target);
}

function judgeOpenDays(terms: Terms, move: Move, days: MoveDays, add: Add): void {
  add('closed', isByEnd(terms, days.hop, (move.hop ?? move.change)?.closes));
  const patch = terms.model.releases[move.from.release]?.patches[move.level];
  if (days.patch && patch)
    add(
      'patch withdrawn',
      isByEnd(terms, days.patch, patch.until),
      `${releaseId(terms, move.from)}/${patch.id}`
    );
}

/** The step is over by the last open day. An inexact day is a lower bound: past the end it fails, else nobody knows. */
function isByEnd(terms: Terms, days: StepDays, end: DateInterval | undefined): Truth {
  if (!end) return 'yes';
  const last = readDay(end, terms.countsExpected);
  if (last === 'unknown') return 'unknown';
  return days.last > last ? 'no' : days.exact ? 'yes' : 'unknown';
}

function judgeRight(terms: Terms, { move, days, run }: Placed, add: Add): UsedRight {
  const found = useRight(terms, move, days.hop, run);
  if (found.closes) add('right', 'no', found.locked);
  else if (found.met === 'unknown') add('right', 'unknown', found.use.right);
  if (!terms.goal.allow.spending) add('spending', spendsNothing(found.use, move), '');
  return found;
}

/** Units may have to be bought; a purchase without a price is one nobody has priced. */
function spendsNothing({ kind, costCents, units }: UsedRight['use'], { asked }: Move): Truth {
  if (asked.costCents > 0 || (costCents !== 'unknown' && costCents > 0)) return 'no';
  return costCents === 'unknown' || (units && kind === 'purchase') || asked.unknownSums.length > 0
    ? 'unknown'
    : 'yes';
}

/** Moves up to one, with the right of each. */
interface Bought {
  readonly moves: readonly Move[];
  readonly rights: readonly UsedRight[];
  readonly at: number;
}

/** What the goal lets one system cost is not passed with this move; units are counted over the estate, and not here. */
function judgeBudget(terms: Terms, { moves, rights, at }: Bought, findings: Finding[]): void {
  const most = terms.goal.spendingCents;
  if (most === undefined || !terms.goal.allow.spending) return;
  const sums = moves.slice(0, at + 1).map((move, i) => {
    const cents = rights[i]?.use.costCents ?? 0;
    return move.asked.costCents + (cents === 'unknown' ? 0 : cents);
  });
  const isUnpriced =
    rights[at]?.use.costCents === 'unknown' || (moves[at]?.asked.unknownSums.length ?? 0) > 0;
  const isPassed = sums.reduce((a, b) => a + b, 0) > most;
  if (isPassed || isUnpriced)
    pushFinding(terms, findings, {
      code: 'spending',
      subject: '',
      move: at,
      truth: isPassed ? 'no' : 'unknown'
    });
}

/** What resting on the last move's release finds amiss, for a route judged as a stepping stone. */
export function findRestFaults(terms: Terms, moves: readonly Move[], schedule: Schedule): readonly Finding[] {
  const findings: Finding[] = [];
  judgeRest(terms, moves, schedule, findings);
  return findings;
}

/** Resting on the target: in service on the last day, and for as long as the goal demands. */
function judgeRest(terms: Terms, moves: readonly Move[], schedule: Schedule, findings: Finding[]): void {
  const move = moves.length - 1;
  const finish = schedule.days[move]?.hop;
  const end = terms.serviceEnd[moves[move]?.to.release ?? -1];
  if (!finish || end === undefined || end === 'unknown') return;
  const push = (code: ClauseCode, holds: boolean): void => {
    const subject = releaseId(terms, moves[move]?.to);
    if (!holds || !finish.exact)
      pushFinding(terms, findings, { code, subject, move, truth: holds ? 'unknown' : 'no' });
  };
  if (!terms.goal.allow.restingOutOfService) push('resting', finish.last <= end);
  if (terms.goal.monthsLeft) push('months left', monthsBetween(finish.last, end) >= terms.goal.monthsLeft);
}

/** The ids of a place's release and patch level. */
export function positionOf(terms: Terms, place: Place): Position {
  const release = terms.model.releases[place.release];
  return { release: release?.release.id ?? '', patch: release?.patches[place.patch]?.id ?? BASE_PATCH };
}
