<script lang="ts">
  import type { CasePlan } from '$core/plan';
  import { sayCount, sayDay } from '$core/wording';
  import Found from '$lib/components/Found.svelte';
  import { desk } from '$lib/state/desk.svelte';
  import type { StairState } from './stair-state.svelte';

  /** Whose stair it is: what is installed, on how many systems of which teams, and what ends when. */
  let { stair, plan }: { stair: StairState; plan: CasePlan } = $props();

  const teams = $derived.by(() => {
    const counts = new Map<string, number>();
    for (const id of plan.systems) {
      const team = desk.systems.get(id)?.team ?? 'no team';
      counts.set(team, (counts.get(team) ?? 0) + 1);
    }
    return [...counts].map(([team, count]) => `${team} ${count}`).join(', ');
  });
  const { next } = $derived(plan.deadline);
</script>

<h1>{desk.describe(plan)}</h1>
<p class="soft">
  {sayCount(plan.systems.length, 'system')}{plan.systems.length === 1 ? `, ${stair.system?.name ?? ''}` : ''}: {teams}.
  <Found said={desk.found(plan)} of={plan.systems[0]} />{#if next}; the next deadline is {sayDay(
      next.day
    )}{/if}.
</p>

<style>
  h1 {
    overflow-wrap: anywhere;
  }
  p :global(b) {
    color: var(--ink);
  }
</style>
