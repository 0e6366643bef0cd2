'use client';

import { Box, Button, Dialog, DialogActions, DialogContent, DialogTitle, TextField } from '@mui/material';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useRef, useState } from 'react';
import { calibrationState, gaugeFor } from '@/core/metrology/instrument';
import { instrumentsOf, ventedZero_Pa } from '@/core/procedure/measured-item';
import { liveState, missingNeeds, progress } from '@/core/procedure/live';
import { findItem, type Item, type ObservationItem, type WaitItem } from '@/core/procedure/procedure';
import { waitStart, type Capture } from '@/core/procedure/run';
import type { StoredJob, StoredRun } from '@/core/records/views';
import { unitFor } from '@/core/quantities/units';
import { useKeys } from '../keys';
import { Ladder } from '../ladder';
import { SCHEMATICS } from '../schematics/registry';
import { usePrint, useSettings } from '../settings-context';
import { callOut, confirmCapture } from '../signal';
import { time } from '../stamp';
import { clock, useNow } from '../use-now';
import { Bar } from './bar';
import { CautionList } from './caution-list';
import { LastResult } from './last-result';
import { NumberPad } from './number-pad';
import { ReadingBar } from './reading-bar';
import { Tape } from './tape';
import { useRun, type RunHandle } from './use-run';

/** The run: tape at the left, the drawing in the middle, ladders at the right, live strip above, one action bar below. */
export function RunScreen({ stored, job }: { stored: StoredRun; job: StoredJob }) {
  const run = useRun(stored);
  const { context, state, action, results, family } = run;
  const router = useRouter();
  const settings = useSettings();
  const [selected, setSelected] = useState<string | null>(null);
  const [skipping, setSkipping] = useState<{ step: string; item: string | null; title: string } | null>(null);
  const [pad, setPad] = useState(false);
  const [text, setText] = useState('');
  const step = 'step' in action ? action.step : null;
  const item = action.kind === 'item' ? action.item : null;
  const expectation = useMemo(
    () => (item?.kind === 'reading' ? family.expect(context, state, item) : null),
    [family, context, state, item],
  );
  const Drawing = SCHEMATICS[stored.kind];
  const last = state.captures.filter(({ struck }) => !struck).at(-1) ?? null;
  const done = progress(context.procedure, state);

  const strike = () => last && void run.send({ type: 'struck', capture: last.id });
  const repeat = () => last && void run.send({ type: 'reopened', item: last.item });
  const skip = () =>
    step &&
    !step.mandatory &&
    setSkipping({
      step: step.id,
      item: item?.id ?? null,
      title: item && 'prompt' in item ? item.prompt : step.title,
    });
  useKeys([
    {
      key: settings.strikeKey,
      label: 'Strike the last reading (kept, struck out)',
      run: () => void strike(),
      inFields: true,
    },
    {
      key: 'F2',
      label: 'Repeat the last reading (both are kept)',
      run: () => void repeat(),
      inFields: true,
    },
    { key: 'F4', label: 'Skip this, with a reason', run: () => void skip(), inFields: true },
    { key: 'F7', label: 'Number pad', run: () => setPad((shown) => !shown), inFields: true },
    {
      key: 'Escape',
      label: 'Leave the run; it waits for you at this step',
      run: () => router.push(`/jobs/${job.id}`),
      inFields: true,
    },
  ]);

  const others = [
    { label: 'Repeat last', key: 'F2', run: () => void repeat(), disabled: !last },
    { label: 'Strike last', key: settings.strikeKey, run: () => void strike(), disabled: !last },
    { label: 'Skip', key: 'F4', run: () => void skip(), disabled: !step || step.mandatory },
    { label: 'Number pad', key: 'F7', run: () => setPad((shown) => !shown) },
    { label: 'Leave', key: 'Esc', run: () => router.push(`/jobs/${job.id}`) },
  ];

  return (
    <Box
      sx={{
        display: 'grid',
        height: 'calc(100dvh - 49px)',
        minHeight: { xs: 900, md: 600 },
        gridTemplateColumns: { xs: '240px minmax(0, 1fr)', md: '280px minmax(0, 1fr) 330px' },
        gridTemplateRows: {
          xs: pad ? 'auto minmax(0, 1fr) 0 auto' : 'auto minmax(0, 1fr) minmax(0, 0.85fr) auto',
          md: 'auto minmax(0, 1fr) auto',
        },
        gridTemplateAreas: {
          xs: '"live live" "tape middle" "tape ladders" "bar bar"',
          md: '"live live live" "tape middle ladders" "bar bar bar"',
        },
      }}
    >
      <Box
        sx={{
          gridArea: 'live',
          display: 'flex',
          gap: 3,
          alignItems: 'center',
          px: 2,
          py: 0.75,
          borderBottom: 1,
          borderColor: 'divider',
          flexWrap: 'wrap',
        }}
      >
        <Box component="h1" sx={{ m: 0, fontSize: '1.05rem', fontWeight: 650 }}>
          {job.body.tag} · {job.profileName}
        </Box>
        <LiveStrip run={run} />
        <Box sx={{ ml: 'auto', color: 'text.secondary' }}>
          {done.done} of {done.of}
        </Box>
      </Box>
      <Box
        component="section"
        aria-label="Tape of this run"
        sx={{ gridArea: 'tape', borderRight: 1, borderColor: 'divider', minHeight: 0, overflow: 'hidden' }}
      >
        <Tape
          ports={family.ports}
          context={context}
          state={state}
          events={run.events}
          results={results}
          selected={selected}
          onSelect={(id) => setSelected(id === selected ? null : id)}
          follow
        />
      </Box>
      <Box
        component="section"
        aria-label="Step"
        tabIndex={0}
        sx={{
          gridArea: 'middle',
          minHeight: 0,
          overflowY: 'auto',
          p: 2,
          display: 'flex',
          flexDirection: 'column',
          gap: 1,
        }}
      >
        {run.clash && <ClashNotice run={run} />}
        <StepHead run={run} />
        <SelectedOrLast run={run} selected={selected} onClose={() => setSelected(null)} />
        {pad && item?.kind === 'reading' ? (
          <NumberPad
            units={padUnits(item, settings.unitSet)}
            onKey={(key) => setText((t) => t + key)}
            onErase={() => setText((t) => t.slice(0, -1))}
          />
        ) : (
          <Box sx={{ flex: 1, minHeight: 190 }}>
            <Drawing
              lit={
                item?.kind === 'reading'
                  ? item.port
                  : item?.kind === 'observation'
                    ? (item.point ?? null)
                    : null
              }
              marks={leakMarks(run)}
            />
          </Box>
        )}
      </Box>
      <Box
        component="section"
        aria-label="Gauges"
        sx={{
          gridArea: 'ladders',
          borderLeft: { md: 1 },
          borderColor: { md: 'divider' },
          p: 1.5,
          pl: 1,
          minHeight: 0,
          display: 'grid',
          gap: 0.5,
          overflow: 'hidden',
          gridTemplateRows: 'minmax(0, 1fr)',
          gridTemplateColumns: family.ports
            .map((port) => `${Math.max(1, (context.rig[port.id] ?? []).length)}fr`)
            .join(' '),
        }}
      >
        {family.ports.map((port) => {
          const gauges = context.rig[port.id] ?? [];
          const mine = state.captures.filter(
            (c) => !c.struck && portOf(run, c) === port.id && !c.item.startsWith('zero.'),
          );
          const here = item?.kind === 'reading' && item.port === port.id && item.measures !== 'zero';
          const gauge = here
            ? gaugeFor(gauges, Math.max(item.target_Pa ?? 0, expectation?.expected ?? 0))
            : null;
          return (
            <Ladder
              key={port.id}
              name={port.short}
              channel={port.id}
              gauges={gauges}
              unitSet={settings.unitSet}
              band={here ? bandOf(expectation?.limits ?? null, item.target_Pa) : null}
              reading={zeroed(run, mine.at(-1))}
              trail={mine.slice(-6, -1).map((c) => zeroed(run, c)!)}
              inUse={gauge?.tag}
              lit={here}
            />
          );
        })}
      </Box>
      <Box sx={{ gridArea: 'bar' }}>
        {action.kind === 'item' && action.item.kind === 'reading' && (
          <ReadingBar
            key={action.item.id}
            run={run}
            item={action.item}
            expectation={expectation}
            others={others}
            text={text}
            onText={setText}
          />
        )}
        {action.kind === 'item' && action.item.kind === 'observation' && (
          <ObservationBar key={action.item.id} run={run} item={action.item} others={others} />
        )}
        {action.kind === 'item' && action.item.kind === 'wait' && (
          <WaitBar key={action.item.id} run={run} item={action.item} others={others} />
        )}
        {action.kind === 'acknowledge' && (
          <ConfirmBar
            run={run}
            prompt="Read the cautions above."
            label="Understood"
            others={others}
            send={() => run.send({ type: 'acknowledged', step: action.step.id })}
          />
        )}
        {action.kind === 'source' && (
          <ConfirmBar
            run={run}
            prompt={action.vacuum === 'on' ? 'Open the vacuum.' : 'Shut the vacuum off at the bench valve.'}
            label={action.vacuum === 'on' ? 'Vacuum is on' : 'Vacuum is off'}
            others={others}
            send={() => run.send({ type: 'source-set', step: action.step.id, vacuum: action.vacuum })}
          />
        )}
        {action.kind === 'finish' && (
          <ConfirmBar
            run={run}
            prompt="Every step is done or skipped with a reason, and the unit is made safe."
            label="Close the run"
            others={others}
            send={() => run.send({ type: 'finished' })}
          />
        )}
        {action.kind === 'done' && (
          <Bar prompt="This run is finished." others={[]}>
            <Button
              component={Link}
              href={`/runs/${stored.id}/report`}
              variant="contained"
              size="large"
              sx={{ minHeight: 68 }}
            >
              Open the report
            </Button>
          </Bar>
        )}
      </Box>
      <SkipDialog
        open={skipping}
        onClose={() => setSkipping(null)}
        onSkip={async (reason, whole) => {
          if (!skipping) return;
          await run.send({
            type: 'skipped',
            step: skipping.step,
            item: whole ? null : skipping.item,
            reason,
          });
          setSkipping(null);
        }}
      />
    </Box>
  );
}

const portOf = (run: RunHandle, capture: Capture): string | null => {
  const item = findItem(run.context.procedure, capture.item)?.item;
  return item?.kind === 'reading' ? item.port : null;
};

const zeroed = (run: RunHandle, capture: Capture | undefined): number | null =>
  capture ? capture.value_SI - (ventedZero_Pa(run.state, capture.instrument) ?? 0) : null;

/** Where only an aim is known, a thin band about it. */
const bandOf = (limits: { low?: number; high?: number } | null, target_Pa: number | undefined) =>
  limits ?? (target_Pa ? { low: target_Pa * 0.99, high: target_Pa * 1.01 } : null);

const padUnits = (item: Extract<Item, { kind: 'reading' }>, set: Parameters<typeof unitFor>[1]) =>
  item.quantity === 'depression'
    ? [unitFor('depression', set).symbol, 'kPa', 'mbar']
    : [unitFor('pressure', set).symbol, 'psi', 'kPa'];

function leakMarks({ context, state }: RunHandle) {
  const marks: Record<string, 'good' | 'bad' | 'unknown'> = {};
  for (const { items } of context.procedure.steps) {
    for (const item of items) {
      if (item.kind !== 'observation' || !item.point) continue;
      const finds = item.answers.find(({ id }) => id === state.observations[item.id]?.answer)?.finds;
      if (finds && marks[item.point] !== 'bad') marks[item.point] = finds;
    }
  }
  return marks;
}

function LiveStrip({ run }: { run: RunHandle }) {
  const print = usePrint();
  const live = liveState(run.context.procedure, run.state);
  const pill = (label: string, on: boolean) => (
    <Box
      component="span"
      sx={{
        display: 'inline-flex',
        gap: 0.8,
        alignItems: 'center',
        fontWeight: on ? 700 : 400,
        color: on ? 'warning.dark' : 'text.secondary',
      }}
    >
      <Box component="svg" viewBox="0 0 12 12" sx={{ width: 12, height: 12 }} aria-hidden>
        {on ? (
          <rect x="0" y="0" width="12" height="12" fill="currentColor" />
        ) : (
          <rect x="1" y="1" width="10" height="10" fill="none" stroke="currentColor" strokeWidth="1.5" />
        )}
      </Box>
      {label}
    </Box>
  );
  return (
    <Box role="status" aria-label="Live now" sx={{ display: 'flex', gap: 3, flexWrap: 'wrap' }}>
      {pill(
        live.vacuum === 'on'
          ? `Vacuum on${live.supply_Pa === null ? '' : `, ${print.value(live.supply_Pa, 'depression')}`}`
          : live.spent
            ? 'Vacuum off, used up'
            : 'Vacuum off',
        live.vacuum === 'on',
      )}
      {pill(
        live.input === 'released' ? 'Input released' : `Input ${print.value(live.input, 'pressure')}`,
        live.input !== 'released',
      )}
    </Box>
  );
}

function StepHead({ run }: { run: RunHandle }) {
  const { action } = run;
  if (action.kind === 'done' || action.kind === 'finish') {
    const assessment = run.family.assess(run.context, run.state, run.results);
    return (
      <Box>
        <Box component="h2" sx={{ m: 0, fontSize: '1.5rem' }}>
          {assessment.headline}
        </Box>
        <Reasons run={run} />
      </Box>
    );
  }
  const showCautions = action.kind !== 'item';
  return (
    <Box>
      <Box component="h2" sx={{ m: 0, fontSize: '1.3rem' }}>
        {action.step.title}
      </Box>
      <Box sx={{ maxWidth: '62ch' }}>{action.step.instruction}</Box>
      {missingNeeds(run.context.procedure, run.state, action.step).map((title) => (
        <Box key={title} sx={{ color: 'warning.dark', fontWeight: 600 }}>
          “{title}” was skipped: what this step finds leans on it, and says so.
        </Box>
      ))}
      {showCautions && action.step.cautions.length > 0 && (
        <Box sx={{ mt: 1.5 }}>
          <CautionList ids={action.step.cautions} />
          <Box sx={{ mt: 1, color: 'text.secondary' }}>
            The unit maker’s procedure and local rules come first.
          </Box>
        </Box>
      )}
    </Box>
  );
}

function Reasons({ run }: { run: RunHandle }) {
  const print = usePrint();
  const { reasons } = run.family.assess(run.context, run.state, run.results);
  return (
    <Box component="ul" sx={{ m: 0, mt: 1, pl: 2.5 }}>
      {reasons.map((reason, i) => (
        <li key={i}>{print.sentence(reason)}</li>
      ))}
    </Box>
  );
}

function SelectedOrLast({
  run,
  selected,
  onClose,
}: {
  run: RunHandle;
  selected: string | null;
  onClose: () => void;
}) {
  const print = usePrint();
  const capture = run.state.captures.find(({ id }) => id === selected);
  if (capture) {
    const item = findItem(run.context.procedure, capture.item)?.item;
    const gauge = instrumentsOf(run.context.rig, run.context.shelf).get(capture.instrument);
    const state = gauge && calibrationState(gauge, run.context.conditions.day);
    return (
      <Box sx={{ border: 1, borderColor: 'divider', p: 1.25 }}>
        <Box sx={{ fontWeight: 650 }}>{item && 'prompt' in item ? item.prompt : capture.item}</Box>
        <Box>
          {item?.kind === 'reading' && print.value(capture.value_SI, item.quantity)} on {capture.instrument}
          {state === 'overdue' && ' (calibration overdue)'}, {time(capture.at)}
          {capture.typed && `, typed “${capture.typed.slice(0, 60)}”`}
        </Box>
        <Box sx={{ display: 'flex', gap: 1, mt: 0.5 }}>
          <Button
            size="small"
            onClick={() => void run.send({ type: 'reopened', item: capture.item }).then(onClose)}
            disabled={run.state.finished}
          >
            Read it again
          </Button>
          <Button
            size="small"
            onClick={() => void run.send({ type: 'struck', capture: capture.id }).then(onClose)}
            disabled={capture.struck || run.state.finished}
          >
            Strike it
          </Button>
          <Button size="small" onClick={onClose}>
            Close
          </Button>
        </Box>
      </Box>
    );
  }
  const result = newestResult(run);
  const expectationNotes =
    run.action.kind === 'item' && run.action.item.kind === 'reading'
      ? (run.family.expect(run.context, run.state, run.action.item)?.notes ?? [])
      : [];
  return (
    <Box aria-live="polite">
      {expectationNotes.map((note, i) => (
        <Box key={i} sx={{ borderLeft: '5px solid', borderColor: 'primary.main', pl: 1.25, mb: 1 }}>
          {print.sentence(note)}
        </Box>
      ))}
      {result && <LastResult result={result} />}
    </Box>
  );
}

/** The result that the newest reading with a verdict gave. */
function newestResult({ state, results }: RunHandle) {
  for (const capture of state.captures.toReversed()) {
    const result = results.find((r) => r.item === capture.item && r.captures.includes(capture.id));
    if (result && !capture.struck) return result;
  }
  return null;
}

function ClashNotice({ run }: { run: RunHandle }) {
  const print = usePrint();
  const { clash } = run;
  if (!clash) return null;
  const mine = clash.mine.type === 'captured' ? clash.mine : null;
  const item = mine ? findItem(run.context.procedure, mine.item)?.item : null;
  const theirs = clash.theirs.flatMap((e) => (e.type === 'captured' && e.item === mine?.item ? [e] : []))[0];
  const show = (value: number) => (item?.kind === 'reading' ? print.value(value, item.quantity) : '');
  return (
    <Box role="alert" sx={{ border: 2, borderColor: 'warning.main', p: 1.5 }}>
      <Box sx={{ fontWeight: 650 }}>Another screen was first.</Box>
      {mine && theirs ? (
        <Box>
          It recorded {show(theirs.value_SI)}; you had {show(mine.value_SI)}. Yours is not recorded.
        </Box>
      ) : (
        <Box>
          It moved this run on. What you entered is not recorded{mine ? `: ${show(mine.value_SI)}` : ''}.
        </Box>
      )}
      <Box sx={{ display: 'flex', gap: 1, mt: 1 }}>
        {mine && (
          <Button variant="outlined" onClick={() => void run.send(mine).then(run.forgetClash)}>
            Record mine too, as a repeat
          </Button>
        )}
        <Button onClick={run.forgetClash}>Leave it</Button>
      </Box>
    </Box>
  );
}

type Others = Parameters<typeof Bar>[0]['others'];

function ConfirmBar({
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

function ObservationBar({ run, item, others }: { run: RunHandle; item: ObservationItem; others: Others }) {
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

function WaitBar({ run, item, others }: { run: RunHandle; item: WaitItem; others: Others }) {
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

interface SkipDialogProps {
  readonly open: { title: string; item: string | null } | null;
  readonly onClose: () => void;
  readonly onSkip: (reason: string, wholeStep: boolean) => Promise<void>;
}

function SkipDialog({ open, onClose, onSkip }: SkipDialogProps) {
  const [reason, setReason] = useState('');
  const [message, setMessage] = useState('');
  const skip = (whole: boolean) => {
    if (reason.trim() === '') setMessage('Reason: say in a few words why this is skipped.');
    else void onSkip(reason.trim(), whole).then(() => setReason(''));
  };
  return (
    <Dialog open={open !== null} onClose={onClose} aria-labelledby="skip-title" fullWidth maxWidth="sm">
      <DialogTitle id="skip-title">Skip: {open?.title}</DialogTitle>
      <DialogContent>
        <Box sx={{ mb: 2 }}>What is skipped is reported as not taken, with this reason.</Box>
        <Box
          component="form"
          onSubmit={(event) => {
            event.preventDefault();
            skip(open?.item === null);
          }}
        >
          <TextField
            label="Reason"
            value={reason}
            onChange={(event) => {
              setReason(event.target.value);
              setMessage('');
            }}
            error={message !== ''}
            helperText={message}
            autoFocus
          />
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Do not skip</Button>
        <Button onClick={() => skip(true)}>Skip the whole step</Button>
        {open?.item && (
          <Button variant="contained" onClick={() => skip(false)}>
            Skip this
          </Button>
        )}
      </DialogActions>
    </Dialog>
  );
}
