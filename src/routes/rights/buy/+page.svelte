<script lang="ts">
  import { Button, Table } from '$lib/kit';
  import { emptyCatalogue } from '$core/catalogue';
  import { sayCount, sayDay, sayDaysLeft, sayMoney, sayNumber, shorten } from '$core/wording';
  import { formatOrders, type OrderLine, ordersOf } from '$lib/rights/orders';
  import { desk } from '$lib/state/desk.svelte';
  import { downloadText } from '$lib/state/download';

  const currency = $derived(desk.catalogue?.currency ?? '');
  const lines = $derived(
    desk.plan ? ordersOf(desk.plan, desk.catalogue ?? emptyCatalogue(), desk.estate, desk.naming) : []
  );
  const months = $derived.by(() => {
    const found = new Map<string, OrderLine[]>();
    for (const line of lines) found.set(line.month, [...(found.get(line.month) ?? []), line]);
    return [...found];
  });
  const perhaps = $derived((desk.plan?.rights ?? []).filter((r) => r.perhaps.needed !== 0));
  const short = $derived((desk.plan?.rights ?? []).filter((r) => r.short > 0));
  const sumOf = (list: readonly OrderLine[]): number =>
    list.reduce((n, l) => n + (l.costCents === 'unknown' ? 0 : l.costCents), 0);
  const unpricedOf = (list: readonly OrderLine[]): number =>
    list.filter((l) => l.costCents === 'unknown').length;
</script>

<svelte:head><title>What to order - Orange Stair</title></svelte:head>

<div class="scrolled">
  <h1>What to order</h1>
  <p data-total>
    {#if lines.length === 0}
      The ways chosen ask for nothing to be bought.
    {:else}
      <b>{sayMoney(sumOf(lines), currency)}</b> in {sayCount(lines.length, 'line')}{unpricedOf(lines) > 0
        ? `, ${sayCount(unpricedOf(lines), 'line')} of them at a price nobody has published`
        : ''}.
      <Button
        class="no-print"
        onclick={() => downloadText('orders.csv', formatOrders(lines, currency), 'text/csv')}
        >Take out as CSV</Button
      >
      <Button class="no-print" onclick={() => window.print()}>Print the order</Button>
    {/if}
  </p>
  {#each months as [month, list] (month)}
    <h2>{month}: {sayMoney(sumOf(list), currency)}</h2>
    <Table>
      <thead
        ><tr
          ><th>Publisher</th><th>Right</th><th>Product</th><th class="num">Order</th><th class="num">Cost</th
          ><th>Order by</th><th>For</th></tr
        ></thead
      >
      <tbody>
        {#each list as l, i (i)}
          <tr data-order={l.right}>
            <td>{l.publisher}</td>
            <td>{l.right}</td>
            <td>{[l.product, l.edition].filter(Boolean).join(' ')}</td>
            <td class="num mono"
              ><b>{sayNumber(l.packs)}</b>{l.units > l.packs ? ` packs, ${sayNumber(l.units)} units` : ''}</td
            >
            <td class="num mono"
              >{l.costCents === 'unknown' ? 'to be asked' : sayMoney(l.costCents, currency)}</td
            >
            <td class="by" class:late={l.by < desk.today}
              >{sayDay(l.by)}{l.by < desk.today ? `, ${sayDaysLeft(l.by - desk.today)}` : ''}</td
            >
            <td>{shorten(l.systems.join(', '), 60)}{l.sites.length > 0 ? ` (${l.sites.join(', ')})` : ''}</td>
          </tr>
        {/each}
      </tbody>
    </Table>
  {/each}
  {#if short.length > 0}
    <h2>Short, and nobody sells it</h2>
    {#each short as need (need.group + need.right + need.edition)}
      {@const names = desk.namesOfProduct(need.product)}
      <p data-short>
        <b>{sayNumber(need.short)}</b> of {names.right(need.right)}, {names.product}
        {names.edition(need.edition)}
      </p>
    {/each}
  {/if}
  {#if perhaps.length > 0}
    <h2>Perhaps needed: ask before ordering</h2>
    <p class="soft">These ways rest on what nobody has read. They count in no sum.</p>
    {#each perhaps as need (need.group + need.right + need.edition)}
      {@const names = desk.namesOfProduct(need.product)}
      <p data-perhaps>
        <b>{need.perhaps.needed === 'unknown' ? 'Nobody knows how many' : sayNumber(need.perhaps.needed)}</b>
        of
        {names.right(need.right)}, {names.product}
        {names.edition(need.edition)}; {sayNumber(need.perhaps.drawn)} of them held
      </p>
    {/each}
  {/if}
  <p class="soft">
    Days that are published as a month count as its last day. Units of one edition are never used for another.
  </p>
</div>

<style>
  h2 {
    margin-top: 18px;
  }
  .num {
    text-align: right;
    white-space: nowrap;
  }
  .by {
    white-space: nowrap;
  }
  .late {
    font-weight: 650;
  }
  td {
    overflow-wrap: break-word;
    min-width: 74px;
  }
  p :global(.act) {
    margin-left: 8px;
  }
</style>
