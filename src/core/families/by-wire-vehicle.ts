import type { Port } from '../contract/family';
import type { FluidKind } from '../fluid/kinds';
import type { Rig } from '../contract/run-context';
import type { Item, ReadingItem, Step } from '../contract/steps';
import { assemblyOf, type AssemblyProfile, type Setting } from './assembly';
import { mustBe, readingOn, untilMended } from './bench-items';
import { byWire, member as brake, motionOn as brakeOn, type ByWireProfile } from './by-wire/index';
import {
  capacitorSupply,
  member as supply,
  motionOn as supplyOn,
  wait_s,
  type CapacitorSupplyProfile,
} from './capacitor-supply/index';
import {
  fourWheels,
  member as wheels,
  motionOn as wheelsOn,
  type FourWheelsProfile,
} from './four-wheels/index';
import { TRACK_PORTS } from './pedal-tracks';
import { BRAKE_PORTS, GAUGE_S, TEE_S } from './vehicle-ports';
import { onVehicle } from './vehicle-steps';
import { WHEELS } from './wheel-lines';
import { byFoot } from './without-power';

/** What is fitted to a vehicle with a decoupled brake. */
export interface ByWireVehicleProfile extends AssemblyProfile<
  CapacitorSupplyProfile,
  ByWireProfile,
  FourWheelsProfile
> {
  readonly kind: 'by-wire-vehicle';
}

const brakePort = (id: (typeof BRAKE_PORTS)[number]['id']): Port =>
  BRAKE_PORTS.find((port) => port.id === id)!;

/** A place for a meter that not everybody carries. */
const optional = (
  id: string,
  name: string,
  short: string,
  quantity: 'voltage' | 'current' | 'duration' | 'torque',
  ink: Port['ink'] = 'activation',
): Port => ({ id, name, short, quantity, ink, optional: true });

/** Where a vehicle with a decoupled brake is read. A test that needs a gauge which nobody carries is left out. */
const PORTS: readonly Port[] = [
  brakePort('pedal'),
  brakePort('travel'),
  { id: 'battery', name: 'Battery', short: 'Batt', quantity: 'voltage', ink: 'supply' },
  { id: 'store', name: 'Capacitor store', short: 'Store', quantity: 'voltage', ink: 'supply' },
  { id: 'supply', name: 'Accumulator', short: 'Acc', quantity: 'pressure', fit_s: TEE_S },
  ...WHEELS.map(({ port, name, short }): Port => ({
    id: port,
    name: `Brake ${name}`,
    short,
    quantity: 'pressure',
    ink: 'output',
    optional: true,
    fit_s: GAUGE_S,
  })),
  optional('master-1', 'Master sensor 1', 'Mast 1', 'voltage', 'input'),
  optional('master-2', 'Master sensor 2', 'Mast 2', 'voltage', 'input'),
  ...TRACK_PORTS.map((port): Port => ({ ...port, optional: true })),
  optional('accumulator-sensor', 'Accumulator sensor', 'Acc V', 'voltage', 'supply'),
  ...WHEELS.map(({ port, name, short }) =>
    optional(`${port}-sensor`, `Sensor of the brake ${name}`, `${short} V`, 'voltage', 'output'),
  ),
  optional('valve', 'Current of a valve', 'Valve', 'current'),
  optional('timer', 'Recorder of the charge', 'Time', 'duration', 'supply'),
  optional('requested', 'Regeneration asked for', 'Asked', 'torque', 'input'),
  optional('granted', 'Regeneration granted', 'Granted', 'torque', 'output'),
];

const AT_REST = { ignition: 'off', power: 'isolated' } as const;
const AWAKE = { power: 'on', ignition: 'on' } as const;

/** A meter on a battery shows at least this part of its volts where it works at all. */
const LIVE_PART = 0.7;

const ISOLATED = mustBe(
  'high-voltage',
  'High voltage isolated',
  'High voltage of the drive isolated and proved dead by an authorised person, as the maker says, and secured against coming back?',
  'Isolated by an authorised person',
  [
    'live',
    'Not yet',
    untilMended(
      'Nothing is touched before. Have it isolated by somebody who is authorised, then look again.',
    ),
  ],
  ['none', 'This vehicle has none'],
);
const ASLEEP = mustBe(
  'asleep',
  'Cannot wake',
  'Battery disconnected, key and remote out of reach, doors as the maker says: so that nothing wakes the brake?',
  'Cannot wake',
  [
    'wakes',
    'Not yet',
    untilMended('A door or a remote wakes the brake, and it presses. See to it, then look again.'),
  ],
);

/**
 * A store that may still press is shown to be empty by a reading, and by no wait: on a meter that reads a live source before and
 * after, for leads that are off read nothing too. Handbook 2; handbook-models 8.9.
 *
 * @param of the step that it belongs to
 */
function emptyStore(of: string, rig: Rig, source: CapacitorSupplyProfile): Item[] {
  // One and the same meter for all three.
  const meter = rig.store?.[0]?.tag;
  const read = (id: string, measures: string, prompt: string, gate: ReadingItem['gate']) =>
    readingOn(PORTS, `${of}.${id}`, 'store', measures, prompt, {
      gate,
      moment: 'by-hand',
      ...(meter !== undefined && { gauge: meter }),
    });
  const live = { low: LIVE_PART * source.battery_V };
  return [
    read('live', 'source.proof', 'Prove the meter: read it on the battery’s posts.', live),
    {
      kind: 'wait',
      id: `${of}.wait`,
      prompt: 'The store discharges itself. The wait opens nothing: the reading behind it does',
      duration_s: wait_s(source),
      starts: 'key',
    },
    read('store', 'source.residual', 'The same meter on the store: read what is left in it.', {
      high: source.limits.safe_V.value,
    }),
    read('live-again', 'source.proof', 'Prove the meter again: read it on the battery’s posts.', live),
  ];
}

/** The step in which that is done. */
const storeStep = (id: string, rig: Rig, source: CapacitorSupplyProfile): Step => ({
  id,
  title: 'Store empty, by reading',
  instruction:
    'Battery isolated, the pedal pressed until it helps no more, nobody near pads or lines. The meter on a live source, then on the store at the pins that the maker names, then on the live source again.',
  cautions: ['stored-charge', 'wakes-itself', 'held-by-check-valves'],
  state: { ...AT_REST, charge: 'spent' },
  needs: [],
  mandatory: true,
  leaves: { input: 'released' },
  attended_s: 120,
  items: emptyStore(id, rig, source),
});

const STORE_READ = ['live', 'store', 'live-again'] as const;

const vehicle = onVehicle(
  {
    ports: PORTS,
    on: AWAKE,
    off: AT_REST,
    lit: AWAKE,
    stored: ['supply'],
    says: { on: 'Ignition on', off: 'Ignition off, battery isolated' },
  },
  {
    atRest: AT_REST,
    cautions: [
      'high-voltage',
      'stored-charge',
      'wakes-itself',
      'held-by-check-valves',
      'charged-vessel',
      'fluids',
      'lining-dust',
      'bench-pressure',
    ],
    first: [ISOLATED, ASLEEP],
    fits: 'the gauge of the accumulator, a pressure gauge at each wheel’s bleed screw, the force gauge on the pedal, the meter at pins made for it',
    spends:
      'Battery isolated, pedal pressed 40 times and more until the accumulator reads zero: its check valve holds what is stored.',
    closes: 'accumulator’s port closed, plugs home and locked, battery on last',
  },
);

const at: Setting<FluidKind, CapacitorSupplyProfile> = {
  ...vehicle,
  output: 'front-left',
  opening: (rig, fluid, source) => {
    const [cautions, ...rest] = vehicle.opening(rig, fluid, source);
    const gates = STORE_READ.map((id) => `dead.${id}`);
    return [
      cautions!,
      { ...storeStep('dead', rig, source), needs: ['cautions'] },
      ...rest.map((step) => ({ ...step, gates, needs: [...step.needs, 'dead'] })),
    ];
  },
  closing: (rig, fluid, source) => {
    const gates = STORE_READ.map((id) => `emptied.${id}`);
    return [
      storeStep('emptied', rig, source),
      ...vehicle
        .closing(rig, fluid, source)
        .map((step) => (step.id === 'make-safe' ? { ...step, gates } : step)),
    ];
  },
  names: {
    supply: 'the battery with its store',
    unit: 'the brake’s unit',
    load: 'what it presses',
    all: 'Store, unit and brakes',
  },
};

/** A vehicle with a decoupled brake. Handbook 8.9; handbook-models 8.9, 10. */
export const byWireVehicle = assemblyOf<CapacitorSupplyProfile, ByWireProfile, FourWheelsProfile>({
  kind: 'by-wire-vehicle',
  name: 'Vehicle with decoupled brake',
  at,
  source: capacitorSupply,
  unit: byWire,
  load: fourWheels,
  members: {
    source: { ...supply, motion: supplyOn(PORTS) },
    unit: { ...brake, motion: brakeOn(PORTS) },
    load: { ...wheels, motion: wheelsOn(PORTS) },
  },
  loadOf: ({ load }) => load,
  curve: {
    input: 'pedal_N',
    output: 'load.frontLeft',
    sources: ['volts.battery'],
    source: 'volts_V',
    releasing: null,
    knee: { reading: 'beginsPedal', word: 'begins' },
  },
  fullPower: true,
  logged: ({ unit: { shell_m3, preCharge_Pa } }) => ({
    accumulators: [{ port: 'supply', name: 'accumulator', shell_m3, preCharge_Pa }],
  }),
  traced: [{ result: 'supply.flick-up', item: 'charge.flick' }],
  contradict: ({ source, unit, load: { stop } }) =>
    stop && stop.mass_kg !== unit.mass_kg
      ? {
          path: ['load', 'stop', 'mass_kg'],
          say: 'The vehicle weighs as much here as where its brake is described.',
        }
      : source.least_V < unit.cutOff_V
        ? {
            path: ['source', 'least_V'],
            say: 'The store must be counted on no further than the control unit goes on: least volts at or above where it switches off.',
          }
        : source.battery_V <= unit.cutOff_V
          ? {
              path: ['unit', 'cutOff_V'],
              say: 'The battery must stand above the voltage at which the control unit switches off.',
            }
          : null,
  fluid: ({ unit }) => unit.fluid,
  full: ({ unit, source }) => ({
    pedal_N: Math.max(...unit.targets_N),
    volts_V: source.battery_V,
    store_V: source.battery_V,
    supply_Pa: unit.out_Pa,
    applications: 1,
    elapsed_s: 60,
  }),
  withoutPower: ({ load }, whole, full, alone) =>
    byFoot({
      stop: load.stop,
      lines: { front: 'load.frontLeft', rear: 'load.rearLeft' },
      travels: 'travel',
      whole,
      powered: full,
      alone,
    }),
  excused: { supply: [], load: [] },
});
