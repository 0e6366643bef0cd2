import { orificeFlow_m3PerS } from '../../fluid/fluid-pump';
import { density_kgPerM3 } from '../../fluid/hydraulic-fluid';
import { powerOutput_N } from '../../fluid/power-piston';
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
  type Place,
  type Turn,
} from '../../model/motion';
import { GLYCOL, glycol_PaS } from '../../fluid/brake-fluid';
import type { PumpHands } from '../bench-hands';
import { inputOf_N, pistonOf } from '../power-booster';
import { circle_m2 } from '../profile-fields';
import { PEDAL_COMMAND } from '../vehicle-hands';
import { lostAt_m3PerS, named, relievedAt_m3PerS, vesselOf, type Parameters } from './member';

const states = [
  ...vesselStates('', 'the accumulator'),
  { id: 'sensed_Pa', name: 'Pressure at the switch', quantity: 'pressure', scale: 1e5 },
  { id: 'rod_m', name: 'Way of the rod', quantity: 'travel', scale: 1e-5 },
  { id: 'filled', name: 'Part of the spool’s volume that is filled', quantity: 'ratio', scale: 1e-2 },
] as const;

/** How a booster of ordinary make answers; no verdict rests on these, and the steady end does not know them. */
const RESPONSE = {
  /** The rod comes to where it belongs within this time, s. Handbook-models 8.4. */
  rod_s: 0.03,
  /** Widest opening of the spool, in and out, m. Handbook-models 8.4. */
  inlet_m: 3e-3,
  exhaust_m: 3e-3,
  /** Most that a soft load gives at rest, m/N. */
  most_mPerN: 1e-3,
  /** A spool that is pressed fills, and one that is released lets its volume go, within this time, s. */
  spool_s: 0.2,
} as const;

/** What can be done by hand to a motor-pump booster. */
// A type and no interface: only so is it one of `Hands`.
type BoosterHands = PumpHands & {
  readonly pedal_N: number;
  readonly press_NPerS: number;
  /** Whether the switch is bridged, so that the pump goes on. */
  readonly bridged: boolean;
};

const BRIDGE_COMMAND: Command = { kind: 'switch', id: 'bridged', name: 'Switch bridged', usual: false };

/**
 * A motor-pump booster over time: nitrogen with its heat, a switch that answers late, the spool and its rod. What the rod takes of
 * the accumulator passes an opening, and so does what it lets back. Handbook-models P.1, P.5, 8.4, 8.5.
 */
class MotorPumpBoosterMotion implements Moving {
  readonly turns: readonly Turn[];
  private readonly p: Parameters;
  private readonly vessel: VesselMotion;
  private readonly viscosity_PaS: number;
  private readonly charge: NodeNow;
  private readonly rod: NodeNow;
  private readonly density_kgPerM3: number;
  private readonly at: Readonly<Record<string, number>>;
  /** The switch is closed. */
  private on: boolean;

  constructor(
    vector: Vector,
    private readonly place: Place,
    ports: readonly Port[],
  ) {
    // Fluid that has stood in the room.
    const fluid_K = inputAt(place, 'temperature_K');
    this.p = named(vector);
    const around = {
      barometer_Pa: inputAt(place, 'barometer_Pa'),
      temperature_K: inputAt(place, 'temperature_K'),
    };
    this.vessel = new VesselMotion(vesselOf(this.p, around), place.from);
    this.viscosity_PaS = glycol_PaS(fluid_K);
    this.density_kgPerM3 = density_kgPerM3(GLYCOL, fluid_K);
    [this.charge, this.rod] = place.nodes as [NodeNow, NodeNow];
    this.at = Object.fromEntries(ports.map(({ id }, i) => [id, i]));
    this.on = this.p.in_Pa > 0;
    const { in_Pa, out_Pa } = this.p;
    const sensed = place.from + 2;
    this.turns = [
      {
        beyond: (y) => (this.on ? y[sensed]! - out_Pa : in_Pa - y[sensed]!),
        flip: () => {
          this.on = !this.on;
        },
      },
    ];
  }

  atRest(): number[] {
    return [...this.vessel.atRest(), 0, 0, 0];
  }

  efforts(y: Float64Array, at: Instant): void {
    this.charge.effort = this.vessel.gauge_Pa(y);
    this.charge.asks = this.on || (at.hands as BoosterHands).bridged;
    this.rod.passed = Math.max(0, y[this.place.from + 3]!);
  }

  rates(y: Float64Array, dy: Float64Array, at: Instant): void {
    const { p, vessel, rod, charge } = this;
    const { from } = this.place;
    const { pedal_N } = at.hands as BoosterHands;
    const stored_Pa = charge.effort;
    const input_N = inputOf_N(p, pedal_N);
    const aims_N = powerOutput_N(pistonOf(p), input_N, stored_Pa);
    const give = Math.min(RESPONSE.most_mPerN, rod.give(Math.max(rod.effort, aims_N / 2)));
    const aims = ((aims_N - rod.effort) * give) / RESPONSE.rod_s;
    // Through the spool: in from what stands above the chamber, out by what stands in it.
    const chamber_Pa = Math.max(0, (rod.effort + p.spring_N - input_N) / p.area_m2);
    const most = this.through_mPerS(RESPONSE.inlet_m, Math.max(0, stored_Pa - chamber_Pa));
    const least = this.through_mPerS(RESPONSE.exhaust_m, chamber_Pa + p.spring_N / p.area_m2);
    // With nothing stored the rod goes by the foot alone.
    const foot = input_N - p.spring_N > rod.effort ? Infinity : most;
    const speed = Math.max(-least, Math.min(aims, Math.max(most, foot)));
    const moves = rod.passed > 0 || speed > 0 ? speed : 0;
    const draws = moves > 0 && chamber_Pa > 0 ? p.area_m2 * moves : 0;
    // What a spool lets go with each release it takes from what is stored.
    const pressed = input_N > p.opens_N ? 1 : 0;
    const fills_PerS = (pressed - y[from + 4]!) / RESPONSE.spool_s;
    const lets = fills_PerS < 0 ? p.spool_m3 * -fills_PerS : 0;
    const lost = lostAt_m3PerS(p, this.viscosity_PaS, stored_Pa) + relievedAt_m3PerS(p, stored_Pa);
    const into = charge.passed - draws - lets - lost;
    vessel.rates(y, dy, into);
    dy[from + 2] = (stored_Pa - y[from + 2]!) / Math.max(1e-3, p.delay_s);
    dy[from + 3] = moves;
    dy[from + 4] = fills_PerS;
  }

  /** How fast the piston goes where an opening lets fluid through at a difference, m/s. */
  private through_mPerS(diameter_m: number, difference_Pa: number): number {
    return orificeFlow_m3PerS(circle_m2(diameter_m), difference_Pa, this.density_kgPerM3) / this.p.area_m2;
  }

  shown(y: Float64Array, at: Instant, shown: Float64Array): void {
    shown[this.at.pedal!] = (at.hands as BoosterHands).pedal_N;
    shown[this.at.supply!] = this.vessel.gauge_Pa(y);
    // On a bench nobody reads how far the lever goes.
    if (this.at.travel !== undefined) shown[this.at.travel] = this.p.pedalRatio * this.rod.passed;
  }
}

/** Over time, with what true gauges on some ports show. */
export const motionOn = (ports: readonly Port[]): Motion => ({
  states,
  commands: [PEDAL_COMMAND, BRIDGE_COMMAND],
  owns: ['charge'],
  with: (parameters, place) => new MotorPumpBoosterMotion(parameters, place, ports),
});
