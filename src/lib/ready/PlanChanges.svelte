<script lang="ts">
  import { Table } from '$lib/kit';
  import type { PlanChange } from '$core/plan';
  import { sayCount } from '$core/wording';
  import FoundBrief from '$lib/components/FoundBrief.svelte';
  import { desk } from '$lib/state/desk.svelte';
  import { naming } from './naming';

  /** What differs between two plans, before and after side by side. */
  let { changes }: { changes: readonly PlanChange[] } = $props();

  const MOST = 60;
</script>

<Table aria-label="Before and after">
  <thead><tr><th>Systems</th><th>Before</th><th>After</th></tr></thead>
  <tbody>
    {#each changes.slice(0, MOST) as change (change.systems.join())}
      <tr data-plan-change={change.systems[0]}>
        <td
          ><a href="/stair?at={encodeURIComponent(change.systems[0] ?? '')}"
            >{naming.system(change.systems[0] ?? '')}</a
          >{change.systems.length > 1 ? ` and ${change.systems.length - 1} more` : ''}</td
        >
        {#each [change.before, change.after] as brief, i (i)}<td
            ><FoundBrief
              {brief}
              names={desk.namesOfProduct(brief?.product ?? '')}
              currency={desk.catalogue?.currency ?? ''}
            /></td
          >{/each}
      </tr>
    {/each}
  </tbody>
</Table>
{#if changes.length > MOST}<p class="soft">
    And {sayCount(changes.length - MOST, 'more kind')} of change.
  </p>{/if}

<style>
  td {
    width: 33%;
    overflow-wrap: anywhere;
  }
</style>
