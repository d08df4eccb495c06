<svelte:options namespace="svg" />

<script lang="ts">
  import { formatDay } from '$core/date';
  import type { Names } from '$core/catalogue';
  import { shorten } from '$core/wording';
  import type { Tread } from './layout';
  import { wordsOfTread } from './tread-words';

  interface Props {
    tread: Tread;
    names: Names;
    width: number;
    /** From the oldest, 0, on. */
    at: number;
    isLooked: boolean;
    onlook: (tread: Tread) => void;
    onpick: (tread: Tread) => void;
  }
  let { tread, names, width, at, isLooked, onlook, onpick }: Props = $props();

  const words = $derived(wordsOfTread(tread));

  /** Its words would run over the right edge. */
  const runsOver = $derived(
    tread.x0 + 24 + 9 * Math.min(26, names.release(tread.release).length) + 6.4 * words.length > width
  );

  const isOutline = $derived(
    !tread.published ||
      tread.preview ||
      tread.state === 'older' ||
      tread.state === 'closed' ||
      tread.phases.length === 0
  );

  function press(event: KeyboardEvent): void {
    if (event.key !== 'Enter' && event.key !== ' ') return;
    event.preventDefault();
    onpick(tread);
  }
</script>

<g
  class="tread {tread.state.replaceAll(' ', '-')}"
  class:looked={isLooked}
  role="button"
  tabindex="0"
  aria-pressed={isLooked}
  aria-label="{names.release(tread.release)}: {words || tread.target?.verdict || ''}"
  data-tread={tread.release}
  data-at={at}
  data-state={tread.state}
  onclick={() => onpick(tread)}
  onkeydown={press}
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
    class={isOutline ? 'hollow' : 'ground'}
    class:dashed={!tread.published || tread.preview}
    x={tread.x0}
    y={tread.y}
    width={Math.max(2, tread.x1 - tread.x0)}
    height="19"
    data-from={tread.from === 'unknown' ? '' : formatDay(tread.from)}
    data-to={tread.to === 'unknown' ? '' : formatDay(tread.to)}
  />
  {#if !isOutline}
    {#each tread.phases as band (band.phase)}
      <rect class={band.phase} x={band.x0} y={tread.y} width={Math.max(0, band.x1 - band.x0)} height="19" />
      {#if band.x1 - band.x0 > 1}<path class="edge" d="M{band.x1} {tread.y}v19" />{/if}
      {#if band.x1 - band.x0 > 96}
        {@const label = { full: 'full service', security: 'security only', extension: 'paid extension' }[
          band.phase
        ]}
        {@const x = band.phase === 'full' ? band.x1 - 76 : band.x0 + 8}
        {#if band.phase !== 'full'}<rect
            class="back"
            x={x - 4}
            y={tread.y + 3}
            width={label.length * 6.1 + 8}
            height="13"
          />{/if}
        <text class="phase {band.phase}-words" {x} y={tread.y + 13.5}>{label}</text>
      {/if}
    {/each}
    <path class="top" d="M{tread.x0} {tread.y}H{tread.x1}" />
  {/if}
  <text
    class="name mono"
    x={runsOver ? width - 8 : tread.x0 + 8}
    text-anchor={runsOver ? 'end' : 'start'}
    y={tread.y - 8}
    >{shorten(names.release(tread.release), 26)}<tspan class="words" dx="8">{words}</tspan></text
  >
  {#if tread.state === 'closed'}<path class="post" d="M{tread.x0} {tread.y - 7}v33" />{/if}
</g>

<style>
  text {
    fill: var(--ink);
  }
  .words {
    fill: var(--soft);
    font-family: var(--font-sans);
    font-weight: 400;
    font-size: 12.5px;
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
  .name {
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: 4px;
    stroke-linejoin: round;
  }
</style>
