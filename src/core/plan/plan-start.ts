import { type Place, targetKey } from '../compile';
import { type Contributor, findTiming, type Timing } from '../deadline';
import type { Case } from '../bind';
import type { Decision, Target, WayStep } from '../estate';
import { goalOf } from './find-goal';
import { bestTo, findBestOpen, isOlder, targetOf, targetsOf } from './targets';
import {
  type Chosen,
  chosenOf,
  findChosen,
  type Ends,
  findMissOverCells,
  findNearestMisses,
  findRoutes,
  isBetter,
  type Label,
  metMoreThanCells,
  noHopReason,
  type Reason,
  reasonOf,
  routeOf,
  shownOf,
  type Terms,
  termsWith,
  type Verdict,
  verdictOf
} from '../route';
import { findPerhaps, type TargetLabels, WaysFrom, waysToOne } from './ways-from';
import type { DecidedWay, GoalSource, TargetPlan } from './plan-types';

/** How much is planned of a case. */
export type Scope = 'goal' | 'target';

/** A case planned from one place it may stand on. */
export interface StartPlan {
  readonly start: Place;
  readonly place?: Place;
  readonly goal?: Target;
  readonly goalFrom: GoalSource;
  /** The chosen route to the goal. */
  readonly chosen?: Label;
  readonly targets: readonly TargetPlan[];
  readonly bestWithoutCells: readonly Verdict[];
  readonly timing: Timing;
  readonly decidedWay?: DecidedWay;
  /** The newest open target, where the goal is closed and nothing else was looked at; undefined where there is none. */
  readonly bestOpen?: Target | undefined;
  readonly cut: boolean;
}

interface Starting {
  readonly terms: Terms;
  readonly one: Case;
  readonly others: readonly Contributor[];
  readonly scope: Scope;
  /** The only place it may stand on. */
  readonly alone: boolean;
}

/**
 * Plans a case from each place it may stand on: for the goal alone where that says all there is to say from every one of them, since
 * what is said of a target is put together from all.
 */
export function planStarts(starting: Starting, starts: readonly Place[]): readonly StartPlan[] {
  const { terms, one, scope } = starting;
  const goals = starts.map((start) => goalOf(terms, start, one.decisions));
  const plans: StartPlan[] = [];
  for (const [i, start] of scope === 'goal' ? starts.entries() : []) {
    const quick = planGoalOnly(starting, start, goals[i] as (typeof goals)[number]);
    if (!quick) break;
    plans.push(quick);
  }
  return plans.length === starts.length
    ? plans
    : starts.map((start, i) => planEveryTarget(starting, start, goals[i] as (typeof goals)[number]));
}

/**
 * The goal alone, where its chosen route says all there is to say, or that it is closed. Not where it opens later - then everything
 * is looked at - nor where somebody has chosen a route.
 */
function planGoalOnly(
  starting: Starting,
  start: Place,
  { place, from }: ReturnType<typeof goalOf>
): StartPlan | undefined {
  const { terms, one, others } = starting;
  if (!place || isOlder(terms, place, start)) return undefined;
  if (one.decisions.some((d) => d.kind === 'choose a route')) return undefined;
  const target = targetOf(terms, place);
  const aim = { start, place, goal: target, goalFrom: from };
  if (targetKey(place) === targetKey(start)) {
    const { plan, bestWithoutCells } = settled({ target }, 'here', false);
    const timing = findTiming(terms, { start, target: place }, undefined, others);
    return { ...aim, targets: [plan], bestWithoutCells: [bestWithoutCells], timing, cut: false };
  }
  const sure = findChosen(terms, { start, target: place }, 'sure');
  if (!sure.label) return planClosed(starting, aim, sure);
  if (sure.verdict === 'not yet') return undefined;
  // A sure run that met nothing unknown goes the same as the best one.
  const better = (cells: boolean): Verdict =>
    bestOf(sure.verdict, bestTo(terms, start, place, cells).verdict);
  const isOpen = sure.verdict !== 'straight';
  const verdicts = {
    best: isOpen && sure.met.size > 0 ? better(true) : sure.verdict,
    withoutCells: isOpen && metMoreThanCells(sure.met) ? better(false) : sure.verdict
  };
  const plan: TargetPlan = {
    target,
    ...shownOf(sure.verdict, verdicts.best, verdicts.withoutCells),
    sure: sure.verdict,
    best: verdicts.best,
    older: false,
    route: routeOf(terms, sure.label),
    reasons: []
  };
  return {
    ...aim,
    chosen: sure.label,
    targets: [plan],
    bestWithoutCells: [verdicts.withoutCells],
    timing: findTiming(terms, { start, target: place }, sure.label, others),
    cut: sure.cut
  };
}

/** A goal that is closed, with why, and the newest target that is not. Undefined where anything was cut, or much is closed. */
function planClosed(
  { terms, others, alone }: Starting,
  aim: Required<Pick<StartPlan, 'start' | 'place' | 'goal' | 'goalFrom'>>,
  sure: Chosen
): StartPlan | undefined {
  const { start, place, goal: target } = aim;
  if (!alone || sure.cut) return undefined;
  const found = [
    sure.met.size === 0 ? sure : bestTo(terms, start, place, true),
    metMoreThanCells(sure.met) ? bestTo(terms, start, place, false) : sure
  ];
  const newest = findBestOpen(terms, start, place);
  if (newest === 'not known' || found.some((b) => b.cut)) return undefined;
  const [best = 'closed', without = 'closed'] = found.map((b) => b.verdict);
  const misses = findNearestMisses(terms, start, place).get(targetKey(place));
  const plan: TargetPlan = {
    target,
    ...shownOf('closed', best, without),
    sure: 'closed',
    best,
    older: false,
    reasons:
      misses ??
      (best === 'closed'
        ? whyClosed(terms, { start, target: place })
        : restingReasons(terms, findPerhaps(terms, { start, target: place })))
  };
  return {
    ...aim,
    targets: [plan],
    bestWithoutCells: [without],
    timing: findTiming(terms, { start, target: place }, undefined, others),
    bestOpen: newest && targetOf(terms, newest),
    cut: false
  };
}

const bestOf = (a: Verdict, b: Verdict): Verdict => (isBetter(b, a) ? b : a);

function planEveryTarget(
  { terms, one, others }: Starting,
  start: Place,
  { place, from }: ReturnType<typeof goalOf>
): StartPlan {
  const ways = new WaysFrom(terms, start);
  const { sure } = ways;
  const goalWays = place && (ways.cut ? waysToOne(terms, { start, target: place }) : ways.to(place));
  const places = targetsOf(terms.model);
  const misses = places.some((p) => !sure.routes.has(targetKey(p)))
    ? findNearestMisses(terms, start)
    : new Map<string, Reason[]>();
  const way = findChosenWay(terms, start, one.decisions);
  const bestWithoutCells: Verdict[] = [];
  const targets = places.map((target) => {
    const isGoal = place !== undefined && targetKey(target) === targetKey(place);
    const found = (isGoal ? goalWays : undefined) ?? ways.to(target);
    const judged = planTarget({ terms, start, misses, way }, target, found);
    bestWithoutCells.push(judged.bestWithoutCells);
    return judged.plan;
  });
  const chosen = place && decidedOf(terms, place, goalWays?.sure ?? [], way);
  const timing = findTiming(terms, { start, target: place }, chosen, others);
  const goal = place && targetOf(terms, place);
  return {
    start,
    ...(place ? { place } : {}),
    ...(goal ? { goal } : {}),
    goalFrom: from,
    ...(chosen ? { chosen } : {}),
    ...decidedWayOf(terms, place, way),
    targets,
    bestWithoutCells,
    timing,
    cut: ways.cut
  };
}

/** A way somebody has chosen: what it gives by target, and why it does not where it does not. */
interface ChosenWay {
  readonly way: readonly WayStep[];
  readonly routes: ReadonlyMap<string, readonly Label[]>;
  readonly misses: ReadonlyMap<string, readonly Reason[]>;
}

/** The way chosen by the latest decision in force, however much better another may be; undefined where nobody has. */
function findChosenWay(terms: Terms, start: Place, decisions: readonly Decision[]): ChosenWay | undefined {
  const way = decisions.findLast((d) => d.kind === 'choose a route' && d.route)?.route;
  if (!way) return undefined;
  const onWay = termsWith(terms, { way });
  const { routes } = findRoutes(onWay, start, 'sure');
  const whole = [...routes].map(
    ([key, labels]) => [key, labels.filter((l) => l.moves.length === way.length)] as const
  );
  return { way, routes: new Map(whole), misses: findNearestMisses(onWay, start) };
}

/** The route on a way somebody has chosen, while it stands; else the first that gives the verdict. */
function decidedOf(
  terms: Terms,
  target: Place,
  labels: readonly Label[],
  chosen: ChosenWay | undefined
): Label | undefined {
  return chosen?.routes.get(targetKey(target))?.[0] ?? chosenOf(terms, labels);
}

/** Whether the way chosen for the goal stands, and what is in its way where it does not; none where it leads elsewhere. */
function decidedWayOf(
  terms: Terms,
  target: Place | undefined,
  chosen: ChosenWay | undefined
): { decidedWay?: DecidedWay } {
  if (!chosen || !target) return {};
  const key = targetKey(target);
  if ((chosen.routes.get(key)?.length ?? 0) > 0)
    return { decidedWay: { way: chosen.way, leads: true, stands: true, reasons: [] } };
  const reasons = chosen.misses.get(key);
  return {
    decidedWay: { way: chosen.way, leads: reasons !== undefined, stands: false, reasons: reasons ?? [] }
  };
}

interface Judging {
  readonly terms: Terms;
  readonly start: Place;
  readonly misses: ReadonlyMap<string, readonly Reason[]>;
  readonly way: ChosenWay | undefined;
}

function planTarget(
  { terms, start, misses, way }: Judging,
  target: Place,
  found: TargetLabels
): { plan: TargetPlan; bestWithoutCells: Verdict } {
  const key = targetKey(target);
  const base = { target: targetOf(terms, target) };
  if (key === targetKey(start)) return settled(base, 'here', false);
  const older = isOlder(terms, target, start);
  if (older) return settled(base, 'closed', true);
  const labels = found.sure;
  const sure = verdictOf(terms, labels);
  const bestWithoutCells = verdictOf(terms, [...labels, ...found.best]);
  const best =
    bestWithoutCells === 'straight'
      ? bestWithoutCells
      : verdictOf(terms, [...labels, ...found.best, ...found.overCells()]);
  const chosen = decidedOf(terms, target, labels, way);
  const plan = {
    ...base,
    ...shownOf(sure, best, bestWithoutCells, found.cut()),
    sure,
    best,
    older: false,
    ...(sure === 'not yet' ? { opens: opensOf(labels) } : {}),
    ...(chosen ? { route: routeOf(terms, chosen) } : {}),
    reasons: chosen
      ? []
      : (misses.get(key) ??
        (best === 'closed'
          ? whyClosed(terms, { start, target })
          : restingReasons(terms, [...found.best, ...found.overCells()])))
  };
  return { plan, bestWithoutCells };
}

function settled(
  base: { target: Target },
  verdict: Verdict,
  older: boolean
): { plan: TargetPlan; bestWithoutCells: Verdict } {
  return {
    plan: { ...base, verdict, sure: verdict, best: verdict, older, reasons: [] },
    bestWithoutCells: verdict
  };
}

/** Why a target is closed that no published hop leads to. */
const whyClosed = (terms: Terms, ends: Ends): readonly Reason[] =>
  findMissOverCells(terms, ends.start, ends.target) ?? [noHopReason(terms, ends)];

/** What the best route rests on, where no published hop leads there. */
function restingReasons(terms: Terms, labels: readonly Label[]): Reason[] {
  const [label] = labels;
  return label ? label.judgement.findings.map((f) => reasonOf(terms, label.moves, label.judgement, f)) : [];
}

const opensOf = (labels: readonly Label[]): number | 'unknown' => {
  const least = Math.min(...labels.map((l) => l.criteria.waits));
  return least === Infinity ? 'unknown' : least;
};
