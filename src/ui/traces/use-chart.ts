'use client';

import type { EChartsType } from 'echarts/core';
import { useEffect, useRef, useState } from 'react';

/** What a plot is drawn from. */
export type PlotOption = Record<string, unknown>;

/** The parts of the chart package that the plots use, fetched when a plot is first shown. */
async function charts() {
  const [core, chartKinds, components, renderers] = await Promise.all([
    import('echarts/core'),
    import('echarts/charts'),
    import('echarts/components'),
    import('echarts/renderers'),
  ]);
  core.use([
    chartKinds.CustomChart,
    chartKinds.LineChart,
    chartKinds.ScatterChart,
    components.DataZoomComponent,
    components.GridComponent,
    components.MarkAreaComponent,
    components.MarkLineComponent,
    renderers.CanvasRenderer,
    renderers.SVGRenderer,
  ]);
  return core;
}

/** A chart in an element: made when the element stands, sized with it, thrown away with it. */
export function useChart() {
  const element = useRef<HTMLDivElement>(null);
  const [chart, setChart] = useState<EChartsType | null>(null);
  useEffect(() => {
    let made: EChartsType | null = null;
    let gone = false;
    const watch = new ResizeObserver(() => made?.resize());
    void charts().then(({ init }) => {
      if (gone || !element.current) return;
      made = init(element.current, undefined, { renderer: 'canvas' });
      watch.observe(element.current);
      setChart(made);
    });
    return () => {
      gone = true;
      watch.disconnect();
      made?.dispose();
    };
  }, []);
  return { element, chart };
}

/** The same picture as a drawing of lines, for paper. */
export async function drawingOf(option: PlotOption, width: number, height: number): Promise<string> {
  const { init } = await charts();
  const chart = init(null, undefined, { renderer: 'svg', ssr: true, width, height });
  chart.setOption(option);
  const svg = chart.renderToSVGString();
  chart.dispose();
  return svg;
}

/** A colour of the theme as it stands now: a canvas knows no variables. */
export const inkOf = (variable: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(variable).trim() || '#1e2426';
