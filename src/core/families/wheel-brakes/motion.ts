import { brakeGive_m3PerPa, pressureOf_Pa, TAKEN_UP_AT_PA } from '../../fluid/closed-line';
import { heldBack_Pa } from '../../fluid/held-back';
import type { Vector } from '../../model/descriptor';
import {
  inputAt,
  type Instant,
  type Motion,
  type Moving,
  type NodeNow,
  type PartsNow,
  type Place,
} from '../../model/motion';
import { portPlaces } from '../vehicle-ports';
import { named, type Parameters } from './member';

/** Force that takes a rod through its free travel, N: no gauge shows it. */
const FREE_N = 10;
/** Time in which fluid that has gone past the seals is made good once the port at the end of the stroke is open, s. */
const REFILL_S = 0.1;

/** Figures at the far end of a drawing. */
const FAR = { master_m: 0.016, brakes_Pa: 1e7 } as const;

const PORT = portPlaces('front', 'rear');

/**
 * Wheel brakes over time: the rod has displaced A_mc·(x − x₀), less what went past the master's seals; the pressure is the
 * one at which clearances, air and give have taken that up. Handbook-models 10 and “Loads on fluid lines”.
 */
class WheelBrakesMotion implements Moving {
  private readonly p: Parameters;
  private readonly rod: NodeNow;
  private readonly barometer_Pa: number;
  /** The line while the clearances are taken up, and what it holds then, m³. */
  private readonly takingUp: { readonly air_m3: number; readonly stiffness_m3PerPa: number };
  private readonly takenUp_m3: number;

  constructor(
    vector: Vector,
    private readonly place: Place,
  ) {
    const p = named(vector);
    this.p = p;
    this.rod = place.nodes[0]!;
    this.barometer_Pa = inputAt(place, 'barometer_Pa');
    this.takingUp = {
      air_m3: p.air_m3,
      stiffness_m3PerPa: p.stiffness_m3PerPa + p.takeUp_m3 / TAKEN_UP_AT_PA,
    };
    this.takenUp_m3 =
      p.takeUp_m3 +
      p.stiffness_m3PerPa * TAKEN_UP_AT_PA +
      (p.air_m3 * TAKEN_UP_AT_PA) / (this.barometer_Pa + TAKEN_UP_AT_PA);
    this.rod.give = (force_N) => this.give(force_N);
  }

  /** How much further the rod goes for a little more force, m/N. */
  private give(force_N: number): number {
    const { masterArea_m2, freeTravel_m } = this.p;
    if (force_N <= 0) return freeTravel_m / FREE_N;
    const pressure_Pa = force_N / masterArea_m2;
    return brakeGive_m3PerPa(this.p, pressure_Pa, this.barometer_Pa) / masterArea_m2 ** 2;
  }

  private pressure_Pa(displaced_m3: number): number {
    return displaced_m3 < this.takenUp_m3
      ? pressureOf_Pa(this.takingUp, displaced_m3, this.barometer_Pa)
      : pressureOf_Pa(this.p, displaced_m3 - this.p.takeUp_m3, this.barometer_Pa);
  }

  atRest(): number[] {
    return [0];
  }

  efforts(y: Float64Array): void {
    const { masterArea_m2, freeTravel_m } = this.p;
    const displaced_m3 = masterArea_m2 * (this.rod.passed - freeTravel_m) - y[this.place.from]!;
    this.rod.effort = masterArea_m2 * this.pressure_Pa(displaced_m3);
  }

  rates(y: Float64Array, dy: Float64Array): void {
    const { bypass_m3PerSPa, masterArea_m2, freeTravel_m } = this.p;
    const { from } = this.place;
    dy[from] =
      this.rod.passed <= freeTravel_m
        ? -y[from]! / REFILL_S
        : (bypass_m3PerSPa * this.rod.effort) / masterArea_m2;
  }

  private get front_Pa(): number {
    return this.rod.effort / this.p.masterArea_m2;
  }

  private get rear_Pa(): number {
    return this.p.rearOpen * heldBack_Pa(this.p, this.front_Pa);
  }

  parts(_y: Float64Array, _at: Instant, out: PartsNow): void {
    out.master = { at: this.rod.passed, of: FAR.master_m };
    out.frontBrakes = { at: this.front_Pa, of: FAR.brakes_Pa };
    out.rearBrakes = { at: this.rear_Pa, of: FAR.brakes_Pa };
  }

  shown(_y: Float64Array, _at: Instant, shown: Float64Array): void {
    shown[PORT.front] = this.front_Pa;
    shown[PORT.rear] = this.rear_Pa;
  }
}

export const motion: Motion = {
  states: [{ id: 'lost_m3', name: 'Fluid past the master’s seals', quantity: 'volume', scale: 1e-8 }],
  parts: [
    { id: 'master', name: 'Pistons of the master', quantity: 'travel' },
    { id: 'frontBrakes', name: 'Front brakes', quantity: 'pressure' },
    { id: 'rearBrakes', name: 'Rear brakes', quantity: 'pressure' },
  ],
  commands: [],
  owns: ['rod'],
  with: (parameters, place) => new WheelBrakesMotion(parameters, place),
};
