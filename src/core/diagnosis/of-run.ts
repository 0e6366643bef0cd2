import { faultsOf, type Family, type View } from '../contract/family';
import type { RunContext } from '../contract/run-context';
import type { RunState } from '../contract/run-state';
import { setItem, type ObservationItem, type ReadingItem } from '../contract/steps';
import { lowEnd_SI } from '../metrology/accuracy';
import { gaugeFor, type Instrument } from '../metrology/instrument';
import { randomUncertainty_SI, stepUncertainty_SI } from '../metrology/uncertainty';
import type { Vector } from '../model/descriptor';
import { placeOf } from '../model/vectors';
import { asSeen, sharedBy, sharedOf, type AsSeen } from '../procedure/as-seen';
import { setPort } from '../procedure/live';
import { instrumentsOf, measuredByGauge, type ItemReading } from '../procedure/measured-item';
import type { InputDoubt } from '../twin/fit';
import type { Evidence, LookEvidence, ReadingEvidence, State } from './evidence';

/**
 * Everything that a run has shown so far and that counts: what was struck or went stale does not.
 *
 * @param logged what the logger recorded while its steps were done
 */
export const evidenceOf = (
  family: Family,
  context: RunContext<unknown>,
  run: RunState,
  logged: readonly StepTrace[] = [],
): Evidence[] =>
  context.procedure.steps.flatMap(({ items }) =>
    items.flatMap((item): Evidence[] => {
      if (item.kind === 'reading') {
        const read = readingEvidence(family, context, run, item);
        // A trace never counts beside a capture of the same: that was taken from it.
        return read.length > 0 ? read : traceEvidence(family, context, run, item, logged);
      }
      const answer = item.kind === 'observation' ? run.observations[item.id]?.answer : undefined;
      if (item.kind !== 'observation' || answer === undefined) return [];
      return lookEvidence(family, item, answer);
    }),
  );

/** A look with its answer; nothing where its error rates are not known, or where it could not tell. */
export function lookEvidence(
  family: Pick<Family, 'looks'>,
  item: ObservationItem,
  answer: string,
): LookEvidence[] {
  const look = plannedLook(family, item);
  const given = item.answers.find(({ id }) => id === answer);
  return look && given && given.finds !== 'unknown'
    ? [{ ...look, answer, good: given.finds === 'good' }]
    : [];
}

/** A reading by each gauge that it was read with. */
function readingEvidence(
  family: Family,
  context: RunContext<unknown>,
  run: RunState,
  item: ReadingItem,
): ReadingEvidence[] {
  const gauges = instrumentsOf(context.rig, context.shelf);
  return measuredByGauge(gauges, run, item.id).flatMap((reading): ReadingEvidence[] => {
    const state = stateAt(family, context, run, item, reading);
    if (!state) return [];
    const { instrument, value_SI } = reading;
    const atEnd = reading.captures.some((capture) => capture.value_SI >= instrument.fullScale_Pa);
    return [
      {
        kind: 'reading',
        id: `${item.id} ${instrument.tag}`,
        of: item.id,
        state: state.state,
        place: state.place,
        doubts: state.doubts,
        value: value_SI,
        off: atEnd ? 'above' : null,
        random: apart(family, state.state, state.place, value_SI, randomUncertainty_SI(reading)),
        shared: sharedOf(reading),
        scale: scaleOf(instrument),
      },
    ];
  });
}

/** A trace of a step, and what it was made to yield. */
export interface StepTrace {
  readonly record: {
    readonly tape?: { readonly step: string } | undefined;
    /** Channels by the tags of their gauges, and the port that each was on. */
    readonly channels: readonly { readonly name: string; readonly port: string | null }[];
  };
  readonly stretches: readonly {
    readonly results: readonly {
      readonly id: string;
      readonly estimate:
        { readonly told: true; readonly value: number; readonly u: number } | { readonly told: false };
    }[];
  }[];
}

/** What the newest trace that tells it says of an item that was not captured, within its own limits and those of its gauge. */
function traceEvidence(
  family: Family,
  context: RunContext<unknown>,
  run: RunState,
  item: ReadingItem,
  logged: readonly StepTrace[],
): ReadingEvidence[] {
  const traced = family.traced?.find((one) => one.item === item.id);
  if (!traced) return [];
  const [newest] = logged
    .flatMap(({ record, stretches }) =>
      stretches.flatMap(({ results }) =>
        results.flatMap(({ id, estimate }) =>
          id === traced.result && estimate.told ? [{ record, estimate }] : [],
        ),
      ),
    )
    .slice(-1);
  if (!newest) return [];
  const tag = newest.record.channels.find(({ port }) => port === item.port)?.name;
  const gauge = context.shelf.find((one) => one.tag === tag);
  const state = stateAt(family, context, run, item, 'traced');
  if (!gauge || !state) return [];
  const { value, u } = newest.estimate;
  return [
    {
      kind: 'reading',
      id: `${item.id} ${gauge.tag} logged`,
      of: item.id,
      state: state.state,
      place: state.place,
      doubts: state.doubts,
      value,
      off: null,
      random: apart(family, state.state, state.place, value, u),
      shared: sharedBy(gauge, value),
      scale: scaleOf(gauge),
    },
  ];
}

export const scaleOf = (gauge: Instrument) => ({ low: lowEnd_SI(gauge), high: gauge.fullScale_Pa });

/** What differs from reading to reading, with how far it lies by itself from what the model says. */
export function apart(
  { readings, views }: Pick<Family, 'readings' | 'views'>,
  { view, inputs }: State,
  place: number,
  value: number,
  random: number,
): number {
  const { SI = 0, part = 0 } = readings[place]!.apart ?? {};
  // A reading that says so itself knows of the applications before it.
  const parts = views[view]!.inputs.map(({ unsteady }, i) =>
    unsteady && inputs[i]! > unsteady.above ? unsteady.part : 0,
  );
  return Math.hypot(random, SI, Math.max(part, ...parts) * value);
}

type At = Pick<ReadingEvidence, 'state' | 'place' | 'doubts'>;

/**
 * Whether a reading leans on a source that was not read: whether any unit, healthy or with a severe fault, would show another
 * with half as much of it. What an empty vessel's gauge jumps to is told by its gas alone.
 */
function leansOnAssumed(
  family: Family,
  profile: unknown,
  { steady, inputs: described }: View,
  { known, inputs }: AsSeen,
  place: number,
): boolean {
  const assumed = known.flatMap(({ assumed: is }, i) => (is ? [i] : []));
  if (assumed.length === 0) return false;
  // Of a source that is no part of the model nothing is known until it was read.
  const supposed = assumed.some((i) => !(described[i]!.from?.as === 'source' && described[i]!.from.until));
  if (supposed || !inputs.every(Number.isFinite)) return true;
  const { values } = family.healthy(profile);
  const wanted = new Set([place]);
  const units = [values, ...faultsOf(family, profile).map(({ apply }) => apply(values, 1))];
  return units.some((unit) => {
    const told = (at: Vector) => steady(unit, at, wanted)[place]!;
    const here = told(inputs);
    return assumed.some((i) => told(inputs.with(i, inputs[i]! / 2)) !== here);
  });
}

/**
 * How the twin is asked for a reading: by the view that takes the most from what was read, of those that tell it.
 *
 * @param reading what was read; or that it is only planned, or stands in a trace
 * @returns null where no view tells it
 */
function stateAt(
  family: Family,
  context: RunContext<unknown>,
  run: RunState,
  item: ReadingItem,
  reading: ItemReading | 'planned' | 'traced',
): (At & { readonly seen: AsSeen }) | null {
  if (!family.readings.some(({ id }) => id === item.measures)) return null;
  const place = placeOf(family.readings, item.measures);
  const { values } = family.healthy(context.profile);
  let supposed: (At & { readonly seen: AsSeen }) | null = null;
  for (const [number, view] of family.views.entries()) {
    const { inputs, steady } = view;
    const setFor = view.inputs.map(({ from }) =>
      from?.as === 'set' ? setItem(context.procedure, item, from.port) : null,
    );
    const isSet = view.inputs.every(
      ({ from }, i) => from?.as !== 'set' || from.port === setPort(context.procedure) || setFor[i] !== null,
    );
    if (!isSet) continue;
    const read = typeof reading === 'string' ? null : reading;
    const seen = asSeen({ ...family, inputs, steady }, context, run, item, read);
    if (!seen) continue;
    // A view that asks for nothing that was not read is better; only a reading that is planned leans on what is supposed.
    // What is only planned may lean on what is assumed: whether it does need not be known.
    const leans =
      reading === 'planned'
        ? seen.known.some(({ assumed }) => assumed)
        : leansOnAssumed(family, context.profile, view, seen, place);
    if (leans && (reading !== 'planned' || !seen.inputs.every(Number.isFinite))) continue;
    // Only what is set has an aim: what another reading shows is known once it was read.
    if (setFor.some((set, i) => set && set.measures !== 'input' && !seen.known[i]!.measured)) continue;
    if (!Number.isFinite(view.steady(values, seen.inputs)[place]!)) continue;
    const at = { state: { view: number, inputs: seen.inputs }, place, doubts: seen.doubts, seen };
    if (!leans) return at;
    supposed ??= at;
  }
  return supposed;
}

/** A look of the procedure whose error rates the family knows, before it is answered; null for any other. */
export function plannedLook(
  { looks }: Pick<Family, 'looks'>,
  { id, answers }: ObservationItem,
): Omit<LookEvidence, 'answer' | 'good'> | null {
  const rates = looks.find(({ item }) => item === id);
  if (!rates) return null;
  const bad = answers.flatMap(({ id: answer, finds }) => (finds === 'bad' ? [answer] : []));
  return { kind: 'look', id, item: id, bad, miss: rates.miss, falseAlarm: rates.falseAlarm };
}

/** A reading that could be taken now, with the gauge that stands for it: all that is known of it but its value. */
export type PlannedReading = Omit<ReadingEvidence, 'value' | 'off'>;

/**
 * A reading of a step before it is taken, at the aim. Null where the twin does not tell it, or no gauge of the rig reaches it.
 */
export function plannedReading(
  family: Family,
  context: RunContext<unknown>,
  run: RunState,
  item: ReadingItem,
): PlannedReading | null {
  const found = stateAt(family, context, run, item, 'planned');
  if (!found) return null;
  const { state, place, seen } = found;
  const view = family.views[state.view]!;
  const expected = view.steady(family.healthy(context.profile).values, state.inputs)[place]!;
  const gauge = gaugeFor(context.rig[item.port] ?? [], Math.abs(expected));
  if (!gauge) return null;
  // What is set on the way was not read yet: it will be, on the gauge that stands there.
  const aimed = view.inputs.flatMap(({ from }, input): InputDoubt[] => {
    const on = from?.as === 'set' && !seen.known[input]!.measured ? context.rig[from.port]?.[0] : undefined;
    const at = seen.inputs[input]!;
    return on && at !== 0
      ? [
          {
            input,
            of: `${item.id} set`,
            random: stepUncertainty_SI(on),
            shared: sharedBy(on, at),
          },
        ]
      : [];
  });
  return {
    kind: 'reading',
    id: item.id,
    of: item.id,
    state,
    place,
    doubts: [...seen.doubts, ...aimed],
    random: apart(family, state, place, expected, stepUncertainty_SI(gauge)),
    shared: sharedBy(gauge, expected),
    scale: scaleOf(gauge),
  };
}
