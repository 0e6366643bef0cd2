import type { CautionId } from '../../contract/cautions';
import { moving } from '../../model/vectors';
import type { Fault, Look } from '../../contract/family';
import { grown, left, passage } from '../severity';
import { parameters } from './member';

/** Air leaks from just begun to severe, m³/(s·Pa), and what is left of things. Handbook-models 8.2. */
const seatLeak = grown(5e-11, 1e-8);
const tankLeak = grown(1e-11, 1e-8);
const areaLeft = left(0.9, 0.6);
const lineLeft = left(0.4, 0.05);
const springLeft = left(0.8, 0.3);
const crackRaised = left(1.5, 3);
const dragging = grown(20, 180);

const moves = moving(parameters);
const OPENING: readonly CautionId[] = ['spring-casing', 'open-line'];
const LINES: readonly CautionId[] = ['open-line'];
const FLUID_SIDE: readonly CautionId[] = ['fluids', 'open-line'];

/** Faults of a rod-acting servo, named as in handbook 8.2. */
export const faults: readonly Fault[] = [
  {
    id: 'torn-piston',
    prior: 14,
    brings: ['hard', 'fades'],
    name: 'torn piston cup or diaphragm',
    plain: 'The piston no longer seals, so air passes it into the tank as long as the brake is applied.',
    apply: moves((p, s) => ({ tear_m3PerSPa: p.tear_m3PerSPa + passage(s) })),
    signs: {},
    confirm:
      'Released, nothing is lost. Applied, the tank falls while it is held, full force is low and the reserve runs down quickly. Opened: light shows through the cup.',
    repair: 'Renew the piston cup or diaphragm; test force and reserve again.',
    parts: ['piston'],
    cautions: OPENING,
  },
  {
    id: 'undersized-piston',
    prior: 4,
    brings: ['hard'],
    name: 'hardened or undersized piston or diaphragm',
    plain: 'The piston works on less area than it should: its diaphragm is hard, or the wrong one.',
    apply: moves((p, s) => ({ effectiveArea_m2: p.effectiveArea_m2 * areaLeft(s) })),
    signs: {},
    confirm:
      'Force is low at every pressure on a good tank, and the tank holds while it is applied. Opened: measure the piston and its diaphragm.',
    repair: 'Renew the diaphragm with the right one; test force again.',
    parts: ['piston'],
    cautions: OPENING,
  },
  {
    id: 'seat-leak-atmosphere',
    prior: 14,
    brings: ['fades', 'hiss'],
    name: 'valve seat leak to atmosphere',
    plain: 'The air valve does not shut, so the tank drains while nothing is done.',
    apply: moves((p, s) => ({ leak_m3PerSPa: p.leak_m3PerSPa + seatLeak(s) })),
    signs: { 'intake-hiss': 'hiss' },
    confirm: 'A hiss at the air intake with the valve released; it stops with the intake blanked.',
    repair: 'Clean or renew the air valve and its seat.',
    parts: ['air-valve'],
    cautions: OPENING,
  },
  {
    id: 'seat-leak-vacuum',
    prior: 8,
    brings: ['hard', 'fades'],
    name: 'valve seat leak to vacuum',
    plain:
      'The vacuum side never quite closes off, so full force is never reached and the tank empties while the brake is held.',
    apply: moves((p, s) => ({ tear_m3PerSPa: p.tear_m3PerSPa + passage(s) })),
    signs: {},
    confirm:
      'Force follows at low pressure and stops rising before full lift; the tank falls while it is held, as with a torn piston. Opened: the piston is sound, and the seat is marked or dirty.',
    repair: 'Clean or renew the vacuum valve and its seat.',
    parts: ['vacuum-valve'],
    cautions: OPENING,
  },
  {
    id: 'valve-sticking',
    prior: 12,
    brings: ['slow', 'drags'],
    name: 'valve sticking',
    plain: 'The valve sticks: the brake comes on late and drags after release.',
    apply: moves((p, s) => ({
      crack_Pa: p.crack_Pa * crackRaised(s),
      residual_N: p.residual_N + dragging(s),
    })),
    signs: { 'lever-back': 'short' },
    confirm: 'Force begins late, and some stays after release until the valve is tapped.',
    repair: 'Strip, clean and free the valve; renew its seals.',
    parts: ['valve'],
    cautions: FLUID_SIDE,
  },
  {
    id: 'check-valve-leak',
    prior: 16,
    brings: ['fades'],
    name: 'non-return valve leak',
    plain: 'The valve toward the engine lets air back, so the tank is empty when the engine stops.',
    apply: moves((p, s) => ({ back_m3PerSPa: p.back_m3PerSPa + tankLeak(s) })),
    signs: { 'line-clamped': 'stops' },
    confirm: 'The loss stops with the line clamped between the tank and the non-return valve.',
    repair: 'Renew the non-return valve, the right way round.',
    parts: ['check-valve'],
    cautions: LINES,
  },
  {
    id: 'tank-leak',
    prior: 14,
    brings: ['fades'],
    name: 'tank or line leak',
    plain: 'The tank, its seams or the line let air in.',
    apply: moves((p, s) => ({ leak_m3PerSPa: p.leak_m3PerSPa + tankLeak(s) })),
    signs: { 'line-clamped': 'goes-on', 'tank-hiss': 'hiss' },
    confirm: 'The loss goes on with the line clamped; a hiss is heard along a seam or joint.',
    repair: 'Mend or renew the tank, the hose or its clips.',
    parts: ['tank', 'vacuum-line'],
    cautions: LINES,
  },
  {
    id: 'restricted-line',
    prior: 8,
    brings: ['slow', 'drags'],
    name: 'restricted line',
    plain: 'The vacuum line is closed up: the brake lets go slowly and the tank fills slowly.',
    apply: moves((p, s) => ({
      line_m3PerSPa: p.line_m3PerSPa * lineLeft(s),
      air_m3PerSPa: p.air_m3PerSPa * lineLeft(s),
    })),
    signs: {},
    confirm: 'Apply, release and pull-down all take too long; a new length of hose cures it.',
    repair: 'Fit new vacuum-rated line of the right bore; clean the air intake.',
    parts: ['vacuum-line', 'intake'],
    cautions: LINES,
  },
  {
    id: 'weak-spring',
    prior: 6,
    brings: ['drags'],
    name: 'weak return spring',
    plain: 'The return spring has gone soft, so the lever does not come fully back and the brake drags.',
    apply: moves((p, s) => ({
      preload_N: p.preload_N * springLeft(s),
      residual_N: p.residual_N + 70 * s,
    })),
    signs: { 'lever-back': 'short' },
    confirm: 'The lever stays short of its stop and moves back by hand. Opened: the spring is short.',
    repair: 'Renew the return spring.',
    parts: ['spring'],
    cautions: OPENING,
  },
  {
    id: 'fluid-seal-leak',
    prior: 8,
    brings: ['fluid'],
    name: 'valve’s fluid seal leak',
    plain: 'Brake fluid passes the valve’s seal into the vacuum side.',
    apply: moves(() => ({})),
    signs: { 'vacuum-side-fluid': 'fluid', 'fluid-level': 'falls' },
    confirm: 'Brake fluid stands in the valve’s air side or the tank.',
    repair: 'Renew the fluid seal; drain and dry the tank and the cylinder.',
    parts: ['fluid-seal'],
    cautions: FLUID_SIDE,
  },
];

/** How far what is looked at can be trusted. Handbook-models 8.2. */
export const looks: readonly Look[] = [
  { item: 'intake-hiss', miss: 0.15, falseAlarm: 0.05 },
  { item: 'tank-hiss', miss: 0.15, falseAlarm: 0.05 },
  { item: 'line-clamped', miss: 0.1, falseAlarm: 0.05 },
  { item: 'lever-back', miss: 0.1, falseAlarm: 0.05 },
  { item: 'vacuum-side-fluid', miss: 0.1, falseAlarm: 0.02 },
  // The same look, by the level and under pressure.
  { item: 'fluid-level', miss: 0.1, falseAlarm: 0.02 },
  { item: 'seep-valve', miss: 0.1, falseAlarm: 0.03 },
];
