import type { CautionId } from '../../contract/cautions';
import type { Fault, Look } from '../../contract/family';
import { moving } from '../../model/vectors';
import { grown, left } from '../severity';
import { parameters } from './member';
import { STATED } from './profile';

const BAR = 1e5;
const MM = 1e-3;

const moves = moving(parameters);
const OPENING: readonly CautionId[] = ['held-by-check-valves', 'open-line'];
const VESSEL: readonly CautionId[] = ['held-by-check-valves', 'charged-vessel', 'open-line'];

const plugged = left(0.4, 0.1);
const dragging = grown(2, 7);
const standing = grown(0.6 * BAR, 4 * BAR);
const tired = left(0.85, 0.5);
/** Leak coefficients k_x between the circuits, m³, stated as a technician measures them. */
const between = grown(1e-15, 5e-14);
const spent = left(0.6, 0.02);
const worn = grown(0.5, 3);
const misset = grown(0.5 * MM, 3 * MM);

const gasLost = (circuit: 1 | 2): Fault => ({
  id: `gas-loss-${circuit}`,
  // Either circuit has half of the weight.
  prior: 26 / 2,
  brings: ['lamp', 'fades'],
  name: `gas lost from accumulator ${circuit}`,
  plain: `The gas behind the fluid of accumulator ${circuit} is nearly gone, so it gives few applications once the pump stops.`,
  apply: moves((p, s) =>
    circuit === 1
      ? { preCharge_Pa: p.preCharge_Pa * spent(s) }
      : { preCharge2_Pa: p.preCharge2_Pa * spent(s) },
  ),
  signs: { 'one-lamp': 'one' },
  confirm:
    'Emptied and charged slowly, its gauge jumps to less than the pre-charge, or does not jump at all. Applications fall short though it was charged in full.',
  repair:
    'Sealed ones are replaced, others filled with nitrogen by the maker’s procedure; charge from empty again and count.',
  parts: [`accumulator-${circuit}`],
  cautions: VESSEL,
});

/** Faults of a dual pedal valve, named and weighted as in handbook-models 8.7. */
export const faults: readonly Fault[] = [
  {
    id: 'drilling-plugged',
    prior: 8,
    brings: ['grabs'],
    name: 'feedback drilling plugged',
    plain: 'The small drilling that steadies the valve is nearly shut, so it hunts and snatches.',
    apply: moves((p, s) => ({ drilling_m: p.drilling_m * plugged(s) })),
    signs: { throbs: 'throbs' },
    confirm:
      'With warm oil the pressure swings well beyond where it settles, and the pedal throbs. Cold oil does the same.',
    repair: 'Clean the drilling and the oil; press at once again with the oil warm.',
    parts: ['drilling'],
    cautions: OPENING,
  },
  {
    id: 'spool-sticking',
    prior: 12,
    brings: ['drags', 'grabs'],
    name: 'spool sticking',
    plain: 'The spools drag in their bores: pressure comes late and stays on.',
    apply: moves((p, s) => ({ friction_N: p.friction_N * (1 + dragging(s)) })),
    signs: {},
    confirm:
      'At one travel much more stands coming down than going up, and some is left with the pedal released.',
    repair: 'Polish or renew the spools with their bores; sweep again both ways.',
    parts: ['spools'],
    cautions: OPENING,
  },
  {
    id: 'return-restricted',
    prior: 8,
    brings: ['drags'],
    name: 'contaminated return',
    plain: 'The return is choked with dirt, so pressure stands in the brakes with the pedal released.',
    apply: moves((p, s) => ({ return_Pa: p.return_Pa + standing(s) })),
    signs: { 'drag-hot': 'drags' },
    confirm:
      'Pressure is left with the pedal released, in both circuits alike, and is gone with the return off.',
    repair: 'Renew the filter, clean the return and find where the dirt comes from.',
    parts: ['return'],
    cautions: OPENING,
  },
  {
    id: 'spring-tired',
    prior: 8,
    brings: ['hard'],
    name: 'metering spring broken or tired',
    plain: 'The spring by which the pedal sets the pressure is weak, so less comes at any travel.',
    apply: moves((p, s) => ({ spring_NPerM: p.spring_NPerM * tired(s) })),
    signs: {},
    confirm:
      'Both circuits are low at every travel, the more the further. Opened: the spring is short or broken.',
    repair: 'Renew the spring; sweep again.',
    parts: ['spring'],
    cautions: OPENING,
  },
  {
    id: 'circuits-leak',
    prior: 14,
    brings: ['fades', 'drags'],
    name: 'seal leak between the circuits',
    plain: 'Fluid crosses from one brake circuit into the other.',
    apply: moves((p, s) => ({
      crossLeak_m3PerS: p.crossLeak_m3PerS + (between(s) * STATED.across_Pa) / STATED.viscosity_PaS,
    })),
    signs: {},
    confirm: 'With circuit 2 shut by its cocks its pressure rises while circuit 1 is held.',
    repair: 'Renew the seal; hold circuit 1 again with circuit 2 shut.',
    parts: ['circuit-seal'],
    cautions: OPENING,
  },
  gasLost(1),
  gasLost(2),
  {
    id: 'discs-worn',
    prior: 15,
    brings: ['slow', 'low'],
    name: 'worn discs',
    plain: 'The brake discs are worn, so each application takes more fluid than it should.',
    apply: moves((p, s) => ({ slack_m3: p.slack_m3 * (1 + worn(s)) })),
    signs: { 'metal-return': 'metal' },
    confirm:
      'Pressure comes late in both circuits and applications fall short with good gas. The maker’s wear gauge tells.',
    repair: 'Renew the discs; time an application and count again.',
    parts: ['discs'],
    cautions: ['held-by-check-valves', 'machine-stands', 'open-line'],
  },
  {
    id: 'stop-short',
    // Either way of a misset stop has half of the weight.
    prior: 9 / 2,
    brings: ['hard'],
    name: 'pedal stop too soon',
    plain: 'The pedal meets its stop too soon, so full pressure never comes.',
    apply: moves((p, s) => ({ stop_m: p.stop_m - misset(s) })),
    signs: {},
    confirm: 'Right at every travel of the sweep, low at the stop.',
    repair: 'Set the stop by the maker’s figure; read the pressure at the stop again.',
    parts: ['stop'],
    cautions: [],
  },
  {
    id: 'stop-far',
    prior: 9 / 2,
    brings: ['grabs'],
    name: 'pedal stop too far',
    plain: 'The pedal goes beyond where it should stop, so more pressure comes than the brakes are made for.',
    apply: moves((p, s) => ({ stop_m: p.stop_m + misset(s) })),
    signs: {},
    confirm: 'Right at every travel of the sweep, high at the stop.',
    repair: 'Set the stop by the maker’s figure; read the pressure at the stop again.',
    parts: ['stop'],
    cautions: [],
  },
];

/** What is looked at and asked, and how far that can be trusted. Handbook-models 8.7. */
export const looks: readonly Look[] = [
  { item: 'throbs', falseAlarm: 0.02, miss: 0.2 },
  { item: 'drag-hot', falseAlarm: 0.04, miss: 0.4 },
  { item: 'one-lamp', falseAlarm: 0.03, miss: 0.4 },
  { item: 'metal-return', falseAlarm: 0.05, miss: 0.6 },
];
