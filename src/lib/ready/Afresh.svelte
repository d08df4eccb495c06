<script lang="ts">
  import type { CasePlan } from '$core/plan';
  import { sayCount } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import { naming, stairOf } from './naming';

  /** What the chosen ways install afresh. */
  let { cases }: { cases: readonly CasePlan[] } = $props();

  const systems = $derived(cases.reduce((n, c) => n + c.systems.length, 0));
</script>

{#if cases.length > 0}
  <section class="part" data-afresh>
    <h2>Must be installed afresh</h2>
    <p><b>{sayCount(systems, 'system')}</b>:</p>
    <ul class="plainlist">
      {#each cases as c (c.id)}
        <li>
          <a href={stairOf(c.systems)}>{desk.describe(c)}</a>
          <span class="soft"
            >{c.systems.map(naming.system).join(', ')}; keeps {c.goalPlan?.route?.kept ?? ''}</span
          >
        </li>
      {/each}
    </ul>
  </section>
{/if}
