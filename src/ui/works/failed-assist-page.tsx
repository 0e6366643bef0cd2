'use client';

import { Box, Button, MenuItem, Slider, TextField } from '@mui/material';
import { useMemo, useState } from 'react';
import { runWorking } from '@/core/contract/working';
import { fromSI, toSI, unitFor } from '@/core/quantities/units';
import type { StoredProfile } from '@/core/records/views';
import {
  boreTradeOff,
  FOOT_ALONE_EXAMPLE,
  footAlone,
  type FootAloneFields,
} from '@/core/workings/foot-alone';
import { bodyFrom, fieldsOf, textOf, type FormText, type SchemaField } from '../forms/schema-fields';
import { Page } from '../page';
import { TO_A_MM, usePrint, useSettings } from '../settings-context';
import { AnswerLine, WorkingField } from '../shelf/working-field';
import { filledFrom, hasStop } from './failed-assist-vehicle';

/** What is had on a slider: the foot first, then what is traded for it. */
const ON_SLIDERS = ['pedal_N', 'masterBore_m', 'frontArea_m2', 'rearArea_m2', 'pedalRatio'] as const;
/** Steps of a slider from one end to the other. */
const STEPS = 400;

const FIELDS = fieldsOf(footAlone.input);
const isSlider = ({ path }: SchemaField) => (ON_SLIDERS as readonly string[]).includes(path);

/** Pedal effort, bore, piston area and ratio against metres and travel, with the assist failed: one hand on a slider. */
export function FailedAssistPage({ profiles }: { profiles: readonly StoredProfile[] }) {
  const { unitSet } = useSettings();
  const vehicles = useMemo(() => profiles.filter(hasStop), [profiles]);
  const [begun, setBegun] = useState<FootAloneFields>(FOOT_ALONE_EXAMPLE);
  const [text, setText] = useState<FormText>(() => textOf(FIELDS, FOOT_ALONE_EXAMPLE, unitSet));
  const [chosen, setChosen] = useState('');
  const read = bodyFrom(FIELDS, text, unitSet, {});
  const outcome = read.ok ? runWorking(footAlone, read.body) : ({ ok: false, fields: read.errors } as const);
  const errors = outcome.ok ? {} : outcome.fields;
  const body = read.ok && outcome.ok ? (read.body as FootAloneFields) : null;
  const put = (fields: FootAloneFields) => {
    setBegun(fields);
    setText(textOf(FIELDS, fields, unitSet));
  };
  const take = (id: string) => {
    setChosen(id);
    const profile = vehicles.find((one) => one.id === id);
    put(profile ? filledFrom(profile.body) : FOOT_ALONE_EXAMPLE);
  };
  const symbol = (field: SchemaField) => (field.quantity ? unitFor(field.quantity, unitSet).symbol : '');
  const asText = (field: SchemaField, value: number) =>
    textOf([field], { [field.path]: value }, unitSet)[field.path]!;
  return (
    <Page
      title="Failed assist"
      actions={
        <TextField
          select
          label="Figures of"
          value={chosen}
          onChange={({ target }) => take(target.value)}
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
          sx={{ width: 300 }}
        >
          <MenuItem value="">A made-up van</MenuItem>
          {vehicles.map(({ id, body: { name } }) => (
            <MenuItem key={id} value={id}>
              {name}
            </MenuItem>
          ))}
        </TextField>
      }
    >
      <Box sx={{ display: 'grid', gap: 3, gridTemplateColumns: { xs: '1fr', lg: 'minmax(0, 1fr) 560px' } }}>
        <Box sx={{ minWidth: 0 }}>
          <Told body={body} />
          {FIELDS.filter(isSlider).map((field) => (
            <Slid
              key={field.path}
              field={field}
              value={body ? (body[field.path as keyof FootAloneFields] as number) : null}
              begun={begun[field.path as keyof FootAloneFields] as number}
              onSet={(value) => setText({ ...text, [field.path]: asText(field, value) })}
            />
          ))}
          <Button size="small" onClick={() => put(begun)}>
            Back to the figures as they were
          </Button>
          <Box
            sx={{
              display: 'grid',
              gap: 1.75,
              mt: 2,
              gridTemplateColumns: { xs: '1fr 1fr', md: '1fr 1fr 1fr' },
            }}
          >
            {FIELDS.filter((field) => !isSlider(field)).map((field) => (
              <WorkingField
                key={field.path}
                field={field}
                value={text[field.path] ?? ''}
                error={errors[field.path]}
                unit={symbol(field)}
                onChange={(value) => setText({ ...text, [field.path]: value })}
              />
            ))}
          </Box>
        </Box>
        <Box
          sx={{
            display: 'grid',
            gap: 1.5,
            alignContent: 'start',
            '& svg': { width: '100%', height: 'auto' },
          }}
        >
          {body && (
            <>
              <div dangerouslySetInnerHTML={{ __html: footAlone.picture(body, unitSet) }} />
              <div dangerouslySetInnerHTML={{ __html: boreTradeOff(body, unitSet) }} />
            </>
          )}
          <Box
            component="dl"
            aria-live="polite"
            sx={{ display: 'grid', gridTemplateColumns: '1fr auto', gap: 0.4, m: 0 }}
          >
            {outcome.ok ? (
              outcome.answers.map((one) => <AnswerLine key={one.id} answer={one} />)
            ) : (
              <Box sx={{ color: 'text.secondary' }}>Some fields need another look.</Box>
            )}
          </Box>
        </Box>
      </Box>
    </Page>
  );
}

/** The metres, large, beside what the rule asks; and how far the pedal goes. */
function Told({ body }: { body: FootAloneFields | null }) {
  const print = usePrint();
  const outcome = body && runWorking(footAlone, body);
  if (!body || !outcome?.ok) return <Box sx={{ minHeight: 96 }} />;
  const of = (id: string) => outcome.answers.find((one) => one.id === id)!;
  const number = (id: string) => {
    const found = of(id);
    return 'value' in found ? found.value : null;
  };
  const metres = number('distance_m');
  const limit = number('limit_m')!;
  const keeps = metres !== null && metres <= limit && body.pedal_N <= 500;
  const part = number('travelPart')!;
  return (
    <Box aria-live="polite" sx={{ borderBottom: 2, borderColor: 'text.primary', pb: 1, mb: 1.5 }}>
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 2, flexWrap: 'wrap' }}>
        <Box
          data-testid="metres"
          sx={{ fontSize: 56, fontWeight: 700, lineHeight: 1.1, fontVariantNumeric: 'tabular-nums' }}
        >
          {metres === null ? 'No stop' : print.value(metres, 'altitude')}
        </Box>
        <Box sx={{ fontSize: '1.1rem' }}>
          with {print.value(body.pedal_N, 'force')} at the pedal,{' '}
          {print.value(number('travel_m')!, 'travel', TO_A_MM)} of its{' '}
          {print.value(body.stroke_m, 'travel', TO_A_MM)}
        </Box>
      </Box>
      <Box sx={{ fontWeight: 600, color: keeps ? 'success.main' : 'warning.main' }}>
        {part >= 1 && 'The pedal is at its stop: no harder push presses more. '}
        {keeps
          ? `Within what rules for passenger cars ask: ${print.value(limit, 'altitude')} with 500 N at the most.`
          : body.pedal_N > 500
            ? 'More than the 500 N that rules for passenger cars allow.'
            : `Not what rules for passenger cars ask: ${print.value(limit, 'altitude')} at the most.`}
      </Box>
      <Box sx={{ color: 'text.secondary', fontSize: '0.92rem' }}>
        For other classes of vehicle the rule that applies to them counts. A sum is no test: it says nothing
        about this vehicle’s safety.
      </Box>
    </Box>
  );
}

interface SlidProps {
  readonly field: SchemaField;
  /** SI; null while something typed cannot be read. */
  readonly value: number | null;
  readonly begun: number;
  readonly onSet: (value: number) => void;
}

function Slid({ field, value, begun, onSet }: SlidProps) {
  const { unitSet } = useSettings();
  const print = usePrint();
  const quantity = field.quantity!;
  const unit = unitFor(quantity, unitSet);
  const [low, high] = endsOf(field);
  const shown = value ?? begun;
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr auto', sm: '250px 1fr 100px' },
        columnGap: 2,
        alignItems: 'center',
        minHeight: 44,
      }}
    >
      <Box component="span" id={`slid-${field.path}`}>
        {field.title}
      </Box>
      <Slider
        aria-labelledby={`slid-${field.path}`}
        value={fromSI(shown, unit)}
        min={fromSI(low, unit)}
        max={fromSI(high, unit)}
        step={(fromSI(high, unit) - fromSI(low, unit)) / STEPS}
        marks={[{ value: fromSI(begun, unit) }]}
        getAriaValueText={() => print.value(shown, quantity)}
        onChange={(_event, at) => onSet(toSI(at as number, unit))}
        sx={{ gridColumn: { xs: '1 / -1', sm: 'auto' }, order: { xs: 1, sm: 0 } }}
      />
      <Box sx={{ textAlign: 'right', fontWeight: 700, fontVariantNumeric: 'tabular-nums' }}>
        {print.value(shown, quantity)}
      </Box>
    </Box>
  );
}

/** Least and most of a field, by its schema, SI. */
function endsOf({ path }: SchemaField): [number, number] {
  const shape = (
    footAlone.input as unknown as { shape: Record<string, { minValue: number; maxValue: number }> }
  ).shape;
  const { minValue, maxValue } = shape[path]!;
  return [minValue, maxValue];
}
