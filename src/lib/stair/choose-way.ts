import type { CasePlan } from '$core/plan';
import { type Route, wayOf } from '$core/route';
import { desk } from '$lib/state/desk.svelte';
import { trials } from '$lib/state/trials.svelte';

/** Takes a way for a situation: a decision that stands until it is taken back, or no longer can be gone. */
export const chooseWay = (plan: CasePlan, route: Route): Promise<void> =>
  trials.keep(
    `Chose a way for ${desk.describe(plan)}`,
    [{ decide: { kind: 'choose a route', scope: { situation: plan.situation }, route: wayOf(route) } }],
    ''
  );
