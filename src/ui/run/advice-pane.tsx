'use client';

import { Box, Button, ButtonBase, LinearProgress } from '@mui/material';
import { useId } from 'react';
import type { Advice, AdvisedCause, AdvisedStep, Speaks } from '@/core/diagnosis/advice';
import { HEALTHY } from '@/core/diagnosis/causes';
import { chancePercent, chanceWord, gainWords, weighsWord } from '@/core/diagnosis/words';
import { COMPLAINTS, HEARD, heardIn } from '@/core/contract/complaints';
import { findItem } from '@/core/contract/steps';
import { homeChecksOf } from '@/core/families/home-checks';
import type { FamilyKind } from '@/core/families/registry';
import { readingUncertainty_SI } from '@/core/metrology/uncertainty';
import { instrumentsOf, measuredItem } from '@/core/procedure/measured-item';
import { usePrint } from '../settings-context';
import { RepairedBy } from './repaired-by';
import type { AdviceState } from './use-advice';
import type { RunHandle } from './use-run';

interface AdvicePaneProps {
  readonly run: RunHandle;
  readonly found: AdviceState;
  /** In the customer's words. */
  readonly complaint: string;
  /** The tests are done in the order of what tells the most. */
  readonly led: boolean;
  /** Shows a line of the tape. */
  readonly onSelect: (line: string) => void;
  readonly onClose: () => void;
}

/** What it probably is, with what speaks for and against it, and the test that tells the most for its minutes. */
export function AdvicePane({ run, found, complaint, led, onSelect, onClose }: AdvicePaneProps) {
  const heading = useId();
  const { advice, part, problem } = found;
  return (
    <Box
      component="section"
      aria-labelledby={heading}
      tabIndex={0}
      sx={{
        gridArea: 'advice',
        minHeight: 0,
        overflowY: 'auto',
        borderStyle: 'solid',
        borderColor: 'divider',
        borderWidth: { xs: '0 0 1px', md: '0 1px 0 0' },
        p: 1.5,
      }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between', mb: 0.5 }}>
        <Box id={heading} component="h2" sx={{ m: 0, fontSize: '1.05rem', fontWeight: 650 }}>
          What it may be
        </Box>
        <Button size="small" onClick={onClose} sx={{ minHeight: 44 }}>
          Put away
        </Button>
      </Box>
      <Box sx={{ height: 4 }}>
        {part !== null && (
          <LinearProgress variant="determinate" value={100 * part} aria-label="Working it out" />
        )}
      </Box>
      {problem && (
        <Box role="alert" sx={{ color: 'error.main', fontWeight: 600 }}>
          {problem}
        </Box>
      )}
      {!advice && !problem && <Box sx={{ color: 'text.secondary' }}>Working it out…</Box>}
      {advice && (
        <>
          <Box role="status" sx={{ mb: 1 }}>
            {standingWords(advice)}
          </Box>
          {advice.atOdds.map((one) => (
            <AtOdds key={one.item} run={run} advice={one} />
          ))}
          {advice.clash !== null && !advice.atOdds.some(({ repeat }) => repeat === advice.clash) && (
            <ToRepeat
              run={run}
              says={`“${nameOfItem(run, advice.clash)}” clashes most with all that is known.`}
              item={advice.clash}
            />
          )}
          {advice.repaired && <RepairedBy of={advice.repaired} />}
          {led && (
            <Box sx={{ color: 'text.secondary' }}>
              In the order of what tells the most; “&amp;” gives the usual one back.
            </Box>
          )}
          <NextTest run={run} advice={advice} />
          <Box component="ol" aria-label="Causes" sx={{ listStyle: 'none', m: 0, p: 0 }}>
            {advice.causes.map((cause) => (
              <CauseLine key={cause.id} run={run} cause={cause} onSelect={onSelect} />
            ))}
          </Box>
          <Heard complaint={complaint} />
          <Box sx={{ mt: 1, color: 'text.secondary', fontSize: '0.85rem' }}>
            Chances, never certainty: a repair is proved by testing again.
          </Box>
        </>
      )}
    </Box>
  );
}

/** What was heard in the complaint, and what comes of it. */
function Heard({ complaint }: { complaint: string }) {
  const heard = heardIn(complaint).map((id) => COMPLAINTS[id].says);
  if (heard.length === 0) return null;
  return (
    <Box sx={{ mt: 1, color: 'text.secondary', fontSize: '0.85rem' }}>
      Heard in the complaint: {heard.join(', ')}. Causes that bring this count {HEARD} times from the first.
    </Box>
  );
}

function standingWords({ standing, names, evidence }: Advice): string {
  const list = names.slice(0, MOST_NAMED).join(', ') + (names.length > MOST_NAMED ? ' and others' : '');
  switch (standing.is) {
    case 'claimed':
      // Never more than that what was read is as it should be.
      if (standing.repair === HEALTHY)
        return `No fault found, ${chancePercent(standing.chance)}: what was read is what a healthy one shows.`;
      return `One repair covers it, ${chancePercent(standing.chance)}: ${list}.`;
    case 'unexplained':
      return standing.chance >= LIKELIER_THAN_NOT
        ? 'None of the known faults explains this.'
        : 'None of the known faults explains this well: of 100 units with a known fault 97 fit better. The chances below are among the known ones.';
    case 'not-told-apart':
      return `These cannot be told apart by the tests that can be done here: ${list}. A part opened would tell, or another gauge.`;
    case 'open':
      return evidence === 0 ? 'Nothing was read yet: only how often each is met.' : 'Not decided yet.';
  }
}

const MOST_NAMED = 4;
const LIKELIER_THAN_NOT = 0.5;

const spent = (seconds: number) =>
  seconds < 60 ? `${Math.round(seconds)} s` : `${Number((seconds / 60).toFixed(1))} min`;

/** What a test takes: hands on, set-up with it, and time left alone. */
function takes({ attended_s, setUp_s, waiting_s }: AdvisedStep): string {
  const parts = [spent(attended_s + setUp_s)];
  if (waiting_s > 0) parts.push(`${spent(waiting_s)} left alone`);
  return parts.join(', ');
}

function NextTest({ run, advice }: { run: RunHandle; advice: Advice }) {
  const [best] = advice.steps;
  const { usual } = advice;
  if (!best || run.action.kind === 'done') return null;
  const at = 'step' in run.action && run.action.step.id === best.first;
  const begins = run.context.procedure.steps.find(({ id }) => id === best.first)!.title;
  return (
    <Box sx={{ my: 1, borderTop: 1, borderBottom: 1, borderColor: 'divider', py: 1 }}>
      <Box sx={{ color: 'text.secondary' }}>Tells the most for its time</Box>
      {at ? (
        <Box sx={{ fontWeight: 650 }}>
          {best.first === best.step ? `${best.title}: at hand` : `${best.title}, behind what is at hand`}
        </Box>
      ) : (
        <Button
          variant="outlined"
          fullWidth
          disabled={run.busy}
          onClick={() => void run.send({ type: 'chosen', step: best.first })}
          sx={{ minHeight: 48, justifyContent: 'space-between', textAlign: 'left' }}
        >
          <span>{best.title}</span>
          <Box component="span" sx={{ whiteSpace: 'nowrap', pl: 1 }}>
            {takes(best)}
          </Box>
        </Button>
      )}
      <Box>It {gainWords(best.part)}.</Box>
      {!at && best.first !== best.step && (
        <Box sx={{ color: 'text.secondary' }}>Begins with “{begins}”, which it needs.</Box>
      )}
      {best.setUp.length > 0 && <Box sx={{ color: 'text.secondary' }}>On the way: {listed(best.setUp)}.</Box>}
      {usual && usual.step !== best.step && usual.step !== best.first && (
        <Box sx={{ color: 'text.secondary' }}>
          The usual order has “{usual.title}” next, {takes(usual)}: it {gainWords(usual.part)}.
        </Box>
      )}
    </Box>
  );
}

/** Words as they go on in a sentence; names keep their own. */
const listed = (words: readonly string[]) =>
  words.map((word) => (word.startsWith('“') ? word : word.toLowerCase())).join(', ');

function AtOdds({
  run,
  advice: { item, partner, repeat },
}: {
  run: RunHandle;
  advice: Advice['atOdds'][number];
}) {
  const says = partner
    ? `“${nameOfItem(run, item)}” and “${nameOfItem(run, partner)}” do not go together. Both are kept.`
    : `“${nameOfItem(run, item)}” does not go with the rest. It is kept.`;
  return <ToRepeat run={run} says={says} item={repeat} />;
}

/** What was seen that cannot all be so, and what to take again. */
function ToRepeat({ run, says, item }: { run: RunHandle; says: string; item: string }) {
  return (
    <Box sx={{ borderLeft: '5px solid', borderColor: 'warning.dark', pl: 1.25, my: 1 }}>
      <Box sx={{ fontWeight: 600 }}>{says}</Box>
      <Box>Repeat “{nameOfItem(run, item)}”, with another gauge if there is one.</Box>
      <Button
        size="small"
        disabled={run.busy || run.state.finished}
        onClick={() => void run.send({ type: 'reopened', item })}
        sx={{ minHeight: 44 }}
      >
        Repeat it
      </Button>
    </Box>
  );
}

function CauseLine({
  run,
  cause,
  onSelect,
}: {
  run: RunHandle;
  cause: AdvisedCause;
  onSelect: (line: string) => void;
}) {
  return (
    <Box component="li" sx={{ py: 0.75, borderBottom: 1, borderColor: 'divider' }}>
      <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 1, fontWeight: 650 }}>
        <span>
          {cause.name[0]!.toUpperCase() + cause.name.slice(1)}
          <Box component="span" sx={{ color: 'text.secondary', fontWeight: 400 }}>
            , {chanceWord(cause.chance)}
          </Box>
        </span>
        <Box component="span" sx={{ whiteSpace: 'nowrap', fontVariantNumeric: 'tabular-nums' }}>
          {chancePercent(cause.chance)}
        </Box>
      </Box>
      <Speaking run={run} words="For" of={cause.for} onSelect={onSelect} />
      <Speaking run={run} words="Against" of={cause.against} onSelect={onSelect} />
    </Box>
  );
}

function Speaking({
  run,
  words,
  of,
  onSelect,
}: {
  run: RunHandle;
  words: string;
  of: readonly Speaks[];
  onSelect: (line: string) => void;
}) {
  const print = usePrint();
  if (of.length === 0) return null;
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '4.2em minmax(0, 1fr)', fontSize: '0.9rem' }}>
      <Box sx={{ color: 'text.secondary' }}>{words}</Box>
      <Box>
        {of.map(({ item, weighs }) => {
          const { label, line } = shownAs(run, item, print);
          const text = `${label}, ${weighsWord(weighs)}`;
          return line ? (
            <ButtonBase
              key={item}
              onClick={() => onSelect(line)}
              sx={{
                display: 'block',
                textAlign: 'left',
                textDecoration: 'underline',
                minHeight: 24,
                font: 'inherit',
              }}
            >
              {text}
            </ButtonBase>
          ) : (
            <Box key={item}>{text}</Box>
          );
        })}
      </Box>
    </Box>
  );
}

/** An item's name: its step, what is looked at, or what was tried at home. */
function nameOfItem({ context, family }: RunHandle, id: string): string {
  const homeName = (check: string) => {
    const home = homeChecksOf(family.kind as FamilyKind).find((one) => one.id === check);
    return home && `At home: ${home.name.toLowerCase()}`;
  };
  const found = findItem(context.procedure, id);
  if (!found) return homeName(id) ?? id;
  return found.item.kind === 'observation' ? found.item.name : found.step.title;
}

/** A piece of evidence as it stands on the tape, and the line there. */
function shownAs(run: RunHandle, id: string, print: ReturnType<typeof usePrint>) {
  const { context, state } = run;
  const found = findItem(context.procedure, id);
  const name = nameOfItem(run, id);
  if (found?.item.kind === 'observation') {
    const given = state.observations[id]?.answer;
    const answer = found.item.answers.find((one) => one.id === given);
    return { label: `${name}: ${answer?.label ?? ''}`, line: state.observations[id]?.id ?? null };
  }
  const reading = measuredItem(instrumentsOf(context.rig, context.shelf), state, id);
  if (!found) return { label: name, line: null };
  // What counts and was not captured was told by a trace.
  if (!reading || found?.item.kind !== 'reading') return { label: `${name}: as logged`, line: null };
  return {
    label: `${name}: ${print.value(reading.value_SI, found.item.quantity, { u_SI: readingUncertainty_SI(reading) })}`,
    line: reading.captures.at(-1)!.id,
  };
}
