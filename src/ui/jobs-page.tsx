'use client';

import { Box, Table, TableBody, TableCell, TableRow, TextField } from '@mui/material';
import Link from 'next/link';
import { useRef, useState } from 'react';
import type { StoredJob } from '@/core/records/views';
import { short } from './bench-page';
import { Key, useKeys } from './keys';
import { LinkButton } from './link-button';
import { Nothing, Page } from './page';
import { day } from './stamp';
import { Columns } from './table-head';

/** All jobs, newest first, with a quick search over what is written on them. */
export function JobsPage({
  jobs,
  headlines,
}: {
  jobs: readonly StoredJob[];
  headlines: Readonly<Record<string, string>>;
}) {
  const [search, setSearch] = useState('');
  const field = useRef<HTMLInputElement>(null);
  useKeys([{ key: '/', label: 'Search the jobs', run: () => field.current?.focus() }]);
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const shown = jobs.filter((job) => {
    const text =
      `${job.body.tag} ${job.body.from} ${job.body.complaint} ${job.profileName} ${headlines[job.id] ?? ''}`.toLowerCase();
    return words.every((word) => text.includes(word));
  });
  return (
    <Page
      title="Jobs"
      actions={
        <>
          <TextField
            label="Search"
            value={search}
            inputRef={field}
            onChange={(event) => setSearch(event.target.value)}
            sx={{ width: 280 }}
            slotProps={{ input: { endAdornment: <Key name="/" /> } }}
          />
          <LinkButton href="/jobs/new" variant="contained" sx={{ gap: 0.8 }}>
            Take in a unit <Key name="n" />
          </LinkButton>
        </>
      }
    >
      {jobs.length === 0 && <Nothing>No jobs yet. Take in the first unit.</Nothing>}
      {jobs.length > 0 && shown.length === 0 && <Nothing>No job has all of these words.</Nothing>}
      {shown.length > 0 && (
        <Table size="small" aria-label="Jobs">
          <Columns names={['Tag', 'From', 'Complaint', 'Profile', 'Taken in', 'Last test']} />
          <TableBody>
            {shown.map((job) => (
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
                <TableCell sx={{ overflowWrap: 'anywhere' }}>{job.body.from}</TableCell>
                <TableCell sx={{ maxWidth: 420, overflowWrap: 'anywhere' }}>
                  {short(job.body.complaint)}
                </TableCell>
                <TableCell>{job.profileName}</TableCell>
                <TableCell sx={{ whiteSpace: 'nowrap' }}>{day(job.createdAt)}</TableCell>
                <TableCell>{headlines[job.id] ?? 'Not tested'}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
    </Page>
  );
}
