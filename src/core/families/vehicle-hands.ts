import type { Command } from '../model/motion';

/** What can be done by hand in a vehicle: a foot on its pedal, and its key. */
// A type and no interface: only so is it one of `Hands`.
export type VehicleHands = {
  /** Force of the foot, N, and how fast it comes, N/s. */
  readonly pedal_N: number;
  readonly press_NPerS: number;
  readonly key: 'off' | 'ignition' | 'engine';
  /** A tester's way of starting and stopping an electric vacuum pump. */
  readonly pumpAsked: 'itself' | 'on' | 'off';
};

/** A foot, and a load valve in the pressure line of the steering. */
export type SteeringHands = Pick<VehicleHands, 'pedal_N' | 'press_NPerS'> & {
  /** Open to brakes and steering, closed until the gauge shows 50 bar, or shut. */
  readonly loadValve: 'open' | 'half' | 'shut';
};

export const PEDAL_COMMAND: Command = {
  kind: 'level',
  id: 'pedal_N',
  name: 'Pedal',
  quantity: 'force',
  most: 1000,
  usual: 0,
  speed: { id: 'press_NPerS', usual: 400, most: 1e5 },
};

export const KEY_COMMAND: Command = {
  kind: 'choice',
  id: 'key',
  name: 'Key',
  usual: 'off',
  choices: [
    { id: 'off', name: 'Off' },
    { id: 'ignition', name: 'Ignition' },
    { id: 'engine', name: 'Idling' },
  ],
};

/** An electric vacuum pump as a tester asks for it: by its own switch, or on or off whatever that says. */
export const PUMP_ASKED_COMMAND: Command = {
  kind: 'choice',
  id: 'pumpAsked',
  name: 'Vacuum pump, through the interface',
  by: 'interface',
  usual: 'itself',
  choices: [
    { id: 'itself', name: 'By its own switch' },
    { id: 'on', name: 'On' },
    { id: 'off', name: 'Off' },
  ],
};

export const LOAD_VALVE_COMMAND: Command = {
  kind: 'choice',
  id: 'loadValve',
  name: 'Load valve',
  usual: 'open',
  choices: [
    { id: 'open', name: 'Open' },
    { id: 'half', name: 'Closed to 50 bar' },
    { id: 'shut', name: 'Shut' },
  ],
};
