import { instrumentsOf, measuredItem } from '../../procedure/measured-item';
import type { RunState } from '../../contract/run-state';
import { sentence } from '../../quantities/sentence';
import { slaveDiaphragmArea_m2 } from '../../air/diaphragm';
import type { ResultRule } from '../../contract/result-rules';
import type { Family } from '../../contract/family';
import type { RunContext } from '../../contract/run-context';
import type { Result } from '../../contract/result';
import { passageResults } from '../../passage/passage-results';
import { LineResults } from '../../passage/line-results';
import { gaugeDoubt_Pa } from '../../passage/third-gauge';
import type { Read } from '../loss-rate';
import { circle_m2 } from '../profile-fields';
import { byItem, byLoss, resultsBy } from '../results-by';
import type { RemoteVacuumProfile } from './profile';
import { logged } from './member';
import { passageOf, ratioLine, ratioRows, RATIO_STEP } from './ratio';

type Context = RunContext<RemoteVacuumProfile>;

/** Every result of a remote vacuum unit's bench test, in the order of the steps. */
export function resultsWith(model: Family, context: Context, run: RunState): Result[] {
  const { limits, hold_s } = context.profile;
  const read = (id: string) => measuredItem(instrumentsOf(context.rig, context.shelf), run, id);
  const own = (make: () => readonly (Result | null)[]): ResultRule => ({ of: 'own', make });
  const passage = passageOf(context.profile);
  const line = ratioLine(model, context, run);
  const found = new LineResults(model, passage, context, run);
  const output = (row: string, id: string, name: string) => own(() => [found.outputAt(row, id, name)]);
  const { boostRatio, ratioLimitFor } = context.profile;
  const rules: ResultRule[] = [
    { of: 'looked' },
    byItem('lamp-switch', 'switch.input', 'Stop-lamp switch closes'),
    own(() => passageResults(passage, 'Bypass', context, run)),
    byItem('supply-need', 'rest.supply', 'Supply, against what the unit needs', 'supply'),
    { of: 'health', step: 'supply-on', item: 'rest.supply' },
    byItem('rest-alike', 'rest.activation', 'Activation equals supply at rest'),
    byItem('self-apply', 'rest.output', 'Output as vacuum arrives'),
    byItem('crack', 'crack.input', 'Crack'),
    own(() => [
      ...found.rows(line, ratioRows(context.profile)),
      ...found.slopes(line, {
        step: RATIO_STEP,
        expected: boostRatio,
        part: limits.boostRatio_fraction,
        limitFor: ratioLimitFor,
        names: {
          slope: ['boost-ratio', 'Boost ratio B, as a slope'],
          atInput: ['boost-ratio-at-input', 'Boost ratio, out ÷ in at an input'],
        },
      }),
    ]),
    byItem('supply-drop', 'full.supply', 'Supply with the unit applied', 'supply'),
    output('full', 'full-output', 'Output at the test input'),
    byItem('runout-input', 'runout.input', 'Runout input'),
    output('runout', 'runout-output', 'Runout output'),
    byItem('full-activation', 'runout.activation', 'Activation at full activation'),
    diaphragmArea(context, run, read),
    byLoss('hold', 'Output loss on hold', {
      step: 'hold',
      quantity: 'pressureRate',
      limit: limits.holdLoss_PaPerS,
      planned_s: hold_s,
    }),
    own(() => [found.hysteresis(line, 'release', 'down', limits.hysteresis_fraction)]),
    byItem('residual', 'residual.output', 'Residual output after release'),
    byItem('activation-return', 'released.activation', 'Activation back to supply'),
    ...(['released', 'applied'] as const).map((when) =>
      byLoss(`vacuum-loss-${when}`, `Vacuum loss, ${when}`, {
        step: `loss-${when}`,
        quantity: 'depressionRate',
        limit: when === 'released' ? limits.vacuumLossReleased_PaPerS : limits.vacuumLossApplied_PaPerS,
        planned_s: hold_s,
      }),
    ),
  ];
  return resultsBy(model, rules, context, run);
}

/** Area of the diaphragm at full activation, where all of the supply works on it. Handbook 6, 8.1. */
function diaphragmArea(context: Context, run: RunState, read: Read): ResultRule {
  const { profile } = context;
  const { limits } = profile;
  const [input, output] = ['runout.input', 'runout.output'] as const;
  const activation = read('runout.activation');
  return {
    of: 'parameter',
    id: 'effective-area',
    name: 'Effective diaphragm area',
    step: 'full',
    quantity: 'area',
    from: { output, input, supply: 'full.supply' },
    value: ({ output: output_Pa = 0, input: input_Pa = 0, supply = 0 }) =>
      slaveDiaphragmArea_m2(logged(profile).slave, input_Pa, supply, output_Pa),
    nominal: { value: circle_m2(profile.effectiveDiameter_m), part: limits.effectiveArea_fraction },
    unless: () =>
      activation && activation.value_SI > limits.fullActivation_Pa.value
        ? sentence(
            'The activation port did not reach zero, so the diaphragm did not work with all of the supply: no area can be told.',
          )
        : null,
    doubt: {
      about: 'output',
      off: () =>
        gaugeDoubt_Pa(passageOf(profile), context, run, { input: read(input)!, output: read(output)! }),
    },
  };
}
