<script lang="ts">
  import { sayCount } from '$core/wording';

  import { words } from '$lib/state/words.svelte';
  import { downloadBlob, downloadText } from '$lib/state/download';
  import { drawingAsPng, drawingAsSvg } from './export-drawing';
  import type { StairLayout } from './layout';

  /** What can be done with the drawing: another form of it, its axis, files, paper. */
  let {
    layout,
    compareHref,
    asTable = $bindable(),
    name,
    isBent,
    onbend
  }: {
    layout: StairLayout | undefined;
    compareHref: string;
    asTable: boolean;
    /** Of the files, without ending. */
    name: string;
    /** Somebody has moved the axis. */
    isBent: boolean;
    onbend: (change: { days?: number; zoom?: number } | undefined) => void;
  } = $props();

  async function takeOut(kind: 'svg' | 'png'): Promise<void> {
    const svg = document.querySelector<SVGSVGElement>('svg.stair');
    if (!svg) return;
    if (kind === 'svg') return downloadText(`${name}.svg`, drawingAsSvg(svg), 'image/svg+xml');
    try {
      downloadBlob(`${name}.png`, await drawingAsPng(svg));
    } catch {
      words.fault = 'This browser cannot draw the picture as PNG. SVG works.';
    }
  }
</script>

<p class="tools no-print">
  <button class="act" aria-pressed={asTable} onclick={() => (asTable = !asTable)}
    >{asTable ? 'As a drawing' : 'As a table'}</button
  >
  <a class="act" href={compareHref}>Compare <kbd>c</kbd></a>
  {#if layout && !asTable}
    <span class="axis" role="group" aria-label="Time">
      <button class="act" aria-label="Earlier" onclick={() => onbend({ days: -30 })}>←</button>
      <button class="act" aria-label="Later" onclick={() => onbend({ days: 30 })}>→</button>
      <button class="act" aria-label="More of it" onclick={() => onbend({ zoom: 0.8 })}>−</button>
      <button class="act" aria-label="Closer" onclick={() => onbend({ zoom: 1.25 })}>+</button>
      {#if isBent}<button class="act" onclick={() => onbend(undefined)}>Around the work</button>{/if}
    </span>
    <button class="act" onclick={() => void takeOut('svg')}>SVG</button>
    <button class="act" onclick={() => void takeOut('png')}>PNG</button>
  {/if}
  <button class="act" onclick={() => window.print()}>Print</button>
  {#if layout && layout.olderHidden > 0}<span class="soft"
      >{sayCount(layout.olderHidden, 'older release')} not drawn</span
    >{/if}
</p>

<style>
  .tools {
    display: flex;
    gap: 6px;
    flex-wrap: wrap;
    align-items: center;
    margin-top: 6px;
  }
  .tools .act {
    padding: 1px 8px;
    font-size: 12.5px;
  }
  .axis {
    display: inline-flex;
    gap: 3px;
    margin: 0 6px;
  }
</style>
