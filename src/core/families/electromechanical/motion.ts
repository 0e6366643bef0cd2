import { holdingPower_W } from '../../electric/feed';
import { heldBy_A, motorOutput_N } from '../../electric/motor-booster';
import type { Port } from '../../contract/family';
import type { Vector } from '../../model/descriptor';
import type { Instant, Motion, Moving, NodeNow, PartsNow, Place, Told, Turn } from '../../model/motion';
import type { PumpHands } from '../bench-hands';
import { PEDAL_COMMAND, type VehicleHands } from '../vehicle-hands';
import { tracksAt } from '../pedal-tracks';
import { named, speedOf_mPerS, type Parameters } from './member';
import { parts, stages } from './works';

const states = [
  { id: 'rod_m', name: 'Way of the rod', quantity: 'travel', scale: 1e-5 },
  { id: 'roused', name: 'Part of the delay that has passed', quantity: 'ratio', scale: 1e-2 },
  { id: 'most_A', name: 'Most current that the feed leaves', quantity: 'current', scale: 0.1 },
] as const;

/** How a booster of ordinary make answers; no verdict rests on these, and the steady end does not know them. */
const RESPONSE = {
  /** The rod comes to where it belongs within this time, s. */
  rod_s: 0.005,
  /** Most that a soft load gives at rest, m/N. */
  most_mPerN: 2e-4,
  /** A control unit on its last volts takes current back, and gives it again, so fast, A/(V·s): never much more than is drawn. */
  limits_APerVs: 1000,
  ahead_A: 5,
  /** Within the last ampere it slows down. */
  last_A: 1,
} as const;

/** Figures at the far end of a drawing. */
const FAR = { foot_N: 1500, track_V: 5, rod_m: 0.016 } as const;

type Hands = Pick<VehicleHands, 'pedal_N' | 'press_NPerS'> & PumpHands;

/**
 * An electromechanical booster over time. Its control unit wakes a moment after the foot; then the rod goes as fast as the motor can
 * push it, to where the map belongs; the current follows what the motor carries, and is taken back where the feed falls to what it
 * switches off at. Eased off, friction holds the rod where it is. Its end is the closed form. Handbook-models 8.8.
 */
class ElectromechanicalMotion implements Moving {
  readonly turns: readonly Turn[];
  private readonly p: Parameters;
  private readonly feed: NodeNow;
  private readonly rod: NodeNow;
  private readonly at: Readonly<Record<string, number>>;
  /** The control unit is awake. */
  private awake = false;

  constructor(
    vector: Vector,
    private readonly place: Place,
    ports: readonly Port[],
  ) {
    this.p = named(vector);
    [this.feed, this.rod] = place.nodes as [NodeNow, NodeNow];
    this.at = Object.fromEntries(ports.map(({ id }, i) => [id, i]));
    const { from } = place;
    this.turns = [
      {
        beyond: (y) => (this.awake ? 0.5 - y[from + 1]! : y[from + 1]! - 0.999),
        flip: () => {
          this.awake = !this.awake;
        },
      },
    ];
  }

  atRest(): number[] {
    return [0, 0, 0];
  }

  efforts(y: Float64Array): void {
    this.rod.passed = Math.max(0, y[this.place.from]!);
  }

  /** Most current that its feed leaves the motor, A. */
  private most_A(y: Float64Array): number {
    return Math.min(this.p.limit_A, Math.max(0, y[this.place.from + 2]!));
  }

  /** Current that the motor carries its part with, A; none while it does not push. */
  private current_A(y: Float64Array, at: Instant): number {
    const { p, rod } = this;
    const { pedal_N } = at.hands as Hands;
    if (!this.awake) return 0;
    return Math.min(this.most_A(y), Math.max(0, heldBy_A(p, p.pedalRatio * pedal_N, rod.effort)));
  }

  rates(y: Float64Array, dy: Float64Array, at: Instant): void {
    const { p, rod, feed } = this;
    const { from } = this.place;
    const { pedal_N } = at.hands as Hands;
    const input_N = p.pedalRatio * pedal_N;
    const foot_N = input_N - p.spring_N;
    const most_A = this.most_A(y);
    const pushes = this.awake && most_A > 0 && input_N >= p.crack_N;
    // What it goes up to, and what it stays at as it is eased off.
    const up_N = pushes ? motorOutput_N(p, input_N, most_A) : Math.max(0, foot_N - p.friction_N);
    const down_N = pushes ? up_N + 2 * p.friction_N : foot_N + p.friction_N;
    const give = Math.min(RESPONSE.most_mPerN, rod.give(rod.effort));
    const short_N = rod.effort < up_N ? up_N - rod.effort : rod.effort > down_N ? down_N - rod.effort : 0;
    // With nothing to do its spring brings it home through the free travel as well, where friction lets it.
    const home_N = up_N === 0 && rod.effort === 0 ? Math.min(0, down_N) : 0;
    const aims = ((short_N + home_N) * give) / RESPONSE.rod_s;
    const fastest = pushes
      ? Math.max(0, speedOf_mPerS(p, rod.effort - Math.max(0, foot_N), feed.effort))
      : Infinity;
    const speed = Math.min(aims, fastest);
    dy[from] = rod.passed > 0 || speed > 0 ? speed : 0;
    const pressed = input_N >= p.crack_N;
    const roused = y[from + 1]!;
    const delay_s = Math.max(1e-3, p.delay_s);
    dy[from + 1] = pressed ? (roused < 1 ? 1 / delay_s : 0) : -roused / delay_s;
    const over_V = feed.effort - p.cutOff_V;
    const current_A = this.current_A(y, at);
    const up_A = Math.min(p.limit_A, current_A + RESPONSE.ahead_A) - y[from + 2]!;
    const within =
      over_V > 0
        ? Math.max(-1, Math.min(1, up_A / RESPONSE.last_A))
        : Math.min(1, Math.max(0, y[from + 2]!) / RESPONSE.last_A);
    dy[from + 2] = RESPONSE.limits_APerVs * over_V * within;
    const power_W = holdingPower_W(p, current_A);
    feed.passed = feed.effort > 0 && most_A > 0 ? power_W / Math.max(feed.effort, p.cutOff_V / 2) : 0;
  }

  /** Its sensor as its control unit reads it: supply and both tracks, none while it has no power. */
  private sensor(y: Float64Array): readonly [supply: number, track1: number, track2: number] {
    const isOn = y[this.place.from + 2]! > RESPONSE.last_A;
    return isOn ? [this.p.sensor_V, ...tracksAt(this.p, this.rod.passed)] : [0, 0, 0];
  }

  parts(y: Float64Array, at: Instant, out: PartsNow): void {
    const { p, rod } = this;
    out.foot = { at: p.pedalRatio * (at.hands as Hands).pedal_N, of: FAR.foot_N };
    out.rod = { at: rod.passed, of: FAR.rod_m };
    out.awake = { at: this.awake ? 1 : Math.min(0.99, Math.max(0, y[this.place.from + 1]!)), of: 1 };
    const [, track1, track2] = this.sensor(y);
    out.track1 = { at: track1, of: FAR.track_V };
    out.track2 = { at: track2, of: FAR.track_V };
    out.motor = { at: this.current_A(y, at), of: p.limit_A };
  }

  tells(y: Float64Array, _at: Instant, out: Told): void {
    const [sensorSupply, track1, track2] = this.sensor(y);
    if (sensorSupply > 0) Object.assign(out, { sensorSupply, track1, track2 });
  }

  shown(y: Float64Array, at: Instant, shown: Float64Array): void {
    const { p, rod } = this;
    const [supply_V, track1, track2] = this.sensor(y);
    shown[this.at.pedal!] = (at.hands as Hands).pedal_N;
    shown[this.at.motor!] = this.current_A(y, at);
    shown[this.at.sensor!] = supply_V;
    shown[this.at['track-1']!] = track1;
    shown[this.at['track-2']!] = track2;
    // On a bench nobody reads how far the lever goes.
    if (this.at.travel !== undefined) shown[this.at.travel] = p.pedalRatio * rod.passed;
  }
}

/** Over time, with what true gauges on some ports show. */
export const motionOn = (ports: readonly Port[]): Motion => ({
  states,
  parts,
  stages,
  commands: [PEDAL_COMMAND],
  owns: [],
  with: (parameters, place) => new ElectromechanicalMotion(parameters, place, ports),
});
