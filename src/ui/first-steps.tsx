'use client';

import { Box, Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { FirstStep } from '@/core/shop/first-steps';
import type { StoredRun } from '@/core/records/views';
import { call } from './api';
import { LinkButton } from './link-button';
import { Part } from './page';

/** A new shop on its way to its first test, in order; and a unit to practise on before anything is set up. */
export function FirstSteps({ steps }: { steps: readonly FirstStep[] }) {
  const next = steps.find(({ done, waitsFor }) => !done && !waitsFor);
  return (
    <Part
      title="Setting up this shop"
      note={`${steps.filter(({ done }) => done).length} of ${steps.length} done`}
    >
      <Box component="ol" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {steps.map((step, i) => (
          <Box
            component="li"
            key={step.id}
            sx={{
              display: 'grid',
              gridTemplateColumns: '28px minmax(0, 1fr) auto',
              gap: 1.5,
              py: 1.25,
              alignItems: 'center',
              borderBottom: 1,
              borderColor: 'divider',
            }}
          >
            <Box
              component="span"
              aria-hidden
              sx={{ fontWeight: 700, color: step.done ? 'success.main' : undefined }}
            >
              {step.done ? '✓' : i + 1}
            </Box>
            <Box>
              <b>{step.title}</b>
              {step.done && <span> (done)</span>}
              <Box sx={{ color: 'text.secondary' }}>{step.words}</Box>
            </Box>
            {step.waitsFor ? (
              <Box sx={{ color: 'text.secondary' }}>needs {step.waitsFor}</Box>
            ) : (
              <LinkButton
                href={step.href}
                variant={step === next ? 'contained' : 'outlined'}
                aria-label={`${step.done ? 'Look at' : 'Begin'}: ${step.title}`}
              >
                {step.done ? 'Look' : 'Begin'}
              </LinkButton>
            )}
          </Box>
        ))}
      </Box>
      <Practice />
    </Part>
  );
}

function Practice() {
  const router = useRouter();
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const begin = async () => {
    setBusy(true);
    const answer = await call<StoredRun>('POST', '/practice');
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
      <Button variant="outlined" disabled={busy} onClick={() => void begin()} sx={{ minHeight: 44 }}>
        Practise on the simulated bench
      </Button>
      <Box sx={{ flex: 1, minWidth: 260, color: 'text.secondary' }}>
        A made-up unit with gauges, a pump and a handle of its own: nothing has to be set up, and nothing of
        it comes on the Shelf but its profile.
      </Box>
      <Box role="alert" sx={{ color: 'error.main', fontWeight: 600 }}>
        {problem}
      </Box>
    </Box>
  );
}
