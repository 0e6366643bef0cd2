'use client';

import { Box, Button } from '@mui/material';
import { calibrationState } from '@/core/metrology/calibration';
import { CAPTURED_WORDS } from '@/core/contract/events';
import { missingNeeds } from '@/core/procedure/live';
import { instrumentsOf } from '@/core/procedure/measured-item';
import { findItem, HANDS } from '@/core/contract/steps';
import { usePrint } from '../settings-context';
import { time } from '../stamp';
import { CautionList } from './caution-list';
import { LastResult } from './last-result';
import type { RunHandle } from './use-run';

/** The step at hand: what to do, and its cautions where they are due. */
export function StepHead({ run }: { run: RunHandle }) {
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
      {action.kind !== 'stopped' && action.opens && (
        <Box sx={{ fontWeight: 600 }}>Before “{action.opens.title}”, which waits for it.</Box>
      )}
      <Box sx={{ maxWidth: '62ch' }}>{action.step.instruction}</Box>
      {action.step.hands && <Box sx={{ fontWeight: 600 }}>{HANDS[action.step.hands]}</Box>}
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

/** A reading picked on the tape, or what the newest reading came to. */
export function SelectedOrLast({
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
          {CAPTURED_WORDS[capture.by] && `, ${CAPTURED_WORDS[capture.by]}`}
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
      {gaugesApart(run).map((gauges) => (
        <Box key={gauges.id} sx={{ borderLeft: '5px solid', borderColor: 'warning.main', pl: 1.25, mb: 1 }}>
          {gauges.notes.map(print.sentence).join(' ')}
        </Box>
      ))}
      {result && <LastResult result={result} />}
    </Box>
  );
}

/** Two gauges that disagree, named in the step that compares them as soon as it is certain. */
function gaugesApart({ action, results }: RunHandle) {
  const step = 'step' in action ? action.step.id : null;
  return results.filter(
    ({ about, step: of, value, u, notes }) =>
      about === 'gauges' &&
      of === step &&
      notes.length > 0 &&
      value !== null &&
      u !== null &&
      Math.abs(value - 1) > 2 * u,
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
