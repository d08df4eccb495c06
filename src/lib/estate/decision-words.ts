import type { Decision } from '$core/estate';
import { Names } from '$core/catalogue';
import { sayEntry, sayWayStep } from '$core/wording';
import { naming } from '$lib/ready/naming';
import { desk } from '$lib/state/desk.svelte';

/** What a decision is about, in words, and where to see it. */
export function scopeOf({ scope }: Decision): { words: string; href?: string } {
  if ('estate' in scope) return { words: 'the whole estate' };
  if ('entry' in scope)
    return {
      words: `${naming.names(scope.entry.split('/')[0] ?? '').product}: ${sayEntry(scope.entry, naming)}`,
      href: '/catalogue?view=amiss'
    };
  if ('situation' in scope) {
    const plan = desk.plan?.cases.find((c) => c.situation === scope.situation);
    const first = plan?.systems[0];
    return plan && first !== undefined
      ? { words: desk.describe(plan), href: `/stair?at=${encodeURIComponent(first)}` }
      : { words: 'a situation nothing is in any more' };
  }
  const name = desk.systems.get(scope.system)?.name ?? scope.system;
  const what =
    'fact' in scope ? `, ${naming.fact(scope.fact)}` : 'companion' in scope ? `, ${scope.companion}` : '';
  return { words: name + what, href: `/estate/system?at=${encodeURIComponent(scope.system)}` };
}

/** What was decided, in words. */
export function describeDecision(d: Decision): string {
  const names = new Names(productOf(d));
  if (d.target) return `${d.kind}: ${names.target(d.target)}`;
  if (d.holds !== undefined) return `rule: ${d.holds} holds`;
  if (d.route) return `take the way by ${d.route.map((s) => sayWayStep(names, s)).join(', then ')}`;
  if (d.about !== undefined) return `${d.kind}: ${sayEntry(d.about, naming)}`;
  if (d.value !== undefined) return `assume: ${String(d.value)}`;
  return d.kind;
}

function productOf({ scope }: Decision) {
  if ('situation' in scope) return desk.products.get(scope.situation.split('/')[0] ?? '');
  const system = 'system' in scope ? desk.systems.get(scope.system) : undefined;
  return system && 'is' in system.product ? desk.products.get(system.product.is) : undefined;
}
