import type { Command } from '../model/motion';

/** What can be done by hand at a bench with a vacuum pump and a handle on the input line. */
// A type and no interface: only so is it one of `Hands`.
export type BenchHands = {
  /** Pressure that the handle is pulled to, Pa, and how fast it is pulled, Pa/s. */
  readonly handle_Pa: number;
  readonly pull_PaPerS: number;
  /** Whether the input line is shut in: the handle no longer reaches the unit. */
  readonly shutIn: boolean;
  /** Whether the unit is open to the source, shut off, or vented to the room. */
  readonly valve: 'open' | 'shut' | 'vented';
  readonly pump: boolean;
};

/** The handle, and the cock behind it. */
export const HANDLE_COMMANDS: readonly Command[] = [
  {
    kind: 'level',
    id: 'handle_Pa',
    name: 'Handle',
    quantity: 'pressure',
    most: 2.5e7,
    usual: 0,
    speed: { id: 'pull_PaPerS', usual: 8e5, most: 1e8 },
  },
  { kind: 'switch', id: 'shutIn', name: 'Input shut in', usual: false },
];

/** The valve between the source and the unit. */
export const VALVE_COMMAND: Command = {
  kind: 'choice',
  id: 'valve',
  name: 'Vacuum valve',
  usual: 'vented',
  choices: [
    { id: 'open', name: 'Vacuum open' },
    { id: 'shut', name: 'Shut' },
    { id: 'vented', name: 'Vented' },
  ],
};

export const PUMP_COMMAND: Command = { kind: 'switch', id: 'pump', name: 'Pump', usual: true };

/** What can be done by hand to a pedal that lets stored pressure into two circuits. */
export type TreadleHands = {
  /** Travel that the pedal is pressed to, m, and how fast, m/s. */
  readonly treadle_m: number;
  readonly press_mPerS: number;
  /** Whether circuit 2 is fed, or shut off from accumulator and brake by its cocks. Without cocks it is fed. */
  readonly second?: 'fed' | 'plugged';
};

export const TREADLE_COMMAND: Command = {
  kind: 'level',
  id: 'treadle_m',
  name: 'Pedal',
  quantity: 'travel',
  most: 0.05,
  usual: 0,
  speed: { id: 'press_mPerS', usual: 0.005, most: 1 },
};

/** Cocks in the lines of circuit 2, as a bench has them. */
export const COCKS_COMMAND: Command = {
  kind: 'choice',
  id: 'second',
  name: 'Circuit 2',
  usual: 'fed',
  choices: [
    { id: 'fed', name: 'Fed' },
    { id: 'plugged', name: 'Shut by its cocks' },
  ],
};

/** A pack stands still until it is started. */
export const PACK_PUMP: Command = { kind: 'switch', id: 'pump', name: 'Pump', usual: false };

/** What can be done by hand to a motor pump. */
// A type and no interface: only so is it one of `Hands`.
export type PumpHands = {
  /** Whether its fuse is in and it may be started. */
  readonly power: boolean;
};

export const POWER_COMMAND: Command = {
  kind: 'switch',
  id: 'power',
  name: 'Power to the pump',
  usual: false,
};
