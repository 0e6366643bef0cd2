'use client';

import { Box, Button, TextField } from '@mui/material';
import { useEffect, useRef, useState } from 'react';
import type { ObservationItem, WaitItem } from '@/core/procedure/procedure';
import { waitStart } from '@/core/procedure/run';
import { useKeys } from '../keys';
import { useSettings } from '../settings-context';
import { callOut, confirmCapture } from '../signal';
import { clock, useNow } from '../use-now';
import { Bar, type BarProps } from './bar';
import type { RunHandle } from './use-run';

type Others = BarProps['others'];

/** Asks for a confirmation: cautions read, the source turned, the run closed. */
export function ConfirmBar({
  run,
  prompt,
  label,
  others,
  send,
}: {
  run: RunHandle;
  prompt: string;
  label: string;
  others: Others;
  send: () => Promise<boolean>;
}) {
  const settings = useSettings();
  const go = async () => {
    if (!run.busy && (await send())) confirmCapture(settings.sound);
  };
  useKeys([
    { key: 'Enter', label, run: () => void go() },
    { key: settings.captureKey, label: `${label} (foot-switch)`, run: () => void go(), inFields: true },
  ]);
  return (
    <Bar
      message={run.problem?.title}
      prompt={<Box sx={{ fontSize: '1.35rem', fontWeight: 600 }}>{prompt}</Box>}
      primary={{ label, key: 'Enter', run: () => void go(), busy: run.busy }}
      others={others}
    />
  );
}

/** Asks for something to be looked at. */
export function ObservationBar({
  run,
  item,
  others,
}: {
  run: RunHandle;
  item: ObservationItem;
  others: Others;
}) {
  const settings = useSettings();
  const [note, setNote] = useState('');
  const give = async (answer: string) => {
    if (run.busy) return;
    if (await run.send({ type: 'observed', item: item.id, answer, note: note.trim() }))
      confirmCapture(settings.sound);
  };
  useKeys([
    ...item.answers.map(({ id, label }, i) => ({ key: String(i + 1), label, run: () => void give(id) })),
    { key: 'Enter', label: item.answers[0].label, run: () => void give(item.answers[0].id) },
    {
      key: settings.captureKey,
      label: `${item.answers[0].label} (foot-switch)`,
      run: () => void give(item.answers[0].id),
      inFields: true,
    },
  ]);
  return (
    <Bar
      message={run.problem?.title}
      prompt={<Box sx={{ fontSize: '1.35rem', fontWeight: 600 }}>{item.prompt}</Box>}
      others={others}
    >
      <TextField
        label="Note"
        value={note}
        onChange={(event) => setNote(event.target.value)}
        sx={{ width: 190 }}
        slotProps={{ htmlInput: { maxLength: 20_000 } }}
      />
      {item.answers.map(({ id, label }, i) => (
        <Button
          key={id}
          variant={i === 0 ? 'contained' : 'outlined'}
          size="large"
          disabled={run.busy}
          onClick={() => void give(id)}
          sx={{ minHeight: 68, gap: 1 }}
        >
          {label} <kbd>{i + 1}</kbd>
        </Button>
      ))}
    </Bar>
  );
}

/** Counts a wait down, and goes on by itself when it is over. */
export function WaitBar({ run, item, others }: { run: RunHandle; item: WaitItem; others: Others }) {
  const settings = useSettings();
  const now = useNow();
  const called = useRef(false);
  const from = waitStart(run.context.procedure, run.state, item.id);
  const left_s = from && now !== null ? item.duration_s - (now - Date.parse(from)) / 1000 : null;
  const over = left_s !== null && left_s <= 0;
  const go = async () => {
    if (run.busy) return;
    if (await run.send({ type: from ? 'wait-ended' : 'wait-started', item: item.id }))
      confirmCapture(settings.sound);
  };
  useEffect(() => {
    if (!over || called.current || run.busy) return;
    called.current = true;
    callOut(settings.sound);
    void run.send({ type: 'wait-ended', item: item.id });
  }, [over, run, item.id, settings.sound]);
  const label = !from ? 'Start' : over ? 'Go on' : 'End early';
  useKeys([
    { key: 'Enter', label: from ? 'End the wait early' : 'Start the wait', run: () => void go() },
    {
      key: settings.captureKey,
      label: `${from ? 'End' : 'Start'} the wait (foot-switch)`,
      run: () => void go(),
      inFields: true,
    },
  ]);
  return (
    <Bar
      message={run.problem?.title}
      prompt={
        <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 2 }}>
          <Box sx={{ fontSize: '1.35rem', fontWeight: 600 }}>{item.prompt}</Box>
          <Box role="timer" aria-label="Time left" sx={{ fontSize: '52px', lineHeight: 1, fontWeight: 650 }}>
            {clock(left_s ?? item.duration_s)}
          </Box>
          {from && <Box>The bench keeps counting if you leave or reload.</Box>}
        </Box>
      }
      primary={{ label, key: 'Enter', run: () => void go(), busy: run.busy }}
      others={others}
    />
  );
}
