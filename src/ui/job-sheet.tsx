'use client';

import { Box, Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { FLUIDS } from '@/core/fluid/kinds';
import { FAMILIES } from '@/core/families/registry';
import type { RunState } from '@/core/procedure/run';
import type { StoredJob, StoredRun } from '@/core/records/views';
import type { Assessment, Result } from '@/core/twin/result';
import { call, type Problem } from './api';
import { Key, useKeys } from './keys';
import { LinkButton } from './link-button';
import { Page } from './page';
import { Tape } from './run/tape';
import { usePrint } from './settings-context';
import { day, time } from './stamp';
import { VerdictMark } from './verdict-mark';

/** One test of the unit, judged. */
export interface Visit {
  readonly run: StoredRun;
  readonly state: RunState;
  readonly results: readonly Result[];
  readonly assessment: Assessment;
}

/** The unit's own continuous tape through its visits. */
export function JobSheet({ job, visits }: { job: StoredJob; visits: readonly Visit[] }) {
  const router = useRouter();
  const [problem, setProblem] = useState<Problem | null>(null);
  const open = visits.find(({ run }) => !run.finishedAt);
  const start = async () => {
    const answer = await call<{ id: string }>('POST', `/jobs/${job.id}/runs`, {});
    if (answer.ok) router.push(`/runs/${answer.value.id}`);
    else setProblem(answer.problem);
  };
  const go = () => (open ? router.push(`/runs/${open.run.id}`) : void start());
  useKeys([
    { key: 'Enter', label: open ? 'Go on with the test' : 'Start the bench test', run: go },
    { key: 'e', label: 'Change what was taken in', run: () => router.push(`/jobs/${job.id}/edit`) },
  ]);
  const { body } = job;
  return (
    <Page
      narrow
      title={`${body.tag} · ${job.profileName}`}
      actions={
        <>
          <LinkButton href={`/jobs/${job.id}/edit`} sx={{ gap: 0.8 }}>
            Change <Key name="e" />
          </LinkButton>
          <Button variant="contained" size="large" onClick={go} sx={{ gap: 1 }}>
            {open ? 'Go on with the test' : visits.length > 0 ? 'Test it again' : 'Start the bench test'}{' '}
            <Key name="Enter" />
          </Button>
        </>
      }
    >
      <Box role="alert" sx={{ color: 'error.main', fontWeight: 600 }}>
        {problem?.title}
      </Box>
      <Box sx={{ borderLeft: 3, borderColor: 'text.primary', pl: 2.5 }}>
        <Mark when={job.createdAt} title="Taken in">
          {body.from && <Box>From {body.from}</Box>}
          <Box
            component="blockquote"
            sx={{ m: 0, my: 0.75, fontSize: '1.1rem', whiteSpace: 'pre-wrap', overflowWrap: 'anywhere' }}
          >
            {body.complaint ? `“${body.complaint}”` : 'No complaint written down.'}
          </Box>
          <Box sx={{ color: 'text.secondary' }}>
            Fluid found: {body.fluid === 'unknown' ? 'not known' : FLUIDS[body.fluid]}
            {body.promisedOn && ` · promised for ${body.promisedOn}`}
          </Box>
        </Mark>
        {visits.map((visit) => (
          <VisitPart key={visit.run.id} visit={visit} />
        ))}
        {visits.length === 0 && <Box sx={{ color: 'text.secondary', py: 2 }}>Not tested yet.</Box>}
      </Box>
    </Page>
  );
}

function VisitPart({ visit }: { visit: Visit }) {
  const print = usePrint();
  const { run, results, assessment } = visit;
  const [tape, setTape] = useState(false);
  const telling = results.filter(({ verdict }) => verdict === 'fails' || verdict === 'close');
  return (
    <Mark when={run.startedAt} title={run.finishedAt ? 'Bench test' : 'Bench test, not finished'}>
      <Box sx={{ fontSize: '1.3rem', fontWeight: 650 }}>
        {run.finishedAt ? assessment.headline : `So far: ${assessment.headline.toLowerCase()}`}
      </Box>
      {assessment.reasons.map((reason, i) => (
        <Box key={i}>{print.sentence(reason)}</Box>
      ))}
      <Box component="ul" sx={{ listStyle: 'none', p: 0, my: 1 }}>
        {telling.map((result) => (
          <Box component="li" key={result.id} sx={{ display: 'flex', gap: 2, py: 0.2 }}>
            <Box sx={{ width: 160 }}>
              <VerdictMark verdict={result.verdict} />
            </Box>
            <Box>
              {result.name}
              {result.value !== null &&
                `: ${print.value(result.value, result.quantity, { u_SI: result.u, withU: true })}`}
              {result.seen && `: ${result.seen}`}
            </Box>
          </Box>
        ))}
      </Box>
      <Box sx={{ display: 'flex', gap: 1 }}>
        <LinkButton href={`/runs/${run.id}/report`} variant="outlined">
          {run.finishedAt ? 'Report' : 'Report so far'}
        </LinkButton>
        <Button onClick={() => setTape((shown) => !shown)} aria-expanded={tape}>
          {tape ? 'Roll up the tape' : 'Unroll the tape'}
        </Button>
      </Box>
      {tape && (
        <Box sx={{ maxWidth: 420, mt: 1, border: 1, borderColor: 'divider' }}>
          <Tape
            ports={FAMILIES[run.kind].ports}
            context={run.context}
            state={visit.state}
            events={run.events}
            results={results}
          />
        </Box>
      )}
    </Mark>
  );
}

function Mark({ when, title, children }: { when: string; title: string; children: React.ReactNode }) {
  return (
    <Box
      component="section"
      aria-label={title}
      sx={{
        position: 'relative',
        pb: 3,
        '&::before': {
          content: '""',
          position: 'absolute',
          left: '-27px',
          top: '7px',
          width: 12,
          height: 3,
          bgcolor: 'text.primary',
        },
      }}
    >
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'baseline' }}>
        <Box component="h2" sx={{ m: 0, fontSize: '1rem' }}>
          {title}
        </Box>
        <Box sx={{ color: 'text.secondary' }}>{`${day(when)}, ${time(when).slice(0, 5)}`}</Box>
      </Box>
      {children}
    </Box>
  );
}
