<script lang="ts">
  import { Button, Search, Tip } from '$lib/kit';
  import { sayCount, sayGoalBrief, sayMissingPaths, sayNumber, sayStanding } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import type { EstateList } from './estate-list.svelte';
  import FindHelp from './FindHelp.svelte';

  /** Find, what can be done with all of it, and how the estate stands in numbers. */
  let { list, ondown }: { list: EstateList; ondown: () => void } = $props();

  let outOpen = $state(false);
  const standing = $derived(sayStanding(list));
  const goal = $derived(desk.estate.goals.find((g) => g.team === undefined));
</script>

<div class="bar no-print">
  <Search
    class="find"
    data-find
    placeholder="Find: words, team = ticket, slack < 30"
    aria-label="Find"
    bind:value={list.find}
    onkeydown={(e) => e.key === 'ArrowDown' && (e.preventDefault(), ondown())}
  />
  <FindHelp />
  <a class="act" href="/import">Bring in</a>
  <Button onclick={() => (outOpen = true)}>Take out</Button>
  <Button aria-pressed={settings.oneLine} onclick={() => settings.set({ oneLine: !settings.oneLine })}
    >One line</Button
  >
  <Tip>Rows of one line; with more than 50 situations always.</Tip>
  <p class="sum">
    {sayCount(desk.estate.systems.length - list.retired, 'system')}{desk.plan
      ? ` in ${sayCount(desk.plan.situations, 'situation')}`
      : ''}.
    {#if list.retired > 0}{sayNumber(list.retired)} retired.{/if}
    {#if standing}<b>{standing}.</b>{/if}
    {#if list.cut > 0}<span data-cut>In {sayCount(list.cut, 'situation')} not every way could be tried.</span
      >{/if}
    {#if list.unplaced > 0 || goal || list.missing.length > 0}<br />{/if}
    {#if list.unplaced > 0}<a href="/catalogue/start">{sayCount(list.unplaced, 'system')} of no product yet</a
      >.{/if}
    {#if list.missing.length > 0}<span data-missing-paths
        >{sayMissingPaths(
          list.missing.map((m) => m.name),
          list.missing.reduce((n, m) => n + m.systems, 0)
        )}
        <a class="one" href="/ready/questions">Say it</a>, or
        <a href="/catalogue/table">paste the publisher’s table</a>.</span
      >{/if}
    {#if goal}<a href="/estate/teams">Goal</a>: {sayGoalBrief(goal, desk.estate.goals)}.{/if}
  </p>
</div>
{#if outOpen}{#await import('./TakeOut.svelte') then { default: TakeOut }}
    <TakeOut bind:open={outOpen} />
  {/await}{/if}

<style>
  .bar {
    display: flex;
    align-items: center;
    gap: 8px;
    padding: 10px 24px 8px;
  }
  .bar :global(.act) {
    white-space: nowrap;
  }
  .bar :global(.find) {
    width: 330px;
  }
  .sum {
    margin-left: auto;
    color: var(--soft);
    text-align: right;
  }
  .sum .one {
    white-space: nowrap;
  }
  .sum a {
    text-decoration: underline;
  }
  .sum b {
    color: var(--ink);
  }
  @media (max-width: 700px) {
    .bar {
      flex-wrap: wrap;
      padding: 10px 14px 8px;
    }
    .bar :global(.find) {
      flex-basis: 100%;
    }
    .sum {
      margin: 0;
      text-align: left;
    }
  }
</style>
