import { seaLevelEquivalent_Pa } from '../../air/supply';
import { combinedUncertainty, type Term } from '../../metrology/uncertainty';
import { judged, judgedReading, observedResults } from '../../procedure/judged';
import { instrumentsOf, measuredItem, type ItemReading } from '../../procedure/measured-item';
import type { RunState } from '../../procedure/run';
import { sentence, type Sentence } from '../../quantities/sentence';
import type { Family, RunContext } from '../../twin/family';
import { notTaken, type Result, type ResultHead } from '../../twin/result';
import { gaugePairs, pointsRead } from './bypass';
import { circle_m2, type RemoteVacuumProfile } from './profile';
import { findRatio, type RatioFound } from './ratio';

type Context = RunContext<RemoteVacuumProfile>;

/** How well the moment of a reading at the end of a hold is known, s: the time it takes to look and key it in. */
const TIMING_U_S = 1;

/** Every result of a remote vacuum unit's bench test, in the order of the steps. */
export function resultsWith(model: Family, context: Context, run: RunState): Result[] {
  const read = (id: string) => measuredItem(instrumentsOf(context.rig, context.shelf), run, id);
  const simple = (item: string, id: string, name: string, about: Result['about'] = 'unit') =>
    judgedReading(model.expect, { id, name, about }, context, run, item);
  const ratio = findRatio(model, context, run);
  const all: (Result | null)[] = [
    ...observedResults(context, run),
    simple('switch.input', 'lamp-switch', 'Stop-lamp switch closes'),
    ...bypassResults(context, run),
    simple('rest.supply', 'supply-need', 'Supply, against what the unit needs', 'supply'),
    supplyHealth(context, read('rest.supply')),
    simple('rest.activation', 'rest-alike', 'Activation equals supply at rest'),
    simple('rest.output', 'self-apply', 'Output as vacuum arrives'),
    simple('crack.input', 'crack', 'Crack'),
    ...ratioRows(model, context, run, ratio),
    ...ratioResults(context, ratio),
    simple('full.supply', 'supply-drop', 'Supply with the unit applied', 'supply'),
    outputAt(model, context, run, 'full', 'full-output', 'Output at the test input'),
    simple('runout.input', 'runout-input', 'Runout input'),
    outputAt(model, context, run, 'runout', 'runout-output', 'Runout output'),
    simple('runout.activation', 'full-activation', 'Activation at full activation'),
    effectiveArea(context, run, read),
    holdLoss(context, run, read),
    hysteresis(context, run, ratio),
    simple('residual.output', 'residual', 'Residual output after release'),
    simple('released.activation', 'activation-return', 'Activation back to supply'),
    vacuumLoss(context, read, 'released'),
    vacuumLoss(context, read, 'applied'),
  ];
  const order = context.procedure.steps.map(({ id }) => id);
  return all
    .filter((result): result is Result => result !== null)
    .sort((a, b) => order.indexOf(a.step) - order.indexOf(b.step));
}

type Read = (id: string) => ItemReading | null;

const ids = (...readings: (ItemReading | null)[]) =>
  readings.flatMap((r) => r?.captures.map(({ id }) => id) ?? []);

/** What the bypass test says of the gauges, and what it says of the unit. */
function bypassResults(context: Context, run: RunState): Result[] {
  const gaugesHead: ResultHead = {
    id: 'cross-check',
    name: 'Output gauge against input gauge',
    step: 'bypass',
    item: null,
    about: 'gauges',
    quantity: 'ratio',
  };
  const { bypass_Pa, bypass_fraction } = context.profile.limits;
  const lastRow = `bypass.${context.profile.bypassInputs_Pa.length}.output`;
  const unitHead: ResultHead = {
    id: 'bypass',
    name: 'Bypass',
    step: 'bypass',
    item: lastRow,
    about: 'unit',
    quantity: 'pressure',
  };
  const pairs = gaugePairs(context, run);
  if (pairs.length === 0) return [notTaken(gaugesHead), notTaken(unitHead, bypass_Pa.source)];
  return pairs.flatMap(({ input, output, points, check }, i) => {
    const suffix = i === 0 ? '' : `-${i + 1}`;
    const captures = points.flatMap((p) => ids(p.input, p.output));
    const gauges = { ...gaugesHead, id: gaugesHead.id + suffix, name: `${output} against ${input}` };
    const unit = { ...unitHead, id: unitHead.id + suffix, item: i === pairs.length - 1 ? lastRow : null };
    if (check.kind === 'undetermined') {
      const why =
        check.why === 'no-zero'
          ? 'The vented zero of a gauge was not read, so a gauge zero cannot be told from a threshold.'
          : 'Fewer than three bypass inputs with these two gauges: a slope cannot be told from an offset.';
      return [
        { ...notTaken(gauges), notes: [sentence(why)], captures },
        { ...notTaken(unit, bypass_Pa.source), notes: [sentence(why)], captures },
      ];
    }
    if (check.kind === 'passage-fault') {
      const worst = points.reduce((most, p) =>
        p.input.value_Pa - p.output.value_Pa > most.input.value_Pa - most.output.value_Pa ? p : most,
      );
      const note = sentence(
        'Blocked passage: at {at} in only {out} came through. No two gauges disagree like that, so nothing is corrected by this test.',
        {
          at: { value: worst.input.value_Pa, quantity: 'pressure' },
          out: { value: worst.output.value_Pa, quantity: 'pressure' },
        },
      );
      const allowed_Pa = Math.max(bypass_Pa.value, bypass_fraction.value * worst.input.value_Pa);
      const finding = {
        value: worst.output.value_Pa - worst.input.value_Pa,
        limits: { low: -allowed_Pa, high: allowed_Pa },
        limitSource: bypass_fraction.source,
        terms: [
          { sensitivity: 1, measured: worst.output },
          { sensitivity: -1, measured: worst.input },
        ],
        notes: [note],
        captures,
      };
      return [{ ...notTaken(gauges), captures }, judged(unit, finding, context)];
    }
    return [
      {
        ...notTaken(gauges),
        value: check.slope,
        u: check.u_slope,
        verdict: 'noted' as const,
        notes: scaleNotes(check, input, output, points),
        gauges: [input, output],
        captures,
      },
      judged(
        unit,
        {
          value: check.offset_Pa,
          limits: { low: -bypass_Pa.value, high: bypass_Pa.value },
          limitSource: bypass_Pa.source,
          terms: [],
          otherU: check.u_offset_Pa,
          notes: thresholdNotes(check),
          captures,
        },
        context,
      ),
    ];
  });
}

type Through = Extract<ReturnType<typeof gaugePairs>[number]['check'], { kind: 'through' }>;

/** Largest scale difference that the classes of both gauges allow at the highest point read. */
function classAllowance(points: readonly { input: ItemReading; output: ItemReading }[]): number {
  const top = points.reduce((most, p) => (p.input.value_Pa > most.input.value_Pa ? p : most));
  const share = (reading: ItemReading) =>
    (Math.sqrt(3) * combinedUncertainty([{ sensitivity: 1, measured: { ...reading, scatter_Pa: 0 } }])) /
    reading.value_Pa;
  return share(top.input) + share(top.output);
}

function scaleNotes(
  check: Through,
  input: string,
  output: string,
  points: Parameters<typeof classAllowance>[0],
): Sentence[] {
  const notes: Sentence[] = [];
  if (check.scaleDiffers) {
    notes.push(
      sentence(
        `${output} reads {slope} times what ${input} reads. Ratios are divided by it; absolute outputs keep ${output}’s own error.`,
        {
          slope: { value: check.slope, quantity: 'ratio', u: check.u_slope, withU: true },
        },
      ),
    );
    if (Math.abs(check.slope - 1) > classAllowance(points)) {
      notes.push(
        sentence(
          'That is more than the two classes allow together: one of the gauges is out of its class. Have both checked.',
        ),
      );
    }
  } else {
    notes.push(sentence('The two gauges agree in scale within what this test can tell.'));
  }
  if (Math.abs(check.zeroDifference_Pa) > 0) {
    notes.push(
      sentence(`Vented, ${output} stood {zero} from ${input}: a gauge zero, taken off every reading.`, {
        zero: { value: check.zeroDifference_Pa, quantity: 'pressure' },
      }),
    );
  }
  return notes;
}

function thresholdNotes(check: Through): Sentence[] {
  if (!check.threshold) return [];
  return [
    sentence(
      'An offset of {offset} remains after the vented zeros are taken off: a threshold in the unit (residual or check valve, friction), not a gauge zero.',
      { offset: { value: check.offset_Pa, quantity: 'pressure', u: check.u_offset_Pa, withU: true } },
    ),
  ];
}

/** The supply as it would be at sea level, against what a healthy supply of its kind makes there. */
function supplyHealth(context: Context, supply: ItemReading | null): Result {
  const head: ResultHead = {
    id: 'supply-health',
    name: 'Supply health, referred to sea level',
    step: 'supply-on',
    item: null,
    about: 'supply',
    quantity: 'depression',
  };
  const { supplyKind, barometer_Pa, supplyHealth_Pa } = context.conditions;
  const source =
    supplyKind === 'pump'
      ? 'Bench setting; pump reaches a fraction of the barometer'
      : 'Bench setting; engine holds manifold absolute pressure';
  if (!supply) return notTaken(head, source);
  const refer = (x: number) => seaLevelEquivalent_Pa(x, supplyKind, barometer_Pa);
  const slope = refer(1) - refer(0);
  return judged(
    head,
    {
      value: refer(supply.value_Pa),
      limits: { low: supplyHealth_Pa },
      limitSource: source,
      terms: [{ sensitivity: slope, measured: supply }],
      captures: ids(supply),
    },
    context,
  );
}

/**
 * How far an absolute output may be out because the two gauges disagree by more than their classes allow: one of
 * them is wrong, and nothing here says which. 0 while they agree within class.
 */
function gaugeDoubt_Pa(
  context: Context,
  run: RunState,
  { input, output }: { input: ItemReading; output: ItemReading },
): number {
  const pair = gaugePairs(context, run).find(
    (p) => p.input === input.instrument.tag && p.output === output.instrument.tag,
  );
  if (pair?.check.kind !== 'through') return 0;
  const disagreement = Math.abs(pair.check.slope - 1);
  return disagreement > classAllowance(pair.points) ? disagreement * output.value_Pa : 0;
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
    const value = point.output.value_Pa / correction;
    const terms: Term[] = [
      { sensitivity: 1 / correction, sharedSensitivity: 0, measured: point.output },
      ...expectation.terms.map((term) =>
        term.measured.instrument.tag === point.input.instrument.tag
          ? { ...term, sharedSensitivity: 0 }
          : term,
      ),
    ];
    const note = sentence('Read {read}; on the scale of the input gauge that is {value}.', {
      read: { value: point.output.value_Pa, quantity: 'pressure' },
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
      value: point.output.value_Pa,
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
  const captures = ratio.used.flatMap((point) => ids(point.input, point.output));
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

/** A_eff = (p_out·A_slave − p_in·(A_slave − A_rod) + F_s)/Δp at full activation. Handbook 6. */
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
  if (activation && activation.value_Pa > profile.limits.fullActivation_Pa.value) {
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
  const annulus_m2 = slave_m2 - circle_m2(profile.rodDiameter_m);
  const nominal_m2 = circle_m2(profile.effectiveDiameter_m);
  const value =
    (output.value_Pa * slave_m2 - input.value_Pa * annulus_m2 + profile.spring_N) / supply.value_Pa;
  return judged(
    head,
    {
      value,
      expected: nominal_m2,
      limits: { low: nominal_m2 * (1 - part), high: nominal_m2 * (1 + part) },
      limitSource: source,
      terms: [
        { sensitivity: slave_m2 / supply.value_Pa, measured: output },
        { sensitivity: -annulus_m2 / supply.value_Pa, measured: input },
        { sensitivity: -value / supply.value_Pa, measured: supply },
      ],
      doubt: {
        instrument: output.instrument.tag,
        u: (gaugeDoubt_Pa(context, run, { input, output }) / Math.sqrt(3)) * (slave_m2 / supply.value_Pa),
      },
      captures: ids(input, output, supply),
    },
    context,
  );
}

/** Loss per second over a hold, start less end; one gauge's own error leaves the difference. */
function lossRate(
  context: Context,
  start: ItemReading | null,
  end: ItemReading | null,
  head: ResultHead,
  limit: { value: number; source: string },
  planned_s: number,
): Result {
  if (!start || !end) return notTaken(head, limit.source);
  const duration_s = (Date.parse(end.captures.at(-1)!.at) - Date.parse(start.captures.at(-1)!.at)) / 1000;
  if (!(duration_s > 2 * TIMING_U_S)) {
    return {
      ...notTaken(head, limit.source),
      notes: [sentence('The two readings are too close together in time to tell a loss.')],
    };
  }
  const value = (start.value_Pa - end.value_Pa) / duration_s;
  const terms: Term[] = [
    { sensitivity: 1 / duration_s, measured: { ...start, zeroed: false } },
    { sensitivity: -1 / duration_s, measured: { ...end, zeroed: false } },
  ];
  const notes =
    duration_s < 0.9 * planned_s
      ? [
          sentence('Held {held} instead of {planned}: the shorter the hold, the wider the doubt.', {
            held: { value: duration_s, quantity: 'duration' },
            planned: { value: planned_s, quantity: 'duration' },
          }),
        ]
      : [];
  const otherU = (Math.abs(value) * Math.SQRT2 * TIMING_U_S) / duration_s;
  return judged(
    head,
    {
      value,
      limits: { high: limit.value },
      limitSource: limit.source,
      terms,
      otherU,
      notes,
      captures: ids(start, end),
    },
    context,
  );
}

const holdLoss = (context: Context, run: RunState, read: Read) =>
  lossRate(
    context,
    read('hold.start'),
    read('hold.end'),
    {
      id: 'hold',
      name: 'Output loss on hold',
      step: 'hold',
      item: 'hold.end',
      about: 'unit',
      quantity: 'pressureRate',
    },
    context.profile.limits.holdLoss_PaPerS,
    context.profile.hold_s,
  );

const vacuumLoss = (context: Context, read: Read, when: 'released' | 'applied') =>
  lossRate(
    context,
    read(`loss-${when}.start`),
    read(`loss-${when}.end`),
    {
      id: `vacuum-loss-${when}`,
      name: `Vacuum loss, ${when}`,
      step: `loss-${when}`,
      item: `loss-${when}.end`,
      about: 'unit',
      quantity: 'depressionRate',
    },
    when === 'released'
      ? context.profile.limits.vacuumLossReleased_PaPerS
      : context.profile.limits.vacuumLossApplied_PaPerS,
    context.profile.hold_s,
  );

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
  const up_Pa = scale * (ratio.slope.intercept_Pa + ratio.slope.value * down.input.value_Pa);
  const value = down.output.value_Pa / up_Pa - 1;
  // The apply line and the release reading come from the same two gauges: only what differs from reading to reading counts.
  const relative = (term: Term): Term => ({ ...term, sharedSensitivity: 0 });
  const lineU = (combinedUncertainty(ratio.slope.terms.map(relative)) * down.input.value_Pa * scale) / up_Pa;
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
      captures: ids(down.input, down.output),
    },
    context,
  );
}
