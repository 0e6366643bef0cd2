/** A stop from a speed at a deceleration that is there after a delay and a rise. SI. */
export interface Stop {
  readonly speed_mPerS: number;
  readonly deceleration_mPerS2: number;
  /** Until the brake begins, and from there until all of it is on, s. */
  readonly delay_s: number;
  readonly rise_s: number;
}

/**
 * Stopping distance, m: s = v·(t_d + t_r/2) + v²/2a − a·t_r²/24, the deceleration rising evenly. Handbook 11.
 *
 * @throws RangeError where nothing slows the vehicle down
 * @example 0.2 s more of delay at 100 km/h is 5.6 m
 */
export function stoppingDistance_m({ speed_mPerS, deceleration_mPerS2, delay_s, rise_s }: Stop): number {
  if (!(deceleration_mPerS2 > 0))
    throw new RangeError(`deceleration_mPerS2: ${deceleration_mPerS2} slows nothing down`);
  return (
    speed_mPerS * (delay_s + rise_s / 2) +
    speed_mPerS ** 2 / (2 * deceleration_mPerS2) -
    (deceleration_mPerS2 * rise_s ** 2) / 24
  );
}

/** What both main rule families come to for passenger cars with their assist failed. Handbook 11. */
export const FAILED_ASSIST = { pedal_N: 500, speed_mPerS: 100 / 3.6 } as const;

/** Longest stop with the assist failed, m: 0.1·v + 0.0158·v², v in km/h. Handbook 11. */
export function failedAssistLimit_m(speed_mPerS: number): number {
  const speed_kmPerH = 3.6 * speed_mPerS;
  return 0.1 * speed_kmPerH + 0.0158 * speed_kmPerH ** 2;
}

/** Time that the rule of a failed assist allows until the brake is on, s: its 0.1·v, v in km/h. Handbook 11. */
const RESPONSE_S = 0.36;

/** Deceleration with which that rule is just kept, m/s²: its 0.0158·v², v in km/h, as v²/2a. Handbook 11. */
export const FAILED_ASSIST_MPERS2 = 1 / (2 * 0.0158 * 3.6 ** 2);

/**
 * Stopping distance as the rule of a failed assist reckons it, m: 0.1·v and v²/2a.
 *
 * @throws RangeError where nothing slows the vehicle down
 */
export const failedAssistStop_m = (speed_mPerS: number, deceleration_mPerS2: number): number =>
  stoppingDistance_m({ speed_mPerS, deceleration_mPerS2, delay_s: RESPONSE_S, rise_s: 0 });

/** Part of a vehicle's energy of motion that turns with its wheels and engine. Handbook-models 11. */
const TURNING = 1.04;

/** Energy of motion, J: ½·m·λ·v². Handbook-models 11. */
export const motionEnergy_J = (mass_kg: number, speed_mPerS: number): number =>
  0.5 * mass_kg * TURNING * speed_mPerS ** 2;
