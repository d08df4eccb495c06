<script lang="ts">
  import { Button } from '$lib/kit';
  import type { Product } from '$core/catalogue';
  import type { ProductModel } from '$core/compile';
  import { sayCount } from '$core/wording';
  import { describeSource } from '$lib/state/sources';
  import Calendar from './Calendar.svelte';
  import type { CataloguePlace } from './catalogue-place.svelte';
  import { DEMANDS, TERMS } from './entries';
  import EntryLists from './EntryLists.svelte';
  import HopTable from './HopTable.svelte';
  import PathRule from './PathRule.svelte';

  /** One product: its table, calendar, demands or terms. */
  let { place, product, model }: { place: CataloguePlace; product: Product; model: ProductModel } = $props();

  const { view, at, installed } = $derived(place);
  let pasting = $state(false);
</script>

<p class="soft">
  {[product.publisher, product.about].filter(Boolean).join('. ')}.
  {product.source ? describeSource(place.catalogue, product, '') : ''}
</p>
<p class="row">
  <Button onclick={() => place.pick(['products', at], 'product')}>Name and publisher</Button>
  {#if view === 'calendar'}
    <Button onclick={() => void place.copy(product.releases.at(-1)?.id ?? '')}
      >New release after the likeness of the last</Button
    >
  {/if}
  {#if view === 'terms'}<Button onclick={() => (pasting = true)}>Paste a price list</Button>{/if}
  {#each place.unlisted.slice(0, 3) as u (u.text)}
    <Button onclick={() => void place.list(u.text)}
      >List “{u.text}”, which {sayCount(u.systems, 'machine')}
      {u.systems === 1 ? 'runs' : 'run'}</Button
    >
  {/each}
</p>
{#if view === 'table'}
  <p class="soft">
    {model.tableComplete
      ? 'The publisher’s table is complete: an empty cell is forbidden.'
      : 'The table may have gaps: “?” is not recorded, not forbidden.'}
  </p>
  {#if !model.tableComplete && product.releases.length > 1}<PathRule {product} isDraft />{/if}
  <HopTable {model} {installed} selected={place.cell} onpick={(f, t) => (place.cell = `${f}>${t}`)} />
{:else if view === 'calendar'}
  <Calendar {product} {installed} selected={place.release} onpick={(id) => (place.release = id)} />
{:else}
  <EntryLists
    lists={view === 'demands' ? DEMANDS : TERMS}
    base={['products', at]}
    {product}
    selected={place.entry?.path}
    onpick={(path, one) => place.pick(path, one)}
  />
{/if}
{#if pasting}{#await import('./PricePaste.svelte') then { default: PricePaste }}
    <PricePaste bind:open={pasting} {product} />
  {/await}{/if}

<style>
  .row {
    display: flex;
    gap: 10px;
    align-items: center;
    flex-wrap: wrap;
    margin-top: 10px;
  }
</style>
