import { supplied } from '../contract/sources';
import { shownBy } from '../metrology/shown';
import { gaussian, uuidFrom } from '../numeric/chance';
import { gaugeFor, type Instrument } from '../metrology/instrument';
import { readingOf, restingReading } from '../model/vectors';
import { type Family } from '../contract/family';
import { type RunContext } from '../contract/run-context';
import { type Vector } from '../model/descriptor';
import type { RunEvent } from '../contract/events';
import { gaugeOfGate } from './check-capture';
import { instrumentsOf, gateRule } from './measured-item';
import { findItem, holdStart, setItem, type ObservationItem, type ReadingItem } from '../contract/steps';
import { nextAction } from './next-action';
import { applyEvent, reduceRun } from './run';
import { type RunState } from '../contract/run-state';

/** What is really on the bench: known to the simulation, hidden from the run. */
export interface BenchTruth {
  /** The unit as it is, faults and all. */
  readonly parameters: Vector;
  /** Depression that the bench really makes, Pa. */
  readonly supply_Pa: number;
  /** True error of each gauge: shown = true · scale + zero. */
  readonly gauges: Readonly<Record<string, { readonly scale?: number; readonly zero_Pa?: number }>>;
  /** Observations that are not the good answer. */
  readonly signs: Readonly<Record<string, string>>;
  /** Standard deviation of reading noise, as a part of the gauge's step. */
  readonly noise_steps: number;
}

/** What a rehearsal is given: time and chance come from outside. */
export interface RehearsalOptions {
  /** Uniform on [0, 1). */
  readonly random: () => number;
  /** ISO time at which the run begins. */
  readonly startAt: string;
  /** What is on the run already: a re-test begins with what was carried over. */
  readonly from?: readonly RunEvent[];
  /** Stop before this item; without it the run is finished. */
  readonly until?: string;
  /** Where an answer stops the test and a reason lets it go on, it goes on for this one; without it, it ends there. */
  readonly goOnFor?: string;
}

/** More than this no test asks for: a gate that what is tested cannot open would be tried for ever. */
const MOST_EVENTS = 2000;
/** Time a technician needs for one entry, s. */
const ENTRY_S = 9;
/** How closely an input is set to its target, as a part of it. */
const SETTING = 0.004;

/**
 * Runs a procedure on the twin as a technician would, reading real gauges with errors, steps and noise: one
 * simulated bench for demo data, tests and practice.
 *
 * @returns the events that it adds
 * @throws RangeError where it comes to no end
 */
export function rehearse(
  family: Family,
  context: RunContext<unknown>,
  truth: BenchTruth,
  options: RehearsalOptions,
): RunEvent[] {
  const { procedure } = context;
  const gate = gateRule(instrumentsOf(context.rig, context.shelf));
  const events: RunEvent[] = [];
  const bench = new Bench(family, context, truth, options.random);
  let at_ms = Date.parse(options.startAt);
  let state: RunState = reduceRun(procedure, options.from ?? [], gate);
  for (;;) {
    const action = nextAction(procedure, state);
    if (action.kind === 'done') return events;
    if (events.length > MOST_EVENTS) throw new RangeError(`rehearsal: no end at ${JSON.stringify(action)}`);
    if (action.kind === 'item' && action.item.id === options.until) return events;
    const stamp = { id: uuidFrom(options.random), at: new Date(at_ms).toISOString() };
    let event: RunEvent;
    if (action.kind === 'finish') event = { ...stamp, type: 'finished' };
    else if (action.kind === 'acknowledge') event = { ...stamp, type: 'acknowledged', step: action.step.id };
    else if (action.kind === 'stopped')
      event =
        options.goOnFor && action.stop.goesOn === 'reason'
          ? { ...stamp, type: 'gone-on', item: action.item.id, reason: options.goOnFor }
          : { ...stamp, type: 'ended', reason: action.stop.say };
    else if (action.kind === 'source')
      event = { ...stamp, type: 'source-set', step: action.step.id, set: action.set };
    else if (action.item.kind === 'wait') {
      const { item } = action;
      const waiting = item.starts === 'reading' || state.waits[item.id];
      event = { ...stamp, type: waiting ? 'wait-ended' : 'wait-started', item: item.id };
      if (!waiting) at_ms += item.duration_s * 1000 - ENTRY_S * 1000;
    } else event = bench.answer(action.item, stamp, at_ms);
    events.push(event);
    state = applyEvent(procedure, state, event, gate);
    const then = nextAction(procedure, state);
    const wait = then.kind === 'item' && then.item.kind === 'wait' ? then.item : null;
    at_ms += wait?.starts === 'reading' ? wait.duration_s * 1000 : ENTRY_S * 1000;
  }
}

class Bench {
  private readonly set = new Map<string, number>();
  private readonly begun = new Map<string, number>();

  constructor(
    private readonly family: Family,
    private readonly context: RunContext<unknown>,
    private readonly truth: BenchTruth,
    private readonly random: () => number,
  ) {}

  answer(item: ReadingItem | ObservationItem, stamp: { id: string; at: string }, at_ms: number): RunEvent {
    if (item.kind === 'observation') {
      const answer = this.truth.signs[item.id] ?? item.answers[0].id;
      return { ...stamp, type: 'observed', item: item.id, answer, note: '' };
    }
    const true_Pa = this.trueValue(item, at_ms);
    this.set.set(item.id, true_Pa);
    this.begun.set(item.id, at_ms);
    const gauge = this.gaugeOn(item, true_Pa);
    const value_SI = this.shown(gauge, true_Pa);
    return {
      ...stamp,
      type: 'captured',
      item: item.id,
      value_SI,
      typed: '',
      by: 'gauge',
      instrument: gauge.tag,
      confirmedUnlikely: false,
    };
  }

  private trueValue(item: ReadingItem, at_ms: number): number {
    const { measures } = item;
    if (measures === 'zero') return 0;
    if (measures === 'supply') return this.sourceOn(item.port);
    if (measures === 'input') return (item.target_Pa ?? 0) * (1 + SETTING * (2 * this.random() - 1));
    const input = this.setFor(item);
    const step = this.context.procedure.steps.find(({ items }) => items.some(({ id }) => id === item.id))!;
    const start = holdStart(this.context.procedure, item);
    const first = start === null ? null : findItem(this.context.procedure, start)?.item;
    const held = this.family.inputs.flatMap(({ from }) => (from?.as === 'source' ? [from.port] : []));
    // A hold that begins with a reading of a source keeps what was stored.
    const shutIn = first?.kind === 'reading' && held.includes(first.port);
    const began = start === null ? undefined : this.begun.get(start);
    const { barometer_Pa, temperature_K } = this.context.conditions;
    const sources = this.family.inputs.flatMap(({ id, from }) =>
      from?.as === 'source'
        ? [
            [
              id,
              supplied(step.state) || shutIn || from.stays
                ? this.sourceOn(from.port)
                : this.stored(item, from.port),
            ],
          ]
        : [],
    );
    const known: Record<string, number> = {
      [this.family.curve.input]: input,
      ...Object.fromEntries(sources),
      barometer_Pa,
      temperature_K,
      applications: item.applications ?? 0,
      elapsed_s: began !== undefined ? (at_ms - began) / 1000 : (item.elapsed_s ?? 0),
    };
    return readingOf(this.family, this.truth.parameters, known, measures);
  }

  /** With the source off: what the reading named has found to be stored at a port, or what stands there; else nothing. */
  private stored({ sourceFrom }: ReadingItem, port: string): number {
    if (sourceFrom === undefined) return 0;
    const named = findItem(this.context.procedure, sourceFrom)?.item;
    const own = named?.kind === 'reading' && named.port === port ? this.set.get(sourceFrom) : undefined;
    return own ?? this.sourceOn(port);
  }

  /** What the input was set to for a reading. */
  private setFor(item: ReadingItem): number {
    const port = this.family.inputs.flatMap(({ from }) => (from?.as === 'set' ? [from.port] : []))[0];
    const set = port ? setItem(this.context.procedure, item, port) : null;
    return (set && this.set.get(set.id)) || (item.target_Pa ?? set?.target_Pa ?? 0);
  }

  /** What stands at a port of a source: what the bench makes, or where its source is a part of what is tested, what that makes. */
  private sourceOn(port: string): number {
    const { family, truth } = this;
    const own = family.inputs.flatMap(({ from }) =>
      from?.as === 'source' && from.port === port ? [from] : [],
    )[0];
    const until = own?.until;
    if (!until) return truth.supply_Pa;
    const { barometer_Pa, temperature_K } = this.context.conditions;
    return restingReading(family, truth.parameters, { barometer_Pa, temperature_K }, until);
  }

  private gaugeOn(item: ReadingItem, true_Pa: number): Instrument {
    const gauges = this.context.rig[item.port] ?? [];
    const open = item.gate && gaugeOfGate(gauges);
    if (open && (!item.gauge || item.gauge === open.tag)) return open;
    const named = instrumentsOf(this.context.rig, this.context.shelf).get(item.gauge ?? '');
    const widest = [...gauges].sort((a, b) => b.fullScale_Pa - a.fullScale_Pa)[0];
    const gauge = named ?? gaugeFor(gauges, true_Pa * 1.03) ?? widest;
    if (!gauge) throw new RangeError(`rig: no gauge on ${item.port}`);
    return gauge;
  }

  private shown(gauge: Instrument, true_Pa: number): number {
    const noise_Pa = this.truth.noise_steps * gauge.step_Pa * gaussian(this.random);
    return shownBy(gauge, true_Pa, { ...this.truth.gauges[gauge.tag], noise_Pa });
  }
}
