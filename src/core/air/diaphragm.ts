/** A diaphragm that pushes a slave piston into its line: the push rod takes its own area off the input's side. SI. */
export interface SlaveCylinder {
  readonly slaveArea_m2: number;
  readonly rodArea_m2: number;
  readonly spring_N: number;
}

/** A piston in a cylinder that pushes a rod against a return spring, helped by the fluid at its valve. SI. */
export interface RodPush {
  readonly preload_N: number;
  /** Area on which the fluid itself pushes the rod; 0 where it does not. */
  readonly pushArea_m2: number;
}

/** Part of the input that acts along the output: the push rod takes the rest of the piston's area. Handbook 8.1. */
export const inputPart = ({ rodArea_m2, slaveArea_m2 }: Pick<SlaveCylinder, 'rodArea_m2' | 'slaveArea_m2'>) =>
  1 - rodArea_m2 / slaveArea_m2;

/**
 * Output at which the slave piston stands, Pa, were nothing to hold it up: out = k·in + (Δp·A − F_s)/A_slave. Handbook 8.1.
 *
 * @param difference_Pa across the diaphragm
 */
export const slaveOutput_Pa = (
  cylinder: SlaveCylinder,
  input_Pa: number,
  difference_Pa: number,
  area_m2: number,
): number =>
  inputPart(cylinder) * input_Pa + (difference_Pa * area_m2 - cylinder.spring_N) / cylinder.slaveArea_m2;

/**
 * The same balance asked for the area that the diaphragm works with, m²: A = ((out − k·in)·A_slave + F_s)/Δp. Handbook 6.
 * NaN where there is no difference to divide by.
 */
export const slaveDiaphragmArea_m2 = (
  cylinder: SlaveCylinder,
  input_Pa: number,
  difference_Pa: number,
  output_Pa: number,
): number =>
  difference_Pa > 0
    ? ((output_Pa - inputPart(cylinder) * input_Pa) * cylinder.slaveArea_m2 + cylinder.spring_N) /
      difference_Pa
    : NaN;

/**
 * Force that the pressures make before the return spring gives way, N: Δp·A + p·A_push − F_s0. Handbook 8.2.
 *
 * @param difference_Pa across the piston
 */
export const rodPush_N = (rod: RodPush, input_Pa: number, difference_Pa: number, area_m2: number): number =>
  difference_Pa * area_m2 + input_Pa * rod.pushArea_m2 - rod.preload_N;

/** The same balance asked for the area of the piston, m²: A = (push + F_s0 − p·A_push)/Δp. Handbook 6. NaN without a difference. */
export const rodPistonArea_m2 = (
  rod: RodPush,
  input_Pa: number,
  difference_Pa: number,
  push_N: number,
): number =>
  difference_Pa > 0 ? (push_N + rod.preload_N - input_Pa * rod.pushArea_m2) / difference_Pa : NaN;

/**
 * Area that pushes, from two pressures of a master cylinder at one pedal force, with assist and without, m²:
 * A = (p_a − p_u)·A_mc/Δp. Spring and friction cancel. Below runout it is a lower bound. Handbook-models 8.3.
 *
 * @returns NaN without vacuum
 * @example 78.3 and 24.5 bar, 3.871 cm², 65 kPa: 0.0320 m²
 */
export const pushingArea_m2 = ({
  with_Pa,
  without_Pa,
  vacuum_Pa,
  masterArea_m2,
}: {
  readonly with_Pa: number;
  readonly without_Pa: number;
  readonly vacuum_Pa: number;
  readonly masterArea_m2: number;
}): number => (vacuum_Pa > 0 ? ((with_Pa - without_Pa) * masterArea_m2) / vacuum_Pa : NaN);
