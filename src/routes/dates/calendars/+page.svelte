<script lang="ts">
  import { Button, Choice, Field, Text } from '$lib/kit';
  import { findRecurrenceFault } from '$core/date';
  import type { WorkCalendar } from '$core/estate';
  import { compareText } from '$core/kit';
  import { sayCalendar } from '$core/wording';
  import CalendarCard from '$lib/dates/CalendarCard.svelte';
  import { desk } from '$lib/state/desk.svelte';
  import { newId } from '$lib/state/ids';
  import { saveCalendars, saveSite } from '$lib/state/acts';

  const calendars = $derived(desk.estate.calendars ?? []);
  const site = $derived(desk.estate.site);
  const names = (of: 'team' | 'site'): string[] =>
    [...new Set(desk.estate.systems.flatMap((s) => s[of] ?? []))]
      .filter(
        (n) => !calendars.some((c) => (of === 'team' ? c.team === n : c.team === undefined && c.site === n))
      )
      .sort(compareText);
  /** Whose calendar could be made: the estate's, a team's, a site's. */
  const whose = $derived([
    ...(calendars.some((c) => c.team === undefined && c.site === undefined)
      ? []
      : [{ key: 'estate', words: 'the estate', of: {} }]),
    ...names('team').map((team) => ({ key: `team ${team}`, words: `the team ${team}`, of: { team } })),
    ...names('site').map((name) => ({ key: `site ${name}`, words: `the site ${name}`, of: { site: name } }))
  ]);
  let chosen = $state('');
  let zone = $state(Intl.DateTimeFormat().resolvedOptions().timeZone);
  const next = $derived(whose.find((w) => w.key === chosen) ?? whose[0]);
  const isZone = $derived(findRecurrenceFault({ zone, start: '2031-01-01T00:00' }) !== 'zone');

  function add(event: SubmitEvent): void {
    event.preventDefault();
    if (!next || !isZone) return;
    const calendar: WorkCalendar = { id: newId('calendar'), ...next.of, zone, windows: [] };
    void saveCalendars(`A calendar for ${sayCalendar(calendar)}`, [...calendars, calendar]);
  }

  function setWayBack(text: string): void {
    const { wayBackMinutes: _old, ...rest } = site;
    void _old;
    const minutes = Math.round(Number(text));
    void saveSite(
      'Set how long a way back takes',
      text.trim() === '' || !(minutes >= 0) ? rest : { ...rest, wayBackMinutes: Math.min(100_000, minutes) }
    );
  }
</script>

<svelte:head><title>When work may be done - Orange Stair</title></svelte:head>

<div class="scrolled">
  <p class="lead">
    {#if calendars.length === 0}Work may be done on any day, at any hour, as long as no calendar says
      otherwise.{:else}A team goes by its own calendar, else by its site’s, else by the estate’s; freezes of
      the site and the estate bind it too.{/if}
  </p>
  {#each calendars as calendar (calendar.id)}<CalendarCard {calendar} />{/each}
  <form onsubmit={add} aria-label="A new calendar" class="no-print">
    {#if next}
      <Field label="A calendar for"
        ><Choice value={next.key} onchange={(e) => (chosen = e.currentTarget.value)}
          >{#each whose as w (w.key)}<option value={w.key}>{w.words}</option>{/each}</Choice
        ></Field
      >
      <Field label="in the time zone" help={isZone ? undefined : 'Nobody knows this one; like Europe/Lisbon'}
        ><Text bind:value={zone} maxlength={100} class="mono" /></Field
      >
      <Button type="submit" disabled={!isZone}>Make it</Button>
    {/if}
  </form>
  <p>
    A way back that nobody has published takes
    <Text
      class="mono way-back"
      inputmode="numeric"
      aria-label="Minutes of a way back"
      value={site.wayBackMinutes === undefined ? '' : String(site.wayBackMinutes)}
      onchange={(e) => setWayBack(e.currentTarget.value)}
    /> minutes; empty: as long as the way itself. A window must have room for both.
  </p>
</div>

<style>
  .lead {
    max-width: 70ch;
  }
  form {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 14px;
    align-items: flex-end;
    border-top: 1px solid var(--hair);
    padding: 12px 0;
  }
  .scrolled :global(.way-back) {
    width: 76px;
    padding: 3px 6px;
  }
</style>
