'use client';

import { Box, Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material';
import { useId, useState } from 'react';
import type { JobRecord } from '@/core/records/job-record';
import { codeLine, type CodesRead } from '@/core/records/trouble-codes';
import { call } from '../api';
import { LinkButton } from '../link-button';
import { useSettings } from '../settings-context';
import { day, time } from '../stamp';

interface CodesDialogProps {
  readonly jobId: string;
  readonly record: Pick<JobRecord, 'codes'>;
  readonly onClose: () => void;
  readonly onSaved: () => void;
}

/** Trouble codes of a vehicle: read and saved in one, and cleared only once they are saved. */
export function CodesDialog({ jobId, record, onClose, onSaved }: CodesDialogProps) {
  const title = useId();
  const { vehicle } = useSettings();
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const last = record.codes.at(-1);
  const send = async (clears: string | null) => {
    setBusy(true);
    const answer = await call('POST', `/jobs/${jobId}/codes`, { id: crypto.randomUUID(), clears });
    setBusy(false);
    setProblem(answer.ok ? '' : answer.problem.title);
    if (answer.ok) onSaved();
  };
  const canClear = last !== undefined && last.what.found.length > 0;
  return (
    <Dialog open onClose={onClose} aria-labelledby={title} fullWidth maxWidth="sm">
      <DialogTitle id={title}>Trouble codes</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 1.5 }}>
        {vehicle === '' && (
          <Box>
            No vehicle interface is set. Read them with what the maker provides, and write them down as a
            finding.
            <LinkButton href="/shelf/settings">Set an address</LinkButton>
          </Box>
        )}
        {last ? (
          <Box>
            <Box sx={{ fontWeight: 650 }}>
              {last.what.clears ? 'Left after clearing' : 'Saved'}, {day(last.at)},{' '}
              {time(last.at).slice(0, 5)}
            </Box>
            <CodesFound codes={last.what} />
          </Box>
        ) : (
          <Box sx={{ color: 'text.secondary' }}>None were read into this job yet.</Box>
        )}
        <Box sx={{ color: 'text.secondary' }}>
          What is cleared is gone from the vehicle: find its cause first. A fault that is still there comes
          back.
        </Box>
        <Box role="alert" sx={{ color: 'error.main', fontWeight: 600 }}>
          {problem}
        </Box>
      </DialogContent>
      <DialogActions>
        {canClear && (
          <Button color="error" disabled={busy || vehicle === ''} onClick={() => void send(last.id)}>
            Clear what was saved
          </Button>
        )}
        <Box sx={{ flex: 1 }} />
        <Button onClick={onClose}>Leave it</Button>
        <Button variant="contained" disabled={busy || vehicle === ''} onClick={() => void send(null)}>
          Read and save
        </Button>
      </DialogActions>
    </Dialog>
  );
}

/** Codes as they were found, each with its status in words. */
export const CodesFound = ({ codes: { found } }: { codes: CodesRead }) =>
  found.length === 0 ? (
    <>None stored.</>
  ) : (
    <Box component="ul" sx={{ m: 0, pl: 2.25 }}>
      {found.map((one) => (
        <li key={one.code}>{codeLine(one)}</li>
      ))}
    </Box>
  );
