<script lang="ts">
  import { sayCount, sayMoney, sayRemedy } from '$core/wording';
  import { naming } from './naming';
  import { productOf, type ReadyState } from './ready-state.svelte';
  import RemedyList from './RemedyList.svelte';

  /** The purchase that opens most by itself, and those after it. */
  let { state: ready }: { state: ReadyState } = $props();

  const [first, ...others] = $derived(ready.opening.slice(0, 4));
</script>

{#if first}
  <section class="part" data-opens-most>
    <h2>What opens most</h2>
    <p>
      <b>{sayRemedy(first, naming)}</b>{productOf(first)}: {sayCount(first.opensAlone, 'system')} for {sayMoney(
        first.costCents,
        ready.currency
      )}{first.leadDays > 0 ? `, ordered ${first.leadDays} days ahead` : ''}.
      {first.systems > first.opensAlone ? `${first.systems} need it in all.` : ''}
    </p>
    <RemedyList
      remedies={others}
      say={(r) => `${sayCount(r.opensAlone, 'system')}, ${sayMoney(r.costCents, ready.currency)}`}
    />
  </section>
{/if}
