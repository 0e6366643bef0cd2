'use client';

import { Box, Button } from '@mui/material';
import { useMemo } from 'react';
import type { JobRecord } from '@/core/records/job-record';
import type { LoggedTrace } from '@/core/documents/logged-traces';
import { judgedRun } from '@/core/records/judged-run';
import { reportDocument } from '@/core/documents/report-document';
import type { StoredRun } from '@/core/records/views';
import { DocumentView } from './document-view';
import { Key, useKeys } from './keys';
import { LinkButton } from './link-button';
import { useSettings } from './settings-context';
import { day, time } from './stamp';

interface ReportProps {
  readonly record: JobRecord;
  readonly run: StoredRun;
  /** What the logger recorded during the run. */
  readonly logged: readonly LoggedTrace[];
  /** What is not known of the record. */
  readonly doubts: readonly string[];
}

/** The report, on screen and on paper, and as files: a page for the customer, then the numbers behind it. */
export function Report({ record, run, logged, doubts }: ReportProps) {
  const shop = useSettings();
  const { unitSet } = shop;
  const document = useMemo(
    () => reportDocument(record, run, judgedRun(run), { set: unitSet, shop, day, time }, logged, doubts),
    [record, run, unitSet, shop, logged, doubts],
  );
  useKeys([
    { key: 'p', label: 'Print the report', run: () => window.print() },
    {
      key: 'd',
      label: 'Report as PDF',
      run: () => void window.open(`/api/v1/runs/${run.id}/report.pdf`),
    },
  ]);
  const file = (path: string, label: string) => (
    <Button component="a" href={`/api/v1/runs/${run.id}/${path}`} download>
      {label}
    </Button>
  );
  return (
    <Paper>
      <Box className="no-print" sx={{ display: 'flex', gap: 1, mb: 2, flexWrap: 'wrap' }}>
        <LinkButton href={`/jobs/${record.id}`}>Back to the job</LinkButton>
        <Box sx={{ flex: 1 }} />
        {file('care.ics', 'Care plan as a calendar')}
        {file('readings.csv', 'Readings as CSV')}
        {file('chart.svg', 'Chart as SVG')}
        {file('chart.png', 'PNG')}
        <Button component="a" href={`/api/v1/runs/${run.id}/report.pdf`} variant="outlined" sx={{ gap: 1 }}>
          PDF <Key name="d" />
        </Button>
        <Button variant="contained" onClick={() => window.print()} sx={{ gap: 1 }}>
          Print <Key name="p" />
        </Button>
      </Box>
      <DocumentView document={document} label="Report" />
    </Paper>
  );
}

/** The width of a sheet on the screen, the whole of it on paper. */
export function Paper({ children }: { children: React.ReactNode }) {
  return (
    <Box
      sx={{
        maxWidth: 860,
        mx: 'auto',
        px: 3,
        py: 2.5,
        '@media print': { p: 0, fontSize: '9.5pt', maxWidth: 'none' },
      }}
    >
      {children}
    </Box>
  );
}
