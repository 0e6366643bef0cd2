import type { RunEvent } from '../contract/events';
import { sourceState } from '../contract/sources';
import { findItem, type Procedure } from '../contract/steps';
import { clockSetBack, setBackWords } from './clock';
import { waitStart } from './run';
import { type Capture, type RunState } from '../contract/run-state';

/** One line of the tape, in the order things happened. */
export type TapeLine =
  | { kind: 'step'; id: string; title: string }
  | { kind: 'reading'; id: string; capture: Capture; prompt: string; step: string }
  | {
      kind: 'look';
      id: string;
      item: string;
      name: string;
      label: string;
      finds: 'good' | 'bad' | 'unknown';
      note: string;
      /** Made stale, or looked at again since. */
      replaced: boolean;
    }
  | { kind: 'wait'; id: string; prompt: string; seconds: number; back: boolean }
  | { kind: 'source'; id: string; words: string; back: boolean }
  | { kind: 'disturbed'; id: string; why: string }
  /** The clock was set back before what follows. */
  | { kind: 'clock'; id: string; words: string }
  | { kind: 'skip'; id: string; what: string; reason: string; back: boolean }
  /** The test went on in spite of an answer that stops it, or ended there. */
  | { kind: 'decided'; id: string; words: string; back: boolean }
  /** What the logger recorded during the step: a trace by its identity. */
  | { kind: 'logged'; id: string };

/** Step that an event belongs to; none for what concerns the whole run. */
const stepOf = (procedure: Procedure, event: RunEvent): string | null => {
  if (event.type === 'added') return event.step.id;
  if ('item' in event && event.item !== null) return findItem(procedure, event.item)?.step.id ?? null;
  return 'step' in event ? event.step : null;
};

/** A trace and its place on the tape: the step it is of, and how many events of the run stand before it. */
export interface TapedTrace {
  readonly id: string;
  readonly step: string;
  readonly events: number;
}

/** Where what was logged during a step stands: behind the last that was done in it, even if more was done since. */
export function tapedAt(
  procedure: Procedure,
  events: readonly RunEvent[],
  step: string,
): Omit<TapedTrace, 'id'> {
  const last = events.findLastIndex((event) => stepOf(procedure, event) === step);
  return { step, events: last < 0 ? events.length : last + 1 };
}

/** The run as a strip: one line per thing that happened, under the step it belongs to. */
export function tapeOf(
  procedure: Procedure,
  run: RunState,
  events: readonly RunEvent[],
  traces: readonly TapedTrace[] = [],
): TapeLine[] {
  const lines: TapeLine[] = [];
  let lastStep = '';
  const back = new Set(events.flatMap((event) => (event.type === 'taken-back' ? [event.event] : [])));
  const under = (stepId: string) => {
    if (stepId === lastStep) return;
    lastStep = stepId;
    const step = procedure.steps.find(({ id }) => id === stepId);
    if (step) lines.push({ kind: 'step', id: `step-${lines.length}`, title: step.title });
  };
  const logged = (behind: number) => {
    for (const trace of traces) {
      if (Math.min(trace.events, events.length) !== behind) continue;
      under(trace.step);
      lines.push({ kind: 'logged', id: trace.id });
    }
  };
  const setBack = new Map(clockSetBack(events).map((one) => [one.event, one]));
  for (const [i, event] of events.entries()) {
    logged(i);
    const clock = setBack.get(event.id);
    if (clock) lines.push({ kind: 'clock', id: `clock-${event.id}`, words: setBackWords(clock) });
    under(stepOf(procedure, event) ?? lastStep);
    const line = lineOf(procedure, run, event, back.has(event.id));
    if (line) lines.push(line);
  }
  logged(events.length);
  return lines;
}

function lineOf(procedure: Procedure, run: RunState, event: RunEvent, back: boolean): TapeLine | null {
  switch (event.type) {
    case 'captured': {
      const capture = run.captures.find(({ id }) => id === event.id);
      const found = findItem(procedure, event.item);
      if (!capture || found?.item.kind !== 'reading') return null;
      return { kind: 'reading', id: event.id, capture, prompt: found.item.prompt, step: found.step.id };
    }
    case 'observed': {
      const item = findItem(procedure, event.item)?.item;
      if (item?.kind !== 'observation') return null;
      const answer = item.answers.find(({ id }) => id === event.answer);
      return answer
        ? {
            kind: 'look',
            id: event.id,
            item: item.id,
            name: item.name,
            label: answer.label,
            finds: answer.finds,
            note: event.note,
            replaced: run.observations[item.id]?.id !== event.id,
          }
        : null;
    }
    case 'wait-ended': {
      const item = findItem(procedure, event.item)?.item;
      const from = run.waits[event.item]?.startedAt ?? waitStart(procedure, run, event.item);
      if (item?.kind !== 'wait' || !from) return null;
      return {
        kind: 'wait',
        id: event.id,
        prompt: item.prompt,
        seconds: (Date.parse(event.at) - Date.parse(from)) / 1000,
        back,
      };
    }
    case 'source-set':
      return { kind: 'source', id: event.id, words: sourceState(event.set).words, back };
    case 'disturbed':
      return { kind: 'disturbed', id: event.id, why: event.why };
    case 'skipped': {
      const step = procedure.steps.find(({ id }) => id === event.step);
      return {
        kind: 'skip',
        id: event.id,
        what: event.item ?? step?.title ?? event.step,
        reason: event.reason,
        back,
      };
    }
    case 'gone-on': {
      const item = findItem(procedure, event.item)?.item;
      const name = item?.kind === 'observation' ? item.name : event.item;
      return { kind: 'decided', id: event.id, words: `Went on in spite of “${name}”: ${event.reason}`, back };
    }
    case 'added':
      return { kind: 'decided', id: event.id, words: `Added: ${event.step.title}`, back };
    case 'ended':
      return { kind: 'decided', id: event.id, words: `Test ended: ${event.reason}`, back };
    default:
      return null;
  }
}
