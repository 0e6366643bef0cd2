import { z } from 'zod';
import type { HeldBack } from '../fluid/held-back';
import type { Brakes } from '../vehicle/brake-force';
import { amount } from './profile-fields';

const BAR = 1e5;

/** What a stop follows from besides a vehicle's hydraulics; nothing of it is assumed where it is not known. SI. Handbook 11. */
export const stopFigures = z
  .strictObject({
    mass_kg: amount('Mass of the vehicle, laden', 'mass', 300, 60_000),
    front_NPerBar: amount('Front brake force for each bar', 'force', 10, 5000),
    rear_NPerBar: amount('Rear brake force for each bar', 'force', 0, 5000),
    contact_Pa: amount('Pressure that presses nothing yet', 'pressure', 0, 10 * BAR),
  })
  .meta({ title: 'Mass and brake forces known' });
export type StopFigures = z.infer<typeof stopFigures>;

/** Profiles of vehicles of their first revision knew nothing of it. */
export const knowingNoStop = <Whole extends { readonly load: object }>(stored: Whole) => ({
  ...stored,
  load: { ...stored.load, stop: null },
});

/** The brakes as forces for pressures, behind a valve that holds the rear back, if there is one. */
export const brakesOf = (
  { front_NPerBar, rear_NPerBar, contact_Pa }: StopFigures,
  valve: HeldBack = { split_Pa: Infinity, slope: 1 },
): Brakes => ({
  front_NPerPa: front_NPerBar / BAR,
  rear_NPerPa: rear_NPerBar / BAR,
  contact_Pa,
  split_Pa: valve.split_Pa,
  slope: valve.slope,
});
