<script lang="ts">
  import { Fold } from '$lib/kit';
  import type { ReadyItem, Remedy } from '$core/ready';
  import { sayCount, sayItem } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import ItemDetails from './ItemDetails.svelte';
  import MarkSign from './MarkSign.svelte';
  import { naming } from './naming';
  import { countOpen } from './ready-state.svelte';

  /** One thing asked, over all systems; opened, system by system with what deals with it. */
  let {
    item,
    at,
    remedies,
    currency
  }: {
    item: ReadyItem;
    /** Its place among the lines, for the arrow keys. */
    at: number;
    remedies: readonly Remedy[];
    currency: string;
  } = $props();

  const fails = $derived(countOpen(item, 'fails'));
  const unknown = $derived(countOpen(item, 'unknown'));
  const dealt = $derived(item.cells.find((c) => c.dealt));
</script>

<div class="line">
  <Fold data-item={item.key} data-at={at}
    >{#snippet head()}
      <span class="marks">
        {#if fails > 0}<span class="tally"><MarkSign mark="fails" />{fails} fail{fails === 1 ? 's' : ''}</span
          >{/if}
        {#if unknown > 0}<span class="tally"><MarkSign mark="unknown" />{unknown} unknown</span>{/if}
        {#if fails + unknown === 0}<span class="tally"
            ><MarkSign mark={dealt?.mark ?? 'holds'} dealt={dealt?.dealt} />{dealt?.dealt ?? 'holds'}</span
          >{/if}
      </span>
      <span class="words"
        >{sayItem(item, naming)}
        <span class="soft">{desk.namesOfProduct(item.product).product}</span></span
      >
      <span class="systems mono">{item.open > 0 ? sayCount(item.open, 'system') : 'dealt with'}</span>
    {/snippet}
    <ItemDetails {item} {remedies} {currency} />
  </Fold>
</div>

<style>
  .line {
    border-bottom: 1px solid var(--hair);
  }
  .line :global(.fold-line) {
    display: grid;
    grid-template-columns: 11px 218px minmax(0, 1fr) auto;
    gap: 10px;
    align-items: baseline;
    padding: 4px 0;
    cursor: pointer;
  }
  .line :global(.fold-line:hover),
  .line :global([data-open] .fold-line) {
    background: var(--tint);
  }
  .marks {
    display: flex;
    gap: 8px;
  }
  .tally {
    white-space: nowrap;
    display: inline-flex;
    gap: 3px;
    align-items: baseline;
    font-family: var(--font-mono);
    font-size: 12.5px;
  }
  .words {
    overflow-wrap: anywhere;
  }
  .systems {
    font-size: 12.5px;
    white-space: nowrap;
  }
  @media (max-width: 700px) {
    .line :global(.fold-line) {
      grid-template-columns: 11px minmax(0, 1fr) auto;
    }
    .words {
      grid-area: 2 / 2 / auto / -1;
    }
    .systems {
      grid-area: 1 / 3;
    }
  }
</style>
