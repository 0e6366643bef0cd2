import type { Port } from '../contract/family';
import { SEA_LEVEL_PA } from '../air/atmosphere';
import { PRE_CHARGE_K } from '../fluid/accumulator';
import { brakeVolume_m3 } from '../fluid/closed-line';
import { assemblyOf, type AssemblyProfile } from './assembly';
import { mustBe, untilMended } from './bench-items';
import { enginePump, member as pump, motionOn as pumpOn, type EnginePumpProfile } from './engine-pump/index';
import {
  FRONT,
  lineOf,
  REAR,
  lineBrakes,
  member as brakes,
  motionOn as brakesOn,
  type LineBrakesProfile,
} from './line-brakes/index';
import { BY_ENGINE } from './pump-drive';
import { ACCUMULATORS, DRIVE, emptied, storedCircuits, TIMERS } from './stored-pressure-bench';
import {
  member as circuits,
  motionOn as circuitsOn,
  storedPressure,
  type StoredPressureProfile,
} from './stored-pressure/index';
import { knowingNoStop } from './stop-figures';
import { BRAKE_PORTS, RESERVOIR, TEE_S } from './vehicle-ports';
import { BY_AN_ENGINE, onVehicle } from './vehicle-steps';
import { byReserve, type StoredCircuit } from './without-power';

/** What is fitted to a car on stored pressure. */
export interface StoredPressureVehicleProfile extends AssemblyProfile<
  EnginePumpProfile,
  StoredPressureProfile,
  LineBrakesProfile
> {
  readonly kind: 'stored-pressure-vehicle';
}

const brakePort = (id: (typeof BRAKE_PORTS)[number]['id']): Port =>
  BRAKE_PORTS.find((port) => port.id === id)!;

/** Where a car on stored pressure is read. A test that needs a gauge which nobody carries is left out. */
const PORTS: readonly Port[] = [
  brakePort('pedal'),
  { ...ACCUMULATORS[0], fit_s: TEE_S },
  { ...ACCUMULATORS[1], fit_s: TEE_S },
  { ...brakePort('front'), name: 'Front brakes' },
  { ...brakePort('rear'), name: 'Rear brakes' },
  brakePort('travel'),
  ...TIMERS,
  {
    id: 'ram',
    name: 'Ram line',
    short: 'Rams',
    quantity: 'pressure',
    ink: 'activation',
    optional: true,
    bledOnly: true,
    fit_s: TEE_S,
  },
  { id: 'left', name: 'Height, left', short: 'Left', quantity: 'travel', optional: true },
  { id: 'right', name: 'Height, right', short: 'Right', quantity: 'travel', optional: true },
  { ...DRIVE, name: 'Engine', short: 'Engine' },
  RESERVOIR,
];

const RAMS = mustBe(
  'rams',
  'Rams let out',
  'A gauge goes into the ram line: body on stands, and the bleed screw of each ram opened slowly into a closed hose until its flow has stopped?',
  'On stands, nothing comes',
  [
    'held',
    'Not yet, or it still comes',
    untilMended(
      'Set the body on stands, then bleed each ram into a closed hose. The height valve holds pressure there with both circuits at zero.',
    ),
  ],
  ['closed', 'That line stays closed, no gauge goes there'],
);

const LEVELLED = { levelled: true } as const;

const AT_REST = { ignition: 'off', engine: 'off' } as const;

/** A car with two circuits of stored pressure and levelling. Handbook-models 8.6. */
export const storedPressureVehicle = assemblyOf<EnginePumpProfile, StoredPressureProfile, LineBrakesProfile>({
  kind: 'stored-pressure-vehicle',
  name: 'Car on stored pressure',
  at: {
    ...onVehicle(
      {
        ports: PORTS,
        ...BY_AN_ENGINE,
        stored: ['supply', 'supply-2', 'ram'],
      },
      {
        atRest: AT_REST,
        cautions: [
          'running-engine',
          'held-by-check-valves',
          'charged-vessel',
          'body-moves',
          'fluids',
          'lining-dust',
          'bench-pressure',
        ],
        first: [emptied('Engine off'), RAMS],
        fits: 'a gauge at each accumulator behind its check valve, one in the ram line, one at a front and one at a rear bleed screw, the force gauge on the pedal, rules at both rear corners',
        spends:
          'Engine off, the brake applied until both accumulators read zero; body on stands and the rams bled into a closed hose where a gauge stands in their line.',
        closes: 'both accumulators and the ram line closed, the height valve linked again, stands out',
      },
    ),
    names: {
      supply: 'the pump',
      unit: 'the stored pressure',
      load: 'what it drives',
      all: 'Pump, both circuits and brakes',
    },
  },
  source: enginePump,
  unit: storedPressure(LEVELLED),
  load: lineBrakes,
  members: {
    source: { ...pump, motion: pumpOn(PORTS, BY_ENGINE) },
    unit: { ...circuits, motion: circuitsOn(PORTS, LEVELLED) },
    load: { ...brakes, motion: brakesOn(PORTS) },
  },
  loadOf: ({ load, unit }) => ({ ...load, pedalRatio: unit.pedalRatio }),
  ...storedCircuits,
  upcasts: [knowingNoStop],
  withoutPower: ({ unit, load }, whole, full) => {
    const circuit = (side: 'front' | 'rear', reading: string): StoredCircuit => ({
      name: `${side} circuit`,
      vessel: { ...unit, full_Pa: unit.in_Pa, temperature_K: PRE_CHARGE_K },
      reading,
      lamp_Pa: unit.lamp_Pa,
      taken_m3: (pressure_Pa) =>
        brakeVolume_m3(lineOf(load, side === 'front' ? FRONT : REAR), pressure_Pa, SEA_LEVEL_PA),
    });
    return byReserve({
      stop: load.stop,
      whole,
      powered: { ...full, supply_Pa: unit.in_Pa, supply2_Pa: unit.in_Pa },
      by: { travel: 'load.travel' },
      front: circuit('front', 'output'),
      rear: circuit('rear', 'output2'),
    });
  },
});
