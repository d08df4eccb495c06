<script lang="ts">
  import { formatDay, parseDay } from '$core/date';
  import { sayDay } from '$core/wording';
  import Button from './Button.svelte';
  import { readDayField } from './day-field';
  import Text from './Text.svelte';

  /**
   * A day in any form people write; it says what it understood, and asks where day and month could be swapped. `value` is the
   * ISO day, empty where nothing is written or nothing was understood.
   */
  let {
    value = $bindable(''),
    onchange,
    label = 'Day',
    id,
    required = false
  }: {
    value?: string;
    onchange?: ((value: string) => void) | undefined;
    label?: string;
    id?: string | undefined;
    required?: boolean;
  } = $props();

  /** What is being written, until it stands for the value. */
  let writing = $state<string>();
  let isOpen = $state(false);
  const written = $derived(writing ?? (value === '' ? '' : sayIso(value)));
  const read = $derived(readDayField(written));

  function sayIso(iso: string): string {
    const day = parseDay(iso);
    return day === undefined ? iso : sayDay(day);
  }

  function set(iso: string): void {
    value = iso;
    onchange?.(iso);
  }

  function write(text: string): void {
    writing = text;
    const now = readDayField(text);
    value = now.day === undefined ? '' : formatDay(now.day);
  }

  function pick(iso: string): void {
    writing = undefined;
    isOpen = false;
    set(iso);
  }
</script>

<span class="day">
  <Text
    {id}
    class="mono"
    aria-label={label}
    placeholder="10 Mar 2031"
    autocomplete="off"
    {required}
    aria-invalid={read.day === undefined && written.trim() !== '' ? 'true' : undefined}
    bind:value={() => written, write}
    onchange={() => set(value)}
  />
  <Button
    kind="small"
    aria-label={`${label}: pick from a calendar`}
    aria-expanded={isOpen}
    onclick={() => (isOpen = !isOpen)}>▦</Button
  >
  <span class="day-read soft" role="status">
    {#if written.trim() !== '' && read.day === undefined}This is no day.
    {:else if writing !== undefined && read.day !== undefined}{sayDay(read.day)}{#if read.also !== undefined},
        or <Button kind="link" onclick={() => pick(formatDay(read.also ?? 0))}>{sayDay(read.also)}</Button
        >?{/if}{/if}
  </span>
  {#if isOpen}
    {#await import('./DayCalendar.svelte') then { default: DayCalendar }}
      <DayCalendar {value} onpick={pick} onclose={() => (isOpen = false)} />
    {/await}
  {/if}
</span>
