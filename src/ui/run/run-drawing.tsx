'use client';

import { Box, useMediaQuery } from '@mui/material';
import { supplied } from '@/core/contract/sources';
import type { LivePorts, LiveState } from '@/core/procedure/live';
import { drawnPorts } from '@/core/twin/showing';
import type { StoredRun } from '@/core/records/views';
import { Posed } from '../schematics/moving';
import type { SchematicProps } from '../schematics/drawing';
import { SCHEMATICS } from '../schematics/registry';
import { useFollowing } from './use-following';
import type { RunHandle } from './use-run';

interface RunDrawingProps extends SchematicProps {
  readonly run: RunHandle;
  readonly stored: StoredRun;
  /** What the gauges show now, and when, s; null where readings are typed. */
  readonly ports: LivePorts | null;
  readonly t_s: number | null;
  readonly known: Pick<LiveState, 'supplyQuantity'>;
}

/** The drawing of what is tested. Where gauges are read, its parts stand where those of a healthy one would. */
export function RunDrawing({ run, stored, ports, t_s, known, ...drawn }: RunDrawingProps) {
  const still = useMediaQuery('(prefers-reduced-motion: reduce)');
  const { family, state } = run;
  const input = family.motion ? ports?.[drawnPorts(family).input.id]?.value : undefined;
  const supply_Pa = known.supplyQuantity === 'depression' ? (ports?.supply?.value ?? null) : null;
  const told =
    still || t_s === null || input === undefined
      ? null
      : { t_s, input, fed: supplied(state.sources), supply_Pa };
  const pose = useFollowing({ kind: stored.kind, context: stored.context, family }, told);
  const Drawing = SCHEMATICS[stored.kind];
  return (
    <Posed value={pose}>
      <Box sx={{ height: '100%', display: 'flex', flexDirection: 'column' }}>
        <Box sx={{ flex: 1, minHeight: 0 }}>
          <Drawing {...drawn} />
        </Box>
        {pose && (
          <Box sx={{ fontSize: '0.8rem', color: 'text.secondary', textAlign: 'right' }}>
            Parts stand where those of a healthy one do at this input.
          </Box>
        )}
      </Box>
    </Posed>
  );
}
