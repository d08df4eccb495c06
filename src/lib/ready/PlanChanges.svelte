<script lang="ts">
  import { Table } from '$lib/kit';
  import type { Brief, PlanChange } from '$core/plan';
  import { sayCount, sayFinding } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import { naming } from './naming';

  /** What differs between two plans, before and after side by side. */
  let { changes }: { changes: readonly PlanChange[] } = $props();

  const MOST = 60;

  function say(brief: Brief | undefined): string {
    if (!brief) return 'not there';
    const names = desk.namesOfProduct(brief.product ?? '');
    return sayFinding(brief.found, names, desk.catalogue?.currency ?? '').line;
  }
</script>

<Table aria-label="Before and after">
  <thead><tr><th>Systems</th><th>Before</th><th>After</th></tr></thead>
  <tbody>
    {#each changes.slice(0, MOST) as change (change.systems.join())}
      <tr data-plan-change={change.systems[0]} class:same={!change.verdictChanges}>
        <td
          ><a href="/stair?at={encodeURIComponent(change.systems[0] ?? '')}"
            >{naming.system(change.systems[0] ?? '')}</a
          >{change.systems.length > 1 ? ` and ${change.systems.length - 1} more` : ''}</td
        >
        <td>{say(change.before)}</td>
        <td><b>{say(change.after)}</b></td>
      </tr>
    {/each}
  </tbody>
</Table>
{#if changes.length > MOST}<p class="soft">
    And {sayCount(changes.length - MOST, 'more kind')} of change.
  </p>{/if}

<style>
  .same b {
    font-weight: 400;
  }
  td {
    width: 33%;
    overflow-wrap: anywhere;
  }
</style>
