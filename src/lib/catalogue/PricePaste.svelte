<script lang="ts">
  import { Area, Button, Dialog, Table } from '$lib/kit';
  import type { Product } from '$core/catalogue';
  import { parseCsv, type PriceLine, readPrices, withPrices } from '$core/exchange';
  import { sayCount } from '$core/wording';
  import { draft, sayIssues } from '$lib/state/draft.svelte';

  /** A publisher's list of rights and prices, pasted: what it would change is shown first. */
  let { open = $bindable(false), product }: { open?: boolean; product: Product } = $props();

  let text = $state('');
  let fault = $state('');

  const REFUSED = {
    'no name': 'it names no right',
    'no price': 'there is no price in it',
    'several rights of that name': 'several rights go by that name: name the edition'
  } as const;
  const WHAT = { price: 'price', pack: 'packs of', until: 'until', offer: 'offer' } as const;
  const table = $derived.by(() => {
    if (text.trim() === '') return undefined;
    const read = parseCsv(text);
    return read.ok ? (readPrices(read.value.rows, product) ?? 'unread') : 'unread';
  });
  const lines = $derived(typeof table === 'object' ? table.lines : []);
  const taken = $derived(lines.filter((l) => !l.refused && l.changes.length > 0));

  const says = (line: PriceLine): string =>
    line.refused
      ? `not taken: ${REFUSED[line.refused]}`
      : line.changes.length === 0
        ? 'as it is'
        : line.changes
            .map((c) => `${WHAT[c.field]} ${c.after}${c.before === '' ? '' : ` instead of ${c.before}`}`)
            .join(', ');

  async function take(): Promise<void> {
    const issues = await draft.revise(`prices of ${product.name}`, (c) => ({
      ...c,
      products: c.products.map((p) => (p.id === product.id ? withPrices(p, taken) : p))
    }));
    fault = sayIssues(issues);
    if (issues.length > 0) return;
    text = '';
    open = false;
  }
</script>

<Dialog bind:open title="Paste a price list of {product.name}">
  <p>
    A table with headings, in any order: <b>right</b> and <b>price</b>, and where there are any edition,
    packs, until, offer price. Rights go by their names; what is not known becomes a new purchase.
  </p>
  <Area rows={7} aria-label="Price list" bind:value={text} />
  {#if table === 'unread'}<p role="alert">
      No heading says which column is the right and which its price.
    </p>{/if}
  {#if lines.length > 0}
    <Table>
      <thead><tr><th>Line</th><th>Right</th><th>What is other</th></tr></thead>
      <tbody>
        {#each lines as line (line.row)}
          <tr data-price-line={line.row}
            ><td class="mono">{line.row}</td><td>{line.text}{line.isNew ? ', new' : ''}</td><td
              >{says(line)}</td
            ></tr
          >
        {/each}
      </tbody>
    </Table>
  {/if}
  {#if fault}<p role="alert">{fault}</p>{/if}
  <p class="row">
    <Button kind="onward" disabled={taken.length === 0} onclick={take}
      >Take over {sayCount(taken.length, 'line')}</Button
    >
    <Button onclick={() => (open = false)}>Leave it</Button>
  </p>
</Dialog>

<style>
  .row {
    display: flex;
    gap: 10px;
    margin-top: 10px;
  }
</style>
