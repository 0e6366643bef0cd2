'use client';

import { Box, Button, TextField } from '@mui/material';
import type { TraceRecord } from '@/core/records/trace-record';
import type { PinsHandle } from './use-pins';

interface PinsProps {
  readonly notes: TraceRecord['notes'];
  readonly pins: PinsHandle;
}

/** Notes pinned to moments or ranges: press on the trace, then write. */
export function Pins({ notes, pins }: PinsProps) {
  const { moment } = pins;
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
      {moment === null ? (
        <Box sx={{ color: 'text.secondary' }}>
          Press on the trace to pin a note there, and once more to mark a range up to there. The wheel zooms,
          a drag moves.
        </Box>
      ) : (
        <Box
          component="form"
          sx={{ display: 'flex', gap: 1, mt: 0.5 }}
          onSubmit={(event: React.FormEvent) => {
            event.preventDefault();
            void pins.pin();
          }}
        >
          <TextField
            label={`Note at ${moment.toFixed(1)} s`}
            value={pins.words}
            onChange={(event) => pins.setWords(event.target.value)}
            slotProps={{ htmlInput: { maxLength: 2000 } }}
          />
          <TextField
            label="Until, s (empty: that moment)"
            value={pins.until}
            onChange={(event) => pins.setUntil(event.target.value)}
            sx={{ width: 260 }}
          />
          <Button type="submit" variant="outlined" disabled={pins.words.trim() === ''}>
            Pin
          </Button>
          <Button onClick={pins.leave}>Leave it</Button>
        </Box>
      )}
    </Box>
  );
}
