'use client';

import { Box } from '@mui/material';
import type { GridColDef } from '@mui/x-data-grid';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { KINDS } from '@/core/records/list-query';
import type { TraceQuery } from '@/core/records/trace-query';
import type { ListedTrace } from '@/core/records/views';
import { Key, useKeys } from '../keys';
import { LinkButton } from '../link-button';
import { ListFilters, narrowed } from '../lists/list-filters';
import { RecordGrid } from '../lists/record-grid';
import { useList } from '../lists/use-list';
import { Nothing, Page } from '../page';
import { usePrint } from '../settings-context';
import { day, time } from '../stamp';

interface TracesPageProps {
  readonly query: TraceQuery;
  readonly traces: readonly ListedTrace[];
  readonly total: number;
  readonly technicians: readonly string[];
}

/** All traces. */
export function TracesPage({ query, traces, total, technicians }: TracesPageProps) {
  const router = useRouter();
  const print = usePrint();
  const list = useList('the traces', query, total);
  useKeys([{ key: 'r', label: 'Read a log', run: () => router.push('/traces/new') }]);
  const lengthOf = (duration_s: number) =>
    duration_s > 300 ? `${(duration_s / 60).toFixed(0)} min` : print.value(duration_s, 'duration');
  const everything = query.q === '' && !narrowed(query);
  return (
    <Page
      title="Traces"
      actions={
        <LinkButton href="/traces/new" variant="contained" sx={{ gap: 0.8 }}>
          Read a log <Key name="r" />
        </LinkButton>
      }
    >
      {total === 0 && everything ? (
        <Nothing>
          No traces yet. Read a log that a logger has written, as CSV, or test a unit on the live bench: its
          traces are kept with the run.
        </Nothing>
      ) : (
        <>
          <ListFilters list={list} searchLabel="Search names and job tags" technicians={technicians} />
          <Box aria-live="polite" sx={{ color: 'text.secondary' }}>
            {total === 0 ? '' : total === 1 ? 'One trace' : `${total} traces`}
          </Box>
          {total === 0 && <Nothing>No trace fits all of this.</Nothing>}
          {total > 0 && (
            <RecordGrid
              label="Traces"
              list={list}
              rows={traces}
              total={total}
              columns={columnsOf(lengthOf)}
              hidden={['kind', 'technician', 'readings']}
              hrefOf={hrefOf}
            />
          )}
        </>
      )}
    </Page>
  );
}

const hrefOf = ({ id }: ListedTrace) => `/traces/${id}`;

const columnsOf = (lengthOf: (duration_s: number) => string): readonly GridColDef<ListedTrace>[] => [
  {
    field: 'name',
    headerName: 'Name',
    flex: 2,
    minWidth: 170,
    renderCell: ({ row }) => (
      <Box component={Link} href={hrefOf(row)} tabIndex={-1} sx={{ fontWeight: 700, color: 'primary.main' }}>
        {row.body.name}
      </Box>
    ),
  },
  {
    field: 'made',
    headerName: 'Made',
    width: 150,
    valueGetter: (_, { body }) => `${day(body.madeAt)}, ${time(body.madeAt).slice(0, 5)}`,
  },
  {
    field: 'source',
    headerName: 'From',
    width: 96,
    sortable: false,
    valueGetter: (_, { body }) => (body.source === 'file' ? 'A file' : 'The bench'),
  },
  {
    field: 'job',
    headerName: 'Job',
    width: 104,
    sortable: false,
    renderCell: ({ row }) =>
      row.jobTag && (
        <Box component={Link} href={`/jobs/${row.body.jobId}`} tabIndex={-1} sx={{ color: 'primary.main' }}>
          {row.jobTag}
        </Box>
      ),
  },
  {
    field: 'kind',
    headerName: 'Kind of unit',
    flex: 1,
    minWidth: 140,
    sortable: false,
    valueGetter: (_, { kind }) => (kind ? KINDS[kind] : ''),
  },
  {
    field: 'technician',
    headerName: 'Tested by',
    flex: 1,
    minWidth: 130,
    sortable: false,
    valueGetter: (_, row) => row.technician ?? '',
  },
  {
    field: 'channels',
    headerName: 'Channels',
    flex: 2,
    minWidth: 150,
    sortable: false,
    valueGetter: (_, { body }) => body.channels.map(({ name }) => name).join(', '),
  },
  {
    field: 'length',
    headerName: 'Length',
    width: 92,
    valueGetter: (_, { body }) => lengthOf(body.duration_s),
  },
  {
    field: 'readings',
    headerName: 'Readings',
    width: 100,
    align: 'right',
    headerAlign: 'right',
    sortable: false,
    valueGetter: (_, { body }) => body.rows.toLocaleString('en'),
  },
];
