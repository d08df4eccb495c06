import { idsOfPlace, type Place, type ProductModel, targetKey } from '../compile';
import { type Day, parseDay, readDay } from '../date';
import { type Contributor, type Deadline, deadlineOf, findTiming, type Timing } from '../deadline';
import { BASE_PATCH, matchesRange, parseRange } from '../version';
import { type Case, startsOf } from '../bind';
import type { Decision, Target, WayStep } from '../estate';
import { findOtherEnds } from './plan-ends';
import { goalOf } from './find-goal';
import type { Planning } from './planning';
import { findReplacement } from './replacement';
import { bestTo, findBestOpen, isOlder, targetOf, targetsOf } from './targets';
import {
  type Chosen,
  chosenOf,
  findChosen,
  findFallbacks,
  findNearestMisses,
  findRoutes,
  isBetter,
  type Label,
  rankVerdict,
  type Reason,
  reasonOf,
  routeOf,
  type SearchResult,
  shownOf,
  type ShownVerdict,
  type Terms,
  termsWith,
  type Verdict,
  verdictOf
} from '../route';
import {
  sameTarget,
  type CasePlan,
  type DecidedWay,
  type GoalSource,
  type OnTrack,
  type TargetPlan
} from './plan-types';

/** How much is planned of a case. */
export type Scope = 'goal' | 'target';

/** Plans one case: verdicts and routes, fallbacks, the goal's deadline and slack (RECKONING A1, C, D, E, G). */
export function planCase(
  planning: Planning,
  model: ProductModel | undefined,
  one: Case,
  scope: Scope
): CasePlan {
  const base = { id: one.id, situation: one.situation, systems: one.systems };
  const starts = model ? startsOf(model, one.system) : [];
  if (!model || starts.length === 0) {
    const product = model ? { product: model.product.id } : {};
    return {
      ...base,
      ...product,
      startIsSure: false,
      starts: 0,
      goalFrom: 'none',
      targets: [],
      fallbacks: [],
      verdict: 'cannot tell',
      deadline: ownDeadlineOf(one, planning.today),
      cut: false
    };
  }
  const terms = planning.termsFor(model, one);
  const others = findOtherEnds(planning, one);
  const alone = starts.length === 1;
  const plans = starts.map((start) => planStart({ terms, one, others, scope, alone }, start));
  const worst = plans.reduce((a, b) => (isWorse(b, a) ? b : a));
  const targets = worst.targets.map((t) => mergeTarget(t, plans));
  const goalPlan = goalPlanOf(worst, plans);
  const replace = goalPlan && findReplacement(planning, terms, worst.place, goalPlan);
  return {
    ...base,
    product: model.product.id,
    start: idsOfPlace(terms, worst.start),
    startIsSure: starts.length === 1 && isRead(one.system),
    starts: starts.length,
    ...(worst.goal ? { goal: worst.goal } : {}),
    goalFrom: worst.goalFrom,
    ...importanceOf(one),
    ...(goalPlan ? { goalPlan } : {}),
    targets,
    fallbacks: worst.chosen && worst.place ? findFallbacks(terms, worst.chosen, worst.place) : [],
    ...(replace ? { replace } : {}),
    verdict: worst.goalFrom === 'stay' ? 'here' : (goalPlan?.verdict ?? 'cannot tell'),
    ...(worst.decidedWay ? { decidedWay: worst.decidedWay } : {}),
    ...trackOf(terms, worst.start),
    ...worst.timing,
    ...slackOf(worst.timing, planning.today),
    ...(worst.bestOpen ? { bestOpen: worst.bestOpen } : {}),
    ...(goalPlan?.sure === 'closed' && !('bestOpen' in worst)
      ? bestOpenOf(
          targets.filter((t) => t.target.release !== idsOfPlace(terms, worst.start).release),
          worst.goal
        )
      : {}),
    cut: plans.some((p) => p.cut)
  };
}

const importanceOf = ({ goal: { importance } }: Case): Pick<CasePlan, 'importance'> =>
  importance === undefined || importance === 'normal' ? {} : { importance };

const LEAVING: readonly OnTrack['leaving'][] = ['at the general release', 'fresh install', 'no way out'];

/**
 * The preview track it stands on, while what is installed is not out in general: how it is left, and what is forfeited. Of
 * several tracks that lead there the one that is hardest to leave.
 */
function trackOf(
  { model, today, countsExpected }: Terms,
  { release, patch }: Place
): Pick<CasePlan, 'track'> {
  const at = model.releases[release];
  const general = at?.publication.general && readDay(at.publication.general, countsExpected);
  if (!at || (typeof general === 'number' && general <= today)) return {};
  const position = { release: at.release.id, patch: at.patches[patch]?.id ?? BASE_PATCH };
  const [track] = (model.product.tracks ?? [])
    .filter((t) => {
      const parsed = parseRange(t.releases);
      return 'range' in parsed && matchesRange(model.sequence, parsed.range, position);
    })
    .sort((a, b) => LEAVING.indexOf(b.leaving) - LEAVING.indexOf(a.leaving));
  if (!track) return {};
  const { id, name, leaving, forfeits } = track;
  return { track: { id, name, leaving, ...(forfeits === undefined ? {} : { forfeits }) } };
}

/** Where the catalogue knows nothing, what the machine's own record says of its end counts (os-release, SUPPORT_END). */
function ownDeadlineOf({ supportEnds, system }: Case, today: Day): Deadline {
  const day = parseDay(supportEnds ?? '');
  if (day === undefined) return deadlineOf([], today);
  const subject = system.installedText ?? system.name;
  return deadlineOf(
    [{ kind: 'service of installed', subject, day, sets: true, cost: { code: 'no service' } }],
    today
  );
}

/** One candidate left over by words nobody understood is a candidate, not a certainty. */
const isRead = (system: Case['system']): boolean =>
  [system.product, system.release, system.patch, system.edition, system.architecture].every(
    (reading) => !('oneOf' in reading)
  );

const slackOf = ({ latestStart }: Timing, today: Day): { slack?: number } =>
  typeof latestStart === 'number' ? { slack: latestStart - today } : {};

interface StartPlan {
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

function planStart(starting: Starting, start: Place): StartPlan {
  const { terms, one, scope } = starting;
  const goal = goalOf(terms, start, one.decisions);
  const quick = scope === 'goal' ? planGoalOnly(starting, start, goal) : undefined;
  return quick ?? planEveryTarget(starting, start, goal);
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
  if (targetKey(place) === targetKey(start)) {
    const { plan, bestWithoutCells } = settled({ target }, 'here', false);
    const timing = findTiming(terms, { start, target: place }, undefined, others);
    return {
      start,
      place,
      goal: target,
      goalFrom: from,
      targets: [plan],
      bestWithoutCells: [bestWithoutCells],
      timing,
      cut: false
    };
  }
  const sure = findChosen(terms, { start, target: place }, 'sure');
  if (!sure.label) return planClosed(starting, start, { place, from }, sure);
  if (sure.verdict === 'not yet') return undefined;
  // A sure run that met nothing unknown goes the same as the best one.
  const better = sure.verdict !== 'straight' && sure.met.size > 0;
  const [best, withoutCells] = better
    ? [true, false].map((cells) =>
        bestOf(sure.verdict, findChosen(terms, { start, target: place }, 'best', { cells }).verdict)
      )
    : [];
  const verdicts = { best: best ?? sure.verdict, withoutCells: withoutCells ?? sure.verdict };
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
    start,
    place,
    goal: target,
    goalFrom: from,
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
  start: Place,
  { place, from }: { readonly place: Place; readonly from: GoalSource },
  sure: Chosen
): StartPlan | undefined {
  if (!alone || sure.cut) return undefined;
  const found = sure.met.size === 0 ? [] : [true, false].map((cells) => bestTo(terms, start, place, cells));
  const newest = findBestOpen(terms, start, place);
  if (newest === 'not known' || found.some((b) => b.cut)) return undefined;
  const [best = 'closed', without = 'closed'] = found.map((b) => b.verdict);
  const target = targetOf(terms, place);
  const plan: TargetPlan = {
    target,
    ...shownOf('closed', best, without),
    sure: 'closed',
    best,
    older: false,
    reasons:
      findNearestMisses(terms, start, place).get(targetKey(place)) ??
      (best === 'closed'
        ? []
        : restingReasons(
            terms,
            findRoutes(terms, start, 'best', { target: place }).routes.get(targetKey(place)) ?? []
          ))
  };
  return {
    start,
    place,
    goal: target,
    goalFrom: from,
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
  const sure = findRoutes(terms, start, 'sure');
  const labels = place ? (sure.routes.get(targetKey(place)) ?? []) : [];
  const best = sure.met.size > 0 ? findRoutes(terms, start, 'best') : sure;
  const places = targetsOf(terms.model);
  const misses = places.some((p) => !sure.routes.has(targetKey(p)))
    ? findNearestMisses(terms, start)
    : new Map<string, Reason[]>();
  const way = findChosenWay(terms, start, one.decisions);
  const bestWithoutCells: Verdict[] = [];
  const targets = places.map((target) => {
    const judged = planTarget({ terms, start, sure, best, misses, way }, target);
    bestWithoutCells.push(judged.bestWithoutCells);
    return judged.plan;
  });
  const chosen = place && decidedOf(terms, place, labels, way);
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
    cut: sure.cut || best.cut
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
  readonly sure: SearchResult;
  readonly best: SearchResult;
  readonly misses: ReadonlyMap<string, readonly Reason[]>;
  readonly way: ChosenWay | undefined;
}

function planTarget(
  { terms, start, sure: sureResult, best: bestResult, misses, way }: Judging,
  target: Place
): { plan: TargetPlan; bestWithoutCells: Verdict } {
  const key = targetKey(target);
  const base = { target: targetOf(terms, target) };
  if (key === targetKey(start)) return settled(base, 'here', false);
  const older = isOlder(terms, target, start);
  if (older) return settled(base, 'closed', true);
  const labels = sureResult.routes.get(key) ?? [];
  const bestLabels = bestResult.routes.get(key) ?? [];
  const sure = verdictOf(terms, labels);
  const best = verdictOf(terms, [...labels, ...bestLabels]);
  const bestWithoutCells = verdictOf(terms, [...labels, ...bestLabels.filter((l) => !l.criteria.usesCell)]);
  const chosen = decidedOf(terms, target, labels, way);
  const plan = {
    ...base,
    ...shownOf(sure, best, bestWithoutCells, sureResult.cut || bestResult.cut),
    sure,
    best,
    older: false,
    ...(sure === 'not yet' ? { opens: opensOf(labels) } : {}),
    ...(chosen ? { route: routeOf(terms, chosen) } : {}),
    reasons: chosen ? [] : (misses.get(key) ?? restingReasons(terms, bestLabels))
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

/** What the best route rests on, where no published hop leads there. */
function restingReasons(terms: Terms, labels: readonly Label[]): Reason[] {
  const [label] = labels;
  return label ? label.judgement.findings.map((f) => reasonOf(terms, label.moves, label.judgement, f)) : [];
}

const opensOf = (labels: readonly Label[]): number | 'unknown' => {
  const least = Math.min(...labels.map((l) => l.criteria.waits));
  return least === Infinity ? 'unknown' : least;
};

/** Of two starts the worse goal verdict; then `closed` before older, least slack, then the order of starts. */
function isWorse(a: StartPlan, b: StartPlan): boolean {
  const [x, y] = [goalTargetOf(a), goalTargetOf(b)];
  const byVerdict = worstRank(y) - worstRank(x);
  if (byVerdict !== 0) return byVerdict < 0;
  if ((x?.older ?? false) !== (y?.older ?? false)) return !(x?.older ?? false);
  return slackRank(a.timing) < slackRank(b.timing);
}

const goalTargetOf = (plan: StartPlan): TargetPlan | undefined =>
  plan.targets.find((t) => sameTarget(t.target, plan.goal));
const worstRank = (target: TargetPlan | undefined): number =>
  target ? rankVerdict(target.sure) : rankVerdict('closed');
const slackRank = ({ latestStart }: Timing): number =>
  latestStart === 'none' ? -Infinity : (latestStart ?? Infinity);

/** The worst start's goal, with verdicts over all starts, each start going for its own goal. */
function goalPlanOf(worst: StartPlan, plans: readonly StartPlan[]): TargetPlan | undefined {
  const own = goalTargetOf(worst);
  if (!own || plans.length === 1) return own;
  const goals = plans.flatMap((p) => goalTargetOf(p) ?? []);
  const best = goals.reduce((b, g) => (isBetter(g.best, b) ? g.best : b), own.best);
  const without = plans.reduce((b, p) => {
    const i = p.targets.findIndex((t) => sameTarget(t.target, p.goal));
    const verdict = p.bestWithoutCells[i] ?? 'closed';
    return isBetter(verdict, b) ? verdict : b;
  }, own.sure);
  const { verdict, perhaps } = shownOf(own.sure, best, without);
  return { ...own, best, verdict, perhaps };
}

/** Over all starts: sure is the worst, best the best (RECKONING A1). Route and reasons are those of the worst start. */
function mergeTarget(target: TargetPlan, plans: readonly StartPlan[]): TargetPlan {
  if (plans.length === 1) return target;
  let sure = target.sure;
  let best = target.best;
  let bestWithoutCells: Verdict = 'closed';
  let from = target;
  for (const plan of plans) {
    const i = plan.targets.findIndex((t) => sameTarget(t.target, target.target));
    const other = plan.targets[i];
    if (!other) continue;
    if (isBetter(sure, other.sure)) [sure, from] = [other.sure, other];
    if (isBetter(other.best, best)) best = other.best;
    const without = plan.bestWithoutCells[i] ?? 'closed';
    if (isBetter(without, bestWithoutCells)) bestWithoutCells = without;
  }
  const older = plans.every((p) => p.targets.some((t) => t.older && sameTarget(t.target, target.target)));
  const shown = shownOf(sure, best, bestWithoutCells);
  return { ...from, verdict: shown.verdict, perhaps: shown.perhaps, sure, best, older };
}

/** The newest open target in the goal's edition, else in any. */
function bestOpenOf(targets: readonly TargetPlan[], goal: Target | undefined): { bestOpen?: Target } {
  const open = targets.filter((t) => isOpen(t.verdict)).reverse();
  const found = open.find((t) => t.target.edition === goal?.edition) ?? open[0];
  return found ? { bestOpen: found.target } : {};
}

const isOpen = (verdict: ShownVerdict): boolean =>
  verdict !== 'closed' && verdict !== 'cannot tell' && verdict !== 'here';
