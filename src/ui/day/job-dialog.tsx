'use client';

import { Box, MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import type { DayBody } from '@/core/planning/day-body';
import type { DayView } from '@/core/planning/day-view';
import { DayDialog, NOT_KEPT, type DayAnswer } from './day-dialog';

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
  const task = tasks.find(({ id }) => id === job);
  const save = async (): Promise<DayAnswer> => {
    const { [job]: _, ...others } = body.given;
    const { [job]: __, ...times } = body.promised;
    const saved = await onSave({
      ...body,
      given: given === ANYBODY ? others : { ...others, [job]: given },
      promised: promised === '' ? times : { ...times, [job]: promised },
    });
    return saved ? null : NOT_KEPT;
  };
  return (
    <DayDialog title={`${task?.tag ?? 'A job'} today`} onClose={onClose} onSave={save}>
      <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap' }}>
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
            .filter(({ id, here }) => here || id === given)
            .map(({ id, name, here }) => (
              <MenuItem key={id} value={id}>
                {here ? name : `${name}, not here today`}
              </MenuItem>
            ))}
        </TextField>
        <TextField
          type="time"
          label="Promised at"
          value={promised}
          onChange={({ target }) => setPromised(target.value)}
          slotProps={{ inputLabel: { shrink: true } }}
          sx={{ width: 150 }}
        />
      </Box>
      <Box sx={{ color: 'text.secondary' }}>
        Without a time it is promised for the end of its day. The day itself stands on the job sheet.
      </Box>
    </DayDialog>
  );
}
