import { type Dispute, joinEntryPath, type Product } from '../catalogue';
import type { Case } from '../bind';
import type { CasePlan, RestsOn } from './plan-types';
import type { Planning } from './planning';
import { isCounted } from '../route';
import { matchesRelease, parseRange, sequenceOf } from '../version';

/**
 * The disputed entries a case's verdict rests on: those of the releases it stands on, passes and aims at, of the hops
 * between these whether the route takes them or not, of the edition changes and rights it uses, and of whatever
 * contributes to its deadline. In the order of the catalogue.
 */
function findRestsOn(plan: CasePlan, product: Product | undefined, disputes: readonly Dispute[]): RestsOn[] {
  if (!product || disputes.length === 0) return [];
  const touched = touchedOf(plan, product);
  return disputes
    .filter((d) => [...touched].some((t) => d.entry === t || d.entry.startsWith(`${t}/`)))
    .map((d) => ({ entry: d.entry, ...(d.ruled === undefined ? {} : { ruled: d.ruled }) }));
}

/** A plan with the disputed entries its verdict rests on, where there are any. */
export function withRestsOn(planning: Planning, one: Case, plan: CasePlan): CasePlan {
  const restsOn = findRestsOn(plan, planning.modelFor(one.system)?.product, planning.disputes);
  return restsOn.length > 0 ? { ...plan, restsOn } : plan;
}

function touchedOf(plan: CasePlan, product: Product): ReadonlySet<string> {
  const touched = new Set<string>();
  const sequence = sequenceOf(product);
  const add = (list: string, id: string | undefined): void => {
    if (id !== undefined) touched.add(joinEntryPath([product.id, list, id]));
  };
  const addRelease = (id: string | undefined): void => {
    add('releases', id);
    add('lines', product.releases.find((r) => r.id === id)?.line);
  };
  const addStep = (id: string): void => {
    for (const list of ['hops', 'editionChanges', 'rights', 'releases'] as const) add(list, id);
  };
  [plan.start?.release, plan.goal?.release].forEach(addRelease);
  for (const step of plan.goalPlan?.route?.steps ?? []) {
    addRelease(step.to.release);
    if (!isCounted(step)) continue;
    addStep(step.id);
    add('rights', step.right.right);
  }
  const [first, last] = [plan.start?.release, plan.goal?.release].map((id) =>
    product.releases.findIndex((r) => r.id === id)
  );
  const between = product.releases.slice(first, (last ?? -1) + 1).map((r) => r.id);
  for (const hop of product.hops ?? []) {
    const range = parseRange(hop.from);
    if (!between.includes(hop.to) || !('range' in range)) continue;
    if (between.some((id) => matchesRelease(sequence, range.range, id))) add('hops', hop.id);
  }
  for (const { subject } of [...(plan.goalPlan?.reasons ?? []), ...plan.deadline.contributors])
    addStep(subject);
  return touched;
}
