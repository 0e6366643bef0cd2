import type { HydraulicBenchProfile } from '@/core/families/hydraulic-bench';
import type { HydraulicVehicleProfile } from '@/core/families/hydraulic-vehicle';
import type { ByWireVehicleProfile } from '@/core/families/by-wire-vehicle';
import type { MotorBoosterBenchProfile } from '@/core/families/motor-booster-bench';
import type { MotorBoosterVehicleProfile } from '@/core/families/motor-booster-vehicle';
import type { MotorPumpBenchProfile } from '@/core/families/motor-pump-bench';
import type { MotorPumpVehicleProfile } from '@/core/families/motor-pump-vehicle';
import type { PedalValveProfile } from '@/core/families/pedal-valve/index';
import type { PedalValveVehicleProfile } from '@/core/families/pedal-valve-vehicle';
import type { RemoteVacuumProfile } from '@/core/families/remote-vacuum/index';
import type { RodServoProfile } from '@/core/families/rod-servo/index';
import { FAMILIES } from '@/core/families/registry';
import type { StoredPressureBenchProfile } from '@/core/families/stored-pressure-bench';
import type { StoredPressureVehicleProfile } from '@/core/families/stored-pressure-vehicle';
import type { VacuumVehicleProfile } from '@/core/families/vacuum-vehicle';
import { INHG_PA } from '@/core/quantities/units';

const BAR = 1e5;
const bars = (...values: number[]) => values.map((value) => value * BAR);

const typical = FAMILIES['remote-vacuum'].typical as RemoteVacuumProfile;
const motorPumpBooster = FAMILIES['motor-pump-booster'].typical as MotorPumpBenchProfile;
const motorPumpVehicle = FAMILIES['motor-pump-vehicle'].typical as MotorPumpVehicleProfile;
const motorBooster = FAMILIES.electromechanical.typical as MotorBoosterBenchProfile;
const decoupled = FAMILIES['by-wire-vehicle'].typical as ByWireVehicleProfile;
const motorVehicle = FAMILIES['electromechanical-vehicle'].typical as MotorBoosterVehicleProfile;
const hydraulicBooster = FAMILIES['hydraulic-booster'].typical as HydraulicBenchProfile;
const hydraulicVehicle = FAMILIES['hydraulic-vehicle'].typical as HydraulicVehicleProfile;
const storedPressure = FAMILIES['stored-pressure-vehicle'].typical as StoredPressureVehicleProfile;
const pedalValve = FAMILIES['pedal-valve'].typical as PedalValveProfile;
const storedBench = FAMILIES['stored-pressure'].typical as StoredPressureBenchProfile;
const valveMachine = FAMILIES['pedal-valve-vehicle'].typical as PedalValveVehicleProfile;
const servo = FAMILIES['rod-servo'].typical as RodServoProfile;
const van = FAMILIES['vacuum-vehicle'].typical as VacuumVehicleProfile;

type Size = Pick<
  RemoteVacuumProfile,
  'effectiveDiameter_m' | 'slaveBore_m' | 'rodDiameter_m' | 'spring_N' | 'boostRatio' | 'vacuumVolume_m3'
> & {
  readonly crack_bar: number;
  readonly proof_bar: number;
  readonly bypass_bar: readonly number[];
  readonly ratio_bar: readonly number[];
  readonly full_bar: number;
  readonly hold_bar: number;
};

/** A made-up unit: its own size and test points, limits as the handbook has them for its kind. */
function unit(
  maker: string,
  name: string,
  { crack_bar, proof_bar, bypass_bar, ratio_bar, full_bar, hold_bar, ...size }: Size,
  more: Partial<RemoteVacuumProfile> = {},
): RemoteVacuumProfile {
  return {
    ...typical,
    ...size,
    maker,
    name,
    crack_Pa: crack_bar * BAR,
    proof_Pa: proof_bar * BAR,
    bypassInputs_Pa: bars(...bypass_bar),
    ratioInputs_Pa: bars(...ratio_bar),
    fullInput_Pa: full_bar * BAR,
    holdInput_Pa: hold_bar * BAR,
    ...more,
  };
}

/** A made-up vehicle: typical figures, with what its parts have of their own. */
function vehicle(
  name: string,
  maker: string,
  own: { [R in 'source' | 'unit' | 'load']?: Partial<VacuumVehicleProfile[R]> },
): VacuumVehicleProfile {
  return {
    ...van,
    name,
    maker,
    source: { ...van.source, maker, name: `${maker} engine`, ...own.source },
    unit: { ...van.unit, maker, name: `${maker} Single 9`, ...own.unit },
    load: { ...van.load, maker, name: `${maker} wheel brakes`, ...own.load },
  };
}

/** Mass, and brake force of each axle for a bar. */
const stopOf = (mass_kg: number, front_NPerBar: number, rear_NPerBar: number) => ({
  mass_kg,
  front_NPerBar,
  rear_NPerBar,
  contact_Pa: 0.4 * BAR,
});

const school18 = { value: 18 * INHG_PA, source: 'Bench handbook 15: the 18 inHg school, uncorrected' };

/** Remote units of different size: large cans, small ones, with and without a stop-lamp switch, both schools of supply. */
export const profiles = {
  tollan: { ...typical, name: 'Tollan RV-230', maker: 'Tollan' },
  tollan280: unit('Tollan', 'Tollan RV-280', {
    effectiveDiameter_m: 0.245,
    slaveBore_m: 0.0254,
    rodDiameter_m: 0.008,
    spring_N: 160,
    boostRatio: 3.1,
    vacuumVolume_m3: 6.1e-3,
    crack_bar: 2.6,
    proof_bar: 130,
    bypass_bar: [20, 45, 70, 95],
    ratio_bar: [8, 11, 14, 17],
    full_bar: 26,
    hold_bar: 16,
  }),
  tollan205: unit('Tollan', 'Tollan RV-205 Twin Port', {
    effectiveDiameter_m: 0.205,
    slaveBore_m: 0.0191,
    rodDiameter_m: 0.006,
    spring_N: 100,
    boostRatio: 3.8,
    vacuumVolume_m3: 3.4e-3,
    crack_bar: 3.4,
    proof_bar: 140,
    bypass_bar: [20, 50, 80, 110],
    ratio_bar: [12, 15, 18, 21],
    full_bar: 26,
    hold_bar: 20,
  }),
  eskmoor: unit(
    'Esk & Moor',
    'Esk & Moor Lesser 180',
    {
      effectiveDiameter_m: 0.158,
      slaveBore_m: 0.019,
      rodDiameter_m: 0.005,
      spring_N: 80,
      boostRatio: 2.4,
      vacuumVolume_m3: 2.2e-3,
      crack_bar: 3.2,
      proof_bar: 120,
      bypass_bar: [15, 35, 55, 80],
      ratio_bar: [12, 16, 19, 22],
      full_bar: 32,
      hold_bar: 20,
    },
    { fluid: 'dot5.1' },
  ),
  eskmoorGreater: unit(
    'Esk & Moor',
    'Esk & Moor Greater 250',
    {
      effectiveDiameter_m: 0.238,
      slaveBore_m: 0.0222,
      rodDiameter_m: 0.007,
      spring_N: 140,
      boostRatio: 3.3,
      vacuumVolume_m3: 5.2e-3,
      crack_bar: 2.8,
      proof_bar: 140,
      bypass_bar: [20, 45, 70, 100],
      ratio_bar: [11, 15, 19, 23],
      full_bar: 32,
      hold_bar: 20,
    },
    { lampSwitch: null },
  ),
  varnholt190: unit(
    'Varnholt',
    'Varnholt Stroomer 190',
    {
      effectiveDiameter_m: 0.168,
      slaveBore_m: 0.0175,
      rodDiameter_m: 0.005,
      spring_N: 85,
      boostRatio: 2.8,
      vacuumVolume_m3: 2.4e-3,
      crack_bar: 3,
      proof_bar: 120,
      bypass_bar: [15, 40, 65, 90],
      ratio_bar: [12, 16, 20, 24],
      full_bar: 34,
      hold_bar: 22,
    },
    { limits: { ...typical.limits, supplyNeed_Pa: school18 } },
  ),
  varnholt225: unit(
    'Varnholt',
    'Varnholt Stroomer 225 S',
    {
      effectiveDiameter_m: 0.212,
      slaveBore_m: 0.0206,
      rodDiameter_m: 0.006,
      spring_N: 120,
      boostRatio: 4.1,
      vacuumVolume_m3: 3.8e-3,
      crack_bar: 3.6,
      proof_bar: 140,
      bypass_bar: [20, 45, 70, 100],
      ratio_bar: [9, 11.5, 14, 16.5],
      full_bar: 22,
      hold_bar: 15,
    },
    { ratioLimitFor: 'at-input', limits: { ...typical.limits, supplyNeed_Pa: school18 } },
  ),
  eskmoorDinghy: unit(
    'Esk & Moor',
    'Esk & Moor Dinghy 160',
    {
      effectiveDiameter_m: 0.14,
      slaveBore_m: 0.0175,
      rodDiameter_m: 0.005,
      spring_N: 60,
      boostRatio: 1.95,
      vacuumVolume_m3: 1.6e-3,
      crack_bar: 2.4,
      proof_bar: 110,
      bypass_bar: [15, 35, 55, 75],
      ratio_bar: [12, 18, 24, 30],
      full_bar: 44,
      hold_bar: 28,
    },
    { fluid: 'mineral', lampSwitch: null },
  ),
  tollanLighter: {
    ...servo,
    name: 'Tollan Lighter RS-12',
    maker: 'Tollan',
    effectiveArea_m2: 0.0185,
    preload_N: 90,
    crack_Pa: 1.4 * BAR,
    fullLift_Pa: 7 * BAR,
    forceInputs_Pa: bars(2.5, 4, 5.5),
    fullInput_Pa: 9 * BAR,
    tank_m3: 10e-3,
  },
  eskmoorSummit: {
    ...pedalValve,
    name: 'Esk & Moor Summit DV-16',
    maker: 'Esk & Moor',
    spring_NPerM: 150e3,
    lag_N: 22,
    stop_m: 12.5e-3,
    sweep_m: [4.5e-3, 6.5e-3, 8.5e-3, 10.5e-3],
    shell_m3: 0.75e-3,
    preCharge_Pa: 80 * BAR,
    charge_Pa: 155 * BAR,
  },
  tollanShuttle: {
    ...motorPumpBooster,
    name: 'Tollan Shuttle EB-3',
    maker: 'Tollan',
    source: { ...motorPumpBooster.source, name: 'Tollan pump P-13', supply_V: 12.8 },
    unit: {
      ...motorPumpBooster.unit,
      name: 'Tollan EB-3',
      ratio: 5.5,
      shell_m3: 0.28e-3,
      preCharge_Pa: 70 * BAR,
      in_Pa: 120 * BAR,
      out_Pa: 155 * BAR,
    },
  },
  shuttle: {
    ...motorPumpVehicle,
    name: 'Tollan Harbour Shuttle',
    maker: 'Tollan',
    source: { ...motorPumpVehicle.source, name: 'Tollan pump P-14', supply_V: 12.8 },
    unit: { ...motorPumpVehicle.unit, name: 'Tollan EB-4', in_Pa: 115 * BAR, out_Pa: 150 * BAR },
    load: {
      ...motorPumpVehicle.load,
      name: 'Tollan shuttle brakes',
      masterBore_m: 0.0254,
      stop: stopOf(2900, 230, 120),
    },
  },
  varnholtBooster: {
    ...hydraulicBooster,
    name: 'Varnholt HB-5 with its pump',
    maker: 'Varnholt',
    source: { ...hydraulicBooster.source, name: 'Varnholt pump for the HB-5', relief_Pa: 95 * BAR },
    unit: { ...hydraulicBooster.unit, name: 'Varnholt HB-5', ratio: 4.6, full_Pa: 85 * BAR },
  },
  quayTruck: {
    ...hydraulicVehicle,
    name: 'Varnholt Quay Truck',
    maker: 'Varnholt',
    source: { ...hydraulicVehicle.source, name: 'Varnholt steering pump' },
    unit: { ...hydraulicVehicle.unit, name: 'Varnholt HB-6', preCharge_Pa: 48 * BAR },
    load: {
      ...hydraulicVehicle.load,
      name: 'Varnholt truck brakes',
      masterBore_m: 0.0286,
      stop: stopOf(3400, 260, 150),
    },
  },
  moorSaloon: {
    ...storedPressure,
    name: 'Esk & Moor Saloon 12',
    maker: 'Esk & Moor',
    source: { ...storedPressure.source, name: 'Esk & Moor pump EP-2', idle_PerS: 14 },
    unit: {
      ...storedPressure.unit,
      name: 'Esk & Moor circuits SP-12',
      preCharge_Pa: 62 * BAR,
      lamp_Pa: 80 * BAR,
    },
    load: { ...storedPressure.load, name: 'Esk & Moor saloon brakes', stop: stopOf(1750, 110, 75) },
  },
  moorCircuits: {
    ...storedBench,
    name: 'Esk & Moor circuits SP-12, rebuilt',
    maker: 'Esk & Moor',
    source: { ...storedBench.source, name: 'Esk & Moor pump EP-3', idle_PerS: 14 },
    unit: {
      ...storedBench.unit,
      name: 'Esk & Moor circuits SP-12R',
      preCharge_Pa: 62 * BAR,
      lamp_Pa: 80 * BAR,
    },
    load: { ...storedBench.load, name: 'Bench calipers for the SP-12' },
  },
  ridgeLoader: {
    ...valveMachine,
    name: 'Varnholt Ridge Loader',
    maker: 'Varnholt',
    source: { ...valveMachine.source, name: 'Varnholt charge valve CV-4', charge_Pa: 160 * BAR },
    unit: { ...valveMachine.unit, name: 'Varnholt DV-18', charge_Pa: 160 * BAR, preCharge_Pa: 88 * BAR },
    load: { ...valveMachine.load, name: 'Varnholt axle brakes', stop: stopOf(11_500, 900, 700) },
  },
  mailVan: vehicle('Tollan Mail Van 3', 'Tollan', { load: { stop: stopOf(1900, 175, 70) } }),
  libraryBus: vehicle('Varnholt Harbour Coach', 'Varnholt', {
    unit: {
      name: 'Varnholt Tandem 8',
      chambers: 'tandem',
      area_m2: 0.041,
      reaction: 5,
      pedalRatio: 4,
      front_m3: 4.4e-3,
    },
    load: { name: 'Varnholt coach brakes', valves: 'two', masterBore_m: 0.0254, stiffness_m3PerPa: 5e-13 },
  }),
  snowLoader: vehicle('Esk & Moor Summit Van', 'Esk & Moor', {
    source: {
      name: 'Esk & Moor engine pump',
      makes: 'engine-pump',
      suction_m3PerS: 2e-3,
      floorShare: 0.08,
      idle_Pa: null,
      spare_m3PerSPa: null,
    },
    unit: { name: 'Esk & Moor Single 9' },
    load: { name: 'Esk & Moor van brakes' },
  }),
  electricVan: vehicle('Esk & Moor Quiet Van', 'Esk & Moor', {
    source: {
      name: 'Esk & Moor electric vacuum pump',
      makes: 'electric-pump',
      suction_m3PerS: 5e-4,
      floorShare: 0.12,
      idle_Pa: null,
      spare_m3PerSPa: null,
      on_Pa: 58e3,
      off_Pa: 74e3,
    },
    unit: { name: 'Esk & Moor Single 9' },
    load: { name: 'Esk & Moor van brakes' },
  }),
  tollanMotor: {
    ...motorBooster,
    name: 'Tollan MB-2 on the bench',
    maker: 'Tollan',
    source: { ...motorBooster.source, name: 'Battery of the bench', own_Ohm: 0.006 },
    unit: { ...motorBooster.unit, name: 'Tollan MB-2', pedalRatio: 3.4, gain: 5.2, friction_N: 55 },
  },
  nightCart: {
    ...motorVehicle,
    name: 'Tollan Night Cart',
    maker: 'Tollan',
    source: { ...motorVehicle.source, name: 'Tollan cart battery' },
    unit: { ...motorVehicle.unit, name: 'Tollan MB-2', pedalRatio: 3.4, gain: 5.2, friction_N: 55 },
    load: {
      ...motorVehicle.load,
      name: 'Tollan cart brakes',
      masterBore_m: 0.0238,
      stop: stopOf(2100, 240, 120),
    },
  },
  hybridShuttle: {
    ...decoupled,
    name: 'Esk & Moor Hybrid Shuttle',
    maker: 'Esk & Moor',
    source: { ...decoupled.source, name: 'Esk & Moor store CS-2' },
    unit: { ...decoupled.unit, name: 'Esk & Moor DB-4', pedalRatio: 3.3 },
    load: { ...decoupled.load, name: 'Esk & Moor shuttle brakes', stop: stopOf(1600, 150, 57) },
  },
  tollanSingle: { ...van.unit, name: 'Tollan Single 8', maker: 'Tollan' },
} satisfies Record<
  string,
  | RemoteVacuumProfile
  | RodServoProfile
  | PedalValveProfile
  | ByWireVehicleProfile
  | MotorBoosterBenchProfile
  | MotorBoosterVehicleProfile
  | MotorPumpBenchProfile
  | HydraulicBenchProfile
  | HydraulicVehicleProfile
  | StoredPressureBenchProfile
  | StoredPressureVehicleProfile
  | PedalValveVehicleProfile
  | MotorPumpVehicleProfile
  | VacuumVehicleProfile
  | VacuumVehicleProfile['unit']
>;
