'use client';

import { Box, Checkbox, FormControlLabel, TextField } from '@mui/material';
import { useState } from 'react';
import { dayBodySchema, type DayBody } from '@/core/planning/day-body';
import { DayDialog, NOT_KEPT, type DayAnswer } from './day-dialog';

interface CrewDialogProps {
  readonly body: DayBody;
  readonly onClose: () => void;
  readonly onSave: (body: DayBody) => Promise<boolean>;
}

/** Who is here today, from when to when, and how many benches there are. */
export function CrewDialog({ body, onClose, onSave }: CrewDialogProps) {
  const [people, setPeople] = useState(body.technicians);
  const [benches, setBenches] = useState(String(body.benches));
  const put = (id: string, change: Partial<DayBody['technicians'][number]>) =>
    setPeople(people.map((one) => (one.id === id ? { ...one, ...change } : one)));
  const save = async (): Promise<DayAnswer> => {
    const read = dayBodySchema.safeParse({ ...body, technicians: people, benches: Number(benches) });
    if (!read.success) return read.error.issues[0]!.message;
    return (await onSave(read.data)) ? null : NOT_KEPT;
  };
  return (
    <DayDialog title="Who is here today" onClose={onClose} onSave={save}>
      {people.map(({ id, name, here, from, until }) => (
        <Box key={id} sx={{ display: 'flex', gap: 2, flexWrap: 'wrap', alignItems: 'center' }}>
          <FormControlLabel
            sx={{ width: 170, minHeight: 44 }}
            control={<Checkbox checked={here} onChange={(_, checked) => put(id, { here: checked })} />}
            label={name}
          />
          {(['from', 'until'] as const).map((end) => (
            <TextField
              key={end}
              type="time"
              size="small"
              label={`${name}, ${end}`}
              value={end === 'from' ? from : until}
              disabled={!here}
              onChange={({ target }) => put(id, { [end]: target.value })}
              slotProps={{ inputLabel: { shrink: true } }}
              sx={{ width: 150 }}
            />
          ))}
        </Box>
      ))}
      <TextField
        label="Benches"
        value={benches}
        onChange={({ target }) => setBenches(target.value)}
        slotProps={{ htmlInput: { inputMode: 'numeric', maxLength: 2 } }}
        sx={{ width: 120 }}
      />
    </DayDialog>
  );
}
