import type { ProductModel } from './catalogue/model';
import { readDay, type DateInterval } from './date/interval';
import { parseDay, type Day } from './date/day';
import { deadlineOf, type Deadline } from './date/deadline';
import { compareReleases } from './version/sequence';
import { findChosenTarget, findGoalTarget, findNamedTarget } from './estate/choose-target';
import type { Case } from './estate/gather';
import { startsOf } from './estate/standing';
import { reasonOf, routeOf, standingOf } from './route/explain';
import { findTiming, type Timing } from './route/find-deadline';
import type { Label } from './route/label';
import type { Place } from './route/move';
import { findNearestMisses } from './route/nearest-miss';
import { findRoutes, targetKey, type SearchResult } from './route/search';
import { termsOf, type Terms } from './route/terms';
import type { Reason, ShownVerdict, Verdict } from './route/types';
import { isBetter, rankVerdict, shownOf, verdictOf, verdictOfLabel } from './route/verdict';
import { sameTarget, type CasePlan, type GoalSource, type TargetPlan } from './plan-types';
import type { Target } from './estate/schema';

export interface PlanContext {
  readonly countsExpected: boolean;
  readonly today: Day;
  readonly held: ReadonlySet<string>;
}

/** Plans one case: every target's verdict and route, the goal's deadline and slack (RECKONING A1, C, D, E, G). */
export function planCase(model: ProductModel | undefined, one: Case, context: PlanContext): CasePlan {
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
      verdict: 'cannot tell',
      deadline: ownDeadlineOf(one, context.today),
      cut: false
    };
  }
  const terms = termsOf(model, one.goal, context.countsExpected, context.today, {
    nodes: one.nodes,
    activated: one.activated,
    held: context.held
  });
  const plans = starts.map((start) => planStart(terms, start, one));
  const worst = plans.reduce((a, b) => (isWorse(b, a) ? b : a));
  const targets = worst.targets.map((t) => mergeTarget(t, plans));
  const goalPlan = goalPlanOf(worst, plans);
  return {
    ...base,
    product: model.product.id,
    start: standingOf(terms, worst.start),
    startIsSure: starts.length === 1,
    starts: starts.length,
    ...(worst.goal ? { goal: worst.goal } : {}),
    goalFrom: worst.goalFrom,
    ...(goalPlan ? { goalPlan } : {}),
    targets,
    verdict: worst.goalFrom === 'stay' ? 'here' : (goalPlan?.verdict ?? 'cannot tell'),
    ...worst.timing,
    ...slackOf(worst.timing, context.today),
    ...(goalPlan?.sure === 'closed' ? bestOpenOf(targets, worst.goal) : {}),
    cut: plans.some((p) => p.cut)
  };
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

const slackOf = ({ latestStart }: Timing, today: Day): { slack?: number } =>
  typeof latestStart === 'number' ? { slack: latestStart - today } : {};

interface StartPlan {
  readonly start: Place;
  readonly goal?: Target;
  readonly goalFrom: GoalSource;
  readonly targets: readonly TargetPlan[];
  readonly bestWithoutCells: readonly Verdict[];
  readonly timing: Timing;
  readonly cut: boolean;
}

function planStart(terms: Terms, start: Place, one: Case): StartPlan {
  const sure = findRoutes(terms, start, 'sure');
  const best = hasUnknowns(terms) ? findRoutes(terms, start, 'best') : sure;
  const { place, from } = goalOf(terms, start, one);
  const places = targetsOf(terms.model);
  const misses = places.some((p) => !sure.routes.has(targetKey(p)))
    ? findNearestMisses(terms, start)
    : new Map<string, Reason[]>();
  const bestWithoutCells: Verdict[] = [];
  const targets = places.map((target) => {
    const judged = planTarget(terms, start, target, sure, best, misses);
    bestWithoutCells.push(judged.bestWithoutCells);
    return judged.plan;
  });
  const labels = place ? (sure.routes.get(targetKey(place)) ?? []) : [];
  const timing = findTiming(terms, start, place, labels, place && chosenOf(terms, labels));
  const goal = place && targetOf(terms, place);
  return {
    start,
    ...(goal ? { goal } : {}),
    goalFrom: from,
    targets,
    bestWithoutCells,
    timing,
    cut: sure.cut || best.cut
  };
}

function goalOf(terms: Terms, start: Place, one: Case): { place?: Place; from: GoalSource } {
  for (const decision of [...one.decisions].reverse()) {
    if (decision.kind === 'stay') return { from: 'stay' };
    const place =
      decision.kind === 'choose a target' && decision.target
        ? findChosenTarget(terms, decision.target)
        : undefined;
    if (place) return { place, from: 'decision' };
  }
  const named = findNamedTarget(terms, start);
  if (named) return { place: named, from: 'goal' };
  const place = findGoalTarget(terms, start);
  return place ? { place, from: 'rule' } : { from: 'none' };
}

/** Every (release, edition, architecture) the product comes in, in sequence. */
function targetsOf(model: ProductModel): Place[] {
  return model.releases.flatMap((r) =>
    r.editions.flatMap((edition) =>
      r.architectures.map((architecture) => ({ release: r.index, patch: 0, edition, architecture }))
    )
  );
}

const targetOf = (terms: Terms, place: Place): Target => {
  const { release, edition, architecture } = standingOf(terms, place);
  return { release, edition, architecture };
};

function planTarget(
  terms: Terms,
  start: Place,
  target: Place,
  sureResult: SearchResult,
  bestResult: SearchResult,
  misses: ReadonlyMap<string, readonly Reason[]>
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
  const chosen = chosenOf(terms, labels);
  const plan = {
    ...base,
    ...shownOf(sure, best, bestWithoutCells),
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

const isOlder = (terms: Terms, target: Place, start: Place): boolean => {
  const id = (release: number): string => terms.model.releases[release]?.release.id ?? '';
  return compareReleases(terms.model.sequence, id(target.release), id(start.release)) === -1;
};

/** What the best route rests on, where no published hop leads there. */
function restingReasons(terms: Terms, labels: readonly Label[]): Reason[] {
  const [label] = labels;
  return label ? label.judgement.findings.map((f) => reasonOf(terms, label.moves, label.judgement, f)) : [];
}

const opensOf = (labels: readonly Label[]): number | 'unknown' => {
  const least = Math.min(...labels.map((l) => l.criteria.waits));
  return least === Infinity ? 'unknown' : least;
};

/** The first route by preference among those that give the verdict (RECKONING E3). Labels come in that order. */
function chosenOf(terms: Terms, labels: readonly Label[]): Label | undefined {
  const verdict = verdictOf(terms, labels);
  return labels.find((l) => gives(verdictOfLabel(terms, l), verdict));
}

/** `by hops` is given by any route in place open today; `not yet` by any open route at all. */
const gives = (route: Verdict, verdict: Verdict): boolean => verdict === 'not yet' || route === verdict;

/** Whether anything this product's routes may ask is unknown; if nothing is, both runs are one. */
function hasUnknowns(terms: Terms): boolean {
  const { model, goal, countsExpected } = terms;
  const isOpen = (date: DateInterval | undefined): boolean =>
    date !== undefined && readDay(date, countsExpected) === 'unknown';
  return (
    !model.tableComplete ||
    !goal.allow.spending ||
    terms.publication.includes('unknown') ||
    (terms.activated === 'unknown' && model.rights.some((r) => r.right.kind === 'carried')) ||
    model.rights.some((r) => isOpen(r.until)) ||
    model.releases.some((r) => r.patches.some((p) => isOpen(p.published) || isOpen(p.until))) ||
    model.hopsFrom.some((hops) =>
      hops.some(
        (h) => h.hop.levels === 'unknown' || h.hop.editionsPartial || isOpen(h.opens) || isOpen(h.closes)
      )
    ) ||
    model.changesAt.some((changes) => changes.some((c) => isOpen(c.opens) || isOpen(c.closes)))
  );
}

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
