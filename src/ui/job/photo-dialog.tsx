'use client';

import { Box, Button, DialogActions, DialogContent, DialogTitle, MenuItem, TextField } from '@mui/material';
import { useId, useState } from 'react';
import { upload } from '../api';
import { DraftDialog } from '../draft-dialog';
import { FileButton } from '../file-button';

interface PhotoDialogProps {
  readonly jobId: string;
  readonly points: readonly { value: string; label: string }[];
  readonly onClose: () => void;
  readonly onSaved: () => void;
}

/** Adds a photo, at the point of the unit that it shows. */
export function PhotoDialog({ jobId, points, onClose, onSaved }: PhotoDialogProps) {
  const id = useId();
  const [entry] = useState(() => crypto.randomUUID());
  const [file, setFile] = useState<File | null>(null);
  const [point, setPoint] = useState('');
  const [caption, setCaption] = useState('');
  const [message, setMessage] = useState('');
  const [busy, setBusy] = useState(false);
  const save = async () => {
    if (!file) {
      setMessage('Photo: choose one first.');
      return;
    }
    setBusy(true);
    const asked = new URLSearchParams({ id: entry, point, caption });
    const answer = await upload(`/jobs/${jobId}/photos?${asked}`, file);
    setBusy(false);
    if (answer.ok) onSaved();
    else setMessage(answer.problem.title);
  };
  return (
    <DraftDialog labelledBy={id} onClose={onClose}>
      <DialogTitle id={id}>Add a photo</DialogTitle>
      <DialogContent>
        <Box sx={{ mb: 2 }}>
          It is kept upright and without the camera’s notes on where and when it was taken.
        </Box>
        <Box sx={{ display: 'grid', gap: 2 }}>
          <FileButton
            fileLabel="Photo"
            accept="image/*"
            variant="outlined"
            size="large"
            onFile={(chosen) => {
              setFile(chosen);
              setMessage('');
            }}
          >
            {file ? file.name : 'Choose a photo'}
          </FileButton>
          <TextField
            select
            label="Where on the unit"
            value={point}
            onChange={(event) => setPoint(event.target.value)}
          >
            {[{ value: '', label: 'The unit as a whole' }, ...points].map(({ value, label }) => (
              <MenuItem key={value} value={value}>
                {label}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            label="What it shows"
            value={caption}
            onChange={(event) => setCaption(event.target.value)}
          />
          <Box role="alert" sx={{ color: 'error.main', fontWeight: 600 }}>
            {message}
          </Box>
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Leave it</Button>
        <Button variant="contained" onClick={() => void save()} disabled={busy}>
          {busy ? 'Storing…' : 'Add the photo'}
        </Button>
      </DialogActions>
    </DraftDialog>
  );
}
