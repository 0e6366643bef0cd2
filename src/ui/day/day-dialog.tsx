'use client';

import { Box, Button, DialogActions, DialogContent, DialogTitle } from '@mui/material';
import { useId, useState, type ReactNode } from 'react';
import { DraftDialog } from '../draft-dialog';

/** What is wrong with what was typed, or null where the day was planned by it. */
export type DayAnswer = string | null;
export const NOT_KEPT = 'It was not kept. Look at the day, and try again.';

interface DayDialogProps {
  readonly title: string;
  readonly onClose: () => void;
  /** Plans the day by what was typed: the dialog closes once that is kept. */
  readonly onSave: () => Promise<DayAnswer>;
  readonly children: ReactNode;
}

/** Something of the day that is changed by hand. */
export function DayDialog({ title, onClose, onSave, children }: DayDialogProps) {
  const id = useId();
  const [problem, setProblem] = useState('');
  const save = async () => {
    const why = await onSave();
    if (why === null) onClose();
    else setProblem(why);
  };
  return (
    <DraftDialog labelledBy={`${id}title`} onClose={onClose}>
      <DialogTitle id={`${id}title`}>{title}</DialogTitle>
      <DialogContent>
        <Box
          component="form"
          id={id}
          sx={{ display: 'grid', gap: 1.5, pt: 1 }}
          onSubmit={(event) => {
            event.preventDefault();
            void save();
          }}
        >
          {children}
          <Box role="alert" sx={{ color: 'error.main', fontWeight: 600 }}>
            {problem}
          </Box>
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Leave it</Button>
        <Button type="submit" form={id} variant="contained">
          Plan the day
        </Button>
      </DialogActions>
    </DraftDialog>
  );
}
