/** Brakes that are pressed out of an accumulator through valves, and by the foot alone once the power has gone. Handbook-models 8.9. */

/** A pedal simulator with two stages. */
export interface Simulator {
  readonly master_m2: number;
  readonly piston_m2: number;
  readonly preload_N: number;
  readonly first_NPerM: number;
  readonly second_NPerM: number;
  /** Way of its piston at which the second stage begins, m. */
  readonly second_m: number;
}

/**
 * Pressure that a simulator sets against a stroke of the master, Pa: s_s = s·A_mc/A_s; [F₀ + k₁·min(s_s, s₁) + k₂·(s_s − s₁)⁺]/A_s.
 * More stroke than the pressure explains: air, or an isolation valve that leaks.
 */
export function simulated_Pa(
  { master_m2, piston_m2, preload_N, first_NPerM, second_NPerM, second_m }: Simulator,
  stroke_m: number,
): number {
  if (stroke_m <= 0) return 0;
  const way_m = (stroke_m * master_m2) / piston_m2;
  const force_N =
    preload_N + first_NPerM * Math.min(way_m, second_m) + second_NPerM * Math.max(0, way_m - second_m);
  return force_N / piston_m2;
}

/**
 * Stroke of the master at which a simulator sets a pressure, m: the inverse of `simulated_Pa`. Nothing where its preload alone holds
 * as much.
 */
export function simulatorStroke_m(
  { master_m2, piston_m2, preload_N, first_NPerM, second_NPerM, second_m }: Simulator,
  pressure_Pa: number,
): number {
  const spring_N = Math.max(0, pressure_Pa * piston_m2 - preload_N);
  const knee_N = first_NPerM * second_m;
  const way_m = spring_N <= knee_N ? spring_N / first_NPerM : second_m + (spring_N - knee_N) / second_NPerM;
  return (way_m * piston_m2) / master_m2;
}

/** Current at which a valve opens against a difference of pressure, A: I₀ − κ·Δp. It depends on the pressure: what is right at one is not at another. */
export const opensAt_A = (
  { zero_A, perPressure_APerPa }: { readonly zero_A: number; readonly perPressure_APerPa: number },
  difference_Pa: number,
): number => zero_A - perPressure_APerPa * difference_Pa;

/**
 * Time in which a wheel comes from 10 to 90 % of a pressure out of an accumulator, s: (2·c_w/g)·[√(p_acc − p₁₀) − √(p_acc − p₉₀)].
 *
 * @param give_m3PerPa of the wheel's brake, c_w
 * @param valve_m3PerSRootPa flow of the apply valve for a root of a pascal, g
 * @returns Infinity where the accumulator does not come to it
 */
export function riseTime_s(
  accumulator_Pa: number,
  wheel_Pa: number,
  give_m3PerPa: number,
  valve_m3PerSRootPa: number,
): number {
  if (accumulator_Pa < 0.9 * wheel_Pa) return Infinity;
  const [low, high] = [0.1, 0.9].map((part) => Math.sqrt(accumulator_Pa - part * wheel_Pa)) as [
    number,
    number,
  ];
  return ((2 * give_m3PerPa) / valve_m3PerSRootPa) * (low - high);
}

/** What joins a foot to the wheels once the power has gone. */
export interface Fallback {
  readonly pedalRatio: number;
  readonly spring_N: number;
  readonly master_m2: number;
  readonly stroke_m: number;
  /** Volume that takes up the clearances of the wheels joined, m³, and their give, m³/Pa. */
  readonly takeUp_m3: number;
  readonly give_m3PerPa: number;
}

/**
 * Pressure that a foot comes to with no power, Pa, and what it runs out of first: min((i·F − F_s)⁺/A_mc, (A_mc·stroke − V₀)⁺/c). A small
 * bore makes more of a force, and may run out of stroke.
 */
export function fallback_Pa(
  { pedalRatio, spring_N, master_m2, stroke_m, takeUp_m3, give_m3PerPa }: Fallback,
  pedal_N: number,
): { readonly byForce_Pa: number; readonly byStroke_Pa: number; readonly at_Pa: number } {
  const byForce_Pa = Math.max(0, pedalRatio * pedal_N - spring_N) / master_m2;
  const byStroke_Pa = Math.max(0, master_m2 * stroke_m - takeUp_m3) / give_m3PerPa;
  return { byForce_Pa, byStroke_Pa, at_Pa: Math.min(byForce_Pa, byStroke_Pa) };
}
