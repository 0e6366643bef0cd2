import { z } from 'zod';
import { SHOWN_BY_UNIT, type MemberFolder, type Port } from '../contract/family';
import type { Descriptor } from '../model/descriptor';
import type { Member } from '../model/member';
import type { Motion } from '../model/motion';
import { benchMaster } from './bench-members';
import { line, UNTESTED } from './part-kinds';
import { amount, identityFields } from './profile-fields';

const benchMasterProfile = z.strictObject({
  kind: z.literal('bench-master'),
  ...identityFields,
  bore_m: amount('Bore', 'length', 0.01, 0.06),
  air_m3: amount('Air in its line', 'volume', 0, 1e-5),
  stiffness_m3PerPa: amount('Give of its line and calipers', 'volumePerPressure', 1e-14, 1e-11),
});
export type BenchMasterProfile = z.infer<typeof benchMasterProfile>;

/** A bench's own master cylinder with calipers, as what a unit drives: nothing of it is tested. */
export const benchMasterFolder: MemberFolder<BenchMasterProfile> = {
  kind: 'bench-master',
  name: 'Master cylinder of the bench',
  role: 'load',
  profile: benchMasterProfile,
  typical: {
    kind: 'bench-master',
    name: 'Master cylinder of the bench',
    maker: '',
    bore_m: 0.0286,
    air_m3: 1e-7,
    stiffness_m3PerPa: 1e-12,
  },
  ...UNTESTED,
  parts: [line('bench-line', 'Line of the bench’s master cylinder', [SHOWN_BY_UNIT.pressure], ['output'])],
};

const PARTS = [
  { id: 'master', name: 'Pistons of the bench master', quantity: 'travel' },
  { id: 'caliper', name: 'Calipers of the bench', quantity: 'pressure' },
] as const satisfies readonly Descriptor[];

/** Figures at the far end of a drawing. */
const FAR = { master_m: 0.016, caliper_Pa: 1e7 } as const;

/** The same with a true gauge on one of a bench's ports. */
export const benchMasterOn = (ports: readonly Port[], port: string): Member<BenchMasterProfile> => {
  const motion = benchMaster.motion!;
  const place = ports.findIndex(({ id }) => id === port);
  const shown: Motion['with'] = (parameters, at) => ({
    ...motion.with(parameters, at),
    shown: (_y, _at, out) => {
      out[place] = at.nodes[0]!.effort / parameters[0]!;
    },
    parts: (_y, _at, out) => {
      out.master = { at: at.nodes[0]!.passed, of: FAR.master_m };
      out.caliper = { at: at.nodes[0]!.effort / parameters[0]!, of: FAR.caliper_Pa };
    },
  });
  return { ...benchMaster, motion: { ...motion, parts: PARTS, with: shown } };
};
