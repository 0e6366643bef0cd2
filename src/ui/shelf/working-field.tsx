'use client';

import { Box, MenuItem, TextField } from '@mui/material';
import type { Answered } from '@/core/contract/working';
import type { SchemaField } from '../forms/schema-fields';
import { usePrint } from '../settings-context';

/** One answer of a working: its name and its number. */
export function AnswerLine({ answer }: { answer: Answered }) {
  const print = usePrint();
  return (
    <>
      <Box component="dt">{answer.name}</Box>
      <Box
        component="dd"
        sx={{ m: 0, fontWeight: 700, fontVariantNumeric: 'tabular-nums', textAlign: 'right' }}
      >
        {'text' in answer
          ? answer.text
          : print.value(answer.value, answer.quantity, { u_SI: answer.u, withU: answer.u !== undefined })}
      </Box>
    </>
  );
}

interface WorkingFieldProps {
  readonly field: SchemaField;
  readonly value: string;
  readonly error: string | undefined;
  readonly unit: string;
  readonly onChange: (value: string) => void;
}

/** One number or word that a working is given. */
export function WorkingField({ field, value, error, unit, onChange }: WorkingFieldProps) {
  const label = unit ? `${field.title}, ${unit}` : field.title;
  return (
    <TextField
      label={label}
      value={value}
      error={Boolean(error)}
      helperText={error ?? (field.kind === 'quantities' ? 'Separated by semicolons' : undefined)}
      select={field.kind === 'choice'}
      onChange={(event) => onChange(event.target.value)}
    >
      {field.choices?.map((choice) => (
        <MenuItem key={choice.value} value={choice.value}>
          {choice.label}
        </MenuItem>
      ))}
    </TextField>
  );
}
