import type { Family } from '../../contract/family';
import type { Passage } from '../../contract/passage';
import type { RunContext } from '../../contract/run-context';
import type { RunState } from '../../contract/run-state';
import { findItem, type ReadingItem } from '../../contract/steps';
import type { PointRead } from '../../passage/gauge-pairs';
import { findLine, type LineFound } from '../../passage/line';
import { instrumentsOf, measuredItem } from '../../procedure/measured-item';
import { predict } from '../../procedure/predict';
import { sentence, type Sentence } from '../../quantities/sentence';
import type { RemoteVacuumProfile } from './profile';

type Context = RunContext<RemoteVacuumProfile>;

export const RATIO_STEP = 'ratio';

/** Rows of readings below runout, by profile. */
export const ratioRows = ({ ratioInputs_Pa }: RemoteVacuumProfile): string[] =>
  ratioInputs_Pa.map((_, i) => `${RATIO_STEP}.${i + 1}`);

/** The bypass test: with no vacuum the unit passes pressure straight through. */
export const passageOf = ({ bypassInputs_Pa, limits }: RemoteVacuumProfile): Passage => ({
  step: 'bypass',
  rows: bypassInputs_Pa.map((_, i) => `bypass.${i + 1}`),
  inputs_Pa: bypassInputs_Pa,
  measures: 'outputPassed',
  offset: limits.bypass_Pa,
  part: limits.bypass_fraction,
});

/**
 * The line of the boost ratio. A point above the runout predicted at the supply read, or above the input at which this unit's
 * own activation gauge reached zero, is never used: there the output no longer follows B. Handbook 5.
 */
export function ratioLine(model: Family, context: Context, run: RunState): LineFound {
  const knee = ownKnee_Pa(context, run);
  const rows = ratioRows(context.profile);
  return findLine(passageOf(context.profile), rows, context, run, (point) =>
    whyAboveKnee(model, context, run, point, knee),
  );
}

/** Input at which the activation gauge reached zero; null where it was not read or never did. */
function ownKnee_Pa(context: Context, run: RunState): number | null {
  const instruments = instrumentsOf(context.rig, context.shelf);
  const activation = measuredItem(instruments, run, 'runout.activation');
  const input = measuredItem(instruments, run, 'runout.input');
  if (!activation || !input) return null;
  return activation.value_SI <= context.profile.limits.fullActivation_Pa.value ? input.value_SI : null;
}

function whyAboveKnee(
  model: Family,
  context: Context,
  run: RunState,
  point: PointRead,
  ownKnee: number | null,
): Sentence | null {
  const input = { value: point.input.value_SI, quantity: 'pressure' } as const;
  const item = findItem(context.procedure, `${point.row}.output`)!.item as ReadingItem;
  const runout = predict(model, context, run, { ...item, measures: 'runoutInput' });
  if (runout && input.value > runout.expected) {
    return sentence(
      'The point at {input} in is above the runout of {runout} that the supply of {supply} gives: not used for B, since output no longer follows B there.',
      {
        input,
        runout: { value: runout.expected, quantity: 'pressure' },
        supply: { value: runout.inputs.supply_Pa!, quantity: 'depression' },
      },
    );
  }
  if (ownKnee !== null && input.value > ownKnee) {
    return sentence(
      'The point at {input} in is above {knee}, where this unit’s activation gauge reached zero: not used for B, since the assist was used up.',
      { input, knee: { value: ownKnee, quantity: 'pressure' } },
    );
  }
  return null;
}
