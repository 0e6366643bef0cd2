import { emptyTime_s, fillTime_s } from '../../air/fill';
import { depressionAfter_Pa } from '../../air/leak';
import { orificeConductance_m3PerSPa } from '../../air/orifice';
import { depressionAfterStroke_Pa, depressionAtStroke_Pa } from '../../air/reserve';
import type { LoggedUnit } from '../../contract/logged-unit';
import { healthyUnit, type HealthyUnit, type InputDescriptor, type Named } from '../../model/vectors';
import { type Vector } from '../../model/descriptor';
import { healthyLeak_m3PerSPa } from '../healthy-leak';
import type { RodServoProfile } from './profile';

/** What makes one unit differ from another, and what faults move. */
export const parameters = [
  { id: 'effectiveArea_m2', name: 'Effective area', quantity: 'area' },
  { id: 'preload_N', name: 'Return spring preload', quantity: 'force' },
  { id: 'springRate_NPerM', name: 'Return spring rate', quantity: 'stiffness' },
  { id: 'stroke_m', name: 'Stroke', quantity: 'length' },
  { id: 'pushArea_m2', name: 'Piston area of the push-through', quantity: 'area' },
  { id: 'crack_Pa', name: 'Crack', quantity: 'pressure' },
  { id: 'liftRange_Pa', name: 'From crack to full lift', quantity: 'pressure' },
  { id: 'fullShare', name: 'Part of the vacuum that full lift brings to bear', quantity: 'percent' },
  { id: 'frontVolume_m3', name: 'Volume on the vacuum side', quantity: 'volume' },
  { id: 'rearVolume_m3', name: 'Volume on the working side', quantity: 'volume' },
  { id: 'tank_m3', name: 'Tank volume', quantity: 'volume' },
  { id: 'airUse', name: 'Air used by an application, of what its stroke takes', quantity: 'ratio' },
  { id: 'air_m3PerSPa', name: 'Air passage of the valve', quantity: 'conductance' },
  { id: 'line_m3PerSPa', name: 'Vacuum line', quantity: 'conductance' },
  { id: 'leak_m3PerSPa', name: 'Air leak into the tank, valve released', quantity: 'conductance' },
  { id: 'residual_N', name: 'Force left after release', quantity: 'force' },
  { id: 'loadStiffness_NPerM', name: 'Stiffness of the load', quantity: 'stiffness' },
  { id: 'pullDownTo_Pa', name: 'Mark to which the pull-down is timed', quantity: 'depression' },
] as const;

/** What the bench sets. */
export const inputs = [
  { id: 'input_Pa', name: 'Fluid pressure', quantity: 'pressure', from: { port: 'input', as: 'set' } },
  { id: 'supply_Pa', name: 'Tank vacuum', quantity: 'depression', from: { port: 'supply', as: 'source' } },
  { id: 'barometer_Pa', name: 'Barometer', quantity: 'barometer' },
  { id: 'temperature_K', name: 'Room temperature', quantity: 'temperature' },
  { id: 'elapsed_s', name: 'Time on hold', quantity: 'duration' },
  { id: 'applications', name: 'Applications since the source stopped', quantity: 'count' },
] as const satisfies readonly InputDescriptor[];

/** What a gauge can show. */
export const readings = [
  { id: 'output', name: 'Rod force', quantity: 'force' },
  { id: 'outputWithout', name: 'Rod force without vacuum', quantity: 'force' },
  { id: 'beginInput', name: 'Fluid pressure at which force begins', quantity: 'pressure' },
  { id: 'fullInput', name: 'Fluid pressure of full force', quantity: 'pressure' },
  { id: 'residual', name: 'Force left after release', quantity: 'force' },
  { id: 'reserveForce', name: 'Rod force from the reserve', quantity: 'force' },
  { id: 'tankUsed', name: 'Tank vacuum after applications', quantity: 'depression' },
  { id: 'tankLeft', name: 'Tank vacuum after a wait', quantity: 'depression' },
  { id: 'pullDown', name: 'Pull-down time', quantity: 'duration' },
  { id: 'applyTime', name: 'Apply time', quantity: 'duration' },
  { id: 'releaseTime', name: 'Release time', quantity: 'duration' },
] as const;

export type Parameters = Named<typeof parameters>;
export type ReadingId = (typeof readings)[number]['id'];

/** An application is timed to 90 % of the full force, a release to the last 10 %. */
export const TIMED = { low: 0.1, high: 0.9 } as const;

/** Pace of the reserve test, which its step names: one application in so many seconds. */
export const APPLICATION_S = 10;

const wholeVolume_m3 = ({
  tank_m3,
  frontVolume_m3,
  rearVolume_m3,
}: Pick<Parameters, 'tank_m3' | 'frontVolume_m3' | 'rearVolume_m3'>) =>
  tank_m3 + frontVolume_m3 + rearVolume_m3;

/** Parameters of a healthy unit of this profile. Half-widths come from the profile's own limits. */
export function healthy(profile: RodServoProfile): HealthyUnit {
  const { limits } = profile;
  const values: Parameters = {
    effectiveArea_m2: profile.effectiveArea_m2,
    preload_N: profile.preload_N,
    springRate_NPerM: profile.springRate_NPerM,
    stroke_m: profile.stroke_m,
    pushArea_m2: profile.pushArea_m2 ?? 0,
    crack_Pa: profile.crack_Pa,
    liftRange_Pa: profile.fullLift_Pa - profile.crack_Pa,
    fullShare: 1,
    frontVolume_m3: profile.frontVolume_m3,
    rearVolume_m3: profile.rearVolume_m3,
    tank_m3: profile.tank_m3,
    airUse: 1,
    air_m3PerSPa: orificeConductance_m3PerSPa(profile.airBore_m),
    line_m3PerSPa: orificeConductance_m3PerSPa(profile.lineBore_m),
    leak_m3PerSPa: healthyLeak_m3PerSPa(limits.tankLoss_PaPerS.value, wholeVolume_m3(profile)),
    residual_N: 0,
    loadStiffness_NPerM: profile.loadStiffness_NPerM,
    pullDownTo_Pa: profile.pullDownTo_Pa,
  };
  return healthyUnit(parameters, values, {
    effectiveArea_m2: limits.effectiveArea_fraction.value * profile.effectiveArea_m2,
    crack_Pa: limits.lift_Pa.value,
    liftRange_Pa: limits.lift_Pa.value,
  });
}

/** What a trace of such a unit is worked out with: its rod and its vacuum volume; there is no slave cylinder. */
export const logged = (profile: RodServoProfile) =>
  ({
    slave: null,
    rod: {
      preload_N: profile.preload_N,
      giving: 1 + profile.springRate_NPerM / profile.loadStiffness_NPerM,
      pushArea_m2: profile.pushArea_m2 ?? 0,
      useful_N: profile.limits.reserveForce_N.value,
    },
    vacuumVolume_m3: wholeVolume_m3(profile),
  }) satisfies LoggedUnit;

/** Part of the tank's vacuum that the valve brings to bear: none below crack, all of it from full lift on. */
export const liftShare = (p: Parameters, input_Pa: number): number =>
  Math.min(p.fullShare, Math.max(0, (input_Pa - p.crack_Pa) / p.liftRange_Pa));

/** Push of the piston before its spring and load give way, N. */
const push_N = (p: Parameters, difference_Pa: number, input_Pa: number) =>
  difference_Pa * p.effectiveArea_m2 + input_Pa * p.pushArea_m2 - p.preload_N;

/** Rod force against the load: the spring gives way with it, and the rod stops at its stroke. */
const rod_N = (p: Parameters, difference_Pa: number, input_Pa: number): number =>
  Math.min(
    p.loadStiffness_NPerM * p.stroke_m,
    Math.max(0, push_N(p, difference_Pa, input_Pa) / (1 + p.springRate_NPerM / p.loadStiffness_NPerM)),
  );

/** Pressure difference at which the rod force is so much, Pa. */
const differenceFor_Pa = (p: Parameters, force_N: number, input_Pa: number): number =>
  (force_N * (1 + p.springRate_NPerM / p.loadStiffness_NPerM) + p.preload_N - input_Pa * p.pushArea_m2) /
  p.effectiveArea_m2;

/** The stroke presses the vacuum side together a little, which shortens the stroke: settled after so many rounds. */
const STROKE_ROUNDS = 4;

/** Force of an application on a tank that nothing fills again, and what it leaves. Runs for every particle. */
function stroke(p: Parameters, tank_Pa: number, input_Pa: number, barometer_Pa: number) {
  const share = liftShare(p, input_Pa);
  const unit = {
    front_m3: p.frontVolume_m3,
    rear_m3: p.rearVolume_m3,
    area_m2: p.effectiveArea_m2,
    stroke_m: 0,
    tank_m3: p.tank_m3,
  };
  let force_N = rod_N(p, share * tank_Pa, input_Pa);
  for (let i = 0; i < STROKE_ROUNDS; i += 1) {
    unit.stroke_m = force_N / p.loadStiffness_NPerM;
    force_N = rod_N(p, share * depressionAtStroke_Pa(tank_Pa, unit, barometer_Pa), input_Pa);
  }
  unit.stroke_m = (p.airUse * force_N) / p.loadStiffness_NPerM;
  return { force_N, left_Pa: depressionAfterStroke_Pa(tank_Pa, unit, barometer_Pa) };
}

/**
 * Every steady reading of a rod-acting servo. Handbook 8.2: the valve brings v = (p − crack)/(full − crack) of the
 * tank's vacuum to bear, between 0 and 1; F = v·Δp·A − F_s0 − k_s·x with x = F/k_load, so
 * F = (v·Δp·A + p·A_push − F_s0)/(1 + k_s/k_load), never below 0. The reserve follows handbook 4 with the tank.
 * Times are those of one opening, from a valve that opens at once to 90 % of the full force, or to the last 10 %; the
 * pull-down is that of a pump that keeps up with the line.
 *
 * @param vector parameters in declared order, SI
 * @param at inputs in declared order, SI
 * @returns readings in declared order, SI; a time that never comes is Infinity only where an opening is shut
 */
export function steady(vector: Vector, at: Vector): number[] {
  const p = named(vector);
  const [input_Pa = 0, supply_Pa = 0, barometer_Pa = 0, temperature_K = 0, elapsed_s = 0, count = 0] = at;
  const tank_Pa = Math.min(Math.max(0, supply_Pa), barometer_Pa);
  const force_N = rod_N(p, liftShare(p, input_Pa) * tank_Pa, input_Pa);
  const begin_Pa = tank_Pa > 0 ? Math.min(1, p.preload_N / (p.effectiveArea_m2 * tank_Pa)) : 1;
  const room = { barometer_Pa, temperature_K };
  const reserve = reserveOf(p, tank_Pa, input_Pa, room, count);
  return [
    force_N,
    rod_N(p, 0, input_Pa),
    p.crack_Pa + begin_Pa * p.liftRange_Pa,
    p.crack_Pa + p.fullShare * p.liftRange_Pa,
    p.residual_N,
    reserve.force_N,
    reserve.tank_Pa,
    leakedTo_Pa(p, tank_Pa, elapsed_s, room),
    pullDown_s(p, tank_Pa, barometer_Pa, temperature_K),
    ...timesOf(p, tank_Pa, input_Pa, barometer_Pa, temperature_K),
  ];
}

/** Force of the n-th application since the source stopped, and the tank behind it: it leaks from one to the next. */
function reserveOf(p: Parameters, tank_Pa: number, input_Pa: number, room: Room, count: number) {
  const { barometer_Pa } = room;
  let [left_Pa, force_N] = [tank_Pa, 0];
  for (let i = 0; i < count; i += 1) {
    if (i > 0) left_Pa = leakedTo_Pa(p, left_Pa, APPLICATION_S, room);
    const made = stroke(p, left_Pa, input_Pa, barometer_Pa);
    force_N = made.force_N;
    left_Pa = made.left_Pa;
  }
  return { force_N, tank_Pa: left_Pa };
}

interface Room {
  readonly barometer_Pa: number;
  readonly temperature_K: number;
}

/** Tank vacuum after a time with nothing done. */
const leakedTo_Pa = (p: Parameters, tank_Pa: number, time_s: number, room: Room) =>
  depressionAfter_Pa(tank_Pa, time_s, {
    conductance_m3PerSPa: p.leak_m3PerSPa,
    volume_m3: wholeVolume_m3(p),
    barometer_Pa: room.barometer_Pa,
    temperature_K: room.temperature_K,
  });

/** Time to the mark; where the source does not reach it, none can be said and the mark is taken as far as it does. */
function pullDown_s(p: Parameters, tank_Pa: number, barometer_Pa: number, temperature_K: number): number {
  const mark_Pa = barometer_Pa - Math.min(p.pullDownTo_Pa, 0.99 * tank_Pa);
  return emptyTime_s(barometer_Pa, mark_Pa, barometer_Pa - tank_Pa, {
    conductance_m3PerSPa: p.line_m3PerSPa,
    volume_m3: wholeVolume_m3(p),
    temperature_K,
  });
}

/** Apply: the working side fills out of the room. Release: it empties through the line into the tank. */
function timesOf(
  p: Parameters,
  tank_Pa: number,
  input_Pa: number,
  barometer_Pa: number,
  temperature_K: number,
): [apply_s: number, release_s: number] {
  const full_N = rod_N(p, liftShare(p, input_Pa) * tank_Pa, input_Pa);
  if (full_N === 0) return [0, 0];
  const vacuum_Pa = barometer_Pa - tank_Pa;
  const working_Pa = (part: number) =>
    vacuum_Pa + Math.min(tank_Pa, Math.max(0, differenceFor_Pa(p, part * full_N, input_Pa)));
  /** The space grows with the stroke: what it takes up from one end to the other, for the pressure between them. */
  const through = (
    from_Pa: number,
    from: number,
    to_Pa: number,
    to: number,
    conductance_m3PerSPa: number,
  ) => {
    const held = (pressure_Pa: number, part: number) =>
      pressure_Pa * (p.rearVolume_m3 + (p.effectiveArea_m2 * part * full_N) / p.loadStiffness_NPerM);
    const volume_m3 = (held(to_Pa, to) - held(from_Pa, from)) / (to_Pa - from_Pa);
    return { volume_m3, conductance_m3PerSPa, temperature_K };
  };
  const [applied_Pa, full_Pa, last_Pa] = [TIMED.high, 1, TIMED.low].map(working_Pa) as [
    number,
    number,
    number,
  ];
  return [
    fillTime_s(
      vacuum_Pa,
      applied_Pa,
      barometer_Pa,
      through(vacuum_Pa, 0, applied_Pa, TIMED.high, p.air_m3PerSPa),
    ),
    emptyTime_s(full_Pa, last_Pa, vacuum_Pa, through(full_Pa, 1, last_Pa, TIMED.low, p.line_m3PerSPa)),
  ];
}

/** Destructured by hand: this runs for every particle. */
export function named(v: Vector): Parameters {
  return {
    effectiveArea_m2: v[0]!,
    preload_N: v[1]!,
    springRate_NPerM: v[2]!,
    stroke_m: v[3]!,
    pushArea_m2: v[4]!,
    crack_Pa: v[5]!,
    liftRange_Pa: v[6]!,
    fullShare: v[7]!,
    frontVolume_m3: v[8]!,
    rearVolume_m3: v[9]!,
    tank_m3: v[10]!,
    airUse: v[11]!,
    air_m3PerSPa: v[12]!,
    line_m3PerSPa: v[13]!,
    leak_m3PerSPa: v[14]!,
    residual_N: v[15]!,
    loadStiffness_NPerM: v[16]!,
    pullDownTo_Pa: v[17]!,
  };
}
