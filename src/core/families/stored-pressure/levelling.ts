import type { SharedParameters } from './parameters';

type Corner = Pick<SharedParameters, 'weight_N' | 'spring_NPerM' | 'free_m'>;

/** Height at which a corner stands on its spring alone, m: h₀ − W/k_w. Handbook-models 8.6. */
export const onSprings_m = ({ free_m, weight_N, spring_NPerM }: Corner): number =>
  free_m - weight_N / spring_NPerM;

/** Pressure in the rams as the height valve keeps a height, Pa: max(0, W − k_w·(h₀ − h_t))/(A_r·i_r). Handbook-models 8.6. */
export const ramPressure_Pa = (
  corner: Corner & Pick<SharedParameters, 'trim_m' | 'ramArea_m2' | 'ramRatio'>,
): number => ramAt_Pa(corner, corner.trim_m);

/** Pressure in the rams while the body stands at a height, Pa. */
export const ramAt_Pa = (
  p: Corner & Pick<SharedParameters, 'ramArea_m2' | 'ramRatio'>,
  height_m: number,
): number => Math.max(0, p.weight_N - p.spring_NPerM * (p.free_m - height_m)) / (p.ramArea_m2 * p.ramRatio);

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

/** In which of its modes the levelling works: restricted in gear, fast when parked with a door open. */
export type Mode = 'gear' | 'parked';

/** A body that is lifted with less than this does not rise, m³/s. */
const LEAST_FLOW = 1e-9;

/** Flow that lifts the body, m³/s: what the mode lets through, and no more than the pump gives. A restrictor that stays open restricts nothing. */
export const lifting_m3PerS = (
  { gear_m3PerS, parked_m3PerS }: Pick<SharedParameters, 'gear_m3PerS' | 'parked_m3PerS'>,
  mode: Mode,
  pump_m3PerS: number,
): number =>
  Math.max(
    LEAST_FLOW,
    Math.min(pump_m3PerS, mode === 'gear' ? Math.min(gear_m3PerS, parked_m3PerS) : parked_m3PerS),
  );

/** Corners of the axle that is levelled. */
export const CORNERS = 2;

/** Time in which both rams lift the body by a way, s: A_r·i_r·Δh/q of each. Handbook-models 8.6. */
export const rise_s = (
  { ramArea_m2, ramRatio, lift_m }: Pick<SharedParameters, 'ramArea_m2' | 'ramRatio' | 'lift_m'>,
  flow_m3PerS: number,
): number => (CORNERS * ramArea_m2 * ramRatio * lift_m) / flow_m3PerS;
