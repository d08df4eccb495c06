<script lang="ts">
  import { sayCount, sayMoney, sayQuestion } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import { naming } from './naming';
  import type { ReadyState } from './ready-state.svelte';
  import RemedyList from './RemedyList.svelte';

  /** The question that is worth most, and what is needed only perhaps until somebody asks. */
  let { state: ready }: { state: ReadyState } = $props();

  const { asked, perhaps, currency } = $derived(ready);
</script>

{#if asked}
  <section class="part" data-ask-first>
    <h2>Ask first</h2>
    <p>
      <b>{sayQuestion(asked, desk.namesOfProduct(asked.product), naming)}</b>{asked.product
        ? `, ${desk.namesOfProduct(asked.product).product}`
        : ''}: {asked.settles > 0
        ? `settles ${sayCount(asked.settles, 'verdict')}`
        : `may save ${sayMoney(asked.savesCents, currency)}`}{asked.matters > asked.settles
        ? `, matters to ${asked.matters}`
        : ''}.
      <a href="/ready/questions">All questions</a>
    </p>
  </section>
{/if}
{#if perhaps.length > 0}
  <section class="part" data-perhaps>
    <h2>Only perhaps needed</h2>
    <p class="soft">Nobody has read what these are for. <a href="/ready/questions">Ask first</a>.</p>
    <RemedyList
      remedies={perhaps.slice(0, 5)}
      say={(r) => `${sayCount(r.systems, 'system')}, up to ${sayMoney(r.costCents, currency)}`}
    />
  </section>
{/if}
