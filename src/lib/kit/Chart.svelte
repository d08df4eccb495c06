<script lang="ts">
  import type { EChartsType } from 'echarts/core';
  import { settings } from '$lib/state/settings.svelte';
  import { type Axis, type ChartLook, drawChart, type Series } from './chart';
  import Fold from './Fold.svelte';
  import Table from './Table.svelte';

  /**
   * A curve or bars over a figure. Arrow keys go from point to point and say it; the same stands in a table below. The library
   * that draws it is loaded when one comes to be shown.
   */
  let {
    label,
    x,
    y,
    series
  }: {
    label: string;
    /** What the axes measure, and how a figure on them is said. */
    x: Axis;
    y: Axis;
    series: readonly Series[];
  } = $props();

  let at = $state<number>();
  const points = $derived(series[0]?.points ?? []);
  const said = $derived.by(() => {
    const point = at === undefined ? undefined : points[at];
    return point ? `${x.say(point[0])}: ${y.say(point[1])}` : '';
  });

  function lookOf(node: HTMLElement): ChartLook {
    const style = getComputedStyle(node);
    const colour = (name: string): string => style.getPropertyValue(name).trim();
    return {
      ink: colour('--ink'),
      soft: colour('--soft'),
      hair: colour('--hair'),
      way: colour('--way'),
      sheet: colour('--sheet'),
      font: style.fontFamily
    };
  }

  let chart = $state.raw<EChartsType>();

  /** Draws into the element anew whenever what is shown, or the light, is another. */
  function draw(node: HTMLElement): () => void {
    let gone = false;
    void [settings.theme];
    const wanted = { x, y, series };
    void drawChart(node, wanted, lookOf(node)).then((made) => (gone ? made.dispose() : (chart = made)));
    const sized = new ResizeObserver(() => chart?.resize());
    sized.observe(node);
    return () => {
      gone = true;
      sized.disconnect();
      chart?.dispose();
      chart = undefined;
    };
  }

  function press(event: KeyboardEvent): void {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (by === undefined || points.length === 0) return;
    event.preventDefault();
    at = Math.max(0, Math.min(points.length - 1, (at ?? -1) + by));
    chart?.dispatchAction({ type: 'showTip', seriesIndex: 0, dataIndex: at });
  }
</script>

<figure class="chart">
  <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
  <div
    class="chart-room"
    tabindex="0"
    role="img"
    aria-label={`${label}. Arrow keys go from point to point.`}
    onkeydown={press}
    {@attach draw}
  ></div>
  <p class="visually-hidden" aria-live="polite">{said}</p>
  <Fold>
    {#snippet head()}As a table{/snippet}
    <Table aria-label={label}>
      <thead
        ><tr
          ><th>{x.name}</th>{#each series as s (s.name)}<th class="num">{s.name}</th>{/each}</tr
        ></thead
      >
      <tbody>
        {#each points as point, i (i)}
          <tr
            ><td>{x.say(point[0])}</td>{#each series as s (s.name)}<td class="num"
                >{y.say(s.points[i]?.[1] ?? 0)}</td
              >{/each}</tr
          >
        {/each}
      </tbody>
    </Table>
  </Fold>
</figure>
