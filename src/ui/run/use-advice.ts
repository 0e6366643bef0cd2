'use client';

import { useEffect, useRef, useState } from 'react';
import type { Advice } from '@/core/diagnosis/advice';
import type { Beliefs } from '@/core/diagnosis/causes';
import { isDone } from '@/core/procedure/run';
import { heardIn } from '@/core/contract/complaints';
import type { FamilyKind } from '@/core/families/registry';
import type { FromDiagnosis, ToDiagnosis } from '@/workers/diagnosis-worker';
import type { RunHandle } from './use-run';

/** Where the search for the cause stands: the last advice there was, and how far the next one is. */
export interface AdviceState {
  readonly advice: Advice | null;
  /** Version of the run that it is for. */
  readonly version: number | null;
  /** Part of the work that is done; null where none runs. */
  readonly part: number | null;
  readonly problem: string | null;
}

const NOTHING: AdviceState = { advice: null, version: null, part: null, problem: null };

/** What counts beside what was captured: the test before a repair, and what was logged. */
type Beside = Partial<Pick<ToDiagnosis, 'before' | 'logged' | 'home'>>;
const NOTHING_TRIED: ToDiagnosis['home'] = {};
const NOTHING_LOGGED: ToDiagnosis['logged'] = [];

/**
 * Advice for a run, worked out beside the screen. While one is worked out the newest state waits its turn, and any between are
 * left out. Nothing is worked out while it is not asked for; put away, it ends at once.
 */
export function useAdvice(
  { context, state }: Pick<RunHandle, 'context' | 'state'>,
  kind: FamilyKind,
  complaint: string,
  weights: Beliefs['weights'],
  asked: boolean,
  { before = null, logged = NOTHING_LOGGED, home = NOTHING_TRIED }: Beside = {},
): AdviceState {
  const [found, setFound] = useState<AdviceState>(NOTHING);
  const desk = useRef<Desk | null>(null);
  useEffect(() => {
    if (!asked) return;
    const made = deskFor(setFound);
    desk.current = made;
    return () => {
      made.close();
      desk.current = null;
      setFound(NOTHING);
    };
  }, [asked]);
  useEffect(() => {
    desk.current?.ask({
      kind,
      context,
      run: state,
      beliefs: { complaint: complaint !== '', weights, heard: heardIn(complaint) },
      otherWork: false,
      before,
      logged,
      home,
    });
  }, [asked, kind, context, state, complaint, weights, before, logged, home]);
  return found;
}

/**
 * Takes the test that tells the most next, as long as that order is asked for: between two tests, never within one, and once for
 * what was seen, so that another step chosen by hand stays.
 */
export function useLed(
  { action, state, busy, send }: Pick<RunHandle, 'action' | 'state' | 'busy' | 'send'>,
  { advice, version }: AdviceState,
  led: boolean,
): void {
  const taken = useRef<number | null>(null);
  useEffect(() => {
    const best = advice?.steps[0];
    if (!led || !best || busy || version !== state.version || !('step' in action)) return;
    if (taken.current === advice.evidence || action.step.id === best.first) return;
    if (action.step.items.some((item) => isDone(state, item))) return;
    taken.current = advice.evidence;
    void send({ type: 'chosen', step: best.first });
  }, [action, state, busy, send, advice, version, led]);
}

/** One worker, and the newest question that waits for it. */
interface Desk {
  readonly ask: (question: Omit<ToDiagnosis, 'ask'>) => void;
  readonly close: () => void;
}

function deskFor(tell: (state: AdviceState | ((before: AdviceState) => AdviceState)) => void): Desk {
  const worker = new Worker(new URL('../../workers/diagnosis-worker.ts', import.meta.url));
  let at = 0;
  let busy = false;
  let version = 0;
  let waiting: Omit<ToDiagnosis, 'ask'> | null = null;
  const send = (question: Omit<ToDiagnosis, 'ask'>) => {
    busy = true;
    waiting = null;
    version = question.run.version;
    at += 1;
    tell((before) => ({ ...before, part: 0, problem: null }));
    worker.postMessage({ ...question, ask: at } satisfies ToDiagnosis);
  };
  const ended = (state: (before: AdviceState) => AdviceState) => {
    busy = false;
    tell(state);
    if (waiting) send(waiting);
  };
  worker.addEventListener('message', ({ data }: MessageEvent<FromDiagnosis>) => {
    if ('part' in data) tell((before) => ({ ...before, part: data.part }));
    else if ('advice' in data) ended(() => ({ advice: data.advice, version, part: null, problem: null }));
    else ended((before) => ({ ...before, part: null, problem: data.problem }));
  });
  worker.addEventListener('error', () =>
    ended((before) => ({ ...before, part: null, problem: 'It could not be worked out here.' })),
  );
  return {
    ask: (question) => (busy ? void (waiting = question) : send(question)),
    close: () => worker.terminate(),
  };
}
