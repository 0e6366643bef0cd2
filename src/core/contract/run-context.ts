import { z } from 'zod';
import { SUPPLY_KINDS } from '../air/supply';
import { instrumentSchema } from '../metrology/instrument';
import { procedureSchema } from './steps';

const gaugesSchema = z.array(instrumentSchema).max(500).readonly();

const rigSchema = z.record(z.string().max(40), gaugesSchema);
/** The gauges that stand on each port of the bench for one run. */
export type Rig = Readonly<z.infer<typeof rigSchema>>;

export const conditionsSchema = z.strictObject({
  /** Station pressure, Pa absolute. */
  barometer_Pa: z.number().positive(),
  temperature_K: z.number().positive(),
  supplyKind: z.enum(SUPPLY_KINDS),
  /** Sea-level depression that a healthy supply of this kind makes, Pa. */
  supplyHealth_Pa: z.number().positive(),
  technician: z.string().max(120),
  /** ISO date of the run, for calibration state. */
  day: z.iso.date(),
  thresholds: z.strictObject({ meets: z.number().gt(0.5).lt(1), fails: z.number().gt(0).lt(0.5) }),
});
/** What a run was made under, kept with it. */
export type Conditions = Readonly<z.infer<typeof conditionsSchema>>;

export const runContextSchema = z.strictObject({
  /** The steps, built once for this profile on this rig. */
  procedure: procedureSchema,
  /** Checked by the family's own schema. */
  profile: z.unknown(),
  rig: rigSchema,
  /** Every instrument that could be used instead, for advice. */
  shelf: gaugesSchema,
  conditions: conditionsSchema,
});
/** The room that readings were taken in. */
export type Room = Pick<Conditions, 'barometer_Pa' | 'temperature_K'>;

/** All that judging a run needs besides its events. */
export interface RunContext<Profile> extends Readonly<Omit<z.infer<typeof runContextSchema>, 'profile'>> {
  readonly profile: Profile;
  /**
   * Rooms of readings carried over from earlier tests, oldest first: the events before the count `until` were made in
   * that room. Worked out from the record, never stored.
   */
  readonly earlier?: readonly (Room & { readonly until: number })[];
}
