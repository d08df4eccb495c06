import { compareText } from '../kit';
import { comparisonsOf, type FactKinds, parseCondition } from '../condition';
import type { Change } from '../estate';
import { isThere } from '../plan';
import { addSums, rankOfSum, type RightNeed } from '../right';
import { type CureStep, isCounted, type Reason } from '../route';
import { findChangeFor } from '../what-if';
import type { LookedCase } from './look-case';
import type { Remedy, RemedyKind, Want } from './ready-types';

/** What one case needs of one remedy. */
interface Needed {
  readonly key: string;
  readonly kind: RemedyKind;
  readonly product: string;
  readonly id: string;
  /** Of one system; of what is bought for all at once, nothing. */
  readonly eachCents: number | 'unknown';
  readonly minutes: number;
  readonly leadDays: number;
  readonly reason?: Reason;
  readonly change?: Change;
}

type Gathered = Needed & {
  cases: string[];
  ids: string[];
  lifts: Change[];
  systems: number;
  costCents: number | 'unknown';
};

/**
 * What opens goals: the cures, rights and linked systems of each case's way, and where a goal is closed what its first opening
 * lifts - or a new machine where nothing else opens it. A remedy costs what all systems that need it cost together; rights what
 * the estate has to buy beyond what it holds. Sorted by systems opened alone, then by systems that need it, cost and key.
 */
export function gatherRemedies(
  looked: readonly LookedCase[],
  rights: readonly RightNeed[],
  kinds: FactKinds
): { remedies: Remedy[]; wants: Want[] } {
  const remedies = new Map<string, Gathered>();
  const wants: Want[] = [];
  for (const one of looked) {
    const needed = neededBy(one, kinds);
    if (!needed) continue;
    const systems = one.plan.systems.length;
    wants.push({ case: one.plan.id, systems, needs: [...new Set(needed.map((n) => n.key))] });
    for (const n of new Map(needed.map((n) => [n.key, n])).values()) {
      const known = remedies.get(n.key) ?? { ...n, cases: [], ids: [], lifts: [], systems: 0, costCents: 0 };
      known.cases.push(one.plan.id);
      known.ids.push(...one.plan.systems);
      if (n.change) known.lifts.push(n.change);
      known.systems += systems;
      known.costCents = addSums(
        known.costCents,
        n.eachCents === 'unknown' ? 'unknown' : n.eachCents * systems
      );
      remedies.set(n.key, known);
    }
  }
  const priced = [...remedies.values()].map(({ eachCents: _each, change: _change, ids, lifts, ...r }) => {
    void [_each, _change];
    const bought = rights.filter(
      (need) => r.kind === 'right' && need.right === r.id && need.product === r.product
    );
    return {
      ...r,
      changes:
        r.kind === 'cure' || r.kind === 'perhaps'
          ? [{ cure: r.id, product: r.product, systems: ids }]
          : [...new Map(lifts.map((c) => [JSON.stringify(c), c])).values()],
      costCents: bought.length > 0 ? bought.map((b) => b.costCents).reduce(addSums) : r.costCents
    };
  });
  const free = new Set(
    priced.filter((r) => r.costCents === 0 && r.kind !== 'other' && r.kind !== 'decision').map((r) => r.key)
  );
  const opensAlone = (key: string): number =>
    wants
      .filter((w) => w.needs.includes(key) && w.needs.every((n) => n === key || free.has(n)))
      .reduce((n, w) => n + w.systems, 0);
  return {
    remedies: priced
      .map((r): Remedy => ({ ...r, opensAlone: opensAlone(r.key) }))
      .sort(
        (a, b) =>
          b.opensAlone - a.opensAlone ||
          b.systems - a.systems ||
          rankOfSum(a.costCents) - rankOfSum(b.costCents) ||
          compareText(a.key, b.key)
      ),
    wants
  };
}

/** Undefined where there is nothing to reach: already there, staying, or nobody can tell what is installed. */
function neededBy(looked: LookedCase, kinds: FactKinds): Needed[] | undefined {
  const { plan, found } = looked;
  const { goalPlan } = plan;
  const product = plan.product ?? '';
  if (!goalPlan || isThere(goalPlan) || plan.goalFrom === 'stay') return undefined;
  if (goalPlan.route) return ofRoute(product, goalPlan.route.steps, goalPlan.route.needsFirst);
  const openings = found?.openings.openings ?? [];
  const opening = openings.find((o) => o.reasons.every((r) => lifting(looked, r).change)) ?? openings[0];
  const isInOurHands = opening?.reasons.every((r) => lifting(looked, r).change) ?? false;
  const isOfMachine = opening?.reasons.some((r) => asksOfMachine(looked, r, kinds)) ?? false;
  if (plan.replace && goalPlan.verdict === 'closed' && !isInOurHands && isOfMachine)
    return [
      {
        key: `${product}/replace`,
        kind: 'replace',
        product,
        id: product,
        eachCents: plan.replace.costCents,
        minutes: plan.replace.route?.carefulMinutes ?? 0,
        leadDays: 0
      }
    ];
  return (
    opening && [
      ...opening.reasons.map((reason) => lifting(looked, reason)),
      ...ofRoute(product, opening.route.steps, opening.route.needsFirst)
    ]
  );
}

/** Whether a new machine would lift it: a demand on what stays the same as long as the machine does. */
function asksOfMachine({ product }: LookedCase, { code, subject }: Reason, kinds: FactKinds): boolean {
  if (code !== 'requirement' && code !== 'site demand') return false;
  const requirement = product?.requirements?.find((r) => r.id === subject);
  const parsed = parseCondition(requirement?.needs ?? 'unknown');
  return (
    'condition' in parsed &&
    comparisonsOf(parsed.condition).some(
      (c) => c.kind !== 'range' && (c.fact === 'model' || kinds.find(c.fact)?.keptBy === 'hardware')
    )
  );
}

/** What a way needs. A price nobody has stated is asked for, and keeps nobody from going. */
function ofRoute(
  product: string,
  steps: NonNullable<LookedCase['way']>['steps'],
  needsFirst: NonNullable<LookedCase['way']>['needsFirst']
): Needed[] {
  const base = { product, minutes: 0, leadDays: 0 };
  return [
    ...steps
      .filter((s) => s.kind === 'cure')
      .map((s: CureStep) => ({
        ...base,
        key: `${product}/${s.ifNeeded ? 'perhaps' : 'cure'}/${s.id}`,
        kind: s.ifNeeded ? ('perhaps' as const) : ('cure' as const),
        id: s.id,
        eachCents: s.costCents,
        minutes: s.carefulMinutes,
        leadDays: s.leadDays
      })),
    ...steps.filter(isCounted).flatMap((s) => {
      const { right, kind, units, costCents } = s.right;
      return (kind === 'purchase' || units) && right !== undefined
        ? [
            {
              ...base,
              key: `${product}/right/${right}`,
              kind: 'right' as const,
              id: right,
              eachCents: units ? 0 : costCents
            }
          ]
        : [];
    }),
    ...needsFirst.map((n) => ({
      ...base,
      key: `first/${n.system}`,
      kind: 'first' as const,
      product: n.product,
      id: n.system,
      eachCents: 0
    }))
  ];
}

/** A clause that is lifted by a decision somebody here may take; or by nobody here. */
function lifting({ one, plan, product: entry }: LookedCase, reason: Reason): Needed {
  const product = plan.product ?? '';
  const change =
    entry && findChangeFor(reason, { product: entry, situation: one.situation, team: one.system.team });
  const clause = `${reason.code} ${reason.subject}`.trim();
  return {
    key: `${product}/${change ? 'decision' : 'other'}/${clause}`,
    kind: change ? 'decision' : 'other',
    product,
    id: clause,
    eachCents: change ? 0 : 'unknown',
    minutes: 0,
    leadDays: 0,
    reason,
    ...(change ? { change } : {})
  };
}
