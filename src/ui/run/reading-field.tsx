'use client';

import { Box, Button, MenuItem, TextField } from '@mui/material';
import type { RefObject } from 'react';
import type { Instrument } from '@/core/metrology/instrument';
import { fromSI, type Unit } from '@/core/quantities/units';

interface ReadingFieldProps {
  readonly field: RefObject<HTMLInputElement | null>;
  readonly label: string;
  /** What the live gauge shows meanwhile; empty where readings are typed. */
  readonly shown: string;
  readonly text: string;
  readonly wrong: boolean;
  readonly onText: (text: string) => void;
  /** It was tapped with a finger. */
  readonly onTap: () => void;
  readonly onEnter: (shifted: boolean) => void;
}

/** The run's own field: large enough for an arm's length, and Enter in it captures. */
export function ReadingField({
  field,
  label,
  shown,
  text,
  wrong,
  onText,
  onTap,
  onEnter,
}: ReadingFieldProps) {
  return (
    <Box>
      <Box
        component="label"
        htmlFor="reading"
        sx={{ fontSize: '0.85rem', color: 'text.secondary', display: 'block' }}
      >
        {label}
      </Box>
      <Box
        component="input"
        id="reading"
        ref={field}
        data-reading="yes"
        placeholder={shown}
        value={text}
        onChange={(event: React.ChangeEvent<HTMLInputElement>) => onText(event.target.value)}
        onPointerUp={(event: React.PointerEvent) => event.pointerType !== 'mouse' && onTap()}
        onKeyDown={(event: React.KeyboardEvent) => {
          if (event.key !== 'Enter') return;
          event.preventDefault();
          if (!event.repeat) onEnter(event.shiftKey);
        }}
        autoComplete="off"
        inputMode="none"
        aria-describedby="prompt"
        aria-invalid={wrong}
        maxLength={20_000}
        sx={{
          font: 'inherit',
          fontSize: '48px',
          lineHeight: 1.1,
          width: 230,
          px: 1,
          border: 2,
          borderColor: wrong ? 'error.main' : 'primary.main',
          borderRadius: 1,
          bgcolor: 'background.default',
          color: 'text.primary',
          '&::placeholder': { color: 'primary.main', opacity: 1 },
        }}
      />
    </Box>
  );
}

/** The gauge that it is read on: the port's own first. */
export function GaugeChoice({
  gauge,
  choices,
  onPick,
}: {
  gauge: Instrument | null;
  choices: readonly Instrument[];
  onPick: (tag: string) => void;
}) {
  return (
    <TextField
      select
      label="Read on"
      value={gauge?.tag ?? ''}
      onChange={(event) => onPick(event.target.value)}
      sx={{ width: 112 }}
      slotProps={{ htmlInput: { 'aria-label': 'Read on gauge' } }}
    >
      {choices.map(({ tag }) => (
        <MenuItem key={tag} value={tag}>
          {tag}
        </MenuItem>
      ))}
    </TextField>
  );
}

/** Asks which of several values was meant by what can be read in more than one way. */
export function WhichMeant({
  values,
  unit,
  onPick,
}: {
  values: readonly number[];
  unit: Unit;
  onPick: (text: string) => void;
}) {
  return (
    <Box sx={{ display: 'flex', gap: 1 }} role="group" aria-label="Which did you mean?">
      {values.map((value) => (
        <Button
          key={value}
          variant="outlined"
          sx={{ minHeight: 56 }}
          onClick={() => onPick(exactText(value, unit))}
        >
          {exactText(value, unit)}
        </Button>
      ))}
    </Box>
  );
}

/** A value in the unit that was typed, written so that it can be read one way only: never exactly three decimals. */
function exactText(value_SI: number, unit: Unit): string {
  const value = Number(fromSI(value_SI, unit).toPrecision(9));
  const text = String(value);
  return `${/\.\d{3}$/.test(text) ? `${text}0` : text} ${unit.symbol}`;
}
