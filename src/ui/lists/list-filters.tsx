'use client';

import { Box, Button, MenuItem, TextField } from '@mui/material';
import { useState, type ReactNode } from 'react';
import { KINDS, VERDICTS, type ListQuery } from '@/core/records/list-query';
import { DateField } from '../forms/date-field';
import { ISO_DATE } from '../forms/iso-date';
import { Key } from '../keys';
import type { List } from './use-list';

interface ListFiltersProps {
  readonly list: List<ListQuery>;
  readonly searchLabel: string;
  readonly technicians: readonly string[];
  /** Further choices, before the others. */
  readonly children?: ReactNode;
}

const ALL: Pick<ListQuery, 'from' | 'to' | 'kind' | 'verdict' | 'technician'> = {
  from: '',
  to: '',
  kind: '',
  verdict: '',
  technician: '',
};

/** Whether a list is narrowed by anything but the words searched for. */
export const narrowed = (query: ListQuery) =>
  Object.keys(ALL).some((name) => query[name as keyof typeof ALL] !== '');

/** Narrows a list by words, days, kind of unit, verdict and technician. */
export function ListFilters({ list, searchLabel, technicians, children }: ListFiltersProps) {
  const { query, ask, typed, type, field } = list;
  return (
    <Box
      role="search"
      sx={{
        display: 'grid',
        gridTemplateColumns: 'repeat(auto-fill, minmax(164px, 1fr))',
        alignItems: 'center',
        gap: 1.5,
        mb: 1.5,
      }}
    >
      <TextField
        label={searchLabel}
        value={typed}
        inputRef={field}
        onChange={(event) => type(event.target.value)}
        sx={{ gridColumn: 'span 2' }}
        slotProps={{ input: { endAdornment: <Key name="/" /> } }}
      />
      {children}
      <Day label="From" value={query.from} onChoose={(from) => ask({ from })} />
      <Day label="To" value={query.to} onChoose={(to) => ask({ to })} />
      <Choice
        label="Kind of unit"
        value={query.kind}
        choices={{ '': 'All kinds', ...KINDS }}
        onChoose={(kind) => ask({ kind })}
      />
      <Choice
        label="Verdict"
        value={query.verdict}
        choices={{ '': 'Any verdict', ...VERDICTS }}
        onChoose={(verdict) => ask({ verdict })}
      />
      <Choice
        label="Tested by"
        value={query.technician}
        choices={{ '': 'Anybody', ...Object.fromEntries(technicians.map((name) => [name, name])) }}
        onChoose={(technician) => ask({ technician })}
      />
      {narrowed(query) && (
        <Button variant="outlined" onClick={() => ask(ALL)}>
          Show all again
        </Button>
      )}
    </Box>
  );
}

interface DayProps {
  readonly label: string;
  readonly value: string;
  readonly onChoose: (day: string) => void;
}

/** A day to narrow by. A date half typed asks nothing, and stays in the field. */
function Day({ label, value, onChoose }: DayProps) {
  const [typed, setTyped] = useState(value);
  const [asked, setAsked] = useState(value);
  if (asked !== value) {
    setAsked(value);
    setTyped(value);
  }
  return (
    <DateField
      label={label}
      value={typed}
      onChange={(day) => {
        setTyped(day);
        if (day === '' || ISO_DATE.test(day)) onChoose(day);
      }}
    />
  );
}

interface ChoiceProps<K extends string> {
  readonly label: string;
  readonly value: K;
  readonly choices: Readonly<Record<K, string>>;
  readonly onChoose: (choice: K) => void;
}

export function Choice<K extends string>({ label, value, choices, onChoose }: ChoiceProps<K>) {
  return (
    <TextField
      select
      label={label}
      value={value}
      onChange={(event) => onChoose(event.target.value as K)}
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
    >
      {Object.entries<string>(choices).map(([key, name]) => (
        <MenuItem key={key} value={key}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
}
