'use client';

import { Box } from '@mui/material';
import { expectedCurve } from '@/core/families/expected-curve';
import { FAMILIES } from '@/core/families/registry';
import { instrumentsOf, measuredItem, zeroGate } from '@/core/procedure/measured-item';
import { reduceRun } from '@/core/procedure/run';
import { fromSI, unitFor } from '@/core/quantities/units';
import type { StoredRun } from '@/core/records/views';
import { placeOf } from '@/core/twin/family';
import { usePrint } from './settings-context';

const WIDTH = 640;
const HEIGHT = 330;
const LEFT = 52;
const BOTTOM = 42;

/** Output against input: what a healthy unit gives on the supply read, its band and runout, and what was measured. */
export function RatioChart({ run }: { run: StoredRun }) {
  const { unitSet, value } = usePrint();
  const family = FAMILIES[run.kind];
  const { context } = run;
  const instruments = instrumentsOf(context.rig, context.shelf);
  const state = reduceRun(context.procedure, run.events, zeroGate(instruments));
  const read = (id: string) => measuredItem(instruments, state, id)?.value_Pa ?? null;
  const supply_Pa = read('full.supply') ?? read('rest.supply');
  const points = context.procedure.steps.flatMap(({ items }) =>
    items.flatMap((item) => {
      if (
        item.kind !== 'reading' ||
        item.port !== 'output' ||
        !item.inputFrom ||
        item.measures === 'outputPassed' ||
        item.elapsed_s !== undefined
      )
        return [];
      const input_Pa = read(item.inputFrom);
      const output_Pa = read(item.id);
      return input_Pa === null || output_Pa === null
        ? []
        : [{ input_Pa, output_Pa, down: item.measures === 'outputReleasing' }];
    }),
  );
  if (supply_Pa === null || points.length === 0)
    return <p>Nothing was measured under vacuum, so there is nothing to compare.</p>;
  const greatest_Pa = 1.12 * Math.max(...points.map((point) => point.input_Pa));
  const curve = expectedCurve(family, context, 'output', supply_Pa, greatest_Pa);
  const top_Pa =
    1.05 * Math.max(...curve.map((point) => point.high_Pa), ...points.map((point) => point.output_Pa));
  const unit = unitFor('pressure', unitSet);
  const x = (input_Pa: number) => LEFT + ((WIDTH - LEFT - 12) * input_Pa) / greatest_Pa;
  const y = (output_Pa: number) => 12 + (HEIGHT - BOTTOM - 12) * (1 - output_Pa / top_Pa);
  const path = (of: (point: (typeof curve)[number]) => number) =>
    curve.map((p, i) => `${i === 0 ? 'M' : 'L'}${x(p.input_Pa).toFixed(1)} ${y(of(p)).toFixed(1)}`).join(' ');
  const band = `${path((p) => p.high_Pa)} ${[...curve]
    .reverse()
    .map((p) => `L${x(p.input_Pa).toFixed(1)} ${y(p.low_Pa).toFixed(1)}`)
    .join(' ')} Z`;
  const runout_Pa = family.steady(
    family.healthy(context.profile).values,
    family.inputs.map(({ id }) => (id === 'supply_Pa' ? supply_Pa : 0)),
  )[placeOf(family.readings, 'runoutInput')]!;
  const ticks = (full: number) => {
    const step = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000].find((s) => full / s <= 9) ?? 2000;
    return Array.from({ length: Math.floor(full / step) + 1 }, (_, i) => i * step);
  };
  const label = `Output against input at ${value(supply_Pa, 'depression')}: ${points.length} points measured; a healthy unit runs out at ${value(runout_Pa, 'pressure')} in.`;
  return (
    <Box component="figure" sx={{ m: 0, breakInside: 'avoid' }}>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={label}
        style={{ width: '100%', maxWidth: WIDTH }}
      >
        {ticks(fromSI(top_Pa, unit)).map((tick) => (
          <g key={`y${tick}`}>
            <line
              x1={LEFT}
              x2={WIDTH - 12}
              y1={y(tick * unit.factor)}
              y2={y(tick * unit.factor)}
              stroke="var(--mui-palette-divider)"
            />
            <text
              x={LEFT - 6}
              y={y(tick * unit.factor) + 4}
              textAnchor="end"
              fontSize="12"
              fill="currentColor"
            >
              {tick}
            </text>
          </g>
        ))}
        {ticks(fromSI(greatest_Pa, unit)).map((tick) => (
          <text
            key={`x${tick}`}
            x={x(tick * unit.factor)}
            y={HEIGHT - BOTTOM + 18}
            textAnchor="middle"
            fontSize="12"
            fill="currentColor"
          >
            {tick}
          </text>
        ))}
        <path d={band} fill="var(--hp-band)" />
        <path
          d={path((p) => p.expected_Pa)}
          fill="none"
          stroke="var(--hp-output)"
          strokeWidth="1.8"
          strokeDasharray="6 4"
        />
        {runout_Pa < greatest_Pa && (
          <>
            <line
              x1={x(runout_Pa)}
              x2={x(runout_Pa)}
              y1={12}
              y2={HEIGHT - BOTTOM}
              stroke="currentColor"
              strokeDasharray="2 3"
            />
            <text
              x={x(runout_Pa) - 5}
              y={HEIGHT - BOTTOM - 8}
              textAnchor="end"
              fontSize="12"
              fill="currentColor"
            >
              runout expected
            </text>
          </>
        )}
        {points.map((point, i) => (
          <circle
            key={i}
            cx={x(point.input_Pa)}
            cy={y(point.output_Pa)}
            r="4.5"
            fill={point.down ? 'var(--mui-palette-background-default)' : 'var(--hp-output)'}
            stroke="var(--hp-output)"
            strokeWidth="2"
          />
        ))}
        <text x={(LEFT + WIDTH) / 2} y={HEIGHT - 6} textAnchor="middle" fontSize="12.5" fill="currentColor">
          Input, {unit.symbol}
        </text>
        <text
          x={14}
          y={HEIGHT / 2}
          textAnchor="middle"
          fontSize="12.5"
          fill="currentColor"
          transform={`rotate(-90 14 ${HEIGHT / 2})`}
        >
          Output, {unit.symbol}
        </text>
      </svg>
      <Box component="figcaption" sx={{ color: 'text.secondary', fontSize: '0.9em' }}>
        Filled: measured going up. Open: coming down. Dashed: a healthy unit on the{' '}
        {value(supply_Pa, 'depression')} read; shaded: its band.
      </Box>
    </Box>
  );
}
