'use client';

import { Box } from '@mui/material';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { LivePorts } from '@/core/procedure/live';
import { supplied } from '@/core/contract/sources';
import type { Step } from '@/core/contract/steps';
import { curvePlot, measuredPoints, supplyRead } from '@/core/documents/ratio-svg';
import type { StoredRun } from '@/core/records/views';
import { useSettings } from '../settings-context';
import { useSize } from '../use-size';
import type { RunHandle } from './use-run';

interface LiveCurveProps {
  readonly run: RunHandle;
  readonly stored: StoredRun;
  /** What the gauges show now; null where readings are typed. */
  readonly ports: LivePorts | null;
  /** The bench contradicts the run: the curve is drawn for the supply that was read, not for what it shows. */
  readonly asRead: boolean;
}

/** A supply that moves by less than this leaves the expected curve where it is, Pa. */
const SUPPLY_STEP_PA = 500;
/** Moments of the trail behind the point of now: some four seconds. */
const TRAIL = 100;
const ROOM_BEYOND = 1.12;
/** Smallest picture in which the figures on the axes can be read, px. */
const LEAST = { width: 260, height: 170 };

/** Whether a step draws on the curve of the unit. */
export function hasCurve({ family }: RunHandle, step: Step | null): boolean {
  const { output, releasing } = family.curve;
  return Boolean(
    step?.items.some(
      (item) => item.kind === 'reading' && item.inputFrom && [output, releasing].includes(item.measures),
    ),
  );
}

/** Output against input as the test goes: the expected line with its band and bend, what was captured, where it is now. */
export function LiveCurve({ run, stored, ports, asRead }: LiveCurveProps) {
  const { unitSet } = useSettings();
  const [box, size] = useSize(LEAST);
  const { kind, context } = stored;
  const { state } = run;
  const live_Pa = supplied(state.sources) && !asRead ? ports?.supply?.value : undefined;
  const captured_Pa = supplyRead(stored, state);
  const supply_Pa =
    live_Pa === undefined ? captured_Pa : Math.max(0, SUPPLY_STEP_PA * Math.round(live_Pa / SUPPLY_STEP_PA));
  const points = useMemo(() => measuredPoints({ kind, context }, state), [kind, context, state]);
  const greatest = useMemo(() => {
    const aims = context.procedure.steps.flatMap((step) =>
      hasCurve(run, step)
        ? step.items.flatMap((item) => (item.kind === 'reading' ? (item.target_Pa ?? 0) : 0))
        : [],
    );
    return ROOM_BEYOND * (Math.max(0, ...aims, ...points.map(({ input }) => input)) || 1);
  }, [context, points, run]);
  const drawn = useMemo(
    () =>
      supply_Pa === null
        ? null
        : curvePlot({ kind, context }, points, {
            supply_Pa,
            greatest,
            set: unitSet,
            size: {
              width: Math.max(LEAST.width, Math.floor(size.width)),
              height: Math.max(LEAST.height, Math.floor(size.height)),
            },
          }),
    [kind, context, points, supply_Pa, greatest, unitSet, size],
  );
  const label = drawn ? `${drawn.against}: ${points.length} points captured` : '';
  const svg = useMemo(() => drawn?.plot.svg(label) ?? '', [drawn, label]);
  const trail = useTrail(ports?.input?.value, ports?.output?.value);
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
      {!drawn && (
        <Box sx={{ color: 'text.secondary', p: 1 }}>
          The expected curve is drawn once the supply has been read.
        </Box>
      )}
      <div dangerouslySetInnerHTML={{ __html: svg }} />
      {drawn && trail.length > 0 && (
        <svg
          width={drawn.plot.size.width}
          height={drawn.plot.size.height}
          aria-hidden
          style={{ position: 'absolute', left: 0, top: 0 }}
        >
          <polyline
            points={trail.map(([input, output]) => drawn.place(input, output).join(',')).join(' ')}
            fill="none"
            stroke="var(--hp-input)"
            strokeWidth={2}
            opacity={0.6}
          />
          <Now at={drawn.place(...trail.at(-1)!)} />
        </svg>
      )}
    </Box>
  );
}

/** Where the bench is now: a cross, told from captured points by its shape. */
const Now = ({ at: [x, y] }: { at: readonly [number, number] }) => (
  <path
    d={`M${x - 8} ${y} h16 M${x} ${y - 8} v16`}
    stroke="var(--hp-input)"
    strokeWidth={3}
    data-testid="now"
  />
);

/** The last moments of input and output, newest last. */
function useTrail(input: number | undefined, output: number | undefined) {
  const [trail, setTrail] = useState<readonly (readonly [number, number])[]>([]);
  const last = useRef<readonly [number, number] | null>(null);
  useEffect(() => {
    if (input === undefined || output === undefined) return;
    if (last.current?.[0] === input && last.current[1] === output) return;
    last.current = [input, output];
    setTrail((all) => [...all.slice(1 - TRAIL), [input, output]]);
  }, [input, output]);
  return input === undefined ? [] : trail;
}
