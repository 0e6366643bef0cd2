import { numberIn, type Figure, type ThroughInterface, type Values } from '../../contract/vehicle-interface';
import { sentence } from '../../quantities/sentence';
import { tracksThroughInterface } from '../tracks-interface';

const BAR = 1e5;
/** As far as courses are drawn: pressure, Pa, and torque, N·m. */
const MOST_PA = 200 * BAR;
const MOST_NM = 1500;
/** A wheel that stands above this with no foot on the pedal is pressed, Pa: our judgement, between released and pre-fill. */
const PRESSED_PA = 1.5 * BAR;

const WHEEL_VALUES = [
  ['wheelFL', 'Front left'],
  ['wheelFR', 'Front right'],
  ['wheelRL', 'Rear left'],
  ['wheelRR', 'Rear right'],
] as const;

/** What a brake does of itself, in the order of the usual map: each is a function and no fault. */
const BY_ITSELF = [
  'Nothing',
  'Pre-fill',
  'Disc wiping',
  'Hill hold',
  'Stability action',
  'Pressurising itself',
];

const pressure = (values: Values, id: string, name: string): Figure => ({
  id,
  name,
  shows: { quantity: 'pressure', value: numberIn(values, id) },
});

function byItself(values: Values): Figure {
  const state = numberIn(values, 'testState');
  return {
    id: 'testState',
    name: 'Presses by itself',
    shows: { word: state === null ? null : (BY_ITSELF[state] ?? null) },
  };
}

const highest_Pa = (values: Values): number | null => {
  const told = WHEEL_VALUES.map(([id]) => numberIn(values, id)).filter((value) => value !== null);
  return told.length > 0 ? Math.max(...told) : null;
};

/** Pressures of the four wheels and the accumulator, as the unit’s own sensors tell them. */
const wheels: ThroughInterface = {
  reads: [...WHEEL_VALUES.map(([id]) => id), 'accumulator', 'testState'],
  asks: null,
  shows: (values) => [
    ...WHEEL_VALUES.map(([id, name]) => pressure(values, id, name)),
    pressure(values, 'accumulator', 'Accumulator'),
    byItself(values),
  ],
  course: {
    name: 'Highest wheel',
    quantity: 'pressure',
    most: MOST_PA,
    of: highest_Pa,
    keeps: () => null,
    shaded: 'the brake presses by itself',
    isShaded: (values) => (numberIn(values, 'testState') ?? 0) > 0,
  },
  tells: (log) => {
    const by = log.filter(({ values }) => (numberIn(values, 'testState') ?? 0) > 0);
    const pressed = by.some(({ values }) => (highest_Pa(values) ?? 0) > PRESSED_PA);
    return {
      found: [],
      says: pressed
        ? [
            sentence(
              'Wheels were pressed while the brake pressed by itself: a function and no drag. Nothing released is judged in it.',
            ),
          ]
        : [],
    };
  },
};

const LAMPS = [
  ['red', 'Red lamp'],
  ['yellow', 'Yellow lamp'],
  ['antiLock', 'Anti-lock lamp'],
  ['stability', 'Stability lamp'],
  ['slip', 'Slip lamp'],
  ['buzzer', 'Buzzer'],
] as const;

const lamps: ThroughInterface = {
  reads: [...LAMPS.map(([id]) => id), 'supply', 'capacitor'],
  asks: null,
  shows: (values) => [
    ...LAMPS.map(([id, name]): Figure => {
      const lit = values[id];
      return { id, name, shows: { word: typeof lit === 'boolean' ? (lit ? 'on' : 'out') : null } };
    }),
    { id: 'supply', name: 'Supply', shows: { quantity: 'voltage', value: numberIn(values, 'supply') } },
    {
      id: 'capacitor',
      name: 'Capacitor',
      shows: { quantity: 'voltage', value: numberIn(values, 'capacitor') },
    },
  ],
  course: {
    name: 'Capacitor',
    quantity: 'voltage',
    most: 16,
    of: (values) => numberIn(values, 'capacitor'),
    keeps: () => null,
    shaded: 'a brake lamp is lit',
    isShaded: ({ red, yellow }) => red === true || yellow === true,
  },
  tells: () => ({ found: [], says: [] }),
};

const regenerated: ThroughInterface = {
  reads: ['requested', 'granted', 'speed', 'wheelFL', 'wheelRL'],
  asks: null,
  shows: (values) => [
    {
      id: 'requested',
      name: 'Asked for',
      shows: { quantity: 'torque', value: numberIn(values, 'requested') },
    },
    { id: 'granted', name: 'Granted', shows: { quantity: 'torque', value: numberIn(values, 'granted') } },
    { id: 'speed', name: 'Speed', shows: { quantity: 'speed', value: numberIn(values, 'speed') } },
    pressure(values, 'wheelFL', 'Front left'),
    pressure(values, 'wheelRL', 'Rear left'),
  ],
  course: {
    name: 'Granted, as the unit works it out',
    quantity: 'torque',
    most: MOST_NM,
    of: (values) => numberIn(values, 'granted'),
    keeps: () => null,
    shaded: 'less is granted than is asked for',
    isShaded: (values) => {
      const [asked, granted] = [numberIn(values, 'requested'), numberIn(values, 'granted')];
      return asked !== null && granted !== null && granted < 0.95 * asked;
    },
  },
  tells: () => ({ found: [], says: [] }),
};

/** Steps of a decoupled brake in which the vehicle’s interface helps. What is told is the unit’s own, and no reading of a gauge. */
export const throughInterface: Readonly<Record<string, ThroughInterface>> = {
  tracks: tracksThroughInterface,
  lamps,
  released: wheels,
  targets: wheels,
  blend: regenerated,
};
