import { rootOfFalling } from '../numeric/root';
import { orificeFlow_m3PerS } from './fluid-pump';
import type { Charge, Vessel } from './accumulator';

/** A spool that meters pressure onto a piston beside the rod. Handbook-models 8.4. */
export interface PowerPiston {
  /** Output for each newton of input, while it modulates. */
  readonly ratio: number;
  /** Input at which the spool opens, and what comes at once then. */
  readonly opens_N: number;
  readonly jump_N: number;
  readonly area_m2: number;
  readonly spring_N: number;
}

/** What it makes of an input by metering alone, however much pressure there is, N. */
const metered_N = ({ ratio, opens_N, jump_N }: PowerPiston, input_N: number): number =>
  input_N < opens_N ? 0 : jump_N + ratio * (input_N - opens_N);

/**
 * Output of a power piston, N: max(0, F_in − F_rs, min(M, F_in − F_rs + p·A_p)), with M = J + R·(F_in − F₀) from F₀ on.
 *
 * @param available_Pa pressure that stands behind the spool
 * @example R 5, F₀ 60 N, J 300 N, A_p 6.2 cm², F_rs 180 N: 600 N at 100 bar → 3 000 N
 */
export function powerOutput_N(piston: PowerPiston, input_N: number, available_Pa: number): number {
  const through_N = input_N - piston.spring_N;
  return Math.max(
    0,
    through_N,
    Math.min(metered_N(piston, input_N), through_N + available_Pa * piston.area_m2),
  );
}

/** Input above which there is no more assist, N: (p·A_p − F_rs − J + R·F₀)/(R − 1). @param piston ratio above 1 */
export const powerRunout_N = (
  { ratio, opens_N, jump_N, area_m2, spring_N }: PowerPiston,
  available_Pa: number,
): number => (available_Pa * area_m2 - spring_N - jump_N + ratio * opens_N) / (ratio - 1);

/** What a power piston works on: a master cylinder and its circuits. */
export interface PoweredLoad {
  readonly master_m2: number;
  /** Volume that they take up at a pressure, m³: rising with it. */
  readonly taken_m3: (pressure_Pa: number) => number;
}

/** One application from a vessel that no pump fills. */
export interface StoredApplication {
  readonly output_Pa: number;
  /** The gas at the end of its stroke, and once the spool has let go what it holds. */
  readonly stroke: Charge;
  readonly released: Charge;
}

const CLOSE_PA = 10;

/**
 * One application out of a vessel with no pump, fast: it takes A_p·V(p)/A_mc, and the spool its own volume as it is released. The
 * pressure left at the end of the stroke decides what it makes; where the fluid runs out before, the volume that was left does.
 * Handbook-models 8.4.
 *
 * @param spool_m3 what the spool lets go with each release
 */
export function appliedFrom(
  vessel: Vessel,
  from: Charge,
  piston: PowerPiston,
  { master_m2, taken_m3 }: PoweredLoad,
  input_N: number,
  spool_m3: number,
): StoredApplication {
  const left_m3 = vessel.fluid_m3(from);
  const after = (out_m3: number): Charge => {
    const gas_m3 = from.gas_m3 + Math.min(left_m3, out_m3);
    const { temperature_K } = vessel.law.compressedFast(vessel.state(from), gas_m3 / vessel.amount_kmol);
    return { gas_m3, temperature_K };
  };
  const unassisted_Pa = Math.max(0, input_N - piston.spring_N) / master_m2;
  const drawn_m3 = (output_Pa: number) => (piston.area_m2 * taken_m3(output_Pa)) / master_m2;
  // Falling: the more it makes, the more it takes, and the less pressure is left to make it.
  const over = (output_Pa: number): number => {
    const out_m3 = drawn_m3(output_Pa);
    if (out_m3 > left_m3) return -output_Pa;
    const available_Pa = vessel.gauge_Pa(after(out_m3));
    return powerOutput_N(piston, input_N, available_Pa) / master_m2 - output_Pa;
  };
  const most_Pa = Math.max(unassisted_Pa, metered_N(piston, input_N) / master_m2);
  const assisted = drawn_m3(unassisted_Pa) < left_m3;
  const output_Pa = assisted ? rootOfFalling(over, unassisted_Pa, most_Pa, CLOSE_PA) : unassisted_Pa;
  const stroke = after(assisted ? drawn_m3(output_Pa) : left_m3);
  return { output_Pa, stroke, released: after(vessel.fluid_m3(from) - vessel.fluid_m3(stroke) + spool_m3) };
}

/** Outputs of one application after another until one is not assisted, Pa. @param most so many are looked at */
export function storedOutputs_Pa(
  vessel: Vessel,
  full: Charge,
  piston: PowerPiston,
  load: PoweredLoad,
  input_N: number,
  spool_m3: number,
  most = 60,
): number[] {
  const unassisted_Pa = Math.max(0, input_N - piston.spring_N) / load.master_m2;
  const outputs: number[] = [];
  for (let from = full; outputs.length < most;) {
    const { output_Pa, released } = appliedFrom(vessel, from, piston, load, input_N, spool_m3);
    if (!(output_Pa > ASSISTED * unassisted_Pa)) break;
    outputs.push(output_Pa);
    from = released;
  }
  return outputs;
}
/** An application counts as assisted where it makes more than a tenth more than none at all would. Handbook 4. */
const ASSISTED = 1.1;

/**
 * Time in which a power piston lets go its pressure through its exhaust, s: 2c·(A_p/A_mc)²·(√p_b − √(F_rs/A_p))/(0.62·a_e·√(2/ρ)),
 * and then the volume at rest at the pressure of its spring. Handbook-models 8.4.
 *
 * @param give_m3PerPa give of the circuits
 * @param rest_m3 volume that they take up at no pressure
 */
export function powerRelease_s(
  { area_m2, spring_N }: Pick<PowerPiston, 'area_m2' | 'spring_N'>,
  { master_m2, give_m3PerPa, rest_m3 }: { master_m2: number; give_m3PerPa: number; rest_m3: number },
  exhaust_m2: number,
  density_kgPerM3: number,
  output_Pa: number,
): number {
  const part = area_m2 / master_m2;
  const spring_Pa = spring_N / area_m2;
  const full_Pa = (output_Pa * master_m2 + spring_N) / area_m2;
  const perRoot = orificeFlow_m3PerS(exhaust_m2, 1, density_kgPerM3);
  const falls_s = (2 * give_m3PerPa * part ** 2 * (Math.sqrt(full_Pa) - Math.sqrt(spring_Pa))) / perRoot;
  return falls_s + (rest_m3 * part) / orificeFlow_m3PerS(exhaust_m2, spring_Pa, density_kgPerM3);
}
