'use client';

import { Box } from '@mui/material';
import Link from 'next/link';
import { daysBetween, type AccumulatorDue, type DueDate } from '@/core/shop/due';
import type { OnBench } from '@/core/shop/on-bench';
import type { StoredJob } from '@/core/records/views';
import type { FirstStep } from '@/core/shop/first-steps';
import { DayPart } from './day/day-part';
import { FirstSteps } from './first-steps';
import { Key } from './keys';
import { AlteredWords } from './altered';
import { LinkButton } from './link-button';
import { inputWords, sourceWords } from './live-words';
import { Nothing, Page, Part } from './page';
import { usePrint } from './settings-context';
import { clock, useNow } from './use-now';

export interface BenchView {
  readonly onBench: readonly OnBench[];
  readonly next: readonly { readonly job: StoredJob; readonly blockedBy: string | null }[];
  /** Calibrations overdue or due soon. */
  readonly due: readonly DueDate[];
  /** Accumulators whose gas can be too low by now or soon. */
  readonly accumulators: readonly AccumulatorDue[];
  readonly today: string;
  /** What of the records was lost of late, in sentences. */
  readonly lost: readonly string[];
  /** What a new shop does before its first test; null once it has tested a unit. */
  readonly steps: readonly FirstStep[] | null;
  /** Gauges on the shelf. */
  readonly gauges: number;
}

const LOST =
  'The database was cut short, or an older one was put in its place. A backup may still have them; what has been written since is kept.';

/** The day: what is on the bench and live, what is next and what blocks it, gauges in use, what is overdue. */
export function BenchPage({ view }: { view: BenchView }) {
  const { onBench, next, due, accumulators, today, steps, gauges } = view;
  return (
    <Page
      title="Bench"
      actions={
        <LinkButton href="/jobs/new" variant="contained" sx={{ gap: 0.8 }}>
          Take in a unit <Key name="n" />
        </LinkButton>
      }
    >
      {view.lost.map((why) => (
        <AlteredWords key={why} why={why} more={LOST} />
      ))}
      {steps && <FirstSteps steps={steps} />}
      <Part title="On the bench now" note={onBench.length > 0 ? undefined : 'nothing is live'}>
        {onBench.length === 0 && (
          <Nothing>
            {next.length > 0
              ? 'No test is running. Start one from a job below.'
              : 'A test that was begun stands here until it is finished, with what is live on it.'}
          </Nothing>
        )}
        {onBench.map((run) => (
          <RunLine key={run.runId} run={run} />
        ))}
      </Part>
      {!steps && (
        <DayPart
          changes={JSON.stringify([
            next.map(({ job }) => [job.id, job.version]),
            onBench.map(({ runId, progress }) => [runId, progress.done]),
          ])}
        />
      )}
      <Part title="Next">
        {next.length === 0 && (
          <Nothing>
            {steps
              ? 'Units that were taken in and wait for their test stand here.'
              : 'Every job has been tested. Take in a unit to begin.'}
          </Nothing>
        )}
        <Box component="ol" sx={{ listStyle: 'none', m: 0, p: 0 }}>
          {next.map(({ job, blockedBy }) => (
            <Box
              component="li"
              key={job.id}
              sx={{
                display: 'grid',
                gridTemplateColumns: '110px minmax(0, 1fr) 200px 180px',
                gap: 2,
                py: 1,
                borderBottom: 1,
                borderColor: 'divider',
                alignItems: 'baseline',
              }}
            >
              <Box component={Link} href={`/jobs/${job.id}`} sx={{ fontWeight: 700, color: 'primary.main' }}>
                {job.body.tag}
              </Box>
              <Box sx={{ overflowWrap: 'anywhere' }}>
                {job.body.from || 'No vehicle given'}
                <Box sx={{ color: 'text.secondary' }}>{short(job.body.complaint)}</Box>
                {blockedBy && <Box sx={{ color: 'error.main', fontWeight: 600 }}>{blockedBy}</Box>}
              </Box>
              <Box>{job.profileName}</Box>
              <Promised day={job.body.promisedOn} today={today} />
            </Box>
          ))}
        </Box>
      </Part>
      <Part
        title="Gauges"
        note={
          <Box component="a" href="/api/v1/due.ics" sx={{ color: 'primary.main' }}>
            Due dates for a calendar
          </Box>
        }
      >
        {due.length === 0 && (
          <Nothing>
            {gauges === 0
              ? 'Gauges whose calibration falls due stand here. There is none on the Shelf yet.'
              : 'Every gauge is in date, and none falls due this month.'}
          </Nothing>
        )}
        {due.map(({ tag, name, on }) => (
          <Box key={tag} sx={{ py: 0.5 }}>
            <b>{tag}</b> {name}:{' '}
            {on < today
              ? `calibration was due on ${on}. It can be used; every verdict that leans on it says so.`
              : `calibration due on ${on}, in ${daysBetween(today, on)} days.`}
          </Box>
        ))}
        {onBench.length > 0 && (
          <Box sx={{ color: 'text.secondary', pt: 0.5 }}>
            In use: {[...new Set(onBench.flatMap(({ gauges }) => gauges))].join(', ')}
          </Box>
        )}
      </Part>
      {accumulators.length > 0 && (
        <Part title="Accumulators" note="by their own history">
          {accumulators.map((one) => (
            <AccumulatorLine key={one.jobId + one.accumulator} due={one} today={today} />
          ))}
        </Part>
      )}
    </Page>
  );
}

function AccumulatorLine({ due, today }: { due: AccumulatorDue; today: string }) {
  const print = usePrint();
  const { jobId, tag, name, on, says } = due;
  return (
    <Box sx={{ py: 0.5 }}>
      <Box component={Link} href={`/jobs/${jobId}`} sx={{ fontWeight: 700, color: 'primary.main' }}>
        {tag}
      </Box>{' '}
      {name}:{' '}
      {on <= today
        ? `its gas can be too low since ${on}. Read the pre-charge again.`
        : `read the pre-charge again by ${on}, in ${daysBetween(today, on)} days.`}
      <Box sx={{ color: 'text.secondary' }}>{print.sentence(says)}</Box>
    </Box>
  );
}

function RunLine({ run }: { run: OnBench }) {
  const print = usePrint();
  const now = useNow(500);
  const { live, wait, job, progress } = run;
  const left_s = wait && now !== null ? (Date.parse(wait.endsAt) - now) / 1000 : null;
  const sources = sourceWords(live, print.value);
  const hot = sources.some((one) => one.live) || live.input !== 'released';
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: '110px minmax(0, 1fr) minmax(0, 1fr) auto',
        gap: 2,
        py: 1.25,
        alignItems: 'center',
        borderBottom: 1,
        borderColor: 'divider',
      }}
    >
      <Box component={Link} href={`/jobs/${job.id}`} sx={{ fontWeight: 700, color: 'primary.main' }}>
        {job.body.tag}
      </Box>
      <Box>
        {job.body.from}
        <Box sx={{ color: 'text.secondary' }}>
          {run.stands}, {progress.done} of {progress.of}
        </Box>
      </Box>
      <Box sx={{ fontWeight: hot ? 700 : 400, color: hot ? 'warning.dark' : 'text.secondary' }}>
        {sources.map(({ id, words }) => (
          <Box key={id}>{words}</Box>
        ))}
        {inputWords(live, print.value)}
        {left_s !== null && (
          <>
            <br />
            {wait!.prompt} {left_s > 0 ? clock(left_s) : 'over: read now'}
          </>
        )}
      </Box>
      <LinkButton href={`/runs/${run.runId}`} variant="contained" size="large">
        Go on
      </LinkButton>
    </Box>
  );
}

function Promised({ day, today }: { day: string | null; today: string }) {
  if (!day) return <Box sx={{ color: 'text.secondary' }}>No date promised</Box>;
  const late = day < today;
  return (
    <Box sx={{ fontWeight: late ? 700 : 400, color: late ? 'error.main' : 'text.primary' }}>
      {late ? `Late: ${day}` : day === today ? 'Promised today' : `Promised ${day}`}
    </Box>
  );
}

export const short = (text: string, most = 110) => (text.length > most ? `${text.slice(0, most)}…` : text);
