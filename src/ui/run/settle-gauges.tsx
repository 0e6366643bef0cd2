'use client';

import { Box, Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import type { StoredRun } from '@/core/records/views';
import { call } from '../api';
import type { RunHandle } from './use-run';

/** Two gauges of which one is wrong: what settles it can be begun here, in the run or from one that is finished. */
export function SettleGauges({ run, runId }: { run: RunHandle; runId: string }) {
  const router = useRouter();
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const { family, context, state } = run;
  // The screen is drawn many times a second beside a live bench: this changes with the readings only.
  const settling = useMemo(() => family.settling?.(context, state), [family, context, state]);
  const [out, fresh] = [settling?.step.exchange?.out, settling?.step.exchange?.in];
  if (!settling || run.action.kind === 'stopped') return null;
  const begin = async () => {
    if (!run.state.finished) return void run.send({ type: 'added', ...settling });
    setBusy(true);
    const answer = await call<StoredRun>('POST', `/runs/${runId}/settling`);
    setBusy(false);
    if (answer.ok) router.push(`/runs/${answer.value.id}`);
    else setProblem(answer.problem.title);
  };
  return (
    <Box
      role="group"
      aria-label="Two gauges disagree"
      sx={{
        borderLeft: '5px solid',
        borderColor: 'warning.main',
        pl: 1.25,
        display: 'flex',
        gap: 1.5,
        alignItems: 'center',
        flexWrap: 'wrap',
      }}
    >
      <Box sx={{ flex: 1, minWidth: 220 }}>
        <b>
          {settling.step.exchange!.against} and {out} disagree by more than their classes allow.
        </b>{' '}
        {fresh} in {out}’s place tells which of them is wrong. The input is released and both gauges are read
        at zero first.
      </Box>
      <Button
        variant="outlined"
        disabled={busy || run.busy}
        onClick={() => void begin()}
        sx={{ minHeight: 44 }}
      >
        {run.state.finished ? 'Settle it in a re-test' : 'Settle it now'}
      </Button>
      <Box role="alert" sx={{ color: 'error.main', fontWeight: 600 }}>
        {problem}
      </Box>
    </Box>
  );
}
