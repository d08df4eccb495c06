<script lang="ts">
  import { findPlaces } from '$core/estate';
  import type { CasePlan } from '$core/plan';
  import { sayCount, sayDay } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import { stairOf } from '$lib/ready/naming';
  import type { RightsState } from './rights-state.svelte';

  /** What is free for now and until when; what nobody knows before the publisher is asked. */
  let { state: rights }: { state: RightsState } = $props();

  const rightOf = (product: string | undefined, id: string) =>
    desk.products.get(product ?? '')?.rights?.find((r) => r.id === id);
  const askOf = (product: string | undefined, id: string | undefined): string =>
    (id === undefined ? undefined : rightOf(product, id)?.ask) ??
    desk.products.get(product ?? '')?.publisher ??
    '';
  /** Where what is held is read on that version, and where else. */
  function placesOf(plan: CasePlan): string {
    const product = desk.products.get(plan.product ?? '');
    const system = desk.systems.get(plan.systems[0] ?? '');
    const { places } = system ? findPlaces(product, system, 'rights') : { places: [] };
    return places
      .map((p) => `${p.where.replace(/\.$/, '')}${p.fallback ? `; else ${p.fallback}` : ''}`)
      .join('; ');
  }
</script>

{#if rights.freeUntil.length > 0}
  <section data-free>
    <h2>Costs nothing, until</h2>
    <ul>
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
    <ul>
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
{#if rights.toAsk.length > 0}
  <section data-ask>
    <h2>To be asked</h2>
    <ul>
      {#each rights.toAsk as a, i (i)}
        <li>
          <b>Ask {askOf(a.plan.product, a.right)}</b> what the way of
          <a href={stairOf(a.plan.systems)}>{desk.describe(a.plan)}</a> takes: {sayCount(
            a.plan.systems.length,
            'system'
          )}.
          {#if placesOf(a.plan)}<span class="soft">What it holds is read: {placesOf(a.plan)}.</span>{/if}
        </li>
      {/each}
    </ul>
  </section>
{/if}

<style>
  section {
    margin-top: 18px;
  }
  ul {
    list-style: none;
    padding: 0;
    margin: 4px 0;
  }
  li {
    padding: 3px 0;
    border-bottom: 1px solid var(--hair);
  }
</style>
