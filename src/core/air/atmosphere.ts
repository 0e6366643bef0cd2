/** Standard sea-level pressure, Pa (ISO 2533). */
export const SEA_LEVEL_PA = 101_325;
const LAPSE_PER_M = 2.25577e-5;
const EXPONENT = 5.25588;

/**
 * Standard air pressure at an altitude. A measured station barometer wins over it.
 *
 * @param altitude_m geopotential height, −500 to 11 000 m
 * @returns Pa absolute
 * @throws RangeError outside the troposphere, where the formula does not hold
 * @see ISO 2533 / ICAO standard atmosphere; handbook 4
 * @example standardPressure_Pa(1600) → 83 524 Pa (24.66 inHg)
 */
export function standardPressure_Pa(altitude_m: number): number {
  if (!(altitude_m >= -500 && altitude_m <= 11_000)) {
    throw new RangeError(`altitude_m: ${altitude_m} is outside −500 to 11 000 m`);
  }
  return SEA_LEVEL_PA * (1 - LAPSE_PER_M * altitude_m) ** EXPONENT;
}
