import { FAMILIES, type FamilyKind } from './registry';
import { FLUIDS, type FluidKind } from '../fluid/kinds';

/** Something to be done by a day, and why. */
export interface CareDue {
  readonly id: string;
  readonly what: string;
  readonly why: string;
  /** "2027-11-30". */
  readonly on: string;
}

interface Care {
  readonly id: string;
  readonly what: string;
  readonly why: string;
  readonly months: number;
}

/** How long a fluid is left in, months; typical, and the maker’s figure wins. Fluids that are not named do not age by the calendar. */
const FLUID_MONTHS: Readonly<Partial<Record<FluidKind, number>>> = {
  dot3: 24,
  dot4: 24,
  'dot5.1': 24,
};

const AIR = 'Makers change it with the year’s service; a blocked one slows the brake.';
const VACUUM: readonly Care[] = [
  { id: 'air-filter', what: 'Air filter of the booster', why: AIR, months: 12 },
  {
    id: 'vacuum-hose',
    what: 'Vacuum hose and its valve',
    why: 'Rubber goes hard and soft inside; fuel vapour perishes it. A hose that falls in takes the help away.',
    months: 24,
  },
  {
    id: 'exercise',
    what: 'Press the brake of a vehicle that stands, engine running',
    why: 'Seals and diaphragms perish unused.',
    months: 3,
  },
];
const GAS: readonly Care[] = [
  {
    id: 'pre-charge',
    what: 'Pre-charge of each accumulator',
    why: 'Its gas goes through the rubber year by year. A cold one shows less: it is read at room warmth.',
    months: 12,
  },
];
const MOTOR_PUMP: readonly Care[] = [
  {
    id: 'motor',
    what: 'Motor, switch and accumulator of the pump',
    why: 'They are parts that wear: how long it runs and how often says how far.',
    months: 12,
  },
];
const FEED: readonly Care[] = [
  {
    id: 'feed',
    what: 'Feed, earth and battery of the booster, under load',
    why: 'A poor contact takes the help away when it is needed most.',
    months: 12,
  },
];
const CAPACITOR: readonly Care[] = [
  {
    id: 'capacitor',
    what: 'Capacity and resistance of the store',
    why: 'A capacitor dries out: it is what brakes once the battery is gone.',
    months: 12,
  },
];
const PARKING: readonly Care[] = [
  {
    id: 'parking',
    what: 'Pull the parking brake firmly, some times',
    why: 'Cables and levers that are never moved seize.',
    months: 1,
  },
];

/** Typical intervals, a judgement: the maker’s own come first. Handbook 14. */
const CARE: Readonly<Record<FamilyKind, readonly Care[]>> = {
  'remote-vacuum': VACUUM,
  'rod-servo': VACUUM,
  'pedal-vacuum': VACUUM,
  'pedal-valve': GAS,
  'hydraulic-booster': GAS,
  'motor-pump-booster': [...GAS, ...MOTOR_PUMP],
  'stored-pressure': GAS,
  electromechanical: FEED,
  'vacuum-vehicle': [...VACUUM, ...PARKING],
  'motor-pump-vehicle': [...GAS, ...MOTOR_PUMP, ...PARKING],
  'hydraulic-vehicle': [...GAS, ...PARKING],
  'stored-pressure-vehicle': [...GAS, ...PARKING],
  'pedal-valve-vehicle': [...GAS, ...PARKING],
  'electromechanical-vehicle': [...FEED, ...PARKING],
  'by-wire-vehicle': [...GAS, ...FEED, ...CAPACITOR, ...PARKING],
};

/** A day so many months later; the last of a month that is shorter. @param day "2026-11-30" */
export function monthsLater(day: string, months: number): string {
  const [year, month, date] = day.split('-').map(Number) as [number, number, number];
  const first = new Date(Date.UTC(year, month - 1 + months, 1));
  const days = new Date(Date.UTC(first.getUTCFullYear(), first.getUTCMonth() + 1, 0)).getUTCDate();
  first.setUTCDate(Math.min(date, days));
  return first.toISOString().slice(0, 10);
}

/** What a unit or a vehicle is to have done from a day on, the soonest first. */
export function carePlan(kind: FamilyKind, profile: unknown, from: string): CareDue[] {
  const fluid = FAMILIES[kind].fluid(profile);
  const months = fluid === null ? undefined : FLUID_MONTHS[fluid];
  const all: readonly Care[] = [
    ...CARE[kind],
    ...(fluid !== null && months !== undefined
      ? [
          {
            id: 'fluid',
            what: `Change the fluid: ${FLUIDS[fluid]}`,
            why: 'It takes up water, which boils in a hot brake and rusts what it stands in.',
            months,
          },
        ]
      : []),
  ];
  return all
    .map(({ months: after, ...care }): CareDue => ({ ...care, on: monthsLater(from, after) }))
    .sort((a, b) => (a.on < b.on ? -1 : a.on > b.on ? 1 : 0));
}
