<script lang="ts">
  import { onDestroy, onMount } from 'svelte';
  import { tinykeys } from 'tinykeys';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { formatDay, parseDay } from '$core/date';
  import type { WorkItem, Worksheet } from '$core/estate';
  import { sayCount, sayDay, sayDrift, sayJob, sayTask, worksheetMarkdown } from '$core/wording';
  import { driftOf, progressOf, standingOf } from '$core/worksheet';
  import Found from '$lib/components/Found.svelte';
  import EmptyDesk from '$lib/components/EmptyDesk.svelte';
  import { Button, Keys, Table } from '$lib/kit';
  import { single } from '$lib/kit/keys';
  import { desk } from '$lib/state/desk.svelte';
  import { downloadText } from '$lib/state/download';
  import { orderNames } from '$lib/state/order-names';
  import BeforeAfter from '$lib/worksheet/BeforeAfter.svelte';
  import { clockOf } from '$lib/worksheet/clock';
  import Climb from '$lib/worksheet/Climb.svelte';
  import FailedStep from '$lib/worksheet/FailedStep.svelte';
  import ItemAside from '$lib/worksheet/ItemAside.svelte';
  import { letIn } from '$lib/machines/let-in.svelte';
  import NightReport from '$lib/worksheet/NightReport.svelte';
  import Seen from '$lib/worksheet/Seen.svelte';
  import SideBySide from '$lib/worksheet/SideBySide.svelte';
  import { gatesNow } from '$lib/worksheet/standing';
  import WorkLadder from '$lib/worksheet/WorkLadder.svelte';
  import { worksheets } from '$lib/worksheet/worksheets.svelte';

  let picked = $state<{ sheet: string; item: string }>();
  let now = $state(Date.now());

  const sheet = $derived(worksheets.find(page.url.searchParams.get('at')));
  const standing = $derived(sheet && standingOf(sheet));
  const alike = $derived(sheet ? worksheets.alike(sheet) : []);
  /** Of one situation, a column a system. */
  const isTogether = $derived(page.url.searchParams.has('together') && alike.length > 1);
  const current = $derived(
    sheet &&
      ((picked?.sheet === sheet.id && sheet.items.find((i) => i.id === picked?.item)) || standing?.next)
  );
  const gates = $derived(sheet && current ? gatesNow(sheet, current) : []);
  const plans = $derived(
    new Map((desk.plan?.cases ?? []).flatMap((c) => c.systems.map((s) => [s, c] as const)))
  );
  const planOf = (s: Worksheet) => plans.get(s.system);
  const own = $derived(sheet && planOf(sheet));
  const drift = $derived(sheet ? driftOf(sheet, desk.systems.get(sheet.system), own) : []);
  const failed = $derived(standing?.failed.filter((i) => i.kind === 'hop') ?? []);
  const today = $derived(formatDay(desk.today));

  const groups = $derived.by(() => {
    const rows = worksheets.byName.map((s) => ({ sheet: s, standing: standingOf(s) }));
    const isOver = (r: (typeof rows)[number]): boolean => r.standing.next === undefined;
    const isBegun = ({ sheet: s }: (typeof rows)[number]): boolean => s.entries.length > 0;
    const open = rows.filter((r) => !isOver(r));
    return [
      { name: 'Tonight', rows: open.filter((r) => r.sheet.night === today) },
      { name: 'Begun', rows: open.filter((r) => r.sheet.night !== today && isBegun(r)) },
      { name: 'To come', rows: open.filter((r) => r.sheet.night !== today && !isBegun(r)) },
      { name: 'Done', rows: rows.filter(isOver) }
    ].filter((g) => g.rows.length > 0);
  });

  // What lets anybody in to machines is forgotten with the place.
  onDestroy(() => letIn.forget());
  onMount(() => {
    const clock = setInterval(() => (now = Date.now()), 5_000);
    const step = (by: number): void => {
      const at = sheet && current ? sheet.items.indexOf(current) + by : -1;
      const item = sheet?.items[at];
      if (sheet && item) pick(sheet, item);
    };
    const press = (name: RegExp): void => {
      const buttons = [...document.querySelectorAll<HTMLButtonElement>('[data-open-item] .acts button')];
      buttons.find((b) => name.test(b.textContent ?? '') && !b.disabled)?.click();
    };
    const release = tinykeys(window, {
      j: single(() => step(1)),
      k: single(() => step(-1)),
      s: single(() => press(/^\s*Start/)),
      p: single(() => press(/^\s*Passed/)),
      f: single(() => press(/^\s*Failed/))
    });
    return () => {
      clearInterval(clock);
      release();
    };
  });

  function pick(of: Worksheet, item: WorkItem): void {
    picked = { sheet: of.id, item: item.id };
  }

  const dayOf = (iso: string): string => sayDay(parseDay(iso) ?? 0);
  const way = (s: Worksheet): string => sayJob(s, orderNames);
</script>

<svelte:head><title>Worksheet - Orange Stair</title></svelte:head>

{#if desk.isEmpty}
  <EmptyDesk />
{:else if sheet && standing}
  <div class="beside" data-worksheet={sheet.id}>
    <section class="main">
      <p class="no-print"><a href="/worksheet">All worksheets</a></p>
      <h1>{orderNames.system(sheet.system)}: {way(sheet)}</h1>
      <p data-standing>
        <b>{standing.done}</b> of {standing.of} done{sheet.night
          ? `; planned for ${dayOf(sheet.night)}`
          : ''}; made {dayOf(sheet.made)}{sheet.who ? ` by ${sheet.who}` : ''}.
      </p>
      {#if own}<p class="soft">
          As planned today: <Found said={desk.found(own)} of={own.systems[0]} />.
        </p>{/if}
      <Climb {sheet} />
      {#if drift.length > 0}<p class="drift" role="status" data-drift>
          Check again before going on: {drift.map(sayDrift).join('; ')}.
        </p>{/if}
      {#each failed as item (item.id)}<FailedStep {sheet} {item} plan={planOf(sheet)} />{/each}
      <p class="tools no-print">
        <Button
          kind="small"
          onclick={() =>
            downloadText(
              `worksheet-${orderNames.system(sheet.system)}.md`,
              worksheetMarkdown(sheet, orderNames),
              'text/markdown'
            )}>Take out as Markdown</Button
        >
        <Button kind="small" onclick={() => window.print()}>Print</Button>
        {#if alike.length > 1}<a
            href="/worksheet?at={encodeURIComponent(sheet.id)}{isTogether ? '' : '&together'}"
            >{isTogether ? 'This one alone' : `Beside the ${sayCount(alike.length - 1, 'other')} alike`}</a
          >{/if}
        <Button kind="small" onclick={() => void worksheets.drop(sheet).then(() => goto('/worksheet'))}
          >Let it go</Button
        >
        <span class="soft"
          ><Keys keys="j" />
          <Keys keys="k" /> next, last; <Keys keys="s" /> start; <Keys keys="p" /> passed; <Keys keys="f" /> failed</span
        >
      </p>
      {#if isTogether}<SideBySide
          sheets={alike}
          current={current && { sheet, item: current }}
          onpick={(of, item) => {
            pick(of, item);
            if (of.id !== sheet.id)
              void goto(`/worksheet?at=${encodeURIComponent(of.id)}&together`, {
                replaceState: true,
                noScroll: true,
                keepFocus: true
              });
          }}
        />{:else}<WorkLadder {sheet} {current} onpick={(item) => pick(sheet, item)} />{/if}
      {#if standing.steps > 0}<BeforeAfter {sheet} />{/if}
    </section>
    <aside class="no-print">
      {#if current}{#key current.id}<ItemAside
            {sheet}
            item={current}
            {gates}
            {now}
            onentered={() => (picked = undefined)}
          />{/key}{:else}<h1>All of it is done</h1>
        <p>
          What was done stands in the <a href="/estate/system?at={encodeURIComponent(sheet.system)}"
            >history of {orderNames.system(sheet.system)}</a
          >.
        </p>
        <a class="act onward" href="/worksheet">On to the next worksheet</a>{/if}
    </aside>
  </div>
{:else}
  <section class="page">
    <h1>
      {worksheets.all.length === 0 ? 'No worksheets yet' : sayCount(worksheets.all.length, 'worksheet')}
    </h1>
    {#if page.url.searchParams.get('at')}<p role="status">That worksheet is gone.</p>{/if}
    {#if worksheets.all.length === 0}
      <svg viewBox="0 0 520 120" width="520" height="120" aria-hidden="true">
        <path class="done" d="M20 100H140V76H220" />
        <path class="way" d="M220 76V52H330V28H480" />
        <rect x="214" y="58" width="12" height="12" />
      </svg>
      <p>
        A worksheet is the list one system’s work is done from: what to fetch and to prepare, the hops with
        what is normal and what is not, gates before each, what to look at behind it. Made from a system’s way
        on its
        <a href="/stair">stair</a>, it records what happened, and the plan follows.
      </p>
    {/if}
    {#each groups as { name, rows } (name)}
      <h2>{name}</h2>
      <Table data-worksheets={name}>
        <thead><tr><th>System</th><th>Way</th><th>Night</th><th>Done</th><th>Next</th></tr></thead>
        <tbody>
          {#each rows as { sheet: s, standing: at } (s.id)}
            {@const amiss = driftOf(s, desk.systems.get(s.system), planOf(s))}
            {@const state = at.next && progressOf(s).get(at.next.id)?.state}
            <tr>
              <td><a href="/worksheet?at={encodeURIComponent(s.id)}">{orderNames.system(s.system)}</a></td>
              <td>{way(s)}</td>
              <td class="mono">{s.night ? dayOf(s.night) : ''}</td>
              <td class="mono">{at.done} of {at.of}</td>
              <td
                >{#if at.failed[0]}<b>Failed: {sayTask(at.failed[0], s, orderNames)}</b
                  >{:else if at.next}{state === 'running' ? 'running: ' : ''}{sayTask(
                    at.next,
                    s,
                    orderNames
                  )}{#if at.next.turnBy !== undefined}<span class="soft"
                      >; turn round by {clockOf(at.next.turnBy, at.next.zone)}</span
                    >{/if}{/if}{#if amiss.length > 0}
                  <span class="soft">check again: {amiss.map(sayDrift).join('; ')}</span>{/if}</td
              >
            </tr>{/each}
        </tbody>
      </Table>
    {/each}
    <NightReport />
    <Seen />
  </section>
{/if}

<style>
  .page {
    padding: 16px 24px 30px;
    overflow: auto;
    flex: 1;
  }
  .page :global(h2) {
    margin-top: 16px;
  }
  .tools {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 12px;
    align-items: center;
    margin: 8px 0;
  }
  .drift {
    border-top: 4px solid var(--ink);
    padding-top: 4px;
    font-weight: 650;
  }
  @media (max-width: 700px) {
    /* The way stands on the worksheet itself. */
    .page :global([data-worksheets] :is(th, td):nth-child(2)) {
      display: none;
    }
    /* The step one stands at comes first. */
    .beside {
      display: flex;
      flex-direction: column;
      overflow: auto;
    }
    .beside > .main,
    .beside > aside {
      flex: none;
      overflow: visible;
    }
    aside {
      order: -1;
    }
  }
  p {
    margin: 5px 0;
  }
  svg path,
  svg rect {
    fill: none;
    stroke-width: 2.6;
  }
  .done {
    stroke: var(--ink);
  }
  .way {
    stroke: var(--way);
  }
  rect {
    stroke: var(--ink);
    fill: var(--paper);
  }
</style>
