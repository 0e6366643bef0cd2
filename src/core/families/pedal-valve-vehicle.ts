import type { Port } from '../contract/family';
import { PRE_CHARGE_K } from '../fluid/accumulator';
import { assemblyOf, type AssemblyProfile } from './assembly';
import { mustBe, untilMended } from './bench-items';
import { noLoad } from './bench-members';
import { chargePump, chargePumpBy, type ChargePumpProfile } from './charge-pump';
import { machineBrakes, type MachineBrakesProfile } from './machine-brakes';
import {
  asked,
  curve,
  emptied,
  fullOf,
  loggedOf,
  member as valve,
  motionWith,
  pedalValveFolder,
  ports as BENCH_PORTS,
  type PedalValveProfile,
} from './pedal-valve/index';
import { BY_ENGINE } from './pump-drive';
import { GAUGE_S, TEE_S } from './vehicle-ports';
import { BY_AN_ENGINE, onVehicle } from './vehicle-steps';
import { byReserve, byTravel, type StoredCircuit } from './without-power';

/** What is fitted to a machine whose pedal lets stored pressure into its brakes. */
export interface PedalValveVehicleProfile extends AssemblyProfile<
  ChargePumpProfile,
  PedalValveProfile,
  MachineBrakesProfile
> {
  readonly kind: 'pedal-valve-vehicle';
}

/** Gauges that a machine has not got of its own: a tee behind each check valve, and one at a bleed screw of each circuit. */
const FIT_S: Readonly<Record<string, number>> = {
  supply: TEE_S,
  'supply-2': TEE_S,
  output: GAUGE_S,
  'output-2': GAUGE_S,
};
const PORTS: readonly Port[] = BENCH_PORTS.map((port) => ({
  ...port,
  ...(FIT_S[port.id] && { fit_s: FIT_S[port.id] }),
}));

const LOWERED = mustBe(
  'lowered',
  'Implements down',
  'Parking brake on, implements on the ground, the frame locked where it bends?',
  'Down and locked',
  ['raised', 'Not yet', untilMended('Lower what is raised and lock the frame, then look again.')],
);

/** No cock shuts a circuit off on a machine. */
const NO_COCKS = { cocks: false } as const;

const AT_REST = { ignition: 'off', engine: 'off' } as const;

/** A machine with a dual pedal valve: its own pump charges, and no cock shuts a circuit off. Handbook-models 8.7. */
export const pedalValveVehicle = assemblyOf<ChargePumpProfile, PedalValveProfile, MachineBrakesProfile>({
  kind: 'pedal-valve-vehicle',
  name: 'Machine with dual pedal valve',
  at: {
    ...onVehicle(
      {
        ports: PORTS,
        ...BY_AN_ENGINE,
        stored: ['supply', 'supply-2'],
      },
      {
        atRest: AT_REST,
        cautions: [
          'running-engine',
          'held-by-check-valves',
          'charged-vessel',
          'machine-stands',
          'fluids',
          'bench-pressure',
        ],
        first: [emptied('Engine off, its key out'), LOWERED, ...asked],
        fits: 'a gauge at each accumulator behind its check valve, one at a bleed screw of each circuit, a rule at the pedal, a thermometer in the oil',
        spends:
          'Engine off, pedal pressed again and again until both accumulators read zero: their check valves hold what is stored.',
        closes: 'both accumulators closed',
      },
    ),
    output: 'output',
    names: {
      supply: 'the pump',
      unit: 'the pedal valve',
      load: 'what it drives',
      all: 'Pump and pedal valve',
    },
  },
  source: chargePump,
  unit: pedalValveFolder(NO_COCKS),
  load: machineBrakes,
  members: {
    source: chargePumpBy(BY_ENGINE),
    unit: { ...valve, motion: motionWith(NO_COCKS) },
    load: noLoad,
  },
  loadOf: ({ load }) => load,
  contradict: ({ source, unit }) =>
    source.charge_Pa > unit.lamp_Pa
      ? null
      : {
          path: ['source', 'charge_Pa'],
          say: 'Charges to: above the low-pressure lamp of the valve, or it never goes out.',
        },
  curve,
  fullPower: true,
  fluid: ({ unit }) => unit.fluid,
  logged: ({ unit }) => loggedOf(unit),
  full: ({ unit, source }) => fullOf(unit, source.charge_Pa),
  withoutPower: ({ unit, source, load }, whole, full) => {
    const circuit = (name: string, reading: string): StoredCircuit => ({
      name,
      vessel: { ...unit, full_Pa: source.charge_Pa, temperature_K: PRE_CHARGE_K },
      reading,
      lamp_Pa: unit.lamp_Pa,
      taken_m3: (pressure_Pa) => unit.slack_m3 + unit.give_m3PerPa * pressure_Pa,
    });
    return byReserve({
      stop: load.stop,
      whole,
      powered: full,
      by: byTravel(unit.stop_m),
      front: circuit('circuit 1', 'output'),
      rear: circuit('circuit 2', 'output2'),
    });
  },
  excused: {
    supply: [
      'applications-1',
      'applications-2',
      'maximum',
      'standing-1',
      'standing-2',
      'peak',
      'held',
      'throbs',
    ],
    load: [],
  },
});
