'use client';

import { Box, Button, MenuItem, TextField } from '@mui/material';
import { useEffect, useRef, useState } from 'react';
import { gaugeFor, type Instrument } from '@/core/metrology/instrument';
import { checkCapture } from '@/core/procedure/check-capture';
import { captureNow, readyFor, type LivePorts } from '@/core/procedure/hands-free';
import type { RunEventOf } from '@/core/procedure/events';
import type { ReadingItem } from '@/core/procedure/procedure';
import { printQuantity } from '@/core/quantities/print';
import { parseReading, type ReadingResult } from '@/core/quantities/reading';
import { refusalSentence } from '@/core/quantities/refusal';
import { fromSI, unitFor } from '@/core/quantities/units';
import type { LiveMoment } from '@/core/records/live';
import type { Expectation } from '@/core/twin/result';
import { useKeys } from '../keys';
import { gaugeNow } from '../live/live-gauges';
import { usePrint, useSettings } from '../settings-context';
import { confirmCapture, refuseTone } from '../signal';
import { Bar, type BarProps } from './bar';
import type { RunHandle } from './use-run';

interface ReadingBarProps {
  readonly run: RunHandle;
  readonly item: ReadingItem;
  readonly expectation: Expectation | null;
  readonly others: BarProps['others'];
  readonly text: string;
  readonly onText: (text: string) => void;
  /** What the live bench shows; null where readings are typed. */
  readonly moment: LiveMoment | null;
  readonly livePorts: LivePorts | null;
  readonly handsFree: boolean;
}

/** A doubted live reading is the same reading while it stays within so many steps. */
const DOUBT_STEPS = 20;
/** Ignore a second press within this time: a foot-switch bounces. */
const BOUNCE_MS = 300;

/** Asks for one reading: what a healthy unit shows, the field, the gauge it is read on. */
export function ReadingBar(props: ReadingBarProps) {
  const { run, item, expectation, others, text, onText, moment, livePorts, handsFree } = props;
  const settings = useSettings();
  const print = usePrint();
  const field = useRef<HTMLInputElement>(null);
  const lastPress = useRef(0);
  const [picked, setPicked] = useState<string | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  const [ambiguous, setAmbiguous] = useState<readonly number[] | null>(null);
  const [doubted, setDoubted] = useState<number | null>(null);
  const { context, state, family } = run;
  const port = family.ports.find(({ id }) => id === item.port)!;
  const unit = unitFor(item.quantity, settings.unitSet);
  const own = context.rig[item.port] ?? [];
  const choices = [
    ...own,
    ...context.shelf.filter((g) => g.quantity === item.quantity && !own.some(({ tag }) => tag === g.tag)),
  ];
  const aim = item.gate
    ? 0
    : Math.max(item.target_Pa ?? 0, expectation?.expected ?? 0, expectation?.limits?.low ?? 0);
  const typed: ReadingResult = parseReading(text, {
    quantity: item.quantity,
    unit,
    barometer_Pa: context.conditions.barometer_Pa,
  });
  const named = picked ?? item.gauge ?? null;
  const heard = moment && !named ? gaugeNow(own, moment) : null;
  const gauge =
    text.trim() === '' && heard
      ? heard
      : gaugeInUse(choices, own, named, Math.max(aim, typed.ok ? typed.value_SI : 0));
  const shown = moment && gauge && text.trim() === '' ? moment.shown[gauge.tag] : undefined;
  // A vacuum transducer at rest wanders about zero; a depression below it is none.
  const live = shown !== undefined && item.quantity === 'depression' ? Math.max(0, shown) : shown;
  const stands = Boolean(gauge && moment?.settled.includes(gauge.tag));
  const low = own.find((g) => g.tiedTo && g.fullScale_Pa < aim && g.tag !== gauge?.tag);

  useEffect(() => field.current?.focus(), [item.id]);

  const capture = async (value_SI: number, confirmed: boolean, by: RunEventOf<'captured'>['by']) => {
    if (!gauge) return;
    const problem = checkCapture(family, context, state, item, gauge, value_SI);
    if (problem && problem.code !== 'unlikely') {
      refuseTone(settings.sound);
      setMessage(refusalSentence(problem, port.name, settings.unitSet));
      return;
    }
    if (problem && !confirmed) {
      refuseTone(settings.sound);
      setDoubted(value_SI);
      setMessage(
        `${port.name}: no known fault gives ${print.value(value_SI, item.quantity)} here (${print.value(Math.max(0, problem.low), item.quantity)} to ${print.value(problem.high, item.quantity)} would be within reach). Read the gauge again; press once more to keep it.`,
      );
      return;
    }
    const sent = await run.send({
      type: 'captured',
      item: item.id,
      value_SI,
      typed: text,
      by,
      instrument: gauge.tag,
      confirmedUnlikely: Boolean(problem),
    });
    if (!sent) return;
    confirmCapture(settings.sound);
    onText('');
    setMessage(null);
  };

  const commit = () => {
    const now = Date.now();
    if (run.busy || now - lastPress.current < BOUNCE_MS) return;
    lastPress.current = now;
    setAmbiguous(null);
    if (live !== undefined) {
      void capture(
        live,
        doubted !== null && Math.abs(doubted - live) <= DOUBT_STEPS * gauge!.step_Pa,
        'gauge',
      );
      return;
    }
    if (!typed.ok) {
      refuseTone(settings.sound);
      if (typed.why.code === 'ambiguous') setAmbiguous(typed.why.candidates_SI);
      setMessage(refusalSentence(typed.why, port.name, settings.unitSet));
      return;
    }
    void capture(typed.value_SI, doubted === typed.value_SI, 'typed');
  };

  const tried = useRef(false);
  const [ready, setReady] = useState(false);
  if (!ready && livePorts && readyFor(item, livePorts)) setReady(true);
  const due = ready && handsFree && live !== undefined && livePorts !== null && captureNow(item, livePorts);
  const take = useRef(() => undefined as void);
  useEffect(() => {
    take.current = () => void capture(live!, false, 'hands-free');
  });
  useEffect(() => {
    if (!due || tried.current || run.busy) return;
    tried.current = true;
    take.current();
  }, [due, run.busy]);

  useKeys([
    { key: 'Enter', label: 'Capture the reading', run: () => undefined },
    { key: settings.captureKey, label: 'Capture the reading (foot-switch)', run: commit, inFields: true },
  ]);

  const change = (value: string) => {
    onText(value);
    setMessage(null);
    setAmbiguous(null);
    setDoubted(null);
  };

  return (
    <Bar
      message={message ?? run.problem?.title}
      prompt={
        <>
          <Box sx={{ fontSize: '1.1rem', fontWeight: 650 }}>{item.prompt}</Box>
          <ExpectedLine item={item} expectation={expectation} />
          {low && (
            <Box sx={{ color: 'warning.dark', fontWeight: 600 }}>
              Shut the cock of {low.tag} first: its scale ends at{' '}
              {print.value(low.fullScale_Pa, item.quantity)}.
            </Box>
          )}
        </>
      }
      primary={{ label: 'Capture', key: 'Enter', run: commit, busy: run.busy }}
      others={others}
    >
      {ambiguous && (
        <Box sx={{ display: 'flex', gap: 1 }} role="group" aria-label="Which did you mean?">
          {ambiguous.map((value) => (
            <Button
              key={value}
              variant="outlined"
              sx={{ minHeight: 56 }}
              onClick={() => {
                change(exactText(value, item, settings.unitSet));
                field.current?.focus();
              }}
            >
              {exactText(value, item, settings.unitSet)}
            </Button>
          ))}
        </Box>
      )}
      <Box sx={{ display: 'flex', alignItems: 'flex-end', gap: 1 }}>
        <Box sx={{ position: 'relative' }}>
          <Box
            component="label"
            htmlFor="reading"
            sx={{ fontSize: '0.85rem', color: 'text.secondary', display: 'block' }}
          >
            {port.name}, {unit.symbol}
            {live !== undefined && (stands ? ' · settled' : ' · moving')}
          </Box>
          <Box
            component="input"
            id="reading"
            ref={field}
            data-reading="yes"
            placeholder={
              live === undefined ? '' : print.value(live, item.quantity, { bare: true, u_SI: gauge!.step_Pa })
            }
            value={text}
            onChange={(event: React.ChangeEvent<HTMLInputElement>) => change(event.target.value)}
            onKeyDown={(event: React.KeyboardEvent) => {
              if (event.key !== 'Enter') return;
              event.preventDefault();
              if (!event.repeat) commit();
            }}
            autoComplete="off"
            inputMode="none"
            aria-invalid={Boolean(message)}
            maxLength={20_000}
            sx={{
              font: 'inherit',
              fontSize: '48px',
              lineHeight: 1.1,
              width: 230,
              px: 1,
              border: 2,
              borderColor: message ? 'error.main' : 'primary.main',
              borderRadius: 1,
              bgcolor: 'background.default',
              color: 'text.primary',
              '&::placeholder': { color: 'primary.main', opacity: 1 },
            }}
          />
        </Box>
        <TextField
          select
          label="Read on"
          value={gauge?.tag ?? ''}
          onChange={(event) => setPicked(event.target.value)}
          sx={{ width: 112 }}
          slotProps={{ htmlInput: { 'aria-label': 'Read on gauge' } }}
        >
          {choices.map(({ tag }) => (
            <MenuItem key={tag} value={tag}>
              {tag}
            </MenuItem>
          ))}
        </TextField>
      </Box>
    </Bar>
  );

  function ExpectedLine({ item: reading, expectation: exp }: Pick<ReadingBarProps, 'item' | 'expectation'>) {
    const show = (value: number) => printQuantity(value, reading.quantity, settings.unitSet);
    const parts: string[] = [];
    if (reading.measures === 'input' && reading.target_Pa) parts.push(`Aim for ${show(reading.target_Pa)}`);
    if (exp?.expected !== null && exp?.expected !== undefined) parts.push(`Expect ${show(exp.expected)}`);
    if (exp?.limits) parts.push(bandWords(exp.limits, show));
    if (exp?.expected && exp.gaugeScale) parts.push(`on this gauge ${show(exp.expected * exp.gaugeScale)}`);
    if (reading.stopAt_Pa) parts.push(`stop at ${show(reading.stopAt_Pa)} on any gauge`);
    return <Box sx={{ fontSize: '1.35rem', fontWeight: 600 }}>{parts.join(' · ') || '\u00a0'}</Box>;
  }
}

function bandWords({ low, high }: { low?: number; high?: number }, show: (value: number) => string): string {
  if (low !== undefined && high !== undefined) return `healthy ${show(Math.max(0, low))} to ${show(high)}`;
  return low !== undefined ? `at least ${show(low)}` : `at most ${show(high!)}`;
}

function gaugeInUse(
  choices: readonly Instrument[],
  own: readonly Instrument[],
  picked: string | null,
  reach_Pa: number,
): Instrument | null {
  const named = choices.find(({ tag }) => tag === picked);
  const widest = [...own].sort((a, b) => b.fullScale_Pa - a.fullScale_Pa)[0];
  return named ?? gaugeFor(own, reach_Pa) ?? widest ?? null;
}

/** A value written so that it can be read one way only: never exactly three decimals. */
function exactText(value_SI: number, item: ReadingItem, set: Parameters<typeof unitFor>[1]): string {
  const unit = unitFor(item.quantity, set);
  const value = Number(fromSI(value_SI, unit).toPrecision(9));
  const text = String(value);
  return `${/\.\d{3}$/.test(text) ? `${text}0` : text} ${unit.symbol}`;
}
