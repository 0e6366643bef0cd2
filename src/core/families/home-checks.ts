import { healthyWhole } from './assembly-model';
import { FAMILIES, type FamilyKind } from './registry';
import { faultsOf } from '../contract/family';
import type { HomeAnswer, HomeCheck } from '../contract/home-check';
import type { LookEvidence } from '../diagnosis/evidence';
import { AT_ONCE, readingOf } from '../model/vectors';
import { REFERENCE_TEMPERATURE_K } from '../air/leak';
import { SEA_LEVEL_PA } from '../air/atmosphere';
import type { Quantity } from '../quantities/units';

/** A foot that presses as in traffic, N. */
const MODERATE_N = 100;
/** Felt with a foot; watched on a lamp or a clock: how often each is wrong. */
const BY_FOOT = { falseAlarm: 0.1, miss: 0.25 } as const;
const BY_CLOCK = { falseAlarm: 0.05, miss: 0.1 } as const;
const CALL = 'Do not drive it. Tell us what you felt.';

const moderate = { pedal_N: MODERATE_N };

/** Of any pedal that presses a master cylinder. */
const OF_A_PEDAL: readonly HomeCheck[] = [
  {
    id: 'home-firm',
    name: 'Firm pedal',
    try: 'Standing, with what helps the pedal on, press as in traffic and keep the foot still for a minute.',
    expect: 'The pedal stands where it is.',
    otherwise: `A pedal that goes on down loses pressure. ${CALL}`,
    cautions: [],
    reading: 'load.sink',
    at: { ...moderate, elapsed_s: 60 },
    wrong: { aboveSI: 0.005 },
    ...BY_FOOT,
  },
  {
    id: 'home-high',
    name: 'Height of the pedal',
    try: 'Standing, with what helps the pedal on, press as in traffic, once.',
    expect: 'The pedal stops after about {value}, and a second press does not bring it higher.',
    otherwise: `A pedal that goes far down, or rises as it is pumped, has air or wear behind it. ${CALL}`,
    cautions: [],
    reading: 'load.travel',
    at: moderate,
    wrong: { above: 1.5 },
    ...BY_FOOT,
  },
];

const standing = (reading: string): HomeCheck => ({
  id: 'home-standing',
  name: 'Help after standing',
  try: 'Let the engine run for a minute, switch it off and leave the vehicle for five minutes. Then press the pedal lightly, three times.',
  expect: 'The first press goes down easily; the next ones become harder.',
  otherwise: 'Vacuum is lost while it stands. Listen for air as it is switched off, and tell us.',
  cautions: [],
  reading,
  at: { elapsed_s: 300 },
  wrong: { below: 0.5 },
  ...BY_FOOT,
});

const drop = (below: number): HomeCheck => ({
  id: 'home-drop',
  name: 'Pedal as the engine starts',
  try: 'Engine off: press the pedal five times, until it is hard. Keep a moderate foot on it and start the engine.',
  expect: 'The pedal sinks under the foot by about {value}.',
  otherwise: `Nothing helps the pedal. ${CALL}`,
  cautions: [],
  reading: 'drop',
  at: { pedal_N: 150 },
  wrong: { below },
  ...BY_FOOT,
});

const reserve: HomeCheck = {
  id: 'home-reserve',
  name: 'Presses without the engine',
  try: 'Let the engine run for a minute and switch it off. Press the pedal lightly and let it up again, until it is hard: count.',
  expect: 'About {value} presses are helped; half as many are enough.',
  otherwise: 'Less is stored than there should be: tell us how many.',
  cautions: [],
  reading: 'reserve',
  at: moderate,
  wrong: { below: 0.5 },
  ...BY_FOOT,
};

const PUMP_STOPS: HomeCheck = {
  id: 'home-pump-stops',
  name: 'Pump after a night',
  try: 'After the vehicle has stood for a night switch the ignition on, touch nothing, and listen to the pump.',
  expect: 'It runs for about {value}, and stops.',
  otherwise:
    'A pump that runs on, or much longer, does not reach its pressure. Switch the ignition off and tell us.',
  cautions: [],
  reading: 'chargeTime',
  at: {},
  wrong: { above: 1.4 },
  ...BY_CLOCK,
};

const PUMP_AGAIN: HomeCheck = {
  id: 'home-pump-again',
  name: 'Pump by itself',
  try: 'Leave the ignition on and the pedal alone, and listen until the pump starts by itself.',
  expect: 'It does not start within some minutes; a sound one rests for about {value}.',
  otherwise: 'Pressure is lost while nobody presses: tell us after how long it starts.',
  cautions: [],
  reading: 'offTime',
  at: {},
  wrong: { below: 0.25 },
  ...BY_CLOCK,
};

const lampOut = (reading: string, id: string, name: string): HomeCheck => ({
  id,
  name,
  try: 'After the vehicle has stood for a night start the engine, touch nothing, and watch its pressure lamp.',
  expect: 'The lamp goes out after about {value}.',
  otherwise:
    'A lamp that stays on longer, or comes on again, says that too little is stored. Wait until it is out; do not drive before.',
  cautions: [],
  reading,
  at: {},
  wrong: { above: 1.5 },
  ...BY_CLOCK,
});

const RETURNS: HomeCheck = {
  id: 'home-returns',
  name: 'Pedal comes back',
  try: 'Standing, ignition on, press firmly and let go at once.',
  expect: 'The pedal comes back up at once.',
  otherwise: `A pedal that comes back late keeps the brakes on. ${CALL}`,
  cautions: [],
  reading: 'returns',
  at: {},
  wrong: { above: 5 },
  ...BY_FOOT,
};

/** What a customer can try, by what was tested. Units that are tested by themselves are tried on their vehicle. */
const HOME_CHECKS: Readonly<Record<FamilyKind, readonly HomeCheck[]>> = {
  'remote-vacuum': [standing('supplyLeftReleased')],
  'rod-servo': [standing('tankLeft')],
  'pedal-vacuum': [standing('left'), reserve],
  'pedal-valve': [],
  'hydraulic-booster': [],
  'motor-pump-booster': [PUMP_STOPS, PUMP_AGAIN],
  'stored-pressure': [lampOut('lampOff', 'home-lamp', 'Pressure lamp')],
  electromechanical: [RETURNS],
  'vacuum-vehicle': [drop(0.6), standing('left'), reserve, ...OF_A_PEDAL],
  'motor-pump-vehicle': [PUMP_STOPS, PUMP_AGAIN, ...OF_A_PEDAL],
  'hydraulic-vehicle': [drop(0.55), ...OF_A_PEDAL],
  'stored-pressure-vehicle': [lampOut('lampOff', 'home-lamp', 'Pressure lamp')],
  'pedal-valve-vehicle': [],
  'electromechanical-vehicle': [RETURNS, ...OF_A_PEDAL],
  'by-wire-vehicle': [PUMP_STOPS],
};

/** What a customer can try of a kind. */
export const homeChecksOf = (kind: FamilyKind): readonly HomeCheck[] => HOME_CHECKS[kind];

/** What a sound one of a profile shows at a check, SI; null where its words name no figure. */
export function homeFigure(
  kind: FamilyKind,
  profile: unknown,
  { reading, at, expect }: HomeCheck,
): { readonly value: number; readonly quantity: Quantity } | null {
  if (!expect.includes('{value}')) return null;
  const family = FAMILIES[kind];
  const { quantity } = family.readings.find(({ id }) => id === reading)!;
  return { value: healthyWhole(family, profile).shows(reading, inputsAt(kind, profile, at)), quantity };
}

/** What the sources of an ordinary day make, Pa: deep enough for any unit on vacuum. */
const USUAL_SUPPLY_PA = 65_000;

const inputsAt = (kind: FamilyKind, profile: unknown, at: HomeCheck['at']) => ({
  supply_Pa: USUAL_SUPPLY_PA,
  ...FAMILIES[kind].full(profile),
  ...at,
});

/** Faults that show at a check: those that, once severe, move its reading past where something is wrong. */
export function shownAtHome(kind: FamilyKind, profile: unknown, check: HomeCheck): string[] {
  const family = FAMILIES[kind];
  const { values } = family.healthy(profile);
  const known = {
    barometer_Pa: SEA_LEVEL_PA,
    temperature_K: REFERENCE_TEMPERATURE_K,
    ...AT_ONCE,
    ...inputsAt(kind, profile, check.at),
  };
  const shows = (parameters: readonly number[]) => readingOf(family, parameters, known, check.reading);
  const sound = shows(values);
  const isWrong = (value: number): boolean =>
    'below' in check.wrong
      ? value < check.wrong.below * sound
      : 'above' in check.wrong
        ? value > check.wrong.above * sound
        : value > check.wrong.aboveSI;
  return faultsOf(family, profile).flatMap(({ id, apply }) => (isWrong(shows(apply(values, 1))) ? [id] : []));
}

/** What answers from home tell: each as a look with its error rates. What was not tried tells nothing. */
export function homeEvidence(
  kind: FamilyKind,
  profile: unknown,
  answers: Readonly<Record<string, HomeAnswer>>,
): LookEvidence[] {
  return homeChecksOf(kind).flatMap((check): LookEvidence[] => {
    const answer = answers[check.id];
    if (answer === undefined || answer === 'not-tried') return [];
    const { id, miss, falseAlarm } = check;
    return [
      {
        kind: 'look',
        id,
        item: id,
        answer,
        good: answer === 'as-described',
        bad: ['otherwise'],
        miss,
        falseAlarm,
        shownBy: shownAtHome(kind, profile, check),
      },
    ];
  });
}
