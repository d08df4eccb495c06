<script lang="ts">
  import { kindsOf, type Worksheet } from '$core/estate';
  import { sayDifference } from '$core/wording';
  import { beforeAndAfter } from '$core/worksheet';
  import { Table } from '$lib/kit';
  import { desk } from '$lib/state/desk.svelte';
  import { orderNames } from '$lib/state/order-names';

  /** How the system stood before and how it stands now, what nobody expected first. */
  let { sheet }: { sheet: Worksheet } = $props();

  const system = $derived(desk.systems.get(sheet.system));
  const product = $derived(desk.products.get(sheet.product));
  const differences = $derived(
    system && product ? beforeAndAfter(sheet, system, { product, kinds: kindsOf(desk.catalogue) }) : []
  );
  const rows = $derived([...differences].sort((a, b) => Number(a.isExpected) - Number(b.isExpected)));
</script>

{#if rows.length > 0}
  <h2>Before and after</h2>
  <Table data-before-after>
    <thead><tr><th>What</th><th>Before</th><th>Now</th><th>Expected</th></tr></thead>
    <tbody>
      {#each rows as row, i (i)}
        {@const told = sayDifference(row, sheet, orderNames)}
        <tr data-expected={row.isExpected}>
          <td>{told.what}</td>
          <td>{told.before}</td>
          <td>{told.after}</td>
          <td
            >{#if row.isExpected}yes{:else}<b>no</b>{/if}</td
          >
        </tr>
      {/each}
    </tbody>
  </Table>
{/if}

<style>
  h2 {
    margin-top: 16px;
  }
</style>
