'use client';

import { Box, Button, Dialog, DialogActions, DialogContent, DialogTitle, TextField } from '@mui/material';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import type { Answer, ObservationItem, Step, WaitItem } from '@/core/contract/steps';
import { LEAST_SET_BACK_S, SET_BACK_IN_WAIT } from '@/core/procedure/clock';
import { isDone, waitStart } from '@/core/procedure/run';
import { Key, useKeys } from '../keys';
import { useSettings } from '../settings-context';
import { callOut, confirmCapture, refuseTone } from '../signal';
import { clock, useNow } from '../use-now';
import { answerKeys } from './answer-keys';
import { Bar, type BarProps } from './bar';
import { ReasonDialog } from './reason-dialog';
import { TOO_SOON, useJustChanged } from './use-just-changed';
import type { RunHandle } from './use-run';

type Others = BarProps['others'];

const Prompt = ({ children }: { children: ReactNode }) => (
  <Box sx={{ fontSize: '1.35rem', fontWeight: 600 }}>{children}</Box>
);

/** Does something unless the prompt has only just changed; says so where it has. */
function useDeliberate(run: RunHandle, prompt: string) {
  const settings = useSettings();
  const justChanged = useJustChanged(prompt);
  const [message, setMessage] = useState<string | null>(null);
  const act = async (deed: () => Promise<boolean>) => {
    if (run.busy) return;
    if (justChanged()) {
      refuseTone(settings.sound);
      setMessage(TOO_SOON);
    } else if (await deed()) confirmCapture(settings.sound);
  };
  return { act, message: message ?? run.problem?.title };
}

interface ConfirmBarProps {
  readonly run: RunHandle;
  readonly prompt: string;
  readonly label: string;
  /** Its own key: neither Enter nor the foot-switch confirms. */
  readonly letter: string;
  readonly others: Others;
  readonly children?: ReactNode;
  readonly send: () => Promise<boolean>;
}

/** Asks for a confirmation: cautions read, the source turned, the run closed. */
export function ConfirmBar({ run, prompt, label, letter, others, children, send }: ConfirmBarProps) {
  const { act, message } = useDeliberate(run, prompt);
  const go = () => void act(send);
  useKeys([{ key: letter, label, run: go }]);
  return (
    <Bar
      message={message}
      prompt={
        <>
          <Prompt>{prompt}</Prompt>
          {children}
        </>
      }
      primary={{ label, key: letter.toUpperCase(), run: go, busy: run.busy }}
      others={others}
      focused
    />
  );
}

/** Looks of a step that are still to be done and have the same good answer: one deliberate key answers them all. */
function alike(run: RunHandle, step: Step, item: ObservationItem): ObservationItem[] {
  const good = item.answers[0].label;
  return step.items.filter(
    (other): other is ObservationItem =>
      other.kind === 'observation' &&
      other.point !== undefined &&
      other.answers[0].label === good &&
      (other.id === item.id || !isDone(run.state, other)),
  );
}

interface ObservationBarProps {
  readonly run: RunHandle;
  readonly step: Step;
  readonly item: ObservationItem;
  readonly others: Others;
}

/** Asks for something to be looked at. Each answer has its own key, and none is given by Enter or the foot-switch. */
export function ObservationBar({ run, step, item, others }: ObservationBarProps) {
  const [note, setNote] = useState('');
  const { act, message } = useDeliberate(run, item.id);
  const { seen, look } = useSeen(run, item.id);
  const give = (answer: Answer) =>
    void act(() => run.send({ type: 'observed', item: item.id, answer: answer.id, note: note.trim() }));
  const keys = answerKeys(item.answers.map(({ label }) => label));
  const all = item.point ? alike(run, step, item) : [];
  const giveAll = () =>
    void act(() =>
      run.send(
        ...all.map(({ id, answers }) => ({
          type: 'observed' as const,
          item: id,
          answer: answers[0].id,
          note: id === item.id ? note.trim() : '',
        })),
      ),
    );
  const allLabel = `All ${all.length} ${item.answers[0].label.toLowerCase()}`;
  useKeys([
    ...item.answers.map((answer, i) => ({ key: keys[i]!, label: answer.label, run: () => give(answer) })),
    ...(all.length > 1 ? [{ key: ALL_KEY, label: allLabel, run: giveAll }] : []),
    ...(look ? [{ key: LOOK_KEY, label: 'Practice: look', run: look }] : []),
  ]);
  return (
    <Bar
      message={message}
      prompt={
        <>
          <Prompt>{item.prompt}</Prompt>
          {seen && <Box>Practice: what is seen is “{seen}”.</Box>}
        </>
      }
      others={others}
      focused
    >
      {look && (
        <Button variant="outlined" size="large" onClick={look} sx={{ minHeight: 68, gap: 1 }}>
          Look <Key name={LOOK_KEY} />
        </Button>
      )}
      <TextField
        label="Note"
        value={note}
        onChange={(event) => setNote(event.target.value)}
        sx={{ width: 190 }}
        slotProps={{ htmlInput: { maxLength: 20_000 } }}
      />
      {item.answers.map((answer, i) => (
        <Button
          key={answer.id}
          variant="outlined"
          size="large"
          disabled={run.busy}
          onClick={() => give(answer)}
          sx={{ minHeight: 68, gap: 1 }}
        >
          {answer.label} <Key name={keys[i]!.toUpperCase()} />
        </Button>
      ))}
      {all.length > 1 && (
        <Button
          variant="outlined"
          size="large"
          disabled={run.busy}
          onClick={giveAll}
          sx={{ minHeight: 68, gap: 1 }}
        >
          {allLabel} <Key name={ALL_KEY.toUpperCase()} />
        </Button>
      )}
    </Bar>
  );
}

/** What is seen at an observation of a practice case, once it was looked at; nothing to look with in any other run. */
function useSeen({ inCase }: RunHandle, item: string) {
  const [found, setFound] = useState<{ readonly item: string; readonly seen: string } | null>(null);
  const look = inCase && (() => void inCase.look(item).then((seen) => setFound({ item, seen })));
  return { seen: found?.item === item ? found.seen : null, look };
}

/** Looks in a practice case. No letter: any of those may be an answer, and looking answers nothing. */
const LOOK_KEY = '!';

/** Answers every look of a step that is alike: no answer has it for its own. */
const ALL_KEY = 'a';

/** An answer stopped the test: what to do, and the ways on. */
export function StoppedBar({
  run,
  action,
  others,
}: {
  run: RunHandle;
  action: Extract<RunHandle['action'], { kind: 'stopped' }>;
  others: Others;
}) {
  const [asking, setAsking] = useState<'gone-on' | 'ended' | null>(null);
  const { item, stop } = action;
  const { act, message } = useDeliberate(run, `stopped ${item.id}`);
  const again = () => void act(() => run.send({ type: 'reopened', item: item.id }));
  const decide = async (reason: string) => {
    const sent = await run.send(
      asking === 'gone-on' ? { type: 'gone-on', item: item.id, reason } : { type: 'ended', reason },
    );
    if (sent) setAsking(null);
  };
  useKeys([
    { key: 'm', label: 'Mended: look again', run: again },
    { key: 'e', label: 'End the test here', run: () => setAsking('ended') },
    ...(stop.goesOn === 'reason'
      ? [{ key: 'g', label: 'Go on for a reason', run: () => setAsking('gone-on') }]
      : []),
  ]);
  return (
    <Bar
      message={message}
      prompt={
        <>
          <Prompt>Stopped: {item.name.toLowerCase()}</Prompt>
          <Box sx={{ maxWidth: '70ch' }}>{stop.say}</Box>
        </>
      }
      primary={{ label: 'Mended: look again', key: 'M', run: again, busy: run.busy }}
      others={others}
      focused
    >
      {stop.goesOn === 'reason' && (
        <Button variant="outlined" onClick={() => setAsking('gone-on')} sx={{ minHeight: 68, gap: 1 }}>
          Go on for a reason <Key name="G" />
        </Button>
      )}
      <Button variant="outlined" onClick={() => setAsking('ended')} sx={{ minHeight: 68, gap: 1 }}>
        End the test here <Key name="E" />
      </Button>
      <ReasonDialog
        title={asking === 'gone-on' ? 'Go on in spite of it' : 'End the test here'}
        what={
          asking === 'gone-on'
            ? 'The reason stands in the report.'
            : 'What has not been done is reported as not taken, with this reason. The unit is still made safe.'
        }
        open={asking !== null}
        back="Back"
        onClose={() => setAsking(null)}
        ways={[{ label: asking === 'gone-on' ? 'Go on' : 'End the test', take: decide }]}
      />
    </Bar>
  );
}

/** Counts a wait down, and goes on by itself when it is over. It ends early only after what is lost has been said. */
export function WaitBar({ run, item, others }: { run: RunHandle; item: WaitItem; others: Others }) {
  const settings = useSettings();
  const now = useNow();
  const called = useRef(false);
  const [asking, setAsking] = useState(false);
  const { act, message } = useDeliberate(run, item.id);
  const from = waitStart(run.context.procedure, run.state, item.id);
  const { inCase } = run;
  const left_s =
    from && now !== null ? item.duration_s - (now + (inCase?.ahead_ms ?? 0) - Date.parse(from)) / 1000 : null;
  const over = left_s !== null && left_s <= 0;
  useEffect(() => {
    if (!over || called.current || run.busy) return;
    called.current = true;
    callOut(settings.sound);
    void run.send({ type: 'wait-ended', item: item.id });
  }, [over, run, item.id, settings.sound]);
  const [unpassed, setUnpassed] = useState('');
  const pass =
    inCase &&
    (() =>
      inCase.passing
        ? inCase.stop()
        : void act(async () => {
            const why = await inCase.pass();
            setUnpassed(why);
            return why === '';
          }));
  const start = () => void act(() => run.send({ type: 'wait-started', item: item.id }));
  /** It goes on by itself as its time is up; by hand where that did not get through. */
  const goOn = () => void act(() => run.send({ type: 'wait-ended', item: item.id }));
  useKeys(
    over
      ? [{ key: 'g', label: 'Go on: the wait is over', run: goOn }]
      : from
        ? [
            { key: 'e', label: 'End the wait early, once confirmed', run: () => setAsking(true) },
            ...(pass ? [{ key: 'w', label: 'Practice: let the wait pass at once', run: pass }] : []),
          ]
        : [
            { key: 's', label: 'Start the wait', run: start },
            {
              key: settings.captureKey,
              label: 'Start the wait (foot-switch)',
              run: start,
              inOwnField: true,
            },
          ],
  );
  return (
    <Bar
      message={message ?? unpassed}
      prompt={
        <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 2, flexWrap: 'wrap' }}>
          <Prompt>{item.prompt}</Prompt>
          <Box
            role="timer"
            aria-live="off"
            aria-label="Time left"
            sx={{ fontSize: '52px', lineHeight: 1, fontWeight: 650 }}
          >
            {clock(left_s ?? item.duration_s)}
          </Box>
          {from && (
            <Box>
              {left_s !== null && left_s >= item.duration_s + LEAST_SET_BACK_S
                ? SET_BACK_IN_WAIT
                : 'The bench keeps counting if you leave or reload.'}
            </Box>
          )}
        </Box>
      }
      primary={
        over
          ? { label: 'Go on', key: 'G', run: goOn, busy: run.busy }
          : from
            ? undefined
            : { label: 'Start', key: 'S', run: start, busy: run.busy }
      }
      others={others}
      focused
    >
      {from && !over && pass && (
        <Button variant="outlined" onClick={pass} sx={{ minHeight: 68, gap: 1 }}>
          {inCase.passing ? 'Stop the bench' : 'Let it pass at once'} <Key name="W" />
        </Button>
      )}
      {from && !over && (
        <Button variant="outlined" onClick={() => setAsking(true)} sx={{ minHeight: 68, gap: 1 }}>
          End early <Key name="E" />
        </Button>
      )}
      <Dialog open={asking} onClose={() => setAsking(false)} aria-labelledby="early-title">
        <DialogTitle id="early-title">End the wait early?</DialogTitle>
        <DialogContent>
          {left_s !== null && `${clock(Math.max(0, left_s))} of ${clock(item.duration_s)} are left. `}
          {item.starts === 'reading'
            ? 'The shorter the wait, the wider the doubt of what is read after it; after two seconds or less it tells nothing and is asked for again.'
            : 'What is read after it may still be falling.'}
        </DialogContent>
        <DialogActions>
          <Button autoFocus onClick={() => setAsking(false)}>
            Keep waiting
          </Button>
          <Button
            onClick={() =>
              void run
                .send({ type: 'wait-ended', item: item.id, early: true })
                .then((sent) => sent && setAsking(false))
            }
          >
            End it early
          </Button>
        </DialogActions>
      </Dialog>
    </Bar>
  );
}
