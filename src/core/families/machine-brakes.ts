import { z } from 'zod';
import type { MemberFolder } from '../contract/family';
import { UNTESTED } from './part-kinds';
import { identityFields } from './profile-fields';
import { stopFigures } from './stop-figures';

const machineBrakesProfile = z.strictObject({
  kind: z.literal('machine-brakes'),
  ...identityFields,
  stop: stopFigures.nullable(),
});
export type MachineBrakesProfile = z.infer<typeof machineBrakesProfile>;

/** Brakes in the axles of a machine: what they take up is known with the valve that fills them, and a stop follows from the rest. */
export const machineBrakes: MemberFolder<MachineBrakesProfile> = {
  kind: 'machine-brakes',
  name: 'Brakes in the axles',
  role: 'load',
  profile: machineBrakesProfile,
  typical: { kind: 'machine-brakes', name: 'Brakes in the axles, typical figures', maker: '', stop: null },
  ...UNTESTED,
};
