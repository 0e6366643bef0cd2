import { randomUncertainty_SI, sharedUncertainty_SI, type Measured } from '../metrology/uncertainty';
import { instrumentsOf, measuredItem, type ItemReading } from './measured-item';
import { inputsAt } from './inputs-at';
import { holdStart } from '../contract/steps';
import type { RunState } from '../contract/run-state';
import { placeOf } from '../model/vectors';
import { type Family } from '../contract/family';
import { type RunContext } from '../contract/run-context';
import { fitReadings, type FitOutcome, type SharedError, type TwinReading } from '../twin/fit';

/** How well the moments of a hold are known, start and end together, s. */
const HOLD_TIMING_U_S = Math.SQRT2;

/** A gauge is the same gauge as long as it was not calibrated anew. */
const sharedOf = (reading: Measured): SharedError => ({
  gauge: `${reading.instrument.tag} ${reading.instrument.calibratedOn ?? ''}`,
  u: sharedUncertainty_SI(reading),
});

/** The parameters of the family's twin as the readings of a run show them. */
export const fitTwin = (family: Family, context: RunContext<unknown>, run: RunState): FitOutcome =>
  fitReadings(family, context.profile, readingsOf(family, context, run));

/** The readings of a run that the family's twin predicts, corrected by the cross-check where the family says so. */
function readingsOf(family: Family, context: RunContext<unknown>, run: RunState): TwinReading[] {
  const instruments = instrumentsOf(context.rig, context.shelf);
  const read = (id: string) => measuredItem(instruments, run, id);
  return context.procedure.steps.flatMap((step) =>
    step.items.flatMap((item): TwinReading[] => {
      if (item.kind !== 'reading' || !family.readings.some(({ id }) => id === item.measures)) return [];
      const reading = read(item.id);
      const known = reading && inputsAt(family, context, run, item, 'at-rest');
      if (!reading || !known) return [];
      const elapsed = placeOf(family.inputs, 'elapsed_s');
      const start = holdStart(context.procedure, item);
      const held_s = start ? secondsBetween(read(start), reading) : null;
      if (start && held_s === null) return [];
      const inputs = known.map(({ value }, i) => (i === elapsed && held_s !== null ? held_s : value));
      const doubts = known.flatMap(({ measured }, input) =>
        measured ? [{ input, random: randomUncertainty_SI(measured), shared: sharedOf(measured) }] : [],
      );
      const timing = { input: elapsed, random: HOLD_TIMING_U_S, shared: { gauge: 'clock', u: 0 } };
      return [
        {
          item: item.id,
          place: placeOf(family.readings, item.measures),
          value: reading.value_SI / (family.expect(context, run, item)?.gaugeScale ?? 1),
          inputs,
          random: randomUncertainty_SI(reading),
          shared: sharedOf(reading),
          inputDoubts: held_s === null ? doubts : [...doubts, timing],
        },
      ];
    }),
  );
}

function secondsBetween(start: ItemReading | null, end: ItemReading): number | null {
  const from = start?.captures.at(-1)?.at;
  const seconds = from ? (Date.parse(end.captures.at(-1)!.at) - Date.parse(from)) / 1000 : 0;
  return seconds > 0 ? seconds : null;
}
