import { USUAL_SETTLING_S, Vessel, type Around, type Charge } from '../../fluid/accumulator';
import { filledTo, stoodLeaking, timeUntilFallen_s, type FilledPast } from '../../fluid/charging';
import { landLeak_m3 } from '../../fluid/hydraulic-fluid';
import { letThrough_Pa, residualPressure_Pa, type MeteringSpool } from '../../fluid/metering-valve';
import { mineral_PaS, mineralLeakOf_m3 } from '../../fluid/mineral-fluid';
import { Remembered } from '../../numeric/remembered';
import type { Vector } from '../../model/descriptor';
import { circuitOf, sharedOf, type CircuitParameters, type SharedParameters, type Side } from './parameters';

/** Lands of a distribution valve past which a circuit leaks by design, and how far a spool lies out of the middle of its bore. */
const LANDS = 2;
const LIES_OUT = 0.5;

/** A pump that has not filled a circuit by then never does, s: the engine is stopped. */
export const LONGEST_S = 120;
/** Gas has settled after this, s: more than five times the time in which it cools. Handbook-models P.1. */
export const SETTLES_S = 120;
/** Light applications follow each other so, s. */
export const EVERY_S = 5;

/** Cycles that are followed while the other circuit is still charged: one that goes on after these ticks. */
const MOST_CYCLES = 6;

/** Leak coefficient of the distribution valve’s lands by design, m³. Handbook-models P.2, 8.6. */
export const landsOf_m3 = (
  { clearance_m }: Pick<CircuitParameters, 'clearance_m'>,
  { landDiameter_m, landLength_m }: Pick<SharedParameters, 'landDiameter_m' | 'landLength_m'>,
): number =>
  LANDS *
  landLeak_m3({ diameter_m: landDiameter_m, length_m: landLength_m, clearance_m, eccentricity: LIES_OUT });

export const vesselOf = ({ shell_m3, preCharge_Pa }: CircuitParameters, around: Around): Vessel =>
  new Vessel({ shell_m3, preCharge_Pa, settling_s: USUAL_SETTLING_S }, around);

/** What leaves a circuit at 1 Pa, m³/s: by design and outside while the pump is let in, through the check valve too while it is not. */
export interface Leaks {
  readonly charging_m3PerSPa: number;
  readonly standing_m3PerSPa: number;
}

/** What leaks out of a circuit with its fluid so warm: the height valve lives on the rear one. */
export function leaksOf(vector: Vector, side: Side, fluid_K: number): Leaks {
  const p = circuitOf(vector, side);
  const shared = sharedOf(vector);
  const viscosity_PaS = shared.thickness * mineral_PaS(fluid_K);
  const height_m3PerS = side === 'rear' ? shared.heightLeak_m3PerS : 0;
  const lost_m3 = landsOf_m3(p, shared) + mineralLeakOf_m3(p.outside_m3PerS + height_m3PerS);
  return {
    charging_m3PerSPa: lost_m3 / viscosity_PaS,
    standing_m3PerSPa: (lost_m3 + mineralLeakOf_m3(p.check_m3PerS)) / viscosity_PaS,
  };
}

type Valve = Pick<CircuitParameters, 'area_m2' | 'opens_N' | 'friction_N'>;

const spoolOf = ({ area_m2, opens_N, friction_N }: Valve): MeteringSpool => ({
  area_m2,
  preload_N: opens_N,
  friction_N,
});

/** Pressure that a valve lets into the brakes at a force on it, Pa: nothing comes without a foot. Handbook-models 8.6. */
export const letIn_Pa = (valve: Valve, input_N: number, way: 'up' | 'down', stored_Pa: number): number =>
  input_N <= 0 ? 0 : letThrough_Pa(spoolOf(valve), input_N, way, 0, Math.max(0, stored_Pa));

/** Left in the brakes with the pedal released, Pa: what friction holds against the return spring. */
export const residual_Pa = (valve: Valve): number => residualPressure_Pa(spoolOf(valve), 0);

/** What circuits have come to: a diagnosis changes one thing of a car at a time, and most of it leaves a circuit as it was. */
const TOLD = new Remembered(20_000);

/** One circuit with its accumulator, at rest: charged by its pump, left alone, drawn from. Handbook-models P.1, P.2, 8.6. */
export class Circuit {
  private made: Vessel | null = null;
  private key: string | null = null;
  private filled: FilledPast | null = null;

  constructor(
    readonly p: CircuitParameters,
    private readonly around: Around,
    private readonly leaks: Leaks,
    private readonly pump_m3PerS: number,
  ) {}

  /** Its accumulator: most readings need none. */
  private get vessel(): Vessel {
    this.made ??= vesselOf(this.p, this.around);
    return this.made;
  }

  /** A number that costs much, worked out once for all circuits that are alike in what it follows from. */
  private told(what: string, work: () => number): number {
    const { p, around, leaks } = this;
    this.key ??= [
      p.shell_m3,
      p.preCharge_Pa,
      p.in_Pa,
      p.out_Pa,
      p.lamp_Pa,
      around.barometer_Pa,
      around.temperature_K,
      leaks.charging_m3PerSPa,
      leaks.standing_m3PerSPa,
      this.pump_m3PerS,
    ].join();
    return TOLD.tell(`${what} ${this.key}`, work);
  }

  flickUp_Pa(): number {
    return this.told('flick', () => (this.pump_m3PerS > 0 ? Math.max(0, this.vessel.flickUp_Pa) : 0));
  }

  /** Where all that the pump gives leaks away again, Pa. */
  private get ceiling_Pa(): number {
    return this.pump_m3PerS / this.leaks.charging_m3PerSPa;
  }

  private readonly gains = (pressure_Pa: number): number =>
    Math.max(0, this.pump_m3PerS - this.leaks.charging_m3PerSPa * pressure_Pa);

  private readonly stands = (pressure_Pa: number): number => this.leaks.standing_m3PerSPa * pressure_Pa;

  private get stops(): boolean {
    return this.ceiling_Pa > this.p.out_Pa;
  }

  /** Charged from empty up to a pressure, past its lamp. */
  private filledTo(until_Pa: number): FilledPast {
    if (this.ceiling_Pa <= until_Pa)
      return { charge: this.vessel.empty, time_s: Infinity, passed_s: Infinity };
    return filledTo(this.vessel, this.vessel.empty, until_Pa, this.gains, this.p.lamp_Pa);
  }

  /** Charged up to the cut-out: the lamp on the way there, its time and what settles from it are told by one filling. */
  private get full(): FilledPast {
    this.filled ??= this.filledTo(this.p.out_Pa);
    return this.filled;
  }

  /** Time from empty until its lamp is out, s; no longer than a pump is let run. */
  lampOff_s(): number {
    const { lamp_Pa, out_Pa } = this.p;
    const onTheWay = this.stops && lamp_Pa < out_Pa;
    return this.told('lamp', () =>
      Math.min(LONGEST_S, onTheWay ? this.full.passed_s : this.filledTo(lamp_Pa).time_s),
    );
  }

  /** Time from empty until it is cut out, s; no longer than a pump is let run. */
  chargeTime_s(): number {
    return this.told('charge', () => Math.min(LONGEST_S, this.full.time_s));
  }

  cutOut_Pa(): number {
    return this.stops ? this.p.out_Pa : this.ceiling_Pa;
  }

  cutIn_Pa(): number {
    return this.stops ? this.p.in_Pa : this.ceiling_Pa;
  }

  /**
   * Charged from empty, the engine stopped then, and left until the gas has settled, Pa. Who is full before the other cools meanwhile,
   * and its pump is let in again where cooling takes it down to the cut-in.
   *
   * @param stopped_s when the engine is stopped, from empty
   */
  settled_Pa(stopped_s: number): number {
    return this.told(`settled ${stopped_s}`, () => this.settledBy_Pa(stopped_s));
  }

  private settledBy_Pa(stopped_s: number): number {
    const { vessel, p } = this;
    const settles = (charge: Charge) => vessel.gauge_Pa(stoodLeaking(vessel, charge, SETTLES_S, this.stands));
    if (!this.stops) return settles(vessel.settledAt(Math.min(p.out_Pa, this.ceiling_Pa)));
    let { charge, time_s } = this.full;
    for (let cycle = 0; time_s < stopped_s && cycle < MOST_CYCLES; cycle += 1) {
      const off_s = timeUntilFallen_s(vessel, charge, p.in_Pa, this.stands, stopped_s - time_s);
      charge = stoodLeaking(vessel, charge, off_s, this.stands);
      time_s += off_s;
      if (time_s >= stopped_s) break;
      const again = filledTo(vessel, charge, p.out_Pa, this.gains);
      charge = again.charge;
      time_s += again.time_s;
    }
    return settles(charge);
  }

  /** After standing with the engine off from settled gas, Pa. */
  left_Pa(stored_Pa: number, time_s: number): number {
    if (time_s <= 0) return stored_Pa;
    return this.told(`left ${stored_Pa} ${time_s}`, () => {
      const { vessel } = this;
      return vessel.gauge_Pa(stoodLeaking(vessel, vessel.settledAt(stored_Pa), time_s, this.stands));
    });
  }

  /** Time that it stands with the engine off, from settled gas, until its lamp lights; no longer than it is watched, s. */
  toLamp_s(stored_Pa: number, watch_s: number): number {
    return this.told(`stands ${stored_Pa} ${watch_s}`, () => {
      const { vessel } = this;
      return timeUntilFallen_s(vessel, vessel.settledAt(stored_Pa), this.p.lamp_Pa, this.stands, watch_s);
    });
  }

  /** After some applications in a row with the engine off, Pa. @param taken_m3 by each of them */
  kept_Pa(stored_Pa: number, applications: number, taken_m3: number): number {
    if (applications < 1) return stored_Pa;
    return this.told(`kept ${stored_Pa} ${applications} ${taken_m3}`, () => {
      const { vessel } = this;
      const from: Charge = vessel.settledAt(stored_Pa);
      const draws = (pressure_Pa: number) => taken_m3 / EVERY_S + this.stands(pressure_Pa);
      return vessel.gauge_Pa(stoodLeaking(vessel, from, applications * EVERY_S, draws));
    });
  }
}
