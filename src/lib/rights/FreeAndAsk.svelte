<script lang="ts">
  import { sayClock, sayCount, sayDay } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import { stairOf } from '$lib/ready/naming';
  import ToAsk from './ToAsk.svelte';
  import type { RightsState } from './rights-state.svelte';

  /** What is free for now and until when; what nobody knows before the publisher is asked. */
  let { state: rights }: { state: RightsState } = $props();
</script>

{#if rights.freeUntil.length > 0}
  <section data-free>
    <h2>Costs nothing, until</h2>
    <ul class="ruled">
      {#each rights.freeUntil as f, i (i)}
        <li>
          <b class="mono">{sayDay(f.until)}</b>
          {sayCount(f.plan.systems.length, 'system')}:
          <a href={stairOf(f.plan.systems)}>{desk.describe(f.plan)}</a>
          <span class="soft">{desk.namesOfProduct(f.plan.product ?? '').right(f.right)}</span>
        </li>
      {/each}
    </ul>
  </section>
{/if}
{#if rights.agreements.length > 0}
  <section data-agreements>
    <h2>Held by agreement</h2>
    <ul class="ruled">
      {#each rights.agreements as pool, i (i)}
        <li>
          <b>{desk.namesOfProduct(pool.product ?? '').right(pool.right)}</b>
          <span class="soft">{desk.namesOfProduct(pool.product ?? '').product}</span>
          {pool.until === undefined
            ? ''
            : `${pool.lapsed ? 'lapsed on' : 'until'} ${sayDay(pool.until)}, `}{rights.madeUnder(
            pool.right
          ) === 0
            ? 'no way that is chosen is made under it'
            : `for the ways of ${sayCount(rights.madeUnder(pool.right), 'system')}`}
        </li>
      {/each}
    </ul>
  </section>
{/if}
{#if rights.clocks.length > 0}
  <section data-clocks>
    <h2>Clocks that start with a hop</h2>
    <ul class="ruled">
      {#each rights.clocks as clock, i (i)}
        <li>
          <b>{desk.namesOfProduct(clock.plan.product ?? '').right(clock.right)}</b>
          {sayClock(clock)}: {sayCount(clock.plan.systems.length, 'system')},
          <a href={stairOf(clock.plan.systems)}>{desk.describe(clock.plan)}</a>
        </li>
      {/each}
    </ul>
  </section>
{/if}
<ToAsk questions={rights.toAsk} />

<style>
  section {
    margin-top: 18px;
  }
</style>
