'use client';

import { Box, Button } from '@mui/material';
import { useState } from 'react';
import { upload } from '../api';
import { FileButton } from '../file-button';

interface PictureFieldProps {
  readonly label: string;
  /** Seal of the picture; empty for none. */
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly error?: string;
}

/** A picture of the reader's own. It is stored as soon as it is chosen; the form keeps its seal. */
export function PictureField({ label, value, onChange, error }: PictureFieldProps) {
  const [message, setMessage] = useState('');
  const [busy, setBusy] = useState(false);
  const take = async (file: File) => {
    setBusy(true);
    const answer = await upload<{ sha256: string }>('/pictures', file);
    setBusy(false);
    setMessage(answer.ok ? '' : answer.problem.title);
    if (answer.ok) onChange(answer.value.sha256);
  };
  const trouble = message || error;
  return (
    <Box
      role="group"
      aria-label={label}
      sx={{ display: 'flex', alignItems: 'center', gap: 1.5, flexWrap: 'wrap' }}
    >
      <FileButton
        fileLabel={label}
        accept="image/*"
        variant="outlined"
        disabled={busy}
        onFile={(file) => void take(file)}
      >
        {busy ? 'Reading the picture…' : value ? `Another ${label.toLowerCase()}` : `${label} from a file`}
      </FileButton>
      {value && (
        <>
          {/* A picture of the user's own, from the application's own store. */}
          {/* eslint-disable-next-line @next/next/no-img-element */}
          <img src={`/api/v1/photos/${value}`} alt={label} style={{ maxHeight: 40, maxWidth: 160 }} />
          <Button color="error" onClick={() => onChange('')}>
            No {label.toLowerCase()}
          </Button>
        </>
      )}
      <Box role="alert" sx={{ color: 'error.main', width: '100%', '&:empty': { display: 'none' } }}>
        {trouble}
      </Box>
    </Box>
  );
}
