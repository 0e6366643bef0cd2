'use client';

import { Box } from '@mui/material';
import { useMemo } from 'react';
import type { Port } from '@/core/contract/family';
import { axis } from '@/core/plot/axes';
import { Plot } from '@/core/plot/plot';
import { useSettings } from '../settings-context';
import { useSize } from '../use-size';
import type { AtWork } from './use-showing';

const LEAST = { width: 260, height: 200 };

interface WorksCurveProps {
  readonly input: Port;
  readonly output: Port;
  /** Where the axes end, SI. */
  readonly most: { readonly input: number; readonly output: number };
  readonly trail: AtWork['trail'];
}

/** What comes out against what goes in, as it is drawn; of a unit with a fault the healthy curve beside it, broken. */
export function WorksCurve({ input, output, most, trail }: WorksCurveProps) {
  const { unitSet } = useSettings();
  const [box, size] = useSize(LEAST);
  const drawn = useMemo(() => {
    const across = axis(input.name, input.quantity!, unitSet, 0, most.input);
    const up = axis(output.name, output.quantity!, unitSet, 0, most.output);
    const plot = new Plot(across, up, {
      width: Math.max(LEAST.width, Math.floor(size.width)),
      height: Math.max(LEAST.height, Math.floor(size.height)),
    });
    const { low, high } = { low: plot.place(across.low, up.low), high: plot.place(across.high, up.high) };
    const points = (all: AtWork['trail']['own']) =>
      all
        .map(([x, y]) =>
          plot
            .place(across.at(x), up.at(y))
            .map((n) => n.toFixed(1))
            .join(','),
        )
        .join(' ');
    return { plot, points, low, high, label: `${output.name} against ${input.name.toLowerCase()}` };
  }, [input, output, most, unitSet, size]);
  const svg = useMemo(() => drawn.plot.svg(drawn.label), [drawn]);
  const end = trail.own.at(-1);
  return (
    <Box
      ref={box}
      sx={{
        position: 'relative',
        width: '100%',
        height: '100%',
        overflow: 'hidden',
        '& svg': { display: 'block' },
      }}
    >
      <div dangerouslySetInnerHTML={{ __html: svg }} />
      <svg
        width={drawn.plot.size.width}
        height={drawn.plot.size.height}
        aria-hidden
        style={{ position: 'absolute', left: 0, top: 0 }}
      >
        <polyline
          points={drawn.points(trail.healthy)}
          fill="none"
          stroke="var(--hp-quiet)"
          strokeWidth={2}
          strokeDasharray="5 4"
        />
        <polyline points={drawn.points(trail.own)} fill="none" stroke="var(--hp-output)" strokeWidth={2.4} />
        {end && <Now points={drawn.points([end])} />}
      </svg>
    </Box>
  );
}

function Now({ points }: { readonly points: string }) {
  const [x, y] = points.split(',').map(Number) as [number, number];
  return <path d={`M${x - 7} ${y} h14 M${x} ${y - 7} v14`} stroke="var(--hp-input)" strokeWidth={3} />;
}
