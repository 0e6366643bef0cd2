import { rootOfFalling } from '../numeric/root';

/** How nearly a pressure is found, Pa. */
const CLOSE_PA = 1;

/** A pump that an engine drives by a belt, with its flow control and its relief. Handbook-models P.3. */
export interface BeltPump {
  /** What it gives for each turn, m³. */
  readonly displacement_m3: number;
  /** Leakage within it, m³: k_p·p/μ is lost. */
  readonly leak_m3: number;
  /** More than this the flow control lets back, m³/s. */
  readonly control_m3PerS: number;
  readonly relief_Pa: number;
  /** How much more pressure the relief needs for each flow that it passes, Pa·s/m³. */
  readonly override_PaSPerM3: number;
  readonly efficiency: number;
  /** Torque at which the belt slips, N·m. */
  readonly belt_Nm: number;
  /** Part of what it gives that is fluid: the rest is air. */
  readonly fluidPart: number;
}

/** Pressure above which the belt slips and nothing is given, Pa: 2π·η·T_b/D. */
export const slips_Pa = ({ efficiency, belt_Nm, displacement_m3 }: BeltPump): number =>
  (2 * Math.PI * efficiency * belt_Nm) / displacement_m3;

/** What it would give while its belt holds, m³/s: below zero above the pressure at which all that it turns is lost in it. */
const turned_m3PerS = (
  pump: BeltPump,
  turns_PerS: number,
  viscosity_PaS: number,
  pressure_Pa: number,
): number =>
  pump.fluidPart *
  Math.min(
    pump.control_m3PerS,
    pump.displacement_m3 * turns_PerS - (pump.leak_m3 * pressure_Pa) / viscosity_PaS,
  );

/** What a belt pump gives at a pressure, m³/s, before its relief. @param turns_PerS of the pump, behind the pulley */
export const beltPumpFlow_m3PerS = (
  pump: BeltPump,
  turns_PerS: number,
  viscosity_PaS: number,
  pressure_Pa: number,
): number =>
  pressure_Pa > slips_Pa(pump) ? 0 : Math.max(0, turned_m3PerS(pump, turns_PerS, viscosity_PaS, pressure_Pa));

/** How much more pressure a relief needs for each flow that it passes, where nothing is known of it, Pa·s/m³. Handbook-models P.3: 3 to 5e9. */
export const USUAL_OVERRIDE_PASPERM3 = 4e9;

/** What its relief lets back at a pressure, m³/s. */
export const relieved_m3PerS = (
  { relief_Pa, override_PaSPerM3 }: Pick<BeltPump, 'relief_Pa' | 'override_PaSPerM3'>,
  pressure_Pa: number,
): number => Math.max(0, pressure_Pa - relief_Pa) / override_PaSPerM3;

/**
 * Pressure of a belt pump that is shut off, Pa: where relief and leak let back all that is turned, or the belt slips.
 *
 * @param lost what is taken at a pressure besides, m³/s: a booster's leak
 */
export function shutOff_Pa(
  pump: BeltPump,
  turns_PerS: number,
  viscosity_PaS: number,
  lost: (pressure_Pa: number) => number = () => 0,
): number {
  const slips = slips_Pa(pump);
  const most = pump.relief_Pa + pump.override_PaSPerM3 * pump.control_m3PerS;
  const over = (pressure_Pa: number) =>
    turned_m3PerS(pump, turns_PerS, viscosity_PaS, pressure_Pa) -
    relieved_m3PerS(pump, pressure_Pa) -
    lost(pressure_Pa);
  return Math.min(slips, rootOfFalling(over, 0, most, CLOSE_PA));
}

/** Heating of a loop that is shut against its relief, K/s: p·q/(ρ·c·V), c 1950 J/(kg·K). Handbook-models P.3. */
export const loopHeating_KPerS = (
  pressure_Pa: number,
  flow_m3PerS: number,
  density_kgPerM3: number,
  volume_m3: number,
): number => (pressure_Pa * flow_m3PerS) / (density_kgPerM3 * FLUID_HEAT_JPERKGK * volume_m3);
const FLUID_HEAT_JPERKGK = 1950;

/** A pump with a direct-current motor of its own. Handbook-models P.4. */
export interface MotorPump {
  readonly displacement_m3: number;
  /** Leakage within it, m³. */
  readonly leak_m3: number;
  readonly efficiency: number;
  /** Torque that friction takes, N·m. */
  readonly friction_Nm: number;
  /** Torque for each ampere, and volts for each radian in a second. */
  readonly constant_NmPerA: number;
  readonly motor_Ohm: number;
  readonly wiring_Ohm: number;
}

/** Current of a motor pump at a pressure, A: (T_f + D·p/2πη)/K. */
export const pumpCurrent_A = (
  { friction_Nm, displacement_m3, efficiency, constant_NmPerA }: MotorPump,
  pressure_Pa: number,
): number => (friction_Nm + (displacement_m3 * pressure_Pa) / (2 * Math.PI * efficiency)) / constant_NmPerA;

/** Volts lost in its wiring at a pressure. */
export const pumpDrop_V = (pump: MotorPump, pressure_Pa: number): number =>
  pumpCurrent_A(pump, pressure_Pa) * pump.wiring_Ohm;

/**
 * What a motor pump gives at a pressure, m³/s: D·ω/2π − k_p·p/μ with ω = (U − I·R)/K; it falls in a straight line, and a check valve
 * keeps it from going back.
 *
 * @param supply_V at the battery, while it runs
 */
export function motorPumpFlow_m3PerS(
  pump: MotorPump,
  supply_V: number,
  viscosity_PaS: number,
  pressure_Pa: number,
): number {
  const drop_V = pumpCurrent_A(pump, pressure_Pa) * (pump.motor_Ohm + pump.wiring_Ohm);
  const turning_PerS = (supply_V - drop_V) / pump.constant_NmPerA / (2 * Math.PI);
  return Math.max(0, pump.displacement_m3 * turning_PerS - (pump.leak_m3 * pressure_Pa) / viscosity_PaS);
}

/** Pressure at which a motor pump gives nothing more, Pa: below the cut-out it never stops. */
export function ceiling_Pa(pump: MotorPump, supply_V: number, viscosity_PaS: number): number {
  const resistance = pump.motor_Ohm + pump.wiring_Ohm;
  const freely_m3PerS =
    (pump.displacement_m3 / (2 * Math.PI * pump.constant_NmPerA)) *
    (supply_V - (pump.friction_Nm / pump.constant_NmPerA) * resistance);
  const falls =
    (pump.displacement_m3 / (2 * Math.PI * pump.constant_NmPerA)) ** 2 * (resistance / pump.efficiency) +
    pump.leak_m3 / viscosity_PaS;
  return Math.max(0, freely_m3PerS / falls);
}

/** A switch that turns a pump on at or below one pressure, and off at or above another a little later. Handbook-models P.5. */
export interface PressureSwitch {
  readonly in_Pa: number;
  readonly out_Pa: number;
  readonly delay_s: number;
}

/** How far a pump goes on beyond the cut-out until the switch has opened, Pa: 1.6·q·t_d·p/V_g. Handbook-models P.5. */
export const overshoot_Pa = (
  { delay_s, out_Pa }: PressureSwitch,
  flow_m3PerS: number,
  gas_m3: number,
): number => (1.6 * flow_m3PerS * delay_s * out_Pa) / gas_m3;

/** Flow through a sharp opening, m³/s: 0.62·a·√(2Δp/ρ). Handbook-models P.5. @param difference_Pa zero or above */
export const orificeFlow_m3PerS = (area_m2: number, difference_Pa: number, density_kgPerM3: number): number =>
  DISCHARGE * area_m2 * Math.sqrt((2 * difference_Pa) / density_kgPerM3);

/** Difference that drives a flow through a sharp opening, Pa. */
export const orificeDrop_Pa = (area_m2: number, flow_m3PerS: number, density_kgPerM3: number): number =>
  (density_kgPerM3 / 2) * (flow_m3PerS / (DISCHARGE * area_m2)) ** 2;
const DISCHARGE = 0.62;
