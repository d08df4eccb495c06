<script lang="ts">
  import { Button, Check, Choice, Day, Field, Text } from '$lib/kit';
  import { formatDay } from '$core/date';
  import type { WorkCalendar, WorkWindow } from '$core/estate';
  import { NTH_CHOICES, sayWindow, WEEKDAY_NAMES } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import { newId } from '$lib/state/ids';
  import { nextStarts, windowOf } from './calendar-edit';

  /** A window by its days, hours and length; what it comes to is said with its next nights before it is kept. */
  let {
    calendar,
    onkeep,
    onleave
  }: { calendar: WorkCalendar; onkeep: (window: WorkWindow) => void; onleave: () => void } = $props();

  const id = newId('window');
  let kind = $state<'week' | 'month' | 'once' | 'rule'>('week');
  let days = $state<readonly number[]>([0, 1, 2, 3]);
  let nth = $state('-1');
  let weekday = $state('4');
  let name = $state('');
  let from = $state(formatDay(desk.today));
  let time = $state('22:00');
  let hours = $state('6');
  let rule = $state('');
  let product = $state('');
  let crew = $state('');
  let crewName = $state('');

  const parts = $derived(
    kind === 'week'
      ? { every: 'week' as const, interval: 1, days }
      : kind === 'month'
        ? { every: 'month' as const, interval: 1, days: [Number(weekday)], nth: Number(nth) }
        : undefined
  );
  const made = $derived(
    windowOf(
      { name, from, time, hours, parts, rule: kind === 'rule' ? rule : '', product, crew, crewName },
      calendar.zone,
      id
    )
  );
  const starts = $derived(
    'window' in made
      ? nextStarts({ ...calendar, windows: [made.window] }, desk.estate.calendars ?? [], desk.today, 10)
      : []
  );

  function keep(event: SubmitEvent): void {
    event.preventDefault();
    if ('window' in made) onkeep(made.window);
  }
</script>

<form onsubmit={keep} aria-label="A window" class="filled-in">
  <Field label="It recurs"
    ><Choice bind:value={kind}
      ><option value="week">every week</option><option value="month">every month</option><option value="once"
        >not: once</option
      ><option value="rule">by a rule of my own</option></Choice
    ></Field
  >
  {#if kind === 'week'}
    <fieldset>
      <legend class="soft">on</legend>
      {#each WEEKDAY_NAMES as day, i (day)}<label
          ><Check
            checked={days.includes(i)}
            onchange={(e) =>
              (days = e.currentTarget.checked
                ? [...days, i].sort((a, b) => a - b)
                : days.filter((d) => d !== i))}
          />
          {day}</label
        >{/each}
    </fieldset>
  {:else if kind === 'month'}
    <Field label="on the"
      ><Choice bind:value={nth}
        >{#each NTH_CHOICES as [n, words] (n)}<option value={String(n)}>{words}</option>{/each}</Choice
      ></Field
    >
    <Field label="day of the week"
      ><Choice bind:value={weekday}
        >{#each WEEKDAY_NAMES as day, i (day)}<option value={String(i)}>{day}</option>{/each}</Choice
      ></Field
    >
  {:else if kind === 'rule'}
    <Field label="Rule" help="as RFC 5545 writes it: FREQ=WEEKLY;INTERVAL=2;BYDAY=SA"
      ><Text bind:value={rule} maxlength={500} class="mono" /></Field
    >
  {/if}
  <div class="labelled">
    <span>{kind === 'once' ? 'On' : 'From'}</span><Day label="From" bind:value={from} />
  </div>
  <Field label="At"><Text bind:value={time} class="mono short" maxlength={5} /></Field>
  <Field label="For so many hours"><Text bind:value={hours} class="mono short" inputmode="decimal" /></Field>
  <Field label="Systems at once" help="as many as the crew can watch; empty: any number"
    ><Text bind:value={crew} class="mono short" inputmode="numeric" /></Field
  >
  {#if crew.trim() !== ''}<Field label="By the crew" help="its name, where there are several"
      ><Text bind:value={crewName} maxlength={200} /></Field
    >{/if}
  <Field label="For"
    ><Choice bind:value={product}
      ><option value="">all products</option>{#each desk.catalogue?.products ?? [] as p (p.id)}<option
          value={p.id}>{p.name}</option
        >{/each}</Choice
    ></Field
  >
  <p class="wide" role="status">
    {#if 'window' in made}<b>{sayWindow(made.window)}.</b>
      <span class="soft">Next: {starts.join(', ') || 'never'}.</span>{:else}<span class="soft"
        >{made.amiss}</span
      >{/if}
  </p>
  <span class="acts">
    <Button type="submit" disabled={!('window' in made)}>Keep it</Button>
    <Button type="button" onclick={onleave}>Leave it</Button>
  </span>
</form>

<style>
  fieldset {
    border: 0;
    padding: 0;
    margin: 0;
    display: flex;
    flex-wrap: wrap;
    gap: 4px 10px;
    align-items: center;
  }
  .filled-in :global(.short) {
    width: 76px;
  }
</style>
