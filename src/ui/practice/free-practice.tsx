'use client';

import { Box, Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { SIMULATED } from '@/core/families/registry';
import type { StoredRun } from '@/core/records/views';
import { call } from '../api';
import { KindSelect } from '../kind-select';

/** A made-up unit or vehicle of a kind on the simulated bench, to be practised on. */
export function FreePractice() {
  const router = useRouter();
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const [kind, setKind] = useState(SIMULATED[0]!);
  const begin = async () => {
    setBusy(true);
    const answer = await call<StoredRun>('POST', '/practice', { kind });
    if (answer.ok) {
      router.push(`/runs/${answer.value.id}`);
      // The bench has a logger now: what stands around every screen is to know it.
      return router.refresh();
    }
    setBusy(false);
    setProblem(answer.problem.title);
  };
  return (
    <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap', pt: 2 }}>
      <KindSelect
        size="small"
        label="What to practise on"
        kind={kind}
        kinds={SIMULATED}
        onKind={setKind}
        sx={{ width: 300 }}
      />
      <Button variant="outlined" disabled={busy} onClick={() => void begin()} sx={{ minHeight: 44 }}>
        Practise on the simulated bench
      </Button>
      <Box sx={{ flex: 1, minWidth: 240, color: 'text.secondary' }}>
        Made up, with gauges and hands of its own: nothing has to be set up, and nothing of it comes on the
        Shelf but its profile.
      </Box>
      <Box role="alert" sx={{ color: 'error.main', fontWeight: 600 }}>
        {problem}
      </Box>
    </Box>
  );
}
