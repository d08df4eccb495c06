<script lang="ts">
  import { sayCount, sayDrift } from '$core/wording';
  import { driftOf, standingOf } from '$core/worksheet';
  import { desk } from '$lib/state/desk.svelte';
  import { orderNames } from '$lib/state/order-names';
  import { worksheets } from './worksheets.svelte';

  /** The worksheets of some systems wherever those are shown: how far they are, and whether something has drifted. */
  let { systems }: { systems: readonly string[] } = $props();

  const MOST = 6;
  const own = $derived(new Set(systems));
  const rows = $derived(
    worksheets.byName
      .filter((s) => own.has(s.system))
      .map((sheet) => ({
        sheet,
        at: standingOf(sheet),
        amiss: driftOf(
          sheet,
          desk.systems.get(sheet.system),
          desk.plan?.cases.find((c) => c.systems.includes(sheet.system))
        )
      }))
      .filter((r) => r.at.next !== undefined)
  );
  const amiss = $derived(rows.filter((r) => r.amiss.length > 0).length);
</script>

{#if rows.length > 0}
  <ul data-sheets-of>
    {#each rows.slice(0, MOST) as { sheet, at, amiss: drift } (sheet.id)}<li>
        <a href="/worksheet?at={encodeURIComponent(sheet.id)}"
          >Worksheet of {orderNames.system(sheet.system)}</a
        >: {at.done} of {at.of} done{#if at.failed.length > 0}, <b>{at.failed.length} failed</b
          >{/if}{#if drift.length > 0}; <b>check again</b>: {drift.map(sayDrift).join('; ')}{/if}
      </li>{/each}
    {#if rows.length > MOST}<li>
        <a href="/worksheet">{sayCount(rows.length - MOST, 'worksheet')} more</a>{amiss > 0
          ? `, ${amiss} of all to check again`
          : ''}
      </li>{/if}
  </ul>
{/if}

<style>
  ul {
    list-style: none;
    padding: 0;
    margin: 6px 0;
  }
  li {
    padding: 2px 0;
    overflow-wrap: anywhere;
  }
</style>
