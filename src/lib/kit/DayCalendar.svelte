<script lang="ts">
  import { Datepicker } from 'flowbite-svelte';

  /** A month to pick a day from; loaded when one is opened. Days are ISO. */
  let { value, onpick, onclose }: { value: string; onpick: (iso: string) => void; onclose: () => void } =
    $props();

  const MONDAY = 1;
  const shown = $derived(value === '' ? undefined : new Date(`${value}T12:00:00`));
  const two = (n: number): string => String(n).padStart(2, '0');
  const isoOf = (d: Date): string => `${d.getFullYear()}-${two(d.getMonth() + 1)}-${two(d.getDate())}`;
</script>

<svelte:window onkeydown={(e) => e.key === 'Escape' && onclose()} />
<div class="calendar">
  <Datepicker
    inline
    firstDayOfWeek={MONDAY}
    locale="en-GB"
    value={shown}
    defaultDate={shown ?? null}
    onselect={(picked) => picked instanceof Date && onpick(isoOf(picked))}
  />
</div>
