import type { Instrument } from '@/core/metrology/instrument';
import { INHG_PA } from '@/core/quantities/units';
import { INITIAL_SETTINGS, type Settings } from '@/core/shop/settings';

const BAR = 1e5;

/** The brake room of Greywater Ferry Depot: everything in the demo world is made up. */
export const settings: Settings = {
  ...INITIAL_SETTINGS,
  shopName: 'Greywater Ferry Depot, brake room',
  shopAddress: 'Slip Road 3, Greywater',
  shopTelephone: '0555 010 418',
  technician: 'Ottoline Brack',
  altitude_m: 40,
  supplyHealth_Pa: 18 * INHG_PA,
};

const gauge = (
  tag: string,
  name: string,
  port: string,
  fullScale_Pa: number,
  step_Pa: number,
  accuracy: Instrument['accuracy'],
  more: Partial<Instrument> = {},
): Instrument => ({
  tag,
  name,
  quantity: port === 'supply' || port === 'activation' ? 'depression' : 'pressure',
  fullScale_Pa,
  accuracy,
  step_Pa,
  usualPort: port,
  tiedTo: null,
  fluid: port === 'input' || port === 'output' ? 'dot4' : null,
  correction: null,
  calibratedOn: '2026-05-11',
  calibrationDue: '2027-05-11',
  ...more,
});

const en = (cls: '0.25' | '0.6' | '1' | '1.6' | '2.5'): Instrument['accuracy'] => ({
  kind: 'en-837-1',
  class: cls,
});

export const instruments: Instrument[] = [
  gauge('G-11', 'Input, low range', 'input', 10 * BAR, 0.05 * BAR, en('0.6'), { tiedTo: 'G-12' }),
  gauge('G-12', 'Input, high range', 'input', 160 * BAR, 0.2 * BAR, en('0.6')),
  gauge('G-21', 'Output, low range', 'output', 10 * BAR, 0.05 * BAR, en('0.6'), { tiedTo: 'G-22' }),
  gauge('G-22', 'Output, high range', 'output', 160 * BAR, 0.2 * BAR, en('0.6')),
  gauge('V-31', 'Vacuum at the supply port', 'supply', 30 * INHG_PA, 0.1 * INHG_PA, {
    kind: 'asme-b40.100',
    grade: '2A',
  }),
  gauge(
    'V-41',
    'Vacuum at the activation port',
    'activation',
    30 * INHG_PA,
    0.1 * INHG_PA,
    { kind: 'asme-b40.100', grade: '1A' },
    {
      calibratedOn: '2025-10-02',
      calibrationDue: '2026-10-02',
    },
  ),
  gauge(
    'L-51',
    'Load cell under the rod',
    'output',
    2500,
    1,
    { kind: 'percent-of-span', percent: 0.25 },
    { quantity: 'force', fluid: null },
  ),
  gauge(
    'W-61',
    'Stopwatch on the wall',
    'clock',
    60,
    0.1,
    { kind: 'percent-of-span', percent: 0.25 },
    { quantity: 'duration' },
  ),
  // The bag that goes out to vehicles.
  gauge('P-71', 'Bag: front bleed screw', 'front', 160 * BAR, 0.2 * BAR, en('0.6'), { fluid: 'dot4' }),
  gauge('P-72', 'Bag: rear bleed screw', 'rear', 160 * BAR, 0.2 * BAR, en('0.6'), { fluid: 'dot4' }),
  gauge('V-75', 'Bag: vacuum at manifold or pump', 'source', 30 * INHG_PA, 0.1 * INHG_PA, en('1'), {
    quantity: 'depression',
  }),
  gauge(
    'F-73',
    'Bag: force on the pedal',
    'pedal',
    1000,
    1,
    { kind: 'percent-of-span', percent: 0.5 },
    { quantity: 'force' },
  ),
  gauge(
    'R-74',
    'Bag: steel rule',
    'travel',
    0.3,
    5e-4,
    { kind: 'percent-of-span', percent: 0.2 },
    { quantity: 'travel' },
  ),
  gauge(
    'D-76',
    'Bag: depth gauge for pushrods',
    'gap',
    0.025,
    2e-5,
    { kind: 'percent-of-span', percent: 0.1 },
    { quantity: 'travel' },
  ),
  // The pump pack's own, on mineral oil.
  gauge('A-81', 'Pack: accumulator 1', 'supply', 250 * BAR, 0.2 * BAR, en('0.6'), {
    quantity: 'pressure',
    fluid: 'mineral',
  }),
  gauge('A-82', 'Pack: accumulator 2', 'supply-2', 250 * BAR, 0.2 * BAR, en('0.6'), { fluid: 'mineral' }),
  gauge('C-83', 'Pack: circuit 1, low range', 'output', 10 * BAR, 0.05 * BAR, en('0.6'), {
    tiedTo: 'C-84',
    fluid: 'mineral',
  }),
  gauge('C-84', 'Pack: circuit 1, high range', 'output', 160 * BAR, 0.1 * BAR, en('0.6'), {
    fluid: 'mineral',
  }),
  gauge('C-85', 'Pack: circuit 2', 'output-2', 160 * BAR, 0.1 * BAR, en('0.6'), { fluid: 'mineral' }),
  gauge(
    'R-86',
    'Pack: gauge on the pedal',
    'treadle',
    0.03,
    2e-5,
    { kind: 'percent-of-span', percent: 0.1 },
    { quantity: 'travel' },
  ),
  gauge(
    'T-87',
    'Pack: thermometer in the oil',
    'oil',
    393.15,
    0.5,
    { kind: 'percent-of-span', percent: 0.25 },
    { quantity: 'temperature' },
  ),
  gauge(
    'W-88',
    'Pack: recorder',
    'recorder',
    10,
    0.01,
    { kind: 'percent-of-span', percent: 0.1 },
    { quantity: 'duration' },
  ),
  // For motor pumps: their meters, and a gauge of the accumulator on glycol fluid.
  gauge('A-91', 'Glycol: accumulator', 'supply', 250 * BAR, 0.2 * BAR, en('0.6'), {
    quantity: 'pressure',
    fluid: 'dot4',
  }),
  gauge(
    'U-92',
    'Voltmeter at the battery',
    'battery',
    20,
    0.01,
    { kind: 'percent-of-span', percent: 0.2 },
    { quantity: 'voltage', fluid: null },
  ),
  gauge(
    'I-93',
    'Current clamp',
    'current',
    60,
    0.1,
    { kind: 'percent-of-span', percent: 0.5 },
    { quantity: 'current', fluid: null },
  ),
  gauge(
    'U-94',
    'Voltmeter along the feed',
    'drop',
    5,
    0.01,
    { kind: 'percent-of-span', percent: 0.3 },
    { quantity: 'voltage', fluid: null },
  ),
  gauge(
    'T-95',
    'Thermometer for reservoirs',
    'fluid',
    393.15,
    0.5,
    { kind: 'percent-of-span', percent: 0.25 },
    { quantity: 'temperature', fluid: null },
  ),
  gauge(
    'W-96',
    'Recorder of pump starts',
    'pump-clock',
    3600,
    0.1,
    { kind: 'percent-of-span', percent: 0.005 },
    { quantity: 'duration', fluid: null },
  ),
  // For steering systems.
  gauge('S-97', 'Load valve: pressure line', 'line', 160 * BAR, 0.5 * BAR, en('1'), {
    quantity: 'pressure',
    fluid: null,
  }),
  gauge(
    'Q-98',
    'Load valve: flow meter',
    'flow',
    30e-3 / 60,
    0.1e-3 / 60,
    { kind: 'percent-of-span', percent: 0.5 },
    { quantity: 'flow', fluid: null },
  ),
  // For cars on stored pressure, on mineral oil as the pack's own.
  gauge('P-101', 'Mineral: front bleed screw', 'front', 160 * BAR, 0.1 * BAR, en('0.6'), {
    fluid: 'mineral',
  }),
  gauge('P-102', 'Mineral: rear bleed screw', 'rear', 160 * BAR, 0.1 * BAR, en('0.6'), { fluid: 'mineral' }),
  gauge('A-103', 'Mineral: ram line', 'ram', 250 * BAR, 0.2 * BAR, en('0.6'), { fluid: 'mineral' }),
  ...(['left', 'right'] as const).map((corner, i) =>
    gauge(
      `H-${104 + i}`,
      `Rule at the ${corner} rear corner`,
      corner,
      1,
      5e-4,
      { kind: 'percent-of-span', percent: 0.1 },
      { quantity: 'travel', fluid: null },
    ),
  ),
  gauge(
    'N-106',
    'Rev counter',
    'speed',
    100,
    0.05,
    { kind: 'percent-of-span', percent: 0.2 },
    { quantity: 'rotation', fluid: null },
  ),
  ...(['front', 'rear'] as const).map((circuit, i) =>
    gauge(
      `W-${107 + i}`,
      `Recorder of lamps, ${circuit} circuit`,
      circuit === 'front' ? 'timer' : 'timer-2',
      86_400,
      0.1,
      { kind: 'percent-of-span', percent: 0.001 },
      { quantity: 'duration', fluid: null },
    ),
  ),
  // For boosters with a motor: what is lost in the earth, the motor’s current, the sensor of the pedal, and a stamp.
  ...(
    [
      ['U-109', 'Voltmeter along the earth', 'earth', 5, 0.001, 0.1, 'voltage'],
      ['I-110', 'Clamp on the motor', 'motor', 100, 0.1, 0.5, 'current'],
      ['U-111', 'Break-out lead: supply of the sensor', 'sensor', 10, 0.005, 0.1, 'voltage'],
      ['U-112', 'Break-out lead: track 1', 'track-1', 10, 0.005, 0.1, 'voltage'],
      ['U-113', 'Break-out lead: track 2', 'track-2', 10, 0.005, 0.1, 'voltage'],
      ['U-115', 'Voltmeter at the plug', 'plug', 20, 0.01, 0.1, 'voltage'],
      ['W-114', 'Recorder of a stamp', 'step-clock', 60, 0.001, 0.005, 'duration'],
    ] as const
  ).map(([tag, name, port, most, step, percent, quantity]) =>
    gauge(tag, name, port, most, step, { kind: 'percent-of-span', percent }, { quantity, fluid: null }),
  ),
  // For decoupled brakes: the store, each wheel and its sensor, both masters, the valves, and what the unit tells of its drive.
  ...(
    [
      ['U-116', 'Meter for the store, proved live', 'store', 20, 0.01, 0.1, 'voltage'],
      ['P-121', 'Wheel gauge, front left', 'front-left', 160 * BAR, 0.1 * BAR, 0.25, 'pressure'],
      ['P-122', 'Wheel gauge, front right', 'front-right', 160 * BAR, 0.1 * BAR, 0.25, 'pressure'],
      ['P-123', 'Wheel gauge, rear left', 'rear-left', 160 * BAR, 0.1 * BAR, 0.25, 'pressure'],
      ['P-124', 'Wheel gauge, rear right', 'rear-right', 160 * BAR, 0.1 * BAR, 0.25, 'pressure'],
      ['U-117', 'Break-out lead: master sensor 1', 'master-1', 10, 0.001, 0.05, 'voltage'],
      ['U-118', 'Break-out lead: master sensor 2', 'master-2', 10, 0.001, 0.05, 'voltage'],
      ['U-119', 'Break-out lead: accumulator sensor', 'accumulator-sensor', 10, 0.001, 0.05, 'voltage'],
      ['U-125', 'Break-out lead: wheel sensor, front left', 'front-left-sensor', 10, 0.001, 0.05, 'voltage'],
      [
        'U-126',
        'Break-out lead: wheel sensor, front right',
        'front-right-sensor',
        10,
        0.001,
        0.05,
        'voltage',
      ],
      ['U-127', 'Break-out lead: wheel sensor, rear left', 'rear-left-sensor', 10, 0.001, 0.05, 'voltage'],
      ['U-128', 'Break-out lead: wheel sensor, rear right', 'rear-right-sensor', 10, 0.001, 0.05, 'voltage'],
      ['I-129', 'Fine clamp on a valve', 'valve', 5, 0.002, 0.1, 'current'],
      ['N-131', 'Regeneration asked for, by the roller stand', 'requested', 2000, 1, 0.5, 'torque'],
      ['N-132', 'Regeneration granted, by the roller stand', 'granted', 2000, 1, 0.5, 'torque'],
    ] as const
  ).map(([tag, name, port, most, step, percent, quantity]) =>
    gauge(
      tag,
      name,
      port,
      most,
      step,
      { kind: 'percent-of-span', percent },
      { quantity, ...(quantity !== 'pressure' && { fluid: null }) },
    ),
  ),
  {
    ...gauge('T-05', 'Reference transducer, in the cupboard', 'output', 160 * BAR, 0.02 * BAR, {
      kind: 'percent-of-span',
      percent: 0.1,
    }),
    usualPort: null,
    fluid: null,
  },
];

/** The one who signs in the demo. */
export const signer = { name: 'Ottoline Brack', pin: '246810' };
