'use client';

import { Box } from '@mui/material';
import { useColorScheme } from '@mui/material/styles';
import { useEffect, useMemo } from 'react';
import type { CurvePoint } from '@/core/families/expected-curve';
import { fromSI, unitFor, type Unit } from '@/core/quantities/units';
import type { Yielded } from '@/core/records/trace-record';
import type { Stretch } from '@/core/signals/analysis';
import type { Channel } from '@/core/signals/trace';
import { useSettings } from '../settings-context';
import { inkOf, useChart, type PlotOption } from './use-chart';

interface CurvePlotProps {
  readonly stretches: readonly Stretch[];
  /** The trace laid beside it. */
  readonly others: readonly Stretch[];
  readonly expected: readonly CurvePoint[];
  /** What stands on the axes, by port. */
  readonly channels: readonly Pick<Channel, 'name' | 'port' | 'quantity'>[];
  readonly chosen: Yielded | null;
  /** Told of what is drawn, so that it can be saved. */
  readonly onOption: (option: PlotOption) => void;
}

/** Output against input: readings as dots, fitted lines through them, the healthy unit's band behind. */
export function CurvePlot({ stretches, others, expected, channels, chosen, onOption }: CurvePlotProps) {
  const { unitSet } = useSettings();
  const { element, chart } = useChart();
  const { mode, systemMode } = useColorScheme();
  const axes = useMemo(() => {
    const axis = (port: string, name: string) => {
      const channel = channels.find((one) => one.port === port);
      const unit = unitFor(channel?.quantity ?? 'pressure', unitSet);
      return { unit, name: channel?.quantity === 'force' ? 'Force' : name };
    };
    return { across: axis('input', 'Input'), up: axis('output', 'Output') };
  }, [channels, unitSet]);
  const drawn = useMemo(
    () => ({ stretches, others, expected, chosen, axes, scheme: mode === 'system' ? systemMode : mode }),
    [stretches, others, expected, chosen, axes, mode, systemMode],
  );
  useEffect(() => {
    if (!chart) return;
    const option = optionOf(drawn);
    chart.setOption(option, { notMerge: true });
    onOption(option);
  }, [chart, drawn, onOption]);
  return (
    <Box
      ref={element}
      role="img"
      aria-label={`${axes.up.name} against ${axes.across.name.toLowerCase()}, ${axes.up.unit.symbol}: ${stretches.length} stretches`}
      sx={{ width: '100%', height: '100%', minHeight: 380 }}
    />
  );
}

interface Axis {
  readonly unit: Unit;
  readonly name: string;
}

const titleOf = ({ name, unit }: Axis) => `${name}, ${unit.symbol}`;

interface Drawn extends Omit<CurvePlotProps, 'onOption' | 'channels'> {
  readonly axes: { readonly across: Axis; readonly up: Axis };
}

function optionOf({ stretches, others, expected, chosen, axes }: Drawn): PlotOption {
  const ink = inkOf('--hp-line');
  const output = inkOf('--hp-output');
  const quiet = inkOf('--hp-quiet');
  const brass = inkOf('--mui-palette-warning-main');
  const across = (value: number) => Number(fromSI(value, axes.across.unit).toPrecision(6));
  const up = (value: number) => Number(fromSI(value, axes.up.unit).toPrecision(6));
  const pairs = (points: readonly (readonly [number, number])[]) =>
    points.map(([x, y]) => [across(x), up(y)]);
  const drawn = stretches.some((one) => one === chosen);
  const faded = (stretch: Stretch) => (drawn && stretch !== chosen ? 0.18 : 1);
  const series = [
    // The band is the healthy unit's low with the width of it stacked on top.
    ...(expected.length > 0
      ? [
          plain(
            'band-low',
            expected.map((p) => [across(p.input), up(p.low)]),
            { stack: 'band', lineStyle: { opacity: 0 } },
          ),
          plain(
            'band',
            expected.map((p) => [across(p.input), up(p.high - p.low)]),
            {
              stack: 'band',
              lineStyle: { opacity: 0 },
              areaStyle: { color: inkOf('--hp-band'), opacity: 1 },
            },
          ),
          plain(
            'expected',
            expected.map((p) => [across(p.input), up(p.expected)]),
            {
              lineStyle: { color: inkOf('--mui-palette-success-main'), width: 1.2, type: [6, 4] },
            },
          ),
        ]
      : []),
    ...others.flatMap((stretch, i) => [
      dots(`other-${i}`, pairs(stretch.points), brass, stretch.kind === 'let down', 0.55),
      ...stretch.lines.map((line, k) =>
        plain(`other-line-${i}-${k}`, pairs(line.points), { lineStyle: { color: brass, width: 1.6 } }),
      ),
    ]),
    ...stretches.flatMap((stretch, i) => [
      dots(`readings-${i}`, pairs(stretch.points), output, stretch.kind === 'let down', faded(stretch)),
      ...stretch.lines
        .filter(({ on }) => on === 'input-output')
        .map((line, k) =>
          plain(`line-${i}-${k}`, pairs(line.points), {
            lineStyle: { color: ink, width: stretch === chosen ? 2.4 : 1.4, opacity: faded(stretch) },
          }),
        ),
    ]),
  ];
  const axis = (name: string) => ({
    type: 'value',
    name,
    nameLocation: 'middle',
    nameTextStyle: { color: ink, fontSize: 14, fontWeight: 600 },
    axisLine: { show: true, lineStyle: { color: ink } },
    axisTick: { show: true },
    axisLabel: { color: ink, fontSize: 13 },
    splitLine: { lineStyle: { color: quiet, opacity: 0.22 } },
    min: 0,
  });
  return {
    animation: false,
    textStyle: { fontFamily: 'Atkinson Hyperlegible Next Variable, sans-serif' },
    grid: { left: 64, right: 20, top: 16, bottom: 52 },
    xAxis: { ...axis(titleOf(axes.across)), nameGap: 32 },
    yAxis: { ...axis(titleOf(axes.up)), nameGap: 44 },
    dataZoom: [
      { type: 'inside', xAxisIndex: 0, filterMode: 'none' },
      { type: 'inside', yAxisIndex: 0, filterMode: 'none', zoomOnMouseWheel: 'shift' },
    ],
    series,
  };
}

const plain = (id: string, data: readonly (readonly number[])[], more: object) => ({
  id,
  type: 'line',
  data,
  symbol: 'none',
  silent: true,
  z: 3,
  ...more,
});

/** Dots that are filled going up and open coming down: never told apart by colour alone. */
const dots = (
  id: string,
  data: readonly (readonly number[])[],
  color: string,
  open: boolean,
  opacity: number,
) => ({
  id,
  type: 'scatter',
  data,
  silent: true,
  symbol: 'circle',
  symbolSize: open ? 5.5 : 4,
  itemStyle: open
    ? { color: 'transparent', borderColor: color, borderWidth: 1, opacity }
    : { color, opacity: 0.75 * opacity },
  z: 2,
});
