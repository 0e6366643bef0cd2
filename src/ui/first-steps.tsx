'use client';

import { Box } from '@mui/material';
import type { FirstStep } from '@/core/shop/first-steps';
import { LinkButton } from './link-button';
import { Part } from './page';
import { FreePractice } from './practice/free-practice';

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
      <FreePractice />
    </Part>
  );
}
