<script lang="ts">
  import { type Day, formatDay } from '$core/date';
  import { type CasePlan, saidVerdict } from '$core/plan';
  import { nameVerdict, sayCount, sayDay, shorten } from '$core/wording';
  import StairClimb from '$lib/stair/StairClimb.svelte';
  import StairTread from '$lib/stair/StairTread.svelte';
  import { labelsOf } from '$lib/stair/axis-labels';
  import type { Names } from '$core/catalogue';
  import type { Rest, StairLayout, Tread } from '$lib/stair/layout';
  import { moveBend, placeOf } from '$lib/stair/scale';

  interface Props {
    layout: StairLayout;
    names: Names;
    width: number;
    height: number;
    /** Release of the tread looked at. */
    looked: string | undefined;
    onlook: (tread: Tread) => void;
    onpick: (tread: Tread) => void;
    /** The axis was dragged or zoomed. */
    onbend: (bend: { from: Day; to: Day }) => void;
    /** In what a case deviates that is drawn beside, in words. */
    deviates: (plan: CasePlan) => string;
  }
  let { layout, names, width, height, looked, onlook, onpick, onbend, deviates }: Props = $props();

  let dragged: { readonly x: number; readonly layout: StairLayout } | undefined;

  function grab(event: PointerEvent): void {
    if (event.button !== 0 || (event.target as Element).closest('.tread, a')) return;
    dragged = { x: event.clientX, layout };
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
  }

  function drag(event: PointerEvent): void {
    if (!dragged) return;
    const { scale } = dragged.layout;
    const [a = 0, b = 1] = [scale.bend.from, scale.bend.to].map((d) => placeOf(scale, d));
    const days = ((dragged.x - event.clientX) * (scale.bend.to - scale.bend.from)) / Math.max(1, b - a);
    if (Math.abs(days) >= 1) onbend(moveBend(scale, { days: Math.round(days) }));
  }

  function turn(event: WheelEvent): void {
    event.preventDefault();
    onbend(moveBend(layout.scale, { zoom: event.deltaY < 0 ? 1.25 : 0.8 }));
  }

  const sayRest = (rest: Rest): string =>
    `out of service, ${sayCount(Math.max(1, rest.until - rest.since), 'day')}`;

  const bendX = $derived([layout.scale.bend.from, layout.scale.bend.to].map((d) => placeOf(layout.scale, d)));
  /** The flag's words stand left of the post where there is no room at its right. */
  const flagLeft = $derived(
    layout.flag !== undefined &&
      (layout.flag.x > width - 165 ||
        (layout.flag.x < layout.today.x && layout.flag.x > 165 && layout.today.x - layout.flag.x < 165))
  );
</script>

<svg
  class="stair"
  {width}
  {height}
  viewBox="0 0 {width} {height}"
  role="group"
  aria-label="The stair: releases upward, time across"
  data-breaks={JSON.stringify(layout.scale.breaks)}
  onpointerdown={grab}
  onpointermove={drag}
  onpointerup={() => (dragged = undefined)}
  onpointercancel={() => (dragged = undefined)}
>
  <defs>
    <pattern id="hatch" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)"
      ><path d="M0 0V7" class="hatch" /></pattern
    >
    <pattern id="dots" width="6" height="6" patternUnits="userSpaceOnUse"
      ><circle cx="2" cy="2" r="1.1" class="dot" /></pattern
    >
  </defs>
  <rect class="grip" x="0" y="0" {width} {height} />
  <rect class="sheet" x={bendX[0]} y="46" width={(bendX[1] ?? 0) - (bendX[0] ?? 0)} height={height - 90} />
  {#each layout.ticks as tick (tick.day)}
    <path class="tick" d="M{tick.x} 46V{height - 44}" />
  {/each}
  {#each labelsOf(layout.ticks, width) as label (label.x)}
    <text class="axis" x={label.x + 3} y={height - 26}>{label.words}</text>
  {/each}
  <path class="today" d="M{layout.today.x} 50V{height - 44}" data-today={formatDay(layout.today.day)} />
  <text class="strong" x={layout.today.x} y="38" text-anchor={layout.today.x < 90 ? 'start' : 'middle'}
    >today, {sayDay(layout.today.day)}</text
  >

  {#each layout.treads as tread, i (tread.release)}
    <StairTread
      {tread}
      {names}
      {width}
      at={layout.treads.length - 1 - i}
      isLooked={tread.release === looked}
      {onlook}
      {onpick}
    />
  {/each}

  {#if layout.flag}
    <g class="flag" data-flag={formatDay(layout.flag.day)} data-x={layout.flag.x}>
      <path class="pole" d="M{layout.flag.x} {layout.flag.y + 19}V{layout.flag.y - 42}" />
      {#if flagLeft}
        <path class="cloth" d="M{layout.flag.x} {layout.flag.y - 42}h-148l7 10-7 10h148z" />
        <text x={layout.flag.x - 134} y={layout.flag.y - 28}>deadline {sayDay(layout.flag.day)}</text>
      {:else}
        <path class="cloth" d="M{layout.flag.x} {layout.flag.y - 42}h148l-7 10 7 10h-148z" />
        <text x={layout.flag.x + 8} y={layout.flag.y - 28}>deadline {sayDay(layout.flag.day)}</text>
      {/if}
    </g>
  {/if}

  {#each layout.rests as rest (rest.release)}
    <g data-rest={rest.release} data-since={formatDay(rest.since)} data-until={formatDay(rest.until)}>
      <path class="rest" d="M{rest.x0} {rest.y + 27}H{Math.max(rest.x0 + 3, rest.x1)}" />
      {#if rest.x1 - rest.x0 > 150}
        <text class="rest-words" x={rest.x0 + 5} y={rest.y + 19}>{sayRest(rest)}</text>
      {:else}
        <text
          class="rest-words"
          x={rest.x0 > 170 ? rest.x0 - 6 : rest.x1 + 10}
          y={rest.y + 35}
          text-anchor={rest.x0 > 170 ? 'end' : 'start'}>{sayRest(rest)}</text
        >
      {/if}
    </g>
  {/each}
  {#each layout.deviations.slice(0, 3) as other, i (other.plan.id)}
    <a
      class="deviation"
      href="/stair?at={encodeURIComponent(other.plan.systems[0] ?? '')}"
      data-deviation={other.plan.systems[0]}
    >
      <circle cx={layout.today.x} cy={other.y} r="4" />
      <text
        x={layout.today.x > 230 ? layout.today.x - 9 : layout.today.x + 9}
        y={other.y + 4}
        text-anchor={layout.today.x > 230 ? 'end' : 'start'}
        >{shorten(
          `${other.plan.systems.length} more, ${nameVerdict(saidVerdict(other.plan), other.plan.goalPlan?.route?.hops)}: ${deviates(other.plan)}${i === 2 && layout.deviations.length > 3 ? ` (and ${layout.deviations.length - 3} other cases)` : ''}`,
          46
        )}</text
      >
    </a>
  {/each}
  {#if layout.stand}
    <path class="stand" d="M{layout.stand.x0} {layout.stand.y}H{layout.stand.x1}" />
    <circle class="standing" cx={layout.today.x} cy={layout.stand.y} r="7" />
  {/if}
  <StairClimb {layout} {names} />
  <rect class="axisband" x="0" y={height - 44} {width} height="44" onwheel={turn} role="presentation" />
</svg>

<style>
  .stair {
    display: block;
    font-size: 12.5px;
  }
  text {
    fill: var(--ink);
  }
  .sheet {
    fill: var(--sheet);
  }
  .tick {
    stroke: var(--hair);
  }
  .axis {
    fill: var(--soft);
  }
  .grip,
  .axisband {
    fill: transparent;
    cursor: grab;
  }
  .rest {
    stroke: var(--ink);
    stroke-width: 3;
    stroke-dasharray: 3 3;
  }
  .rest-words,
  .deviation text {
    font-size: 12px;
    paint-order: stroke;
    stroke: var(--paper);
    stroke-width: 4px;
  }
  .deviation circle {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-width: 2;
  }
  .deviation text {
    text-decoration: underline;
  }
  .today {
    stroke: var(--ink);
    stroke-width: 1.6;
    stroke-dasharray: 2 3.5;
  }
  .strong {
    font-weight: 650;
  }
  .hatch {
    stroke: var(--body);
    stroke-width: 5;
  }
  .dot {
    fill: var(--soft);
  }
  .stand {
    stroke: var(--ink);
    stroke-width: 5;
    fill: none;
  }
  .standing {
    fill: var(--ink);
  }
  .pole {
    stroke: var(--ink);
    stroke-width: 2;
  }
  .cloth {
    fill: var(--ink);
  }
  .flag text {
    fill: var(--paper);
    font-weight: 650;
    font-size: 12px;
  }
  .flag {
    pointer-events: none;
  }
</style>
