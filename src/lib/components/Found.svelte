<script lang="ts">
  import type { CasePlan } from '$core/plan';
  import { desk } from '$lib/state/desk.svelte';

  /** What is found of a case, in the words every place has for it: verdict, deadline, days left, sum. */
  let { plan }: { plan: CasePlan } = $props();

  const said = $derived(desk.found(plan));
</script>

<span data-found={plan.systems[0]}
  >{said.target ? `${said.target}: ` : ''}<b data-said="verdict">{said.verdict}</b>; {#if said.day}deadline
    <b data-said="day">{said.day}</b>: {said.sets}{:else}no deadline known{/if}{#if said.left}; <b
      data-said="left">{said.left}</b
    >{/if}{#if said.sum}; <span data-said="sum">{said.sum}</span>{/if}</span
>
