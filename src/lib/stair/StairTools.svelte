<script lang="ts">
  import { Button, Group, Keys, Menu } from '$lib/kit';
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

<div class="tools no-print">
  <Button aria-pressed={asTable} onclick={() => (asTable = !asTable)}
    >{asTable ? 'As a drawing' : 'As a table'}</Button
  >
  <a class="act" href={compareHref}>Compare <Keys keys="c" /></a>
  {#if layout && !asTable}
    <Group class="axis" aria-label="Time">
      <Button aria-label="Earlier" onclick={() => onbend({ days: -30 })}>←</Button>
      <Button aria-label="Later" onclick={() => onbend({ days: 30 })}>→</Button>
      <Button aria-label="More of it" onclick={() => onbend({ zoom: 0.8 })}>−</Button>
      <Button aria-label="Closer" onclick={() => onbend({ zoom: 1.25 })}>+</Button>
      {#if isBent}<Button onclick={() => onbend(undefined)}>Around the work</Button>{/if}
    </Group>
  {/if}
  <Menu
    label="Take out"
    items={[
      ...(layout && !asTable
        ? ([
            ['Drawing as SVG', () => void takeOut('svg')],
            ['Picture as PNG', () => void takeOut('png')]
          ] as const)
        : []),
      ['Print', () => window.print()]
    ]}
  />
  {#if layout && layout.olderHidden > 0}<span class="soft"
      >{sayCount(layout.olderHidden, 'older release')} not drawn</span
    >{/if}
</div>

<style>
  .tools {
    display: flex;
    gap: 6px;
    flex-wrap: wrap;
    align-items: center;
    margin-top: 6px;
  }
  .tools :global(.act) {
    padding: 1px 8px;
    font-size: 12.5px;
  }
  .tools :global(.axis) {
    display: inline-flex;
    gap: 3px;
    margin: 0 6px;
  }
</style>
