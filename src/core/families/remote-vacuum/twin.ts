import { depressionAfter_Pa } from '../../air/leak';
import type { About } from '../../signals/analysis';
import {
  healthyUnit,
  type HealthyUnit,
  type InputDescriptor,
  type Named,
  type Vector,
} from '../../twin/family';
import { healthyLeak_m3PerSPa, HEALTHY_SHARE_OF_LIMIT } from '../healthy-leak';
import { circle_m2 } from '../profile-fields';
import type { RemoteVacuumProfile } from './profile';

/** What makes one unit differ from another, and what faults move. */
export const parameters = [
  { id: 'effectiveArea_m2', name: 'Effective diaphragm area', quantity: 'area' },
  { id: 'slaveArea_m2', name: 'Slave piston area', quantity: 'area' },
  { id: 'rodArea_m2', name: 'Push rod area', quantity: 'area' },
  { id: 'spring_N', name: 'Spring force', quantity: 'force' },
  { id: 'boostRatio', name: 'Boost ratio B', quantity: 'ratio' },
  { id: 'crack_Pa', name: 'Crack', quantity: 'pressure' },
  { id: 'jumpIn_Pa', name: 'Jump-in J', quantity: 'pressure' },
  { id: 'hysteresis', name: 'Hysteresis, part of output', quantity: 'percent' },
  { id: 'passage', name: 'Part of the input passed, assist off', quantity: 'percent' },
  { id: 'threshold_Pa', name: 'Threshold, assist off', quantity: 'pressure' },
  { id: 'residual_Pa', name: 'Residual', quantity: 'pressure' },
  { id: 'fluidLoss_PaPerS', name: 'Output loss on hold', quantity: 'pressureRate' },
  { id: 'leakReleased_m3PerSPa', name: 'Air leak, released', quantity: 'conductance' },
  { id: 'leakApplied_m3PerSPa', name: 'Air leak, applied', quantity: 'conductance' },
  { id: 'vacuumVolume_m3', name: 'Vacuum volume', quantity: 'volume' },
  { id: 'restDifference_Pa', name: 'Supply less activation at rest', quantity: 'depression' },
  { id: 'activationFloor_Pa', name: 'Activation left at full activation', quantity: 'depression' },
  { id: 'selfApply_Pa', name: 'Output as vacuum arrives', quantity: 'pressure' },
  { id: 'hoseDrop', name: 'Supply lost in the hose on applying', quantity: 'percent' },
  { id: 'switchCloses_Pa', name: 'Stop-lamp switch closes', quantity: 'pressure' },
] as const;

/** What the bench sets. */
export const inputs = [
  { id: 'input_Pa', name: 'Input', quantity: 'pressure', from: { port: 'input', as: 'set' } },
  {
    id: 'supply_Pa',
    name: 'Supply depression at the unit',
    quantity: 'depression',
    from: { port: 'supply', as: 'source' },
  },
  { id: 'barometer_Pa', name: 'Barometer', quantity: 'barometer' },
  { id: 'temperature_K', name: 'Room temperature', quantity: 'temperature' },
  { id: 'elapsed_s', name: 'Time on hold', quantity: 'duration' },
] as const satisfies readonly InputDescriptor[];

/** What a gauge can show. */
export const readings = [
  { id: 'output', name: 'Output', quantity: 'pressure' },
  { id: 'activation', name: 'Activation', quantity: 'depression' },
  { id: 'outputReleasing', name: 'Output, coming down', quantity: 'pressure' },
  { id: 'outputHeld', name: 'Output after a hold', quantity: 'pressure' },
  { id: 'outputPassed', name: 'Output, assist off', quantity: 'pressure' },
  { id: 'outputAtRest', name: 'Output as vacuum arrives', quantity: 'pressure' },
  { id: 'residual', name: 'Residual output', quantity: 'pressure' },
  { id: 'supplyApplied', name: 'Supply at the unit, applied', quantity: 'depression' },
  { id: 'supplyLeftReleased', name: 'Supply left, released', quantity: 'depression' },
  { id: 'supplyLeftApplied', name: 'Supply left, applied', quantity: 'depression' },
  { id: 'crackInput', name: 'Crack input', quantity: 'pressure' },
  { id: 'runoutInput', name: 'Runout input', quantity: 'pressure' },
  { id: 'runoutOutput', name: 'Runout output', quantity: 'pressure' },
  { id: 'fullActivation', name: 'Activation at full activation', quantity: 'depression' },
  { id: 'switchCloses', name: 'Stop-lamp switch closes', quantity: 'pressure' },
] as const;

export type Parameters = Named<typeof parameters>;
export type Inputs = Named<typeof inputs>;
export type ReadingId = (typeof readings)[number]['id'];

/** Parameters of a healthy unit of this profile. Half-widths come from the profile's own limits. */
export function healthy(profile: RemoteVacuumProfile): HealthyUnit {
  const { limits } = profile;
  const effectiveArea_m2 = circle_m2(profile.effectiveDiameter_m);
  const jumpIn_Pa = profile.jumpIn_Pa ?? (profile.boostRatio - 1) * profile.crack_Pa;
  const leak = (limit_PaPerS: number) => healthyLeak_m3PerSPa(limit_PaPerS, profile.vacuumVolume_m3);
  const values: Parameters = {
    effectiveArea_m2,
    slaveArea_m2: circle_m2(profile.slaveBore_m),
    rodArea_m2: circle_m2(profile.rodDiameter_m),
    spring_N: profile.spring_N,
    boostRatio: profile.boostRatio,
    crack_Pa: profile.crack_Pa,
    jumpIn_Pa,
    hysteresis: HEALTHY_SHARE_OF_LIMIT * limits.hysteresis_fraction.value,
    passage: 1,
    threshold_Pa: 0,
    residual_Pa: 0,
    fluidLoss_PaPerS: HEALTHY_SHARE_OF_LIMIT * limits.holdLoss_PaPerS.value,
    leakReleased_m3PerSPa: leak(limits.vacuumLossReleased_PaPerS.value),
    leakApplied_m3PerSPa: leak(limits.vacuumLossApplied_PaPerS.value),
    vacuumVolume_m3: profile.vacuumVolume_m3,
    restDifference_Pa: 0,
    activationFloor_Pa: 0,
    selfApply_Pa: 0,
    hoseDrop: 0,
    switchCloses_Pa: profile.lampSwitch
      ? (profile.lampSwitch.closesFrom_Pa + profile.lampSwitch.closesTo_Pa) / 2
      : 0,
  };
  const spread_B = limits.boostRatio_fraction.value * profile.boostRatio;
  return healthyUnit(parameters, values, {
    effectiveArea_m2: limits.effectiveArea_fraction.value * effectiveArea_m2,
    boostRatio: spread_B,
    // With B, so that the band is B ± its limit along the whole line where the line runs through the origin.
    jumpIn_Pa: spread_B * profile.crack_Pa,
  });
}

/** Slave cylinder and vacuum volume: what a trace of such a unit is worked out with. */
export const logged = (profile: RemoteVacuumProfile): About['unit'] => ({
  slave: {
    slaveArea_m2: circle_m2(profile.slaveBore_m),
    rodArea_m2: circle_m2(profile.rodDiameter_m),
    spring_N: profile.spring_N,
  },
  rod: null,
  vacuumVolume_m3: profile.vacuumVolume_m3,
});

/**
 * Every steady reading of a remote vacuum unit, in closed form. Handbook 8.1: below crack out = in; modulating
 * out = in + J + (B − 1)·(in − crack); ceiling out = k·in + (Δp·A_d − F_s)/A_slave with k = 1 − A_rod/A_slave;
 * out = max(in, min(modulating, ceiling)).
 *
 * @param vector parameters in declared order, SI
 * @param at inputs in declared order, SI; a supply of 0 is the assist off
 * @returns readings in declared order, SI
 */
export function steady(vector: Vector, at: Vector): number[] {
  const p = named(vector);
  const [input_Pa = 0, supplyAtRest_Pa = 0, barometer_Pa = 0, temperature_K = 0, elapsed_s = 0] = at;
  const k = 1 - p.rodArea_m2 / p.slaveArea_m2;
  const supply_Pa = supplyAtRest_Pa * (1 - p.hoseDrop);
  // Air that cannot get in leaves a depression that pushes the other way.
  const usable_Pa = Math.max(0, supply_Pa - p.activationFloor_Pa);
  const lift_Pa = Math.max(0, usable_Pa * p.effectiveArea_m2 - p.spring_N) / p.slaveArea_m2;
  const through_Pa = Math.max(0, input_Pa);
  const modulating_Pa =
    input_Pa < p.crack_Pa
      ? through_Pa
      : input_Pa + p.jumpIn_Pa + (p.boostRatio - 1) * (input_Pa - p.crack_Pa);
  const assisted = supply_Pa > 0;
  const output_Pa = assisted
    ? Math.max(through_Pa, Math.min(modulating_Pa, k * input_Pa + lift_Pa))
    : through_Pa;
  // Below crack the valve has closed: nothing holds the output above the input.
  const released_Pa =
    input_Pa < p.crack_Pa ? through_Pa : Math.min(modulating_Pa * (1 + p.hysteresis), k * input_Pa + lift_Pa);
  const passed_Pa = Math.max(0, through_Pa * p.passage - p.threshold_Pa);
  const runoutInput_Pa = runout_Pa(p, k, lift_Pa);
  const runoutOutput_Pa = k * runoutInput_Pa + lift_Pa;
  const leftAfter = (conductance_m3PerSPa: number) =>
    depressionAfter_Pa(Math.min(supplyAtRest_Pa, barometer_Pa), elapsed_s, {
      conductance_m3PerSPa,
      volume_m3: p.vacuumVolume_m3,
      barometer_Pa,
      temperature_K,
    });
  return [
    output_Pa,
    activation_Pa(p, k, input_Pa, output_Pa, output_Pa > through_Pa ? supply_Pa : supplyAtRest_Pa),
    assisted ? Math.max(through_Pa, released_Pa) : through_Pa,
    Math.max(0, output_Pa - p.fluidLoss_PaPerS * elapsed_s),
    passed_Pa,
    assisted ? p.selfApply_Pa : 0,
    p.residual_Pa,
    supply_Pa,
    leftAfter(p.leakReleased_m3PerSPa),
    leftAfter(p.leakApplied_m3PerSPa),
    p.crack_Pa,
    runoutInput_Pa,
    runoutOutput_Pa,
    Math.min(p.activationFloor_Pa, supply_Pa),
    p.switchCloses_Pa,
  ];
}

/** Input at which modulating meets the ceiling: (lift − J + (B − 1)·crack)/(B − k), never below crack. */
function runout_Pa(p: Parameters, k: number, lift_Pa: number): number {
  return Math.max(p.crack_Pa, (lift_Pa - p.jumpIn_Pa + (p.boostRatio - 1) * p.crack_Pa) / (p.boostRatio - k));
}

/** Depression at the activation port: the supply at rest, nothing at full activation. Handbook 8.1. */
function activation_Pa(
  p: Parameters,
  k: number,
  input_Pa: number,
  output_Pa: number,
  supply_Pa: number,
): number {
  const rest_Pa = Math.max(0, supply_Pa - p.restDifference_Pa);
  if (output_Pa <= input_Pa) return rest_Pa;
  const used_Pa =
    (output_Pa * p.slaveArea_m2 - input_Pa * k * p.slaveArea_m2 + p.spring_N) / p.effectiveArea_m2;
  return Math.min(rest_Pa, Math.max(Math.min(p.activationFloor_Pa, supply_Pa), supply_Pa - used_Pa));
}

/** Destructured by hand: this runs for every particle, and Object.fromEntries costs more than the physics. */
export function named(v: Vector): Parameters {
  return {
    effectiveArea_m2: v[0]!,
    slaveArea_m2: v[1]!,
    rodArea_m2: v[2]!,
    spring_N: v[3]!,
    boostRatio: v[4]!,
    crack_Pa: v[5]!,
    jumpIn_Pa: v[6]!,
    hysteresis: v[7]!,
    passage: v[8]!,
    threshold_Pa: v[9]!,
    residual_Pa: v[10]!,
    fluidLoss_PaPerS: v[11]!,
    leakReleased_m3PerSPa: v[12]!,
    leakApplied_m3PerSPa: v[13]!,
    vacuumVolume_m3: v[14]!,
    restDifference_Pa: v[15]!,
    activationFloor_Pa: v[16]!,
    selfApply_Pa: v[17]!,
    hoseDrop: v[18]!,
    switchCloses_Pa: v[19]!,
  };
}
