/**
 * A feed with resistance, and a load behind it that takes a constant power: the control unit of a motor holds the motor's current
 * whatever the voltage. Handbook-models 8.8.
 */

/** Resistivity of copper at 20 °C, Ω·m. IEC 60028. */
export const COPPER_OHMM = 1.724e-8;

/**
 * Resistance of a run of wire, there and back, Ω: 2·L·ρ/A. Handbook 11.
 *
 * @param length_m one way, more than nothing
 * @param area_m2 cross-section of the copper, more than nothing
 * @throws RangeError where either is not
 */
export function runResistance_Ohm(length_m: number, area_m2: number): number {
  if (!(length_m > 0)) throw new RangeError(`length_m: ${length_m} m must be more than nothing`);
  if (!(area_m2 > 0)) throw new RangeError(`area_m2: ${area_m2} m² must be more than nothing`);
  return (2 * length_m * COPPER_OHMM) / area_m2;
}

/**
 * Power that a motor takes to hold a current, W: R_m·I² + P₀. The current goes with the force, and so the power with its square.
 *
 * @example holdingPower_W({ winding_Ohm: 0.09, idle_W: 8 }, 50) is 233
 */
export const holdingPower_W = ({ winding_Ohm, idle_W }: Motor, current_A: number): number =>
  winding_Ohm * current_A ** 2 + idle_W;

/** Current that so much power holds, A: what `holdingPower_W` says, the other way; none where it is less than the control unit takes. */
export const heldByPower_A = ({ winding_Ohm, idle_W }: Motor, power_W: number): number =>
  Math.sqrt(Math.max(0, power_W - idle_W) / winding_Ohm);

export interface Motor {
  readonly winding_Ohm: number;
  /** What its control unit takes with no current in the motor, W. */
  readonly idle_W: number;
}

/**
 * Voltage at the terminals of a load of constant power, V: V_t = ½·[V_b + √(V_b² − 4·R_w·P)], the higher of the two voltages at which
 * the feed passes that power.
 *
 * @param battery_V of the battery with nothing drawn, above 0
 * @param feed_Ohm of battery, feed and earth together, 0 or more
 * @returns null where the feed passes no such power: the load drops out
 * @example terminals_V(12.6, 0.02, 233) is 12.22; the feed then carries 233/12.22 = 19.1 A
 */
export function terminals_V(battery_V: number, feed_Ohm: number, power_W: number): number | null {
  const under = battery_V ** 2 - 4 * feed_Ohm * power_W;
  return under < 0 ? null : (battery_V + Math.sqrt(under)) / 2;
}

/**
 * Most current that a motor can hold, A: its own limit, or what its feed leaves it before its control unit switches off at a voltage.
 * I_m = min(I_lim, √((V_cut·(V_b − V_cut)/R_w − P₀)⁺/R_m)). A feed with more resistance runs out earlier, with the same gain before.
 *
 * @param cutOff_V voltage at which the control unit switches off; at least half of the battery's, since less cannot stand there
 * @throws RangeError where it is less
 * @example motorLimit_A({ winding_Ohm: 0.09, idle_W: 8 }, { limit_A: 60, cutOff_V: 9.5 }, 12, 0.12) is 45.9
 */
export function motorLimit_A(
  motor: Motor,
  { limit_A, cutOff_V }: { readonly limit_A: number; readonly cutOff_V: number },
  battery_V: number,
  feed_Ohm: number,
): number {
  if (cutOff_V < battery_V / 2)
    throw new RangeError(`cutOff_V: ${cutOff_V} V is less than half of the battery’s ${battery_V} V`);
  if (battery_V <= cutOff_V) return 0;
  if (feed_Ohm === 0) return limit_A;
  return Math.min(limit_A, heldByPower_A(motor, (cutOff_V * (battery_V - cutOff_V)) / feed_Ohm));
}
