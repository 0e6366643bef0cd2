'use client';

import { Box, Button, DialogActions, DialogContent, DialogTitle, MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import type { DayBody } from '@/core/planning/day-body';
import type { DayView } from '@/core/planning/day-view';
import { DraftDialog } from '../draft-dialog';

interface JobDialogProps {
  readonly view: DayView;
  readonly job: string;
  readonly onClose: () => void;
  readonly onSave: (body: DayBody) => Promise<boolean>;
}

const ANYBODY = '';

/** Who does a job, and at what time of its day it was promised. */
export function JobDialog({ view: { body, tasks }, job, onClose, onSave }: JobDialogProps) {
  const [given, setGiven] = useState(body.given[job] ?? ANYBODY);
  const [promised, setPromised] = useState(body.promised[job] ?? '');
  const [problem, setProblem] = useState('');
  const task = tasks.find(({ id }) => id === job);
  const save = async () => {
    const { [job]: _, ...others } = body.given;
    const { [job]: __, ...times } = body.promised;
    const saved = await onSave({
      ...body,
      given: given === ANYBODY ? others : { ...others, [job]: given },
      promised: promised === '' ? times : { ...times, [job]: promised },
    });
    if (saved) onClose();
    else setProblem('It was not kept. Look at the day, and try again.');
  };
  return (
    <DraftDialog labelledBy="day-job-title" onClose={onClose}>
      <DialogTitle id="day-job-title">{task?.tag} today</DialogTitle>
      <DialogContent>
        <Box
          component="form"
          id="day-job"
          sx={{ display: 'flex', gap: 2, flexWrap: 'wrap', pt: 1 }}
          onSubmit={(event) => {
            event.preventDefault();
            void save();
          }}
        >
          <TextField
            select
            label="Done by"
            value={given}
            onChange={({ target }) => setGiven(target.value)}
            sx={{ width: 260 }}
            slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
          >
            <MenuItem value={ANYBODY}>Whoever comes to it first</MenuItem>
            {body.technicians
              .filter(({ here }) => here)
              .map(({ id, name }) => (
                <MenuItem key={id} value={id}>
                  {name}
                </MenuItem>
              ))}
          </TextField>
          <TextField
            type="time"
            label="Promised at"
            value={promised}
            onChange={({ target }) => setPromised(target.value)}
            slotProps={{ inputLabel: { shrink: true } }}
          />
        </Box>
        <Box sx={{ color: 'text.secondary', pt: 1.5 }}>
          Without a time it is promised for the end of its day. The day itself stands on the job sheet.
        </Box>
        <Box role="alert" sx={{ color: 'error.main', fontWeight: 600 }}>
          {problem}
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Leave it</Button>
        <Button type="submit" form="day-job" variant="contained">
          Plan the day
        </Button>
      </DialogActions>
    </DraftDialog>
  );
}
