'use client';

import { Box, Button, TextField } from '@mui/material';
import type { TraceRecord } from '@/core/records/trace-record';

interface PinsProps {
  readonly notes: TraceRecord['notes'];
  readonly moment: number | null;
  readonly words: string;
  readonly onWords: (words: string) => void;
  readonly onPin: () => void;
  readonly onDrop: (id: string) => void;
}

/** Notes pinned to moments: press on the trace, or type a time, then write. */
export function Pins({ notes, moment, words, onWords, onPin, onDrop }: PinsProps) {
  return (
    <Box sx={{ fontSize: '0.92rem' }}>
      {notes.map(({ id, at_s, words: said }, i) => (
        <Box key={id} sx={{ display: 'flex', gap: 1, alignItems: 'baseline' }}>
          <b>{i + 1}</b>
          <span>{at_s.toFixed(1)} s</span>
          <Box component="span" sx={{ flex: 1, overflowWrap: 'anywhere' }}>
            {said}
          </Box>
          <Button size="small" aria-label={`Take note ${i + 1} off`} onClick={() => onDrop(id)}>
            Take off
          </Button>
        </Box>
      ))}
      {moment === null ? (
        <Box sx={{ color: 'text.secondary' }}>
          Press on the trace to pin a note there. The wheel zooms, a drag moves.
        </Box>
      ) : (
        <Box
          component="form"
          sx={{ display: 'flex', gap: 1, mt: 0.5 }}
          onSubmit={(event: React.FormEvent) => {
            event.preventDefault();
            onPin();
          }}
        >
          <TextField
            label={`Note at ${moment.toFixed(1)} s`}
            value={words}
            onChange={(event) => onWords(event.target.value)}
            slotProps={{ htmlInput: { maxLength: 2000 } }}
          />
          <Button type="submit" variant="outlined" disabled={words.trim() === ''}>
            Pin
          </Button>
        </Box>
      )}
    </Box>
  );
}
