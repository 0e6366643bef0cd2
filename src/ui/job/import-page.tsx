'use client';

import { Box } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { upload } from '../api';
import { FileButton } from '../file-button';
import { Page } from '../page';

/** Takes in a job file from another shop: all of it, or nothing with the reason. */
export function ImportPage() {
  const router = useRouter();
  const [message, setMessage] = useState('');
  const [busy, setBusy] = useState(false);
  const read = async (file: File) => {
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
      <FileButton
        fileLabel="Job file"
        accept=".json,application/json"
        onFile={(file) => void read(file)}
        variant="contained"
        size="large"
        disabled={busy}
      >
        {busy ? 'Checking every entry…' : 'Choose a job file'}
      </FileButton>
      <Box role="alert" sx={{ color: 'error.main', fontWeight: 600, mt: 2, overflowWrap: 'anywhere' }}>
        {message}
      </Box>
    </Page>
  );
}
