'use client';

import { Box } from '@mui/material';
import type { TraceRecord } from '@/core/records/trace-record';
import type { Stored } from '@/core/records/views';
import { LinkButton } from '../link-button';

type JobTrace = Stored<TraceRecord>;

/** The trace of the same name that was made last before this one: the same step of the test before the repair. */
export const earlierOf = (trace: JobTrace, all: readonly JobTrace[]): JobTrace | null =>
  all.findLast(
    ({ body }) =>
      body.madeAt < trace.body.madeAt &&
      (trace.body.runId ? body.name === trace.body.name : body.runId === null),
  ) ?? null;

interface TraceLinksProps {
  readonly traces: readonly JobTrace[];
  /** Every trace of the job, oldest first. */
  readonly all: readonly JobTrace[];
  /** Said of every name already: left out. */
  readonly tag: string;
}

/** Traces to open, each with the one before it laid beside it where there is one. */
export function TraceLinks({ traces, all, tag }: TraceLinksProps) {
  if (traces.length === 0) return null;
  return (
    <Box component="ul" aria-label="Traces" sx={{ listStyle: 'none', p: 0, m: 0, mt: 0.5 }}>
      {traces.map((trace) => {
        const earlier = earlierOf(trace, all);
        return (
          <Box component="li" key={trace.id} sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center' }}>
            <LinkButton href={`/traces/${trace.id}`} size="small">
              Trace: {trace.body.name.replace(`${tag}: `, '')}
            </LinkButton>
            {earlier && (
              <LinkButton href={`/traces/${trace.id}?with=${earlier.id}`} size="small">
                beside the one before
              </LinkButton>
            )}
          </Box>
        );
      })}
    </Box>
  );
}
