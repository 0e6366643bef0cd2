'use client';

import { Box, Button } from '@mui/material';
import type { LivePorts, LiveState, progress } from '@/core/procedure/live';
import type { BenchOwner, LiveStatus } from '@/core/shop/live';
import { HeldBench } from './held-bench';
import { LiveStrip } from './live-strip';

interface RunHeadProps {
  readonly title: string;
  readonly known: LiveState;
  readonly livePorts: LivePorts | null;
  readonly status: LiveStatus | null;
  /** The run that has the bench, where it is another one. */
  readonly held: BenchOwner | null;
  /** The logger was not brought to what this run tests. */
  readonly elsewhere: boolean;
  /** Gauges of this run that the logger has and cannot read, in a sentence. */
  readonly unread: string | null;
  readonly onTake: () => Promise<unknown>;
  readonly done: ReturnType<typeof progress>;
}

/** What is tested, what is live now, how the bench logger does, how far the run is. */
export function RunHead(props: RunHeadProps) {
  const { title, known, livePorts, status, held, elsewhere, unread, onTake, done } = props;
  const wrong = [status?.trouble, unread].filter(Boolean).join(' ');
  return (
    <Box
      sx={{
        gridArea: 'live',
        display: 'flex',
        gap: { xs: 1.5, md: 3 },
        alignItems: 'center',
        px: 2,
        py: 0.75,
        borderBottom: 1,
        borderColor: 'divider',
        flexWrap: 'wrap',
      }}
    >
      <Box component="h1" sx={{ m: 0, fontSize: '1.05rem', fontWeight: 650 }}>
        {title}
      </Box>
      <LiveStrip known={known} gauges={livePorts} />
      {held && <HeldBench owner={held} onTake={onTake} />}
      {elsewhere && !held && status?.state === 'streaming' && (
        <Button variant="outlined" onClick={() => void onTake()} sx={{ minHeight: 44 }}>
          Logger is on this vehicle
        </Button>
      )}
      {status && status.state !== 'off' && !held && !(elsewhere && status.state === 'streaming') && (
        <Box
          role="status"
          sx={{ fontWeight: 600, color: wrong ? 'error.main' : 'text.secondary', maxWidth: 520 }}
        >
          {wrong ? `${wrong} Type the readings meanwhile.` : loggerWords(status)}
        </Box>
      )}
      <Box sx={{ ml: 'auto', color: 'text.secondary' }}>
        {done.done} of {done.of}
      </Box>
    </Box>
  );
}

function loggerWords({ state, simulated }: LiveStatus): string {
  if (state !== 'streaming') return 'Bench logger: connecting';
  return simulated ? 'Simulated bench reads' : 'Bench logger reads';
}
