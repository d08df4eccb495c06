<script lang="ts">
  import { Button } from '$lib/kit';
  import { flushSync } from 'svelte';
  import { goto } from '$app/navigation';
  import { sayCount } from '$core/wording';
  import type { CasePlan } from '$core/plan';
  import EmptyDesk from '$lib/components/EmptyDesk.svelte';
  import { EstateList } from '$lib/estate/estate-list.svelte';
  import EstateBar from '$lib/estate/EstateBar.svelte';
  import SituationRow from '$lib/estate/SituationRow.svelte';
  import { desk } from '$lib/state/desk.svelte';
  import { ordering } from '$lib/state/ordering.svelte';

  const list = new EstateList();
  // What hangs on others may have less time than alone.
  ordering.follow();
  let rows: HTMLElement | undefined = $state();

  const open = (plan: CasePlan): void => void goto(`/stair?at=${encodeURIComponent(plan.systems[0] ?? '')}`);

  const KEYS: Readonly<Record<string, number>> = { ArrowDown: 1, ArrowUp: -1, PageDown: 15, PageUp: -15 };

  function press(event: KeyboardEvent): void {
    const line = list.rows[list.selected];
    if (event.key === 'Enter' && line) open(line.plan);
    const by = KEYS[event.key];
    if (by === undefined || !rows) return;
    event.preventDefault();
    const top = list.move(by, rows.scrollTop);
    if (top !== undefined) rows.scrollTop = top;
  }
</script>

<svelte:window
  onbeforeprint={() => flushSync(() => (list.printing = true))}
  onafterprint={() => (list.printing = false)}
/>

{#if desk.isEmpty}
  <EmptyDesk />
{:else}
  <EstateBar {list} ondown={() => rows?.focus()} />
  <div class="situation heads soft" aria-hidden="true">
    <span class="num">Days left</span><span class="num">Systems</span><span>Installed</span><span
      >The way</span
    ><span>Needs first</span><span>Deadline and what sets it</span>
  </div>
  <div
    class="rows"
    role="grid"
    aria-label="Situations, most urgent first"
    aria-rowcount={list.rows.length}
    tabindex="0"
    aria-activedescendant="row-{list.selected}"
    bind:this={rows}
    bind:clientHeight={list.height}
    onscroll={(e) => (list.scrolled = e.currentTarget.scrollTop)}
    onkeydown={press}
  >
    {#if list.found.length === 0 && desk.plan}
      <p class="none">
        Nothing here matches “{list.find}”.
        <Button onclick={() => (list.find = '')}>Show all</Button>
      </p>
    {/if}
    <div class="tall" style:height="{list.total}px">
      {#each list.inSight as line (line.kind === 'band' ? line.band.name : line.plan.id)}
        {#if line.kind === 'band'}
          <div class="band" style:top="{line.top}px" role="row">
            <span role="gridcell"
              ><b>{line.band.name}</b>
              <span class="soft"
                >{sayCount(line.band.plans.length, 'situation')}, {sayCount(
                  line.band.systems,
                  'system'
                )}</span
              ></span
            >
          </div>
        {:else}
          <SituationRow {list} {line} onopen={() => ((list.selected = line.index), open(line.plan))} />
        {/if}
      {/each}
    </div>
  </div>
{/if}

<style>
  :global(.situation) {
    display: grid;
    grid-template-columns: 112px 58px minmax(180px, 280px) minmax(220px, 1.15fr) minmax(130px, 0.8fr) minmax(
        200px,
        1fr
      );
    column-gap: 14px;
    align-items: center;
  }
  .heads {
    padding: 6px 24px;
    border-bottom: 1.2px solid var(--ink);
  }
  .num {
    text-align: right;
  }
  .rows {
    flex: 1;
    overflow: auto;
    margin: 0 24px;
    min-height: 0;
  }
  .rows:focus-visible {
    outline-offset: -2px;
  }
  .tall {
    position: relative;
  }
  .band {
    position: absolute;
    left: 0;
    right: 0;
    height: 34px;
    padding: 10px 0 0 22px;
    border-bottom: 1.2px solid var(--ink);
  }
  .none {
    padding: 24px 0;
  }
  @media print {
    .rows {
      overflow: visible;
    }
  }
  /* On a narrow screen a row is a small card: when, what and how many above the way, what it needs and its day below. */
  @media (max-width: 700px) {
    :global(.situation) {
      grid-template-columns: 112px minmax(0, 1fr) 34px;
      grid-template-areas: 'left what number' 'way way way' 'needs needs needs' 'deadline deadline deadline';
      column-gap: 10px;
    }
    .heads {
      display: none;
    }
    .rows {
      margin: 0 14px;
    }
    .band {
      padding-left: 0;
    }
  }
</style>
