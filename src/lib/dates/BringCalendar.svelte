<script lang="ts">
  import { Area, Button, Field } from '$lib/kit';
  import type { ReadCalendar } from '$core/exchange';
  import type { WorkCalendar } from '$core/estate';
  import { parseDay } from '$core/date';
  import { describeIssue, sayDay, sayWindow } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import { newId } from '$lib/state/ids';

  /** A calendar file pasted or chosen: what it comes to is said before it is taken in. */
  let {
    calendar,
    onkeep,
    onleave
  }: { calendar: WorkCalendar; onkeep: (calendar: WorkCalendar) => void; onleave: () => void } = $props();

  const WHY = {
    length: 'it lasts no time, or longer than two weeks',
    'recurring days': 'whole days that recur are no freeze',
    'no start': 'it has no start',
    zone: 'nobody knows its time zone',
    rule: 'its rule cannot be read',
    'not an instance': 'its start is no day its own rule names'
  } as const;
  let text = $state('');
  let fault = $state('');
  let read = $state.raw<ReadCalendar | undefined>();

  /** Windows of one calendar share a zone: the first ones are taken where it has none yet. */
  const zone = $derived(
    calendar.windows.length > 0 ? calendar.zone : (read?.windows.find((w) => w.zone)?.zone ?? calendar.zone)
  );
  const fitting = $derived((read?.windows ?? []).filter((w) => w.zone === zone || w.zone === ''));
  const foreign = $derived((read?.windows ?? []).filter((w) => !fitting.includes(w)));

  async function look(): Promise<void> {
    const answer = await desk.files.call((w) => w.readCalendarFile(text));
    fault = answer.ok ? '' : answer.issues.map(describeIssue).join(' ');
    read = answer.ok ? answer.value : undefined;
  }

  function keep(): void {
    const windows = fitting.map(({ name, start, rule, minutes }) => ({
      id: newId('window'),
      start,
      minutes,
      ...(name ? { name } : {}),
      ...(rule === undefined ? {} : { rule })
    }));
    const freezes = (read?.freezes ?? []).map(({ first, last, reason }) => ({
      first,
      last,
      ...(reason ? { reason } : {})
    }));
    onkeep({
      ...calendar,
      zone,
      windows: [...calendar.windows, ...windows],
      freezes: [...(calendar.freezes ?? []), ...freezes]
    });
  }
</script>

<div class="form">
  <Field label="A calendar file" help="its text, as any program writes it: RFC 5545"
    ><Area rows={4} bind:value={text} class="mono" maxlength={2000000}></Area></Field
  >
  <div role="status">
    {#if fault}<b>{fault}</b>{/if}
    {#if read}
      <ul>
        {#each fitting as w, i (i)}<li>Window: {w.name ? `${w.name}, ` : ''}{sayWindow(w)}.</li>{/each}
        {#each read.freezes as f, i (i)}<li>
            Freeze: {sayDay(parseDay(f.first) ?? 0)} to {sayDay(parseDay(f.last) ?? 0)}{f.reason
              ? `, ${f.reason}`
              : ''}.
          </li>{/each}
        {#each foreign as w, i (i)}<li class="soft">
            Not taken: {w.name || 'a window'}, since it is of {w.zone} and this calendar of {zone}.
          </li>{/each}
        {#each read.skipped as s, i (i)}<li class="soft">
            Not taken: {s.name || 'an entry'}, since {WHY[s.why]}.
          </li>{/each}
      </ul>
    {/if}
  </div>
  <span class="acts">
    {#if read && fitting.length + read.freezes.length > 0}<Button onclick={keep}>Take it in</Button
      >{:else}<Button disabled={text.trim() === ''} onclick={() => void look()}>Read it</Button>{/if}
    <Button onclick={onleave}>Leave it</Button>
  </span>
</div>

<style>
  .form {
    display: flex;
    flex-direction: column;
    gap: 8px;
    padding: 10px 12px;
    background: var(--tint);
    max-width: 860px;
  }
  ul {
    margin: 0;
    padding-left: 18px;
  }
  .acts {
    display: flex;
    gap: 8px;
  }
</style>
