'use client';

import { Box, Button } from '@mui/material';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import { FLUIDS, type FluidKind } from '@/core/fluid/kinds';
import { gaugeFor } from '@/core/metrology/instrument';
import { progress } from '@/core/procedure/live';
import { ventedZero_Pa } from '@/core/procedure/measured-item';
import { findItem, type Item } from '@/core/procedure/procedure';
import type { Capture } from '@/core/procedure/run';
import { unitFor } from '@/core/quantities/units';
import type { StoredJob, StoredRun } from '@/core/records/views';
import { call } from '../api';
import { useKeys } from '../keys';
import { gaugeNow, portsNow } from '../live/live-gauges';
import { SimHandle } from '../live/sim-handle';
import { useLive } from '../live/use-live';
import { Ladder } from '../ladder';
import { SCHEMATICS } from '../schematics/registry';
import { useSettings } from '../settings-context';
import { Bar } from './bar';
import { ClashNotice } from './clash-notice';
import { LiveStrip } from './live-strip';
import { NumberPad } from './number-pad';
import { ReadingBar } from './reading-bar';
import { SkipDialog } from './skip-dialog';
import { ConfirmBar, ObservationBar, WaitBar } from './step-bars';
import { SelectedOrLast, StepHead } from './step-pane';
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
  /** What is typed, by the item it was typed for: a value never wanders to another reading. */
  const [drafts, setDrafts] = useState<Readonly<Record<string, string>>>({});
  const step = 'step' in action ? action.step : null;
  const item = action.kind === 'item' ? action.item : null;
  const text = drafts[item?.id ?? ''] ?? '';
  const write = (id: string, value: string) => setDrafts((all) => ({ ...all, [id]: value }));
  const expectation = useMemo(
    () => (item?.kind === 'reading' ? family.expect(context, state, item) : null),
    [family, context, state, item],
  );
  const { status, moment } = useLive(settings.logger !== '' && action.kind !== 'done');
  const [handsFree, setHandsFree] = useState(false);
  const streaming = status?.state === 'streaming';
  const stepId = streaming ? (step?.id ?? null) : null;
  useEffect(() => {
    // What the logger sends while a step is done is that step's trace; the server keeps it when the next one begins.
    if (streaming) void call('POST', `/runs/${stored.id}/live`, { step: stepId });
  }, [streaming, stepId, stored.id]);
  useEffect(
    () => () => {
      if (streaming) void call('POST', `/runs/${stored.id}/live`, { step: null });
    },
    [streaming, stored.id],
  );
  const livePorts = moment ? portsNow(context.rig, state, moment) : null;
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
    ...(streaming
      ? [
          {
            key: 'F3',
            label: 'Hands-free: capture as each reading settles',
            run: () => setHandsFree((on) => !on),
            inFields: true,
          },
        ]
      : []),
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
    ...(streaming
      ? [
          {
            label: handsFree ? 'Hands-free is on' : 'Hands-free',
            key: 'F3',
            run: () => setHandsFree((on) => !on),
          },
        ]
      : []),
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
        <LiveStrip run={run} gauges={livePorts} />
        {status && status.state !== 'off' && (
          <Box
            role="status"
            sx={{ fontWeight: 600, color: status.trouble ? 'error.main' : 'text.secondary', maxWidth: 520 }}
          >
            {status.trouble
              ? `${status.trouble} Type the readings meanwhile.`
              : streaming
                ? status.simulated
                  ? 'Simulated bench reads'
                  : 'Bench logger reads'
                : 'Bench logger: connecting'}
          </Box>
        )}
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
        {run.clash && <ClashNotice run={run} onDone={(id) => write(id, '')} />}
        <LeftTyped run={run} drafts={drafts} onDrop={(id) => write(id, '')} />
        <StepHead run={run} />
        {step && FLUID_STEPS.includes(step.id) && (
          <FluidClash found={job.body.fluid} profile={context.profile} />
        )}
        <SelectedOrLast run={run} selected={selected} onClose={() => setSelected(null)} />
        {pad && item?.kind === 'reading' ? (
          <NumberPad
            units={padUnits(item, settings.unitSet)}
            onKey={(key) => write(item.id, text + key)}
            onErase={() => write(item.id, text.slice(0, -1))}
          />
        ) : (
          <Box sx={{ flex: 1, minHeight: streaming && status.simulated ? 120 : 190 }}>
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
        {streaming && status.simulated && action.kind !== 'done' && (
          <SimHandle
            aim_Pa={item?.kind === 'reading' ? (item.target_Pa ?? null) : null}
            proof_Pa={proofOf(context.profile)}
            input_Pa={livePorts?.input?.value ?? null}
            runId={stored.id}
          />
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
              reading={livePorts?.[port.id]?.value ?? zeroed(run, mine.at(-1))}
              trail={mine.slice(-6, -1).map((c) => zeroed(run, c)!)}
              inUse={gauge?.tag ?? (moment ? gaugeNow(gauges, moment)?.tag : undefined)}
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
            onText={(value) => write(item!.id, value)}
            moment={streaming ? moment : null}
            livePorts={livePorts}
            handsFree={handsFree}
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

interface LeftTypedProps {
  readonly run: RunHandle;
  readonly drafts: Readonly<Record<string, string>>;
  readonly onDrop: (itemId: string) => void;
}

/** What was typed when the run moved on without it, by another screen or a skip: kept, and said. */
function LeftTyped({ run, drafts, onDrop }: LeftTypedProps) {
  const { action, clash, context } = run;
  const here = action.kind === 'item' ? action.item.id : null;
  const clashing = clash?.mine.type === 'captured' ? clash.mine.item : null;
  const left = Object.entries(drafts).filter(
    ([id, typed]) => typed.trim() !== '' && id !== here && id !== clashing,
  );
  return left.map(([id, typed]) => {
    const item = findItem(context.procedure, id)?.item;
    return (
      <Box
        key={id}
        role="alert"
        sx={{ border: 2, borderColor: 'warning.main', p: 1.25, overflowWrap: 'anywhere' }}
      >
        The run moved on while “{typed.slice(0, 60)}” stood typed for “
        {item && 'prompt' in item ? item.prompt : id}” It is not recorded.
        <Box sx={{ display: 'flex', gap: 1 }}>
          <Button size="small" onClick={() => void run.send({ type: 'reopened', item: id })}>
            Go back to it
          </Button>
          <Button size="small" onClick={() => onDrop(id)}>
            Drop it
          </Button>
        </Box>
      </Box>
    );
  });
}

/** Steps at which fluid is handled. */
const FLUID_STEPS = ['cautions', 'after'];

/** The unit came in with one fluid and its profile names another: said where fluid is handled. */
function FluidClash({ found, profile }: { found: StoredJob['body']['fluid']; profile: unknown }) {
  const named = (profile as { fluid?: FluidKind }).fluid;
  if (!named || found === 'unknown' || found === named) return null;
  return (
    <Box sx={{ borderLeft: '5px solid', borderColor: 'error.main', pl: 1.25, fontWeight: 600 }}>
      The unit came in with {FLUIDS[found]}, and its profile names {FLUIDS[named]}. They must not mix: drain
      and flush, and look at every seal.
    </Box>
  );
}

const portOf = (run: RunHandle, capture: Capture): string | null => {
  const item = findItem(run.context.procedure, capture.item)?.item;
  return item?.kind === 'reading' ? item.port : null;
};

const zeroed = (run: RunHandle, capture: Capture | undefined): number | null =>
  capture ? capture.value_SI - (ventedZero_Pa(run.state, capture.instrument) ?? 0) : null;

/** The proof limit of a profile: the handle goes no further. */
const proofOf = (profile: unknown): number => (profile as { proof_Pa?: number }).proof_Pa ?? 1e7;

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
