/** Where a vehicle's own brakes and its regeneration share a stop. Handbook-models 8.9. SI. */
export interface BlendedVehicle {
  readonly mass_kg: number;
  readonly tyre_m: number;
  /** Part of the torque that the front axle takes, and the axle that is driven: only there is anything regenerated. */
  readonly frontShare: number;
  readonly driven: 'front' | 'rear';
  /** Torque of each axle for a pressure, N·m/Pa: 4·μ·A_p·r_eff for a pair of discs. */
  readonly front_NmPerPa: number;
  readonly rear_NmPerPa: number;
  /** Pressure that presses nothing yet. */
  readonly contact_Pa: number;
  /** Most that any wheel is given. */
  readonly most_Pa: number;
}

/** What the machine can take back. */
export interface Regeneration {
  readonly most_Nm: number;
  readonly power_W: number;
  /** It fades out from the higher speed down to the lower. */
  readonly fadesTo_mPerS: number;
  readonly fadesFrom_mPerS: number;
}

/** What is asked of the brakes at a moment of a stop. */
export interface Asked {
  readonly deceleration_mPerS2: number;
  readonly speed_mPerS: number;
  /** A stroke so fast that nothing is regenerated and more is pressed: by this part more. Zero where it is none. */
  readonly fastMore: number;
  /** Most that is granted, N·m; a battery that is full grants nothing. */
  readonly grants_Nm: number;
}

/** Torques of the wheels together. What is calculated here was never measured. */
export interface Blend {
  readonly total_Nm: number;
  readonly requested_Nm: number;
  readonly granted_Nm: number;
  readonly friction_Nm: number;
  readonly front_Pa: number;
  readonly rear_Pa: number;
  /** What the wheels would need beyond the most that they are given. */
  readonly short_Nm: number;
}

const clip = (value: number) => Math.min(1, Math.max(0, value));

/** Most that is asked of the machine at a speed, N·m: min(T_max·clip((v − v₀)/(v₁ − v₀)), P·r_t/v). */
export function canRegenerate_Nm(
  { most_Nm, power_W, fadesTo_mPerS, fadesFrom_mPerS }: Regeneration,
  tyre_m: number,
  speed_mPerS: number,
): number {
  const fading = clip((speed_mPerS - fadesTo_mPerS) / (fadesFrom_mPerS - fadesTo_mPerS));
  return Math.min(most_Nm * fading, speed_mPerS > 0 ? (power_W * tyre_m) / speed_mPerS : Infinity);
}

/**
 * Total → requested → granted → friction → pressures at one moment. What is not granted friction makes up: the deceleration is the same.
 * Handbook-models 8.9.
 *
 * @example 1 600 kg, 0.31 m, 2.5 m/s², 20 m/s, 40 kW: 1 240 N·m, 620 of it regenerated
 */
export function blended(vehicle: BlendedVehicle, machine: Regeneration, asked: Asked): Blend {
  const { mass_kg, tyre_m, frontShare, driven, front_NmPerPa, rear_NmPerPa, contact_Pa, most_Pa } = vehicle;
  const { deceleration_mPerS2, speed_mPerS, fastMore, grants_Nm } = asked;
  const total_Nm = mass_kg * deceleration_mPerS2 * tyre_m * (1 + fastMore);
  const shares = { front: frontShare * total_Nm, rear: (1 - frontShare) * total_Nm };
  const requested_Nm =
    fastMore > 0 ? 0 : Math.min(canRegenerate_Nm(machine, tyre_m, speed_mPerS), shares[driven]);
  const granted_Nm = Math.min(requested_Nm, grants_Nm);
  const left = (axle: 'front' | 'rear') => shares[axle] - (axle === driven ? granted_Nm : 0);
  const pressed = (axle: 'front' | 'rear', perPa: number) => {
    const torque_Nm = left(axle);
    if (torque_Nm <= 0) return { at_Pa: 0, short_Nm: 0 };
    const needs_Pa = contact_Pa + torque_Nm / perPa;
    const at_Pa = Math.min(most_Pa, needs_Pa);
    return { at_Pa, short_Nm: (needs_Pa - at_Pa) * perPa };
  };
  const [front, rear] = [pressed('front', front_NmPerPa), pressed('rear', rear_NmPerPa)];
  return {
    total_Nm,
    requested_Nm,
    granted_Nm,
    friction_Nm: total_Nm - granted_Nm,
    front_Pa: front.at_Pa,
    rear_Pa: rear.at_Pa,
    short_Nm: front.short_Nm + rear.short_Nm,
  };
}

/**
 * Energy taken back over a stop at a constant deceleration, J: P·(u₀ − v_c)/a + F·(v_c² − v₁²)/2a + F·(v₁ − v₀)·(2v₁ + v₀)/6a with
 * v_c = min(u₀, P/F). Handbook-models 8.9.
 *
 * @param from_mPerS at or above the speed from which it fades
 * @throws RangeError where the machine would slow it more than is asked, or its power does not last down to where it fades
 */
export function takenBack_J(
  { most_Nm, power_W, fadesTo_mPerS: v0, fadesFrom_mPerS: v1 }: Regeneration,
  { mass_kg, tyre_m }: Pick<BlendedVehicle, 'mass_kg' | 'tyre_m'>,
  from_mPerS: number,
  deceleration_mPerS2: number,
): number {
  const force_N = most_Nm / tyre_m;
  if (force_N > mass_kg * deceleration_mPerS2)
    throw new RangeError(`most_Nm: ${most_Nm} N·m slow the vehicle more than is asked`);
  if (power_W / force_N < v1)
    throw new RangeError(`power_W: ${power_W} W do not last down to the speed from which it fades`);
  if (from_mPerS < v1)
    throw new RangeError(`from_mPerS: ${from_mPerS} m/s lies below the speed from which it fades`);
  const a = deceleration_mPerS2;
  const full = Math.min(from_mPerS, power_W / force_N);
  return (
    (power_W * (from_mPerS - full)) / a +
    (force_N * (full ** 2 - v1 ** 2)) / (2 * a) +
    (force_N * (v1 - v0) * (2 * v1 + v0)) / (6 * a)
  );
}

/** A deceleration that a pedal asks for, by its pressure and its way. Handbook-models 8.9. */
export interface PedalDemand {
  readonly perPressure_mPerS2Pa: number;
  readonly perTravel_PerS2: number;
  readonly free_m: number;
  /** From the lower pressure on the pressure counts, and from the higher alone. */
  readonly from_Pa: number;
  readonly alone_Pa: number;
}

/** a = w·c_p·p + (1 − w)·c_s·(s − s₀)⁺, w = clip((p − p_a)/(p_b − p_a)), m/s². */
export function demanded_mPerS2(
  { perPressure_mPerS2Pa, perTravel_PerS2, free_m, from_Pa, alone_Pa }: PedalDemand,
  pressure_Pa: number,
  travel_m: number,
): number {
  const w = clip((pressure_Pa - from_Pa) / (alone_Pa - from_Pa));
  return w * perPressure_mPerS2Pa * pressure_Pa + (1 - w) * perTravel_PerS2 * Math.max(0, travel_m - free_m);
}
