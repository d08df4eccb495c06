<script lang="ts">
  import { movesBetween, type OrderSum, sumOfOrder } from '$core/order';
  import { sayChange, sayCount, sayDay, sayMinutes, sayNumber, sayStepMove } from '$core/wording';
  import { Button, Table } from '$lib/kit';
  import { desk } from '$lib/state/desk.svelte';
  import { type OrderState } from './order-state.svelte';
  import { orderNames } from '$lib/state/order-names';

  /** What is tried, beside the order as it stands: what either comes to, and which steps lie on other days. */
  let { state }: { state: OrderState } = $props();

  const MOST_SHOWN = 12;
  const before = $derived(state.answer.current);
  const after = $derived(state.tried.current);
  const sums = $derived(before && after ? ([sumOfOrder(before), sumOfOrder(after)] as const) : undefined);
  const moves = $derived(before && after ? movesBetween(before, after) : []);
  const ROWS: readonly [
    name: string,
    of: (s: OrderSum) => string,
    isBetter: (a: OrderSum, b: OrderSum) => number
  ][] = [
    ['At their goals', (s) => sayNumber(s.reached), (a, b) => b.reached - a.reached],
    ['Deadlines missed', (s) => sayNumber(s.missed), (a, b) => a.missed - b.missed],
    ['Days late', (s) => sayNumber(s.late), (a, b) => a.late - b.late],
    ['Waves', (s) => sayNumber(s.waves), (a, b) => a.waves - b.waves],
    ['Nights', (s) => sayNumber(s.nights), (a, b) => a.nights - b.nights],
    ['Under work', (s) => sayMinutes(s.outage), (a, b) => a.outage - b.outage],
    [
      'Done',
      (s) => (s.done === undefined ? 'nothing moves' : sayDay(s.done)),
      (a, b) => (a.done ?? 0) - (b.done ?? 0)
    ]
  ];
</script>

<section class="trial" data-trial aria-label="Tried on a copy">
  <h2>Tried on a copy</h2>
  <ul>
    {#each state.trial as change, i (i)}<li>
        {sayChange(change, desk.naming)}
        <Button
          kind="link"
          class="no-print"
          aria-label={`Do not try: ${sayChange(change, desk.naming)}`}
          onclick={() => (state.trial = state.trial.filter((_, k) => k !== i))}>not this</Button
        >
      </li>{/each}
  </ul>
  {#if sums}
    {@const [old, now] = sums}
    <Table data-compared>
      <thead
        ><tr
          ><th></th>{#each ROWS as [name] (name)}<th>{name}</th>{/each}</tr
        ></thead
      >
      <tbody>
        <tr
          ><td>As it stands</td>{#each ROWS as [name, of] (name)}<td class="mono">{of(old)}</td>{/each}</tr
        >
        <tr
          ><td>As tried</td>{#each ROWS as [name, of, compare] (name)}
            {@const better = compare(now, old)}
            <td class="mono" class:otherwise={better !== 0}
              >{of(now)}{better < 0 ? ', better' : better > 0 ? ', worse' : ''}</td
            >{/each}</tr
        >
      </tbody>
    </Table>
    <p data-moved role="status">
      {moves.length === 0 ? 'No step lies on another day.' : `${sayCount(moves.length, 'step')} otherwise:`}
    </p>
    <ul>
      {#each moves.slice(0, MOST_SHOWN) as move, i (i)}<li>{sayStepMove(move, orderNames)}</li>{/each}
      {#if moves.length > MOST_SHOWN}<li class="soft">and {moves.length - MOST_SHOWN} more</li>{/if}
    </ul>
    <p class="acts no-print">
      <Button kind="onward" onclick={() => void state.keep()}>Keep it</Button>
      <Button onclick={() => (state.trial = [])}>Let it go</Button>
    </p>
  {:else if state.tried.isDropped}
    <p>
      Trying it was stopped.
      <Button kind="small" onclick={() => state.tried.again()}>Try again</Button>
      <Button kind="small" onclick={() => (state.trial = [])}>Let it go</Button>
    </p>
  {:else}
    <p class="soft" role="status">Laying the copy…</p>
  {/if}
</section>

<style>
  .trial {
    border-top: 1.2px solid var(--ink);
    border-bottom: 1.2px solid var(--ink);
    padding: 8px 0 10px;
    margin: 10px 0;
  }
  ul {
    padding-left: 18px;
    margin: 4px 0;
    list-style: disc;
  }
  .otherwise {
    font-weight: 700;
  }
  p {
    margin: 6px 0;
  }
  .acts {
    display: flex;
    gap: 10px;
  }
</style>
