'use client';

import { Box } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useCallback, useMemo, useState } from 'react';
import { instrumentsOf } from '@/core/procedure/measured-item';
import { contradiction, liveState, progress } from '@/core/procedure/live';
import type { Beliefs } from '@/core/diagnosis/causes';
import type { Item, Procedure } from '@/core/contract/steps';
import { printSentence } from '@/core/quantities/sentence';
import type { HomeAnswers } from '@/core/records/home-answers';
import type { RepairBefore } from '@/core/records/repair-before';
import type { CaseView } from '@/core/practice/case-view';
import { loggerReads } from '@/core/practice/simulated-gauges';
import type { StoredJob, StoredRun } from '@/core/records/views';
import { momentOf, portsNow, seenByEye, unreadNow } from '../live/live-gauges';
import { SimHandle } from '../live/sim-handle';
import { useLive } from '../live/use-live';
import { useVehicle } from '../live/use-vehicle';
import { useSettings } from '../settings-context';
import { AdvicePane } from './advice-pane';
import { BarFrame } from './bar';
import { CaseLine } from './case-line';
import { ClashNotice } from './clash-notice';
import { FluidClash } from './fluid-clash';
import { Gauges } from './gauges';
import { LeftTyped } from './left-typed';
import { NumberPad } from './number-pad';
import { hasCurve, LiveCurve } from './live-curve';
import { OtherBars } from './other-bars';
import { ReadingBar } from './reading-bar';
import { padUnits } from './pad-units';
import { RunDrawing } from './run-drawing';
import { RunGrid } from './run-grid';
import { RunHead } from './run-head';
import { SettleGauges } from './settle-gauges';
import { SkipDialog } from './skip-dialog';
import { SelectedOrLast, StepHead } from './step-pane';
import { StepsDialog } from './steps-dialog';
import { Tape } from './tape';
import { useAdvice, useLed } from './use-advice';
import { useCase } from './use-case';
import { useDeeds, type Skipping } from './use-deeds';
import { useDrafts } from './use-drafts';
import { useStepTraces } from './use-logged';
import { usePad } from './use-pad';
import { VehiclePane } from './vehicle-pane';
import { useRun, type RunHandle } from './use-run';

interface RunScreenProps {
  readonly stored: StoredRun;
  readonly job: StoredJob;
  /** How often faults count, where the shop has changed it. */
  readonly weights: Beliefs['weights'];
  /** The test before a repair that this one follows; null where it follows none. */
  readonly before: RepairBefore | null;
  /** What the customer tried at home since anything was mended. */
  readonly home: HomeAnswers['answers'];
  /** The practice case that it belongs to; null where it belongs to none. */
  readonly practice: CaseView | null;
}

/** The run: tape at the left, the drawing in the middle, ladders at the right, live strip above, one action bar below. */
export function RunScreen({ stored, job, weights, before, home, practice }: RunScreenProps) {
  const inCase = useCase(practice);
  const run = useRun(stored, inCase);
  const { context, state, action, results, family } = run;
  const router = useRouter();
  const settings = useSettings();
  const [selected, setSelected] = useState<string | null>(null);
  const toggle = useCallback((id: string) => setSelected((now) => (now === id ? null : id)), []);
  const [skipping, setSkipping] = useState<Skipping | null>(null);
  const [choosing, setChoosing] = useState(false);
  const [advised, setAdvised] = useState(false);
  const [led, setLed] = useState(false);
  // With the advice put away the order is the usual one; asked for, the order brings the advice.
  const showAdvice = (shown: boolean) => {
    setAdvised(shown);
    if (!shown) setLed(false);
  };
  const lead = (by: boolean) => {
    setLed(by);
    if (by) setAdvised(true);
  };
  const [pad, setPad] = usePad();
  const [drafts, write] = useDrafts(stored.id);
  const step = 'step' in action ? action.step : null;
  const item = action.kind === 'item' ? action.item : null;
  const text = drafts[item?.id ?? ''] ?? '';
  const expectation = useMemo(
    () => (item?.kind === 'reading' ? family.expect(context, state, item) : null),
    [family, context, state, item],
  );
  const { status, moment: heard } = useLive(
    loggerReads(settings.logger, context.shelf) && action.kind !== 'done',
  );
  /** Another run has the bench: what it shows is not this run's. */
  const held = status?.owner && status.owner.run !== stored.id ? status.owner : null;
  /** A vehicle stands where it is: what the bench's logger reads is another's until somebody says that it is here. */
  const onVehicle = context.procedure.setting === 'vehicle';
  const elsewhere = onVehicle && status?.owner?.run !== stored.id;
  const streaming = status?.state === 'streaming' && !held && !elsewhere;
  const own = useMemo(() => Object.values(context.rig).flat(), [context.rig]);
  const channels = status?.channels ?? [];
  const moment = held || elsewhere || !heard ? null : momentOf(heard, channels, own);
  const [handsFree, setHandsFree] = useState(false);
  const { logged, takeOver } = useStepTraces(
    stored.id,
    step?.id ?? null,
    status?.state === 'streaming' && !elsewhere,
  );
  const through = (step && settings.vehicle !== '' && family.throughInterface?.[step.id]) || null;
  const vehicle = useVehicle(stored.id, through && through.reads);
  const found = useAdvice(run, stored.kind, job.body.complaint, weights, advised, { before, logged, home });
  useLed(run, found, led);
  const [drawing, setDrawing] = useState(false);
  const withCurve = hasCurve(run, step);
  const curveShown = withCurve && !drawing;
  const livePorts = moment ? portsNow(context.rig, state, moment) : null;
  const known = useMemo(() => liveState(context.procedure, state), [context, state]);
  const against = livePorts && action.kind !== 'source' ? contradiction(known, livePorts) : null;
  const deeds = useDeeds(run, {
    step,
    item,
    onSkip: setSkipping,
    handsFree: streaming ? [handsFree, setHandsFree] : null,
    drawing: withCurve ? [drawing, setDrawing] : null,
    pad: [pad, setPad],
    advice: [advised, showAdvice],
    led: [led, lead],
    onLeave: () => router.push(`/jobs/${job.id}`),
  });
  const others =
    action.kind === 'done' ? [] : [...deeds, { label: 'Another step', run: () => setChoosing(true) }];
  const padded = pad && item?.kind === 'reading';
  const numbers = padded && (
    <NumberPad
      units={padUnits(item, settings.unitSet)}
      onKey={(key) => write(item.id, text + key)}
      onErase={() => write(item.id, text.slice(0, -1))}
    />
  );

  return (
    <RunGrid padded={padded} advised={advised}>
      <RunHead
        title={`${job.body.tag} · ${job.profileName}`}
        known={known}
        livePorts={livePorts}
        status={status}
        held={held}
        elsewhere={elsewhere}
        unread={moment && unreadNow(moment, channels, own)}
        onTake={takeOver}
        done={progress(context.procedure, state)}
      />
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
          logged={logged}
          selected={selected}
          onSelect={toggle}
          follow
        />
      </Box>
      {advised && (
        <AdvicePane
          run={run}
          found={found}
          complaint={job.body.complaint}
          onSelect={toggle}
          led={led}
          onClose={() => showAdvice(false)}
        />
      )}
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
        {practice && <CaseLine practice={practice} problem={inCase?.problem ?? ''} />}
        {run.clash && <ClashNotice run={run} onDone={(id) => write(id, '')} />}
        <LeftTyped run={run} drafts={drafts} onDrop={(id) => write(id, '')} />
        <StepHead run={run} />
        {against && (
          <Box
            role="status"
            sx={{ borderLeft: '5px solid', borderColor: 'error.main', pl: 1.25, fontWeight: 600 }}
          >
            {printSentence(against, settings.unitSet)}
          </Box>
        )}
        <SettleGauges run={run} runId={stored.id} />
        <FluidClash step={step} found={job.body.fluid} named={family.fluid(context.profile)} />
        <SelectedOrLast run={run} selected={selected} onClose={() => setSelected(null)} />
        {padded && <Box sx={{ display: { xs: 'none', md: 'block' } }}>{numbers}</Box>}
        {through && (
          <VehiclePane
            runId={stored.id}
            through={through}
            profile={context.profile}
            vehicle={vehicle}
            isAtWork={action.kind === 'item'}
          />
        )}
        <Box
          hidden={through !== null}
          sx={{
            flex: 1,
            minHeight: streaming && status.simulated ? 170 : 190,
            display: padded ? { xs: 'block', md: 'none' } : 'block',
          }}
        >
          {curveShown ? (
            <LiveCurve run={run} stored={stored} ports={livePorts} asRead={against !== null} />
          ) : (
            <RunDrawing
              run={run}
              stored={stored}
              ports={livePorts}
              t_s={heard?.t_s ?? null}
              known={known}
              lit={placeOfItem(item)}
              marks={leakMarks(run)}
            />
          )}
        </Box>
        {streaming && status.simulated && run.family.motion && action.kind !== 'done' && (
          <SimHandle
            commands={run.family.motion.commands.filter(({ by }) => by === undefined)}
            aim={item?.kind === 'reading' ? (item.target_Pa ?? null) : null}
            most={stopsAt(context.procedure, known.inputPort)}
            input={livePorts?.[known.inputPort]?.value ?? null}
            runId={inCase ? null : stored.id}
            seen={
              moment
                ? seenByEye(
                    status.channels,
                    instrumentsOf(context.rig, context.shelf),
                    moment,
                    run.family.ports,
                  )
                : []
            }
          />
        )}
      </Box>
      {padded && <Box sx={{ gridArea: 'pad', display: { xs: 'block', md: 'none' }, p: 1 }}>{numbers}</Box>}
      <Gauges
        run={run}
        item={item?.kind === 'reading' ? item : null}
        expectation={expectation}
        moment={moment}
        livePorts={livePorts}
      />
      <BarFrame>
        {action.kind === 'item' && action.item.kind === 'reading' && (
          <ReadingBar
            key={action.item.id}
            run={run}
            step={action.step}
            item={action.item}
            expectation={expectation}
            others={others}
            text={text}
            onText={(value) => write(item!.id, value)}
            onTap={() => setPad(true)}
            moment={streaming ? moment : null}
            livePorts={livePorts}
            handsFree={handsFree}
          />
        )}
        <OtherBars run={run} others={others} reportHref={`/runs/${stored.id}/report`} />
      </BarFrame>
      <StepsDialog run={run} open={choosing} onClose={() => setChoosing(false)} />
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
    </RunGrid>
  );
}

/** Port or leak point that an item is about. */
const placeOfItem = (item: Item | null): string | null =>
  item?.kind === 'reading' ? item.port : item?.kind === 'observation' ? (item.point ?? null) : null;

/** A foot goes this much beyond what a test asks of it, and no further. */
const BEYOND = 1.5;

/** How far the hands go: to the proof limit that the steps name or, where they name none, a little beyond all that they ask for. */
function stopsAt({ steps }: Procedure, port: string): number {
  const readings = steps.flatMap(({ items }) => items.filter((item) => item.kind === 'reading'));
  const proof = Math.max(0, ...readings.map(({ stopAt_Pa }) => stopAt_Pa ?? 0));
  const asked = readings.map((item) => (item.port === port ? (item.target_Pa ?? 0) : 0));
  return proof || BEYOND * Math.max(0, ...asked);
}

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
