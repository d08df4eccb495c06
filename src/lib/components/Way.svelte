<script lang="ts">
  import type { WayDrawing } from '$lib/stair/way';

  let { way, oneLine }: { way: WayDrawing; oneLine: boolean } = $props();
  /** Length of the dotted line of a way nobody can tell. */
  const DOTTED = 72;
  const height = $derived(oneLine ? 21 : 38);
  const width = $derived(Math.max(60, way.width + (way.end === 'cannot tell' ? DOTTED : 0)));
  const last = $derived(way.treads[way.treads.length - 1]);
  const label = $derived(way.treads.map((t) => t.label).join(', then '));
</script>

<span class="way" class:one={oneLine}>
  <svg
    {width}
    {height}
    viewBox="0 0 {width} {height}"
    role="img"
    aria-label="The way: {label}{way.words ? `, ${way.words}` : ''}"
  >
    {#each way.treads as tread, i (i)}
      {#if tread.riser === 'whole'}
        <path class="climb" d="M{tread.x0} {(way.treads[i - 1]?.y ?? tread.y) + 1.5}V{tread.y}" />
      {:else if tread.riser === 'broken'}
        <path
          class="climb"
          d="M{tread.x0} {(way.treads[i - 1]?.y ?? tread.y) + 1.5}v-3 M{tread.x0} {tread.y +
            2}V{tread.y} M{tread.x0 - 6} {((way.treads[i - 1]?.y ?? 0) + tread.y) / 2 - 1}h12"
        />
      {/if}
      <path
        class={tread.ink ? 'stand' : 'climb'}
        class:later={way.end === 'not yet' && !tread.ink}
        d="M{tread.x0} {tread.y}H{tread.riser === 'edition' ? tread.x0 + 12 : tread.x1}"
      />
      {#if tread.patched}<circle class="patch" cx={tread.x1 - 7} cy={tread.y} r="2.6" />{/if}
      {#if tread.riser === 'edition'}<rect
          class="square"
          x={tread.x0}
          y={tread.y - 4}
          width="8"
          height="8"
        />{/if}
      <text
        class:last={tread.last}
        class:old={tread.ink}
        x={tread.riser === 'edition' ? tread.x0 + 14 : tread.x0 + 6}
        y={tread.riser === 'edition' ? tread.y + 4 : tread.y - 4}>{tread.label}</text
      >
    {/each}
    {#if way.end === 'closed' && last}
      <path class="post" d="M{last.x1} {last.y - 7}v11" />
    {:else if way.end === 'cannot tell' && last}
      <path class="dotted" d="M{last.x1 + 4} {last.y}h{DOTTED - 8}" />
    {/if}
  </svg>
  {#if way.words}<span class="words" title={way.words}>{way.words}</span>{/if}
</span>

<style>
  .way {
    display: flex;
    align-items: flex-end;
    gap: 4px;
    min-width: 0;
  }
  svg {
    flex: none;
    overflow: visible;
  }
  path {
    fill: none;
    stroke-width: 2.6;
  }
  .one path {
    stroke-width: 2;
  }
  .stand,
  .post {
    stroke: var(--ink);
  }
  .climb {
    stroke: var(--way);
  }
  .later {
    stroke-dasharray: 6 3;
  }
  .dotted {
    stroke: var(--soft);
    stroke-dasharray: 2 4;
  }
  .patch {
    fill: var(--way);
  }
  .square {
    fill: var(--paper);
    stroke: var(--way);
    stroke-width: 2;
  }
  text {
    font-family: var(--font-mono);
    font-size: 12.5px;
    fill: var(--ink);
  }
  .one text {
    font-size: 11.5px;
  }
  text.last {
    font-weight: 700;
  }
  .words {
    color: var(--soft);
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    padding-bottom: 6px;
    min-width: 0;
    margin-left: -2px;
  }
  .one .words {
    padding-bottom: 1px;
  }
</style>
