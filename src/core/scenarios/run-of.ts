import { type FamilyKind } from '../families/registry';
import type { RunEvent } from '../contract/events';
import type { RunContext } from '../contract/run-context';
import type { RunState } from '../contract/run-state';
import { seeded, uuidFrom } from '../numeric/chance';
import { admitEvent } from '../procedure/admission';
import { contextWith } from '../procedure/exchange';
import { instrumentsOf, gateRule } from '../procedure/measured-item';
import { nextAction } from '../procedure/next-action';
import { rehearse } from '../procedure/rehearse';
import { applyEvent, EMPTY_RUN, reduceRun } from '../procedure/run';
import { benchOf } from './bench';

/** An event without its name and time. */
export type Made = RunEvent extends infer E ? (E extends RunEvent ? Omit<E, 'id' | 'at'> : never) : never;

/** A run of one family that takes in what the server would. */
export function runOf(kind: FamilyKind) {
  const bench = benchOf(kind);
  const random = seeded(7);
  let at_ms = Date.parse('2026-11-23T08:00:00.000Z');
  let context: RunContext<unknown> = bench.contextWith();
  let events: RunEvent[] = [];
  const gate = gateRule(instrumentsOf(context.rig, context.shelf));
  let known = { procedure: context.procedure, events, state: EMPTY_RUN };
  /** It is gone on with from what was known last, as a run's own state is: read anew only where a past event counts no more. */
  const state = (): RunState => {
    const { procedure } = context;
    const more = events.slice(known.events.length);
    const isAnew = procedure !== known.procedure || more.some(({ type }) => type === 'taken-back');
    const now = isAnew
      ? reduceRun(procedure, events, gate)
      : more.reduce((sofar, event) => applyEvent(procedure, sofar, event, gate), known.state);
    known = { procedure, events, state: now };
    return now;
  };
  const whole = (made: Made): RunEvent => {
    at_ms += 9000;
    return { id: uuidFrom(random), at: new Date(at_ms).toISOString(), ...made } as RunEvent;
  };
  const take = (made: Made) => {
    const event = whole(made);
    const refusal = admitEvent(context.procedure, state(), event, events);
    if (!refusal) {
      events = [...events, event];
      context = contextWith(context, events);
    }
    return refusal;
  };
  /** Does what is asked for, up to an item, as a technician would. */
  const upTo = (until?: string) => {
    const more = rehearse(bench.family, context, bench.truthWith(), {
      random,
      startAt: new Date(at_ms + 9000).toISOString(),
      from: events,
      until,
    });
    events = [...events, ...more];
    at_ms = Date.parse(events.at(-1)?.at ?? new Date(at_ms).toISOString());
  };
  const open = (opens: readonly string[], steps: readonly string[] = ['zeros']) =>
    take({ type: 'disturbed', steps: [...steps], rezero: false, why: 'a line', opens: [...opens] });
  const doStep = (id: string) => {
    for (let i = 0; i < 40; i += 1) {
      const action = nextAction(context.procedure, state());
      if (!('step' in action) || action.step.id !== id) return;
      upTo1(action);
    }
  };
  function upTo1(action: ReturnType<typeof nextAction>) {
    if (action.kind === 'acknowledge') take({ type: 'acknowledged', step: action.step.id });
    if (action.kind === 'source') take({ type: 'source-set', step: action.step.id, set: action.set });
    if (action.kind !== 'item') return;
    const { item } = action;
    if (item.kind === 'observation')
      take({ type: 'observed', item: item.id, answer: item.answers[0].id, note: '' });
    if (item.kind === 'reading')
      take({
        type: 'captured',
        item: item.id,
        value_SI: 0,
        typed: '0',
        by: 'typed',
        instrument: (item.gauge ?? context.rig[item.port]!.at(-1)!.tag)!,
        confirmedUnlikely: false,
      });
  }
  return {
    bench,
    take,
    upTo,
    open,
    doStep,
    state,
    procedure: () => context.procedure,
    rig: context.rig,
    events: () => events,
    random,
  };
}
