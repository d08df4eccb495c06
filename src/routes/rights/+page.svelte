<script lang="ts">
  import { page } from '$app/state';
  import { sayCount, sayMoney } from '$core/wording';
  import { roving } from '$lib/kit/roving';
  import FreeAndAsk from '$lib/rights/FreeAndAsk.svelte';
  import RightAside from '$lib/rights/RightAside.svelte';
  import { RightsState } from '$lib/rights/rights-state.svelte';
  import UnitTread from '$lib/rights/UnitTread.svelte';

  const state = new RightsState(() => page.url.searchParams.get('at'));
</script>

<svelte:head><title>Rights - Orange Stair</title></svelte:head>

<div class="beside">
  <section class="main">
    <h1>What may be done, and what it takes</h1>
    <p data-total>
      {#if state.buying.length === 0}
        <b>Nothing has to be bought</b> for the ways chosen.
      {:else}
        <b>{sayMoney(state.cents, state.currency)}</b> for the ways chosen{state.unpriced > 0
          ? `, and ${sayCount(state.unpriced, 'sum')} nobody has published`
          : ''}{state.late > 0 ? `; ${sayCount(state.late, 'right is', 'rights are')} late` : ''}.
      {/if}
    </p>
    <p class="key soft" aria-hidden="true">
      <svg width="0" height="0"
        ><defs
          ><pattern id="spare-units" width="6" height="6" patternUnits="userSpaceOnUse"
            ><path class="stripe" d="M0 6L6 0" /></pattern
          ></defs
        ></svg
      >
      <span><i class="drawn"></i> held and drawn on</span>
      <span><i class="spare"></i> spare</span>
      <span><i class="buy"></i> to buy</span>
      <span><i class="way"></i> the ways that take it</span>
    </p>
    <div class="treads" {@attach roving}>
      {#each state.treads as tread (tread.group)}<UnitTread {state} {tread} />{:else}<p class="soft">
          The ways chosen take no rights that are counted or bought, and none are held.
        </p>{/each}
    </div>
    <FreeAndAsk {state} />
  </section>
  <aside>
    {#if state.open}<RightAside {state} tread={state.open} />{:else}<p class="soft">
        Where a way takes a right that is bought or counted in units, it stands here with who draws on it.
      </p>{/if}
    <div class="onward no-print">
      {#if state.buying.length > 0}<a class="act onward" href="/rights/buy">What to order</a>{/if}
      <a class="act" href="/estate/systems?sheet=rights">What is held</a>
    </div>
  </aside>
</div>

<style>
  .treads {
    border-top: 1.2px solid var(--ink);
    margin-top: 6px;
  }
  .key {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 18px;
    font-size: 12.5px;
    margin-top: 6px;
  }
  .key svg {
    position: absolute;
  }
  .stripe {
    stroke: var(--body);
    stroke-width: 1;
  }
  i {
    display: inline-block;
    width: 22px;
    height: 9px;
    vertical-align: -1px;
    border: 1px solid var(--ink);
  }
  i.drawn {
    background: var(--ink);
  }
  i.spare {
    border-color: var(--body);
    background: repeating-linear-gradient(-45deg, transparent 0 3px, var(--body) 3px 4px);
  }
  i.buy {
    border: 1.5px solid var(--way);
    background: var(--tint);
  }
  i.way {
    border: 0;
    height: 2px;
    background: var(--way);
    vertical-align: 3px;
  }
  div.onward {
    margin-top: auto;
    display: flex;
    gap: 10px;
    align-items: center;
    position: sticky;
    bottom: 0;
    background: var(--sheet);
    padding: 12px 0;
  }
</style>
