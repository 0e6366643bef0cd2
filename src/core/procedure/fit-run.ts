import type { Family } from '../contract/family';
import type { RunContext } from '../contract/run-context';
import type { RunState } from '../contract/run-state';
import { randomUncertainty_SI } from '../metrology/uncertainty';
import { placeOf } from '../model/vectors';
import { fitReadings, type FitOutcome, type TwinReading } from '../twin/fit';
import { asSeen, sharedOf } from './as-seen';
import { instrumentsOf, measuredItem } from './measured-item';

/** The parameters of the family's twin as the readings of a run show them. */
export const fitTwin = (family: Family, context: RunContext<unknown>, run: RunState): FitOutcome =>
  fitReadings(family, context.profile, readingsOf(family, context, run));

/** The readings of a run that the family's twin predicts, corrected by the cross-check where the family says so. */
function readingsOf(family: Family, context: RunContext<unknown>, run: RunState): TwinReading[] {
  const instruments = instrumentsOf(context.rig, context.shelf);
  return context.procedure.steps.flatMap((step) =>
    step.items.flatMap((item): TwinReading[] => {
      if (item.kind !== 'reading' || !family.readings.some(({ id }) => id === item.measures)) return [];
      const reading = measuredItem(instruments, run, item.id);
      const seen = reading && asSeen(family, context, run, item, reading);
      if (!seen) return [];
      return [
        {
          item: item.id,
          place: placeOf(family.readings, item.measures),
          value: reading.value_SI / (family.expect(context, run, item)?.gaugeScale ?? 1),
          inputs: seen.inputs,
          random: randomUncertainty_SI(reading),
          shared: sharedOf(reading),
          inputDoubts: seen.doubts,
        },
      ];
    }),
  );
}
