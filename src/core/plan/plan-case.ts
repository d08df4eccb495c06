import { findTrack } from '../catalogue';
import { idsOfPlace, type Place, type ProductModel } from '../compile';
import { type Day, parseDay } from '../date';
import { type Deadline, deadlineOf, type Timing } from '../deadline';
import { BASE_PATCH } from '../version';
import { type Case, startsOf } from '../bind';
import type { Target } from '../estate';
import { findOtherEnds } from './plan-ends';
import { planStarts, type Scope, type StartPlan } from './plan-start';
import type { Planning } from './planning';
import { findReplacement } from './replacement';
import {
  findFallbacks,
  isBetter,
  rankVerdict,
  shownOf,
  type ShownVerdict,
  type Terms,
  type Verdict
} from '../route';
import { sameTarget, type CasePlan, type TargetPlan } from './plan-types';

/** Plans one case: verdicts and routes, fallbacks, the goal's deadline and slack. */
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
  const plans = planStarts({ terms, one, others, scope, alone }, starts);
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

/** The preview track it stands on, while what is installed is not out in general. */
function trackOf(
  { model, today, countsExpected }: Terms,
  { release, patch }: Place
): Pick<CasePlan, 'track'> {
  const at = model.releases[release];
  if (!at) return {};
  const level = { release: at.release.id, patch: at.patches[patch]?.id ?? BASE_PATCH };
  const track = findTrack(model.product, level, { today, countsExpected });
  return track ? { track } : {};
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

/** Over all starts: sure is the worst, best the best. Route and reasons are those of the worst start. */
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
