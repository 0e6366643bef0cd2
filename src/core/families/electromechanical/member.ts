import { heldByPower_A, holdingPower_W, terminals_V } from '../../electric/feed';
import { heldBy_A, motorOutput_N, motorRunout_N, type MotorBooster } from '../../electric/motor-booster';
import type { Vector } from '../../model/descriptor';
import type { Member, Nodes, Standing, Wanted } from '../../model/member';
import { healthyUnit, reader, type InputDescriptor, type Named } from '../../model/vectors';
import { TRACK_PARAMETERS, TRACK_READINGS, tracksAt } from '../pedal-tracks';
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
  { id: 'delay_s', name: 'Until it begins to push', quantity: 'duration' },
  { id: 'stall_N', name: 'Force at which the motor stands', quantity: 'force' },
  { id: 'free_mPerS', name: 'Speed with nothing to push', quantity: 'rodSpeed' },
  { id: 'usual_V', name: 'Its usual voltage', quantity: 'voltage' },
  { id: 'mass_kg', name: 'Mass of rod and gear', quantity: 'mass' },
  ...TRACK_PARAMETERS,
] as const;

const inputs = [
  { id: 'pedal_N', name: 'Pedal force', quantity: 'force', from: { port: 'pedal', as: 'set' } },
] as const satisfies readonly InputDescriptor[];

const readings = [
  { id: 'output', name: 'Force of the pushrod', quantity: 'force' },
  { id: 'runoutPedal', name: 'Pedal force at runout', quantity: 'force', apart: { SI: 3, part: 0.01 } },
  { id: 'terminals', name: 'At its plug', quantity: 'voltage', apart: { SI: 0.02 } },
  { id: 'current', name: 'Current in the motor', quantity: 'current' },
  { id: 'crackPedal', name: 'Pedal force at which it begins to help', quantity: 'force', apart: { SI: 1 } },
  {
    id: 'step',
    name: 'Until the pressure is there, behind a stamp',
    quantity: 'duration',
    apart: { SI: 0.005 },
  },
  { id: 'falls', name: 'Pedal force at which the pressure first falls', quantity: 'force', apart: { SI: 2 } },
  {
    id: 'returns',
    name: 'Back at rest, let go from its full way',
    quantity: 'duration',
    apart: { SI: 0.005 },
  },
  ...TRACK_READINGS,
] as const;

export type Parameters = Named<typeof parameters>;
export const named = reader(parameters);
export type ReadingId = (typeof readings)[number]['id'];

const STEP = readings.findIndex(({ id }) => id === 'step');

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
  private readonly input_N: number;

  constructor(
    vector: Vector,
    private readonly pedal_N: number,
  ) {
    this.p = named(vector);
    this.booster = this.p;
    this.input_N = this.p.pedalRatio * pedal_N;
  }

  /** What it holds: by its map while it has power, whose control makes up for friction; without, the foot against spring and friction. */
  private holding(most_A: number): Holding {
    const { p, booster, input_N } = this;
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
    return Math.min(p.limit_A, heldByPower_A(p, at_V * nodes.taken(FEED, at_V)));
  }

  /** Most current in the motor that its feed can hold at all: what stands at where it switches off is enough for. */
  private ultimately_A(nodes: Nodes): number {
    const { p } = this;
    const most_W = p.cutOff_V * Math.max(0, nodes.taken(FEED, p.cutOff_V));
    return Math.min(p.limit_A, heldByPower_A(p, most_W));
  }

  /** Volts at its control unit by the force that the motor holds: its feed is a battery behind a resistance, which two points of it tell. */
  private holding_V(nodes: Nodes): (motor_N: number) => number {
    const { p } = this;
    const [least_A, less_A] = [nodes.taken(FEED, p.cutOff_V), nodes.taken(FEED, p.cutOff_V + 1)];
    const feed_Ohm = 1 / Math.max(1e-9, least_A - less_A);
    const battery_V = p.cutOff_V + least_A * feed_Ohm;
    return (motor_N) =>
      Math.max(p.cutOff_V, terminals_V(battery_V, feed_Ohm, holdingPower_W(p, motor_N / p.perAmpere_N)) ?? 0);
  }

  /**
   * Pedal force down to which it can be eased before the pressure falls, N: where what it would make there is less by twice the
   * friction. That is 2F_f/g on the line of its map, and 2F_f where only the foot still adds. Handbook-models 8.8.
   */
  private falls_N(output_N: number, most_A: number): number {
    const { p } = this;
    // The foot alone: it holds against spring and friction, and friction holds it then.
    if (most_A <= 0) return Math.max(0, output_N + p.spring_N - p.friction_N) / p.pedalRatio;
    const falls_N = output_N - 2 * p.friction_N;
    const byMap_N = p.crack_N + (falls_N - p.jump_N) / p.gain;
    const byFoot_N = falls_N + p.spring_N - Math.min(p.limit_N, p.perAmpere_N * most_A);
    return Math.max(0, byMap_N, byFoot_N) / p.pedalRatio;
  }

  /** Pedal force from which the foot alone makes pressure, N. */
  private get alone_N(): number {
    const { spring_N, friction_N, pedalRatio } = this.p;
    return (spring_N + friction_N) / pedalRatio;
  }

  /** Time in which its spring alone brings it back over its full way, against friction: √(2·m·x/(F_s − F_f)), from m·v̇ = F_s − F_f. */
  private get returns_s(): number {
    const { mass_kg, full_m, spring_N, friction_N } = this.p;
    const left_N = spring_N - friction_N;
    return left_N > 0 ? Math.min(LONGEST_S, Math.sqrt((2 * mass_kg * full_m) / left_N)) : LONGEST_S;
  }

  brings(_terminal: number, efforts: ArrayLike<number>, nodes: Nodes): number {
    return this.holding(this.most_A(efforts[FEED]!, nodes)).output_N;
  }

  read(efforts: ArrayLike<number>, nodes: Nodes, wanted?: Wanted): number[] {
    const { p, booster } = this;
    const at_V = efforts[FEED]!;
    const most_A = this.most_A(at_V, nodes);
    const { current_A } = this.holding(most_A);
    const isOn = most_A > 0;
    const [track1, track2] = tracksAt(p, nodes.taken(ROD, efforts[ROD]!));
    return [
      efforts[ROD]!,
      isOn ? motorRunout_N(booster, this.ultimately_A(nodes)) / p.pedalRatio : this.alone_N,
      at_V,
      isOn ? current_A : 0,
      isOn ? p.crack_N / p.pedalRatio : this.alone_N,
      !wanted || wanted.has(STEP) ? this.step_s(efforts, nodes, isOn) : NaN,
      this.falls_N(efforts[ROD]!, most_A),
      this.returns_s,
      isOn ? p.sensor_V : 0,
      isOn ? track1 : 0,
      isOn ? track2 : 0,
      isOn ? tracksAt(p, nodes.taken(ROD, Math.max(0, p.friction_N - p.spring_N)))[0] : 0,
    ];
  }

  /**
   * Time from a stamp on the pedal until most of what it comes to is there, s: t_d + ∫dx/v with v = v₀·(1 − F/F_st), F what the motor
   * carries beside the foot, whose own part is there with it; both go with the volts at the motor. Behind a load of one stiffness, with
   * nothing from the foot, it is the closed form. Handbook-models 8.8.
   */
  private step_s(efforts: ArrayLike<number>, nodes: Nodes, isOn: boolean): number {
    const { p, input_N } = this;
    // With no power what there is comes with the foot.
    if (!isOn) return 0;
    const foot_N = Math.max(0, input_N - p.spring_N);
    const aims_N = STEP_PART * efforts[ROD]!;
    const at_V = this.holding_V(nodes);
    let passed_s = p.delay_s;
    let from_m = nodes.taken(ROD, Math.min(foot_N, aims_N));
    for (let i = 0; i < STEPS && aims_N > foot_N; i += 1) {
      const piece_N = (aims_N - foot_N) / STEPS;
      const to_m = nodes.taken(ROD, foot_N + (i + 1) * piece_N);
      const motor_N = (i + 0.5) * piece_N;
      const speed_mPerS = speedOf_mPerS(p, motor_N, at_V(motor_N));
      passed_s += (to_m - from_m) / Math.max(LEAST_MPERS, speed_mPerS);
      from_m = to_m;
    }
    return Math.min(LONGEST_S, passed_s);
  }
}

/** A stamp is timed to this part of the pressure that it comes to. */
const STEP_PART = 0.9;
/** The way of the rod is taken in so many pieces, by the force. */
const STEPS = 60;
const LEAST_MPERS = 1e-4;
/** Nobody waits longer for a pressure behind a stamp, nor for a pedal to come back, s. */
const LONGEST_S = 5;

/** How fast the rod goes at a force of the motor, m/s: less the more it pushes, and all the less on fewer volts. Handbook-models 8.8. */
export function speedOf_mPerS(p: Parameters, motor_N: number, at_V: number): number {
  const part = at_V / p.usual_V;
  return p.free_mPerS * part * (1 - Math.max(0, motor_N) / (p.stall_N * part));
}

/** So nearly it stands at where it switches off, V: the balance at the feed is found to less. */
const CLOSE_V = 1e-4;

/** How far sound ones may be off, as a part: where it begins to help, and how fast its motor is. */
const CRACK_PART = 0.25;
const MOTOR_PART = 0.08;

function healthy(profile: ElectromechanicalProfile) {
  const {
    limits,
    assist_N: _forces,
    fluid: _fluid,
    kind: _kind,
    name: _name,
    maker: _maker,
    ...values
  } = profile;
  return healthyUnit(
    parameters,
    { ...values, magnet_m: 0, drift_V: 0, swapped: 0 },
    {
      gain: limits.output_fraction.value * values.gain,
      crack_N: CRACK_PART * values.crack_N,
      friction_N: limits.friction_fraction.value * values.friction_N,
      perAmpere_N: limits.current_fraction.value * values.perAmpere_N,
      free_mPerS: MOTOR_PART * values.free_mPerS,
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
