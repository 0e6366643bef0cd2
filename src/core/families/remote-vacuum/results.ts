import { judged } from '../../procedure/judged';
import { captureIds, instrumentsOf, measuredItem } from '../../procedure/measured-item';
import type { RunState } from '../../contract/run-state';
import { sentence } from '../../quantities/sentence';
import { areaAt_m2 } from '../../signals/effective-area';
import type { ResultRule } from '../../contract/result-rules';
import type { Family } from '../../contract/family';
import type { RunContext } from '../../contract/run-context';
import { notTaken, type Result, type ResultHead } from '../../contract/result';
import { passageResults } from '../../passage/passage-results';
import { LineResults } from '../../passage/line-results';
import { gaugeDoubt_Pa } from '../../passage/third-gauge';
import type { Read } from '../loss-rate';
import { circle_m2 } from '../profile-fields';
import { byItem, byLoss, resultsBy } from '../results-by';
import type { RemoteVacuumProfile } from './profile';
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
    own(() => [effectiveArea(context, run, read)]),
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

function effectiveArea(context: Context, run: RunState, read: Read): Result {
  const { profile } = context;
  const { value: part, source } = profile.limits.effectiveArea_fraction;
  const head: ResultHead = {
    id: 'effective-area',
    name: 'Effective diaphragm area',
    step: 'full',
    item: null,
    about: 'unit',
    quantity: 'area',
  };
  const [input, output, activation, supply] = [
    'runout.input',
    'runout.output',
    'runout.activation',
    'full.supply',
  ].map(read);
  if (!input || !output || !supply) return notTaken(head, source);
  if (activation && activation.value_SI > profile.limits.fullActivation_Pa.value) {
    return {
      ...notTaken(head, source),
      notes: [
        sentence(
          'The activation port did not reach zero, so the diaphragm did not work with all of the supply: no area can be told.',
        ),
      ],
    };
  }
  const slave_m2 = circle_m2(profile.slaveBore_m);
  const rod_m2 = circle_m2(profile.rodDiameter_m);
  const annulus_m2 = slave_m2 - rod_m2;
  const nominal_m2 = circle_m2(profile.effectiveDiameter_m);
  const value = areaAt_m2(output.value_SI, input.value_SI, supply.value_SI, {
    slaveArea_m2: slave_m2,
    rodArea_m2: rod_m2,
    spring_N: profile.spring_N,
  });
  return judged(
    head,
    {
      value,
      expected: nominal_m2,
      limits: { low: nominal_m2 * (1 - part), high: nominal_m2 * (1 + part) },
      limitSource: source,
      terms: [
        { sensitivity: slave_m2 / supply.value_SI, measured: output },
        { sensitivity: -annulus_m2 / supply.value_SI, measured: input },
        { sensitivity: -value / supply.value_SI, measured: supply },
      ],
      doubt: {
        instrument: output.instrument.tag,
        u:
          (gaugeDoubt_Pa(passageOf(profile), context, run, { input, output }) / Math.sqrt(3)) *
          (slave_m2 / supply.value_SI),
      },
      captures: captureIds(input, output, supply),
    },
    context,
  );
}
