import type { Decision } from '$core/estate';
import { Names } from '$core/catalogue';
import { parseDay } from '$core/date';
import { sayDay, sayEntry, sayWayStep } from '$core/wording';
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

/** What was decided, as the rest of a sentence that begins with what it is about: `cad-06, processor speed` `is taken to be 3 GHz`. */
export function sayDecision(d: Decision): string {
  const names = new Names(productOf(d));
  switch (d.kind) {
    case 'choose a target':
      return `goes to ${d.target ? names.target(d.target) : 'another target'}`;
    case 'choose a route':
      return `takes the way by ${(d.route ?? []).map((s) => sayWayStep(names, s)).join(', then ')}`;
    case 'rule':
      return `goes by what ${sayStatement(d.holds ?? '')} says`;
    case 'assume':
      return `is taken to be ${String(d.value)}`;
    case 'stay':
      return 'stays on what is installed';
    case 'ignore':
      return `is not minded${d.about === undefined ? '' : `: ${sayEntry(d.about, naming)}`}`;
    case 'open':
      return `goes on through the ${(d.about ?? 'freeze').replace(/(\d{4}-\d\d-\d\d)/g, (day) => sayDay(parseDay(day) ?? 0)).replace(/ (?=\d+ \w+ \d{4}$)/, ' to ')}`;
    default:
      return `${SETTLED[d.kind] ?? d.kind}${d.about === undefined ? '' : `: ${sayEntry(d.about, naming)}`}`;
  }
}

const SETTLED: Readonly<Partial<Record<Decision['kind'], string>>> = {
  accept: 'takes the warning',
  waive: 'goes without the demand',
  bar: 'does not go this way again'
};

/** Who states something: a source of the catalogue by its title, else the name it is kept under. */
export const sayStatement = (key: string): string => {
  const title = desk.catalogue?.sources?.find((s) => s.id === key)?.title;
  return title === undefined ? key : `“${title}”`;
};

function productOf({ scope }: Decision) {
  if ('situation' in scope) return desk.products.get(scope.situation.split('/')[0] ?? '');
  const system = 'system' in scope ? desk.systems.get(scope.system) : undefined;
  return system && 'is' in system.product ? desk.products.get(system.product.is) : undefined;
}
