<script lang="ts">
  import { parseDay } from '$core/date';
  import { nightMarkdown, sayCount, sayDay, sayNightRun } from '$core/wording';
  import { nightOf, nightOfEntry } from '$core/worksheet';
  import { Button, Choice } from '$lib/kit';
  import { downloadText } from '$lib/state/download';
  import { orderNames } from '$lib/state/order-names';
  import { worksheets } from './worksheets.svelte';

  /** What was done in a night, for whoever leads and for those who come in the morning. */
  const offset = -new Date().getTimezoneOffset();
  const nights = $derived(
    [...new Set(worksheets.all.flatMap((s) => s.entries.map((e) => nightOfEntry(e.at, offset))))]
      .sort()
      .reverse()
  );
  let picked = $state('');
  const night = $derived(nights.includes(picked) ? picked : (nights[0] ?? ''));
  const runs = $derived(night === '' ? [] : nightOf(worksheets.byName, night, offset));
  const dayOf = (iso: string): string => sayDay(parseDay(iso) ?? 0);
</script>

{#if nights.length > 0}
  <section data-night={night}>
    <h2>The night of {dayOf(night)}</h2>
    <p class="tools no-print">
      {#if nights.length > 1}<Choice
          aria-label="Which night"
          value={night}
          onchange={(e) => (picked = e.currentTarget.value)}
          >{#each nights as n (n)}<option value={n}>{dayOf(n)}</option>{/each}</Choice
        >{/if}
      <Button
        kind="small"
        onclick={() =>
          downloadText(`night-${night}.md`, nightMarkdown(night, runs, orderNames), 'text/markdown')}
        >Take out the report</Button
      >
      <span class="soft">{sayCount(runs.length, 'worksheet')}</span>
    </p>
    {#each runs as run (run.sheet.id)}
      <p class="of">
        <a href="/worksheet?at={encodeURIComponent(run.sheet.id)}">{orderNames.system(run.sheet.system)}</a>
        {#if run.began && run.ended}<span class="soft mono"
            >{run.began.slice(11, 16)} to {run.ended.slice(11, 16)} UTC</span
          >{/if}
      </p>
      <ul>
        {#each sayNightRun(run, orderNames) as text, i (i)}<li>{text}</li>{/each}
      </ul>
    {/each}
  </section>
{/if}

<style>
  .tools {
    display: flex;
    gap: 6px 12px;
    align-items: center;
    flex-wrap: wrap;
  }
  .of {
    margin: 6px 0 0;
  }
  ul {
    margin: 2px 0 6px 18px;
    list-style: none;
    padding: 0;
  }
  li {
    overflow-wrap: anywhere;
  }
</style>
