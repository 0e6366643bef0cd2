import { z } from 'zod';
import { addressField } from './address';
import { standardPressure_Pa } from '../air/atmosphere';
import { SUPPLY_KINDS } from '../air/supply';
import { UNIT_SETS } from '../quantities/units';
import type { Conditions } from '../contract/run-context';

/** A key is taught by pressing it, never typed out. */
const key = (title: string) =>
  z.string().min(1, `${title}: press the key once.`).max(40).meta({ title, taught: true });

/** What holds for the whole bench. SI. */
export const settingsSchema = z
  .strictObject({
    shopName: z.string().trim().max(120).default('').meta({ title: 'Name on the letterhead' }),
    shopAddress: z.string().trim().max(300).default('').meta({ title: 'Address' }),
    shopTelephone: z.string().trim().max(60).default('').meta({ title: 'Telephone' }),
    /** Seal of the picture, as kept; empty for none. */
    logo: z
      .string()
      .regex(/^([0-9a-f]{64})?$/, 'Logo: choose a picture.')
      .default('')
      .meta({ title: 'Logo', picture: true }),
    technician: z.string().trim().max(120).meta({ title: 'Technician' }),
    unitSet: z.enum(UNIT_SETS).meta({
      title: 'Units',
      labels: { mixed: 'bar and inHg', metric: 'bar and kPa', imperial: 'psi and inHg' },
    }),
    barometer_Pa: z
      .number()
      .min(30_000, 'Barometer: too low to be a station pressure.')
      .max(110_000, 'Barometer: too high to be a station pressure.')
      .nullable()
      .meta({ title: 'Station barometer (empty: by altitude)', quantity: 'barometer' }),
    altitude_m: z
      .number()
      .min(-500, 'Altitude: −500 m at the least.')
      .max(11_000, 'Altitude: 11 000 m at the most.')
      .meta({ title: 'Altitude', quantity: 'altitude' }),
    temperature_K: z
      .number()
      .min(233, 'Room temperature: too cold.')
      .max(333, 'Room temperature: too hot.')
      .meta({ title: 'Room temperature', quantity: 'temperature' }),
    supplyKind: z.enum(SUPPLY_KINDS).meta({
      title: 'Vacuum comes from',
      labels: { pump: 'a vacuum pump', manifold: 'an engine manifold' },
    }),
    supplyHealth_Pa: z
      .number()
      .min(3_000, 'Healthy supply: too low.')
      .max(100_000, 'Healthy supply: above a full vacuum.')
      .meta({ title: 'Healthy supply at sea level, at least', quantity: 'depression' }),
    meets: z
      .number()
      .gt(0.5, 'Meets from: above 50 %.')
      .lt(1, 'Meets from: below 100 %.')
      .meta({ title: 'Meets from a probability of', quantity: 'percent' }),
    fails: z
      .number()
      .gt(0, 'Fails to: above 0 %.')
      .lt(0.5, 'Fails to: below 50 %.')
      .meta({ title: 'Fails to a probability of', quantity: 'percent' }),
    captureKey: key('Capture key, or foot-switch'),
    strikeKey: key('Take-back key'),
    logger: addressField('Bench logger', '127.0.0.1:5025').meta({
      title: 'Bench logger, as 127.0.0.1:5025 (empty: none)',
    }),
    vehicle: addressField('Vehicle interface', '127.0.0.1:13400')
      .default('')
      .meta({ title: 'Vehicle interface, as 127.0.0.1:13400 (empty: none)' }),
    sound: z.boolean().meta({ title: 'Sound when a reading is taken and when a wait is over' }),
  })
  .refine((s) => s.captureKey !== s.strikeKey, {
    path: ['strikeKey'],
    message: 'The capture key and the take-back key must differ.',
  })
  .refine(
    (s) =>
      ![s.captureKey, s.strikeKey].some((k) =>
        /^[\w.,−+ -]$|^(Enter|Tab|Escape|Backspace|F2|F3|F4|F6|F7|F10)$/.test(k),
      ),
    {
      path: ['captureKey'],
      message:
        'Choose keys that type nothing and do nothing else here: F8, F9 or a foot-switch set to one of F13 to F24.',
    },
  );

export type Settings = z.infer<typeof settingsSchema>;

/** A bench at sea level with a vacuum pump, until it is told otherwise. */
export const INITIAL_SETTINGS: Settings = {
  shopName: '',
  shopAddress: '',
  shopTelephone: '',
  logo: '',
  technician: '',
  unitSet: 'mixed',
  barometer_Pa: null,
  altitude_m: 0,
  temperature_K: 293.15,
  supplyKind: 'pump',
  supplyHealth_Pa: 60_955,
  meets: 0.95,
  fails: 0.05,
  captureKey: 'F8',
  strikeKey: 'F9',
  logger: '',
  vehicle: '',
  sound: true,
};

/** Station pressure of the bench, Pa: as measured, else the standard atmosphere at its altitude. */
export const stationPressure_Pa = (settings: Settings) =>
  settings.barometer_Pa ?? standardPressure_Pa(settings.altitude_m);

/** The room of the bench. */
export const roomOf = (settings: Settings) => ({
  barometer_Pa: stationPressure_Pa(settings),
  temperature_K: settings.temperature_K,
});

/** The conditions a run starts under. @param day ISO date */
export const conditionsFrom = (settings: Settings, day: string): Conditions => ({
  ...roomOf(settings),
  supplyKind: settings.supplyKind,
  supplyHealth_Pa: settings.supplyHealth_Pa,
  technician: settings.technician,
  day,
  thresholds: { meets: settings.meets, fails: settings.fails },
});
