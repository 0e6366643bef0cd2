import type { CautionId } from '../../contract/cautions';
import type { Fault, Look } from '../../contract/family';
import { moving } from '../../model/vectors';
import { grown, left } from '../severity';
import { parameters } from './member';

const BAR = 1e5;

const moves = moving(parameters);
const OPENING: readonly CautionId[] = ['held-by-check-valves', 'open-line'];
const VESSEL: readonly CautionId[] = ['held-by-check-valves', 'charged-vessel', 'open-line'];

const spent = left(0.6, 0.02);
const drifted = grown(10 * BAR, 40 * BAR);
const leaking = grown(3, 49);
const weeping = grown(1e-13, 1e-11);
/** Higher than any pump comes: a switch that waits for it never opens. */
const NEVER_PA = 1e8;

const drift = (way: 'high' | 'low'): Fault => ({
  id: `switch-${way}`,
  // Either way has half of the weight.
  prior: 7 / 2,
  brings: way === 'low' ? ['lamp', 'hard'] : ['runs-often'],
  name: `pressure switch set ${way}`,
  plain: `The pressure switch starts and stops the pump at too ${way} a pressure.`,
  apply: moves((p, s) => {
    const by_Pa = (way === 'high' ? 1 : -1) * drifted(s);
    return { in_Pa: p.in_Pa + by_Pa, out_Pa: p.out_Pa + by_Pa };
  }),
  signs: {},
  confirm: 'Switched on and off both off by as much, read on a gauge that was checked.',
  repair: 'Renew the switch, the accumulator at zero; read where it switches again.',
  parts: ['switch'],
  cautions: OPENING,
});

/** Faults of a motor-pump booster, named and weighted as in handbook-models 8.5. */
export const faults: readonly Fault[] = [
  {
    id: 'gas-loss',
    prior: 24,
    brings: ['runs-often', 'lamp', 'fades'],
    name: 'gas lost from the accumulator',
    plain:
      'The gas behind the stored fluid is nearly gone: the pump runs often and briefly, and little is in reserve.',
    apply: moves((p, s) => ({ preCharge_Pa: p.preCharge_Pa * spent(s) })),
    signs: { 'lamp-motion': 'flickers' },
    confirm:
      'Emptied and charged, its gauge jumps to less than the pre-charge, or does not jump; on and off times both short.',
    repair:
      'Sealed ones are replaced, others filled with nitrogen by the maker’s procedure; charge from empty again and count.',
    parts: ['accumulator'],
    cautions: VESSEL,
  },
  drift('high'),
  drift('low'),
  {
    id: 'switch-stuck-on',
    prior: 3,
    brings: ['runs-often'],
    name: 'pressure switch stuck on',
    plain: 'The pressure switch no longer stops the pump: it runs against its relief and gets hot.',
    apply: moves((p, s) => (s === 0 ? {} : { in_Pa: NEVER_PA, out_Pa: NEVER_PA, delay_s: p.delay_s })),
    signs: {},
    confirm: 'The pump goes on up to the relief; with the plug of the switch off it stops.',
    repair:
      'Take the fuse out at once. Renew switch or relay; check the relief and the fluid after the heat.',
    parts: ['switch'],
    cautions: OPENING,
  },
  {
    id: 'switch-stuck-off',
    prior: 6,
    brings: ['hard', 'lamp'],
    name: 'pressure switch stuck off',
    plain: 'The pressure switch no longer starts the pump: there is no assist.',
    apply: moves((_p, s) => (s === 0 ? {} : { in_Pa: 0, out_Pa: 0 })),
    signs: {},
    confirm: 'No charge; bridged for a moment the pump runs and the pressure comes.',
    repair: 'Renew switch or relay, the accumulator at zero.',
    parts: ['switch'],
    cautions: OPENING,
  },
  {
    id: 'internal-leak',
    prior: 18,
    brings: ['runs-often', 'hiss'],
    name: 'leak inside the booster',
    plain: 'Stored fluid leaks back inside the booster, so the pump runs again and again.',
    apply: moves((p, s) => ({ leak_m3PerS: p.leak_m3PerS * (1 + leaking(s)) })),
    signs: { 'hiss-rest': 'hisses' },
    confirm: 'Flick-up and on-time as they should, off-times short from the third on, nothing wet outside.',
    repair: 'Renew spool and seals, or the booster; watch three off-times again.',
    parts: ['spool'],
    cautions: OPENING,
  },
  {
    id: 'relief-weeps',
    prior: 6,
    brings: ['runs-often'],
    name: 'relief weeps',
    plain:
      'The relief valve does not shut: stored pressure falls to where it does, or the pump never gets there.',
    apply: moves((p, s) => ({
      weepsFrom_Pa: p.weepsFrom_Pa - s * (p.weepsFrom_Pa - 100 * BAR),
      weeps_m3PerSPa: weeping(s),
    })),
    signs: {},
    confirm: 'It falls to one pressure and stands there, or stalls short of where it should stop.',
    repair: 'Renew the relief, the accumulator at zero; read where it stops and how long it stays off.',
    parts: ['relief'],
    cautions: OPENING,
  },
];

/** What is listened for and asked, and how far that can be trusted. Handbook-models 8.5. */
export const looks: readonly Look[] = [
  { item: 'hiss-rest', falseAlarm: 0.03, miss: 0.6 },
  { item: 'lamp-motion', falseAlarm: 0.03, miss: 0.5 },
];
