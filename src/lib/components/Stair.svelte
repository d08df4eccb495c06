<script lang="ts">
  import { type Day, formatDay, monthsBetween } from '$core/date';
  import type { CasePlan } from '$core/plan';
  import { sayCount, sayDay, saySpan, shorten, shortestReason } from '$core/wording';
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

  /** What stands at one place of the tread, told once. */
  const dotWords = $derived.by(() => {
    const places = new Map<
      string,
      { x: number; y: number; patches: string[]; counts: Record<string, number> }
    >();
    for (const dot of layout.dots) {
      const key = `${dot.x} ${dot.y}`;
      const at = places.get(key) ?? { x: dot.x, y: dot.y, patches: [], counts: {} };
      if (dot.step.kind === 'patch') at.patches.push(names.patch(dot.step.to.release, dot.step.to.patch));
      else {
        const what = dot.step.kind === 'work' ? 'task' : dot.step.kind;
        at.counts[what] = (at.counts[what] ?? 0) + 1;
      }
      places.set(key, at);
    }
    return [...places.values()].map((at) => ({
      x: at.x,
      y: at.y,
      lines: [
        ...at.patches.map((p) => `patch ${p}`),
        ...Object.entries(at.counts).map(([what, count]) => sayCount(count, what))
      ]
    }));
  });

  const bendX = $derived([layout.scale.bend.from, layout.scale.bend.to].map((d) => placeOf(layout.scale, d)));
  const climb = $derived(layout.climb.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${x} ${y}`).join(''));
  const arrival = $derived(layout.risers[layout.risers.length - 1]);
  const targetTread = $derived(layout.treads.find((t) => t.state === 'target'));
  const left = $derived(
    arrival && typeof targetTread?.to === 'number' && targetTread.to > arrival.day
      ? saySpan(targetTread.to - arrival.day, monthsBetween(arrival.day, targetTread.to))
      : ''
  );

  function wordsOf(tread: Tread): string {
    if (tread.state === 'installed') return 'you stand here';
    if (tread.state === 'older') return 'older than what is installed';
    const kind =
      tread.preview && tread.published
        ? 'preview'
        : !tread.published
          ? tread.from === 'unknown'
            ? 'announced, no day known'
            : `announced, ${sayDay(tread.from)} at the latest`
          : '';
    const verdict = !tread.target
      ? ''
      : tread.state === 'closed'
        ? `closed: ${shortestReason(tread.target)}`
        : tread.state === 'cannot tell'
          ? 'cannot tell'
          : tread.state === 'not yet'
            ? 'not yet'
            : '';
    return [kind, verdict].filter(Boolean).join('; ');
  }

  /** Room at the right of the tread's own words for the service left on arrival. */
  const hasRoom = (t: Tread): boolean =>
    t.x1 - t.x0 > 210 + 7.5 * (names.release(t.release).length + wordsOf(t).length);

  /** The tread's words would run over the right edge. */
  const runsOver = (t: Tread): boolean =>
    t.x0 + 24 + 9 * Math.min(26, names.release(t.release).length) + 6.4 * wordsOf(t).length > width;

  const isOutline = (t: Tread): boolean =>
    !t.published || t.preview || t.state === 'older' || t.state === 'closed' || t.phases.length === 0;

  function press(event: KeyboardEvent, tread: Tread): void {
    if (event.key !== 'Enter' && event.key !== ' ') return;
    event.preventDefault();
    onpick(tread);
  }

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
    <g
      class="tread {tread.state.replaceAll(' ', '-')}"
      class:looked={tread.release === looked}
      role="button"
      tabindex="0"
      aria-pressed={tread.release === looked}
      aria-label="{names.release(tread.release)}: {wordsOf(tread) || tread.target?.verdict || ''}"
      data-tread={tread.release}
      data-at={layout.treads.length - 1 - i}
      data-state={tread.state}
      onclick={() => onpick(tread)}
      onkeydown={(e) => press(e, tread)}
      onfocus={() => onlook(tread)}
      onmousemove={() => onlook(tread)}
    >
      <rect
        class="hit"
        x={Math.min(tread.x0, width - 200)}
        y={tread.y - 24}
        width={Math.max(200, tread.x1 - tread.x0)}
        height="46"
      />
      <rect
        class={isOutline(tread) ? 'hollow' : 'ground'}
        class:dashed={!tread.published || tread.preview}
        x={tread.x0}
        y={tread.y}
        width={Math.max(2, tread.x1 - tread.x0)}
        height="19"
        data-from={tread.from === 'unknown' ? '' : formatDay(tread.from)}
        data-to={tread.to === 'unknown' ? '' : formatDay(tread.to)}
      />
      {#if !isOutline(tread)}
        {#each tread.phases as band (band.phase)}
          <rect
            class={band.phase}
            x={band.x0}
            y={tread.y}
            width={Math.max(0, band.x1 - band.x0)}
            height="19"
          />
          {#if band.x1 - band.x0 > 1}<path class="edge" d="M{band.x1} {tread.y}v19" />{/if}
          {#if band.x1 - band.x0 > 96}
            {@const label = { full: 'full service', security: 'security only', extension: 'paid extension' }[
              band.phase
            ]}
            {@const at = band.phase === 'full' ? band.x1 - 76 : band.x0 + 8}
            {#if band.phase !== 'full'}<rect
                class="back"
                x={at - 4}
                y={tread.y + 3}
                width={label.length * 6.1 + 8}
                height="13"
              />{/if}
            <text class="phase {band.phase}-words" x={at} y={tread.y + 13.5}>{label}</text>
          {/if}
        {/each}
        <path class="top" d="M{tread.x0} {tread.y}H{tread.x1}" />
      {/if}
      <text
        class="name mono"
        x={runsOver(tread) ? width - 8 : tread.x0 + 8}
        text-anchor={runsOver(tread) ? 'end' : 'start'}
        y={tread.y - 8}
        >{shorten(names.release(tread.release), 26)}<tspan class="words" dx="8">{wordsOf(tread)}</tspan></text
      >
      {#if tread.state === 'closed'}<path class="post" d="M{tread.x0} {tread.y - 7}v33" />{/if}
    </g>
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
          `${other.plan.systems.length} more, ${other.plan.verdict}: ${deviates(other.plan)}${i === 2 && layout.deviations.length > 3 ? ` (and ${layout.deviations.length - 3} other cases)` : ''}`,
          46
        )}</text
      >
    </a>
  {/each}
  {#if layout.stand}
    <path class="stand" d="M{layout.stand.x0} {layout.stand.y}H{layout.stand.x1}" />
    <circle class="standing" cx={layout.today.x} cy={layout.stand.y} r="7" />
  {/if}
  {#if climb}
    <path class="climb" class:later={!layout.risers.every((r) => r.step.days.exact)} d={climb} />
    {#each layout.risers as riser, i (riser.step.id + i)}
      <g data-riser={riser.step.id} data-day={formatDay(riser.day)} data-x={riser.x}>
        {#if riser.kind === 'broken'}
          <path class="gap" d="M{riser.x} {(riser.y0 + riser.y1) / 2 - 5}v10" />
          <path
            class="ledge"
            d="M{riser.x - 10} {(riser.y0 + riser.y1) / 2 - 5}h20 M{riser.x - 10} {(riser.y0 + riser.y1) / 2 +
              5}h20"
          />
        {/if}
        {#if riser.kind === 'edition'}
          <rect class="foot" x={riser.x - 5.5} y={riser.y0 - 5.5} width="11" height="11" />
        {:else}
          <circle class="foot" cx={riser.x} cy={riser.y0} r="6" />
        {/if}
      </g>
    {/each}
    {#each layout.risers as riser, i (riser.step.id + i)}
      {#if riser.kind === 'edition'}
        <text class="when" x={riser.x + 12} y={riser.y0 - 10}
          >{riser.step.days.exact
            ? sayDay(riser.day).replace(/ \d+$/, '') + ', then '
            : 'then '}{names.edition(riser.step.to.edition)}</text
        >
      {:else}
        <text
          class="when"
          x={riser.x - 10}
          y={(riser.y0 + riser.y1) / 2 + (riser.kind === 'broken' ? -12 : 4)}
          text-anchor="end"
          >{riser.step.days.exact ? sayDay(riser.day).replace(/ \d+$/, '') : 'day unknown'}</text
        >
      {/if}
    {/each}
    {#each layout.dots as dot, i (i)}
      <g
        data-patch={dot.step.kind === 'patch' ? dot.step.to.patch : undefined}
        data-cure={dot.step.kind === 'cure' ? dot.step.id : undefined}
        data-work-around={dot.step.kind === 'work-around' ? dot.step.id : undefined}
        data-day={formatDay(dot.day)}
        data-x={dot.x}
        ><circle
          class="small"
          cx={dot.x}
          cy={dot.y}
          r={layout.risers.some((r) => r.x === dot.x && r.y0 === dot.y) ? 3 : 4}
        /></g
      >
    {/each}
    {#each dotWords as at (at.x + at.y * 10_000)}
      {#each at.lines as line, i (i)}<text class="when" x={at.x + 10} y={at.y + 34 + i * 15}>{line}</text
        >{/each}
    {/each}
    {#if left && targetTread && targetTread.x1 - (arrival?.x ?? 0) > 200 && hasRoom(targetTread)}<text
        class="when"
        x={targetTread.x1 - 4}
        y={targetTread.y - 10}
        text-anchor="end">{left} of service left on arrival</text
      >{/if}
  {/if}
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
  .axis,
  .words {
    fill: var(--soft);
    font-family: var(--font-sans);
    font-weight: 400;
    font-size: 12.5px;
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
  .tread {
    cursor: pointer;
    outline: none;
  }
  .hit {
    fill: transparent;
  }
  .ground,
  .back {
    fill: var(--sheet);
  }
  .full {
    fill: var(--body);
  }
  .security {
    fill: url(#hatch);
  }
  .extension {
    fill: url(#dots);
  }
  .edge,
  .top {
    stroke: var(--ink);
    stroke-width: 1.6;
    fill: none;
  }
  .hollow {
    fill: none;
    stroke: var(--soft);
    stroke-width: 1.4;
  }
  .dashed {
    stroke-dasharray: 6 4;
  }
  .post {
    stroke: var(--ink);
    stroke-width: 3;
  }
  .phase {
    font-size: 12px;
  }
  .full-words {
    fill: var(--body-ink);
  }
  .name {
    font-size: 14.5px;
    font-weight: 700;
  }
  .older .name,
  .closed .name {
    fill: var(--soft);
  }
  .tread:focus-visible .hit {
    stroke: var(--ink);
    stroke-width: 2;
  }
  .looked .hit,
  .tread:hover .hit {
    fill: color-mix(in srgb, var(--tint) 55%, transparent);
  }
  .stand {
    stroke: var(--ink);
    stroke-width: 5;
    fill: none;
  }
  .standing {
    fill: var(--ink);
  }
  .climb,
  .foot,
  .ledge {
    stroke: var(--way);
    fill: none;
  }
  .climb {
    stroke-width: 5;
    pointer-events: none;
  }
  .climb.later {
    stroke-dasharray: 10 5;
  }
  .gap {
    stroke: var(--sheet);
    stroke-width: 7;
  }
  .ledge {
    stroke-width: 3;
  }
  .foot {
    fill: var(--sheet);
    stroke-width: 3;
    pointer-events: none;
  }
  .small {
    fill: var(--way);
  }
  .when {
    fill: var(--way);
    font-weight: 650;
    pointer-events: none;
  }
  .when,
  .name {
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: 4px;
    stroke-linejoin: round;
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
