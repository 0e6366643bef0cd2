import { holdingPower_W } from '../../electric/feed';
import { heldBy_A, motorOutput_N, motorRunout_N, type MotorBooster } from '../../electric/motor-booster';
import type { Vector } from '../../model/descriptor';
import type { Member, Nodes, Standing } from '../../model/member';
import { healthyUnit, reader, type InputDescriptor, type Named } from '../../model/vectors';
import type { ElectromechanicalProfile } from './profile';

/** What makes one booster differ from another, and what faults move. */
export const parameters = [
  { id: 'pedalRatio', name: 'Pedal ratio', quantity: 'ratio' },
  { id: 'spring_N', name: 'Return spring', quantity: 'force' },
  { id: 'friction_N', name: 'Friction of gear and seals', quantity: 'force' },
  { id: 'crack_N', name: 'Input at which it begins to help', quantity: 'force' },
  { id: 'jump_N', name: 'Output that comes at once then', quantity: 'force' },
  { id: 'gain', name: 'Output for each newton beyond', quantity: 'ratio' },
  { id: 'perAmpere_N', name: 'Force for each ampere in the motor', quantity: 'force' },
  { id: 'limit_N', name: 'Most assist', quantity: 'force' },
  { id: 'winding_Ohm', name: 'Winding of the motor', quantity: 'resistance' },
  { id: 'idle_W', name: 'Control unit by itself', quantity: 'power' },
  { id: 'limit_A', name: 'Most current in the motor', quantity: 'current' },
  { id: 'cutOff_V', name: 'Switches off at', quantity: 'voltage' },
  { id: 'full_m', name: 'Full way of its sensor', quantity: 'travel' },
  { id: 'sensor_V', name: 'Supply of its sensor', quantity: 'voltage' },
  { id: 'magnet_m', name: 'Magnet of the sensor, displaced', quantity: 'travel' },
  { id: 'drift_V', name: 'First track, drifted', quantity: 'voltage' },
  { id: 'swapped', name: 'Tracks swapped: 1, else 0', quantity: 'ratio' },
] as const;

const inputs = [
  { id: 'pedal_N', name: 'Pedal force', quantity: 'force', from: { port: 'pedal', as: 'set' } },
] as const satisfies readonly InputDescriptor[];

const readings = [
  { id: 'output', name: 'Force of the pushrod', quantity: 'force' },
  { id: 'runoutPedal', name: 'Pedal force at runout', quantity: 'force' },
  { id: 'terminals', name: 'At its control unit', quantity: 'voltage' },
  { id: 'current', name: 'Current in the motor', quantity: 'current' },
  { id: 'falls', name: 'Pedal force at which the pressure first falls', quantity: 'force', apart: { SI: 2 } },
  { id: 'sensorSupply', name: 'Supply of the sensor', quantity: 'voltage' },
  { id: 'track1', name: 'Track 1', quantity: 'voltage' },
  { id: 'track2', name: 'Track 2', quantity: 'voltage' },
] as const;

export type Parameters = Named<typeof parameters>;
export const named = reader(parameters);

const [FEED, ROD] = [0, 1];

/** What a control unit holds at once: the force of the rod, and the motor's current. */
interface Holding {
  readonly output_N: number;
  readonly current_A: number;
}

/**
 * A booster with a motor beside its rod. Its control unit takes a constant power to hold a force; where the feed leaves it no more than
 * it switches off at, it holds what that power is enough for. Handbook-models 8.8.
 */
class Electromechanical implements Standing {
  private readonly p: Parameters;
  private readonly booster: MotorBooster;

  constructor(
    vector: Vector,
    private readonly pedal_N: number,
  ) {
    this.p = named(vector);
    this.booster = this.p;
  }

  /** What it holds: by its map while it has power, whose control makes up for friction; without, the foot against spring and friction. */
  private holding(most_A: number): Holding {
    const { p, booster } = this;
    const input_N = p.pedalRatio * this.pedal_N;
    if (most_A <= 0) return { output_N: Math.max(0, input_N - p.spring_N - p.friction_N), current_A: 0 };
    const output_N = motorOutput_N(booster, input_N, most_A);
    return { output_N, current_A: heldBy_A(booster, input_N, output_N) };
  }

  span(): readonly [number, number] {
    return [0, 0];
  }

  /** Current that it draws, A: a constant power while it has more than it switches off at, and nothing below. */
  through(terminal: number, at_V: number): number {
    const { p } = this;
    if (terminal !== FEED || at_V <= p.cutOff_V) return 0;
    return holdingPower_W(p, this.holding(p.limit_A).current_A) / at_V;
  }

  atRest() {
    return { effort: 0, passes: 0 };
  }

  /** Most current in the motor with so much at the control unit, A. */
  private most_A(at_V: number, nodes: Nodes): number {
    const { p } = this;
    if (!(at_V > p.cutOff_V - CLOSE_V)) return 0;
    if (at_V > p.cutOff_V + CLOSE_V) return p.limit_A;
    const left_W = at_V * nodes.taken(FEED, at_V) - p.idle_W;
    return Math.min(p.limit_A, Math.sqrt(Math.max(0, left_W) / p.winding_Ohm));
  }

  brings(_terminal: number, efforts: ArrayLike<number>, nodes: Nodes): number {
    return this.holding(this.most_A(efforts[FEED]!, nodes)).output_N;
  }

  read(efforts: ArrayLike<number>, nodes: Nodes): number[] {
    const { p, booster } = this;
    const at_V = efforts[FEED]!;
    const most_A = this.most_A(at_V, nodes);
    const { current_A } = this.holding(most_A);
    const isOn = most_A > 0;
    const rises = 0.1 + (0.8 * (nodes.taken(ROD, efforts[ROD]!) + p.magnet_m)) / p.full_m;
    const tracks = [held(rises, p.sensor_V) + p.drift_V, held(1 - rises, p.sensor_V)] as const;
    const [track1, track2] = p.swapped > 0.5 ? [tracks[1], tracks[0]] : tracks;
    return [
      efforts[ROD]!,
      motorRunout_N(booster, most_A) / p.pedalRatio,
      isOn ? at_V : 0,
      isOn ? current_A : 0,
      Math.max(0, this.pedal_N - (2 * p.friction_N) / (p.gain * p.pedalRatio)),
      isOn ? p.sensor_V : 0,
      isOn ? track1 : 0,
      isOn ? track2 : 0,
    ];
  }
}

/** A part of a supply, within it. */
const held = (part: number, supply_V: number): number => Math.min(1, Math.max(0, part)) * supply_V;

/** So nearly it stands at where it switches off, V: the balance at the feed is found to less. */
const CLOSE_V = 1e-4;

function healthy(profile: ElectromechanicalProfile) {
  const { limits, kind: _kind, name: _name, maker: _maker, ...values } = profile;
  return healthyUnit(
    parameters,
    { ...values, magnet_m: 0, drift_V: 0, swapped: 0 },
    {
      gain: limits.output_fraction.value * values.gain,
      jump_N: limits.output_fraction.value * values.jump_N,
      friction_N: limits.unpowered_fraction.value * values.friction_N,
      magnet_m: limits.rest_m.value / 2,
    },
  );
}

/** A booster to be joined to its supply and to what its rod pushes. */
export const member: Member<ElectromechanicalProfile> = {
  parameters,
  inputs,
  readings,
  fedBy: [{ id: 'feed', name: 'Feed of the motor', coupling: 'electric' }],
  feeds: [{ id: 'rod', name: 'Rod', coupling: 'rod' }],
  healthy,
  with: (vector, [pedal_N = 0]) => new Electromechanical(vector, Math.max(0, pedal_N)),
};
