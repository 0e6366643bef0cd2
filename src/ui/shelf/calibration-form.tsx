'use client';

import { Box, Button, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { readCorrection } from '@/core/metrology/correction-text';
import { calibrationSchema, type Calibration } from '@/core/metrology/calibration';
import { parseReading } from '@/core/quantities/reading';
import { refusalSentence } from '@/core/quantities/refusal';
import { unitFor } from '@/core/quantities/units';
import type { StoredInstrument } from '@/core/records/views';
import { call } from '../api';
import { FileButton } from '../file-button';
import { DateField } from '../forms/date-field';
import { useSettings } from '../settings-context';

const EMPTY = { on: '', due: '', certificate: '', found: '', table: '', U: '' };

/** Records a calibration: dates, certificate, what was found, and the correction table where there is one. */
export function CalibrationForm({ stored, today }: { stored: StoredInstrument; today: string }) {
  const router = useRouter();
  const { unitSet } = useSettings();
  const [typed, setTyped] = useState({ ...EMPTY, on: today });
  const [errors, setErrors] = useState<Readonly<Record<string, string>>>({});
  const gauge = stored.body;
  const unit = unitFor(gauge.quantity, unitSet);
  const field = (name: keyof typeof EMPTY, label: string, more: object = {}) => (
    <TextField
      label={label}
      value={typed[name]}
      onChange={(event) => setTyped({ ...typed, [name]: event.target.value })}
      error={Boolean(errors[name])}
      helperText={errors[name]}
      {...more}
    />
  );
  const date = (name: 'on' | 'due', label: string) => (
    <DateField
      label={label}
      value={typed[name]}
      onChange={(value) => setTyped((now) => ({ ...now, [name]: value }))}
      error={errors[name]}
    />
  );
  const correctionFrom = ():
    { ok: true; value: Calibration['correction'] } | { ok: false; errors: Record<string, string> } => {
    if (typed.table.trim() === '') return { ok: true, value: null };
    const table = readCorrection(typed.table, gauge, unitSet);
    if (!table.ok) return { ok: false, errors: { table: table.why } };
    const U = parseReading(typed.U, { quantity: gauge.quantity, unit, barometer_Pa: 1e9 });
    if (!U.ok) {
      const why =
        U.why.code === 'ambiguous'
          ? `“${typed.U}” can be read in two ways. Write it without doubt.`
          : refusalSentence(U.why, 'Uncertainty on the certificate', unitSet);
      return { ok: false, errors: { U: why } };
    }
    const value = {
      points: [...table.points],
      expandedU_Pa: U.value_SI,
      certificate: typed.certificate.trim(),
    };
    return { ok: true, value };
  };
  const save = async () => {
    const correction = correctionFrom();
    if (!correction.ok) return setErrors(correction.errors);
    const body = {
      on: typed.on.trim(),
      due: typed.due.trim() || null,
      certificate: typed.certificate,
      found: typed.found,
      correction: correction.value,
    };
    const parsed = calibrationSchema.safeParse(body);
    if (!parsed.success) {
      const fieldOf = (path: PropertyKey[]) =>
        path[0] === 'correction' ? (path[1] === 'expandedU_Pa' ? 'U' : 'table') : String(path[0]);
      return setErrors(
        Object.fromEntries(parsed.error.issues.map(({ path, message }) => [fieldOf(path), message])),
      );
    }
    const answer = await call('POST', `/instruments/${stored.id}/calibrations`, {
      version: stored.version,
      body: parsed.data,
    });
    if (!answer.ok) return setErrors({ table: answer.problem.title });
    setErrors({});
    setTyped({ ...EMPTY, on: today });
    router.refresh();
  };
  return (
    <Box
      component="form"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
      sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' }, gap: 2, pt: 1 }}
    >
      {date('on', 'Calibrated on')}
      {date('due', 'Next calibration')}
      {field('certificate', 'Certificate')}
      {field('found', 'As found')}
      {field('table', `Correction table, ${unit.symbol}: reference; indicated`, {
        multiline: true,
        minRows: 4,
        placeholder: '0; 0,1\n50; 50,4\n100; 100,9',
      })}
      <Box sx={{ display: 'grid', gap: 2, alignContent: 'start' }}>
        {field('U', `Uncertainty on the certificate (k = 2), ${unit.symbol}`)}
        <FileButton
          fileLabel="Table from a file"
          accept=".csv,.txt,text/csv"
          variant="outlined"
          onFile={(file) => void file.text().then((table) => setTyped((now) => ({ ...now, table })))}
        >
          Table from a CSV file
        </FileButton>
        <Box>Without a table the class stands for the gauge’s error.</Box>
      </Box>
      <Box>
        <Button type="submit" variant="contained">
          Record the calibration
        </Button>
      </Box>
    </Box>
  );
}
