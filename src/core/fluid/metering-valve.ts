import { GAUSS_8 } from '../numeric/quadrature';
import { orificeDrop_Pa } from './fluid-pump';

/** A spool that is pushed, and that the pressure it lets through pushes back. Handbook-models 8.6, 8.7. */
export interface MeteringSpool {
  readonly preload_N: number;
  readonly friction_N: number;
  readonly area_m2: number;
}

/** One that a pedal pushes by a spring. Handbook-models 8.7. */
export interface MeteringValve extends MeteringSpool {
  readonly spring_NPerM: number;
  /** Travel at which the spool begins to move. */
  readonly starts_m: number;
}

/**
 * Pressure that a spool lets through, Pa: clip((F − F₀ ∓ F_f)/A, p_tank, p_acc), with friction against the way that the push goes.
 *
 * @param push_N on the spool
 * @param way up as it is pressed, down as it is let go
 * @param from_Pa in the tank
 * @param to_Pa in the accumulator, not below that
 */
export function letThrough_Pa(
  { preload_N, friction_N, area_m2 }: MeteringSpool,
  push_N: number,
  way: 'up' | 'down',
  from_Pa: number,
  to_Pa: number,
): number {
  const against_N = way === 'up' ? friction_N : -friction_N;
  return Math.min(to_Pa, Math.max(from_Pa, (push_N - preload_N - against_N) / area_m2));
}

/**
 * Pressure that a metering valve lets through at a travel of its pedal, Pa: by k_s·(x − x₀).
 *
 * @param way up as it is pressed, down as it is let go
 * @param from_Pa in the tank
 * @param to_Pa in the accumulator, not below that
 */
export const meteredPressure_Pa = (
  valve: MeteringValve,
  travel_m: number,
  way: 'up' | 'down',
  from_Pa: number,
  to_Pa: number,
): number => letThrough_Pa(valve, valve.spring_NPerM * (travel_m - valve.starts_m), way, from_Pa, to_Pa);

/** Pressure between pressing and letting go at one travel, Pa: 2·F_f/A. */
export const meteringHysteresis_Pa = ({ friction_N, area_m2 }: MeteringValve): number =>
  (2 * friction_N) / area_m2;

/** Pressure that is left with the pedal released, Pa: what stands in the tank, or what friction holds against the preload. */
export const residualPressure_Pa = (
  { friction_N, preload_N, area_m2 }: MeteringSpool,
  tank_Pa: number,
): number => Math.max(tank_Pa, (friction_N - preload_N) / area_m2);

/** What stands between the valve and what it fills. */
export interface MeteredCircuit {
  /** Flow for each metre that the spool has opened, m²/s. */
  readonly flowGain_m2PerS: number;
  /** Resistance of the line, Pa·s/m³. */
  readonly line_PaSPerM3: number;
  /** Give of what is filled, m³/Pa. */
  readonly give_m3PerPa: number;
}

/** The drilling through which the outlet pushes the spool back. */
export interface Drilling {
  readonly diameter_m: number;
  readonly length_m: number;
}

/** How a metering valve settles. */
export interface Settling {
  /** Damping ratio: below 0.15 it hunts, stiction keeping it going. */
  readonly ratio: number;
  readonly frequency_Hz: number;
  /** Part by which it first goes beyond. */
  readonly overshoot: number;
}

/** What a drilling does to a spool of an area that pushes oil through it, N·s/m: b = A²/G, G = πd⁴/(128·μ·L). Handbook-models 8.7. */
export const drillingDamper_NSPerM = (
  area_m2: number,
  { diameter_m, length_m }: Drilling,
  viscosity_PaS: number,
): number => (area_m2 ** 2 * 128 * viscosity_PaS * length_m) / (Math.PI * diameter_m ** 4);

/**
 * How the valve settles: its drilling is a damper. G = πd⁴/(128μL), b = A²/G, k_e = k_s + A·R_l·K_q, ω₀ = √(A·K_q/(b·C)),
 * ζ = (k_e/2)·√(C/(K_q·A·b)), overshoot e^(−πζ/√(1 − ζ²)). Cold oil does what a plugged drilling does. Handbook-models 8.7.
 */
export function settlingOf(
  { spring_NPerM, area_m2 }: Pick<MeteringValve, 'spring_NPerM' | 'area_m2'>,
  { flowGain_m2PerS, line_PaSPerM3, give_m3PerPa }: MeteredCircuit,
  drilling: Drilling,
  viscosity_PaS: number,
): Settling {
  const damper_NSPerM = drillingDamper_NSPerM(area_m2, drilling, viscosity_PaS);
  const stiffness_NPerM = spring_NPerM + area_m2 * line_PaSPerM3 * flowGain_m2PerS;
  const turns_PerS = Math.sqrt((area_m2 * flowGain_m2PerS) / (damper_NSPerM * give_m3PerPa));
  const ratio = (stiffness_NPerM / 2) * Math.sqrt(give_m3PerPa / (flowGain_m2PerS * area_m2 * damper_NSPerM));
  return {
    ratio,
    frequency_Hz: turns_PerS / (2 * Math.PI),
    overshoot: ratio < 1 ? Math.exp((-Math.PI * ratio) / Math.sqrt(1 - ratio ** 2)) : 0,
  };
}

/** A passage that a circuit is filled through. */
export interface FillingPassage {
  readonly orifice_m2: number;
  readonly line_PaSPerM3: number;
  readonly density_kgPerM3: number;
}

/** Flow through an opening and a line behind it, m³/s: Δp = ρ/2·(q/0.62a)² + R_l·q, the root above zero. */
export function fillingFlow_m3PerS(
  { orifice_m2, line_PaSPerM3, density_kgPerM3 }: FillingPassage,
  difference_Pa: number,
): number {
  if (difference_Pa <= 0) return 0;
  const square = orificeDrop_Pa(orifice_m2, 1, density_kgPerM3);
  // Of the two ways to write the root, the one that holds with hardly any opening and with hardly any line.
  return (2 * difference_Pa) / (line_PaSPerM3 + Math.sqrt(line_PaSPerM3 ** 2 + 4 * square * difference_Pa));
}

/**
 * Time in which a circuit comes to a pressure, s: what is slack fills at the full difference, then C·dp = q·dt. Handbook-models 8.7.
 *
 * @param slack_m3 volume that it takes up at no pressure
 * @param to_Pa below `from_Pa`, at which it is supplied
 */
export function fillingTime_s(
  passage: FillingPassage,
  { slack_m3, give_m3PerPa }: { readonly slack_m3: number; readonly give_m3PerPa: number },
  from_Pa: number,
  to_Pa: number,
): number {
  // In the root of the difference, in which the flow is nearly straight.
  const [most, least] = [Math.sqrt(from_Pa), Math.sqrt(Math.max(0, from_Pa - to_Pa))];
  const rises_s = GAUSS_8.reduce((sum, [node, weight]) => {
    const root = least + node * (most - least);
    return sum + (weight * (most - least) * 2 * root * give_m3PerPa) / fillingFlow_m3PerS(passage, root ** 2);
  }, 0);
  return slack_m3 / fillingFlow_m3PerS(passage, from_Pa) + rises_s;
}

/** Pressure to which a blocked circuit comes by what crosses from the other, Pa: p₁·(1 − e^(−k_x·t/(μ·C))). Handbook-models 8.7. */
export const crossedPressure_Pa = (
  crossLeak_m3: number,
  viscosity_PaS: number,
  give_m3PerPa: number,
  other_Pa: number,
  time_s: number,
): number => -other_Pa * Math.expm1((-crossLeak_m3 * time_s) / (viscosity_PaS * give_m3PerPa));

/** A valve that is pressed at once, and what it fills. */
export interface PressedAtOnce {
  readonly valve: Pick<MeteringValve, 'spring_NPerM' | 'area_m2'>;
  readonly circuit: MeteredCircuit;
  readonly passage: FillingPassage;
  readonly damper_NSPerM: number;
  /** Volume that the circuit takes up slack over its first pressure, m³ and Pa. */
  readonly slack: { readonly slack_m3: number; readonly over_Pa: number };
  /** Push of the pedal’s spring less friction, N; what holds the spool back with the pedal released, N; and what feeds it, Pa. */
  readonly push_N: number;
  readonly released_N: number;
  readonly supply_Pa: number;
}

/** Less than this is no pressure, Pa. */
const NOTHING_PA = 1e3;
/** Steps to the first peak, and how far beyond the time of a small step they reach. */
const PEAK_STEPS = 240;
const PEAK_REACH = 5;

/**
 * Highest pressure that a circuit comes to as the valve is pressed at once from released, Pa. While the slack fills the spool opens
 * wide, and through its drilling it shuts again as slowly as that lets it: so it goes further than the overshoot of a small step.
 * b·ẋ = push − k_s·x − A·(p + R_l·q), exact over each step with p as it is; C·ṗ = q. Handbook-models 8.7, time.
 */
export function pressedPeak_Pa({
  valve: { spring_NPerM, area_m2 },
  circuit: { flowGain_m2PerS, line_PaSPerM3, give_m3PerPa },
  passage,
  damper_NSPerM,
  slack: { slack_m3, over_Pa },
  push_N,
  released_N,
  supply_Pa,
}: PressedAtOnce): number {
  const settles_Pa = Math.min(supply_Pa, Math.max(0, push_N / area_m2));
  if (!(settles_Pa > NOTHING_PA)) return settles_Pa;
  const turns_PerS = Math.sqrt((area_m2 * flowGain_m2PerS) / (damper_NSPerM * give_m3PerPa));
  const fills_s = (slack_m3 + give_m3PerPa * supply_Pa) / fillingFlow_m3PerS(passage, supply_Pa);
  const step_s = (PEAK_REACH / turns_PerS + damper_NSPerM / spring_NPerM / PEAK_REACH + fills_s) / PEAK_STEPS;
  const left = Math.exp((-step_s * spring_NPerM) / damper_NSPerM / 2);
  let opened_m = -released_N / spring_NPerM;
  let pressure_Pa = 0;
  let flow = 0;
  let highest_Pa = settles_Pa;
  const halfway = () => {
    const rests_m = (push_N - area_m2 * (pressure_Pa + line_PaSPerM3 * flow)) / spring_NPerM;
    opened_m = rests_m + (opened_m - rests_m) * left;
    const most = fillingFlow_m3PerS(passage, opened_m > 0 ? supply_Pa - pressure_Pa : pressure_Pa);
    flow = Math.sign(opened_m) * Math.min(flowGain_m2PerS * Math.abs(opened_m), most);
  };
  for (let step = 0; step < PEAK_STEPS; step += 1) {
    // The spool by half a step, the pressure by a whole one with what flows then, the spool by the other half.
    halfway();
    const give = give_m3PerPa + (pressure_Pa < over_Pa ? slack_m3 / over_Pa : 0);
    pressure_Pa = Math.min(supply_Pa, Math.max(0, pressure_Pa + (flow * step_s) / give));
    halfway();
    highest_Pa = Math.max(highest_Pa, pressure_Pa);
    // It has gone over, and comes down: the first peak is the highest.
    if (opened_m < 0 && pressure_Pa > settles_Pa) break;
  }
  return highest_Pa;
}
