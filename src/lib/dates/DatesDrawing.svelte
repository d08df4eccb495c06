<script lang="ts">
  import { calendarDate, dayOf } from '$core/date';
  import { monthName, sayCount, sayDay } from '$core/wording';
  import { roving } from '$lib/kit/roving';
  import { desk } from '$lib/state/desk.svelte';
  import { type DateMark, xOf } from './date-marks';
  import type { DatesState } from './dates-state.svelte';
  import MovedToday from './MovedToday.svelte';

  /** The estate against the calendar, a lane a product, team or site: flags where service ends, rings for latest starts. */
  let { state: dates }: { state: DatesState } = $props();

  const LANE = 40;
  const TOP = 24;
  const bend = $derived(dates.bend);
  const height = $derived(TOP + dates.lanes.length * LANE + 8);
  const x = (day: number): number => Math.round(xOf(bend, day) * 10) / 10;
  /** Months near today, years far away: no two words closer than 42 px. */
  const ticks = $derived.by(() => {
    const { year, month } = calendarDate(desk.today);
    const months = Array.from({ length: 26 }, (_, i) => {
      const at = month - 13 + i;
      const [y, m] = [year + Math.floor(at / 12), (((at % 12) + 12) % 12) + 1];
      return { day: dayOf(y, m, 1) ?? 0, words: m === 1 ? String(y) : monthName(m) };
    });
    const years = Array.from({ length: 8 }, (_, i) => ({
      day: dayOf(year - 1 + i, 1, 1) ?? 0,
      words: String(year - 1 + i)
    }));
    const all = [...years, ...months].filter((t) => x(t.day) > 16 && x(t.day) < dates.width - 16);
    const kept: typeof all = [];
    for (const tick of all) if (kept.every((k) => Math.abs(x(k.day) - x(tick.day)) > 42)) kept.push(tick);
    return kept;
  });
  const label = (mark: DateMark): string =>
    `${sayDay(mark.day)}: ${dates.say(mark)}, ${sayCount(mark.systems.length, 'system')}`;
</script>

<svg
  width={dates.width}
  {height}
  viewBox="0 0 {dates.width} {height}"
  role="group"
  aria-label="What is due, along the days"
  {@attach roving}
>
  <defs
    ><pattern id="frozen" width="5" height="5" patternUnits="userSpaceOnUse"
      ><path class="hatch" d="M0 5L5 0" /></pattern
    ></defs
  >
  {#each dates.windows as o (o.start)}<rect
      class="night"
      x={x(o.day)}
      y={TOP}
      width={Math.max(1, x(o.day + 1) - x(o.day) - 0.5)}
      height={height - TOP - 8}
    />{/each}
  {#each dates.freezes as f (f.first)}<rect
      class="freeze"
      data-freeze
      x={x(f.first)}
      y={TOP}
      width={Math.max(2, x(f.last + 1) - x(f.first))}
      height={height - TOP - 8}
      ><title>{f.reason ?? 'Freeze'}: {sayDay(f.first)} to {sayDay(f.last)}</title></rect
    >{/each}
  {#each ticks as tick (tick.day + tick.words)}<text class="tick" x={x(tick.day)} y="13">{tick.words}</text
    ><path class="hair" d="M{x(tick.day)} 18V{height - 8}" />{/each}
  {#each dates.lanes as lane, i (lane.name)}
    {@const y = TOP + i * LANE + 28}
    <path class="ground" d="M0 {y}H{dates.width}" />
    {#each lane.marks as mark (mark.key)}
      {@const at = x(mark.day)}
      <a
        href="/dates?at={encodeURIComponent(mark.key)}"
        aria-label={label(mark)}
        aria-current={dates.open?.key === mark.key || undefined}
        data-mark={mark.kind}
        data-day={mark.day}
        class:sets={mark.sets}
        class:open={dates.open?.key === mark.key}
      >
        <title>{label(mark)}</title>
        <rect class="target" x={at - 12} y={y - 22} width="24" height="26" />
        {#if mark.early !== undefined}<path class="span" d="M{x(mark.early)} {y - 3}H{at}" />{/if}
        {#if mark.kind === 'end'}<path class="pole" d="M{at} {y}V{y - 18}" /><path
            class="flag"
            d="M{at} {y - 18}h9l-3 4l3 4h-9z"
          />
        {:else if mark.kind === 'lapse'}<path class="broken" d="M{at - 9} {y - 5}h6l3 -5l0 10l3 -5h3" />
        {:else if mark.kind === 'closing'}<path
            class="pole"
            d="M{at - 4} {y - 12}L{at + 4} {y - 4}M{at + 4} {y - 12}L{at - 4} {y - 4}"
          />
        {:else if mark.kind === 'latest start'}<circle class="ring" cx={at} cy={y} r="4" />
        {:else}<path class="way" d="M{at - 5} {y}h5v-6h6" />{/if}
      </a>
    {/each}
  {/each}
  <MovedToday state={dates} {height} />
</svg>

<style>
  svg {
    display: block;
  }
  .night {
    fill: var(--hair);
    opacity: 0.55;
  }
  .freeze {
    fill: url(#frozen);
  }
  .hatch {
    stroke: var(--ink);
    stroke-width: 0.7;
  }
  .tick {
    font-size: 11.5px;
    fill: var(--soft);
    font-family: var(--mono);
    text-anchor: middle;
  }
  .hair {
    stroke: var(--hair);
  }
  .ground {
    stroke: var(--line);
  }
  .target {
    fill: transparent;
  }
  .pole,
  .span,
  .broken {
    stroke: var(--body);
    stroke-width: 1.4;
    fill: none;
  }
  .span {
    stroke-width: 4;
    opacity: 0.5;
  }
  .flag {
    fill: var(--body);
  }
  .sets .pole,
  .sets .broken,
  .sets .span {
    stroke: var(--ink);
  }
  .sets .flag {
    fill: var(--ink);
  }
  .ring {
    fill: var(--paper);
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  .way {
    stroke: var(--way);
    stroke-width: 2;
    fill: none;
  }
  .open .target {
    fill: var(--tint);
  }
  a:focus-visible .target {
    stroke: var(--ink);
    stroke-width: 2;
  }
  a:focus-visible {
    outline: none;
  }
</style>
