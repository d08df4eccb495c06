<script lang="ts">
  import { Button } from '$lib/kit';
  import { CalendarIndex, findOverlaps } from '$core/bind';
  import { parseDay } from '$core/date';
  import type { WorkCalendar } from '$core/estate';
  import { sayCalendar, sayCount, sayDay, sayWindow } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import { saveCalendars } from '$lib/state/acts';
  import { nextStarts } from './calendar-edit';
  import BringCalendar from './BringCalendar.svelte';
  import FreezeForm from './FreezeForm.svelte';
  import WindowForm from './WindowForm.svelte';

  /** One calendar as sentences: its windows with their next nights, its freezes, and what can be added. */
  let { calendar }: { calendar: WorkCalendar } = $props();

  let adding = $state<'' | 'window' | 'freeze' | 'file'>('');
  const all = $derived(desk.estate.calendars ?? []);
  const name = $derived(sayCalendar(calendar));
  const starts = $derived(nextStarts(calendar, all, desk.today, 10));
  const overlaps = $derived(findOverlaps(calendar, desk.today));
  const nameOf = (id: string): string => {
    const window = calendar.windows.find((w) => w.id === id);
    return window ? (window.name ?? sayWindow(window)) : id;
  };
  const bound = $derived.by(() => {
    const index = new CalendarIndex(desk.estate);
    return desk.estate.systems.filter((s) => index.ownerOf(s)?.id === calendar.id).length;
  });

  function keep(label: string, next: WorkCalendar | undefined): void {
    adding = '';
    void saveCalendars(
      label,
      next === undefined
        ? all.filter((c) => c.id !== calendar.id)
        : all.map((c) => (c.id === calendar.id ? next : c))
    );
  }
  const day = (text: string): string => sayDay(parseDay(text) ?? 0);
</script>

<section data-calendar={calendar.team ?? calendar.site ?? ''}>
  <h1>
    {name} <span class="soft small">{sayCount(bound, 'system')}; {calendar.zone}</span>
  </h1>
  {#if calendar.windows.length === 0}<p>Any day outside its freezes, at any hour.</p>{/if}
  <ul>
    {#each calendar.windows as window (window.id)}
      <li data-window>
        {window.name ? `${window.name}: ` : ''}{sayWindow(window)}{window.products
          ? `, for ${window.products.map((p) => desk.namesOfProduct(p).product).join(', ')} only`
          : ''}{window.teams ? `, for ${window.teams.join(', ')} only` : ''}.
        <Button
          kind="small"
          aria-label="Take away: {sayWindow(window)}"
          onclick={() =>
            keep(`Took a window away from ${name}`, {
              ...calendar,
              windows: calendar.windows.filter((w) => w.id !== window.id)
            })}>Take it away</Button
        >
      </li>
    {/each}
    {#each calendar.freezes ?? [] as freeze, i (i)}
      <li data-freeze>
        Nothing is touched from {day(freeze.first)} to {day(freeze.last)}{freeze.reason
          ? `: ${freeze.reason}`
          : ''}.
        <Button
          kind="small"
          aria-label="Take away the freeze of {day(freeze.first)}"
          onclick={() =>
            keep(`Took a freeze away from ${name}`, {
              ...calendar,
              freezes: (calendar.freezes ?? []).filter((f) => f !== freeze)
            })}>Take it away</Button
        >
      </li>
    {/each}
  </ul>
  {#each overlaps as o (o.windows.join(' '))}<p data-overlap>
      <b>Two windows are open at once</b> from {sayDay(o.day)} on: {o.windows
        .map((id) => nameOf(id))
        .join('; and ')}. A system can only be in one of them.
    </p>{/each}
  {#if starts.length > 0}<p class="soft" data-next>
      Next: {starts.join(', ')}.
    </p>{:else if calendar.windows.length > 0}<p>
      <b>No window opens in the next two years.</b>
    </p>{/if}
  {#if adding === 'window'}
    <WindowForm
      {calendar}
      onkeep={(w) => keep(`A window for ${name}`, { ...calendar, windows: [...calendar.windows, w] })}
      onleave={() => (adding = '')}
    />
  {:else if adding === 'freeze'}
    <FreezeForm
      onkeep={(f) => keep(`A freeze for ${name}`, { ...calendar, freezes: [...(calendar.freezes ?? []), f] })}
      onleave={() => (adding = '')}
    />
  {:else if adding === 'file'}
    <BringCalendar
      {calendar}
      onkeep={(next) => keep(`A calendar file for ${name}`, next)}
      onleave={() => (adding = '')}
    />
  {:else}
    <p class="acts no-print">
      <Button kind="small" onclick={() => (adding = 'window')}>Add a window…</Button>
      <Button kind="small" onclick={() => (adding = 'freeze')}>Add a freeze…</Button>
      <Button kind="small" onclick={() => (adding = 'file')}>Bring in a calendar file…</Button>
      <Button kind="small" onclick={() => keep(`Took the calendar of ${name} away`, undefined)}
        >Take the calendar away</Button
      >
    </p>
  {/if}
</section>

<style>
  section {
    border-top: 1px solid var(--hair);
    padding: 10px 0;
  }
  h1 {
    font-size: 16px;
  }
  .small {
    font-size: 13px;
    font-weight: 400;
    margin-left: 8px;
  }
  ul {
    list-style: none;
    padding: 0;
    margin: 6px 0;
  }
  li {
    padding: 3px 0;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
</style>
