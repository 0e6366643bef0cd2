'use client';

import {
  Box,
  Button,
  Checkbox,
  DialogActions,
  DialogContent,
  DialogTitle,
  FormControlLabel,
  TextField,
} from '@mui/material';
import { useState } from 'react';
import { dayBodySchema, type DayBody } from '@/core/planning/day-body';
import { DraftDialog } from '../draft-dialog';

interface CrewDialogProps {
  readonly body: DayBody;
  readonly onClose: () => void;
  readonly onSave: (body: DayBody) => Promise<boolean>;
}

/** Who is here today, from when to when, and how many benches there are. */
export function CrewDialog({ body, onClose, onSave }: CrewDialogProps) {
  const [people, setPeople] = useState(body.technicians);
  const [benches, setBenches] = useState(String(body.benches));
  const [problem, setProblem] = useState('');
  const put = (id: string, change: Partial<DayBody['technicians'][number]>) =>
    setPeople(people.map((one) => (one.id === id ? { ...one, ...change } : one)));
  const save = async () => {
    const read = dayBodySchema.safeParse({ ...body, technicians: people, benches: Number(benches) });
    if (!read.success) return setProblem(read.error.issues[0]!.message);
    if (await onSave(read.data)) onClose();
    else setProblem('It was not kept. Look at the day, and try again.');
  };
  return (
    <DraftDialog labelledBy="crew-title" onClose={onClose}>
      <DialogTitle id="crew-title">Who is here today</DialogTitle>
      <DialogContent>
        <Box
          component="form"
          id="crew"
          sx={{ display: 'grid', gap: 1.5, pt: 1 }}
          onSubmit={(event) => {
            event.preventDefault();
            void save();
          }}
        >
          {people.map(({ id, name, here, from, until }) => (
            <Box key={id} sx={{ display: 'flex', gap: 2, flexWrap: 'wrap', alignItems: 'center' }}>
              <FormControlLabel
                sx={{ width: 200, minHeight: 44 }}
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
          <Box role="alert" sx={{ color: 'error.main', fontWeight: 600 }}>
            {problem}
          </Box>
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Leave it</Button>
        <Button type="submit" form="crew" variant="contained">
          Plan the day
        </Button>
      </DialogActions>
    </DraftDialog>
  );
}
