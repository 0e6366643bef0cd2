/** A suspended diaphragm unit whose source has stopped, its check valve tight. SI. */
export interface ReserveUnit {
  /** Front volume at rest, m³. */
  readonly front_m3: number;
  /** Rear volume at rest, m³. */
  readonly rear_m3: number;
  /** Effective area, m². */
  readonly area_m2: number;
  /** Stroke of a full application, m. */
  readonly stroke_m: number;
  /** Tank behind the check valve, m³; 0 without one. */
  readonly tank_m3: number;
}

/**
 * Depression left after one application and release, Pa: the air let in behind the diaphragm spreads over the whole. A full
 * one lets in air to the barometer, Δp′ = (Δp·(V_f + V_t) − p_atm·A·x) / (V_f + V_r + V_t), never below 0. Handbook 4. One
 * that is let go before the rear is full keeps p_w there: Δp′ = (Δp·(V_f + V_t) + p_atm·V_r − p_w·(V_r + A·x)) / whole.
 *
 * @param rear_Pa what the rear was filled to, absolute, at most the barometer
 * @throws RangeError where the depression is not between 0 and the barometer
 * @example 20 inHg, 4.0 L, 0.3 L, 0.04 m², 15 mm, no tank at sea level → 14.4 inHg
 */
export function depressionAfterStroke_Pa(
  depression_Pa: number,
  unit: ReserveUnit,
  barometer_Pa: number,
  rear_Pa = barometer_Pa,
): number {
  if (!(depression_Pa >= 0 && depression_Pa <= barometer_Pa))
    throw new RangeError(`depression_Pa: ${depression_Pa} is not between 0 and the barometer`);
  const { front_m3, rear_m3, area_m2, stroke_m, tank_m3 } = unit;
  const kept =
    depression_Pa * (front_m3 + tank_m3) + barometer_Pa * rear_m3 - rear_Pa * (rear_m3 + area_m2 * stroke_m);
  return Math.max(0, kept / (front_m3 + rear_m3 + tank_m3));
}

/**
 * Depression behind a full application while it stands, Pa: the stroke has pressed the front volume together,
 * p_front·(V_f + V_t) = p′·(V_f + V_t − A·x). Handbook 4 (isothermal). What it would press above the room goes out past
 * the check valve, so no more than that valve opens at stands there above the room: a depression below 0.
 *
 * @param crack_Pa difference at which the check valve opens, zero or more
 * @example 20 inHg, 4.0 L, 0.04 m², 15 mm, no tank at sea level: (101 325 − 67 728)·4.0/3.4 = 39 526 Pa abs → 18.2 inHg
 */
export function depressionAtStroke_Pa(
  depression_Pa: number,
  { front_m3, area_m2, stroke_m, tank_m3 }: ReserveUnit,
  barometer_Pa: number,
  crack_Pa = 0,
): number {
  const volume_m3 = front_m3 + tank_m3;
  const pressed_m3 = volume_m3 - area_m2 * stroke_m;
  if (!(pressed_m3 > 0)) return -crack_Pa;
  return Math.max(-crack_Pa, barometer_Pa - ((barometer_Pa - depression_Pa) * volume_m3) / pressed_m3);
}

/** Depressions after each application in turn, until none is left or `most` were made. */
export function reserveSeries_Pa(
  depression_Pa: number,
  unit: ReserveUnit,
  barometer_Pa: number,
  most = 20,
): number[] {
  const series: number[] = [];
  for (let left = depression_Pa; series.length < most && left > 0;) {
    left = depressionAfterStroke_Pa(left, unit, barometer_Pa);
    series.push(left);
  }
  return series;
}
