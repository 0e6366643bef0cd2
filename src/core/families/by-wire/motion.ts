import { VesselMotion, vesselStates } from '../../fluid/vessel-motion';
import type { Port } from '../../contract/family';
import type { Vector } from '../../model/descriptor';
import {
  inputAt,
  type Command,
  type Instant,
  type Motion,
  type Moving,
  type NodeNow,
  type PartsNow,
  type Place,
  type Told,
  type Turn,
} from '../../model/motion';
import { brakeLamps, NO_CAUSE } from '../../vehicle/brake-lamps';
import { tracksAt } from '../pedal-tracks';
import type { PumpHands } from '../bench-hands';
import { PEDAL_COMMAND, type VehicleHands } from '../vehicle-hands';
import { WHEELS } from '../wheel-lines';
import {
  heldIn_Pa,
  joined,
  masterAt_Pa,
  mostIn_Pa,
  sensor_V,
  sharedOut,
  strokeAt_m,
  vesselOf,
  weeps_m3PerS,
  wheelSensor_V,
} from './member';
import { ofWheelAt, sharedOf, type SharedParameters, type WheelParameters } from './parameters';
import { parts, stages } from './works';

const states = [
  ...vesselStates('', 'the accumulator'),
  { id: 'sunk_m3', name: 'Fluid past an isolation valve', quantity: 'volume' as const, scale: 1e-8 },
  { id: 'given_m3', name: 'Fluid that the foot alone has moved', quantity: 'volume' as const, scale: 1e-8 },
  ...WHEELS.map(({ id, name }) => ({
    id: `${id}_Pa`,
    name: `Brake ${name}`,
    quantity: 'pressure' as const,
    scale: 1e4,
  })),
];
const SUNK = 2;
const GIVEN = 3;
const FIRST = 4;

/** How a brake of ordinary make answers; no verdict rests on these, and the steady end does not know them. */
const RESPONSE = {
  /** Valves bring a wheel to where it belongs within this time, s; the foot alone within this. */
  valve_s: 0.05,
  foot_s: 0.03,
  /** What has gone past an isolation valve comes back once the pedal is let go, s. */
  refill_s: 0.1,
} as const;

/** Figures at the far end of a drawing. */
const FAR = { drive_Nm: 1500, sensor_V: 5, wheel_Pa: 4e6 } as const;

// A type and no interface: only so is it one of `Hands`.
type BrakeHands = Pick<VehicleHands, 'pedal_N' | 'press_NPerS'> &
  PumpHands & {
    /** What the brake does of itself: functions and no faults. */
    readonly byItself: keyof typeof BY_ITSELF;
    /** Where a vehicle stands on rollers: as fast as its wheels turn. */
    readonly rolling: 'standing' | 'passing';
  };

/** What presses with no foot, by its place in the usual map, and how hard, Pa. Handbook-models 8.9. */
const BY_ITSELF = {
  nothing: { state: 0, name: 'Nothing', at_Pa: 0 },
  prefill: { state: 1, name: 'Pre-fill', at_Pa: 3e5 },
  wiping: { state: 2, name: 'Disc wiping', at_Pa: 1e5 },
  hill: { state: 3, name: 'Hill hold', at_Pa: 25e5 },
} as const;

const OF_ITSELF_COMMAND: Command = {
  kind: 'choice',
  id: 'byItself',
  name: 'Brake by itself',
  usual: 'nothing',
  choices: Object.entries(BY_ITSELF).map(([id, { name }]) => ({ id, name })),
};
const ROLLING_COMMAND: Command = {
  kind: 'choice',
  id: 'rolling',
  name: 'Wheels',
  usual: 'standing',
  choices: [
    { id: 'standing', name: 'Standing' },
    { id: 'passing', name: 'Rolling, at the speed of the test' },
  ],
};

/**
 * A decoupled brake over time: its pump fills the accumulator between two marks of its own sensor; valves let that into each wheel;
 * with no power the foot does, in the wheels that are joined. Its end is the closed form. Handbook-models P.1, 8.9.
 */
class ByWireMotion implements Moving {
  readonly turns: readonly Turn[];
  private readonly p: SharedParameters;
  private readonly wheels: readonly WheelParameters[];
  private readonly vessel: VesselMotion;
  private readonly feed: NodeNow;
  private readonly lines: readonly NodeNow[];
  private readonly joined: readonly number[];
  private readonly barometer_Pa: number;
  private readonly at: Readonly<Record<string, number>>;
  /** The pump is told to run. */
  private runs: boolean;

  constructor(
    vector: Vector,
    private readonly place: Place,
    ports: readonly Port[],
  ) {
    this.p = sharedOf([...vector]);
    this.wheels = WHEELS.map((_, i) => ofWheelAt(vector, i));
    this.barometer_Pa = inputAt(place, 'barometer_Pa');
    const around = { barometer_Pa: this.barometer_Pa, temperature_K: inputAt(place, 'temperature_K') };
    this.vessel = new VesselMotion(vesselOf(this.p, around), place.from);
    [this.feed, ...this.lines] = place.nodes as [NodeNow, ...NodeNow[]];
    this.joined = joined(this.p);
    this.at = Object.fromEntries(ports.map(({ id }, i) => [id, i]));
    this.runs = true;
    const sensed_Pa = (y: Float64Array) => this.vessel.gauge_Pa(y) + this.p.accumulatorOff_Pa;
    this.turns = [
      {
        beyond: (y) => (this.runs ? sensed_Pa(y) - this.p.out_Pa : this.p.in_Pa - sensed_Pa(y)),
        flip: () => {
          this.runs = !this.runs;
        },
      },
    ];
  }

  atRest(): number[] {
    return [...this.vessel.atRest(), 0, 0, ...WHEELS.map(() => 0)];
  }

  private get isOn(): boolean {
    return this.feed.effort > this.p.cutOff_V;
  }

  efforts(y: Float64Array): void {
    this.lines.forEach((line, i) => {
      line.effort = Math.max(0, y[this.place.from + FIRST + i]!);
    });
  }

  private stroke_m(y: Float64Array, at: Instant): number {
    const { pedal_N } = at.hands as BrakeHands;
    const sunk_m3 = Math.max(0, y[this.place.from + SUNK]!);
    if (this.isOn) return strokeAt_m(this.p, masterAt_Pa(this.p, pedal_N), this.barometer_Pa, sunk_m3);
    return Math.max(0, y[this.place.from + GIVEN]!) / this.p.master_m2;
  }

  private blend(y: Float64Array, at: Instant, speed_mPerS: number) {
    const { p } = this;
    const { pedal_N } = at.hands as BrakeHands;
    const most_Pa = mostIn_Pa(p, this.vessel.gas_Pa(y));
    return { most_Pa, ...sharedOut(p, masterAt_Pa(p, pedal_N), this.stroke_m(y, at), speed_mPerS, most_Pa) };
  }

  private speed_mPerS(at: Instant): number {
    return (at.hands as BrakeHands).rolling === 'passing' ? this.p.blend_mPerS : 0;
  }

  rates(y: Float64Array, dy: Float64Array, at: Instant): void {
    const { p, vessel, place, lines } = this;
    const { from } = place;
    const { pedal_N, byItself, power } = at.hands as BrakeHands;
    const on = this.isOn;
    const stored_Pa = vessel.gauge_Pa(y);
    // The store feeds the unit and its valves, and no pump.
    const pump_m3PerS = on && power && this.runs ? p.pump_m3PerS : 0;
    let draws_m3PerS = 0;
    if (on) {
      const { most_Pa, front_Pa, rear_Pa } = this.blend(y, at, this.speed_mPerS(at));
      const own_Pa = BY_ITSELF[byItself].at_Pa;
      this.wheels.forEach((wheel, i) => {
        const asked_Pa = Math.max(own_Pa, WHEELS[i]!.axle === 'front' ? front_Pa : rear_Pa);
        const held_Pa = heldIn_Pa(p, wheel, asked_Pa, most_Pa, stored_Pa);
        const rate = (held_Pa - lines[i]!.effort) / RESPONSE.valve_s;
        dy[from + FIRST + i] = rate;
        if (rate > 0) draws_m3PerS += rate * lines[i]!.give(lines[i]!.effort);
      });
      // More than the pump gives and what is stored no valve lets in.
      const there_m3PerS = pump_m3PerS + vessel.fluid_m3(y) / RESPONSE.valve_s;
      if (draws_m3PerS > there_m3PerS) {
        const part = there_m3PerS / draws_m3PerS;
        for (let i = 0; i < WHEELS.length; i += 1)
          if (dy[from + FIRST + i]! > 0) dy[from + FIRST + i]! *= part;
        draws_m3PerS = there_m3PerS;
      }
    } else {
      const foot_Pa = masterAt_Pa(p, pedal_N);
      const runsOut = y[from + GIVEN]! >= p.master_m2 * p.stroke_m;
      let gives_m3PerS = 0;
      this.wheels.forEach((_, i) => {
        const line = lines[i]!;
        const aim_Pa = this.joined.includes(i) ? foot_Pa : 0;
        const rate = (aim_Pa - line.effort) / RESPONSE.foot_s;
        dy[from + FIRST + i] = runsOut ? Math.min(0, rate) : rate;
        if (this.joined.includes(i)) gives_m3PerS += dy[from + FIRST + i]! * line.give(line.effort);
      });
      dy[from + GIVEN] = gives_m3PerS;
    }
    if (on) dy[from + GIVEN] = -y[from + GIVEN]! / RESPONSE.refill_s;
    vessel.rates(y, dy, pump_m3PerS - draws_m3PerS - weeps_m3PerS(p, stored_Pa));
    dy[from + SUNK] = on && pedal_N > 0 ? p.sinks_m3PerS : -y[from + SUNK]! / RESPONSE.refill_s;
    this.feed.passed = on ? p.idle_W / this.feed.effort : 0;
  }

  parts(y: Float64Array, at: Instant, out: PartsNow): void {
    const { p, isOn } = this;
    const stroke_m = this.stroke_m(y, at);
    out.pedal = { at: stroke_m, of: p.stroke_m };
    out.simulator = { at: isOn ? stroke_m : 0, of: p.stroke_m };
    out.isolation = { at: Number(isOn), of: 1 };
    out.stored = { at: this.vessel.filled(y), of: 1 };
    out.pumpRuns = { at: Number(isOn && (at.hands as BrakeHands).power && this.runs), of: 1 };
    const master_Pa = masterAt_Pa(p, (at.hands as BrakeHands).pedal_N);
    const volts = isOn
      ? [...tracksAt(p, stroke_m), sensor_V(p, master_Pa), sensor_V(p, master_Pa + p.master2Off_Pa)]
      : [0, 0, 0, 0];
    ['track1', 'track2', 'master1', 'master2'].forEach((id, i) => {
      out[id] = { at: volts[i]!, of: FAR.sensor_V };
    });
    out.drive = { at: isOn ? this.blend(y, at, this.speed_mPerS(at)).granted_Nm : 0, of: FAR.drive_Nm };
    WHEELS.forEach(({ port }, i) => {
      out[port] = { at: this.lines[i]!.effort, of: FAR.wheel_Pa };
    });
  }

  tells(y: Float64Array, at: Instant, out: Told): void {
    if (!this.isOn) return;
    const { p } = this;
    const { pedal_N, byItself } = at.hands as BrakeHands;
    const master_Pa = masterAt_Pa(p, pedal_N);
    const speed = this.speed_mPerS(at);
    const { requested_Nm, granted_Nm } = this.blend(y, at, speed);
    const [track1, track2] = tracksAt(p, this.stroke_m(y, at));
    const accumulator = this.vessel.gauge_Pa(y) + p.accumulatorOff_Pa;
    const sensed = (i: number) => {
      const { sensorOff_Pa, sensorScale } = this.wheels[i]!;
      return Math.max(0, sensorOff_Pa + sensorScale * this.lines[i]!.effort);
    };
    Object.assign(
      out,
      { track1, track2, sensorSupply: p.sensor_V, accumulator, speed, testState: BY_ITSELF[byItself].state },
      { master1: master_Pa, master2: Math.max(0, master_Pa + p.master2Off_Pa) },
      { wheelFL: sensed(0), wheelFR: sensed(1), wheelRL: sensed(2), wheelRR: sensed(3) },
      { requested: requested_Nm, granted: granted_Nm },
      brakeLamps({ ...NO_CAUSE, accumulatorLow: accumulator < p.in_Pa / 2, moving: speed > 0 }),
    );
  }

  shown(y: Float64Array, at: Instant, shown: Float64Array): void {
    const { p, at: places } = this;
    const { pedal_N } = at.hands as BrakeHands;
    const on = this.isOn;
    const volts = (work: () => number) => (on ? work() : 0);
    const master_Pa = masterAt_Pa(p, pedal_N);
    const stored_Pa = this.vessel.gauge_Pa(y);
    const stroke_m = this.stroke_m(y, at);
    shown[places.pedal!] = pedal_N;
    shown[places.travel!] = p.pedalRatio * stroke_m;
    shown[places.supply!] = stored_Pa;
    shown[places['master-1']!] = volts(() => sensor_V(p, master_Pa));
    shown[places['master-2']!] = volts(() => sensor_V(p, master_Pa + p.master2Off_Pa));
    shown[places['accumulator-sensor']!] = volts(() => sensor_V(p, stored_Pa + p.accumulatorOff_Pa));
    shown[places.sensor!] = volts(() => p.sensor_V);
    const tracks = tracksAt(p, stroke_m);
    shown[places['track-1']!] = volts(() => tracks[0]);
    shown[places['track-2']!] = volts(() => tracks[1]);
    WHEELS.forEach(({ port }, i) => {
      shown[places[`${port}-sensor`]!] = volts(() =>
        wheelSensor_V(p, this.wheels[i]!, this.lines[i]!.effort),
      );
    });
    const { requested_Nm, granted_Nm } = on
      ? this.blend(y, at, this.speed_mPerS(at))
      : { requested_Nm: 0, granted_Nm: 0 };
    shown[places.requested!] = requested_Nm;
    shown[places.granted!] = granted_Nm;
  }
}

/** Over time, with what true gauges on some ports show. */
export const motionOn = (ports: readonly Port[]): Motion => ({
  states,
  parts,
  stages,
  commands: [PEDAL_COMMAND, OF_ITSELF_COMMAND, ROLLING_COMMAND],
  owns: WHEELS.map(({ id }) => id),
  with: (parameters, place) => new ByWireMotion(parameters, place, ports),
});
