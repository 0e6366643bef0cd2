import type { SharedParameters } from './parameters';

type Corner = Pick<SharedParameters, 'weight_N' | 'spring_NPerM' | 'free_m'>;

/** Height at which a corner stands on its spring alone, m: h₀ − W/k_w. Handbook-models 8.6. */
export const onSprings_m = ({ free_m, weight_N, spring_NPerM }: Corner): number =>
  free_m - weight_N / spring_NPerM;

/** Pressure in the rams as the height valve keeps a height, Pa: max(0, W − k_w·(h₀ − h_t))/(A_r·i_r). Handbook-models 8.6. */
export const ramPressure_Pa = (
  corner: Corner & Pick<SharedParameters, 'trim_m' | 'ramArea_m2' | 'ramRatio'>,
): number =>
  Math.max(0, corner.weight_N - corner.spring_NPerM * (corner.free_m - corner.trim_m)) /
  (corner.ramArea_m2 * corner.ramRatio);

/** Height with the rams fed, m: what the valve keeps, or higher where the springs alone carry it there. They have no more than is stored. */
export function trimmed_m(
  p: Corner & Pick<SharedParameters, 'trim_m' | 'ramArea_m2' | 'ramRatio'>,
  stored_Pa: number,
): number {
  const ram_Pa = Math.min(Math.max(0, stored_Pa), ramPressure_Pa(p));
  return p.free_m - (p.weight_N - ram_Pa * p.ramArea_m2 * p.ramRatio) / p.spring_NPerM;
}

/** Part of the weight that the springs carry at the kept height: (h₀ − h_t)/(h₀ − h_s). */
export const springsCarry = (free_m: number, trim_m: number, onSprings: number): number =>
  (free_m - trim_m) / (free_m - onSprings);

/**
 * What a bump brings to the rear brakes past the restrictor, Pa: p_dyn/(1 + (d_line/d_r)⁴). Handbook-models 8.6.
 */
export const nudge_Pa = ({
  bump_Pa,
  lineBore_m,
  restrictor_m,
}: Pick<SharedParameters, 'bump_Pa' | 'lineBore_m' | 'restrictor_m'>): number =>
  bump_Pa / (1 + (lineBore_m / restrictor_m) ** 4);

/** Corners of the axle that is levelled. */
const CORNERS = 2;

/** Time in which both rams lift the body by a way, s: A_r·i_r·Δh/q of each. Handbook-models 8.6. */
export const rise_s = (
  { ramArea_m2, ramRatio, lift_m }: Pick<SharedParameters, 'ramArea_m2' | 'ramRatio' | 'lift_m'>,
  flow_m3PerS: number,
): number => (CORNERS * ramArea_m2 * ramRatio * lift_m) / flow_m3PerS;
