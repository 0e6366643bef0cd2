'use client';

import { Box } from '@mui/material';
import { gauged } from '@/core/families/bench-items';
import { gaugeFor } from '@/core/metrology/instrument';
import type { LivePorts } from '@/core/procedure/live';
import { ventedZero_SI } from '@/core/procedure/measured-item';
import type { Port } from '@/core/contract/family';
import { findItem, type Item, type ReadingItem } from '@/core/contract/steps';
import type { Capture } from '@/core/contract/run-state';
import type { LiveMoment } from '@/core/shop/live';
import type { Expectation } from '@/core/contract/result';
import { Ladder } from '../ladder';
import { gaugeNow } from '../live/live-gauges';
import { useSettings } from '../settings-context';
import type { RunHandle } from './use-run';

interface GaugesProps {
  readonly run: RunHandle;
  /** The reading asked for now, if any. */
  readonly item: ReadingItem | null;
  readonly expectation: Expectation | null;
  /** What the live bench shows; null where readings are typed. */
  readonly moment: LiveMoment | null;
  readonly livePorts: LivePorts | null;
}

/** A ladder for each port: what it shows now, or showed last, and what is expected of the reading asked for. */
export function Gauges({ run, item, expectation, moment, livePorts }: GaugesProps) {
  const { unitSet } = useSettings();
  const ports = laddered(run.family.ports, 'step' in run.action ? run.action.step.items : [], item);
  const inARow = ports.map((port) => `${Math.max(1, (run.context.rig[port.id] ?? []).length)}fr`).join(' ');
  // Beside the drawing no more fit in a row: two rows of them then.
  const many = ports.length > MOST;
  return (
    <Box
      component="section"
      aria-label="Gauges"
      sx={{
        gridArea: 'ladders',
        borderLeft: { md: 1 },
        borderColor: { md: 'divider' },
        p: 1.5,
        pl: 1,
        minHeight: 0,
        display: 'grid',
        gap: 0.5,
        overflow: 'hidden',
        gridAutoRows: 'minmax(0, 1fr)',
        gridTemplateColumns: {
          xs: inARow,
          md: many ? `repeat(${Math.ceil(ports.length / 2)}, minmax(0, 1fr))` : inARow,
        },
      }}
    >
      {ports.map((port) => {
        const gauges = run.context.rig[port.id] ?? [];
        const mine = run.state.captures.filter(
          (c) => !c.struck && portOf(run, c) === port.id && !c.item.startsWith('zero.'),
        );
        const here = item?.port === port.id && item.measures !== 'zero' ? item : null;
        const gauge = here
          ? gaugeFor(gauges, Math.max(here.target_Pa ?? 0, expectation?.expected ?? 0))
          : null;
        return (
          <Ladder
            key={port.id}
            name={port.short}
            channel={port.ink ?? port.id}
            gauges={gauges}
            unitSet={unitSet}
            band={here ? bandOf(expectation?.limits ?? null, here.target_Pa) : null}
            reading={livePorts?.[port.id]?.value ?? zeroed(run, mine.at(-1))}
            trail={mine.slice(-6, -1).map((c) => zeroed(run, c)!)}
            inUse={gauge?.tag ?? (moment ? gaugeNow(gauges, moment)?.tag : undefined)}
            lit={here !== null}
          />
        );
      })}
    </Box>
  );
}

/** So many ladders stand beside each other and can still be read. */
const MOST = 5;

/**
 * Ports that have a ladder: those with a gauge that has a zero, since a stopwatch or a rule is at rest or being read. Where a
 * vehicle has more of them than can be read, those of this step, and the vacuum that all else leans on.
 */
function laddered(ports: readonly Port[], items: readonly Item[], item: ReadingItem | null): Port[] {
  const all = gauged(ports);
  if (all.length <= MOST - 1) return all;
  const here = all.filter(
    ({ id }) => id === 'supply' || items.some((one) => one.kind === 'reading' && one.port === id),
  );
  const asked = ports.find(({ id, quantity }) => id === item?.port && quantity !== 'duration');
  return asked && !here.includes(asked) ? [...here, asked] : here;
}

const portOf = (run: RunHandle, capture: Capture): string | null => {
  const item = findItem(run.context.procedure, capture.item)?.item;
  return item?.kind === 'reading' ? item.port : null;
};

const zeroed = (run: RunHandle, capture: Capture | undefined): number | null =>
  capture ? capture.value_SI - (ventedZero_SI(run.state, capture.instrument) ?? 0) : null;

/** Where only an aim is known, a thin band about it. */
const bandOf = (limits: { low?: number; high?: number } | null, target_Pa: number | undefined) =>
  limits ?? (target_Pa ? { low: target_Pa * 0.99, high: target_Pa * 1.01 } : null);
