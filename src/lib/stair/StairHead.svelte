<script lang="ts">
  import type { CasePlan } from '$core/plan';
  import { sayContributor, sayCount, sayDay } from '$core/wording';
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
  const { setBy, next } = $derived(plan.deadline);
</script>

<h1>{desk.describe(plan)}</h1>
<p class="soft">
  {sayCount(plan.systems.length, 'system')}{plan.systems.length === 1 ? `, ${stair.system?.name ?? ''}` : ''}: {teams}.
  {#if setBy}Deadline <b class="ink">{sayDay(setBy.day)}</b>: {sayContributor(setBy, stair.names)}{#if next};
      the next is {sayDay(next.day)}{/if}.{:else}No deadline is known.{/if}
</p>

<style>
  h1 {
    overflow-wrap: anywhere;
  }
  .ink {
    color: var(--ink);
  }
</style>
