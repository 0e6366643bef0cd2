/**
 * A closed line and what hangs on it: what trapped air takes up at low pressure, and the stiffness of all the rest.
 * V(p) = V_air·(1 − p_atm/(p_atm + p)) + c·p. Handbook 6, pressure–volume.
 */
export interface ClosedLine {
  readonly air_m3: number;
  readonly stiffness_m3PerPa: number;
}

/** A bench's plugged port: short pipe, hardly any air. */
export const PLUGGED_PORT: ClosedLine = { air_m3: 5e-8, stiffness_m3PerPa: 1.2e-13 };

/** Volume taken up at a pressure, m³. */
export const takenUp_m3 = (
  { air_m3, stiffness_m3PerPa }: ClosedLine,
  pressure_Pa: number,
  barometer_Pa: number,
) => air_m3 * (1 - barometer_Pa / (barometer_Pa + pressure_Pa)) + stiffness_m3PerPa * pressure_Pa;

/**
 * Pressure at a volume taken up, Pa: `takenUp_m3` the other way round, which is the root above zero of
 * c·p² + (c·p_atm + V_air − V)·p − V·p_atm = 0. Handbook-models, loads on fluid lines.
 */
export function pressureOf_Pa(
  { air_m3, stiffness_m3PerPa }: ClosedLine,
  volume_m3: number,
  barometer_Pa: number,
): number {
  if (volume_m3 <= 0) return 0;
  const half = (stiffness_m3PerPa * barometer_Pa + air_m3 - volume_m3) / 2;
  const root = Math.sqrt(half * half + stiffness_m3PerPa * volume_m3 * barometer_Pa);
  // Of the two ways to write the root, the one that takes no two nearly equal numbers from each other.
  return half > 0 ? (volume_m3 * barometer_Pa) / (half + root) : (root - half) / stiffness_m3PerPa;
}

/** How much more a line takes up for a little more pressure, m³/Pa: the slope of V(p). */
export const lineGive_m3PerPa = (
  { air_m3, stiffness_m3PerPa }: ClosedLine,
  pressure_Pa: number,
  barometer_Pa: number,
) => (air_m3 * barometer_Pa) / (barometer_Pa + pressure_Pa) ** 2 + stiffness_m3PerPa;

/** The clearances are taken up over the first half bar: all at once the volume would jump. Handbook-models 8.3. */
export const TAKEN_UP_AT_PA = 5e4;

/** The line to brakes whose clearances are taken up first. */
export interface BrakeLine extends ClosedLine {
  readonly takeUp_m3: number;
}

/** Volume that a line to brakes has taken at a pressure, m³: V₀·min(1, p/0.5 bar) and what the line takes up. Handbook-models, loads. */
export const brakeVolume_m3 = (line: BrakeLine, pressure_Pa: number, barometer_Pa: number): number =>
  line.takeUp_m3 * Math.min(1, pressure_Pa / TAKEN_UP_AT_PA) + takenUp_m3(line, pressure_Pa, barometer_Pa);

/** How much more it takes for a little more pressure, m³/Pa. */
export const brakeGive_m3PerPa = (line: BrakeLine, pressure_Pa: number, barometer_Pa: number): number =>
  (pressure_Pa < TAKEN_UP_AT_PA ? line.takeUp_m3 / TAKEN_UP_AT_PA : 0) +
  lineGive_m3PerPa(line, Math.max(0, pressure_Pa), barometer_Pa);
