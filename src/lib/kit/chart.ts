import type { EChartsType } from 'echarts/core';

/** Points of one curve, from left to right. */
export interface Series {
  readonly name: string;
  /** `step`: stays until the next point; `bar`: one bar a point. */
  readonly kind: 'step' | 'line' | 'bar';
  readonly points: readonly (readonly [x: number, y: number])[];
}

export interface ChartLook {
  readonly ink: string;
  readonly soft: string;
  readonly hair: string;
  readonly way: string;
  readonly sheet: string;
  readonly font: string;
}

export interface Axis {
  readonly name: string;
  /** A figure on the axis, where that is shorter than how it is said. */
  readonly mark?: (value: number) => string;
  /** It begins and ends with what is shown, not at nought. */
  readonly isTight?: boolean;
  /** Only whole figures are marked on it. */
  readonly isWhole?: boolean;
  readonly say: (value: number) => string;
}

/** Loads what draws, and draws once; no movement. Lines differ by their dashes too, never by colour alone. */
export async function drawChart(
  node: HTMLElement,
  { x, y, series }: { x: Axis; y: Axis; series: readonly Series[] },
  look: ChartLook
): Promise<EChartsType> {
  const [core, charts, components, renderers] = await Promise.all([
    import('echarts/core'),
    import('echarts/charts'),
    import('echarts/components'),
    import('echarts/renderers')
  ]);
  core.use([
    charts.LineChart,
    charts.BarChart,
    components.GridComponent,
    components.TooltipComponent,
    renderers.CanvasRenderer
  ]);
  const chart = core.init(node, undefined, { renderer: 'canvas' });
  const axis = (of: Axis, splits: boolean) => ({
    type: 'value' as const,
    name: of.name,
    ...(of.isTight ? { min: 'dataMin' as const, max: 'dataMax' as const } : {}),
    ...(of.isWhole ? { minInterval: 1 } : {}),
    nameLocation: 'middle' as const,
    nameGap: splits ? 40 : 26,
    nameTextStyle: { color: look.soft, fontFamily: look.font },
    axisLine: { lineStyle: { color: look.ink } },
    axisLabel: { color: look.soft, fontFamily: look.font, formatter: of.mark ?? of.say, hideOverlap: true },
    splitLine: { show: splits, lineStyle: { color: look.hair } }
  });
  const dashes = ['solid', 'dashed', 'dotted'] as const;
  chart.setOption({
    animation: false,
    textStyle: { fontFamily: look.font },
    grid: { left: 58, right: 24, top: 14, bottom: 44 },
    tooltip: {
      trigger: 'axis',
      // Pages allow no style in their text: the tooltip is drawn, not written.
      renderMode: 'richText',
      backgroundColor: look.sheet,
      borderColor: look.ink,
      textStyle: { color: look.ink, fontFamily: look.font, fontSize: 12.5 },
      formatter: (shown: unknown) => {
        const [first] = (Array.isArray(shown) ? shown : [shown]) as { value: readonly [number, number] }[];
        return first ? `${x.say(first.value[0])}: ${y.say(first.value[1])}` : '';
      }
    },
    xAxis: axis(x, false),
    yAxis: axis(y, true),
    series: series.map((s, i) => ({
      type: s.kind === 'bar' ? ('bar' as const) : ('line' as const),
      name: s.name,
      data: s.points.map(([a, b]) => [a, b]),
      ...(s.kind === 'step' ? { step: 'end' as const } : {}),
      symbolSize: 7,
      itemStyle: { color: i === 0 ? look.way : look.ink },
      lineStyle: {
        width: 2.5,
        type: dashes[i % dashes.length] ?? 'solid',
        color: i === 0 ? look.way : look.ink
      }
    }))
  });
  return chart;
}
