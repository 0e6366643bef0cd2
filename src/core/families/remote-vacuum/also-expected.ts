import { readingOf } from '../../model/vectors';
import { instrumentsOf, measuredItem } from '../../procedure/measured-item';
import type { Prediction } from '../../procedure/predict';
import type { ReadingItem } from '../../contract/steps';
import { roomOf } from '../../procedure/room';
import type { RunState } from '../../contract/run-state';
import { sentence } from '../../quantities/sentence';
import type { Family } from '../../contract/family';
import type { RunContext } from '../../contract/run-context';
import type { Also } from '../expectation';
import { covers, gaugePairs } from '../../passage/gauge-pairs';
import { passageOf } from './ratio';
import type { RemoteVacuumProfile } from './profile';

type Context = RunContext<RemoteVacuumProfile>;
type Model = Pick<Family, 'readings' | 'inputs' | 'healthy' | 'steady'>;

/**
 * What no rule says of a remote vacuum unit: the scale of the output gauge, where the bypass test found it, and beforehand
 * that a supply is what holds the output down.
 */
export const alsoExpected: Also<RemoteVacuumProfile> = (model, context, run, item, prediction) => ({
  gaugeScale: correctionFor(context, run, item, prediction.expected),
  notes: supplyNote(item, prediction, roomOf(context, run, item.id).barometer_Pa, context.profile, model),
});

/** Scale of the output gauge against the input gauge, where the bypass test found it for the two in use. */
function correctionFor(
  context: Context,
  run: RunState,
  item: ReadingItem,
  expected_Pa: number,
): number | null {
  if (item.port !== 'output' || !item.inputFrom || item.measures === 'outputPassed') return null;
  const input = measuredItem(instrumentsOf(context.rig, context.shelf), run, item.inputFrom);
  if (!input) return null;
  const pair = gaugePairs(passageOf(context.profile), context, run).find(
    ({ input: gauge, check }) => gauge === input.instrument.tag && covers(check, input.value_SI, expected_Pa),
  );
  return pair?.check.kind === 'through' && pair.check.scaleDiffers ? pair.check.slope : null;
}

/** Says beforehand that a supply is what holds the output down. */
function supplyNote(
  item: ReadingItem,
  { inputs, expected }: Prediction,
  barometer_Pa: number,
  profile: RemoteVacuumProfile,
  model: Model,
) {
  const { input_Pa = 0, supply_Pa = 0 } = inputs;
  if (item.measures !== 'output' || supply_Pa === 0) return [];
  const { values } = model.healthy(profile);
  const runout_Pa = readingOf(model, values, inputs, 'runoutInput');
  if (input_Pa <= runout_Pa) return [];
  const unlimited = readingOf(model, values, { ...inputs, supply_Pa: barometer_Pa }, item.measures);
  return [
    sentence(
      'With {supply} of vacuum a healthy unit runs out at {runout} in: expect {expected}, not {unlimited}. That is the supply, not the unit.',
      {
        supply: { value: supply_Pa, quantity: 'depression' },
        runout: { value: runout_Pa, quantity: 'pressure' },
        expected: { value: expected, quantity: 'pressure' },
        unlimited: { value: unlimited, quantity: 'pressure' },
      },
    ),
  ];
}
