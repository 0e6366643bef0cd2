import { rootOfFalling } from '../numeric/root';
import { orificeFlow_m3PerS } from './fluid-pump';
import type { Charge, Vessel } from './accumulator';
import { stoodLeaking, type FlowAt } from './charging';

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

/** Output within this part of what is asked for has come. */
const COME_PART = 0.03;

/**
 * How far a spool is still pushed into its gap, 0 to 1: all the way while the output is well short of what its metering asks for, and
 * not at all once it is there. What comes then pushes it, and the foot, back. Handbook-models 8.4; over how much of the output: our
 * judgement.
 */
export const inItsGap = (output_N: number, asked_N: number): number =>
  asked_N <= 0 ? 0 : Math.min(1, Math.max(0, (1 - output_N / asked_N) / COME_PART));

/** Input above which there is no more assist, N: (p·A_p − F_rs − J + R·F₀)/(R − 1). @param piston ratio above 1 */
export const powerRunout_N = (
  { ratio, opens_N, jump_N, area_m2, spring_N }: PowerPiston,
  available_Pa: number,
): number => (available_Pa * area_m2 - spring_N - jump_N + ratio * opens_N) / (ratio - 1);

/** One application from a vessel that no pump fills. */
export interface StoredApplication {
  readonly output_N: number;
  /** The gas once all that it takes is out, with no heat given to it. */
  readonly stroke: Charge;
}

/** What the rod of a power piston pushes. */
export interface RodLoad {
  /** How far the rod goes at an output, rising with it: (V(p))/A_mc behind a master cylinder, m. */
  readonly travel_m: (output_N: number) => number;
  /** How fast it goes on with the output held, where something lets it; left out where nothing does. */
  readonly goesOn_mPerS?: (output_N: number) => number;
}

/** How an application is held once it was made. */
interface Held {
  readonly held_s: number;
  /** What leaves at a pressure meanwhile, m³/s; left out where nothing does. */
  readonly leak?: FlowAt;
}
const NOT_HELD: Held = { held_s: 0 };

/** How nearly an output is found, N. */
const CLOSE_N = 0.5;

/** Fluid taken out of a vessel with no heat given to the gas; no more than there is. */
export function drawnFast(vessel: Vessel, from: Charge, out_m3: number): Charge {
  const gas_m3 = from.gas_m3 + Math.min(vessel.fluid_m3(from), out_m3);
  const { temperature_K } = vessel.law.compressedFast(vessel.state(from), gas_m3 / vessel.amount_kmol);
  return { gas_m3, temperature_K };
}

/**
 * One application out of a vessel with no pump: the piston takes A_p for each metre that its rod goes. The pressure that stands behind
 * it decides what it makes; while it is held the gas warms, and it presses on. Where the fluid runs out before, the volume that was
 * left does: what has come stays, but for what leaks. A rod that goes on while it is held draws on what is left. Handbook-models 8.4, 10.
 */
export function appliedFrom(
  vessel: Vessel,
  from: Charge,
  piston: PowerPiston,
  { travel_m, goesOn_mPerS }: RodLoad,
  input_N: number,
  { held_s, leak }: Held = NOT_HELD,
): StoredApplication {
  const left_m3 = vessel.fluid_m3(from);
  const unassisted_N = Math.max(0, input_N - piston.spring_N);
  const drawn_m3 = (output_N: number) => piston.area_m2 * travel_m(output_N);
  if (drawn_m3(unassisted_N) >= left_m3)
    return { output_N: unassisted_N, stroke: drawnFast(vessel, from, left_m3) };
  // Falling: the more it makes, the more it takes, and the less pressure is left to make it.
  const over = (output_N: number): number => {
    const stroke = drawnFast(vessel, from, drawn_m3(output_N));
    // Out of a vessel that has run out it is the chamber that leaks.
    const chamber_Pa = Math.max(0, output_N + piston.spring_N - input_N) / piston.area_m2;
    const lost_m3 = leak ? leak(Math.max(chamber_Pa, vessel.gauge_Pa(stroke))) * held_s : 0;
    const out_m3 = drawn_m3(output_N) + lost_m3 + piston.area_m2 * (goesOn_mPerS?.(output_N) ?? 0) * held_s;
    if (out_m3 > left_m3) return -output_N;
    const available_Pa = vessel.gauge_Pa(vessel.stood(drawnFast(vessel, from, out_m3), held_s));
    return powerOutput_N(piston, input_N, available_Pa) - output_N;
  };
  const most_N = Math.max(unassisted_N, metered_N(piston, input_N));
  const output_N = rootOfFalling(over, unassisted_N, most_N, CLOSE_N);
  return { output_N, stroke: drawnFast(vessel, from, drawn_m3(output_N)) };
}

/** How applications follow each other: each held for a time, and let go for another before the next, s. */
export interface Rhythm {
  readonly held_s: number;
  readonly rests_s: number;
}

/** Held, the gauge read, let go; and again every ten seconds. */
export const READ_RHYTHM: Rhythm = { held_s: 3, rests_s: 7 };

/**
 * The last of some applications in a row with no pump, the gas coming to its shell between them.
 *
 * @param spool_m3 what the spool lets go with each release
 * @param count one or more
 * @param leak what leaves the vessel at a pressure meanwhile, m³/s; left out where nothing does
 * @returns its output, and the gas as it is held still
 */
export function appliedInARow(
  vessel: Vessel,
  full: Charge,
  piston: PowerPiston,
  load: RodLoad,
  input_N: number,
  spool_m3: number,
  count: number,
  { held_s, rests_s }: Rhythm = READ_RHYTHM,
  leak?: FlowAt,
): StoredApplication & { readonly held: Charge } {
  const stands = (charge: Charge, time_s: number, drawn_m3PerS = 0) =>
    leak || drawn_m3PerS > 0
      ? stoodLeaking(vessel, charge, time_s, (pressure_Pa) => (leak?.(pressure_Pa) ?? 0) + drawn_m3PerS)
      : vessel.stood(charge, time_s);
  for (let [n, from] = [1, full]; ; n += 1) {
    const { output_N, stroke } = appliedFrom(vessel, from, piston, load, input_N, { held_s, leak });
    const held = stands(stroke, held_s, piston.area_m2 * (load.goesOn_mPerS?.(output_N) ?? 0));
    if (n >= count) return { output_N, stroke, held };
    from = stands(drawnFast(vessel, held, spool_m3), rests_s);
  }
}

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
