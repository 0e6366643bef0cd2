/** A capacitor that keeps brakes going for some stops once the supply has gone. Handbook-models 8.9. */

/** Where a maker states no time to wait before it is touched, s. Handbook 2. */
export const UNSTATED_WAIT_S = 900;

export interface Capacitor {
  /** Capacitance, F, more than nothing. */
  readonly capacitance_F: number;
  /** What it stands at, V. */
  readonly charged_V: number;
}

const known = ({ capacitance_F, charged_V }: Capacitor): void => {
  if (!(capacitance_F > 0))
    throw new RangeError(`capacitance_F: ${capacitance_F} F must be more than nothing`);
  if (!(charged_V >= 0)) throw new RangeError(`charged_V: ${charged_V} V must not be below zero`);
};

/**
 * How long to wait before its voltage is measured, s: the longest of R·C·ln(U₀/U_safe) and what the maker states, or 15 minutes where
 * nothing is stated. **The reading opens the gate, and no wait does.**
 *
 * @param bleed_Ohm what it is discharged through, more than nothing
 * @param safe_V below this it may be worked at, more than nothing
 * @param stated_s what the maker states; null where that is nothing
 * @throws RangeError naming what cannot be
 * @example discharge_s({ capacitance_F: 0.02, charged_V: 13.5 }, 1000, 5, 60) is 60: 19.9 s by itself
 */
export function discharge_s(
  capacitor: Capacitor,
  bleed_Ohm: number,
  safe_V: number,
  stated_s: number | null,
): number {
  known(capacitor);
  if (!(bleed_Ohm > 0)) throw new RangeError(`bleed_Ohm: ${bleed_Ohm} Ω must be more than nothing`);
  if (!(safe_V > 0)) throw new RangeError(`safe_V: ${safe_V} V must be more than nothing`);
  const { capacitance_F, charged_V } = capacitor;
  const byItself_s = bleed_Ohm * capacitance_F * Math.log(Math.max(1, charged_V / safe_V));
  return Math.max(byItself_s, stated_s ?? UNSTATED_WAIT_S);
}

/** What one stop takes, and what goes on until the next. */
export interface StopLoad {
  /** Energy of a stop, J. */
  readonly stop_J: number;
  /** Standing load, W, and time from one stop to the next, s. */
  readonly standing_W: number;
  readonly apart_s: number;
}

/**
 * Whole stops that it is good for with the supply off: ⌊½·C·(U₀² − U_m²)⁺/(E_s + P_s·t_s)⌋. It is used up at U_m = U_min + I·R_esr, since
 * its own resistance takes a part of what stands in it.
 *
 * @param least_V least voltage at the control unit, V
 * @param drop_V current of a stop times its own resistance, V
 * @throws RangeError naming what cannot be, or where a stop takes nothing
 * @example stopsLeft({ capacitance_F: 20, charged_V: 13.5 }, { stop_J: 350, standing_W: 0, apart_s: 0 }, 9.6, 0) is 2
 */
export function stopsLeft(
  capacitor: Capacitor,
  { stop_J, standing_W, apart_s }: StopLoad,
  least_V: number,
  drop_V: number,
): number {
  known(capacitor);
  const each_J = stop_J + standing_W * apart_s;
  if (!(each_J > 0)) throw new RangeError(`stop_J: ${stop_J} J: a stop takes something`);
  const { capacitance_F, charged_V } = capacitor;
  const usable_J = (capacitance_F / 2) * Math.max(0, charged_V ** 2 - (least_V + drop_V) ** 2);
  return Math.floor(usable_J / each_J);
}
