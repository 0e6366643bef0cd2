'use client';

import { Box, Button } from '@mui/material';
import Link from 'next/link';
import { sourceState } from '@/core/contract/sources';
import { namedGaps } from '@/core/documents/report';
import { Bar, type BarProps } from './bar';
import { ConfirmBar, ObservationBar, StoppedBar, WaitBar } from './step-bars';
import type { RunHandle } from './use-run';

interface OtherBarsProps {
  readonly run: RunHandle;
  readonly others: BarProps['others'];
  readonly reportHref: string;
}

/** The action bar for whatever is asked for and is no reading. */
export function OtherBars({ run, others, reportHref }: OtherBarsProps) {
  const { action } = run;
  switch (action.kind) {
    case 'item':
      if (action.item.kind === 'observation')
        return (
          <ObservationBar
            key={action.item.id}
            run={run}
            step={action.step}
            item={action.item}
            others={others}
          />
        );
      return action.item.kind === 'wait' ? (
        <WaitBar key={action.item.id} run={run} item={action.item} others={others} />
      ) : null;
    case 'stopped':
      return <StoppedBar key={action.item.id} run={run} action={action} others={others} />;
    case 'acknowledge':
      return (
        <ConfirmBar
          key={action.step.id}
          run={run}
          prompt="Read the cautions above."
          label="Understood"
          letter="u"
          others={others}
          send={() => run.send({ type: 'acknowledged', step: action.step.id })}
        />
      );
    case 'source':
      return (
        <ConfirmBar
          key={`${action.step.id} ${action.set.source} ${action.set.to}`}
          run={run}
          prompt={sourceState(action.set).ask}
          label={sourceState(action.set).said}
          letter="v"
          others={others}
          send={() => run.send({ type: 'source-set', step: action.step.id, set: action.set })}
        />
      );
    case 'finish':
      return <FinishBar run={run} others={others} />;
    case 'done':
      return (
        <Bar prompt="This run is finished." others={[]}>
          <Button component={Link} href={reportHref} variant="contained" size="large" sx={{ minHeight: 68 }}>
            Open the report
          </Button>
        </Bar>
      );
  }
}

/** Most gaps listed in the bar; all stand in the report. */
const MOST_GAPS = 3;

/** Closes the run: says that everything was done only where it was, and else what was not taken, and why. */
function FinishBar({ run, others }: Pick<OtherBarsProps, 'run' | 'others'>) {
  const gaps = namedGaps(run.context, run.state, run.results);
  return (
    <ConfirmBar
      run={run}
      prompt={
        gaps.length === 0
          ? 'Every step is done, and the unit is made safe.'
          : `The unit is made safe. Not taken: ${gaps.length}.`
      }
      label="Close the run"
      letter="c"
      others={others}
      send={() => run.send({ type: 'finished' })}
    >
      {gaps.slice(0, MOST_GAPS).map(({ what, why }) => (
        <Box key={what}>
          {what}: {why.slice(0, 160)}
        </Box>
      ))}
      {gaps.length > MOST_GAPS && <Box>And {gaps.length - MOST_GAPS} more, in the report.</Box>}
    </ConfirmBar>
  );
}
