import type { CautionId } from '../../contract/cautions';
import { INHG_PA } from '../../quantities/units';
import { moving } from '../../model/vectors';
import { type Fault } from '../../contract/family';
import { leakAtSea_m3PerSPa } from '../healthy-leak';
import { parameters } from './twin';

const BAR = 1e5;

/** Air leak that costs a 9.5 L tank so many inHg/min at sea level, m³/(s·Pa). */
const leak = (inHgPerMin: number) => leakAtSea_m3PerSPa((inHgPerMin * INHG_PA) / 60, 9.5e-3);

const moves = moving(parameters);
const OPENING: readonly CautionId[] = ['spring-casing', 'open-line'];
const LINES: readonly CautionId[] = ['open-line'];
const FLUID_SIDE: readonly CautionId[] = ['fluids', 'open-line'];

/** Faults of a rod-acting servo, named as in handbook 8.2. */
export const faults: readonly Fault[] = [
  {
    id: 'torn-piston',
    name: 'torn piston cup or diaphragm',
    plain:
      'The piston no longer seals, so the vacuum pushes on less area and every application costs more of it.',
    apply: moves((p, s) => ({
      effectiveArea_m2: p.effectiveArea_m2 * (1 - 0.55 * s),
      airUse: p.airUse * (1 + 2 * s),
    })),
    signs: {},
    confirm:
      'Force is low at every pressure on a good tank, and the reserve runs down quickly. Opened: light shows through the cup.',
    repair: 'Renew the piston cup or diaphragm; test force and reserve again.',
    parts: ['piston'],
    cautions: OPENING,
  },
  {
    id: 'seat-leak-atmosphere',
    name: 'valve seat leak to atmosphere',
    plain: 'The air valve does not shut, so the tank drains while nothing is done.',
    apply: moves((p, s) => ({ leak_m3PerSPa: p.leak_m3PerSPa + leak(5) * s })),
    signs: { 'intake-hiss': 'hiss' },
    confirm: 'A hiss at the air intake with the valve released; it stops with the intake blanked.',
    repair: 'Clean or renew the air valve and its seat.',
    parts: ['air-valve'],
    cautions: OPENING,
  },
  {
    id: 'seat-leak-vacuum',
    name: 'valve seat leak to vacuum',
    plain: 'The vacuum side never quite closes off, so full force is never reached.',
    apply: moves((p, s) => ({ fullShare: p.fullShare * (1 - 0.45 * s), airUse: p.airUse * (1 + s) })),
    signs: {},
    confirm:
      'Force follows at low pressure and stops rising before full lift; the tank falls while it is held.',
    repair: 'Clean or renew the vacuum valve and its seat.',
    parts: ['vacuum-valve'],
    cautions: OPENING,
  },
  {
    id: 'valve-sticking',
    name: 'valve sticking',
    plain: 'The valve sticks: the brake comes on late and drags after release.',
    apply: moves((p, s) => ({
      crack_Pa: p.crack_Pa + 2 * BAR * s,
      residual_N: p.residual_N + 180 * s,
    })),
    signs: { 'lever-back': 'short' },
    confirm: 'Force begins late, and some stays after release until the valve is tapped.',
    repair: 'Strip, clean and free the valve; renew its seals.',
    parts: ['valve'],
    cautions: FLUID_SIDE,
  },
  {
    id: 'check-valve-leak',
    name: 'non-return valve leak',
    plain: 'The valve toward the engine lets air back, so the tank is empty when the engine stops.',
    apply: moves((p, s) => ({ leak_m3PerSPa: p.leak_m3PerSPa + leak(8) * s })),
    signs: { 'line-clamped': 'stops' },
    confirm: 'The loss stops with the line clamped between the tank and the non-return valve.',
    repair: 'Renew the non-return valve, the right way round.',
    parts: ['check-valve'],
    cautions: LINES,
  },
  {
    id: 'tank-leak',
    name: 'tank or line leak',
    plain: 'The tank, its seams or the line let air in.',
    apply: moves((p, s) => ({ leak_m3PerSPa: p.leak_m3PerSPa + leak(6) * s })),
    signs: { 'line-clamped': 'goes-on', 'tank-hiss': 'hiss' },
    confirm: 'The loss goes on with the line clamped; a hiss is heard along a seam or joint.',
    repair: 'Mend or renew the tank, the hose or its clips.',
    parts: ['tank', 'vacuum-line'],
    cautions: LINES,
  },
  {
    id: 'restricted-line',
    name: 'restricted line',
    plain: 'The vacuum line is closed up: the brake lets go slowly and the tank fills slowly.',
    apply: moves((p, s) => ({
      line_m3PerSPa: p.line_m3PerSPa * (1 - 0.92 * s),
      air_m3PerSPa: p.air_m3PerSPa * (1 - 0.75 * s),
    })),
    signs: {},
    confirm: 'Apply, release and pull-down all take too long; a new length of hose cures it.',
    repair: 'Fit new vacuum-rated line of the right bore; clean the air intake.',
    parts: ['vacuum-line', 'intake'],
    cautions: LINES,
  },
  {
    id: 'weak-spring',
    name: 'weak return spring',
    plain: 'The return spring has gone soft, so the lever does not come fully back and the brake drags.',
    apply: moves((p, s) => ({
      preload_N: p.preload_N * (1 - 0.7 * s),
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
