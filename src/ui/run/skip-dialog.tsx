'use client';

import { Box, Button, Dialog, DialogActions, DialogContent, DialogTitle, TextField } from '@mui/material';
import { useState } from 'react';

interface SkipDialogProps {
  readonly open: { title: string; item: string | null } | null;
  readonly onClose: () => void;
  readonly onSkip: (reason: string, wholeStep: boolean) => Promise<void>;
}

/** Asks why something is skipped. */
export function SkipDialog({ open, onClose, onSkip }: SkipDialogProps) {
  const [reason, setReason] = useState('');
  const [message, setMessage] = useState('');
  const skip = (whole: boolean) => {
    if (reason.trim() === '') setMessage('Reason: say in a few words why this is skipped.');
    else void onSkip(reason.trim(), whole).then(() => setReason(''));
  };
  return (
    <Dialog open={open !== null} onClose={onClose} aria-labelledby="skip-title" fullWidth maxWidth="sm">
      <DialogTitle id="skip-title">Skip: {open?.title}</DialogTitle>
      <DialogContent>
        <Box sx={{ mb: 2 }}>What is skipped is reported as not taken, with this reason.</Box>
        <Box
          component="form"
          onSubmit={(event) => {
            event.preventDefault();
            skip(open?.item === null);
          }}
        >
          <TextField
            label="Reason"
            value={reason}
            onChange={(event) => {
              setReason(event.target.value);
              setMessage('');
            }}
            error={message !== ''}
            helperText={message}
            autoFocus
          />
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Do not skip</Button>
        <Button onClick={() => skip(true)}>Skip the whole step</Button>
        {open?.item && (
          <Button variant="contained" onClick={() => skip(false)}>
            Skip this
          </Button>
        )}
      </DialogActions>
    </Dialog>
  );
}
