import { z } from 'zod';
import { SEA_LEVEL_PA, standardPressure_Pa } from '../air/atmosphere';
import { reserveSeries_Pa } from '../air/reserve';
import { seaLevelEquivalent_Pa, SUPPLY_KINDS, supplyHere_Pa } from '../air/supply';
import { FAMILIES } from '../families/registry';
import { bypassAllowed_Pa, typical } from '../families/remote-vacuum/index';
import { FEWEST_POINTS, crossCheck } from '../metrology/cross-check';
import { conformance } from '../metrology/verdict';
import { printQuantity } from '../quantities/print';
import {
  fromSI,
  QUANTITIES,
  toSI,
  unitFor,
  UNITS,
  type Quantity,
  type Unit,
  type UnitId,
  type UnitSet,
} from '../quantities/units';
import { Plot } from '../records/plot';
import { AT_ONCE, inputVector, placeOf } from '../model/vectors';
import { defineWorking, field, series, type Working } from './working';

const BAR = 1e5;
const INHG = 3386.389;
const steps = (low: number, high: number, count = 80) =>
  Array.from({ length: count + 1 }, (_, i) => low + ((high - low) * i) / count);
const axis = (name: string, quantity: Quantity, set: UnitSet, low: number, high: number) => {
  const unit = unitFor(quantity, set);
  return {
    title: unit.symbol ? `${name}, ${unit.symbol}` : name,
    low: fromSI(low, unit),
    high: fromSI(high, unit),
    at: (x: number) => fromSI(x, unit),
  };
};

const remote = FAMILIES['remote-vacuum'];
const remoteBody = remote.typical as Record<string, unknown>;
const remoteFields = z.strictObject({
  effectiveDiameter_m: field('Effective diaphragm diameter', 'length', 0.05, 0.6),
  slaveBore_m: field('Slave bore', 'length', 0.008, 0.06),
  rodDiameter_m: field('Push rod diameter', 'length', 0.001, 0.03),
  spring_N: field('Spring force', 'force', 0, 2000),
  boostRatio: field('Boost ratio B', 'ratio', 1.05, 10),
  crack_Pa: field('Crack', 'pressure', 0, 20 * BAR),
  input_Pa: field('Input', 'pressure', 0, 200 * BAR),
  supply_Pa: field('Supply', 'depression', 0, 101_325),
});
type RemoteFields = z.infer<typeof remoteFields>;

/** Readings of a healthy unit of these dimensions, by the family's own twin. */
function remoteReadings({ input_Pa, supply_Pa, ...size }: RemoteFields) {
  const { values } = remote.healthy({ ...remoteBody, ...size, jumpIn_Pa: null });
  const known = { input_Pa, supply_Pa, barometer_Pa: SEA_LEVEL_PA, temperature_K: 293.15, ...AT_ONCE };
  const readings = remote.steady(values, inputVector(remote.inputs, known));
  return (id: string) => readings[placeOf(remote.readings, id)]!;
}

const runout = defineWorking<RemoteFields>({
  name: 'runout-against-supply',
  title: 'Runout against supply',
  about:
    'Where a remote vacuum unit runs out of assist on the supply it is given, and what it puts out at an input.',
  source: 'Balance of forces on diaphragm and slave piston',
  input: remoteFields,
  example: {
    effectiveDiameter_m: 0.23,
    slaveBore_m: 0.0206,
    rodDiameter_m: 0.006,
    spring_N: 110,
    boostRatio: 3.6,
    crack_Pa: 3 * BAR,
    input_Pa: 28 * BAR,
    supply_Pa: 15 * INHG,
  },
  compute: (input) => {
    const read = remoteReadings(input);
    return [
      { id: 'output_Pa', name: 'Output at the input', value: read('output'), quantity: 'pressure' },
      { id: 'runoutInput_Pa', name: 'Runout input', value: read('runoutInput'), quantity: 'pressure' },
      { id: 'runoutOutput_Pa', name: 'Runout output', value: read('runoutOutput'), quantity: 'pressure' },
    ];
  },
  picture: (input, set) => {
    const most = Math.max(
      1.6 * remoteReadings({ ...input, supply_Pa: 24 * INHG })('runoutInput'),
      1.1 * input.input_Pa,
    );
    const curve = steps(0, most).map(
      (x) => [x, remoteReadings({ ...input, input_Pa: x })('output')] as const,
    );
    const x = axis('Input', 'pressure', set, 0, most);
    const y = axis('Output', 'pressure', set, 0, 1.1 * Math.max(...curve.map(([, out]) => out), BAR));
    const plot = new Plot(x, y);
    plot.line(curve.map(([a, b]) => [x.at(a), y.at(b)]));
    const read = remoteReadings(input);
    plot.mark(x.at(read('runoutInput')), 'runout');
    plot.point(x.at(input.input_Pa), y.at(read('output')));
    return plot.svg('Output against input on this supply');
  },
});

const crossFields = z
  .strictObject({
    inputs_Pa: series('Input gauge, one reading a point', FEWEST_POINTS, 300 * BAR),
    outputs_Pa: series('Output gauge, in the same order', FEWEST_POINTS, 300 * BAR),
    inputZero_Pa: field('Input gauge, vented', 'pressure', -5 * BAR, 5 * BAR),
    outputZero_Pa: field('Output gauge, vented', 'pressure', -5 * BAR, 5 * BAR),
    step_Pa: field('Smallest readable step of both', 'pressure', 1, 10 * BAR),
  })
  .refine(({ inputs_Pa, outputs_Pa }) => inputs_Pa.length === outputs_Pa.length, {
    path: ['outputs_Pa'],
    message: 'Output gauge: as many readings are needed as of the input gauge.',
  });
type CrossFields = z.infer<typeof crossFields>;

function checked({ inputs_Pa, outputs_Pa, inputZero_Pa, outputZero_Pa, step_Pa }: CrossFields) {
  const u = step_Pa / Math.sqrt(12);
  const points = inputs_Pa.map((input, i) => ({
    input_Pa: input - inputZero_Pa,
    output_Pa: outputs_Pa[i]! - outputZero_Pa,
    u_input_Pa: u,
    u_output_Pa: u,
  }));
  const zeros = { input_Pa: inputZero_Pa, output_Pa: outputZero_Pa, u_input_Pa: u, u_output_Pa: u };
  return { points, check: crossCheck(points, zeros, (input_Pa) => bypassAllowed_Pa(typical, input_Pa)) };
}

const cross = defineWorking<CrossFields>({
  name: 'cross-check',
  title: 'Cross-check of two gauges',
  about:
    'Whether two gauges disagree in scale, or the unit between them holds pressure back: readings with the assist off.',
  source: 'York’s fit, errors on both axes',
  input: crossFields,
  example: {
    inputs_Pa: [20, 45, 70, 95].map((x) => x * BAR),
    outputs_Pa: [21.6, 48.6, 75.6, 102.6].map((x) => x * BAR),
    inputZero_Pa: 0,
    outputZero_Pa: 0,
    step_Pa: 0.2 * BAR,
  },
  compute: (input) => {
    const { check } = checked(input);
    if (check.kind === 'undetermined')
      return [{ id: 'kind', name: 'Finding', text: 'Too few points to tell a slope from an offset.' }];
    if (check.kind === 'passage-fault')
      return [
        {
          id: 'kind',
          name: 'Finding',
          text: 'A passage fault: no two gauges disagree like that. Nothing is corrected.',
        },
        { id: 'worst_Pa', name: 'Held back at most', value: check.worst_Pa, quantity: 'pressure' },
      ];
    const words = check.threshold
      ? 'An offset remains that is no gauge’s zero: a threshold in the unit.'
      : check.scaleDiffers
        ? 'The two gauges differ in scale. Ratios are divided by the slope.'
        : 'The two gauges agree within what these readings tell.';
    return [
      { id: 'kind', name: 'Finding', text: words },
      {
        id: 'slope',
        name: 'Output gauge over input gauge',
        value: check.slope,
        quantity: 'ratio',
        u: check.u_slope,
      },
      {
        id: 'offset_Pa',
        name: 'Offset that remains',
        value: check.offset_Pa,
        quantity: 'pressure',
        u: check.u_offset_Pa,
      },
    ];
  },
  picture: (input, set) => {
    const { points, check } = checked(input);
    const most = 1.1 * Math.max(...points.flatMap((p) => [p.input_Pa, p.output_Pa]), BAR);
    const x = axis('Input', 'pressure', set, 0, most);
    const y = axis('Output', 'pressure', set, 0, most);
    const plot = new Plot(x, y);
    plot.line(
      [0, most].map((p) => [x.at(p), y.at(p)] as const),
      { dashed: true },
    );
    if (check.kind === 'through')
      plot.line(
        [0, most / Math.max(1, check.slope)].map(
          (p) => [x.at(p), y.at(check.offset_Pa + check.slope * p)] as const,
        ),
      );
    for (const point of points) plot.point(x.at(point.input_Pa), y.at(point.output_Pa));
    return plot.svg('Output gauge against input gauge, with the line that fits and the line of agreement');
  },
});

const verdictFields = z
  .strictObject({
    value: field('Value', 'ratio', -1e6, 1e6),
    U: field('Expanded uncertainty U (k = 2)', 'ratio', 1e-9, 1e6),
    low: field('Lower limit (empty: none)', 'ratio', -1e6, 1e6).nullable(),
    high: field('Upper limit (empty: none)', 'ratio', -1e6, 1e6).nullable(),
  })
  .refine(({ low, high }) => low === null || high === null || low <= high, {
    path: ['high'],
    message: 'Upper limit: it must not be below the lower one.',
  });
type VerdictFields = z.infer<typeof verdictFields>;

function probability({ value, U, low, high }: VerdictFields): number {
  if (low === null && high === null) throw new RangeError('low: give at least one limit');
  return conformance(value, U / 2, { ...(low === null ? {} : { low }), ...(high === null ? {} : { high }) });
}

const verdict = defineWorking<VerdictFields>({
  name: 'verdict-probability',
  title: 'Verdict probability',
  about: 'How probable it is that the true value keeps to its limits, given what was read and how well.',
  source: 'JCGM 106, normal distribution',
  input: verdictFields,
  example: { value: 3.4, U: 0.2, low: 3.24, high: 3.96 },
  compute: (input) => [
    {
      id: 'pConform',
      name: 'Probability of keeping to the limits',
      value: probability(input),
      quantity: 'percent',
    },
  ],
  picture: (input) => {
    probability(input);
    const limits = [input.low, input.high].filter((limit) => limit !== null);
    const low = Math.min(input.value, ...limits) - 1.6 * input.U;
    const high = Math.max(input.value, ...limits) + 1.6 * input.U;
    const plot = new Plot(
      { title: 'Value', low, high },
      { title: 'Probability of keeping to the limits', low: 0, high: 1 },
    );
    plot.line(steps(low, high, 160).map((value) => [value, probability({ ...input, value })] as const));
    for (const limit of limits) plot.mark(limit, 'limit');
    plot.point(input.value, probability(input));
    return plot.svg('Probability of keeping to the limits against the value read');
  },
});

const altitudeFields = z.strictObject({
  altitude_m: field('Altitude', 'altitude', -500, 11_000),
  supply_Pa: field('Supply at sea level', 'depression', 0, SEA_LEVEL_PA),
  kind: z
    .enum(SUPPLY_KINDS)
    .meta({ title: 'Vacuum comes from', labels: { pump: 'a vacuum pump', manifold: 'an engine manifold' } }),
});
const SEA_LEVEL_WORTH = 'Read there, that is worth at sea level';
type AltitudeFields = z.infer<typeof altitudeFields>;

const altitude = defineWorking<AltitudeFields>({
  name: 'altitude',
  title: 'Altitude',
  about: 'The standard barometer at an altitude, and what a supply of the same health makes there.',
  source: 'Standard atmosphere, ISO 2533',
  input: altitudeFields,
  example: { altitude_m: 1600, supply_Pa: 18 * INHG, kind: 'manifold' },
  compute: ({ altitude_m, supply_Pa, kind }) => {
    const barometer_Pa = standardPressure_Pa(altitude_m);
    const here_Pa = supplyHere_Pa(supply_Pa, kind, barometer_Pa);
    const equivalent = seaLevelEquivalent_Pa(here_Pa, kind, barometer_Pa);
    return [
      { id: 'barometer_Pa', name: 'Standard barometer there', value: barometer_Pa, quantity: 'barometer' },
      { id: 'supply_Pa', name: 'The same supply there', value: here_Pa, quantity: 'depression' },
      equivalent === null
        ? { id: 'seaLevel_Pa', name: SEA_LEVEL_WORTH, text: 'nothing: such a supply makes no vacuum there' }
        : { id: 'seaLevel_Pa', name: SEA_LEVEL_WORTH, value: equivalent, quantity: 'depression' },
    ];
  },
  picture: ({ altitude_m, supply_Pa, kind }, set) => {
    const most = Math.max(4000, 1.2 * altitude_m);
    const low = Math.min(0, altitude_m);
    const x = axis('Altitude', 'altitude', set, low, most);
    const y = axis('Supply', 'depression', set, 0, 1.1 * Math.max(supply_Pa, INHG));
    const at = (h: number) => supplyHere_Pa(supply_Pa, kind, standardPressure_Pa(h));
    const plot = new Plot(x, y);
    plot.line(steps(low, most).map((h) => [x.at(h), y.at(at(h))] as const));
    plot.point(x.at(altitude_m), y.at(at(altitude_m)));
    return plot.svg('What a supply of the same health makes, against altitude');
  },
});

const reserveFields = z
  .strictObject({
    supply_Pa: field('Depression as the source stops', 'depression', INHG, SEA_LEVEL_PA),
    front_m3: field('Front volume at rest', 'volume', 1e-4, 0.1),
    rear_m3: field('Rear volume at rest', 'volume', 0, 0.1),
    area_m2: field('Effective area', 'area', 1e-3, 0.3),
    stroke_m: field('Stroke', 'length', 0.001, 0.2),
    tank_m3: field('Tank', 'volume', 0, 0.1),
    barometer_Pa: field('Barometer', 'barometer', 30_000, 110_000),
  })
  .refine(({ supply_Pa, barometer_Pa }) => supply_Pa <= barometer_Pa, {
    path: ['supply_Pa'],
    message: 'Depression as the source stops: no vacuum is deeper than the barometer.',
  });
type ReserveFields = z.infer<typeof reserveFields>;

const strokes = ({ supply_Pa, barometer_Pa, ...unit }: ReserveFields) =>
  reserveSeries_Pa(supply_Pa, unit, barometer_Pa);

const reserve = defineWorking<ReserveFields>({
  name: 'reserve',
  title: 'Reserve',
  about: 'How much vacuum is left after each full application once the source has stopped.',
  source: 'Boyle and Mariotte, stroke after stroke',
  input: reserveFields,
  example: {
    supply_Pa: 20 * INHG,
    front_m3: 4e-3,
    rear_m3: 0.3e-3,
    area_m2: 0.04,
    stroke_m: 0.015,
    tank_m3: 0,
    barometer_Pa: SEA_LEVEL_PA,
  },
  compute: (input) =>
    strokes(input).map((value, i) => ({
      id: `after${i + 1}_Pa`,
      name: `After application ${i + 1}`,
      value,
      quantity: 'depression' as const,
    })),
  picture: (input, set) => {
    const all = [input.supply_Pa, ...strokes(input)];
    const y = axis('Depression left', 'depression', set, 0, 1.1 * input.supply_Pa);
    const plot = new Plot({ title: 'Applications', low: 0, high: Math.max(4, all.length - 1) }, y);
    plot.line(all.map((value, i) => [i, y.at(value)] as const));
    all.forEach((value, i) => plot.point(i, y.at(value)));
    return plot.svg('Depression left after each application');
  },
});

const UNIT_IDS = Object.keys(UNITS) as [UnitId, ...UnitId[]];
const conversionFields = z
  .strictObject({
    value: field('Value', 'ratio', -1e12, 1e12),
    unit: z.enum(UNIT_IDS).meta({
      title: 'Unit',
      labels: Object.fromEntries(UNIT_IDS.map((id) => [id, UNITS[id].symbol || 'plain number'])),
    }),
    quantity: z.enum(QUANTITIES).meta({
      title: 'Of what',
      labels: {
        pressure: 'fluid pressure',
        depression: 'vacuum',
        barometer: 'barometer',
        pressureRate: 'fluid pressure lost',
        depressionRate: 'vacuum lost',
      },
    }),
  })
  .refine(({ unit, quantity }) => (UNITS[unit].measures as readonly Quantity[]).includes(quantity), {
    path: ['unit'],
    message: 'Unit: this quantity is not measured in it.',
  });
type ConversionFields = z.infer<typeof conversionFields>;

/** Significant digits of a converted value. */
const CONVERTED_DIGITS = 7;
const unitsOf = (quantity: Quantity): [UnitId, Unit][] =>
  (Object.entries(UNITS) as [UnitId, Unit][]).filter(([, unit]) => unit.measures.includes(quantity));

const conversion = defineWorking<ConversionFields>({
  name: 'unit-conversion',
  title: 'Unit conversion',
  about: 'A value in every unit that measures the same thing.',
  source: 'Definitions of the units',
  input: conversionFields,
  example: { value: 18, unit: 'inHg', quantity: 'depression' },
  compute: ({ value, unit, quantity }) => {
    const value_SI = toSI(value, UNITS[unit]);
    return unitsOf(quantity).map(([id, to]) => ({
      id,
      name: to.symbol || 'plain number',
      text: String(Number(fromSI(value_SI, to).toPrecision(CONVERTED_DIGITS))),
    }));
  },
  picture: ({ value, unit, quantity }, set) => {
    const from = UNITS[unit];
    const to = unitFor(quantity, set);
    const high = Math.max(Math.abs(value) * 1.5, 1e-9);
    const low = value < 0 ? -high : 0;
    const at = (x: number) => fromSI(toSI(x, from), to);
    const ends = [at(low), at(high)];
    const plot = new Plot(
      { title: from.symbol || 'plain number', low, high },
      {
        title: to.symbol || 'plain number',
        low: Math.min(...ends),
        high: Math.max(...ends, Math.min(...ends) + 1e-9),
      },
    );
    plot.line(steps(low, high, 20).map((x) => [x, at(x)] as const));
    plot.point(value, at(value));
    return plot.svg(`${printQuantity(toSI(value, from), quantity, set)} on the line between the two units`);
  },
});

/** Every named calculation, by name. */
export const WORKINGS: readonly Working[] = [runout, cross, verdict, altitude, reserve, conversion];

export const findWorking = (name: string): Working | null =>
  WORKINGS.find((working) => working.name === name) ?? null;
