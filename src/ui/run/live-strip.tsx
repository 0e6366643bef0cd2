'use client';

import { Box } from '@mui/material';
import { sourcesIn } from '@/core/contract/sources';
import { liveByGauges, type LivePorts, type LiveState } from '@/core/procedure/live';
import { inputWords, sourceWords } from '../live-words';
import { usePrint } from '../settings-context';

/** Read out, not shown. */
const HEARD_ONLY = {
  position: 'absolute',
  width: '1px',
  height: '1px',
  overflow: 'hidden',
  clipPath: 'inset(50%)',
  whiteSpace: 'nowrap',
} as const;

interface LiveStripProps {
  /** What is live as far as the run knows. */
  readonly known: LiveState;
  /** What gauges that read themselves show; null where readings are typed. */
  readonly gauges: LivePorts | null;
}

/** What is live now, always in sight. */
export function LiveStrip({ known, gauges }: LiveStripProps) {
  const print = usePrint();
  const live = gauges ? liveByGauges(known, gauges) : known;
  const pill = (id: string, label: string, on: boolean) => (
    <Box
      key={id}
      component="span"
      sx={{
        display: 'inline-flex',
        gap: 0.8,
        alignItems: 'center',
        fontWeight: on ? 700 : 400,
        color: on ? 'warning.dark' : 'text.secondary',
      }}
    >
      <Box component="svg" viewBox="0 0 12 12" sx={{ width: 12, height: 12 }} aria-hidden>
        {on ? (
          <rect x="0" y="0" width="12" height="12" fill="currentColor" />
        ) : (
          <rect x="1" y="1" width="10" height="10" fill="none" stroke="currentColor" strokeWidth="1.5" />
        )}
      </Box>
      {label}
    </Box>
  );
  return (
    <Box
      role="group"
      aria-label="Live now"
      sx={{ position: 'relative', display: 'flex', gap: 3, flexWrap: 'wrap' }}
    >
      {/* Heard when a state changes, not with every figure that a gauge sends. */}
      <Box component="span" role="status" sx={HEARD_ONLY}>
        {sourcesIn(live.sources).map(({ words }) => `${words}, `)}
        {live.input === 'released' ? 'input released' : 'input applied'}
      </Box>
      {sourceWords(live, print.value).map(({ id, words, live: on }) => pill(id, words, on))}
      {pill('input', inputWords(live, print.value), live.input !== 'released')}
    </Box>
  );
}
