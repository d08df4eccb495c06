<script lang="ts">
  import { Area, Button, Check, Table } from '$lib/kit';
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import { sayCount } from '$core/wording';
  import type { DateRow } from '$core/catalogue';
  import type { Issue } from '$core/kit';
  import { copiedTables } from '$lib/catalogue/copied';
  import { SketchTables } from '$lib/catalogue/sketch-tables.svelte';
  import SketchPanel from '$lib/catalogue/SketchPanel.svelte';
  import TablesOfSketch from '$lib/catalogue/TablesOfSketch.svelte';
  import { words } from '$lib/state/words.svelte';
  import { draft, sayIssues } from '$lib/state/draft.svelte';
  import { sketches } from '$lib/state/sketch.svelte';
  import { sayText } from '$lib/state/sources';

  const tables = new SketchTables();
  let chosen = $state('');
  let issues = $state.raw<readonly Issue[]>([]);
  let making = $state(false);

  const sketch = $derived(sketches.list.find((s) => s.name === chosen) ?? sketches.list[0]);
  const dated = (name: string): number =>
    sketches.list.find((s) => s.name === name)?.releases.filter((r) => r.ends !== undefined).length ?? 0;
  const understood = $derived(sketches.table.rows.filter((r) => r.problem === undefined));
  const missed = $derived(
    sketches.table.rows.filter((r) => r.problem !== undefined && r.problem !== 'heading')
  );

  const PROBLEMS: Record<NonNullable<DateRow['problem']>, string> = {
    'no date': 'no date was found',
    'no such release': 'names no release of these products',
    'several releases': 'could be a release of several products: put the product’s name before it',
    'day or month first': 'say whether day or month comes first',
    heading: 'taken for a heading'
  };

  onMount(() => void draft.open().then(() => sketches.open()));

  /** A table copied from a page comes with its cells, and is read as one. */
  function paste(event: ClipboardEvent): void {
    const html = copiedTables(event);
    if (html === undefined) return;
    event.preventDefault();
    void tables.read(new TextEncoder().encode(html));
  }

  async function make(): Promise<void> {
    making = true;
    issues = await sketches.make();
    making = false;
    if (issues.length === 0 && !words.fault) await goto('/estate');
  }
</script>

<div class="page">
  <div class="main">
    <h1>Make products from what the machines run</h1>
    {#if !sketches.loaded}
      <p class="soft">Gathering what they say…</p>
    {:else if sketches.list.length === 0}
      <p class="none">
        Every machine on the desk is of a product the catalogue has, or says nothing of what it runs. There is
        nothing to make products from.
      </p>
      <p>
        <a class="act onward" href="/import">Bring in a list of machines</a>
        <a class="act" href="/catalogue">To the catalogue</a>
      </p>
    {:else}
      <section>
        <h2>Tables of their publishers</h2>
        <TablesOfSketch {tables} />
        <h2>Ends of service, pasted line by line</h2>
        <div class="dates">
          <div>
            <Area
              class="mono"
              rows={7}
              aria-label="Table of dates"
              placeholder="Release, the day it came out, the day its service ends&#10;in any usual form: 30.6.2031, June 2031, Q3 2031"
              value={sketches.dates}
              oninput={(e) => sketches.setDates(e.currentTarget.value)}
              onpaste={paste}
            ></Area>
            <p class="row">
              {#if sketches.table.needsOrder || sketches.order}
                <span>03/04/2031 is</span>
                <Button
                  aria-pressed={sketches.order === 'day first'}
                  onclick={() => sketches.setOrder('day first')}>3 April</Button
                >
                <Button
                  aria-pressed={sketches.order === 'month first'}
                  onclick={() => sketches.setOrder('month first')}>4 March</Button
                >
              {/if}
              <Button disabled={understood.length === 0} onclick={() => sketches.takeDates()}
                >Take {understood.length === 1 ? '1 line' : `${understood.length} lines`}</Button
              >
              {#if sketches.past.length > 0}<Button onclick={() => sketches.undo()}>Undo</Button>{/if}
            </p>
          </div>
          <div class="read" aria-live="polite">
            {#if sketches.dates.trim() === ''}
              <p class="soft">
                Copy the table from the publisher’s page or from a sheet. A line names its release, with the
                product’s name where several have the same; of two dates the earlier is the day it came out.
              </p>
            {:else}
              <Table>
                <tbody>
                  {#each sketches.table.rows.slice(0, 200) as row (row.line)}
                    <tr class:off={row.problem !== undefined}>
                      <td class="mono text">{row.text}</td>
                      <td
                        >{#if row.problem}{PROBLEMS[row.problem]}{:else}{sketches.list[row.product ?? 0]
                            ?.name}
                          {row.release}{row.isNew ? ', a new release' : ''}:{row.published
                            ? ` out ${sayText(row.published)},`
                            : ''} served until {sayText(row.ends ?? '')}{/if}</td
                      >
                    </tr>
                  {/each}
                </tbody>
              </Table>
              {#if missed.length > 0}<p>{sayCount(missed.length, 'line')} would be left out.</p>{/if}
            {/if}
          </div>
        </div>
      </section>
      <section>
        <nav class="tabs" aria-label="Products found">
          {#each sketches.list as s (s.name)}
            <span class="tab" class:on={s === sketch} class:out={sketches.left.has(s.name)}>
              <Button
                kind="bare"
                onclick={() => (chosen = s.name)}
                aria-current={s === sketch ? 'true' : undefined}
                ><b>{s.name}</b>
                <span class="soft"
                  >{sayCount(s.releases.length, 'release')}, {dated(s.name)} dated, {sayCount(
                    s.hops.length,
                    'hop'
                  )}</span
                ></Button
              >
              <Check
                aria-label="Make {s.name}"
                checked={!sketches.left.has(s.name)}
                onchange={(e) => sketches.leave(s.name, !e.currentTarget.checked)}
              />
            </span>
          {/each}
        </nav>
        {#if sketch}{#key sketch.name}<SketchPanel {sketch} />{/key}{/if}
      </section>
    {/if}
  </div>
  {#if sketches.list.length > 0}
    <aside>
      <h2>What will be made</h2>
      <p>
        <b>{sayCount(sketches.chosen.length, 'product')}</b>, in which {sayCount(
          sketches.machines,
          'machine'
        )} will stand. Hop tables stay partial: what you do not fill in is unknown.
      </p>
      <p class="soft">
        Nobody has said how long these hops take: an hour, three at most, until you know better.
      </p>
      <p>
        <Button
          onclick={() =>
            sketches.fill(
              sketches.chosen.map((s) => s.name),
              { reach: 1 }
            )}>All: each to the next</Button
        >
      </p>
      {#if issues.length > 0}<p role="alert"><b>Not made. {sayIssues(issues)}</b></p>{/if}
      <p>
        <Button kind="onward" disabled={making || sketches.chosen.length === 0} onclick={() => void make()}
          >Make {sketches.chosen.length === 1 ? 'it' : 'them'} and plan</Button
        >
      </p>
      {#if draft.isOpen && draft.past.length > 0}<p class="soft">
          The draft of the catalogue, {sayCount(draft.past.length, 'step')}, will be kept with it.
        </p>{/if}
    </aside>
  {/if}
</div>

<style>
  .page {
    flex: 1;
    display: grid;
    grid-template-columns: minmax(0, 1fr) 280px;
    min-height: 0;
  }
  .main {
    padding: 14px 24px 40px;
    overflow: auto;
  }
  aside {
    border-left: 1px solid var(--line);
    padding: 14px 18px;
    overflow: auto;
  }
  .none {
    margin: 12px 0;
    max-width: 640px;
  }
  aside p {
    margin: 8px 0;
  }
  h2 {
    color: var(--ink);
    font-size: 14px;
    margin-top: 10px;
  }
  .dates {
    display: grid;
    grid-template-columns: minmax(260px, 2fr) 3fr;
    gap: 18px;
    margin-top: 6px;
  }
  .row {
    display: flex;
    gap: 8px;
    align-items: center;
    flex-wrap: wrap;
    margin-top: 6px;
  }
  .read {
    max-height: 210px;
    overflow: auto;
    font-size: 13px;
  }
  .read td {
    padding: 2px 10px 2px 0;
  }
  .read .text {
    max-width: 260px;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .off td {
    color: var(--soft);
  }
  .tabs {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 18px;
    margin-top: 14px;
    border-bottom: 1.2px solid var(--ink);
  }
  .tab {
    display: flex;
    gap: 6px;
    align-items: flex-start;
    border-bottom: 4px solid transparent;
    padding-bottom: 3px;
  }
  .tab.on {
    border-bottom-color: var(--ink);
  }
  .tab :global(button) {
    font: inherit;
    text-align: left;
    background: none;
    border: 0;
    color: inherit;
    cursor: pointer;
    padding: 0;
    display: flex;
    flex-direction: column;
  }
  .tab .soft {
    font-size: 12.5px;
  }
  .tab.out :global(button) {
    text-decoration: line-through;
  }
  .tab :global(input) {
    margin-top: 4px;
  }
  @media (max-width: 700px) {
    .page {
      display: block;
      overflow: auto;
      position: relative;
    }
    .dates {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
