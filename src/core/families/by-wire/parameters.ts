import { healthyUnit, reader, type Named } from '../../model/vectors';
import { TRACK_PARAMETERS } from '../pedal-tracks';
import { WHEELS, type WheelId } from '../wheel-lines';
import { tableOf, type ByWireProfile } from './profile';

const BAR = 1e5;
const MM = 1e-3;

/** What makes one brake differ from another in what all wheels share, and what faults move. */
const SHARED = [
  { id: 'pedalRatio', name: 'Pedal ratio', quantity: 'ratio' },
  { id: 'spring_N', name: 'Spring of the pedal rod', quantity: 'force' },
  { id: 'master_m2', name: 'Master cylinder, area', quantity: 'area' },
  { id: 'stroke_m', name: 'Master cylinder, full stroke', quantity: 'travel' },
  { id: 'piston_m2', name: 'Piston of the simulator, area', quantity: 'area' },
  { id: 'preload_N', name: 'Simulator, preload', quantity: 'force' },
  { id: 'first_NPerM', name: 'Simulator, first spring', quantity: 'stiffness' },
  { id: 'second_NPerM', name: 'Simulator, second spring', quantity: 'stiffness' },
  { id: 'second_m', name: 'Simulator, way at which the second begins', quantity: 'travel' },
  { id: 'simulatorAir_m3', name: 'Simulator, air in it', quantity: 'volume' },
  { id: 'simulatorFree', name: 'Simulator, part of its way that is free', quantity: 'ratio' },
  { id: 'sinks_m3PerS', name: 'Isolation valve leaks', quantity: 'leakRate' },
  { id: 'opens1', name: 'Isolation valve 1 opens without power: 1, else 0', quantity: 'ratio' },
  { id: 'opens2', name: 'Isolation valve 2 opens without power: 1, else 0', quantity: 'ratio' },
  { id: 'master2Off_Pa', name: 'Second master sensor off by', quantity: 'pressure' },
  { id: 'perPressure_mPerS2Pa', name: 'Asked for by pressure', quantity: 'ratio' },
  { id: 'perTravel_PerS2', name: 'Asked for by stroke', quantity: 'ratio' },
  { id: 'free_m', name: 'Stroke that asks for nothing', quantity: 'travel' },
  { id: 'from_Pa', name: 'Pressure counts from', quantity: 'pressure' },
  { id: 'alone_Pa', name: 'Pressure counts alone from', quantity: 'pressure' },
  { id: 'mass_kg', name: 'Mass', quantity: 'mass' },
  { id: 'tyre_m', name: 'Radius of the tyre', quantity: 'length' },
  { id: 'frontShare', name: 'Part of the front axle', quantity: 'ratio' },
  { id: 'drivenFront', name: 'Front axle driven: 1, else 0', quantity: 'ratio' },
  { id: 'front_NmPerPa', name: 'Front axle, torque for each pascal', quantity: 'ratio' },
  { id: 'rear_NmPerPa', name: 'Rear axle, torque for each pascal', quantity: 'ratio' },
  { id: 'contact_Pa', name: 'Pressure that presses nothing yet', quantity: 'pressure' },
  { id: 'most_Nm', name: 'Regeneration, most torque', quantity: 'torque' },
  { id: 'power_W', name: 'Regeneration, most power', quantity: 'power' },
  { id: 'fadesTo_mPerS', name: 'Regeneration ends below', quantity: 'speed' },
  { id: 'fadesFrom_mPerS', name: 'Regeneration fades below', quantity: 'speed' },
  { id: 'grants', name: 'Part of what is asked for that is granted', quantity: 'ratio' },
  { id: 'shell_m3', name: 'Inside of the accumulator', quantity: 'volume' },
  { id: 'preCharge_Pa', name: 'Pre-charge', quantity: 'pressure' },
  { id: 'in_Pa', name: 'Pump started at', quantity: 'pressure' },
  { id: 'out_Pa', name: 'Pump stopped at', quantity: 'pressure' },
  { id: 'pump_m3PerS', name: 'Pump', quantity: 'pumpFlow' },
  { id: 'accumulatorOff_Pa', name: 'Accumulator sensor off by', quantity: 'pressure' },
  {
    id: 'weeps_m3PerSPa',
    name: 'Relief weeps, for each pascal above where it shuts',
    quantity: 'conductance',
  },
  { id: 'weepsFrom_Pa', name: 'Relief weeps from', quantity: 'pressure' },
  { id: 'margin_Pa', name: 'Accumulator above every wheel', quantity: 'pressure' },
  { id: 'zero_A', name: 'Valve opens at, with nothing across it', quantity: 'current' },
  { id: 'perPressure_APerPa', name: 'Less current for each pascal across it', quantity: 'ratio' },
  { id: 'most_A', name: 'Most current of a valve', quantity: 'current' },
  { id: 'loop_m3PerSPa', name: 'Valve, flow for a pascal off its target', quantity: 'conductance' },
  { id: 'joinsAll', name: 'Without power all wheels: 1, else the front', quantity: 'ratio' },
  { id: 'cutOff_V', name: 'Switches off at', quantity: 'voltage' },
  { id: 'idle_W', name: 'Control unit by itself', quantity: 'power' },
  ...TRACK_PARAMETERS,
  { id: 'table0_V', name: 'Pressure sensors at zero', quantity: 'voltage' },
  { id: 'perBar_V', name: 'Pressure sensors, for each bar', quantity: 'voltage' },
  { id: 'swing_V', name: 'Swing of a sensor at rest', quantity: 'voltage' },
  { id: 'blend_N', name: 'Pedal force of the stop that is shared', quantity: 'force' },
  { id: 'blend_mPerS', name: 'Read as it passes', quantity: 'speed' },
] as const;

/** What each wheel has of its own. */
const OF_A_WHEEL = [
  { id: 'sensorOff_Pa', name: 'Sensor off by', quantity: 'pressure' },
  { id: 'sensorScale', name: 'Sensor, shown for what stands there', quantity: 'ratio' },
  { id: 'applyLeak_m3PerS', name: 'Apply valve leaks', quantity: 'leakRate' },
  { id: 'releaseLeak_m3PerS', name: 'Release valve leaks', quantity: 'leakRate' },
  { id: 'applySticks_A', name: 'Apply valve sticks: more current', quantity: 'current' },
] as const;

/** A number of one wheel, by its name in the whole. */
export const ofWheel = (field: (typeof OF_A_WHEEL)[number]['id'], wheel: WheelId) =>
  `${field}.${wheel}` as const;

export const parameters = [
  ...SHARED,
  ...WHEELS.flatMap(({ id: wheel, name }) =>
    OF_A_WHEEL.map((one) => ({ ...one, id: ofWheel(one.id, wheel), name: `${one.name}, ${name}` })),
  ),
];

export type SharedParameters = Named<typeof SHARED>;
export type WheelParameters = Named<typeof OF_A_WHEEL>;
export const sharedOf = reader(SHARED);
const wheelOf = reader(OF_A_WHEEL);

/** What one wheel has of its own, by its place. */
export const ofWheelAt = (vector: ArrayLike<number>, wheel: number): WheelParameters => {
  const from = SHARED.length + wheel * OF_A_WHEEL.length;
  return wheelOf(Array.prototype.slice.call(vector, from, from + OF_A_WHEEL.length) as number[]);
};

/** Sound simulators and demands lie so near what they are made for, as a part. */
const DEMAND_PART = 0.015;
/** Sound sensors lie within this of the pressure that they stand at, Pa. */
const SENSOR_PA = 0.5e5;
/** How stiff sound simulators are, as a part. */
const SPRING_PART = 0.05;
/** How far what sound drives grant lies off what is asked of them, as a part. */
const GRANTS_PART = 0.03;
/** How fast sound pumps are, as a part. */
const PUMP_PART = 0.15;

/** Numbers of a sound brake, and how far they may lie from them. */
export function healthyOf(profile: ByWireProfile) {
  const { limits } = profile;
  const { rows } = tableOf(profile);
  const [first, last] = [rows[0]!, rows.at(-1)!];
  const shared = Object.fromEntries(
    SHARED.map(({ id }) => [id, (profile as unknown as Record<string, number>)[id] ?? 0]),
  );
  const values = {
    ...shared,
    perPressure_mPerS2Pa: profile.perBar_mPerS2 / BAR,
    perTravel_PerS2: profile.perMm_mPerS2 / MM,
    front_NmPerPa: profile.front_NmPerBar / BAR,
    rear_NmPerPa: profile.rear_NmPerBar / BAR,
    perPressure_APerPa: profile.perBar_A / BAR,
    simulatorAir_m3: 0,
    simulatorFree: 1,
    opens1: 1,
    opens2: 1,
    drivenFront: Number(profile.driven === 'front'),
    grants: 1,
    weepsFrom_Pa: (profile.preCharge_Pa + profile.in_Pa) / 2,
    joinsAll: Number(profile.joins === 'all'),
    table0_V: first[1],
    perBar_V: ((last[1] - first[1]) / (last[0] - first[0])) * BAR,
    swing_V: profile.noise_V,
    ...Object.fromEntries(WHEELS.map(({ id }) => [ofWheel('sensorScale', id), 1])),
  } as Record<string, number>;
  return healthyUnit(
    parameters,
    Object.fromEntries(parameters.map(({ id }) => [id, values[id] ?? 0])) as Named<typeof parameters>,
    {
      first_NPerM: SPRING_PART * profile.first_NPerM,
      perPressure_mPerS2Pa: (DEMAND_PART * profile.perBar_mPerS2) / BAR,
      master2Off_Pa: limits.masters_Pa.value / 2,
      zero_A: limits.current_A.value / 2,
      preCharge_Pa: limits.preCharge_fraction.value * profile.preCharge_Pa,
      pump_m3PerS: PUMP_PART * profile.pump_m3PerS,
      accumulatorOff_Pa: SENSOR_PA,
      magnet_m: limits.rest_m.value / 2,
      grants: GRANTS_PART,
      swing_V: profile.noise_V / 2,
      ...Object.fromEntries(WHEELS.map(({ id }) => [ofWheel('sensorOff_Pa', id), SENSOR_PA])),
    },
  );
}
