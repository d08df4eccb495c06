<script lang="ts">
  import { formatDay } from '$core/date';
  import { sayDay } from '$core/wording';
  import { setAsOf } from '$lib/state/acts';
  import { desk } from '$lib/state/desk.svelte';
  import { dayAt, xOf } from './date-marks';
  import type { DatesState } from './dates-state.svelte';

  /**
   * The line of today, which can be taken up to a year ahead: everything is then planned as of that day. Arrow keys go by a day,
   * Page keys by four weeks; Enter plans, Escape leaves it where it was.
   */
  let { state: dates, height }: { state: DatesState; height: number } = $props();

  const A_YEAR = 366;
  let moved = $state<number>();
  const day = $derived(moved ?? desk.today);
  const bend = $derived(dates.bend);
  const within = (at: number): number => Math.max(desk.today - A_YEAR, Math.min(desk.today + A_YEAR, at));

  function drop(): void {
    const to = moved;
    moved = undefined;
    if (to !== undefined && to !== desk.today) void setAsOf(formatDay(to));
  }

  function take(event: PointerEvent): void {
    const line = event.currentTarget as SVGElement;
    const box = line.ownerSVGElement?.getBoundingClientRect();
    if (!box || event.button !== 0) return;
    event.preventDefault();
    line.setPointerCapture(event.pointerId);
    const move = (e: Event): void => {
      moved = within(dayAt(bend, (e as PointerEvent).clientX - box.left));
    };
    const end = (): void => {
      line.removeEventListener('pointermove', move);
      drop();
    };
    line.addEventListener('pointermove', move);
    line.addEventListener('pointerup', end, { once: true });
    line.addEventListener('pointercancel', end, { once: true });
  }

  function press(event: KeyboardEvent): void {
    const by = { ArrowLeft: -1, ArrowRight: 1, PageDown: -28, PageUp: 28 }[event.key];
    if (event.key === 'Enter') drop();
    else if (event.key === 'Escape') moved = undefined;
    else if (by === undefined) return;
    else moved = within(day + by);
    event.preventDefault();
    event.stopPropagation();
  }
</script>

<g
  role="slider"
  tabindex="0"
  aria-label="Today"
  aria-valuenow={day}
  aria-valuemin={desk.today - A_YEAR}
  aria-valuemax={desk.today + A_YEAR}
  aria-valuetext={sayDay(day)}
  data-today
  onkeydown={press}
  onpointerdown={take}
  onblur={() => (moved = undefined)}
>
  <title>Today: drag it to plan as of another day</title>
  <rect class="grip" x={xOf(bend, day) - 8} y="14" width="16" height={height - 22} />
  <path class="today" d="M{xOf(bend, day)} 16V{height - 8}" />
  <path class="knob" d="M{xOf(bend, day) - 5} 16h10l-5 7z" />
  {#if moved !== undefined}<text
      x={Math.max(46, Math.min(dates.width - 46, xOf(bend, day)))}
      y={height - 1}
      class="said">{sayDay(day)}</text
    >{/if}
</g>

<style>
  g {
    cursor: ew-resize;
    touch-action: none;
  }
  .grip {
    fill: transparent;
  }
  .today {
    stroke: var(--ink);
    stroke-dasharray: 2 3;
    fill: none;
  }
  .knob {
    fill: var(--ink);
  }
  .said {
    font-size: 11.5px;
    font-family: var(--mono);
    text-anchor: middle;
    fill: var(--ink);
    font-weight: 650;
  }
  g:focus-visible {
    outline: none;
  }
  g:focus-visible .knob {
    stroke: var(--ink);
    stroke-width: 4;
  }
</style>
