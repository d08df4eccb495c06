import type { WaitStretch } from '$core/plan';
import { sayCount, sayMoney, sayWaitCause } from '$core/wording';
import { caseOf } from '$lib/ready/naming';
import { desk } from '$lib/state/desk.svelte';

/** `17 systems on Garnock Desk 4 r2` */
export function describeCase(id: string): string {
  const plan = caseOf(id);
  if (!plan) return 'a way';
  const [first = ''] = plan.systems;
  return plan.systems.length === 1
    ? `${desk.naming.system(first)} on ${desk.describe(plan)}`
    : `${sayCount(plan.systems.length, 'system')} on ${desk.describe(plan)}`;
}

/** Why the sum is another than before; equal reasons once. */
export const causesOf = ({ causes }: WaitStretch, currency: string): string[] => [
  ...new Set(causes.map((c) => sayWaitCause(c, { naming: desk.naming, describe: describeCase, currency })))
];

/** Systems whose ways no longer hold. */
export const withoutOf = ({ without }: WaitStretch): number =>
  without.reduce((n, w) => n + (caseOf(w.case)?.systems.length ?? 0), 0);

/** `EUR 1,490.00, without 3 systems` */
export function saySum(stretch: WaitStretch, currency: string): string {
  const gone = withoutOf(stretch);
  const unknown = stretch.unpriced > 0 ? ' and what nobody has published' : '';
  return `${sayMoney(stretch.cents, currency)}${unknown}${gone > 0 ? `, without ${sayCount(gone, 'system')}` : ''}`;
}
