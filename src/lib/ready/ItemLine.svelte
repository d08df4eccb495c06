<script lang="ts">
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

<details class="item" data-item={item.key}>
  <summary data-at={at}>
    <span class="marks">
      {#if fails > 0}<span class="tally"><MarkSign mark="fails" />{fails}</span>{/if}
      {#if unknown > 0}<span class="tally"><MarkSign mark="unknown" />{unknown}</span>{/if}
      {#if fails + unknown === 0}<span class="tally"
          ><MarkSign mark={dealt?.mark ?? 'holds'} dealt={dealt?.dealt} /></span
        >{/if}
    </span>
    <span class="words"
      >{sayItem(item, naming)}
      <span class="soft">{desk.namesOfProduct(item.product).product}</span></span
    >
    <span class="systems mono">{item.open > 0 ? sayCount(item.open, 'system') : 'dealt with'}</span>
  </summary>
  <ItemDetails {item} {remedies} {currency} />
</details>

<style>
  .item {
    border-bottom: 1px solid var(--hair);
  }
  summary {
    display: grid;
    grid-template-columns: 96px minmax(0, 1fr) auto;
    gap: 10px;
    align-items: baseline;
    padding: 4px 0;
    cursor: pointer;
    list-style: none;
  }
  summary:hover,
  .item[open] > summary {
    background: var(--tint);
  }
  .marks {
    display: flex;
    gap: 8px;
  }
  .tally {
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
</style>
