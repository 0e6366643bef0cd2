'use client';

import { Button } from '@mui/material';
import Link from 'next/link';
import { Bar, type BarProps } from './bar';
import { ConfirmBar, ObservationBar, WaitBar } from './step-bars';
import type { RunHandle } from './use-run';

interface OtherBarsProps {
  readonly run: RunHandle;
  readonly others: BarProps['others'];
  readonly reportHref: string;
}

/** The action bar for whatever is asked for and is no reading. */
export function OtherBars({ run, others, reportHref }: OtherBarsProps) {
  const { action } = run;
  return (
    <>
      {action.kind === 'item' && action.item.kind === 'observation' && (
        <ObservationBar key={action.item.id} run={run} item={action.item} others={others} />
      )}
      {action.kind === 'item' && action.item.kind === 'wait' && (
        <WaitBar key={action.item.id} run={run} item={action.item} others={others} />
      )}
      {action.kind === 'acknowledge' && (
        <ConfirmBar
          run={run}
          prompt="Read the cautions above."
          label="Understood"
          others={others}
          send={() => run.send({ type: 'acknowledged', step: action.step.id })}
        />
      )}
      {action.kind === 'source' && (
        <ConfirmBar
          run={run}
          prompt={action.vacuum === 'on' ? 'Open the vacuum.' : 'Shut the vacuum off at the bench valve.'}
          label={action.vacuum === 'on' ? 'Vacuum is on' : 'Vacuum is off'}
          others={others}
          send={() => run.send({ type: 'source-set', step: action.step.id, vacuum: action.vacuum })}
        />
      )}
      {action.kind === 'finish' && (
        <ConfirmBar
          run={run}
          prompt="Every step is done or skipped with a reason, and the unit is made safe."
          label="Close the run"
          others={others}
          send={() => run.send({ type: 'finished' })}
        />
      )}
      {action.kind === 'done' && (
        <Bar prompt="This run is finished." others={[]}>
          <Button component={Link} href={reportHref} variant="contained" size="large" sx={{ minHeight: 68 }}>
            Open the report
          </Button>
        </Bar>
      )}
    </>
  );
}
