import { compareText } from '../kit';
import type { Day } from '../date';
import { type CasePlan, type Plan, saidVerdict, type SaidVerdict } from './plan-types';

/** What a person would notice of one system's plan. */
export interface Brief {
  readonly product?: string;
  readonly verdict: SaidVerdict;
  readonly goal?: string;
  /** Ids of the steps of the chosen route. */
  readonly steps: readonly string[];
  readonly deadline?: Day;
  readonly slack?: number;
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
    const key = JSON.stringify([a, b]);
    if (JSON.stringify(a) === JSON.stringify(b)) continue;
    const group = groups.get(key) ?? { systems: [], ...(a ? { before: a } : {}), ...(b ? { after: b } : {}) };
    group.systems.push(system);
    groups.set(key, group);
  }
  return [...groups.values()]
    .map((g) => ({ ...g, systems: g.systems.sort(), verdictChanges: g.before?.verdict !== g.after?.verdict }))
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
    const brief = briefOf(one);
    for (const system of one.systems) map.set(system, brief);
  }
  return map;
}

const briefOf = (one: CasePlan): Brief => ({
  ...(one.product === undefined ? {} : { product: one.product }),
  verdict: saidVerdict(one),
  ...(one.goal ? { goal: `${one.goal.release} ${one.goal.edition}` } : {}),
  steps: (one.goalPlan?.route?.steps ?? []).map((s) =>
    s.kind === 'patch' ? `${s.to.release}/${s.to.patch}` : s.id
  ),
  ...(one.deadline.day === undefined ? {} : { deadline: one.deadline.day }),
  ...(one.slack === undefined ? {} : { slack: one.slack })
});
