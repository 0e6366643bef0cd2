import { readingOf } from '../../model/vectors';
import type { Limits } from '../../metrology/verdict';
import { instrumentsOf, measuredItem } from '../../procedure/measured-item';
import { predict, type Prediction } from '../../procedure/predict';
import { holdStart, type ReadingItem } from '../../contract/steps';
import { roomOf } from '../../procedure/room';
import type { RunState } from '../../contract/run-state';
import { sentence } from '../../quantities/sentence';
import type { Family } from '../../contract/family';
import type { RunContext } from '../../contract/run-context';
import type { Expectation } from '../../contract/result';
import { bypassAllowed_Pa, covers, gaugePairs } from './bypass';
import type { RemoteVacuumProfile } from './profile';

type Context = RunContext<RemoteVacuumProfile>;
type Model = Pick<Family, 'readings' | 'inputs' | 'healthy' | 'steady'>;

/** What the profile says a reading must keep to, given what a healthy unit shows. */
function limitsFor(
  profile: RemoteVacuumProfile,
  item: ReadingItem,
  prediction: Prediction,
  startOfHold_Pa: number | null,
): { limits: Limits; source: string } | null {
  const { limits } = profile;
  const { expected } = prediction;
  const { input_Pa = 0 } = prediction.inputs;
  switch (item.measures) {
    case 'outputPassed': {
      const allowed_Pa = bypassAllowed_Pa(profile, input_Pa);
      return {
        limits: { low: expected - allowed_Pa, high: expected + allowed_Pa },
        source: limits.bypass_fraction.source,
      };
    }
    case 'activation': {
      const { value, source } = limits.restDifference_Pa;
      return { limits: { low: Math.max(0, expected - value), high: expected + value }, source };
    }
    case 'outputAtRest':
    case 'residual':
      return { limits: { high: limits.residual_Pa.value }, source: limits.residual_Pa.source };
    case 'crackInput':
      return {
        limits: { low: limits.crackLow_Pa.value, high: limits.crackHigh_Pa.value },
        source: limits.crackLow_Pa.source,
      };
    case 'switchCloses':
      return profile.lampSwitch
        ? {
            limits: { low: profile.lampSwitch.closesFrom_Pa, high: profile.lampSwitch.closesTo_Pa },
            source: profile.lampSwitch.source,
          }
        : null;
    case 'supplyApplied':
      return { limits: { low: expected - limits.supplyDrop_Pa.value }, source: limits.supplyDrop_Pa.source };
    case 'fullActivation':
      return { limits: { high: limits.fullActivation_Pa.value }, source: limits.fullActivation_Pa.source };
    case 'outputHeld': {
      if (startOfHold_Pa === null) return null;
      const { value, source } = limits.holdLoss_PaPerS;
      return { limits: { low: startOfHold_Pa - value * (item.elapsed_s ?? 0) }, source };
    }
    case 'supplyLeftReleased':
    case 'supplyLeftApplied': {
      const { value, source } =
        item.measures === 'supplyLeftReleased'
          ? limits.vacuumLossReleased_PaPerS
          : limits.vacuumLossApplied_PaPerS;
      return startOfHold_Pa === null
        ? null
        : { limits: { low: startOfHold_Pa - value * (item.elapsed_s ?? 0) }, source };
    }
    case 'outputReleasing':
      return {
        limits: {
          low: prediction.band.low,
          high: prediction.band.high * (1 + limits.hysteresis_fraction.value),
        },
        source: limits.hysteresis_fraction.source,
      };
    default:
      return {
        limits: prediction.band,
        source: [...new Set([limits.boostRatio_fraction.source, limits.effectiveArea_fraction.source])].join(
          '; ',
        ),
      };
  }
}

/** What a healthy remote vacuum unit shows at an item, before the reading is taken. */
export function expectWith(
  model: Model,
  context: Context,
  run: RunState,
  item: ReadingItem,
): Expectation | null {
  const { profile } = context;
  const blank = { limitSource: '', terms: [], gaugeScale: null, notes: [] };
  if (item.measures === 'supply' && !item.id.startsWith('loss-')) {
    const need = profile.limits.supplyNeed_Pa;
    return { ...blank, expected: null, limits: { low: need.value }, limitSource: need.source };
  }
  if (item.measures === 'zero') return { ...blank, expected: 0, limits: null };
  const prediction = predict(model as Family, context, run, item);
  if (!prediction) return null;
  const start = startOfHold(context, run, item);
  const found = limitsFor(profile, item, prediction, start);
  if (!found) return null;
  const expected =
    start === null ? prediction.expected : start - (fallOverHold(model, context, run, item) ?? 0);
  const common = {
    ...blank,
    expected,
    limits: found.limits,
    limitSource: found.source,
    terms: prediction.terms,
  };
  const gaugeScale = correctionFor(context, run, item, prediction.expected);
  const notes = supplyNote(item, prediction, roomOf(context, run, item.id).barometer_Pa, profile, model);
  return { ...common, gaugeScale, notes };
}

/** Fall that a healthy unit shows over a hold, Pa: start of the hold less its end, both predicted. */
function fallOverHold(model: Model, context: Context, run: RunState, item: ReadingItem): number | null {
  const after = predict(model as Family, context, run, item);
  const before = predict(model as Family, context, run, { ...item, elapsed_s: 0 });
  return after && before ? before.expected - after.expected : null;
}

/** The reading from which a hold is counted; null where the item does not end one. */
function startOfHold(context: Context, run: RunState, item: ReadingItem): number | null {
  const start = holdStart(item);
  if (start === null) return null;
  return measuredItem(instrumentsOf(context.rig, context.shelf), run, start)?.value_SI ?? null;
}

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
  const pair = gaugePairs(context, run).find(
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
