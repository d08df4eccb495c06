import { compareText } from '../kit';
import type { Day } from '../date';
import { type Finding, findingOf } from './finding';
import type { CasePlan, Plan } from './plan-types';

/** What a person would notice of one system's plan. */
export interface Brief {
  readonly product?: string;
  readonly found: Finding;
  /** Ids of the steps of the chosen route. */
  readonly steps: readonly string[];
}

/** Systems whose plan changes in the same way. */
export interface PlanChange {
  readonly systems: readonly string[];
  readonly before?: Brief;
  readonly after?: Brief;
  /** The verdict itself changes, not only its way or its days. */
  readonly verdictChanges: boolean;
}

/** What differs between two plans, gathered: changed verdicts first, then by number of systems, then by name. */
export function comparePlans(before: Plan | undefined, after: Plan | undefined): PlanChange[] {
  const [x, y] = [briefs(before), briefs(after)];
  const groups = new Map<string, { systems: string[]; before?: Brief; after?: Brief }>();
  for (const system of new Set([...x.keys(), ...y.keys()])) {
    const [a, b] = [x.get(system), y.get(system)];
    if (keyOf(a) === keyOf(b)) continue;
    const key = `${keyOf(a)} ${keyOf(b)}`;
    const group = groups.get(key) ?? { systems: [], ...(a ? { before: a } : {}), ...(b ? { after: b } : {}) };
    group.systems.push(system);
    groups.set(key, group);
  }
  return [...groups.values()]
    .map((g) => ({
      ...g,
      systems: g.systems.sort(),
      verdictChanges: g.before?.found.verdict !== g.after?.found.verdict
    }))
    .sort(
      (a, b) =>
        Number(b.verdictChanges) - Number(a.verdictChanges) ||
        b.systems.length - a.systems.length ||
        compareText(a.systems[0] ?? '', b.systems[0] ?? '')
    );
}

function briefs(plan: Plan | undefined): ReadonlyMap<string, Brief> {
  const map = new Map<string, Brief>();
  for (const one of plan?.cases ?? []) {
    const brief = briefOf(one, plan?.today ?? 0);
    for (const system of one.systems) map.set(system, brief);
  }
  return map;
}

const briefOf = (one: CasePlan, today: Day): Brief => ({
  ...(one.product === undefined ? {} : { product: one.product }),
  found: findingOf(one, today),
  steps: (one.goalPlan?.route?.steps ?? []).map((s) =>
    s.kind === 'patch' ? `${s.to.release}/${s.to.patch}` : s.id
  )
});

/** What makes two briefs differ: verdict, target, steps and days; not what the way costs, nor why. */
const keyOf = (brief: Brief | undefined): string => {
  if (!brief) return '';
  const { verdict, target, setBy, urgency, latestStart } = brief.found;
  return JSON.stringify([
    brief.product,
    verdict,
    target?.release,
    target?.edition,
    brief.steps,
    setBy?.day,
    latestStart,
    urgency.days
  ]);
};
