import { Vessel, USUAL_SETTLING_S, type Around } from '../../fluid/accumulator';
import { opensAt_A, simulatorStroke_m } from '../../fluid/by-wire';
import { filledTo, stoodLeaking } from '../../fluid/charging';
import { rootOfFalling } from '../../numeric/root';
import { blended, demanded_mPerS2, type Blend } from '../../vehicle/blend';
import type { Vector } from '../../model/descriptor';
import type { Member, Nodes, Standing, Wanted } from '../../model/member';
import { unread, type InputDescriptor } from '../../model/vectors';
import { BAROMETER, ELAPSED, STORED, TEMPERATURE } from '../inputs';
import { TRACK_READINGS, tracksAt } from '../pedal-tracks';
import { WHEEL_LINES, WHEELS, type WheelId } from '../wheel-lines';
import {
  healthyOf,
  ofWheelAt,
  parameters,
  sharedOf,
  type SharedParameters,
  type WheelParameters,
} from './parameters';
import type { ByWireProfile } from './profile';

const inputs = [
  { id: 'pedal_N', name: 'Pedal force', quantity: 'force', from: { port: 'pedal', as: 'set' } },
  STORED,
  BAROMETER,
  TEMPERATURE,
  ELAPSED,
] as const satisfies readonly InputDescriptor[];

const CAUGHT = { SI: 0.01 } as const;
const named = <Prefix extends string>(
  prefix: Prefix,
  name: string,
  quantity: 'voltage' | 'current' | 'pressure',
) =>
  WHEELS.map(({ id, name: wheel }) => ({
    id: `${prefix}${id[0]!.toUpperCase()}${id.slice(1)}` as `${Prefix}${Capitalize<WheelId>}`,
    name: `${name}, ${wheel}`,
    quantity,
    ...(quantity === 'current' && { apart: CAUGHT }),
  }));

const readings = [
  { id: 'travel', name: 'Pedal travel', quantity: 'travel' },
  { id: 'beginsPedal', name: 'Pedal force at which it begins to brake', quantity: 'force', apart: { SI: 2 } },
  { id: 'master1', name: 'Master sensor 1', quantity: 'voltage' },
  { id: 'master2', name: 'Master sensor 2', quantity: 'voltage' },
  { id: 'flickUp', name: 'Flick-up', quantity: 'pressure' },
  { id: 'chargeTime', name: 'Charge from empty', quantity: 'duration', apart: { SI: 0.5, part: 0.02 } },
  { id: 'cutOut', name: 'Pump stopped at', quantity: 'pressure', apart: { part: 0.015 } },
  { id: 'accumulatorSensor', name: 'Accumulator sensor', quantity: 'voltage' },
  { id: 'left', name: 'Accumulator after standing', quantity: 'pressure' },
  ...TRACK_READINGS,
  { id: 'swing', name: 'Swing of a wheel’s sensor at rest', quantity: 'voltage', apart: { part: 0.1 } },
  { id: 'requested', name: 'Regeneration asked for', quantity: 'torque', apart: { part: 0.02 } },
  { id: 'granted', name: 'Regeneration granted', quantity: 'torque', apart: { part: 0.02 } },
  ...named('sensor', 'Sensor', 'voltage'),
  ...named('apply', 'Apply valve opens at', 'current'),
  ...named('release', 'Release valve opens at', 'current'),
  ...named('alone', 'Without power', 'pressure'),
  { id: 'aloneTravel', name: 'Pedal travel without power', quantity: 'travel' },
] as const;

export type ReadingId = (typeof readings)[number]['id'];
const PLACE = Object.fromEntries(readings.map(({ id }, i) => [id, i])) as Record<ReadingId, number>;
/** The readings of one wheel. */
export const OF_WHEEL = WHEELS.map(({ id }) => {
  const own = `${id[0]!.toUpperCase()}${id.slice(1)}` as Capitalize<WheelId>;
  return {
    sensor: `sensor${own}`,
    apply: `apply${own}`,
    release: `release${own}`,
    alone: `alone${own}`,
  } as const;
});

const FEED = 0;
const FIRST_WHEEL = 1;

/** A pump that has not filled it by then is stopped, s. */
export const LONGEST_S = 120;
const CLOSE_PA = 100;
/** No foot presses harder, N, and how closely the force is found. */
const MOST_N = 1000;
const CLOSE_N = 0.01;
/** From volts to volts: sensors are scaled to their supply, and stand within it. */
const within = (volts: number, supply_V: number) => Math.min(supply_V, Math.max(0, volts));

/** Stroke of the master at its pressure, m: the simulator’s, what air in it takes, and what has gone past an isolation valve. */
export function strokeAt_m(
  p: SharedParameters,
  master_Pa: number,
  barometer_Pa: number,
  sunk_m3: number,
): number {
  if (master_Pa <= 0) return 0;
  const air_m3 = p.simulatorAir_m3 * (master_Pa / (master_Pa + barometer_Pa));
  return p.simulatorFree * simulatorStroke_m(p, master_Pa) + (air_m3 + sunk_m3) / p.master_m2;
}

/** Pressure of the master by the foot, Pa: (i·F − F_s)⁺/A_mc. */
export const masterAt_Pa = (p: SharedParameters, pedal_N: number): number =>
  Math.max(0, p.pedalRatio * pedal_N - p.spring_N) / p.master_m2;

/** Pedal force at which its stroke first asks for something, N: nothing is asked for by pressure alone below that. */
export function beginsAt_N(p: SharedParameters, barometer_Pa: number): number {
  const short_m = (pedal_N: number) => p.free_m - strokeAt_m(p, masterAt_Pa(p, pedal_N), barometer_Pa, 0);
  return rootOfFalling(short_m, 0, MOST_N, CLOSE_N);
}

/** What the control unit makes of pressure and stroke at a speed: torques, and the pressure of each axle. */
export function sharedOut(
  p: SharedParameters,
  master_Pa: number,
  stroke_m: number,
  speed_mPerS: number,
  most_Pa: number,
): Blend {
  const { mass_kg, tyre_m, frontShare, front_NmPerPa, rear_NmPerPa, contact_Pa } = p;
  const driven = p.drivenFront > 0.5 ? 'front' : 'rear';
  const vehicle = {
    mass_kg,
    tyre_m,
    frontShare,
    driven,
    front_NmPerPa,
    rear_NmPerPa,
    contact_Pa,
    most_Pa,
  } as const;
  const deceleration_mPerS2 = demanded_mPerS2(p, master_Pa, stroke_m);
  const asked = { deceleration_mPerS2, speed_mPerS, fastMore: 0, grants_Nm: Infinity };
  const whole = blended(vehicle, p, asked);
  // Where nothing is asked of the drive nothing is granted.
  if (whole.requested_Nm === 0) return whole;
  return blended(vehicle, p, { ...asked, grants_Nm: Math.max(0, p.grants) * whole.requested_Nm });
}

/**
 * What its valves hold in a wheel for a target, Pa: until its sensor shows that, off by what leaks past the valves over the flow that
 * a pascal off the target opens. A valve that sticks beyond the most current lets nothing in.
 */
export function heldIn_Pa(
  p: SharedParameters,
  wheel: WheelParameters,
  target_Pa: number,
  most_Pa: number,
  accumulator_Pa: number,
): number {
  if (applyOpens_A(p, wheel, accumulator_Pa) > p.most_A) return leaksIn_Pa(p, wheel, most_Pa);
  const sensed_Pa =
    wheel.sensorScale > 0
      ? (target_Pa - wheel.sensorOff_Pa) / wheel.sensorScale
      : target_Pa > wheel.sensorOff_Pa
        ? most_Pa
        : 0;
  const asked_Pa = target_Pa > 0 ? Math.max(0, sensed_Pa) : 0;
  const lost_Pa = asked_Pa > 0 ? wheel.releaseLeak_m3PerS / p.loop_m3PerSPa : 0;
  return Math.min(most_Pa, Math.max(0, asked_Pa - lost_Pa + leaksIn_Pa(p, wheel, most_Pa)));
}

const leaksIn_Pa = (p: SharedParameters, { applyLeak_m3PerS }: WheelParameters, most_Pa: number): number =>
  Math.min(most_Pa, applyLeak_m3PerS / p.loop_m3PerSPa);

/**
 * Most that any wheel is given, Pa: the accumulator less the margin that must be left above every wheel. Of a full one it counts on no
 * more than what the pump is started at: the rest may be gone by the next stop.
 */
export const mostIn_Pa = ({ margin_Pa, in_Pa }: SharedParameters, accumulator_Pa: number): number =>
  Math.max(0, Math.min(accumulator_Pa, in_Pa) - margin_Pa);

/** Current at which an apply valve opens with its wheel empty, A. */
const applyOpens_A = (
  p: SharedParameters,
  { applySticks_A }: WheelParameters,
  accumulator_Pa: number,
): number => opensAt_A(p, accumulator_Pa) + applySticks_A;

/** What a sensor of pressure shows, V, and the sensor of a wheel, which may be off. */
export const sensor_V = (p: SharedParameters, pressure_Pa: number): number =>
  within(p.table0_V + (p.perBar_V * pressure_Pa) / 1e5, p.sensor_V);
export const wheelSensor_V = (p: SharedParameters, wheel: WheelParameters, pressure_Pa: number): number =>
  sensor_V(p, wheel.sensorOff_Pa + wheel.sensorScale * pressure_Pa);

/** Its accumulator. */
export const vesselOf = ({ shell_m3, preCharge_Pa }: SharedParameters, around: Around): Vessel =>
  new Vessel({ shell_m3, preCharge_Pa, settling_s: USUAL_SETTLING_S }, around);

/** What its relief lets back at a pressure, m³/s. */
export const weeps_m3PerS = (p: SharedParameters, pressure_Pa: number): number =>
  p.weeps_m3PerSPa * Math.max(0, pressure_Pa - p.weepsFrom_Pa);

/** Wheels that an open isolation valve joins to the master with no power, by their places. */
export const joined = (p: SharedParameters): number[] => {
  const [one, two] =
    p.joinsAll > 0.5
      ? [
          [0, 3],
          [1, 2],
        ]
      : [[0], [1]];
  return [...(p.opens1 > 0.5 ? one! : []), ...(p.opens2 > 0.5 ? two! : [])];
};

/**
 * A decoupled brake. With power the foot presses a simulator, and valves let the accumulator into each wheel until its sensor shows
 * what is asked for; without, the foot moves the master, and whatever wheels are joined to it. Handbook-models 8.9.
 */
class ByWire implements Standing {
  private readonly p: SharedParameters;
  private alone: number | null = null;
  /** What it asks for where it stands. */
  private standing: Blend | null = null;

  constructor(
    private readonly vector: Vector,
    private readonly pedal_N: number,
    private readonly supply_Pa: number,
    private readonly around: Around,
    private readonly elapsed_s: number,
  ) {
    this.p = sharedOf(vector);
  }

  span(): readonly [number, number] {
    return [0, 0];
  }

  /** Current of the control unit, A, while it has more than it switches off at. */
  through(terminal: number, at_V: number): number {
    return terminal === FEED && at_V > this.p.cutOff_V ? this.p.idle_W / at_V : 0;
  }

  atRest() {
    return { effort: 0, passes: 0 };
  }

  private isOn(efforts: ArrayLike<number>): boolean {
    return efforts[FEED]! > this.p.cutOff_V;
  }

  private get master_Pa(): number {
    return masterAt_Pa(this.p, this.pedal_N);
  }

  private get most_Pa(): number {
    return mostIn_Pa(this.p, this.supply_Pa);
  }

  private stroke_m(): number {
    const { p, elapsed_s } = this;
    return strokeAt_m(p, this.master_Pa, this.around.barometer_Pa, p.sinks_m3PerS * elapsed_s);
  }

  private held_Pa(wheel: number): number {
    const { p } = this;
    this.standing ??= sharedOut(p, this.master_Pa, this.stroke_m(), 0, this.most_Pa);
    const { front_Pa, rear_Pa } = this.standing;
    const target_Pa = WHEELS[wheel]!.axle === 'front' ? front_Pa : rear_Pa;
    return heldIn_Pa(p, ofWheelAt(this.vector, wheel), target_Pa, this.most_Pa, this.supply_Pa);
  }

  /** Volume that the wheels which are joined take at a pressure, m³. */
  private joinedTake_m3(nodes: Nodes, pressure_Pa: number): number {
    return joined(this.p).reduce((sum, wheel) => sum + nodes.taken(FIRST_WHEEL + wheel, pressure_Pa), 0);
  }

  /** Pressure of the foot alone in the wheels that are joined, Pa: by its force, or where the stroke runs out first. */
  private alone_Pa(nodes: Nodes): number {
    this.alone ??= (() => {
      const { p, master_Pa } = this;
      const holds_m3 = p.master_m2 * p.stroke_m;
      if (this.joinedTake_m3(nodes, master_Pa) <= holds_m3) return master_Pa;
      return rootOfFalling((at) => holds_m3 - this.joinedTake_m3(nodes, at), 0, master_Pa, CLOSE_PA);
    })();
    return this.alone;
  }

  private aloneIn_Pa(nodes: Nodes, wheel: number): number {
    return joined(this.p).includes(wheel) ? this.alone_Pa(nodes) : 0;
  }

  brings(terminal: number, efforts: ArrayLike<number>, nodes: Nodes): number {
    const wheel = terminal - FIRST_WHEEL;
    return this.isOn(efforts) ? this.held_Pa(wheel) : this.aloneIn_Pa(nodes, wheel);
  }

  read(efforts: ArrayLike<number>, nodes: Nodes, wanted?: Wanted): number[] {
    const { p, vector, supply_Pa } = this;
    const told: number[] = unread(readings);
    const on = this.isOn(efforts);
    const tell = (id: ReadingId, work: () => number) => {
      if (!wanted || wanted.has(PLACE[id])) told[PLACE[id]] = work();
    };
    /** Of what tells nothing with no power. */
    const powered = (id: ReadingId, work: () => number) => tell(id, () => (on ? work() : 0));
    const alone_m = () => this.joinedTake_m3(nodes, this.alone_Pa(nodes)) / p.master_m2;
    const stroke_m = () => (on ? this.stroke_m() : alone_m());
    tell('aloneTravel', () => p.pedalRatio * alone_m());
    tell('travel', () => p.pedalRatio * stroke_m());
    tell('beginsPedal', () => beginsAt_N(p, this.around.barometer_Pa));
    powered('master1', () => sensor_V(p, this.master_Pa));
    powered('master2', () =>
      sensor_V(p, this.master_Pa > 0 ? this.master_Pa + p.master2Off_Pa : p.master2Off_Pa),
    );
    this.ofAccumulator(powered, tell);
    powered('sensorSupply', () => p.sensor_V);
    powered('track1', () => tracksAt(p, stroke_m())[0]);
    powered('track2', () => tracksAt(p, stroke_m())[1]);
    powered('track1Back', () => tracksAt(p, 0)[0]);
    powered('swing', () => p.swing_V);
    const stop = () => {
      const master_Pa = masterAt_Pa(p, p.blend_N);
      const asked_m = strokeAt_m(p, master_Pa, this.around.barometer_Pa, 0);
      return sharedOut(p, master_Pa, asked_m, p.blend_mPerS, this.most_Pa);
    };
    powered('requested', () => stop().requested_Nm);
    powered('granted', () => stop().granted_Nm);
    OF_WHEEL.forEach((ids, i) => {
      const at_Pa = efforts[FIRST_WHEEL + i]!;
      const wheel = () => ofWheelAt(vector, i);
      powered(ids.sensor, () => wheelSensor_V(p, wheel(), at_Pa));
      powered(ids.apply, () => Math.min(p.most_A, applyOpens_A(p, wheel(), supply_Pa)));
      tell(ids.alone, () => this.aloneIn_Pa(nodes, i));
      powered(ids.release, () => Math.min(p.most_A, opensAt_A(p, at_Pa)));
    });
    return told;
  }

  /** What is read of the accumulator and its pump. */
  private ofAccumulator(
    powered: (id: ReadingId, work: () => number) => void,
    tell: (id: ReadingId, work: () => number) => void,
  ): void {
    const { p, supply_Pa } = this;
    let made: Vessel | null = null;
    const vessel = () => (made ??= vesselOf(p, this.around));
    // It is stopped where its own sensor shows so much.
    const stops_Pa = p.out_Pa - p.accumulatorOff_Pa;
    const gains = (pressure_Pa: number) => Math.max(0, p.pump_m3PerS - weeps_m3PerS(p, pressure_Pa));
    const stalls_Pa = () =>
      p.pump_m3PerS > 0 && p.weeps_m3PerSPa > 0
        ? p.weepsFrom_Pa + p.pump_m3PerS / p.weeps_m3PerSPa
        : Infinity;
    tell('flickUp', () => (p.pump_m3PerS > 0 ? vessel().flickUp_Pa : 0));
    tell('chargeTime', () =>
      stalls_Pa() <= stops_Pa || p.pump_m3PerS <= 0
        ? LONGEST_S
        : Math.min(LONGEST_S, filledTo(vessel(), vessel().empty, stops_Pa, gains).time_s),
    );
    tell('cutOut', () => (p.pump_m3PerS > 0 ? Math.min(stops_Pa, stalls_Pa()) : 0));
    powered('accumulatorSensor', () => sensor_V(p, supply_Pa + p.accumulatorOff_Pa));
    tell('left', () => {
      if (this.elapsed_s <= 0) return supply_Pa;
      const stood = stoodLeaking(vessel(), vessel().settledAt(supply_Pa), this.elapsed_s, (at) =>
        weeps_m3PerS(p, at),
      );
      return vessel().gauge_Pa(stood);
    });
  }
}

/** A decoupled brake, to be joined to its supply and to the brakes of four wheels. */
export const member: Member<ByWireProfile> = {
  parameters,
  inputs,
  readings,
  fedBy: [{ id: 'feed', name: 'Feed of the control unit', coupling: 'electric' }],
  feeds: WHEEL_LINES,
  healthy: healthyOf,
  with: (vector, [pedal_N = 0, supply_Pa = 0, barometer_Pa = 0, temperature_K = 0, elapsed_s = 0]) =>
    new ByWire(
      vector,
      Math.max(0, pedal_N),
      Math.max(0, supply_Pa),
      { barometer_Pa, temperature_K },
      elapsed_s,
    ),
};
