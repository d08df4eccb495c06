<script lang="ts">
  import { Button, Choice, Table } from '$lib/kit';
  import { page } from '$app/state';
  import { formatDay } from '$core/date';
  import { dueEntries, inFiles, sayCount, sayDay, sayDaysLeft, sayNumber, shorten } from '$core/wording';
  import DateAside from '$lib/dates/DateAside.svelte';
  import DatesDrawing from '$lib/dates/DatesDrawing.svelte';
  import { DatesState, LANES, type LaneBy } from '$lib/dates/dates-state.svelte';
  import LoadPart from '$lib/dates/LoadPart.svelte';
  import MovedPart from '$lib/dates/MovedPart.svelte';
  import Subscribe from '$lib/dates/Subscribe.svelte';
  import { setAsOf } from '$lib/state/acts';
  import { desk } from '$lib/state/desk.svelte';
  import { downloadCsv, downloadText } from '$lib/state/download';

  const state = new DatesState(() => page.url.searchParams.get('at'));
  const SHOWN = 60;
  const listed = $derived([...state.late, ...state.next]);

  /** What is past, what comes next, what has no day: bold parts and others in turn. */
  const said = $derived.by((): readonly string[] => {
    const [first] = state.next;
    const late = state.late.length;
    const undated =
      state.undated > 0
        ? ` ${sayCount(state.undated, 'system has', 'systems have')} no day anybody has told.`
        : '';
    const ahead = first
      ? [sayDay(first.day), `: ${state.say(first)}, ${sayCount(first.systems.length, 'system')}.${undated}`]
      : ['Nothing', ` is ahead.${undated}`];
    return late > 0
      ? [sayCount(late, 'day is', 'days are') + ' past', first ? '; the next is ' : '. ', ...ahead]
      : [ahead[0] ?? '', ahead[1] ?? ''];
  });

  async function takeOutCalendar(): Promise<void> {
    const { plan, today, estate, catalogue } = desk;
    if (!plan || !catalogue) return;
    const name = `${estate.site.name} - what is due`.replace(/^ - /, '');
    const entries = inFiles(() => dueEntries(plan, catalogue, estate));
    const file = await desk.files.call((w) => w.calendarFile(name, entries, today));
    downloadText('what-is-due.ics', file, 'text/calendar');
  }

  function takeOut(): void {
    downloadCsv('what-is-due.csv', () => [
      ['Day', 'What', 'Product', 'Systems', 'Which'],
      ...listed.map((m) => [
        formatDay(m.day),
        state.say(m),
        desk.namesOf(m.plan).product,
        m.systems.length,
        m.systems.map((id) => desk.naming.system(id)).join('; ')
      ])
    ]);
  }
</script>

<svelte:head><title>Dates - Orange Stair</title></svelte:head>

<div class="beside">
  <section class="main">
    <h1>What is due, by when</h1>
    <p data-total>
      {#each said as part, i (i)}{#if i % 2 === 0}<b>{part}</b>{:else}{part}{/if}{/each}
    </p>
    <p class="tools no-print">
      A line for each <Choice
        aria-label="A line for each"
        value={state.by}
        onchange={(e) => (state.by = e.currentTarget.value as LaneBy)}
        >{#each LANES as by (by)}<option value={by}>{by}</option>{/each}</Choice
      >
      <Button kind="small" onclick={takeOut}>Take out as CSV</Button>
      <Button kind="small" onclick={() => void takeOutCalendar()}>Take out as a calendar file</Button>
      <Subscribe />
    </p>
    <p class="key soft" aria-hidden="true">
      <span><i class="flag"></i> service ends; in ink what sets a deadline</span>
      <span><i class="broken"></i> a right lapses</span>
      <span><i class="ring"></i> latest start</span>
      <span><i class="way"></i> planned</span>
      {#if state.windows.length > 0}<span><i class="night"></i> windows</span>{/if}
      {#if state.freezes.length > 0}<span><i class="frozen"></i> freeze</span>{/if}
    </p>
    <div class="lanes">
      <div class="names" aria-hidden="true">
        {#each state.lanes as lane (lane.name)}<div title={lane.name}>
            <b>{shorten(lane.name, 22)}</b> <span class="soft mono">{sayNumber(lane.systems)}</span>
          </div>{/each}
      </div>
      <div class="drawing" bind:clientWidth={state.width}><DatesDrawing {state} /></div>
    </div>
    {#if desk.estate.site.asOf}<p class="soft" data-as-of>
        Everything is planned as of {sayDay(desk.today)}.
        <Button kind="link" onclick={() => void setAsOf(undefined)}>As of the day it is</Button>
      </p>{/if}
    <MovedPart />
    <LoadPart />
    <h2>In order of the days</h2>
    <Table data-due>
      <thead><tr><th>Day</th><th></th><th>What</th><th>Of</th><th class="num">Systems</th></tr></thead>
      <tbody>
        {#each listed.slice(0, SHOWN) as m (m.key)}<tr data-mark={m.key}>
            <td class="mono nowrap">{sayDay(m.day)}</td>
            <td class="nowrap" class:late={m.day < desk.today}>{sayDaysLeft(m.day - desk.today)}</td>
            <td>{state.say(m)}</td>
            <td><a href="/dates?at={encodeURIComponent(m.key)}">{desk.namesOf(m.plan).product}</a></td>
            <td class="num mono">{sayNumber(m.systems.length)}</td>
          </tr>{:else}<tr><td colspan="5" class="soft">No day is told of anything installed.</td></tr>{/each}
      </tbody>
    </Table>
    {#if listed.length > SHOWN}<p class="soft">
        {sayCount(listed.length - SHOWN, 'day')} more; the CSV has them all.
      </p>{/if}
  </section>
  <aside><DateAside {state} /></aside>
</div>

<style>
  .tools,
  .key {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 14px;
    align-items: center;
    margin-top: 6px;
  }
  .key {
    font-size: 12.5px;
  }
  .lanes {
    display: grid;
    grid-template-columns: 190px minmax(0, 1fr);
    margin: 8px 0 18px;
    border-top: 1.2px solid var(--ink);
  }
  .names {
    padding-top: 24px;
  }
  .names div {
    height: 40px;
    display: flex;
    gap: 6px;
    align-items: flex-end;
    padding-bottom: 10px;
    white-space: nowrap;
    overflow: hidden;
  }
  .drawing {
    min-width: 0;
    overflow: hidden;
  }
  .main :global(h2) {
    margin-top: 16px;
  }
  .num {
    text-align: right;
  }
  .nowrap {
    white-space: nowrap;
  }
  .late {
    font-weight: 700;
  }
  i {
    display: inline-block;
    width: 14px;
    height: 9px;
    vertical-align: -1px;
  }
  i.flag {
    border-left: 2px solid var(--ink);
    background: linear-gradient(var(--ink), var(--ink)) left top / 9px 6px no-repeat;
  }
  i.broken {
    border-bottom: 2px dashed var(--ink);
    height: 6px;
  }
  i.ring {
    width: 9px;
    border: 1.6px solid var(--ink);
    border-radius: 50%;
  }
  i.way {
    border-bottom: 2px solid var(--way);
    height: 6px;
  }
  i.night {
    background: var(--hair);
  }
  i.frozen {
    background: repeating-linear-gradient(-45deg, transparent 0 3px, var(--ink) 3px 4px);
  }
  @media (max-width: 700px) {
    .lanes {
      display: none;
    }
    .nowrap {
      white-space: normal;
    }
  }
</style>
