'use client';

import { Box, Button } from '@mui/material';

interface NumberPadProps {
  readonly units: readonly string[];
  readonly onKey: (text: string) => void;
  readonly onErase: () => void;
}

const KEYS = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '−', '0', ','];

/** Our own number pad, so that a tablet's keyboard never hides the run. Keys are 64 px or more. */
export function NumberPad({ units, onKey, onErase }: NumberPadProps) {
  const key = (label: string, onClick: () => void, name = label) => (
    <Button
      key={label}
      variant="outlined"
      onClick={onClick}
      aria-label={name}
      sx={{ minWidth: 64, minHeight: 64, fontSize: '1.5rem', p: 0 }}
    >
      {label}
    </Button>
  );
  return (
    <Box
      role="group"
      aria-label="Number pad"
      sx={{
        display: 'grid',
        gridTemplateColumns: 'repeat(4, minmax(64px, 96px))',
        minWidth: 274,
        gap: 0.75,
        justifyContent: 'center',
      }}
    >
      {KEYS.slice(0, 3).map((k) => key(k, () => onKey(k)))}
      {key('⌫', onErase, 'Erase')}
      {KEYS.slice(3, 6).map((k) => key(k, () => onKey(k)))}
      {key(units[0] ?? '', () => onKey(` ${units[0]}`))}
      {KEYS.slice(6, 9).map((k) => key(k, () => onKey(k)))}
      {units[1] ? key(units[1], () => onKey(` ${units[1]}`)) : <span />}
      {KEYS.slice(9).map((k) => key(k, () => onKey(k)))}
      {units[2] ? key(units[2], () => onKey(` ${units[2]}`)) : <span />}
    </Box>
  );
}
