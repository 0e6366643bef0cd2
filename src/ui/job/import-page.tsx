'use client';

import { Box, Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { upload } from '../api';
import { Page } from '../page';

/** Takes in a job file from another shop: all of it, or nothing with the reason. */
export function ImportPage() {
  const router = useRouter();
  const [message, setMessage] = useState('');
  const [busy, setBusy] = useState(false);
  const read = async (file: File | undefined) => {
    if (!file) return;
    setBusy(true);
    const answer = await upload<{ id: string }>('/job-files', file);
    setBusy(false);
    if (answer.ok) router.push(`/jobs/${answer.value.id}`);
    else setMessage(`${file.name}: ${answer.problem.title}`);
  };
  return (
    <Page title="Read a job file" narrow>
      <p>
        A job file holds one job whole: what was taken in, every reading, findings, parts, photos and
        signatures, each under its seal. It is checked entry by entry and taken in unaltered, or not at all.
      </p>
      <Button component="label" variant="contained" size="large" disabled={busy}>
        {busy ? 'Checking every entry…' : 'Choose a job file'}
        <Box
          component="input"
          type="file"
          accept=".json,application/json"
          aria-label="Job file"
          onChange={(event: React.ChangeEvent<HTMLInputElement>) => {
            void read(event.target.files?.[0]);
            event.target.value = '';
          }}
          sx={{ position: 'absolute', opacity: 0, width: 1, height: 1 }}
        />
      </Button>
      <Box role="alert" sx={{ color: 'error.main', fontWeight: 600, mt: 2, overflowWrap: 'anywhere' }}>
        {message}
      </Box>
    </Page>
  );
}
