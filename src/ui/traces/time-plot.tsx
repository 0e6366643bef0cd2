'use client';

import { Box } from '@mui/material';
import { useColorScheme } from '@mui/material/styles';
import { useCallback, useEffect, useRef } from 'react';
import { fromSI, unitFor, type Quantity, type UnitSet } from '@/core/quantities/units';
import type { Yielded } from '@/core/records/trace-record';
import type { Stretch } from '@/core/signals/analysis';
import type { TraceRecord } from '@/core/records/trace-record';
import { useSettings } from '../settings-context';
import { readEnvelope, type Envelope } from '@/core/signals/overview';
import { inkFor } from './channel-ink';
import { columnsFor, type Columns } from './envelope';
import { inkOf, useChart, type PlotOption } from './use-chart';

/** A trace to be drawn, and how far it is moved in time to lie over another. */
export interface DrawnTrace {
  readonly id: string;
  readonly record: TraceRecord;
  readonly shift_s: number;
}

interface TimePlotProps {
  readonly trace: DrawnTrace;
  readonly other: DrawnTrace | null;
  readonly stretches: readonly Stretch[];
  readonly chosen: Yielded | null;
  readonly onMoment: (at_s: number) => void;
  readonly onOption: (option: PlotOption) => void;
}

const COLUMNS = 1100;
/** How long a view rests before its readings are fetched, ms. */
const RESTS_MS = 120;
const DETAIL_BUCKETS = 8192;

/** Everything against time: pressures above, vacuum below, drawn from least and greatest so that no spike is lost. */
export function TimePlot({ trace, other, stretches, chosen, onMoment, onOption }: TimePlotProps) {
  const { unitSet } = useSettings();
  const { element, chart } = useChart();
  const { mode, systemMode } = useColorScheme();
  const scheme = mode === 'system' ? systemMode : mode;
  const data = useRef(new Map<string, { whole: Envelope | null; detail: Envelope | null }>());
  const end_s = trace.record.duration_s;
  const view = useRef<readonly [number, number]>([0, end_s]);

  const fetchDetail = useCallback(async (drawn: DrawnTrace) => {
    const held = data.current.get(drawn.id);
    const [from, to] = view.current.map((t) => t - drawn.shift_s) as [number, number];
    if (!held?.whole) return false;
    const width = (held.whole.to_s - held.whole.from_s) / held.whole.buckets;
    const wanted = (to - from) / COLUMNS;
    if (
      wanted >= width ||
      (held.detail &&
        held.detail.from_s <= from &&
        held.detail.to_s >= to &&
        (held.detail.to_s - held.detail.from_s) / held.detail.buckets <= wanted * 1.01)
    )
      return false;
    const beside = (to - from) / 2;
    const asked = new URLSearchParams({
      from: String(Math.max(0, from - beside)),
      to: String(to + beside),
      buckets: String(DETAIL_BUCKETS),
    });
    const answer = await fetch(`/api/v1/traces/${drawn.id}/window?${asked}`);
    if (!answer.ok) return false;
    held.detail = readEnvelope(await answer.arrayBuffer());
    return true;
  }, []);

  useEffect(() => {
    if (!chart) return;
    let gone = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const drawnTraces = [trace, ...(other ? [other] : [])];
    const draw = () => {
      const option = optionOf({
        traces: drawnTraces,
        stretches,
        chosen,
        unitSet,
        data: data.current,
        view,
        height: chart.getHeight(),
      });
      chart.setOption(option, { notMerge: true });
      chart.dispatchAction({ type: 'dataZoom', startValue: view.current[0], endValue: view.current[1] });
      onOption(option);
    };
    const rested = () => {
      clearTimeout(timer);
      timer = setTimeout(() => {
        void Promise.all(drawnTraces.map(fetchDetail)).then((fetched) => {
          if (!gone && fetched.some(Boolean))
            chart.setOption({ series: seriesOf(drawnTraces, data.current, view, unitSet) });
        });
      }, RESTS_MS);
    };
    const zoomed = () => {
      const [zoom] = (chart.getOption() as { dataZoom: { startValue: number; endValue: number }[] }).dataZoom;
      if (!zoom) return;
      view.current = [zoom.startValue, zoom.endValue];
      rested();
    };
    const pressed = (event: { offsetX: number; offsetY: number }) => {
      const at = chart.convertFromPixel({ xAxisIndex: 0 }, event.offsetX) as unknown as number;
      if (Number.isFinite(at)) onMoment(at);
    };
    chart.on('datazoom', zoomed);
    chart.getZr().on('click', pressed as never);
    void Promise.all(
      drawnTraces.map(async ({ id }) => {
        if (data.current.get(id)?.whole) return;
        const answer = await fetch(`/api/v1/traces/${id}/overview`);
        if (answer.ok)
          data.current.set(id, { whole: readEnvelope(await answer.arrayBuffer()), detail: null });
      }),
    ).then(() => {
      if (gone) return;
      if (chosen) view.current = around(chosen, end_s);
      draw();
      rested();
    });
    return () => {
      gone = true;
      clearTimeout(timer);
      chart.off('datazoom', zoomed);
      chart.getZr().off('click', pressed as never);
    };
  }, [chart, trace, other, stretches, chosen, unitSet, scheme, end_s, fetchDetail, onMoment, onOption]);

  return (
    <Box
      ref={element}
      role="img"
      aria-label={`${trace.record.channels.map(({ name }) => name).join(', ')} against time`}
      sx={{ width: '100%', height: '100%', minHeight: 420 }}
    />
  );
}

/** A stretch with some room on both sides. */
function around({ from_s, to_s }: Yielded, end_s: number): readonly [number, number] {
  const beside = 0.15 * (to_s - from_s) + 0.5;
  return [Math.max(0, from_s - beside), Math.min(end_s, to_s + beside)];
}

type Held = ReadonlyMap<string, { whole: Envelope | null; detail: Envelope | null }>;
type View = { readonly current: readonly [number, number] };

interface Scene {
  readonly traces: readonly DrawnTrace[];
  readonly stretches: readonly Stretch[];
  readonly chosen: Yielded | null;
  readonly unitSet: UnitSet;
  readonly data: Held;
  readonly view: View;
  /** Of the whole chart, px. */
  readonly height: number;
}

function seriesOf(traces: readonly DrawnTrace[], data: Held, view: View, unitSet: UnitSet): object[] {
  const panels = panelsOf(traces);
  return traces.flatMap((trace, k) =>
    trace.record.channels.map((channel, c) => {
      const grid = panels.indexOf(channel.quantity);
      const color = inkOf(inkFor(channel.port));
      const unit = unitFor(channel.quantity, unitSet);
      return {
        id: `${trace.id}-${c}`,
        type: 'custom',
        xAxisIndex: grid,
        yAxisIndex: grid,
        silent: true,
        clip: true,
        z: k === 0 ? 3 : 2,
        data: [[0, 0]],
        renderItem: (_params: unknown, api: { coord: (point: readonly number[]) => number[] }) => {
          const held = data.get(trace.id);
          if (!held?.whole) return null;
          const own = [view.current[0] - trace.shift_s, view.current[1] - trace.shift_s] as const;
          const fine = held.detail;
          const source =
            fine && fine.from_s <= own[0] && fine.to_s >= Math.min(own[1], held.whole.to_s)
              ? fine
              : held.whole;
          const columns = columnsFor(source, c, own, COLUMNS);
          // Two corners of the plane say where everything lies: the axes are straight.
          const [x0, y0] = api.coord([0, 0]) as [number, number];
          const [x1, y1] = api.coord([1, 1]) as [number, number];
          const x = (t: number) => x0 + (x1 - x0) * (t + trace.shift_s);
          const y = (value: number) => y0 + (y1 - y0) * fromSI(value, unit);
          const style = { opacity: k === 0 ? 1 : 0.45 };
          if (columns.count < FEW)
            return {
              type: 'polyline',
              shape: { points: middles(columns, x, y) },
              style: { ...style, fill: 'none', stroke: color, lineWidth: 1.4 },
            };
          return {
            type: 'polygon',
            shape: { points: outline(columns, x, y) },
            style: { ...style, fill: color },
          };
        },
      };
    }),
  );
}

/** Fewer readings than this are joined by lines. */
const FEW = 350;
/** Half of the thickness of a line, pixels. */
const HALF_LINE = 0.7;

type Place = (value: number) => number;

const middles = ({ count, at_s, low, high }: Columns, x: Place, y: Place): number[][] =>
  Array.from({ length: count }, (_, i) => [x(at_s[i]!), y((low[i]! + high[i]!) / 2)]);

/**
 * The outline of all columns, to be filled: along the tops and back along the bottoms. Filling it costs a small part
 * of stroking a line that runs up and down in every column.
 */
function outline({ count, at_s, half_s, low, high }: Columns, x: Place, y: Place): number[][] {
  const points: number[][] = [];
  for (let i = 0; i < count; i += 1) {
    const top = y(high[i]!) - HALF_LINE;
    points.push([x(at_s[i]! - half_s), top], [x(at_s[i]! + half_s), top]);
  }
  for (let i = count - 1; i >= 0; i -= 1) {
    const bottom = y(low[i]!) + HALF_LINE;
    points.push([x(at_s[i]! + half_s), bottom], [x(at_s[i]! - half_s), bottom]);
  }
  return points;
}

/** Quantities in the order in which their panels stand, fluid on top. */
const PANEL_ORDER: readonly Quantity[] = ['pressure', 'force', 'volume', 'length', 'depression'];
/** Height of a panel beside the others. */
const tallness = (quantity: Quantity) => (quantity === 'depression' ? 1 : 2);
/** Above the first panel, between two, and below the last, px. */
const ROOM = { top: 34, between: 34, bottom: 46 };

/** What is drawn in panels of their own: the quantities of all traces shown. */
function panelsOf(traces: readonly DrawnTrace[]): Quantity[] {
  const all = [...new Set(traces.flatMap(({ record }) => record.channels.map(({ quantity }) => quantity)))];
  const place = (quantity: Quantity) => PANEL_ORDER.indexOf(quantity) + 1 || PANEL_ORDER.length + 1;
  return all.sort((a, b) => place(a) - place(b));
}

function optionOf({ traces, stretches, chosen, unitSet, data, view, height }: Scene): PlotOption {
  const [trace] = traces as [DrawnTrace];
  const ink = inkOf('--hp-line');
  const quiet = inkOf('--hp-quiet');
  const { channels, duration_s, notes } = trace.record;
  const panels = panelsOf(traces);
  const last = panels.length - 1;
  const unit = (quantity: Quantity) => unitFor(quantity, unitSet);
  const range = (panel: Quantity) => {
    const mine = channels.flatMap(({ quantity }, c) => (quantity === panel ? [c] : []));
    const whole = data.get(trace.id)?.whole;
    const top = Math.max(1e-9, ...mine.map((c) => greatestOf(whole?.greatest[c] ?? new Float32Array())));
    return { min: 0, max: niceTop(fromSI(top, unit(panel))) };
  };
  const free = Math.max(120, height - ROOM.top - ROOM.bottom - ROOM.between * last);
  const parts = panels.map(tallness);
  const whole = parts.reduce((sum, part) => sum + part, 0);
  // As parts of the height: the panels keep them when the window, or the paper, is of another size.
  const part = (pixels: number) => `${(100 * pixels) / height}%`;
  const grids = panels.map((_, i) => {
    const above = parts.slice(0, i).reduce((sum, part) => sum + part, 0);
    return {
      left: 64,
      right: 20,
      top: part(ROOM.top + (free * above) / whole + ROOM.between * i),
      height: part((free * parts[i]!) / whole),
    };
  });
  const xAxis = (_: Quantity, i: number) => ({
    type: 'value',
    gridIndex: i,
    min: 0,
    max: duration_s,
    axisLine: { lineStyle: { color: ink } },
    axisLabel: { show: i === last, showMinLabel: false, showMaxLabel: false, color: ink, fontSize: 13 },
    splitLine: { lineStyle: { color: quiet, opacity: 0.16 } },
    name: i === last ? 'Time, s' : '',
    nameLocation: 'middle',
    nameGap: 30,
    nameTextStyle: { color: ink, fontSize: 14, fontWeight: 600 },
  });
  const yAxis = (quantity: Quantity, i: number) => ({
    type: 'value',
    gridIndex: i,
    ...range(quantity),
    name: unit(quantity).symbol,
    nameTextStyle: { color: ink, fontSize: 13, align: 'right' },
    axisLine: { show: true, lineStyle: { color: ink } },
    axisLabel: { color: ink, fontSize: 13 },
    splitLine: { lineStyle: { color: quiet, opacity: 0.22 } },
  });
  const quantityOf = (port: string) => channels.find((channel) => channel.port === port)?.quantity;
  const fits = stretches.flatMap((stretch, i) =>
    stretch.lines.flatMap((line, k) => {
      const quantity = quantityOf(line.port);
      if (line.on !== 'time' || !quantity) return [];
      const panel = panels.indexOf(quantity);
      return [
        {
          id: `fit-${i}-${k}`,
          type: 'line',
          xAxisIndex: panel,
          yAxisIndex: panel,
          symbol: 'none',
          silent: true,
          z: 4,
          data: line.points.map(([t, y]) => [t, fromSI(y, unit(quantity))]),
          lineStyle: { color: ink, width: stretch === chosen ? 2.6 : 1.6, type: [7, 4] },
        },
      ];
    }),
  );
  const marks = {
    id: 'marks',
    type: 'line',
    data: [],
    xAxisIndex: 0,
    yAxisIndex: 0,
    markArea: {
      silent: true,
      itemStyle: { color: inkOf('--hp-band') },
      data: [
        ...(chosen ? [[{ xAxis: chosen.from_s }, { xAxis: chosen.to_s }]] : []),
        ...notes.flatMap(({ at_s, to_s }) =>
          to_s === undefined
            ? []
            : [
                [
                  { xAxis: at_s, itemStyle: { color: inkOf('--mui-palette-warning-main'), opacity: 0.16 } },
                  { xAxis: to_s },
                ],
              ],
        ),
      ],
    },
    markLine: {
      symbol: ['none', 'none'],
      silent: true,
      lineStyle: { color: inkOf('--mui-palette-warning-main'), type: 'solid', width: 1.4 },
      label: {
        color: ink,
        fontSize: 13,
        formatter: ({ dataIndex }: { dataIndex: number }) => String(dataIndex + 1),
      },
      data: notes.map(({ at_s }) => ({ xAxis: at_s })),
    },
  };
  return {
    animation: false,
    textStyle: { fontFamily: 'Atkinson Hyperlegible Next Variable, sans-serif' },
    grid: grids,
    xAxis: panels.map(xAxis),
    yAxis: panels.map(yAxis),
    dataZoom: [
      {
        type: 'inside',
        xAxisIndex: panels.map((_, i) => i),
        filterMode: 'none',
        startValue: view.current[0],
        endValue: view.current[1],
      },
    ],
    series: [...seriesOf(traces, data, view, unitSet), ...fits, marks],
  };
}

function greatestOf(values: Float32Array): number {
  let top = 0;
  for (const value of values) if (value > top) top = value;
  return top;
}

/** A round number a little above. */
function niceTop(top: number): number {
  const power = 10 ** Math.floor(Math.log10(top));
  return (
    [1, 1.2, 1.5, 2, 2.5, 3, 4, 5, 6, 8, 10].map((lead) => lead * power).find((n) => n >= 1.02 * top) ??
    10 * power
  );
}
