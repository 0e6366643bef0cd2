'use client';

import { Box, Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material';
import { HANDS } from '@/core/contract/steps';
import { planOf, type Planned } from '@/core/procedure/plan';
import type { RunHandle } from './use-run';

interface StepsDialogProps {
  readonly run: RunHandle;
  readonly open: boolean;
  readonly onClose: () => void;
}

/** Every step of the run in its usual order: what is done, what stands in the way, how long it takes. One is chosen. */
export function StepsDialog({ run, open, onClose }: StepsDialogProps) {
  const { context, state, action } = run;
  const at = 'step' in action ? action.step.id : null;
  const choose = (step: string) =>
    void run.send({ type: 'chosen', step }).then((taken) => taken && onClose());
  return (
    <Dialog open={open} onClose={onClose} aria-labelledby="steps-title" fullWidth maxWidth="md">
      <DialogTitle id="steps-title">Which step next?</DialogTitle>
      <DialogContent>
        <Box sx={{ mb: 1.5 }}>
          The usual order goes on behind it. A step that leans on another, or on the bench left alone, waits
          for that.
        </Box>
        <Box component="ol" sx={{ m: 0, p: 0, listStyle: 'none' }}>
          {(open ? planOf(context.procedure, state) : []).map((planned) => (
            <StepRow
              key={planned.step.id}
              planned={planned}
              now={planned.step.id === at}
              onChoose={() => choose(planned.step.id)}
            />
          ))}
        </Box>
        {run.problem && (
          <Box role="alert" sx={{ color: 'error.main', fontWeight: 600, mt: 1 }}>
            {run.problem.title}
          </Box>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Leave it as it is</Button>
      </DialogActions>
    </Dialog>
  );
}

interface StepRowProps {
  readonly planned: Planned;
  readonly now: boolean;
  readonly onChoose: () => void;
}

function StepRow({ planned, now, onChoose }: StepRowProps) {
  const { step, done, of, not } = planned;
  const over = of > 0 && done === of;
  return (
    <Box
      component="li"
      ref={(row: HTMLElement | null) => {
        if (now) row?.scrollIntoView({ block: 'center' });
      }}
      aria-current={now ? 'step' : undefined}
      sx={{
        display: 'grid',
        gridTemplateColumns: 'minmax(0, 1fr) 190px 132px',
        alignItems: 'center',
        columnGap: 2,
        minHeight: 52,
        borderTop: 1,
        borderColor: 'divider',
        borderLeft: now ? '5px solid' : undefined,
        borderLeftColor: 'primary.main',
        pl: now ? 1 : 1.625,
      }}
    >
      <Box>
        <Box sx={{ fontWeight: 600, color: over ? 'text.secondary' : 'text.primary' }}>{step.title}</Box>
        {!over && not && <Box sx={{ color: 'text.secondary' }}>{not}</Box>}
        {!over && step.hands && <Box sx={{ color: 'text.secondary' }}>{HANDS[step.hands]}</Box>}
      </Box>
      <Box sx={{ color: 'text.secondary', fontVariantNumeric: 'tabular-nums' }}>{minutes(planned)}</Box>
      {over ? (
        <Box sx={{ color: 'text.secondary' }}>done</Box>
      ) : now ? (
        <Box sx={{ fontWeight: 600 }}>at hand</Box>
      ) : (
        <Button variant="outlined" disabled={not !== null} onClick={onChoose} sx={{ minHeight: 44 }}>
          {done > 0 ? 'Go on with it' : 'Do it next'}
        </Button>
      )}
    </Box>
  );
}

/** "4 min", "30 s, 5 min left alone". */
function minutes({ attended_s, waiting_s }: Planned): string {
  const spent = (seconds: number) =>
    seconds < 60 ? `${Math.round(seconds)} s` : `${Number((seconds / 60).toFixed(1))} min`;
  const parts = [
    ...(attended_s > 0 ? [spent(attended_s)] : []),
    ...(waiting_s > 0 ? [`${spent(waiting_s)} left alone`] : []),
  ];
  return parts.join(', ');
}
