<script lang="ts">
  import { Chart, Fold, Text } from '$lib/kit';
  import { sayCount, sayMoney, sayNumber } from '$core/wording';
  import type { ReadyState } from './ready-state.svelte';
  import RemedyList from './RemedyList.svelte';

  /** What a budget opens most with. */
  let { state: ready }: { state: ReadyState } = $props();
</script>

<section class="part" data-budget>
  <h2><label for="budget">Within a budget</label></h2>
  <p class="row">
    <Text id="budget" class="mono" inputmode="decimal" placeholder="2500" bind:value={ready.budgetText} />
    {ready.currency}
  </p>
  {#if ready.budgetText.trim() !== '' && ready.budget === undefined}
    <p role="alert">That is no amount of money.</p>
  {:else if ready.choice}
    <p>
      <b>{sayCount(ready.choice.opened, 'system')}</b> for {sayMoney(
        ready.choice.spentCents,
        ready.currency
      )}.
      {ready.choice.exact
        ? 'Nothing else within it opens more.'
        : `The best that was found; nothing opens more than ${sayNumber(ready.choice.upperBound)}.`}
    </p>
    <RemedyList remedies={ready.bought} say={(r) => sayMoney(r.costCents, ready.currency)} />
  {/if}
  {#if ready.curve.length > 1}
    <Fold data-curve>
      {#snippet head()}What each sum opens{/snippet}
      <Chart
        label="Systems opened by what is spent"
        x={{ name: 'spent', say: (cents) => sayMoney(cents, ready.currency).replace(/\.00$/, '') }}
        y={{ name: 'systems', mark: sayNumber, say: (systems) => sayCount(systems, 'system') }}
        series={[{ name: 'opened', kind: 'step', points: ready.curve }]}
      />
    </Fold>
  {/if}
</section>

<style>
  .row {
    display: flex;
    gap: 8px;
    align-items: center;
    margin-top: 6px;
  }
  :global(#budget) {
    width: 120px;
  }
</style>
