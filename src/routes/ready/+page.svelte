<script lang="ts">
  import { Check } from '$lib/kit';
  import { sayCount, sayLoss, sayNumber } from '$core/wording';
  import { roving } from '$lib/kit/roving';
  import Afresh from '$lib/ready/Afresh.svelte';
  import AskFirst from '$lib/ready/AskFirst.svelte';
  import BudgetPart from '$lib/ready/BudgetPart.svelte';
  import CureStair from '$lib/ready/CureStair.svelte';
  import ItemLine from '$lib/ready/ItemLine.svelte';
  import OpensMost from '$lib/ready/OpensMost.svelte';
  import { ReadyState } from '$lib/ready/ready-state.svelte';
  import RemedyList from '$lib/ready/RemedyList.svelte';

  const state = new ReadyState();
  const { ready, currency } = $derived(state);
</script>

<svelte:head><title>Ready - Orange Stair</title></svelte:head>

{#if ready}
  <div class="beside">
    <section class="main" {@attach roving}>
      <h1>What stands in the way</h1>
      <CureStair treads={state.treads} remedies={state.remedies} {currency} budget={state.budget} />
      {#if state.groups.length === 0}
        <p class="soft">
          {#if state.untold > 0}Nothing is known to stand in the way. Of {sayCount(state.untold, 'system')} it cannot
            be told: see <a href="/ready/questions">what to find out first</a>.{:else}Nothing stands in the
            way of any goal, as far as is known.{/if}
        </p>
      {/if}
      {#each state.groups as group (group.loss)}
        <h2>{sayLoss(group.loss)}</h2>
        {#each group.items as item, i (item.key)}
          <ItemLine {item} at={group.first + i} remedies={ready.remedies} {currency} />
        {/each}
      {/each}
      <p class="row no-print">
        <label><Check bind:checked={state.all} /> Also what holds or is dealt with</label>
        <a href="/estate/decisions">{sayCount(state.inForce, 'decision')} in force</a>
      </p>
    </section>
    <aside>
      <p class="verdict">
        {#if state.wanting > 0}<b>{sayNumber(state.asIs)} of {sayCount(state.wanting, 'system')}</b> on the
          way to a goal get there as things are{state.forNothing > state.asIs
            ? `, ${sayNumber(state.forNothing)} with what costs nothing`
            : ''}{state.unpriced > 0 ? `; of ${sayNumber(state.unpriced)} the cost is not known` : ''}.{/if}
        {#if state.untold > 0}<b>{sayCount(state.untold, 'system')}</b> cannot be told yet.{/if}
      </p>
      <OpensMost {state} />
      <BudgetPart {state} />
      <AskFirst {state} />
      <Afresh cases={state.afresh} />
      {#if state.free.length > 0}
        <section class="part" data-free>
          <h2>What costs nothing</h2>
          <RemedyList remedies={state.free.slice(0, 4)} say={(r) => sayCount(r.opensAlone, 'system')} />
        </section>
      {/if}
      {#if state.decisions.length > 0}
        <section class="part" data-decisions>
          <h2>What only a decision opens</h2>
          <RemedyList remedies={state.decisions.slice(0, 5)} say={(r) => sayCount(r.systems, 'system')} />
        </section>
      {/if}
      <div class="onward no-print">
        {#if state.hasErrands}<a class="act onward" href="/ready/fetch">Fetch and buy</a>{/if}
        <a class="act" href="/ready/what-if">Try it first</a>
      </div>
    </aside>
  </div>
{/if}

<style>
  .main h2 {
    margin-top: 16px;
    border-bottom: 1.2px solid var(--ink);
    padding-bottom: 3px;
  }
  .verdict {
    font-size: 14.5px;
    padding-bottom: 8px;
  }
  .row {
    display: flex;
    gap: 8px;
    align-items: center;
    margin-top: 6px;
  }
  div.onward {
    margin-top: auto;
    position: sticky;
    bottom: 0;
    background: var(--sheet);
    padding: 12px 0 16px;
    display: flex;
    gap: 10px;
    align-items: center;
  }
</style>
