import type { FlowAt } from '../fluid/charging';
import { orificeFlow_m3PerS } from '../fluid/fluid-pump';
import { powerOutput_N, type PowerPiston } from '../fluid/power-piston';
import type { NodeNow, PartsNow } from '../model/motion';
import { pistonOf, type Powered } from './power-booster';
import { circle_m2 } from './profile-fields';

/** States of a spool with its power piston. */
export const powerStates = [
  { id: 'rod_m', name: 'Way of the rod', quantity: 'travel', scale: 1e-5 },
  { id: 'filled', name: 'Part of the spool’s volume that is filled', quantity: 'ratio', scale: 1e-2 },
] as const;

/** How a booster of ordinary make answers; no verdict rests on these, and the steady end does not know them. */
const RESPONSE = {
  /** The rod comes to where it belongs within this time, s. Handbook-models 8.4. */
  rod_s: 0.03,
  /** Widest opening of the spool inwards, m. Handbook-models 8.4. */
  inlet_m: 3e-3,
  /** Most that a soft load gives at rest, m/N. */
  most_mPerN: 1e-3,
  /** A spool that is pressed fills, and one that is released lets its volume go, within this time, s. */
  spool_s: 0.2,
} as const;

/** Figures at the far end of a drawing. */
const FAR = { piston_m: 0.016, chamber_Pa: 1e7 } as const;

/** The way out of a chamber of ordinary make, m². Handbook-models 8.4. */
export const USUAL_EXHAUST_M2 = circle_m2(3e-3);

/**
 * A spool and its power piston over time, their two states in a row among others. The rod goes to where its output belongs; what it
 * takes on the way passes an opening, and so does what it lets back. Its end is the closed form. Handbook-models 8.4.
 */
export class PowerMotion {
  private readonly piston: PowerPiston;

  constructor(
    private readonly p: Powered,
    private readonly rod: NodeNow,
    /** Place of its first state. */
    private readonly from: number,
    private readonly density_kgPerM3: number,
    private readonly exhaust_m2 = USUAL_EXHAUST_M2,
  ) {
    this.piston = pistonOf(p);
  }

  /** Writes how far the rod has moved. */
  moved(y: Float64Array): void {
    this.rod.passed = Math.max(0, y[this.from]!);
  }

  /** What it would make of an input with any pressure that it asks for, N. */
  asked_N(input_N: number): number {
    return powerOutput_N(this.piston, input_N, Infinity);
  }

  /** What its chamber holds against a force of the rod, Pa. */
  chamber_Pa(input_N: number, force_N: number): number {
    return Math.max(0, (force_N + this.p.spring_N - input_N) / this.p.area_m2);
  }

  /**
   * Writes the rates of its two states.
   *
   * @param available_Pa pressure before the spool
   * @param least_N force that the rod is pushed with whatever the spool does
   * @param leaks what leaves the chamber at a pressure where nothing feeds it and nothing goes back, m³/s; null where it is fed
   * @returns what it takes of that, m³/s
   */
  rates(
    y: Float64Array,
    dy: Float64Array,
    input_N: number,
    available_Pa: number,
    least_N = 0,
    leaks: FlowAt | null = null,
  ): number {
    const { p, rod, from } = this;
    const aims_N = Math.max(least_N, powerOutput_N(this.piston, input_N, available_Pa));
    const give = Math.min(RESPONSE.most_mPerN, rod.give(Math.max(rod.effort, aims_N / 2)));
    // With nothing to do it is brought home by its spring, through the free travel of the rod as well.
    const short_N = (aims_N > 0 ? aims_N : -p.spring_N) - rod.effort;
    const aims = (short_N * give) / RESPONSE.rod_s;
    // Through the spool: in from what stands above the chamber, out by what stands in it.
    const chamber_Pa = this.chamber_Pa(input_N, rod.effort);
    const most = this.through_mPerS(INLET_M2, Math.max(0, available_Pa - chamber_Pa));
    // An open spool keeps the way out shut: what has come stays where its vessel has run out.
    const isHeld = leaks !== null && this.asked_N(input_N) > rod.effort;
    const least = isHeld ? leaks(chamber_Pa) / p.area_m2 : this.through_mPerS(this.exhaust_m2, chamber_Pa);
    // With nothing before the spool the rod goes by the foot alone.
    const foot = input_N - p.spring_N > rod.effort ? Infinity : most;
    const speed = Math.max(-least, Math.min(aims, Math.max(most, foot)));
    const moves = rod.passed > 0 || speed > 0 ? speed : 0;
    const pressed = input_N > p.opens_N ? 1 : 0;
    // Where the foot goes ahead, what feeds an open spool follows it.
    const draws = moves > 0 && (pressed || chamber_Pa > 0) ? p.area_m2 * moves : 0;
    // What a spool lets go with each release it takes from what feeds it.
    const fills_PerS = (pressed - y[from + 1]!) / RESPONSE.spool_s;
    const lets = fills_PerS < 0 ? p.spool_m3 * -fills_PerS : 0;
    dy[from] = moves;
    dy[from + 1] = fills_PerS;
    return draws + lets;
  }

  /** Writes where its parts are. */
  parts(y: Float64Array, input_N: number, out: PartsNow): void {
    const { p, rod, from } = this;
    out.spool = { at: input_N > p.opens_N ? 1 : 0, of: 1 };
    out.piston = { at: Math.max(0, y[from]!), of: FAR.piston_m };
    out.chamber = { at: rod.effort > 0 ? this.chamber_Pa(input_N, rod.effort) : 0, of: FAR.chamber_Pa };
  }

  /** How fast the piston goes where an opening lets fluid through at a difference, m/s. */
  private through_mPerS(area_m2: number, difference_Pa: number): number {
    return orificeFlow_m3PerS(area_m2, difference_Pa, this.density_kgPerM3) / this.p.area_m2;
  }
}
const INLET_M2 = circle_m2(RESPONSE.inlet_m);
