'use client';

import { Box, Table, TableBody, TableCell, TableRow } from '@mui/material';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import type { TraceRecord } from '@/core/records/trace-record';
import type { Stored } from '@/core/records/views';
import { Key, useKeys } from '../keys';
import { LinkButton } from '../link-button';
import { Nothing, Page } from '../page';
import { usePrint } from '../settings-context';
import { day, time } from '../stamp';
import { Columns } from '../table-head';

interface TracesPageProps {
  readonly traces: readonly Stored<TraceRecord>[];
  readonly jobTags: Readonly<Record<string, string>>;
}

/** Every trace, newest first. */
export function TracesPage({ traces, jobTags }: TracesPageProps) {
  const router = useRouter();
  const print = usePrint();
  useKeys([{ key: 'r', label: 'Read a log', run: () => router.push('/traces/new') }]);
  return (
    <Page
      title="Traces"
      actions={
        <LinkButton href="/traces/new" variant="contained" sx={{ gap: 0.8 }}>
          Read a log <Key name="r" />
        </LinkButton>
      }
    >
      {traces.length === 0 ? (
        <Nothing>
          No traces yet. Read a log that a logger has written, as CSV, or test a unit on the live bench: its
          traces are kept with the run.
        </Nothing>
      ) : (
        <Table size="small" aria-label="Traces">
          <Columns names={['Name', 'Made', 'From', 'Job', 'Channels', 'Length', 'Readings']} />
          <TableBody>
            {traces.map(({ id, body }) => (
              <TableRow key={id} hover>
                <TableCell sx={{ overflowWrap: 'anywhere' }}>
                  <Box
                    component={Link}
                    href={`/traces/${id}`}
                    sx={{ fontWeight: 700, color: 'primary.main' }}
                  >
                    {body.name}
                  </Box>
                </TableCell>
                <TableCell sx={{ whiteSpace: 'nowrap' }}>
                  {day(body.madeAt)}, {time(body.madeAt).slice(0, 5)}
                </TableCell>
                <TableCell>{body.source === 'file' ? 'A file' : 'The bench'}</TableCell>
                <TableCell>
                  {body.jobId && jobTags[body.jobId] && (
                    <Box component={Link} href={`/jobs/${body.jobId}`} sx={{ color: 'primary.main' }}>
                      {jobTags[body.jobId]}
                    </Box>
                  )}
                </TableCell>
                <TableCell>{body.channels.map(({ name }) => name).join(', ')}</TableCell>
                <TableCell sx={{ whiteSpace: 'nowrap' }}>
                  {body.duration_s > 300
                    ? `${(body.duration_s / 60).toFixed(0)} min`
                    : print.value(body.duration_s, 'duration')}
                </TableCell>
                <TableCell align="right">{body.rows.toLocaleString('en')}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
    </Page>
  );
}
