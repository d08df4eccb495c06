<script lang="ts">
  import { Chart, Choice } from '$lib/kit';
  import { loadByWeek, type WeekLoad } from '$core/plan';
  import { sayCalendar, sayCount, sayDay, sayMinutes, shorten } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';

  /** What those who do the work have to do, week by week, beside what their windows let them do. */
  const WEEKS = 26;
  const loads = $derived(desk.plan ? loadByWeek(desk.plan, desk.estate, WEEKS) : []);
  let chosen = $state('');
  const load = $derived(loads.find((l) => l.calendar === chosen) ?? loads[0]);
  const nameOf = (id: string): string => {
    const calendar = desk.estate.calendars?.find((c) => c.id === id);
    return calendar ? sayCalendar(calendar) : id;
  };
  const planned = $derived((load?.weeks ?? []).filter((w) => w.planned > 0));
  const over = $derived(planned.filter((w) => w.room !== undefined && w.planned > w.room));
  const last = $derived(planned.at(-1));
  const pointsOf = (of: (week: WeekLoad) => number): [number, number][] =>
    (load?.weeks ?? []).map((w) => [w.monday, of(w)]);
  const hasRoom = $derived(load?.weeks.every((w) => w.room !== undefined) ?? false);
</script>

{#if load}
  <section data-load={load.calendar}>
    <h2>
      Work by week{#if loads.length === 1}, {nameOf(load.calendar)}{/if}
    </h2>
    {#if loads.length > 1}<p class="no-print">
        Of <Choice
          aria-label="Whose work"
          value={load.calendar}
          onchange={(e) => (chosen = e.currentTarget.value)}
          >{#each loads as l (l.calendar)}<option value={l.calendar}>{shorten(nameOf(l.calendar), 40)}</option
            >{/each}</Choice
        >
      </p>{/if}
    <p>
      {#if over[0]}<b>More is planned than the crew can watch</b> in the week of {sayDay(over[0].monday)}:
        {sayMinutes(over[0].planned)} of work, {sayMinutes(over[0].room ?? 0)} of room{over.length > 1
          ? `, and in ${sayCount(over.length - 1, 'week')} more`
          : ''}. Each situation is planned by itself here.{:else if last}{sayCount(
          planned.length,
          'week has',
          'weeks have'
        )} work in {planned.length === 1 ? 'it' : 'them'}; the last is that of {sayDay(last.monday)}{hasRoom
          ? ', and the crew can watch all of it'
          : ''}.{:else}Nothing is planned in its windows within half a year.{/if}
    </p>
    {#if planned.length > 0}<Chart
        label="Work by week"
        x={{ name: 'week of', isTight: true, mark: sayDay, say: sayDay }}
        y={{ name: 'hours', mark: (m) => String(Math.round(m / 60)), say: sayMinutes }}
        series={[
          { name: 'planned', kind: 'bar', points: pointsOf((w) => w.planned) },
          ...(hasRoom ? [{ name: 'room', kind: 'step' as const, points: pointsOf((w) => w.room ?? 0) }] : [])
        ]}
      />{/if}
  </section>
{/if}
