import type { CasePlan } from '$core/plan';
import { sayCount } from '$core/wording';
import { desk } from '$lib/state/desk.svelte';

/** What a goal chooses today, product by product: `Garnock Desk 6 for 24 systems`. */
export function sayChosen(isOfTeam: (team: string | undefined) => boolean): string {
  const found = new Map<string, number>();
  for (const plan of desk.plan?.cases ?? [])
    if (isOfTeam(desk.systems.get(plan.systems[0] ?? '')?.team)) {
      const key = sayGoalOf(plan);
      found.set(key, (found.get(key) ?? 0) + plan.systems.length);
    }
  return [...found]
    .sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1))
    .map(([goal, systems]) => `${goal} for ${sayCount(systems, 'system')}`)
    .join(', ');
}

function sayGoalOf(plan: CasePlan): string {
  if (!plan.goal) return 'nothing';
  const names = desk.namesOf(plan);
  return `${names.product} ${names.release(plan.goal.release)}`;
}
