import { Box } from '@mui/material';
import type { Step } from '@/core/contract/steps';
import { FLUIDS, type FluidKind } from '@/core/fluid/kinds';
import type { StoredJob } from '@/core/records/views';

interface FluidClashProps {
  readonly step: Step | null;
  readonly found: StoredJob['body']['fluid'];
  readonly named: FluidKind | null;
}

/** The unit came in with one fluid and its profile names another: said where fluid is handled. */
export function FluidClash({ step, found, named }: FluidClashProps) {
  if (!step?.fluid || !named || found === 'unknown' || found === named) return null;
  return (
    <Box sx={{ borderLeft: '5px solid', borderColor: 'error.main', pl: 1.25, fontWeight: 600 }}>
      The unit came in with {FLUIDS[found]}, and its profile names {FLUIDS[named]}. They must not mix: drain
      and flush, and look at every seal.
    </Box>
  );
}
