import { hasLevels, type Product } from '$core/catalogue';
import { type CasePlan, sumsOf } from '$core/plan';
import { isCounted } from '$core/route';
import { readingKey, type System } from '$core/estate';
import { sayCount, sayRisks } from '$core/wording';

export interface Need {
  readonly kind: 'ticket' | 'fact' | 'patch' | 'fresh' | 'risk';
  readonly words: string;
}

/** What a case needs first, in words, with the mark each goes by. `system` stands for its systems. */
export function needsOf(plan: CasePlan, system: System | undefined, product: Product | undefined): Need[] {
  const route = plan.goalPlan?.route;
  const needs: Need[] = [];
  const patches = route?.steps.filter((s) => s.kind === 'patch').map((s) => s.to.patch) ?? [];
  if (patches.length > 0) needs.push({ kind: 'patch', words: `patch ${patches.join(', ')}` });
  const cures = route?.steps.filter((s) => s.kind === 'cure').length ?? 0;
  if (cures > 0) needs.push({ kind: 'patch', words: sayCount(cures, 'cure') });
  const first = new Set(route?.needsFirst.map((n) => n.system)).size;
  if (first > 0) needs.push({ kind: 'fact', words: `${sayCount(first, 'linked system')} first` });
  if (route?.steps.some((s) => s.kind === 'fresh install'))
    needs.push({ kind: 'fresh', words: 'fresh install' });
  const bought =
    (route?.steps.filter((s) => isCounted(s) && s.right.kind === 'purchase').length ?? 0) *
    plan.systems.length;
  if (bought > 0) needs.push({ kind: 'ticket', words: sayCount(bought, 'right') });
  const asked = sumsOf(route);
  if (asked.toAsk > 0) needs.push({ kind: 'ticket', words: 'price to ask' });
  else if (asked.unstated > 0) needs.push({ kind: 'ticket', words: 'cost not stated' });
  if (plan.restsOn?.some((r) => r.ruled === undefined)) needs.push({ kind: 'fact', words: 'a ruling' });
  if (plan.goalPlan?.reasons.some((r) => r.code === 'cell'))
    needs.push({ kind: 'fact', words: 'upgrade path' });
  const facts = unknownParts(system, product);
  if (facts.length > 0)
    needs.push({ kind: 'fact', words: facts.length === 1 ? (facts[0] ?? '') : `${facts.length} facts` });
  for (const words of sayRisks(route?.risks ?? [])) needs.push({ kind: 'risk', words });
  return needs;
}

/** The parts of what is installed that are not known for certain, of those that its product has more than one of. */
export function unknownParts(system: System | undefined, product: Product | undefined): string[] {
  if (!system) return [];
  if (!('is' in system.product)) return ['product'];
  const release = 'is' in system.release ? system.release.is : undefined;
  const parts = [
    ['release', system.release, true],
    ['patch level', system.patch, !product || hasLevels(product, release)],
    ['edition', system.edition, !product || (product.editions ?? []).length > 1],
    ['architecture', system.architecture, !product || (product.architectures ?? []).length > 1]
  ] as const;
  return parts.flatMap(([name, reading, isOpen]) =>
    isOpen && readingKey(reading).startsWith('?') ? [name] : []
  );
}
