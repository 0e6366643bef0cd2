import { combinedUncertainty, type Term } from '../../metrology/uncertainty';
import { judged, judgedReading } from '../../procedure/judged';
import { captureIds, instrumentsOf, measuredItem } from '../../procedure/measured-item';
import type { RunState } from '../../contract/run-state';
import { sentence } from '../../quantities/sentence';
import { areaAt_m2 } from '../../signals/effective-area';
import type { ResultRule } from '../../contract/result-rules';
import type { Family } from '../../contract/family';
import type { RunContext } from '../../contract/run-context';
import { notTaken, type Result, type ResultHead } from '../../contract/result';
import { gaugePairs, pointsRead } from './bypass';
import { bypassResults } from './bypass-results';
import { gaugeDoubt_Pa } from './settled';
import type { Read } from '../loss-rate';
import { circle_m2 } from '../profile-fields';
import { byItem, byLoss, resultsBy } from '../results-by';
import type { RemoteVacuumProfile } from './profile';
import { findRatio, type RatioFound } from './ratio';

type Context = RunContext<RemoteVacuumProfile>;

/** Every result of a remote vacuum unit's bench test, in the order of the steps. */
export function resultsWith(model: Family, context: Context, run: RunState): Result[] {
  const { limits, hold_s } = context.profile;
  const read = (id: string) => measuredItem(instrumentsOf(context.rig, context.shelf), run, id);
  const own = (make: () => readonly (Result | null)[]): ResultRule => ({ of: 'own', make });
  const output = (row: string, id: string, name: string) =>
    own(() => [outputAt(model, context, run, row, id, name)]);
  const ratio = findRatio(model, context, run);
  const rules: ResultRule[] = [
    { of: 'looked' },
    byItem('lamp-switch', 'switch.input', 'Stop-lamp switch closes'),
    own(() => bypassResults(context, run)),
    byItem('supply-need', 'rest.supply', 'Supply, against what the unit needs', 'supply'),
    { of: 'health', step: 'supply-on', item: 'rest.supply' },
    byItem('rest-alike', 'rest.activation', 'Activation equals supply at rest'),
    byItem('self-apply', 'rest.output', 'Output as vacuum arrives'),
    byItem('crack', 'crack.input', 'Crack'),
    own(() => [...ratioRows(model, context, run, ratio), ...ratioResults(context, ratio)]),
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
    own(() => [hysteresis(context, run, ratio)]),
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

/** Output of each ratio row against the twin, on the scale that the cross-check found. */
function ratioRows(model: Family, context: Context, run: RunState, ratio: RatioFound): (Result | null)[] {
  return context.profile.ratioInputs_Pa.map((_, i) => {
    const row = `ratio.${i + 1}`;
    const used = ratio.used.some((point) => point.row === row);
    return outputAt(
      model,
      context,
      run,
      row,
      `${row}-output`,
      `Output at input ${i + 1}`,
      used ? ratio.correction : null,
    );
  });
}

/**
 * One output against the twin. Below the knee a cross-check puts both readings on one scale, so the gauges' own
 * errors leave the residual; above it the output is judged as read, and where the two gauges disagree by more than
 * their classes that disagreement is doubt in the reading.
 */
function outputAt(
  model: Family,
  context: Context,
  run: RunState,
  row: string,
  id: string,
  name: string,
  correction: number | null = null,
): Result | null {
  const plain = judgedReading(model.expect, { id, name, about: 'unit' }, context, run, `${row}.output`);
  const [point] = pointsRead(context, run, [row]);
  if (!plain || !point || plain.verdict === 'not-taken' || plain.expected === null) return plain;
  const pair = gaugePairs(context, run).find(
    (p) => p.input === point.input.instrument.tag && p.output === point.output.instrument.tag,
  );
  if (pair?.check.kind !== 'through') return plain;
  const { check } = pair;
  const found = context.procedure.steps.flatMap((s) => s.items).find((item) => item.id === `${row}.output`);
  const expectation = found?.kind === 'reading' ? model.expect(context, run, found) : null;
  if (!expectation) return plain;
  const base = {
    expected: plain.expected,
    limits: plain.limits,
    limitSource: plain.limitSource,
    captures: plain.captures,
  };
  if (correction !== null) {
    const value = point.output.value_SI / correction;
    const terms: Term[] = [
      { sensitivity: 1 / correction, sharedSensitivity: 0, measured: point.output },
      ...expectation.terms.map((term) =>
        term.measured.instrument.tag === point.input.instrument.tag
          ? { ...term, sharedSensitivity: 0 }
          : term,
      ),
    ];
    const note = sentence('Read {read}; on the scale of the input gauge that is {value}.', {
      read: { value: point.output.value_SI, quantity: 'pressure' },
      value: { value, quantity: 'pressure' },
    });
    const notes = check.scaleDiffers ? [...plain.notes, note] : plain.notes;
    return judged(
      plain,
      { ...base, value, terms, otherU: (value * check.u_slope) / check.slope, notes },
      context,
    );
  }
  const doubt_Pa = gaugeDoubt_Pa(context, run, point);
  if (doubt_Pa === 0) return plain;
  const note = sentence(
    'The two gauges disagree by {doubt} here and one of them is out of class: that doubt is in U.',
    {
      doubt: { value: doubt_Pa, quantity: 'pressure' },
    },
  );
  const terms: Term[] = [{ sensitivity: 1, measured: point.output }, ...expectation.terms];
  return judged(
    plain,
    {
      ...base,
      value: point.output.value_SI,
      terms,
      doubt: { instrument: point.output.instrument.tag, u: doubt_Pa / Math.sqrt(3) },
      notes: [...plain.notes, note],
    },
    context,
  );
}

/** B as a slope and as out/in at an input: both by name, and the profile says which one its limit is for. */
function ratioResults(context: Context, ratio: RatioFound): Result[] {
  const { boostRatio, limits, ratioLimitFor, ratioInputs_Pa } = context.profile;
  const { value: part, source } = limits.boostRatio_fraction;
  const range = { low: boostRatio * (1 - part), high: boostRatio * (1 + part) };
  const head = (id: string, name: string, own: boolean): ResultHead => ({
    id,
    name,
    step: 'ratio',
    item: own ? `ratio.${ratioInputs_Pa.length}.output` : null,
    about: 'unit',
    quantity: 'ratio',
  });
  const captures = ratio.used.flatMap((point) => captureIds(point.input, point.output));
  const finding = (limited: boolean) => ({
    limits: limited ? range : null,
    limitSource: limited ? source : '',
    expected: limited ? boostRatio : null,
    captures,
  });
  const slopeHead = head('boost-ratio', 'Boost ratio B, as a slope', false);
  const inputHead = head('boost-ratio-at-input', 'Boost ratio, out ÷ in at an input', false);
  const { slope, atInput } = ratio;
  return [
    slope
      ? judged(
          slopeHead,
          {
            ...finding(ratioLimitFor === 'slope'),
            value: slope.value,
            terms: slope.terms,
            otherU: slope.otherU,
            notes: ratio.notes,
          },
          context,
        )
      : { ...notTaken(slopeHead, source), notes: ratio.notes },
    atInput
      ? judged(
          inputHead,
          {
            ...finding(ratioLimitFor === 'at-input'),
            value: atInput.value,
            terms: atInput.terms,
            otherU: atInput.otherU,
            notes: [sentence('At {input} in.', { input: { value: atInput.input_Pa, quantity: 'pressure' } })],
          },
          context,
        )
      : notTaken(inputHead, source),
  ];
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
        u: (gaugeDoubt_Pa(context, run, { input, output }) / Math.sqrt(3)) * (slave_m2 / supply.value_SI),
      },
      captures: captureIds(input, output, supply),
    },
    context,
  );
}

/** Gap between the release reading and the apply line at the same input, as a part of the output. */
function hysteresis(context: Context, run: RunState, ratio: RatioFound): Result {
  const { value: part, source } = context.profile.limits.hysteresis_fraction;
  const head: ResultHead = {
    id: 'hysteresis',
    name: 'Hysteresis, part of output',
    step: 'release',
    item: 'down.output',
    about: 'unit',
    quantity: 'percent',
  };
  const [down] = pointsRead(context, run, ['down']);
  if (!down || !ratio.slope) return notTaken(head, source);
  const scale = ratio.correction ?? 1;
  const up_Pa = scale * (ratio.slope.intercept_Pa + ratio.slope.value * down.input.value_SI);
  const value = down.output.value_SI / up_Pa - 1;
  // The apply line and the release reading come from the same two gauges: only what differs from reading to reading counts.
  const relative = (term: Term): Term => ({ ...term, sharedSensitivity: 0 });
  const lineU = (combinedUncertainty(ratio.slope.terms.map(relative)) * down.input.value_SI * scale) / up_Pa;
  return judged(
    head,
    {
      value,
      limits: { high: part },
      limitSource: source,
      terms: [
        relative({ sensitivity: 1 / up_Pa, measured: down.output }),
        relative({ sensitivity: (-ratio.slope.value * scale) / up_Pa, measured: down.input }),
      ],
      otherU: lineU,
      captures: captureIds(down.input, down.output),
    },
    context,
  );
}
