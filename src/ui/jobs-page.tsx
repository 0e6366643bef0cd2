'use client';

import { Box } from '@mui/material';
import type { GridColDef } from '@mui/x-data-grid';
import Link from 'next/link';
import { JOB_FILTERS, type JobQuery } from '@/core/records/job-query';
import { KINDS } from '@/core/records/list-query';
import type { StoredJob } from '@/core/records/views';
import { short } from './bench-page';
import { Key } from './keys';
import { LinkButton } from './link-button';
import { Choice, ListFilters, narrowed } from './lists/list-filters';
import { RecordGrid } from './lists/record-grid';
import { useList } from './lists/use-list';
import { Nothing, Page } from './page';
import { day } from './stamp';

interface JobsPageProps {
  readonly query: JobQuery;
  readonly jobs: readonly StoredJob[];
  readonly total: number;
  readonly technicians: readonly string[];
}

/** All jobs, with a search over everything written in them. */
export function JobsPage({ query, jobs, total, technicians }: JobsPageProps) {
  const list = useList('the jobs', query, total);
  const everything = query.q === '' && query.show === 'current' && !narrowed(query);
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
      <ListFilters list={list} searchLabel="Search everything written in the jobs" technicians={technicians}>
        <Choice
          label="Show"
          value={query.show}
          choices={JOB_FILTERS}
          onChoose={(show) => list.ask({ show })}
        />
      </ListFilters>
      <Box aria-live="polite" sx={{ color: 'text.secondary' }}>
        {total === 0 ? '' : total === 1 ? 'One job' : `${total} jobs`}
      </Box>
      {total === 0 && everything && <Nothing>No jobs yet. Take in the first unit.</Nothing>}
      {total === 0 && !everything && (
        <Nothing>
          {query.q
            ? 'No job here has all of these words.'
            : narrowed(query)
              ? 'No job fits all of this.'
              : `No job is in this list: ${JOB_FILTERS[query.show].toLowerCase()}.`}
        </Nothing>
      )}
      {total > 0 && (
        <RecordGrid
          label="Jobs"
          list={list}
          rows={jobs}
          total={total}
          columns={COLUMNS}
          hidden={['kind', 'technician']}
          hrefOf={hrefOf}
        />
      )}
    </Page>
  );
}

const hrefOf = ({ id }: StoredJob) => `/jobs/${id}`;

const COLUMNS: readonly GridColDef<StoredJob>[] = [
  {
    field: 'tag',
    headerName: 'Tag',
    width: 120,
    renderCell: ({ row }) => (
      <Box component={Link} href={hrefOf(row)} tabIndex={-1} sx={{ fontWeight: 700, color: 'primary.main' }}>
        {row.body.tag}
      </Box>
    ),
  },
  {
    field: 'complaint',
    headerName: 'From and complaint',
    flex: 2,
    minWidth: 190,
    sortable: false,
    renderCell: ({ row: { body } }) => (
      <>
        {body.from}
        <Box sx={{ color: 'text.secondary' }}>{short(body.complaint)}</Box>
      </>
    ),
  },
  {
    field: 'unit',
    headerName: 'Unit',
    flex: 1,
    minWidth: 120,
    sortable: false,
    valueGetter: (_, row) => row.profileName,
  },
  {
    field: 'kind',
    headerName: 'Kind of unit',
    flex: 1,
    minWidth: 140,
    sortable: false,
    valueGetter: (_, row) => KINDS[row.body.kind],
  },
  { field: 'taken', headerName: 'Taken in', width: 112, valueGetter: (_, row) => day(row.createdAt) },
  {
    field: 'promised',
    headerName: 'Promised',
    width: 112,
    valueGetter: (_, row) => row.body.promisedOn ?? '',
  },
  {
    field: 'technician',
    headerName: 'Tested by',
    flex: 1,
    minWidth: 130,
    sortable: false,
    valueGetter: (_, row) =>
      [...new Set(row.runs.map(({ technician }) => technician))].filter(Boolean).join(', '),
  },
  {
    field: 'result',
    headerName: 'Result',
    flex: 1,
    minWidth: 130,
    sortable: false,
    renderCell: ({ row }) => (
      <>
        {row.runs.some(({ finishedAt }) => !finishedAt) ? 'On the bench' : (row.headline ?? 'Not tested')}
        {row.signed && <Box sx={{ color: 'text.secondary' }}>Signed</Box>}
      </>
    ),
  },
];
