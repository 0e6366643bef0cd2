import { BAROMETER, TEMPERATURE } from './inputs';
import { z } from 'zod';
import { chokedPerPa_m3PerS, downstream_Pa } from '../air/flow';
import { tankBehindHose_Pa } from '../air/pumped';
import { BENCH_PUMP_M3_PER_S } from '../air/supply';
import { PLUGGED_PORT, takenUp_m3, type ClosedLine } from '../fluid/closed-line';
import type { Member, Standing } from '../model/member';
import {
  benchMasterMotion,
  benchVacuumMotion,
  chargingMotion,
  loadCellMotion,
  pluggedPortMotion,
} from './bench-motion';
import { BY_BENCH } from './pump-drive';
import { healthyUnit, type InputDescriptor } from '../model/vectors';
import { circle_m2 } from './profile-fields';

const nothingAtRest = () => ({ effort: 0, passes: 0 });

const pumpParameters = [
  { id: 'speed_m3PerS', name: 'Suction of the pump', quantity: 'flow' },
  { id: 'hose_m3PerSPa', name: 'Hose from the pump’s tank', quantity: 'conductance' },
] as const;

const pumpInputs = [
  {
    id: 'supply_Pa',
    name: 'Supply depression at the unit, at rest',
    quantity: 'depression',
    from: { port: 'supply', as: 'source' },
  },
  BAROMETER,
  TEMPERATURE,
] as const satisfies readonly InputDescriptor[];

/**
 * A bench's vacuum pump with its tank. How deep it reaches is told by the gauge on the unit while that stands at rest; what
 * flows beyond that, the pump takes away at its suction, over a hose from its tank. A hose of nothing is none: the unit's
 * own line goes straight to the tank.
 */
export const benchVacuum: Member<{ readonly hose_m3PerSPa: number }> = {
  parameters: pumpParameters,
  inputs: pumpInputs,
  readings: [],
  fedBy: [],
  feeds: [{ id: 'vacuum', name: 'Vacuum', coupling: 'vacuum' }],
  motion: benchVacuumMotion,
  healthy: ({ hose_m3PerSPa }) =>
    healthyUnit(pumpParameters, { speed_m3PerS: BENCH_PUMP_M3_PER_S, hose_m3PerSPa }, {}),
  with: (
    [speed_m3PerS = 0, hose_m3PerSPa = 0],
    [supply_Pa = 0, barometer_Pa = 0, temperature_K = 0],
  ): Standing => {
    const choked_m3PerS = chokedPerPa_m3PerS(hose_m3PerSPa, temperature_K);
    const reaching = (reach_Pa: number): Pick<Standing, 'span' | 'through'> => ({
      span: () => [reach_Pa, barometer_Pa],
      through: (_terminal, unit_Pa) => {
        const tank_Pa =
          hose_m3PerSPa > 0 ? tankBehindHose_Pa(choked_m3PerS, speed_m3PerS, unit_Pa, reach_Pa) : unit_Pa;
        return speed_m3PerS * (tank_Pa - reach_Pa);
      },
    });
    return {
      ...reaching(barometer_Pa - Math.min(Math.max(0, supply_Pa), barometer_Pa)),
      drawnAtRest: (unit_Pa, passes) => {
        const tank_Pa =
          hose_m3PerSPa > 0 ? downstream_Pa(hose_m3PerSPa, passes, unit_Pa, temperature_K) : unit_Pa;
        return reaching(Math.max(0, tank_Pa - passes / speed_m3PerS));
      },
      atRest: nothingAtRest,
      read: () => [],
    };
  },
};

const plugParameters = [
  { id: 'air_m3', name: 'Air in the line', quantity: 'volume' },
  { id: 'stiffness_m3PerPa', name: 'Give of the line', quantity: 'volumePerPressure' },
] as const;

/** A plugged port with its pipe: it takes up hardly anything. */
export const pluggedPort: Member<ClosedLine> = {
  parameters: plugParameters,
  inputs: [BAROMETER],
  readings: [],
  fedBy: [{ id: 'fluid', name: 'Fluid', coupling: 'fluid' }],
  feeds: [],
  healthy: ({ air_m3, stiffness_m3PerPa }) => healthyUnit(plugParameters, { air_m3, stiffness_m3PerPa }, {}),
  with: ([air_m3 = 0, stiffness_m3PerPa = 0], [barometer_Pa = 0]) => ({
    span: () => [0, 0],
    through: (_terminal, effort_Pa) => takenUp_m3({ air_m3, stiffness_m3PerPa }, effort_Pa, barometer_Pa),
    atRest: nothingAtRest,
    read: () => [],
  }),
  motion: pluggedPortMotion,
};

const masterParameters = [
  { id: 'area_m2', name: 'Area of the bench master', quantity: 'area' },
  { id: 'air_m3', name: 'Air in its line', quantity: 'volume' },
  { id: 'stiffness_m3PerPa', name: 'Give of its line and caliper', quantity: 'volumePerPressure' },
] as const;

/** A master cylinder that stands on a bench, with one caliper on its port. */
interface BenchMaster extends ClosedLine {
  readonly bore_m: number;
}

/** A bench's master cylinder of usual bore, bled. */
export const BENCH_MASTER: BenchMaster = { bore_m: 0.0222, air_m3: 1e-7, stiffness_m3PerPa: 2e-13 };

/** A master cylinder that a rod pushes: p = F/A, and the rod has gone V(p)/A. */
export const benchMaster: Member<BenchMaster> = {
  parameters: masterParameters,
  inputs: [BAROMETER],
  readings: [{ id: 'pressure', name: 'Pressure of the bench master', quantity: 'pressure' }],
  fedBy: [{ id: 'rod', name: 'Rod', coupling: 'rod' }],
  feeds: [],
  healthy: ({ bore_m, air_m3, stiffness_m3PerPa }) =>
    healthyUnit(masterParameters, { area_m2: circle_m2(bore_m), air_m3, stiffness_m3PerPa }, {}),
  with: ([area_m2 = 0, air_m3 = 0, stiffness_m3PerPa = 0], [barometer_Pa = 0]) => ({
    span: () => [0, 0],
    through: (_terminal, force_N) =>
      force_N > 0 ? takenUp_m3({ air_m3, stiffness_m3PerPa }, force_N / area_m2, barometer_Pa) / area_m2 : 0,
    atRest: nothingAtRest,
    read: (efforts) => [efforts[0]! / area_m2],
  }),
  motion: benchMasterMotion,
};

const cellParameters = [
  { id: 'stiffness_NPerM', name: 'Stiffness of the load', quantity: 'stiffness' },
] as const;

/** A load cell behind a linkage that gives way like a spring. */
export const loadCell: Member<{ readonly loadStiffness_NPerM: number }> = {
  parameters: cellParameters,
  inputs: [],
  readings: [],
  fedBy: [{ id: 'rod', name: 'Rod', coupling: 'rod' }],
  feeds: [],
  healthy: ({ loadStiffness_NPerM }) =>
    healthyUnit(cellParameters, { stiffness_NPerM: loadStiffness_NPerM }, {}),
  with: ([stiffness_NPerM = 0]) => ({
    span: () => [0, 0],
    through: (_terminal, force_N) => force_N / stiffness_NPerM,
    atRest: nothingAtRest,
    read: () => [],
  }),
  motion: loadCellMotion,
};

const packParameters = [
  { id: 'charge_Pa', name: 'Pack charges to', quantity: 'pressure' },
  { id: 'oil_K', name: 'Oil of the pack', quantity: 'temperature' },
] as const;

/** What a bench's pack charges to, and how far a healthy charge may be off. */
interface PackOnBench {
  readonly charge_Pa: number;
  readonly within_Pa: number;
}

/** Oil of a pack that has come to its working temperature, K. Cold oil does what a plugged drilling does. Handbook-models 8.7. */
export const WARM_OIL_K = 313.15;

/**
 * A bench's pump pack: it charges every accumulator to one pressure, holds it there while it runs, and keeps its oil warm. At
 * rest nothing passes: what stands behind a check valve is a state of the unit, told by the gauge on it.
 */
export const pumpPack: Member<PackOnBench> = {
  parameters: packParameters,
  inputs: [],
  readings: [
    { id: 'charged', name: 'Accumulator, charged', quantity: 'pressure' },
    { id: 'oil', name: 'Oil', quantity: 'temperature' },
  ],
  fedBy: [],
  feeds: [{ id: 'charge', name: 'Charge', coupling: 'pumped' }],
  motion: chargingMotion(BY_BENCH),
  healthy: ({ charge_Pa, within_Pa }) =>
    healthyUnit(packParameters, { charge_Pa, oil_K: WARM_OIL_K }, { charge_Pa: within_Pa }),
  with: ([charge_Pa = 0, oil_K = 0]) => ({
    span: () => [charge_Pa, charge_Pa],
    through: () => 0,
    atRest: nothingAtRest,
    read: () => [charge_Pa, oil_K],
  }),
};

/** What a unit works on is a part of it: no member of its own. */
export const noLoad: Member<unknown> = {
  parameters: [],
  inputs: [],
  readings: [],
  fedBy: [],
  feeds: [],
  healthy: () => ({ values: [], tolerances: [] }),
  motion: { states: [], commands: [], owns: [], with: () => ({ atRest: () => [] }) },
  with: () => ({ span: () => [0, 0], through: () => 0, atRest: nothingAtRest, read: () => [] }),
};

/** A member as it is chosen by name: its profile, and one to begin with. */
interface Named<Profile, M extends Member<Profile>> {
  readonly name: string;
  readonly profile: z.ZodType<Profile>;
  readonly typical: Profile;
  readonly member: M;
}

const nothingOrMore = (title: string) =>
  z.number(`${title}: a number is needed.`).min(0, `${title}: none is below zero.`);
const aboveZero = (title: string) =>
  z.number(`${title}: a number is needed.`).positive(`${title}: above zero.`);

/** Sources that stand on a bench. */
export const BENCH_SOURCES = {
  'bench-vacuum': {
    name: 'Vacuum pump of the bench',
    profile: z.strictObject({ hose_m3PerSPa: nothingOrMore('Hose') }),
    typical: { hose_m3PerSPa: 0 },
    member: benchVacuum,
  } satisfies Named<{ readonly hose_m3PerSPa: number }, typeof benchVacuum>,
  'pump-pack': {
    name: 'Pump pack of the bench',
    profile: z.strictObject({
      charge_Pa: aboveZero('Charge'),
      within_Pa: nothingOrMore('Charge, either way'),
    }),
    typical: { charge_Pa: 150e5, within_Pa: 6e5 },
    member: pumpPack,
  } satisfies Named<PackOnBench, typeof pumpPack>,
};

/** Loads that stand on a bench. */
export const BENCH_LOADS = {
  'plugged-port': {
    name: 'Plugged port',
    profile: z.strictObject({
      air_m3: nothingOrMore('Air in the line'),
      stiffness_m3PerPa: aboveZero('Give of the line'),
    }),
    typical: PLUGGED_PORT,
    member: pluggedPort,
  } satisfies Named<ClosedLine, typeof pluggedPort>,
  'load-cell': {
    name: 'Load cell',
    profile: z.strictObject({ loadStiffness_NPerM: aboveZero('Stiffness of the load') }),
    typical: { loadStiffness_NPerM: 60_000 },
    member: loadCell,
  } satisfies Named<{ readonly loadStiffness_NPerM: number }, typeof loadCell>,
  'bench-master': {
    name: 'Master cylinder of the bench',
    profile: z.strictObject({
      bore_m: aboveZero('Bore'),
      air_m3: nothingOrMore('Air in the line'),
      stiffness_m3PerPa: aboveZero('Give of line and caliper'),
    }),
    typical: BENCH_MASTER,
    member: benchMaster,
  } satisfies Named<BenchMaster, typeof benchMaster>,
};
