'use client';

import { Box, Button, TextField } from '@mui/material';
import { useEffect, useRef } from 'react';
import type { TraceRecord } from '@/core/records/trace-record';
import { Key } from '../keys';
import type { PinsHandle } from './use-pins';

interface PinsProps {
  readonly notes: TraceRecord['notes'];
  readonly pins: PinsHandle;
}

/** Notes pinned to moments or ranges: press on the trace or type the times, then write, or have the range worked out. */
export function Pins({ notes, pins }: PinsProps) {
  return (
    <Box sx={{ fontSize: '0.92rem' }}>
      {notes.map(({ id, at_s, to_s, words: said }, i) => (
        <Box key={id} sx={{ display: 'flex', gap: 1, alignItems: 'baseline' }}>
          <b>{i + 1}</b>
          <span>{to_s === undefined ? at_s.toFixed(1) : `${at_s.toFixed(1)} to ${to_s.toFixed(1)}`} s</span>
          <Box component="span" sx={{ flex: 1, overflowWrap: 'anywhere' }}>
            {said}
          </Box>
          <Button size="small" aria-label={`Take note ${i + 1} off`} onClick={() => void pins.drop(id)}>
            Take off
          </Button>
        </Box>
      ))}
      {pins.draft ? (
        <DraftForm pins={pins} draft={pins.draft} />
      ) : (
        <Box sx={{ color: 'text.secondary' }}>
          Press on the trace to mark a moment, and once more to mark a range up to there; by key,{' '}
          <Key name="m" />. The wheel zooms, a drag moves.
        </Box>
      )}
    </Box>
  );
}

function DraftForm({ pins, draft }: { pins: PinsHandle; draft: NonNullable<PinsHandle['draft']> }) {
  const first = useRef<HTMLInputElement>(null);
  useEffect(() => first.current?.focus(), []);
  const field = (name: keyof typeof draft) => ({
    value: draft[name],
    onChange: (event: React.ChangeEvent<HTMLInputElement>) => pins.type({ [name]: event.target.value }),
  });
  return (
    <Box
      component="form"
      sx={{ display: 'flex', gap: 1, mt: 0.5, flexWrap: 'wrap', alignItems: 'center' }}
      onSubmit={(event: React.FormEvent) => {
        event.preventDefault();
        void pins.pin();
      }}
    >
      <TextField label="From, s" {...field('at')} inputRef={first} sx={{ width: 100 }} />
      <TextField label="Until, s (empty: that moment)" {...field('until')} sx={{ width: 230 }} />
      <TextField
        label="Note"
        {...field('words')}
        slotProps={{ htmlInput: { maxLength: 2000 } }}
        sx={{ flex: 1, minWidth: 160 }}
      />
      <Button type="submit" variant="outlined" disabled={draft.words.trim() === ''}>
        Pin
      </Button>
      <Button variant="outlined" disabled={draft.until.trim() === ''} onClick={() => void pins.workOut()}>
        Work this range out
      </Button>
      <Button onClick={pins.leave}>Leave it</Button>
    </Box>
  );
}
