'use client';

import { Box, Button, MenuItem, Table, TableBody, TableCell, TableRow, TextField } from '@mui/material';
import Link from 'next/link';
import { usePathname, useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { JOB_FILTERS, JOB_SORTS, JOBS_PER_PAGE, type JobQuery } from '@/core/records/job-query';
import type { StoredJob } from '@/core/records/views';
import { short } from './bench-page';
import { Key, useKeys } from './keys';
import { LinkButton } from './link-button';
import { Nothing, Page } from './page';
import { day } from './stamp';
import { Columns } from './table-head';

interface JobsPageProps {
  readonly query: JobQuery;
  readonly jobs: readonly StoredJob[];
  readonly total: number;
}

/** How long the typing rests before the search is made, ms. */
const TYPING_MS = 200;

/** All jobs, with a search over everything written in them. The question stands in the address. */
export function JobsPage({ query, jobs, total }: JobsPageProps) {
  const router = useRouter();
  const path = usePathname();
  const [typed, setTyped] = useState(query.q);
  const field = useRef<HTMLInputElement>(null);
  const ask = (change: Partial<JobQuery>) => {
    const next = { ...query, q: typed, page: 1, ...change };
    router.replace(
      `${path}?${new URLSearchParams(Object.entries(next).map(([name, value]) => [name, String(value)]))}`,
      { scroll: false },
    );
  };
  const latest = useRef(ask);
  useEffect(() => {
    latest.current = ask;
  });
  useEffect(() => {
    if (typed === query.q) return;
    const timer = setTimeout(() => latest.current({}), TYPING_MS);
    return () => clearTimeout(timer);
  }, [typed, query.q]);
  const pages = Math.max(1, Math.ceil(total / JOBS_PER_PAGE));
  const turn = (by: number) => {
    const page = query.page + by;
    if (page >= 1 && page <= pages) ask({ page });
  };
  useKeys([
    { key: '/', label: 'Search the jobs', run: () => field.current?.focus() },
    { key: '[', label: 'Page before', run: () => turn(-1) },
    { key: ']', label: 'Next page', run: () => turn(1) },
  ]);
  const everything = query.q === '' && query.show === 'current';
  return (
    <Page
      title="Jobs"
      actions={
        <>
          <LinkButton href="/jobs/import">Read a job file</LinkButton>
          <LinkButton href="/jobs/new" variant="contained" sx={{ gap: 0.8 }}>
            Take in a unit <Key name="n" />
          </LinkButton>
        </>
      }
    >
      <Box sx={{ display: 'flex', gap: 1.5, mb: 2, flexWrap: 'wrap' }} role="search">
        <TextField
          label="Search everything written in the jobs"
          value={typed}
          inputRef={field}
          onChange={(event) => setTyped(event.target.value)}
          sx={{ flex: 1, minWidth: 260 }}
          slotProps={{ input: { endAdornment: <Key name="/" /> } }}
        />
        <Choice label="Show" value={query.show} choices={JOB_FILTERS} onChoose={(show) => ask({ show })} />
        <Choice label="Order" value={query.sort} choices={JOB_SORTS} onChoose={(sort) => ask({ sort })} />
      </Box>
      <Box aria-live="polite" sx={{ color: 'text.secondary', mb: 1 }}>
        {total === 0 ? '' : total === 1 ? 'One job' : `${total} jobs`}
        {pages > 1 && `, page ${query.page} of ${pages}`}
      </Box>
      {total === 0 && everything && <Nothing>No jobs yet. Take in the first unit.</Nothing>}
      {total === 0 && !everything && (
        <Nothing>
          {query.q
            ? 'No job here has all of these words.'
            : `No job is in this list: ${JOB_FILTERS[query.show].toLowerCase()}.`}
        </Nothing>
      )}
      {jobs.length > 0 && (
        <Table size="small" aria-label="Jobs" sx={{ '& td': { verticalAlign: 'top' } }}>
          <Columns names={['Tag', 'From and complaint', 'Unit', 'Taken in', 'Promised', 'Result']} />
          <TableBody>
            {jobs.map((job) => (
              <TableRow key={job.id} hover>
                <TableCell>
                  <Box
                    component={Link}
                    href={`/jobs/${job.id}`}
                    sx={{ fontWeight: 700, color: 'primary.main', whiteSpace: 'nowrap' }}
                  >
                    {job.body.tag}
                  </Box>
                </TableCell>
                <TableCell sx={{ overflowWrap: 'anywhere' }}>
                  {job.body.from}
                  <Box sx={{ color: 'text.secondary' }}>{short(job.body.complaint)}</Box>
                </TableCell>
                <TableCell>{job.profileName}</TableCell>
                <TableCell sx={{ whiteSpace: 'nowrap' }}>{day(job.createdAt)}</TableCell>
                <TableCell sx={{ whiteSpace: 'nowrap' }}>{job.body.promisedOn ?? ''}</TableCell>
                <TableCell>
                  {job.runs.some(({ finishedAt }) => !finishedAt)
                    ? 'On the bench'
                    : (job.headline ?? 'Not tested')}
                  {job.signed && <Box sx={{ color: 'text.secondary' }}>Signed</Box>}
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
      {pages > 1 && (
        <Box component="nav" aria-label="Pages" sx={{ display: 'flex', gap: 1, mt: 2 }}>
          <Button variant="outlined" disabled={query.page <= 1} onClick={() => turn(-1)} sx={{ gap: 0.8 }}>
            Page before <Key name="[" />
          </Button>
          <Button variant="outlined" disabled={query.page >= pages} onClick={() => turn(1)} sx={{ gap: 0.8 }}>
            Next page <Key name="]" />
          </Button>
        </Box>
      )}
    </Page>
  );
}

interface ChoiceProps<K extends string> {
  readonly label: string;
  readonly value: K;
  readonly choices: Readonly<Record<K, string>>;
  readonly onChoose: (choice: K) => void;
}

function Choice<K extends string>({ label, value, choices, onChoose }: ChoiceProps<K>) {
  return (
    <TextField
      select
      label={label}
      value={value}
      onChange={(event) => onChoose(event.target.value as K)}
      sx={{ width: 210 }}
    >
      {Object.entries<string>(choices).map(([key, name]) => (
        <MenuItem key={key} value={key}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
}
