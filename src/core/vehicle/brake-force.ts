import { heldBack_Pa, type HeldBack } from '../fluid/held-back';

/** Brakes of a vehicle as forces for pressures. SI. */
export interface Brakes extends HeldBack {
  /** Force of each axle for a pressure, N/Pa: 4·μ·A_piston·r_eff/r_tyre for a pair of discs. Handbook-models 11. */
  readonly front_NPerPa: number;
  readonly rear_NPerPa: number;
  /** Pressure that presses nothing yet, Pa. */
  readonly contact_Pa: number;
}

/** Force of an axle of two discs for a pressure, N/Pa. */
export const axleGain_NPerPa = (
  friction: number,
  pistonArea_m2: number,
  effectiveRadius_m: number,
  tyreRadius_m: number,
): number => (4 * friction * pistonArea_m2 * effectiveRadius_m) / tyreRadius_m;

/** Brake force of each axle at a line pressure, N. */
export function axleForces_N(
  { front_NPerPa, rear_NPerPa, contact_Pa, ...valve }: Brakes,
  pressure_Pa: number,
): { readonly front_N: number; readonly rear_N: number } {
  const rear_Pa = heldBack_Pa(valve, pressure_Pa);
  return {
    front_N: front_NPerPa * Math.max(0, pressure_Pa - contact_Pa),
    rear_N: rear_NPerPa * Math.max(0, rear_Pa - contact_Pa),
  };
}

/**
 * Line pressure for a brake force, Pa: F/(K_f + K_r) + p_c up to the split, beyond it
 * [F + K_f·p_c − K_r·(split·(1 − slope) − p_c)]/(K_f + slope·K_r). Handbook-models 11.
 */
export function pressureFor_Pa(
  { front_NPerPa, rear_NPerPa, contact_Pa, split_Pa, slope }: Brakes,
  force_N: number,
): number {
  const straight_Pa = force_N / (front_NPerPa + rear_NPerPa) + contact_Pa;
  if (straight_Pa <= split_Pa) return straight_Pa;
  return (
    (force_N + front_NPerPa * contact_Pa - rear_NPerPa * (split_Pa * (1 - slope) - contact_Pa)) /
    (front_NPerPa + slope * rear_NPerPa)
  );
}

/** Pedal force that makes a line pressure with the assist failed, N: (p·A_mc + F_s)/i. Handbook-models 11. */
export const unassistedPedal_N = (
  pressure_Pa: number,
  { masterArea_m2, spring_N, pedalRatio }: { masterArea_m2: number; spring_N: number; pedalRatio: number },
): number => (pressure_Pa * masterArea_m2 + spring_N) / pedalRatio;
