<script lang="ts">
  import {
    sayBecause,
    sayCount,
    sayDay,
    sayLatest,
    sayMinutes,
    sayOrderedStep,
    sayPart,
    sayPilotsOf,
    sayStepDays
  } from '$core/wording';
  import { goto } from '$app/navigation';
  import Found from '$lib/components/Found.svelte';
  import { Button } from '$lib/kit';
  import { stairOf } from '$lib/ready/naming';
  import { desk } from '$lib/state/desk.svelte';
  import SheetsOf from '$lib/worksheet/SheetsOf.svelte';
  import { worksheets } from '$lib/worksheet/worksheets.svelte';
  import MoveWave from './MoveWave.svelte';
  import { keyOfWave, type OrderState } from './order-state.svelte';
  import { orderNames } from '$lib/state/order-names';

  /** One wave in sentences: who changes, when, what forces it where it stands, what it must wait for. */
  let { state: order }: { state: OrderState } = $props();

  /** One for each system that moves in the wave, on its chosen way. */
  async function makeSheets(): Promise<void> {
    const systems = new Set(wave?.steps.flatMap((s) => open?.order.parts[s.part]?.systems ?? []));
    await worksheets.make(
      ...(desk.plan?.cases ?? []).map((plan) => [plan, plan.systems.filter((s) => systems.has(s))] as const)
    );
    await goto('/worksheet');
  }

  const plans = $derived(
    new Map((desk.plan?.cases ?? []).flatMap((c) => c.systems.map((s) => [s, c] as const)))
  );
  const open = $derived(order.open);
  const wave = $derived(open && open.order.waves[open.index]);
  const why = $derived(
    open && wave ? [...new Set(wave.steps.flatMap((s) => sayBecause(s, open.order, orderNames)))] : []
  );
  const moving = $derived(wave?.steps.flatMap((s) => open?.order.parts[s.part]?.systems ?? []) ?? []);
  const pilots = $derived(open ? sayPilotsOf(open.order, open.index, orderNames) : []);
  const bound = $derived(
    open && wave
      ? wave.bound.map((set) =>
          set.flatMap((p) => open.order.parts[p] ?? []).map((p) => sayPart(p, orderNames))
        )
      : []
  );
</script>

{#if open && wave}
  <section data-open-wave={open.index + 1}>
    <h1>Wave {open.index + 1} of {open.order.waves.length}</h1>
    <p>{wave.first === wave.last ? sayDay(wave.first) : `${sayDay(wave.first)} to ${sayDay(wave.last)}`}</p>
    <ul>
      {#each wave.steps as step (step.part)}
        {@const part = open.order.parts[step.part]}
        {@const plan = plans.get(part?.systems[0] ?? '')}
        <li>
          <a href={stairOf(part?.systems ?? [])}>{sayOrderedStep(step, open.order, orderNames)}</a>
          <div class="soft">
            {orderNames.product(part?.product ?? '').product}; {sayStepDays(step, desk.today)}; {sayMinutes(
              step.carefulMinutes
            )} careful{step.isChosen ? '' : '; not on its own chosen way'}
          </div>
          {#if plan}<div class="soft"><Found said={desk.found(plan)} of={plan.systems[0]} /></div>{/if}
        </li>
      {/each}
    </ul>
    {#each bound as names, i (i)}<p>
        <b>At the same minute</b>: {names.join(' and ')}. Nothing else works: changed one by one they would
        not fit together midway.
      </p>{/each}
    {#each pilots as sentence (sentence)}<p data-pilots>{sentence}</p>{/each}
    {#if open.index > 0}
      <h2>What must have gone well before</h2>
      <p>
        <a href="/order?at={encodeURIComponent(keyOfWave(open.order, open.index - 1))}">Wave {open.index}</a>.
        If it did not, this one waits until somebody decides.
      </p>
    {/if}
    {#if why.length > 0}
      <h2>Forced by</h2>
      {#each why as sentence (sentence)}<p>{sentence}</p>{/each}
    {/if}
    <h2>Moving this wave</h2>
    {#if sayLatest(wave, open.order, orderNames)}<p data-latest>
        {sayLatest(wave, open.order, orderNames)}
      </p>{/if}
    {#if order.tried.current || order.trial.length === 0}<MoveWave state={order} at={open} />{/if}
    {#if order.trial.length === 0}<p class="no-print">
        <Button onclick={() => void makeSheets()}>Make the worksheets of this wave</Button>
      </p>{/if}
    <SheetsOf systems={moving} />
    {#if open.order.crowded}<p class="late">
        There is room for this order alone, and not beside the others: crews are taken twice.
      </p>{/if}
    {#if !open.order.proven}<p class="soft">
        The best order found; a better one may exist, though none has fewer than {sayCount(
          open.order.leastWaves,
          'wave'
        )}.
      </p>{/if}
    {#if !open.order.isSingle}<p class="soft">
        {sayCount(open.order.parts.length, 'part hangs', 'parts hang')} on each other here.
      </p>{/if}
  </section>
{:else}
  <p class="soft">A wave that is picked is explained here.</p>
{/if}

<style>
  ul {
    list-style: none;
    padding: 0;
    margin: 8px 0;
  }
  li {
    padding: 5px 0;
    border-bottom: 1px solid var(--hair);
    overflow-wrap: anywhere;
  }
  p {
    margin: 5px 0;
  }
  h2 {
    margin-top: 14px;
  }
  .late {
    font-weight: 700;
  }
</style>
