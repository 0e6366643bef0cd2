'use client';

import { Box, Button, Dialog, DialogActions, DialogContent, DialogTitle, TextField } from '@mui/material';
import { useState } from 'react';

interface ReasonDialogProps {
  readonly title: string;
  /** What comes of it. */
  readonly what: string;
  readonly open: boolean;
  /** What going back is called. */
  readonly back: string;
  readonly onClose: () => void;
  /** What can be done with the reason; Enter in the field does the last. */
  readonly ways: readonly { readonly label: string; readonly take: (reason: string) => Promise<void> }[];
}

/** Asks for a reason in words: nothing is done without one. */
export function ReasonDialog({ title, what, open, back, onClose, ways }: ReasonDialogProps) {
  const [reason, setReason] = useState('');
  const [message, setMessage] = useState('');
  const give = (take: (reason: string) => Promise<void>) => {
    if (reason.trim() === '') setMessage('Reason: say in a few words why.');
    else void take(reason.trim()).then(() => setReason(''));
  };
  const last = ways.at(-1)!;
  return (
    <Dialog open={open} onClose={onClose} aria-labelledby="reason-title" fullWidth maxWidth="sm">
      <DialogTitle id="reason-title">{title}</DialogTitle>
      <Box
        component="form"
        onSubmit={(event) => {
          event.preventDefault();
          give(last.take);
        }}
      >
        <DialogContent>
          <Box sx={{ mb: 2 }}>{what}</Box>
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
            fullWidth
          />
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>{back}</Button>
          {ways.slice(0, -1).map(({ label, take }) => (
            <Button key={label} onClick={() => give(take)}>
              {label}
            </Button>
          ))}
          <Button type="submit" variant="contained">
            {last.label}
          </Button>
        </DialogActions>
      </Box>
    </Dialog>
  );
}
